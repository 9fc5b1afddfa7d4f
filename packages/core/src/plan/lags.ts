import type { CalendarSpec } from '../calendar/spec';
import { MINUTES_PER_DAY } from '../time/civil';
import { calendarOf } from './calendars';
import type { Link, Plan } from './schema';

/** The calendar that a link's lag is counted in; null where it ignores calendars. */
export function lagCalendarOf(
  plan: Plan,
  { from, to, lagCalendar }: Pick<Link, 'from' | 'to' | 'lagCalendar'>,
): CalendarSpec | null {
  if (lagCalendar === 'elapsed') return null;
  const counted = lagCalendar === 'plan' ? null : lagCalendar === 'predecessor' ? from : to;
  return calendarOf(plan, plan.activities.find((a) => a.ref === counted)?.calendar ?? null);
}

/** Minutes that a day of a link's lag has. */
export const lagMinutesPerDay = (plan: Plan, link: Pick<Link, 'from' | 'to' | 'lagCalendar'>): number =>
  lagCalendarOf(plan, link)?.minutesPerDay ?? MINUTES_PER_DAY;
