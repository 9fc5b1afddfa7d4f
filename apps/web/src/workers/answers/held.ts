import { firstDayOf, lastDayOf, type Plan, type Schedule } from '@clembo/core';

/** A plan with its schedule, as the room of a plan holds it. */
export interface Held {
  plan: Plan;
  schedule: Schedule;
  /** The edition that is measured against, where there is one and it has been asked for. */
  promised?: { plan: Plan; schedule: Schedule } | null;
}

/** The day on which an activity is shown to begin. */
export function startDay({ schedule: s }: Held, i: number): number {
  return firstDayOf({ start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 });
}

/** The day on which an activity is shown to end. */
export function finishDay({ schedule: s }: Held, i: number): number {
  return lastDayOf({ start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 });
}

export const oneDecimal = (value: number): number => Math.round(value * 10) / 10;
