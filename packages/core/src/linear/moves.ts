import { workingTimeOf } from '../calendar/workingTime';
import type { Command } from '../commands/command';
import { datedOn, shownDays } from '../commands/dating';
import { calendarOf } from '../plan/calendars';
import type { Activity, Plan } from '../plan/schema';
import { isComplete } from '../schedule/given';
import type { Schedule } from '../schedule/model';
import { type Day, MINUTES_PER_DAY, type Moment, startOfDay } from '../time/civil';
import { flowline, type FlowPoint, linearDuration, type LinearWork } from './flowline';
import { paceIsOfDates } from './length';
import { paced, paceFor } from './pace';
import { plannedFlow } from './planned';
import type { PlannedWork } from './works';

/** What a person does to a work along a line: its start, its end (by its rate), its direction, its crews, its rate. */
export type LineMove =
  | { do: 'start'; day: number }
  | { do: 'finish'; day: number }
  | { do: 'turn' }
  | { do: 'crews'; crews: number }
  | { do: 'pace'; factor: number };

/** A work along a line as it would be, and the command that makes it so. */
export interface MovedWork {
  work: LinearWork;
  points: FlowPoint[];
  command: Command;
}

type Part = Partial<Omit<Activity, 'ref'>>;

/** What a moment in fractions of a day may be off by, in minutes. */
const MINUTE_HAIR = 1e-4;

/** Whether something of it has happened. */
export const hasBegun = (a: Activity): boolean => a.actualStart !== null || isComplete(a) || (a.percent ?? 0) > 0;

/** Days, whole ones, that a flowline begins and ends on. */
export const flowDays = (points: readonly FlowPoint[]): { first: Day; last: Day } => ({
  first: Math.floor(points[0]!.time + 1e-9),
  last: Math.ceil(points.at(-1)!.time - 1e-9) - 1,
});

/** What an activity says when it runs as a flowline does: its dates where they are given, else a start that is not earlier. */
export function runningAs(plan: Plan, a: Activity, points: readonly FlowPoint[]): Part {
  if (plan.inHours) return runningToTheMinute(plan, a, points);
  const { first, last } = flowDays(points);
  return plan.source === 'computed'
    ? { constraint: { kind: 'startNotEarlier', moment: startOfDay(first) } }
    : datedOn(plan, a, first, last);
}

/** Minutes, whole ones, that a flowline begins and ends at. */
const flowMinutes = (points: readonly FlowPoint[]): { start: Moment; finish: Moment } => ({
  start: Math.floor(points[0]!.time * MINUTES_PER_DAY + MINUTE_HAIR),
  finish: Math.ceil(points.at(-1)!.time * MINUTES_PER_DAY - MINUTE_HAIR),
});

function runningToTheMinute(plan: Plan, a: Activity, points: readonly FlowPoint[]): Part {
  const { start, finish } = flowMinutes(points);
  if (plan.source === 'computed') return { constraint: { kind: 'startNotEarlier', moment: start } };
  const time = workingTimeOf(calendarOf(plan, a.calendar), 'minute', 0);
  return { start, finish, duration: time.between(start, finish), said: null };
}

/** A rate as a person would say it: four digits. */
const plainRate = (rate: number): number => Number(rate.toPrecision(4));

/** The length as it stands in the plan, where it does, in whole days of its calendar. */
const lengthOf = (a: Activity, w: PlannedWork, work: LinearWork): Part =>
  a.duration === null ? {} : { duration: Math.ceil(linearDuration(work) - 1e-6) * w.time.spec.minutesPerDay };

/** The rates that an activity states, all faster by a factor; none where it states none. */
function ratesOf(a: Activity, factor: number): Part {
  return {
    ...(a.rate !== null && { rate: plainRate(a.rate * factor) }),
    ...(a.output !== null && { output: plainRate(a.output * factor) }),
    ...(a.rates.length > 0 && { rates: a.rates.map((r) => ({ ...r, perDay: plainRate(r.perDay * factor) })) }),
  };
}

/**
 * A work along a line with one thing done to it. What has begun keeps its start, and what is done is left alone: null
 * for those, and for an end that no rate could keep.
 */
