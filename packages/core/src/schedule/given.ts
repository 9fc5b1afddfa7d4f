import type { WorkingTime } from '../calendar/workingTime';
import { daysByRate } from '../linear/length';
import type { Outline } from '../outline/outline';
import { type Activity, isMilestone, type Plan } from '../plan/schema';
import type { GivenDates, Network } from './model';
import { finishSlot, NONE, startSlot } from './slots';
import { inOrder } from './stretches';

/** Dates of one activity as its source states them. */
export interface StatedDates {
  start: number;
  finish: number;
  /** False for a point in time that stands at the beginning of its day. */
  atFinish: boolean;
}

/** Complete is what has an actual finish or 100 percent, and a point in time with any actual date. */
export const isComplete = (a: Activity): boolean =>
  a.actualFinish !== null || (a.percent ?? 0) >= 100 || (isPoint(a) && a.actualStart !== null);

/** True for milestones without work of their own. */
export const isPoint = (a: Activity): boolean => isMilestone(a.kind) && (a.duration ?? 0) === 0;

/**
 * What the source states of when an activity happens, completed from its length where one date is missing; null
 * where it states no date. Actual dates go before planned ones: what has happened is what the source means. What is
 * complete without an actual finish has happened on its given dates, but not after the status date.
 */
export function statedDates(
  a: Activity,
  time: WorkingTime,
  slotMinutes: number,
  statusDate: number | null,
): StatedDates | null {
  return isPoint(a) ? pointDates(a, statusDate) : workDates(a, time, slotMinutes, statusDate);
}

function pointDates(a: Activity, statusDate: number | null): StatedDates | null {
  const happened = a.actualStart !== null || a.actualFinish !== null;
  const [start, finish] = happened ? [a.actualStart, a.actualFinish] : [a.start, a.finish];
  const atFinish = finish !== null && (a.kind === 'finishMilestone' || start === null);
  const moment = atFinish ? finish : start;
  if (moment === null) return null;
  const at = !happened && isComplete(a) ? notAfter(moment, statusDate) : moment;
  return { start: at, finish: at, atFinish };
}

function workDates(a: Activity, time: WorkingTime, slotMinutes: number, statusDate: number | null): StatedDates | null {
  const worked = inOrder(a.stretches);
  const start = a.actualStart ?? a.start ?? worked[0]?.start ?? null;
  const finish = a.actualFinish ?? a.finish ?? worked.at(-1)?.finish ?? null;
  if (start === null && finish === null) return null;
  const length = lengthOf(a, time, slotMinutes, start, finish);
  const startFrom = (end: number) =>
    length > 0 ? time.startOf(finishSlot(end, slotMinutes), length) * slotMinutes : end;
  const finishFrom = (begin: number) =>
    length > 0 ? time.finishOf(time.firstStart(startSlot(begin, slotMinutes)), length) * slotMinutes : begin;
  // Without a length and an end it is a point at the beginning of the day that is named.
  const atFinish = finish !== null || length > 0;
  const stated = { start: start ?? startFrom(finish!), finish: finish ?? finishFrom(start!), atFinish };
  if (a.actualFinish !== null || !isComplete(a)) return stated;
  const end = notAfter(stated.finish, statusDate);
  const begun = a.actualStart ?? (stated.start < end || end === stated.finish ? stated.start : startFrom(end));
  return { start: Math.min(begun, end), finish: end, atFinish };
}

/** Working slots that the rate of the work or its daily output gives, up to whole ones; 0 where it states neither. */
export const slotsByRate = (a: Activity, time: WorkingTime): number => {
  const days = daysByRate(a) ?? 0;
  return Math.ceil(days * (time.slotsPerDay === 1 ? 1 : time.spec.minutesPerDay) - 1e-9);
};

/** Working slots of an activity: its duration, else what lies between its dates. */
function lengthOf(
  a: Activity,
  time: WorkingTime,
  slotMinutes: number,
  start: number | null,
  finish: number | null,
): number {
  if (a.duration === null)
    return start === null || finish === null
      ? slotsByRate(a, time)
      : Math.max(0, time.between(startSlot(start, slotMinutes), finishSlot(finish, slotMinutes)));
  return time.slotsPerDay === 1 ? Math.round(a.duration / time.spec.minutesPerDay) : a.duration;
}

const notAfter = (moment: number, statusDate: number | null): number =>
  statusDate === null ? moment : Math.min(moment, statusDate);

/** The stated dates of all activities that are no summaries, in arrays. */
export function readGivenDates(plan: Plan, outline: Outline, net: Network): GivenDates {
  const n = plan.activities.length;
  const given: GivenDates = {
    start: new Int32Array(n).fill(NONE),
    finish: new Int32Array(n).fill(NONE),
    atFinish: new Uint8Array(n),
  };
  for (let i = 0; i < n; i++) takeGiven(plan, outline, net, given, i);
  return given;
}

/** Reads the stated dates of one activity again. */
export function takeGiven(plan: Plan, outline: Outline, net: Network, given: GivenDates, i: number): void {
  if (outline.isSummary[i] && outline.children[i]!.length > 0) return;
  const stated = statedDates(plan.activities[i]!, net.times[net.calendarOf[i]!]!, net.slotMinutes, plan.statusDate);
  given.start[i] = stated ? stated.start : NONE;
  given.finish[i] = stated ? stated.finish : NONE;
  given.atFinish[i] = stated?.atFinish ? 1 : 0;
}
