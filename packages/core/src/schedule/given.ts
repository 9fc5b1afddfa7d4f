import type { Outline } from '../outline/outline';
import { isMilestone, type Plan } from '../plan/schema';
import { type Network } from './network';
import { finishSlot, NONE, startSlot } from './slots';

/** Dates as the source states them, completed from the duration where one of the two is missing. */
export interface GivenDates {
  start: Int32Array;
  finish: Int32Array;
  /** 1 for a point in time given by its finish. */
  atFinish: Uint8Array;
}

/** Actual dates go before planned ones: what has happened is what the source means. */
export function readGivenDates(plan: Plan, outline: Outline, net: Network): GivenDates {
  const n = plan.activities.length;
  const given: GivenDates = {
    start: new Int32Array(n).fill(NONE),
    finish: new Int32Array(n).fill(NONE),
    atFinish: new Uint8Array(n),
  };
  const own =
    net.times[
      Math.max(
        0,
        plan.calendars.findIndex((c) => c.id === plan.calendar),
      )
    ]!;
  const byId = new Map(net.times.map((t) => [t.spec.id, t]));
  for (let i = 0; i < n; i++) {
    const a = plan.activities[i]!;
    if (outline.isSummary[i] && outline.children[i]!.length > 0) continue;
    const start = a.actualStart ?? a.start;
    const finish = a.actualFinish ?? a.finish;
    if (start === null && finish === null) continue;
    const time = (a.calendar !== null && byId.get(a.calendar)) || own;
    const length =
      a.duration === null
        ? 0
        : net.resolution === 'day'
          ? Math.round(a.duration / time.spec.minutesPerDay)
          : a.duration;
    const m = net.slotMinutes;
    if (isMilestone(a.kind) && length === 0) {
      const byFinish = finish !== null && (a.kind === 'finishMilestone' || start === null);
      given.start[i] = given.finish[i] = (byFinish ? finish : start)!;
      given.atFinish[i] = byFinish ? 1 : 0;
      continue;
    }
    given.atFinish[i] = 1;
    given.start[i] = start ?? (length > 0 ? time.startOf(finishSlot(finish!, m), length) * m : finish!);
    given.finish[i] =
      finish ?? (length > 0 ? time.finishOf(time.firstStart(startSlot(start!, m)), length) * m : start!);
  }
  return given;
}
