import type { WorkingTime } from '../calendar/workingTime';
import { type Activity, isMilestone, type Plan, type Stretch } from '../plan/schema';
import type { Schedule } from './model';
import { finishSlot, NONE, startSlot } from './slots';

/** The stretches of interrupted work by their start. */
export const inOrder = (list: readonly Stretch[]): readonly Stretch[] =>
  list.length < 2 ? list : [...list].sort((x, y) => x.start - y.start);

/** Working slots of an activity's stretches together. */
export const stretchedWork = (a: Activity, time: WorkingTime, slotMinutes: number): number =>
  a.stretches.reduce((sum, s) => sum + Math.max(0, workIn(s, time, slotMinutes)), 0);

const workIn = (s: Stretch, time: WorkingTime, m: number): number =>
  time.between(startSlot(s.start, m), finishSlot(s.finish, m));

/**
 * Work and pauses of interrupted work, in slots of its calendar: work, pause, work … The stretches say where the
 * pauses are; how much work there is, the duration says: the last stretch takes what is left of it.
 */
function pattern(a: Activity, time: WorkingTime, m: number, work: number): number[] {
  const list = inOrder(a.stretches);
  const lengths: number[] = [];
  let left = work;
  for (let k = 0; k < list.length && left > 0; k++) {
    const stretch = list[k]!;
    if (k > 0) lengths.push(Math.max(0, time.between(finishSlot(list[k - 1]!.finish, m), startSlot(stretch.start, m))));
    const own = k === list.length - 1 ? left : Math.min(left, Math.max(0, workIn(stretch, time, m)));
    lengths.push(own);
    left -= own;
  }
  return lengths;
}

/** Pauses of interrupted work that come after so much of its work is done, in slots of its calendar. */
export function pausesAfter(a: Activity, time: WorkingTime, slotMinutes: number, work: number, done: number): number {
  if (a.stretches.length < 2) return 0;
  let [worked, paused] = [0, 0];
  pattern(a, time, slotMinutes, work).forEach((length, k) => {
    if (k % 2 === 0) worked += length;
    else if (worked > done) paused += length;
  });
  return paused;
}

/**
 * The stretches in which an activity is worked, as moments, at the dates that are shown: as stated while these are
 * the given ones, and moved as a whole with the activity when they are computed. They begin at its start and end at
 * its finish. One stretch for uninterrupted work.
 */
export function stretchesAt(plan: Plan, s: Schedule, position: number): { start: number; finish: number }[] {
  const a = plan.activities[position]!;
  const [start, finish] = [s.start[position]!, s.finish[position]!];
  if (start === NONE) return [];
  if (a.stretches.length < 2 || isMilestone(a.kind)) return [{ start, finish }];
  const stated = inOrder(a.stretches);
  if (stated[0]!.start === start && stated.at(-1)!.finish === finish) return [...stated];
  const net = s.network;
  const m = net.slotMinutes;
  const time = net.times[net.calendarOf[position]!]!;
  const first = time.rank(startSlot(start, m));
  const pauses = pausesAfter(a, time, m, stretchedWork(a, time, m), -1);
  let at = first;
  const pieces = pattern(a, time, m, Math.max(1, time.rank(finishSlot(finish, m)) - first - pauses)).flatMap(
    (length, k) => {
      const begin = at;
      at += length;
      if (k % 2 === 1 || length === 0) return [];
      return [{ start: time.select(begin) * m, finish: (time.select(at - 1) + 1) * m }];
    },
  );
  const kept = pieces.filter((p) => p.start < finish);
  if (kept.length === 0) return [{ start, finish }];
  kept[0]!.start = start;
  kept.at(-1)!.finish = finish;
  return kept;
}
