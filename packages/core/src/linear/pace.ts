import type { WorkingTime } from '../calendar/workingTime';
import { type ClosedWindow, flowline, linearDuration, type LinearWork } from './flowline';

/** No work of a plan takes longer: its flowline is walked from working day to working day. */
export const MOST_DAYS = 20_000;

/** A work at all its rates times a factor. */
export const paced = (work: LinearWork, factor: number): LinearWork => ({
  ...work,
  rates: work.rates.map((r) => ({ ...r, perDay: r.perDay * factor })),
});

/**
 * By how much a work has to be faster to be done at a time: the slowest pace that is done by then, with days off and
 * closed windows. Null where a thousand times its own would not do.
 *
 * @param start when it begins, and `finish` when it is to be done; days as fractions of a day number
 */
export function paceFor(
  work: LinearWork,
  start: number,
  time: WorkingTime | null,
  windows: readonly ClosedWindow[],
  finish: number,
): number | null {
  const endAt = (factor: number) => flowline(paced(work, factor), start, time, windows).at(-1)!.time;
  let [slow, fast] = [Math.max(1 / 1000, linearDuration(work) / MOST_DAYS), 1000];
  if (endAt(fast) > finish) return null;
  for (let k = 0; k < 80 && fast / slow > 1 + 1e-12; k++) {
    const middle = Math.sqrt(slow * fast);
    if (endAt(middle) <= finish) fast = middle;
    else slow = middle;
  }
  return fast;
}
