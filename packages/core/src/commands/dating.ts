import { type WorkingTime, workingTimeOf } from '../calendar/workingTime';
import { calendarOf } from '../plan/calendars';
import { type Activity, isMilestone, type Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import { type Day, endOfDay, startOfDay } from '../time/civil';
import { firstDayOf, lastDayOf } from '../time/days';
import type { Command } from './command';

type Part = Partial<Omit<Activity, 'ref'>>;

type Calendars = Pick<Plan, 'calendars' | 'calendar'>;

const timeOf = (plan: Calendars, a: Pick<Activity, 'calendar'>): WorkingTime =>
  workingTimeOf(calendarOf(plan, a.calendar), 'day', 0);

/** The working days that a stretch of days is drawn on: from the first working day in or behind it to the last before its end. */
export function workingSpan(
  plan: Calendars,
  a: Pick<Activity, 'calendar'>,
  first: Day,
  last: Day,
): { first: Day; last: Day; days: number } {
  const time = timeOf(plan, a);
  const from = time.firstStart(first);
  const to = Math.max(from, time.lastStart(Math.max(first, last)));
  return { first: from, last: to, days: time.between(from, to + 1) };
}

/** What an activity says when it is drawn from one day to another: dates on working days, and the length between. */
export function datedOn(plan: Calendars, a: Pick<Activity, 'calendar' | 'kind'>, first: Day, last: Day): Part {
  if (isMilestone(a.kind))
    return a.kind === 'finishMilestone'
      ? { start: null, finish: endOfDay(last), duration: 0, said: null }
      : { start: startOfDay(first), finish: null, duration: 0, said: null };
  const span = workingSpan(plan, a, first, last);
  const { minutesPerDay } = timeOf(plan, a).spec;
  return {
    start: startOfDay(span.first),
    finish: endOfDay(span.last),
    duration: span.days * minutesPerDay,
    said: null,
  };
}

/** Working days of the plan's own calendar from one day to another; at least one where they differ. */
export function workingDaysTo(plan: Calendars, from: Day, to: Day): number {
  if (from === to) return 0;
  const time = timeOf(plan, { calendar: null });
  const days = time.between(Math.min(from, to), Math.max(from, to));
  return Math.sign(to - from) * Math.max(1, days);
}

/** The days on which the schedule shows an activity; null where it has no dates. */
export function shownDays(s: Schedule, i: number): { first: Day; last: Day } | null {
  if (s.start[i] === NONE) return null;
  const span = { start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 };
  return { first: firstDayOf(span), last: lastDayOf(span) };
}

/**
 * Moves an activity, or all that a group holds, by working days of the calendars of each. What has begun has its
 * dates from what happened and stays. Null where nothing can move.
 */
export function shiftedBy(plan: Plan, s: Schedule, ref: string, days: number): Command | null {
  const top = s.outline.indexOf.get(ref);
  if (top === undefined || days === 0) return null;
  const leaves: number[] = [];
  const collect = (i: number): void => {
    const held = s.outline.children[i]!;
    if (held.length === 0) leaves.push(i);
    else held.forEach(collect);
  };
  collect(top);
  const commands = leaves.flatMap((i): Command[] => {
    const a = plan.activities[i]!;
    const shown = shownDays(s, i);
    if (!shown || a.actualStart !== null || a.actualFinish !== null) return [];
    const time = timeOf(plan, a);
    const first = time.select(time.rank(shown.first) + days);
    if (isMilestone(a.kind)) return [{ do: 'changeActivity', ref: a.ref, part: datedOn(plan, a, first, first) }];
    const length = Math.max(1, time.between(shown.first, shown.last + 1));
    const { start, finish } = datedOn(plan, a, first, time.finishOf(first, length) - 1);
    return [{ do: 'changeActivity', ref: a.ref, part: { start, finish, said: null } }];
  });
  if (commands.length === 0) return null;
  return commands.length === 1 ? commands[0]! : { do: 'all', commands };
}
