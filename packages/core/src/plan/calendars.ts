import type { CalendarSpec } from '../calendar/spec';
import type { Plan } from './schema';

/** The calendar of a plan with an id, or the plan's own where none is named or there is none by it. */
export const calendarOf = (plan: Pick<Plan, 'calendars' | 'calendar'>, id: string | null): CalendarSpec =>
  plan.calendars.find((c) => c.id === id) ?? plan.calendars.find((c) => c.id === plan.calendar) ?? plan.calendars[0]!;
