import type { WorkingTime } from '../calendar/workingTime';
import { daysByRate } from '../linear/length';
import type { Outline } from '../outline/outline';
import { type Activity, isMilestone, type Plan } from '../plan/schema';
import { statusEnd } from '../plan/status';
import type { GivenDates, Network } from './model';
import { finishSlot, NONE, startSlot } from './slots';
import { inOrder } from './stretches';

/** Where a shown date comes from, in the order in which one goes before the other. */
export const ORIGINS = ['unknown', 'actual', 'stated', 'computed', 'expected', 'asPromised'] as const;
export type Origin = (typeof ORIGINS)[number];
/** Positions in {@link ORIGINS}, as they stand in the arrays of a schedule. */
export const UNKNOWN = 0;
export const ACTUAL = 1;
export const STATED = 2;
export const COMPUTED = 3;
export const EXPECTED = 4;
export const AS_PROMISED = 5;

/** Dates of one activity as its source states them, or as they are worked out from what it states. */
export interface StatedDates {
  start: number;
  finish: number;
  /** False for a point in time that stands at the beginning of its day. */
  atFinish: boolean;
  /** Where each end comes from; an end that is unknown stands where the other is. */
  startFrom: number;
  finishFrom: number;
}

/** Complete is what has an actual finish or 100 percent, and a point in time with any actual date. */
export const isComplete = (a: Activity): boolean =>
  a.actualFinish !== null || (a.percent ?? 0) >= 100 || (isPoint(a) && a.actualStart !== null);

/** True for milestones without work of their own. */
export const isPoint = (a: Activity): boolean => isMilestone(a.kind) && (a.duration ?? 0) === 0;

/** What the dates of an activity hang on beside what it states itself. */
export interface Bounds {
  /** The moment up to which everything is history, or null. */
  status: number | null;
  /** Whether what has only promised dates happens as it was promised. */
  asPromised: boolean;
}

/** What the dates of a plan's activities hang on. */
export const boundsOf = (plan: Pick<Plan, 'statusDate' | 'asPromised'>): Bounds => ({
  status: statusEnd(plan),
  asPromised: plan.asPromised,
});

/**
 * What the source states of when an activity happens, completed from its length where one date is missing; null
 * where nothing says when. Actual dates go before planned ones: what has happened is what the source means. An end
 * that is not stated is expected: what is under way ends when what remains of it is done, or when its length is over,
 * and not before it could; where it states no length, the promised one counts. What is complete without an actual
 * finish has happened on its given dates, but not after the status date.
 */
export function statedDates(a: Activity, time: WorkingTime, slotMinutes: number, bounds: Bounds): StatedDates | null {
  return isPoint(a) ? pointDates(a, bounds) : workDates(a, time, slotMinutes, bounds);
}

function pointDates(a: Activity, { status, asPromised }: Bounds): StatedDates | null {
  const happened = a.actualStart !== null || a.actualFinish !== null;
  const stated = happened || a.start !== null || a.finish !== null;
  const held = happened
    ? [a.actualStart, a.actualFinish]
    : stated
      ? [a.start, a.finish]
      : asPromised && a.promised
        ? [a.promised.start, a.promised.finish]
        : [null, null];
  const [start, finish] = held as [number | null, number | null];
  const atFinish = finish !== null && (a.kind === 'finishMilestone' || start === null);
  const moment = atFinish ? finish : start;
  if (moment === null) return null;
  const at = !happened && isComplete(a) ? notAfter(moment, status) : moment;
  const from = happened ? ACTUAL : stated ? STATED : AS_PROMISED;
  return { start: at, finish: at, atFinish, startFrom: from, finishFrom: from };
}

function workDates(a: Activity, time: WorkingTime, slotMinutes: number, bounds: Bounds): StatedDates | null {
  const worked = inOrder(a.stretches);
  const start = a.actualStart ?? a.start ?? worked[0]?.start ?? null;
  const finish = a.actualFinish ?? a.finish ?? worked.at(-1)?.finish ?? null;
  if (start === null && finish === null) return promisedDates(a, time, slotMinutes, bounds);
  const length = lengthOf(a, time, slotMinutes, start, finish);
  const startFrom = (end: number) =>
    length > 0 ? time.startOf(finishSlot(end, slotMinutes), length) * slotMinutes : end;
  // Without a length and an end it is a point at the beginning of the day that is named.
  const stated: StatedDates = {
    start: start ?? startFrom(finish!),
    finish: finish ?? expectedFinish(a, time, slotMinutes, bounds, start!, length),
    atFinish: finish !== null || length > 0,
    startFrom: a.actualStart !== null ? ACTUAL : start !== null ? STATED : length > 0 ? EXPECTED : UNKNOWN,
    finishFrom: a.actualFinish !== null ? ACTUAL : finish !== null ? STATED : length > 0 ? EXPECTED : UNKNOWN,
  };
  if (a.actualFinish !== null || !isComplete(a)) return stated;
  const end = notAfter(stated.finish, bounds.status);
  const begun = a.actualStart ?? (stated.start < end || end === stated.finish ? stated.start : startFrom(end));
  return { ...stated, start: Math.min(begun, end), finish: end };
}

