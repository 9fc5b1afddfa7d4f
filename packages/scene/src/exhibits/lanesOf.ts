import type { Plan } from '@clembo/core';
import { RESPONSIBLE } from '../brief/parts';
import type { LaneLevel } from '../page/lanes';
import { codeTitles } from './timeline/codes';

/** The lanes that an activity belongs to: one for each of those who are responsible, else that of its code. */
export function laneCodes(plan: Plan, position: number, field: string): string[] {
  const a = plan.activities[position]!;
  if (field !== RESPONSIBLE) return [a.codes[field] ?? ''];
  return a.responsible.length > 0 ? [...new Set(a.responsible)] : [''];
}

/** Titles and order of lanes: those of a book, or people in the order in which the plan names them. */
export function laneTitles(plan: Plan, field: string): LaneLevel {
  if (field !== RESPONSIBLE) return codeTitles(plan, field, []);
  const people = [...new Set(plan.activities.flatMap((a) => a.responsible))];
  const ranks = new Map(people.map((name, k) => [name, k]));
  return {
    title: (code) => code || 'Nobody named',
    colour: () => null,
    rank: (code) => (code === '' ? Number.MAX_SAFE_INTEGER : (ranks.get(code) ?? people.length)),
  };
}

/** So many rounds of moves are tried. */
const ROUNDS = 4;

/**
 * Lanes in an order in which those that share things are neighbours, where there is one near the given order: each lane
 * in turn goes to where the things of several lanes are stretched over the fewest others, as long as that helps.
 *
 * @param sets the lanes of each thing
 */
export function neighbourly(order: readonly string[], sets: readonly (readonly string[])[]): string[] {
  const lanes = new Map(order.map((code, lane) => [code, lane]));
  const several = sets.map((set) => set.flatMap((code) => lanes.get(code) ?? [])).filter((set) => set.length > 1);
  if (several.length === 0 || order.length < 3) return [...order];
  let best = order.map((_, lane) => lane);
  for (let round = 0; round < ROUNDS; round++) {
    const before = best;
    for (let lane = 0; lane < order.length; lane++) {
      const costs = stretchedWith(lane, best, several);
      const least = costs.reduce((a, b) => Math.min(a, b));
      if (least === costs[best.indexOf(lane)]) continue;
      const others = best.filter((other) => other !== lane);
      const to = costs.indexOf(least);
      best = [...others.slice(0, to), lane, ...others.slice(to)];
    }
    if (best === before) break;
  }
  return best.map((lane) => order[lane]!);
}

/**
 * Over how many lanes things are stretched with a lane at each place among the others, but for what is the same at
 * all: in time that grows with the sizes of the sets, and with the lanes for those that hold the lane.
 */
function stretchedWith(lane: number, order: readonly number[], sets: readonly (readonly number[])[]): Int32Array {
  const place = new Int32Array(order.length);
  const own = order.indexOf(lane);
  for (let k = 0; k < order.length; k++) place[order[k]!] = k > own ? k - 1 : k;
  // By how much it is more at each place than at the one before.
  const steps = new Int32Array(order.length + 1);
  for (const set of sets) {
    let first = order.length;
    let last = -1;
    let holds = false;
    for (const other of set) {
      if (other === lane) holds = true;
      else {
        const at = place[other]!;
        if (at < first) first = at;
        if (at > last) last = at;
      }
    }
    if (holds) {
      // Before the first and behind the last it stretches them by one more a place; between them it costs the same.
      steps[0]! += first;
      for (let k = 1; k <= first; k++) steps[k]!--;
      for (let k = last + 2; k < order.length; k++) steps[k]!++;
    } else {
      // Only between them it is in the way.
      steps[first + 1]!++;
      steps[last + 1]!--;
    }
  }
  for (let k = 1; k < order.length; k++) steps[k]! += steps[k - 1]!;
  return steps.subarray(0, order.length);
}

/** Where a thing of several lanes stands among them. */
export interface LaneSpan {
  first: number;
  last: number;
  /** Lanes of it that it does not reach, since others lie between. */
  rest: string[];
}

/** The lanes of a thing, where they are neighbours; else the first of them. */
export function spanOf(codes: readonly string[], order: readonly string[]): LaneSpan {
  const places = codes
    .map((code) => order.indexOf(code))
    .filter((k) => k >= 0)
    .sort((a, b) => a - b);
  const [first = 0, last = first] = [places[0], places.at(-1)];
  if (last - first + 1 === places.length) return { first, last, rest: [] };
  return { first, last: first, rest: places.slice(1).map((k) => order[k]!) };
}
