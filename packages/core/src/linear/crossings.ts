import { placesOf } from './buffers';
import { type FlowPoint, placeAt } from './flowline';

/** Where and when two works are at one place at one time. */
export interface Crossing {
  place: number;
  time: number;
}

const HAIR = 1e-9;

/**
 * All places and times at which two flowlines meet: where they cross or touch, and where they begin to go along
 * together; the earliest first. A work is on its way from its start up to its end, which is not part of it, so that
 * one that begins where and when another ends does not meet it. Both are straight between the times at which either
 * has a kink, so that between two such times they meet once at the most, or all the way.
 */
export function crossingsOf(a: readonly FlowPoint[], b: readonly FlowPoint[]): Crossing[] {
  const from = Math.max(a[0]!.time, b[0]!.time);
  const to = Math.min(a.at(-1)!.time, b.at(-1)!.time);
  if (to - from < HAIR || sharedStretch(a, b) < HAIR) return [];
  const times = [...new Set([from, to, ...[...a, ...b].map((p) => p.time).filter((t) => t > from && t < to)])].sort(
    (x, y) => x - y,
  );
  const apart = times.map((t) => placeAt(a, t)! - placeAt(b, t)!);
  const found: Crossing[] = [];
  const put = (time: number) => found.push({ time, place: placeAt(a, time)! });
  let together = false;
  for (let k = 0; k < times.length; k++) {
    const meets = Math.abs(apart[k]!) < HAIR;
    // The end is not part of the way.
    if (meets && !together && k < times.length - 1) put(times[k]!);
    together = meets;
    if (k === times.length - 1 || meets || Math.abs(apart[k + 1]!) < HAIR) continue;
    if (Math.sign(apart[k]!) === Math.sign(apart[k + 1]!)) continue;
    const share = apart[k]! / (apart[k]! - apart[k + 1]!);
    put(times[k]! + share * (times[k + 1]! - times[k]!));
  }
  return found;
}

/** The length of the stretch of line that both work on. */
function sharedStretch(a: readonly FlowPoint[], b: readonly FlowPoint[]): number {
  const [[lowA, highA], [lowB, highB]] = [placesOf(a), placesOf(b)];
  return Math.min(highA, highB) - Math.max(lowA, lowB);
}
