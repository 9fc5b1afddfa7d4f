import type { WorkingTime } from '../calendar/workingTime';
import { type ClosedWindow, type FlowPoint, flowline, type LinearWork, placeAt, timesAt } from './flowline';

/** What has to lie between a leader and its follower: days at every place, and distance at every time. */
export interface Buffer {
  days: number;
  distance: number;
}

/** A place at which a follower comes closer than the buffer. Negative gaps are lines that cross. */
export interface Clash {
  leader: string;
  follower: string;
  place: number;
  /** When the follower is there. */
  time: number;
  /** Days between the two at that place, or the distance between them at that time. */
  gap: number;
  measure: 'days' | 'distance';
}

/**
 * All places where the gap between two flowlines can be least: the ends and kinks of both that lie on both. Work
 * that only begins where other work ends shares no place with it.
 */
function places(a: readonly FlowPoint[], b: readonly FlowPoint[]): number[] {
  const [[lowA, highA], [lowB, highB]] = [placesOf(a), placesOf(b)];
  const [low, high] = [Math.max(lowA, lowB), Math.min(highA, highB)];
  if (high - low < 1e-9) return [];
  const list = [low, high];
  // What rounding puts a hair outside lies at the end.
  for (const points of [a, b])
    for (const { place } of points)
      if (place >= low - 1e-9 && place <= high + 1e-9) list.push(Math.min(high, Math.max(low, place)));
  list.sort((x, y) => x - y);
  return list.filter((place, k) => k === 0 || place !== list[k - 1]);
}

/** The lowest and the highest place of a flowline. */
export function placesOf(points: readonly FlowPoint[]): [low: number, high: number] {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const { place } of points) {
    if (place < low) low = place;
    if (place > high) high = place;
  }
  return [low, high];
}

/** The least gap in days between a leader and its follower, and where it is; null where they share no place. */
export function leastGap(
  leader: readonly FlowPoint[],
  follower: readonly FlowPoint[],
): { place: number; time: number; gap: number } | null {
  let least: { place: number; time: number; gap: number } | null = null;
  for (const place of places(leader, follower)) {
    const [a, b] = [timesAt(leader, place), timesAt(follower, place)];
    if (!a || !b) continue;
    const gap = b.first - a.last;
    if (!least || gap < least.gap - 1e-9) least = { place, time: b.first, gap };
  }
  return least;
}

/**
 * The least distance by which a leader is ahead of its follower, and where and when; null where they are never on
 * the line together. Both go the way of the leader, or the distance is that between two places.
 */
export function leastDistance(
  leader: readonly FlowPoint[],
  follower: readonly FlowPoint[],
): { place: number; time: number; gap: number } | null {
  const way = Math.sign(leader.at(-1)!.place - leader[0]!.place) || 1;
  let least: { place: number; time: number; gap: number } | null = null;
  const times = [...new Set([...leader, ...follower].map((p) => p.time))].sort((a, b) => a - b);
  for (const time of times) {
    const [a, b] = [placeAt(leader, time), placeAt(follower, time)];
    if (a === null || b === null) continue;
    const gap = way * (a - b);
    if (!least || gap < least.gap - 1e-9) least = { place: b, time, gap };
  }
  return least;
}

/** What a follower must not run into: its leader, held back along the way by a distance. */
const heldBack = (points: readonly FlowPoint[], distance: number): FlowPoint[] => {
  const way = Math.sign(points.at(-1)!.place - points[0]!.place) || 1;
  return points.map((p) => ({ time: p.time, place: p.place - way * distance }));
};

/**
 * The clashes of a follower with the leader before it: where the days between them are least and where the distance
 * is, if that is less than the buffer.
 */
export function clashesOf(
  leader: { ref: string; points: FlowPoint[] },
  follower: { ref: string; points: FlowPoint[] },
  buffer: Buffer,
): Clash[] {
  const named = { leader: leader.ref, follower: follower.ref };
  const days = leastGap(leader.points, follower.points);
  const distance = buffer.distance > 0 ? leastDistance(leader.points, follower.points) : null;
  const found: Clash[] = [];
  if (days && days.gap < buffer.days - 1e-9) found.push({ ...named, ...days, measure: 'days' });
  if (distance && distance.gap < buffer.distance - 1e-6) found.push({ ...named, ...distance, measure: 'distance' });
  return found;
}

/** Of two lines, first the one that leads at all places that they share; where they cross, the one that is there first. */
export function inOrder<T extends { points: FlowPoint[] }>(a: T, b: T): [leader: T, follower: T] {
  const [ab, ba] = [leastGap(a.points, b.points), leastGap(b.points, a.points)];
  if (!ab || !ba) return [a, b];
  if (Math.max(ab.gap, ba.gap) >= -1e-9) return ab.gap >= ba.gap ? [a, b] : [b, a];
  const shared = places(a.points, b.points);
  const enters = (points: FlowPoint[]) => Math.min(...shared.map((p) => timesAt(points, p)!.first));
  return enters(a.points) <= enters(b.points) ? [a, b] : [b, a];
}

/** Clashes of each follower with the leader before it. */
export const findClashes = (lines: { ref: string; points: FlowPoint[] }[], buffer: Buffer): Clash[] =>
  lines.slice(1).flatMap((follower, k) => clashesOf(lines[k]!, follower, buffer));

/** Work that occupies a section of the line for a time. */
export interface Block {
  ref: string;
  from: number;
  to: number;
  start: number;
  finish: number;
}

