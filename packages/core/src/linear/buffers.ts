import type { WorkingTime } from '../calendar/workingTime';
import { type ClosedWindow, type FlowPoint, flowline, type LinearWork, timesAt } from './flowline';

/** A place at which a follower comes closer than the buffer. Negative gaps are lines that cross. */
export interface Clash {
  leader: string;
  follower: string;
  place: number;
  /** When the follower is there. */
  time: number;
  /** Days between the two at that place. */
  gap: number;
  buffer: number;
}

/** All places where the gap between two flowlines can be least: the ends and kinks of both that lie on both. */
function places(a: readonly FlowPoint[], b: readonly FlowPoint[]): number[] {
  const range = (p: readonly FlowPoint[]) =>
    [Math.min(...p.map((x) => x.place)), Math.max(...p.map((x) => x.place))] as const;
  const [lowA, highA] = range(a);
  const [lowB, highB] = range(b);
  const [low, high] = [Math.max(lowA, lowB), Math.min(highA, highB)];
  if (low > high + 1e-9) return [];
  return [...new Set([low, high, ...a.map((p) => p.place), ...b.map((p) => p.place)])]
    .filter((p) => p >= low - 1e-9 && p <= high + 1e-9)
    .sort((x, y) => x - y);
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

/** Clashes of each follower with the leader before it: the place where the gap is least, where that is less than the buffer. */
export function findClashes(lines: { ref: string; points: FlowPoint[] }[], buffer: number): Clash[] {
  return lines.slice(1).flatMap((follower, k) => {
    const leader = lines[k]!;
    const least = leastGap(leader.points, follower.points);
    if (!least || least.gap >= buffer - 1e-9) return [];
    return [{ leader: leader.ref, follower: follower.ref, ...least, buffer }];
  });
}

/** Work that occupies a stretch of the line for a time. */
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

/**
 * Starts of consecutive trades so that each keeps the buffer from the one before it at every place, and none is
 * interrupted but by its calendar and by closed windows. With constant rates this is the rule of the line of
 * balance: a slower follower is held at its start, a faster one at its finish.
 *
 * @param start the earliest day of the first trade
 * @param buffer days between consecutive trades at any place
 */
export function startsWithBuffer(
  works: readonly LinearWork[],
  start: number,
  buffer: number,
  time: WorkingTime | null = null,
  windows: readonly ClosedWindow[] = [],
): { ref: string; start: number; finish: number; points: FlowPoint[] }[] {
  const placed: { ref: string; start: number; finish: number; points: FlowPoint[] }[] = [];
  for (const work of works) {
    const leader = placed.at(-1);
    let at = leader ? leader.start : start;
    let points = flowline(work, at, time, windows);
    // Each round moves the start by what is missing; with a calendar or windows several rounds may be needed.
    for (let round = 0; leader && round < 10_000; round++) {
      const least = leastGap(leader.points, points);
      if (!least || least.gap >= buffer - 1e-9) break;
      at = points[0]!.time + Math.max(buffer - least.gap, 1e-6);
      points = flowline(work, at, time, windows);
    }
    placed.push({ ref: work.ref, start: points[0]!.time, finish: points.at(-1)!.time, points });
  }
  return placed;
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