/** Dates of what states none: as promised, where a person has said so. */
function promisedDates(a: Activity, time: WorkingTime, slotMinutes: number, bounds: Bounds): StatedDates | null {
  if (!bounds.asPromised || !a.promised) return null;
  const { start, finish } = a.promised;
  const dated = workDates({ ...a, start, finish, promised: null }, time, slotMinutes, bounds);
  if (!dated) return null;
  const as = (from: number) => (from === UNKNOWN ? UNKNOWN : AS_PROMISED);
  return { ...dated, startFrom: as(dated.startFrom), finishFrom: as(dated.finishFrom) };
}

/**
 * When work of a length that began, or is to begin, at a moment ends. What is under way with a stated remainder or
 * percent still takes that from the status date on; else its length counts from its start, but what is open ends on
 * the next working slot at the earliest.
 */
function expectedFinish(
  a: Activity,
  time: WorkingTime,
  slotMinutes: number,
  { status }: Bounds,
  start: number,
  length: number,
): number {
  if (length === 0) return start;
  const whole = time.finishOf(time.firstStart(startSlot(start, slotMinutes)), length);
  if (a.actualStart === null || status === null || isComplete(a)) return whole * slotMinutes;
  const resume = time.firstStart(Math.max(startSlot(start, slotMinutes), finishSlot(status, slotMinutes)));
  const left = leftOf(a, time, length);
  return (left === null ? Math.max(whole, resume + 1) : left > 0 ? time.finishOf(resume, left) : resume) * slotMinutes;
}

/** Slots that are still to be worked, by a stated remainder or percent; null where neither is stated. */
function leftOf(a: Activity, time: WorkingTime, length: number): number | null {
  if (a.remaining !== null)
    return time.slotsPerDay === 1 ? Math.round(a.remaining / time.spec.minutesPerDay) : a.remaining;
  if (a.percent === null || a.percent === 0) return null;
  return Math.max(1, length - Math.floor((length * Math.round(a.percent * 1000)) / 100_000));
}

/** Working slots that the rate of the work or its daily output gives, up to whole ones; 0 where it states neither. */
export const slotsByRate = (a: Activity, time: WorkingTime): number => {
  const days = daysByRate(a) ?? 0;
  return Math.ceil(days * (time.slotsPerDay === 1 ? 1 : time.spec.minutesPerDay) - 1e-9);
};

/** Working slots of an activity: its duration, else what lies between its dates, its rate gives, or was promised. */
function lengthOf(
  a: Activity,
  time: WorkingTime,
  slotMinutes: number,
  start: number | null,
  finish: number | null,
): number {
  if (a.duration !== null)
    return time.slotsPerDay === 1 ? Math.round(a.duration / time.spec.minutesPerDay) : a.duration;
  if (start !== null && finish !== null) return slotsBetween(time, slotMinutes, start, finish);
  return slotsByRate(a, time) || promisedSlots(a, time, slotMinutes);
}

const slotsBetween = (time: WorkingTime, slotMinutes: number, from: number, to: number): number =>
  Math.max(0, time.between(startSlot(from, slotMinutes), finishSlot(to, slotMinutes)));

/** Working slots between the dates that were promised; 0 where one of them is missing. */
export const promisedSlots = ({ promised }: Activity, time: WorkingTime, slotMinutes: number): number =>
  !promised || promised.start === null || promised.finish === null
    ? 0
    : slotsBetween(time, slotMinutes, promised.start, promised.finish);

const notAfter = (moment: number, status: number | null): number =>
  status === null ? moment : Math.min(moment, status);

/** The stated dates of all activities that are no summaries, in arrays. */
export function readGivenDates(plan: Plan, outline: Outline, net: Network): GivenDates {
  const n = plan.activities.length;
  const given: GivenDates = {
    start: new Int32Array(n).fill(NONE),
    finish: new Int32Array(n).fill(NONE),
    atFinish: new Uint8Array(n),
    startFrom: new Uint8Array(n),
    finishFrom: new Uint8Array(n),
  };
  const bounds = boundsOf(plan);
  for (let i = 0; i < n; i++) takeGiven(plan, outline, net, given, i, bounds);
  return given;
}

/** Reads the stated dates of one activity again. */
export function takeGiven(
  plan: Plan,
  outline: Outline,
  net: Network,
  given: GivenDates,
  i: number,
  bounds: Bounds = boundsOf(plan),
): void {
  if (outline.isSummary[i] && outline.children[i]!.length > 0) return;
  const stated = statedDates(plan.activities[i]!, net.times[net.calendarOf[i]!]!, net.slotMinutes, bounds);
  given.start[i] = stated ? stated.start : NONE;
  given.finish[i] = stated ? stated.finish : NONE;
  given.atFinish[i] = stated?.atFinish ? 1 : 0;
  given.startFrom[i] = stated?.startFrom ?? UNKNOWN;
  given.finishFrom[i] = stated?.finishFrom ?? UNKNOWN;
}
