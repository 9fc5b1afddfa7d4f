import { flowline } from './flowline';
import { workdaysPerWeek } from '../calendar/units';
import { workingTimeOf } from '../calendar/workingTime';
import type { Command } from '../commands/command';
import { datedOn } from '../commands/dating';
import { calendarOf } from '../plan/calendars';
import type { Plan } from '../plan/schema';
import { flowDays, hasBegun } from './moves';
import type { PlannedWork } from './works';

/** What a length is rounded up to: working days, or weeks of as many working days as the calendar's week has. */
export type RoundedTo = 'day' | 'week';

/**
 * The length that its rate gives a work, with the days on which it has to wait for closed windows, as its finish where
 * dates are given, else as its duration. What has begun is paced by what happened: null.
 */
export function lengthByRate(plan: Plan, w: PlannedWork, to: RoundedTo): Command | null {
  const a = plan.activities[w.position]!;
  if (hasBegun(a)) return null;
  const time = workingTimeOf(calendarOf(plan, a.calendar), 'day', 0);
  const { first, last } = flowDays(flowline(w.stated, w.points[0]!.time, w.time, w.windows));
  const week = to === 'week' ? Math.max(1, workdaysPerWeek(time.spec)) : 1;
  const days = Math.ceil(Math.max(1, time.between(first, last + 1)) / week) * week;
  const part =
    plan.source === 'computed'
      ? { duration: days * time.spec.minutesPerDay }
      : datedOn(plan, a, first, time.finishOf(time.firstStart(first), days) - 1);
  return { do: 'changeActivity', ref: a.ref, part };
}
