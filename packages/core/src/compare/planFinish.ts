import type { Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import { activityTime } from '../schedule/workingDays';
import type { Day } from '../time/civil';
import { lastDayOf } from '../time/days';

/** The last of a plan: the day on which it ends, the moment of it, and the position of the activity that ends then. */
export interface PlanFinish {
  day: Day;
  moment: number;
  position: number;
}

/** The last day on which anything of a plan ends, groups apart; null for a plan without dates. */
export function planFinish(s: Schedule): PlanFinish | null {
  let last: PlanFinish | null = null;
  for (let i = 0; i < s.finish.length; i++) {
    if (s.outline.isSummary[i] || s.finish[i] === NONE) continue;
    const day = lastDayOf({ start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 });
    if (last === null || day > last.day) last = { day, moment: s.finish[i]!, position: i };
  }
  return last;
}

/**
 * By how many whole working days a plan ends later than another says (earlier: negative), in the calendar of what ends
 * last now; null where one of them has no dates.
 */
export function finishMoved(plan: Plan, schedule: Schedule, promised: Schedule): number | null {
  const [last, then] = [planFinish(schedule), planFinish(promised)];
  if (!last || !then) return null;
  return Math.round(activityTime(plan, schedule).daysBetween(last.position, then.moment, last.moment)) + 0;
}
