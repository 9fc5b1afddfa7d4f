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
  const several = sets.filter((s) => s.length > 1);
  let best = [...order];
  if (several.length === 0 || order.length < 3) return best;
  const cost = (lanes: readonly string[]): number => {
    const at = new Map(lanes.map((code, k) => [code, k]));
    return several.reduce((sum, set) => {
      const places = set.map((code) => at.get(code) ?? 0);
      return sum + Math.max(...places) - Math.min(...places) + 1 - set.length;
    }, 0);
  };
  let least = cost(best);
  for (let round = 0; round < ROUNDS && least > 0; round++)
    for (const code of order) {
      const others = best.filter((c) => c !== code);
      for (let k = 0; k <= others.length; k++) {
        const tried = [...others.slice(0, k), code, ...others.slice(k)];
        const now = cost(tried);
        if (now < least) [best, least] = [tried, now];
      }
    }
  return best;
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
