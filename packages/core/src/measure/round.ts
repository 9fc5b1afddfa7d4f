import { shownDays } from '../commands/dating';
import { isMilestone, type Plan } from '../plan/schema';
import { isComplete, UNKNOWN } from '../schedule/given';
import type { Schedule } from '../schedule/model';
import { type Day, dayOf, finishDayOf } from '../time/civil';

/** Why a status date asks about an activity, the most pressing first. */
export const REASONS = ['shouldHaveFinished', 'shouldHaveStarted', 'inProgress', 'due'] as const;
export type Reason = (typeof REASONS)[number];

/** An activity that a status date asks about. */
export interface AskedRow {
  position: number;
  why: Reason;
  /** The day on which it should have finished, should have started, is to finish, or is due. */
  day: Day;
}

/**
 * What is to be asked at a status date: what should have finished by then or started and has not, what is in progress,
 * and what starts or finishes within the days behind it. The earlier of what is planned now and what was planned last
 * counts, since computed dates of what was not done are pushed behind the status date.
 *
 * @param moment the end of the status date: what lies before it is over
 * @param days how far ahead is asked
 * @param last the edition of the last time; null where there was none
 */
export function askedAt(
  plan: Plan,
  s: Schedule,
  moment: number,
  days: number,
  last: { plan: Plan; schedule: Schedule } | null = null,
): AskedRow[] {
  const today = dayOf(moment);
  const rows = plan.activities.flatMap((a, position): AskedRow[] => {
    if (s.outline.isSummary[position] || a.kind === 'levelOfEffort' || isComplete(a)) return [];
    const now = shownDays(s, position);
    const at = last?.schedule.outline.indexOf.get(a.ref);
    const then = last && at !== undefined ? shownDays(last.schedule, at) : null;
    const begun = a.actualStart !== null || (a.percent ?? 0) > 0;
    if (!now && !then) return begun ? [{ position, why: 'inProgress', day: finishDayOf(moment) }] : [];
    const first = Math.min(now?.first ?? Number.POSITIVE_INFINITY, then?.first ?? Number.POSITIVE_INFINITY);
    // What is under way without a finish that is known is due on no day.
    const due = now && s.finishFrom[position] !== UNKNOWN ? now.last : Number.POSITIVE_INFINITY;
    const finish = Math.min(due, then?.last ?? Number.POSITIVE_INFINITY);
    if (finish < today) return [{ position, why: 'shouldHaveFinished', day: finish }];
    if (begun) return [{ position, why: 'inProgress', day: Number.isFinite(finish) ? finish : finishDayOf(moment) }];
    if (first < today && !isMilestone(a.kind)) return [{ position, why: 'shouldHaveStarted', day: first }];
    const next = isMilestone(a.kind) ? finish : first;
    return next < today + days ? [{ position, why: 'due', day: next }] : [];
  });
  const rank = (r: AskedRow) => REASONS.indexOf(r.why);
  return rows.sort((x, y) => rank(x) - rank(y) || x.day - y.day || x.position - y.position);
}