export function movedWork(plan: Plan, w: PlannedWork, move: LineMove): MovedWork | null {
  const a = plan.activities[w.position]!;
  if (isComplete(a) || (hasBegun(a) && (move.do === 'start' || move.do === 'turn'))) return null;
  const start = w.points[0]!.time;
  const run = (work: LinearWork, at: number) => flowline(work, at, w.time, w.windows);
  const moved = (wanted: LinearWork, at: number, part: Part): MovedWork => {
    let [work, points] = [wanted, run(wanted, at)];
    const end = flowDays(points).last + 1;
    if (!plan.inHours && paceIsOfDates(a) && end - points.at(-1)!.time > 1e-9) {
      // Its dates are whole days, and its rate is what they give.
      const factor = paceFor(work, at, w.time, w.windows, end);
      if (factor !== null) work = paced(work, factor);
      points = run(work, at);
    }
    // In a computed plan only a start that was asked for is held.
    const stays = plan.source === 'computed' && at === start;
    const dates = stays ? lengthOf(a, w, work) : runningAs(plan, a, points);
    return { work, points, command: { do: 'changeActivity', ref: a.ref, part: { ...dates, ...part } } };
  };
  switch (move.do) {
    case 'start':
      return plan.inHours ? moved(w.work, move.day, {}) : shiftedTo(plan, a, w, move.day);
    case 'turn':
      return moved({ ...w.stated, from: w.stated.to, to: w.stated.from }, start, { from: a.to, to: a.from });
    case 'crews': {
      // A rate that follows from the dates is that of all crews: more of them do it in less time.
      const work = { ...w.stated, crews: move.crews };
      return move.crews > 0 ? moved(work, start, { crews: move.crews }) : null;
    }
    case 'pace':
      return move.factor > 0 ? moved(paced(w.stated, move.factor), start, ratesOf(a, move.factor)) : null;
    case 'finish': {
      const factor = move.day >= start ? paceFor(w.stated, start, w.time, w.windows, move.day + 1) : null;
      return factor === null ? null : moved(paced(w.stated, factor), start, ratesOf(a, factor));
    }
  }
}

/** A work that begins on another day and keeps its working days, so that it ends where these end. */
function shiftedTo(plan: Plan, a: Activity, w: PlannedWork, day: Day): MovedWork {
  const time = workingTimeOf(calendarOf(plan, a.calendar), 'day', 0);
  const { first, last } = flowDays(w.points);
  const days = Math.max(1, time.between(first, last + 1));
  const begins = time.firstStart(Math.floor(day + 1e-9));
  const finish = time.finishOf(begins, days);
  const flow = plannedFlow(w.work, { start: begins, finish }, w.time, w.windows, false, paceIsOfDates(a));
  const part = runningAs(plan, a, [flow.points[0]!, { time: finish, place: w.work.to }]);
  return { work: flow.work, points: flow.points, command: { do: 'changeActivity', ref: a.ref, part } };
}

/** A work that holds its stretch, with another start or another end; null where it has begun or has no dates. */
export function movedHold(
  plan: Plan,
  s: Schedule,
  ref: string,
  move: Extract<LineMove, { do: 'start' | 'finish' }>,
): { first: Day; last: Day; command: Command } | null {
  const i = s.outline.indexOf.get(ref);
  const shown = i === undefined ? null : shownDays(s, i);
  if (i === undefined || !shown) return null;
  const a = plan.activities[i]!;
  if (isComplete(a) || (hasBegun(a) && move.do === 'start')) return null;
  // It keeps its working days wherever it goes.
  const time = workingTimeOf(calendarOf(plan, a.calendar), 'day', 0);
  const days = Math.max(1, time.between(shown.first, shown.last + 1));
  const first = move.do === 'start' ? time.firstStart(move.day) : shown.first;
  const last = move.do === 'start' ? time.finishOf(first, days) - 1 : Math.max(shown.first, move.day);
  const dated = datedOn(plan, a, first, last);
  const { duration } = dated;
  const part: Part =
    plan.source === 'given'
      ? dated
      : move.do === 'start'
        ? { constraint: { kind: 'startNotEarlier', moment: startOfDay(first) } }
        : { ...(duration !== undefined && { duration }) };
  return { first, last, command: { do: 'changeActivity', ref, part } };
}
