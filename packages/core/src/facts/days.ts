import { daysByRate } from '../linear/length';
import { isMilestone, type Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import { activityTime } from '../schedule/workingDays';

/**
 * The fact of how long something takes, in working days of its calendar: the length that is stated, else the working
 * time between its shown dates, whoever stated these; else what its rate gives. A group and supporting work have the
 * days from their start to their finish. Null where nothing says it.
 */
export function daysReader(plan: Plan, s: Schedule): (position: number) => number | null {
  const time = activityTime(plan, s);
  return (i) => {
    const a = plan.activities[i]!;
    const spans = s.outline.isSummary[i] || a.kind === 'levelOfEffort';
    if (a.duration !== null && !spans) return a.duration / time.minutesPerDay(i);
    if (s.start[i] !== NONE && s.finish[i]! > s.start[i]!)
      return Math.round(time.daysBetween(i, s.start[i]!, s.finish[i]!) * 1000) / 1000;
    if (s.start[i] !== NONE && isMilestone(a.kind)) return 0;
    // A length that its rate gives is one of whole days where the plan knows no parts of them.
    const days = daysByRate(a);
    return days === null || plan.inHours ? days : Math.ceil(days - 1e-9);
  };
}

/** The same of several activities together: from the first day to the last, in the plan's own calendar. */
export function daysTogether(plan: Plan, s: Schedule, extent: { start: number; finish: number }): number {
  return Math.round(activityTime(plan, s).planDaysBetween(extent.start, extent.finish) * 1000) / 1000;
}
