import { isMilestone, type Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { doneReader, percentOf } from '../schedule/percent';
import { NONE } from '../schedule/slots';
import { activityTime } from '../schedule/workingDays';

/** Whole working days of an activity, those of them that are done, and those to go. */
export interface DaysDone {
  whole: number;
  done: number;
  toGo: number;
}

/**
 * Working days done and to go, by the percent that the plan shows. Days done are whole and rounded down: thirty percent
 * of fourteen days are four days done and ten to go. Null for groups, milestones, supporting work and what has no dates.
 */
export function daysDoneReader(plan: Plan, s: Schedule): (position: number) => DaysDone | null {
  const time = activityTime(plan, s);
  const read = doneReader(plan, s, plan.percentShown);
  return (i) => {
    const { kind, actualFinish, percent } = plan.activities[i]!;
    if (s.outline.isSummary[i] || isMilestone(kind) || kind === 'levelOfEffort' || s.start[i] === NONE) return null;
    const whole = Math.round(time.daysBetween(i, s.start[i]!, s.finish[i]!) * 1000) / 1000;
    const measured = percentOf(read(i));
    const share = (Number.isFinite(measured) ? measured : actualFinish !== null ? 100 : (percent ?? 0)) / 100;
    const done = share >= 1 ? whole : Math.floor(whole * share + 1e-9);
    return { whole, done, toGo: Math.round((whole - done) * 1000) / 1000 };
  };
}
