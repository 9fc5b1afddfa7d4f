import { type WorkingTime, workingTimeOf } from '../calendar/workingTime';
import { NOT_BEGUN } from '../plan/notBegun';
import type { Activity, Plan } from '../plan/schema';
import { schedulePlan } from '../schedule/schedule';
import { NONE } from '../schedule/slots';
import { type Day, dayOf, FIRST_DAY, LAST_DAY, MINUTES_PER_DAY, startOfDay } from '../time/civil';

/** The first day of a plan: where it is said to start, or the earliest of its dates; null where it has none. */
export function firstDayOfPlan(plan: Plan): Day | null {
  if (plan.start !== null) return dayOf(plan.start);
  const s = schedulePlan(plan);
  const first = s.start.reduce((least, at) => (at !== NONE && at < least ? at : least), Number.POSITIVE_INFINITY);
  return Number.isFinite(first) ? dayOf(first) : null;
}

/**
 * A plan as a starter for others: what is usual stays (outline, lengths, links, calendars, codes, resources, planned
 * effort and cost), what happened only once goes (actual dates, progress, notes on reading, findings put aside).
 */
export function asStarter(plan: Plan): Plan {
  const first = firstDayOfPlan(plan);
  return {
    ...plan,
    statusDate: null,
    start: first === null ? null : startOfDay(first),
    aside: [],
    // What was built there is not what will be built: models stay behind, and with them who builds what.
    matches: [],
    elementCodes: [],
    buildViews: [],
    activities: plan.activities.map((a) => ({
      ...a,
      ...NOT_BEGUN,
      onHold: false,
      said: null,
    })),
  };
}

/**
 * Begins a plan from a starter on a day. Dates that were stated stand as many working days behind the start as they
 * did in the starter, each by the calendar of its activity; what holds on certain dates (constraints, deadlines,
 * periods, closed windows) moves by as many calendar days as the start.
 *
 * @throws RangeError when dates would leave the years 1900 to 2299
 */
export function beginFrom(starter: Plan, name: string, day: Day): Plan {
  const first = firstDayOfPlan(starter) ?? day;
  const by = (day - first) * MINUTES_PER_DAY;
  const later = (moment: number | null): number | null => (moment === null ? null : within(moment + by));
  const spans = <T extends { start: number; finish: number }>(list: readonly T[]): T[] =>
    list.map((x) => ({ ...x, start: within(x.start + by), finish: within(x.finish + by) }));
  const times = new Map(starter.calendars.map((c) => [c.id, workingTimeOf(c, 'minute', first)]));
  const own = times.get(starter.calendar) ?? times.values().next().value!;
  const moved = (a: Activity): Activity => {
    const time = (a.calendar !== null && times.get(a.calendar)) || own;
    return {
      ...a,
      start: a.start === null ? null : within(workingMoment(time, a.start, first, day, false)),
      finish: a.finish === null ? null : within(workingMoment(time, a.finish, first, day, true)),
      constraint: a.constraint && { ...a.constraint, moment: later(a.constraint.moment) },
      deadline: later(a.deadline),
      stretches: spans(a.stretches),
    };
  };
  return {
    ...starter,
    name,
    start: startOfDay(day),
    statusDate: null,
    activities: starter.activities.map(moved),
    periods: spans(starter.periods),
    lines: starter.lines.map((l) => ({ ...l, windows: spans(l.windows) })),
  };
}

/**
 * The moment that is as many working minutes behind one day as another is behind another. Whole days stay whole:
 * what begins or ends with a day does so again.
 */
function workingMoment(time: WorkingTime, moment: number, from: Day, to: Day, isFinish: boolean): number {
  const work = time.between(startOfDay(from), moment);
  const origin = time.rank(startOfDay(to));
  if (isFinish) {
    const end = work <= 0 ? time.lastFinish(startOfDay(to)) : time.select(origin + work - 1) + 1;
    return moment % MINUTES_PER_DAY === 0 ? Math.ceil(end / MINUTES_PER_DAY) * MINUTES_PER_DAY : end;
  }
  const start = time.select(origin + work);
  return moment % MINUTES_PER_DAY === 0 ? Math.floor(start / MINUTES_PER_DAY) * MINUTES_PER_DAY : start;
}

function within(moment: number): number {
  if (moment < startOfDay(FIRST_DAY) || moment > startOfDay(LAST_DAY + 1))
    throw new RangeError('With this start the plan would leave the years 1900 to 2299. Choose another day.');
  return moment;
}
