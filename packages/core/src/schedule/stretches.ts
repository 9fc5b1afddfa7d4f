import type { WorkingTime } from '../calendar/workingTime';
import { type Activity, isMilestone, type Plan } from '../plan/schema';
import { finishSlot, NONE, startSlot } from './slots';
import type { Schedule } from './schedule';

/** Work and pauses of an activity whose work is interrupted, in slots of its calendar: work, pause, work … */
function pattern(a: Activity, time: WorkingTime, slotMinutes: number): number[] {
  const list = [...a.stretches].sort((x, y) => x.start - y.start);
  const lengths: number[] = [];
  list.forEach((s, k) => {
    const from = startSlot(s.start, slotMinutes);
    if (k > 0) lengths.push(Math.max(0, time.between(finishSlot(list[k - 1]!.finish, slotMinutes), from)));
    lengths.push(Math.max(0, time.between(from, finishSlot(s.finish, slotMinutes))));
  });
  return lengths;
}

/** Working time within an activity in which it pauses: what its span is longer than its work. */
export const pausedSlots = (a: Activity, time: WorkingTime, slotMinutes: number): number =>
  a.stretches.length < 2
    ? 0
    : pattern(a, time, slotMinutes).reduce((sum, length, k) => sum + (k % 2 === 1 ? length : 0), 0);

/**
 * The stretches in which an activity is worked, as moments, at the dates that are shown: as stated while these are
 * the given ones, and moved as a whole with the activity when they are computed. One stretch for uninterrupted work.
 */
export function stretchesAt(plan: Plan, s: Schedule, position: number): { start: number; finish: number }[] {
  const a = plan.activities[position]!;
  const [start, finish] = [s.start[position]!, s.finish[position]!];
  if (start === NONE) return [];
  if (a.stretches.length < 2 || isMilestone(a.kind)) return [{ start, finish }];
  const stated = [...a.stretches].sort((x, y) => x.start - y.start);
  if (stated[0]!.start === start && stated.at(-1)!.finish === finish) return stated;
  const net = s.network;
  const v = net.nodeOf[position]!;
  if (v < 0) return [{ start, finish }];
  const time = net.times[net.calendar[v]!]!;
  let at = time.rank(startSlot(start, net.slotMinutes));
  return pattern(a, time, net.slotMinutes).flatMap((length, k) => {
    const begin = at;
    at += length;
    if (k % 2 === 1 || length === 0) return [];
    return [{ start: time.select(begin) * net.slotMinutes, finish: (time.select(at - 1) + 1) * net.slotMinutes }];
  });
}
