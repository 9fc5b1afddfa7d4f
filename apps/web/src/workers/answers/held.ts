import { type CalendarSpec, dayOf, finishDayOf, isMilestone, type Plan, type Schedule } from '@clembo/core';

/** A plan with its schedule, as the room of a plan holds it. */
export interface Held {
  plan: Plan;
  schedule: Schedule;
}

/** The calendar with this id, or the plan's own. */
export function calendarOf({ plan }: Held, id: string | null): CalendarSpec {
  const { calendars, calendar: own } = plan;
  return calendars.find((c) => c.id === id) ?? calendars.find((c) => c.id === own) ?? calendars[0]!;
}

/** The day on which an activity is shown to begin: a point at the end of a day lies on that day. */
export function startDay({ plan, schedule: s }: Held, i: number): number {
  return isMilestone(plan.activities[i]!.kind) && s.atFinish[i] ? finishDayOf(s.start[i]!) : dayOf(s.start[i]!);
}

/** The day on which an activity is shown to end. */
export function finishDay({ plan, schedule: s }: Held, i: number): number {
  return isMilestone(plan.activities[i]!.kind) && !s.atFinish[i] ? dayOf(s.finish[i]!) : finishDayOf(s.finish[i]!);
}

export const oneDecimal = (value: number): number => Math.round(value * 10) / 10;