/** Places and times that two blocks both occupy. */
export function blockClashes(
  blocks: readonly Block[],
): { refs: [string, string]; from: number; to: number; start: number; finish: number }[] {
  const found: { refs: [string, string]; from: number; to: number; start: number; finish: number }[] = [];
  blocks.forEach((a, i) => {
    for (const b of blocks.slice(i + 1)) {
      const [from, to] = [
        Math.max(Math.min(a.from, a.to), Math.min(b.from, b.to)),
        Math.min(Math.max(a.from, a.to), Math.max(b.from, b.to)),
      ];
      const [start, finish] = [Math.max(a.start, b.start), Math.min(a.finish, b.finish)];
      if (from < to && start < finish) found.push({ refs: [a.ref, b.ref], from, to, start, finish });
    }
  });
  return found;
}

/** Where and when a flowline first runs into a block; null where it does not. */
export function meetsBlock(points: readonly FlowPoint[], block: Block): { place: number; time: number } | null {
  for (let k = 1; k < points.length; k++) {
    const [a, b] = [points[k - 1]!, points[k]!];
    const timeAt = (place: number) =>
      b.place === a.place ? a.time : a.time + ((b.time - a.time) * (place - a.place)) / (b.place - a.place);
    if (Math.max(a.place, b.place) <= block.from || Math.min(a.place, b.place) >= block.to) continue;
    const inside = (place: number) => Math.min(block.to, Math.max(block.from, place));
    const enters = b.place === a.place ? a.time : timeAt(inside(a.place));
    const leaves = b.place === a.place ? b.time : timeAt(inside(b.place));
    const time = Math.max(enters, block.start);
    // Who leaves as the other comes does not meet it.
    if (time >= Math.min(leaves, block.finish) - 1e-6) continue;
    return { place: placeAt(points, time)!, time };
  }
  return null;
}

/** Work that follows other work along a line, in its own calendar (null: every day) and with its closed windows. */
export interface Trade {
  work: LinearWork;
  time: WorkingTime | null;
  windows: readonly ClosedWindow[];
}

/**
 * Starts of consecutive trades so that each keeps the buffer from those before it at every place, and none is
 * interrupted but by its calendar and by closed windows. With constant rates this is the rule of the line of
 * balance: a slower follower is held at its start, a faster one at its finish.
 *
 * @param start the earliest day of the first trade
 * @param buffer what lies between consecutive trades at any place and time
 */
export function startsWithBuffer(
  trades: readonly Trade[],
  start: number,
  buffer: Buffer,
): { ref: string; start: number; finish: number; points: FlowPoint[] }[] {
  const placed: { ref: string; start: number; finish: number; points: FlowPoint[] }[] = [];
  for (const { work, time, windows } of trades) {
    const startAt = (at: number) => flowline(work, at, time, windows);
    const met = startAt(start);
    const leaders = placed.filter((p) => leastGap(p.points, met) !== null);
    const points = leaders.length > 0 ? startAt(earliestBehind(leaders, startAt, buffer)) : met;
    placed.push({ ref: work.ref, start: points[0]!.time, finish: points.at(-1)!.time, points });
  }
  return placed;
}

/** As {@link earliestOfAll}, for one work. */
export const earliestBehind = (
  leaders: readonly { start: number; finish: number; points: FlowPoint[] }[],
  startAt: (at: number) => FlowPoint[],
  buffer: Buffer,
  notBefore = Number.NEGATIVE_INFINITY,
): number => earliestOfAll(leaders, (at) => [startAt(at)], buffer, Math.max(notBefore, ...leaders.map((l) => l.start)));

/**
 * The earliest start, not before a day of its own, at which works that start together keep the buffer from their
 * leaders. Who starts later is nowhere earlier, so what keeps it can be halved in on; behind the finish of all leaders
 * it is always kept.
 */
export function earliestOfAll(
  leaders: readonly { finish: number; points: FlowPoint[] }[],
  startAt: (at: number) => FlowPoint[][],
  buffer: Buffer,
  notBefore: number,
): number {
  const behind = buffer.distance > 0 ? leaders.map((l) => heldBack(l.points, buffer.distance)) : [];
  const keeps = (at: number) =>
    startAt(at).every((points) => {
      const apart = (line: FlowPoint[], days: number) => (leastGap(line, points)?.gap ?? days) >= days - 1e-9;
      return leaders.every((l) => apart(l.points, buffer.days)) && behind.every((line) => apart(line, 0));
    });
  if (keeps(notBefore)) return notBefore;
  let [not, kept] = [notBefore, Math.max(...leaders.map((l) => l.finish)) + buffer.days];
  while (kept - not > 1e-9) {
    const middle = (not + kept) / 2;
    if (middle === not || middle === kept) break;
    if (keeps(middle)) kept = middle;
    else not = middle;
  }
  // The last digits are those of halving.
  const plain = Math.round(kept * 1e6) / 1e6;
  return keeps(plain) ? plain : kept;
}

/**
 * Repetitive work in units: trades follow each other through the same units in the same order, each with one crew
 * and without interruption. The start of a trade is the earliest at which no unit is begun before the trade before
 * has left it (D. G. Carr & W. L. Meyer, "Planning construction of repetitive building units", ASCE 1974).
 *
 * @param durations days of each trade (outer) in each unit (inner)
 */
export function unitStarts(durations: readonly (readonly number[])[]): { start: number; finish: number }[] {
  const placed: { start: number; finish: number }[] = [];
  durations.forEach((days, j) => {
    let start = 0;
    if (j > 0) {
      const before = durations[j - 1]!;
      if (before.length !== days.length)
        throw new RangeError(`trade ${j + 1} has ${days.length} units, the one before it ${before.length}`);
      let [left, reached] = [placed[j - 1]!.start, 0];
      before.forEach((d, k) => {
        left += d;
        start = Math.max(start, left - reached);
        reached += days[k]!;
      });
    }
    placed.push({ start, finish: start + days.reduce((a, b) => a + b, 0) });
  });
  return placed;
}
