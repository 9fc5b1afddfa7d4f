import { workingTimeOf } from '../calendar/workingTime';
import { calendarOf } from '../plan/calendars';
import type { Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import { type Day, finishDayOf, type Moment } from '../time/civil';
import { firstBoundary, firstDayOf, lastBoundary, lastDayOf, workingDaysApart } from '../time/days';

/** Where one or several activities stand: from the first day to the last, and the moments that bound these. */
export interface Extent {
  first: Day;
  last: Day;
  start: Moment;
  finish: Moment;
  /** Positions of what begins first and of what ends last. */
  firstOf: number;
  lastOf: number;
}

/** Dates with the side of its day on which each point stands. */
export type Sided = Pick<Schedule, 'start' | 'finish' | 'atFinish'>;

/** Where some activities stand together; null where none of them has dates. */
export function extentOf(s: Sided, positions: Iterable<number>): Extent | null {
  let place: Extent | null = null;
  for (const i of positions) {
    if (s.start[i] === NONE) continue;
    const span = { start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 };
    const start = firstBoundary(span);
    const finish = lastBoundary(span);
    if (place === null) {
      place = { first: firstDayOf(span), last: lastDayOf(span), start, finish, firstOf: i, lastOf: i };
      continue;
    }
    if (start < place.start) [place.start, place.firstOf] = [start, i];
    if (finish > place.finish) [place.finish, place.lastOf] = [finish, i];
    place.first = Math.min(place.first, firstDayOf(span));
    place.last = Math.max(place.last, lastDayOf(span));
  }
  return place;
}

/** Where something was promised: the same activities in the edition compared with, groups there left out. */
export function promisedExtent(
  plan: Plan,
  promised: { schedule: Schedule },
  positions: Iterable<number>,
  isGroup = false,
): Extent | null {
  const { outline } = promised.schedule;
  const there: number[] = [];
  for (const i of positions) {
    const j = outline.indexOf.get(plan.activities[i]!.ref);
    if (j !== undefined && outline.isSummary[j] === isGroup) there.push(j);
  }
  return extentOf(promised.schedule, there);
}

/** Computed dates, whatever the plan shows, with the side of its day on which each point stands. */
export const computedDates = ({ earlyStart: start, earlyFinish: finish, atFinish }: Schedule): Sided => ({
  start,
  finish,
  atFinish,
});

/**
 * How far one place lies behind another in working days: of the calendar of an activity, or of the plan's own for
 * several together. Whole days, whatever side of its day something stands on; in plans by the hour with parts of days,
 * to a tenth.
 */
export interface Apart {
  starts(of: number | null, then: Extent, now: Extent): number;
  finishes(of: number | null, then: Extent, now: Extent): number;
}

export function apartReader(plan: Plan): Apart {
  const timeFor = (of: number | null) => {
    const spec = calendarOf(plan, of === null ? null : plan.activities[of]!.calendar);
    return (near: Day) => workingTimeOf(spec, plan.inHours ? 'minute' : 'day', near);
  };
  const inHours = (of: number | null, from: Moment, to: Moment, near: Day): number => {
    const time = timeFor(of)(near);
    return Math.round((10 * time.between(from, to)) / time.spec.minutesPerDay) / 10 + 0;
  };
  return {
    starts: (of, then, now) =>
      plan.inHours
        ? inHours(of, then.start, now.start, now.first)
        : workingDaysApart(timeFor(of)(now.first), then.first, now.first) + 0,
    finishes: (of, then, now) =>
      plan.inHours
        ? inHours(of, then.finish, now.finish, now.last)
        : workingDaysApart(timeFor(of)(now.last), then.last, now.last) + 0,
  };
}

/** What one shown activity stands against: how far its start and its finish lie behind a promise; null where one has no dates. */
export function behindReader(
  plan: Plan,
  s: Schedule,
  promised: { schedule: Schedule },
): (position: number, there: number) => { start: number; finish: number } | null {
  const apart = apartReader(plan);
  return (i, j) => {
    const now = extentOf(s, [i]);
    const then = extentOf(promised.schedule, [j]);
    if (!now || !then) return null;
    const of = s.outline.isSummary[i] ? null : i;
    return { start: apart.starts(of, then, now), finish: apart.finishes(of, then, now) };
  };
}

/** By how many working days the shown finish of an activity misses its deadline; null where it does not, or has none. */
export function deadlineMiss(plan: Plan, s: Sided, i: number): { finish: Day; deadline: Day; days: number } | null {
  const { deadline } = plan.activities[i]!;
  const now = deadline === null ? null : extentOf(s, [i]);
  if (deadline === null || now === null) return null;
  const day = finishDayOf(deadline);
  if (now.last <= day) return null;
  return {
    finish: now.last,
    deadline: day,
    days: apartReader(plan).finishes(i, { ...now, last: day, finish: deadline }, now),
  };
}
