import {
  activityTime,
  finishMoved,
  isComplete,
  isMilestone,
  NONE,
  type Plan,
  percentComplete,
  planFinish,
  type Schedule,
} from '@clembo/core';
import { en } from '../../text/languages/en';
import { dayWords, type PageLanguage } from '../../text/languages/language';
import type { Promised } from '../composed';

/**
 * What the dates say, when the person has not said it: when the plan finishes, how that stands against the promise
 * where there is one, and else how much of the working time is done. It is said of the whole plan, also where the
 * page shows a part.
 */
export function statement(plan: Plan, schedule: Schedule, promised: Promised | null, l: PageLanguage = en): string {
  const last = planFinish(schedule);
  if (last === null) return plan.name;
  const when = dayWords(l, last.day, 'long');
  const open = plan.activities.some((a, i) => !schedule.outline.isSummary[i] && !isComplete(a));
  if (!open) return `${l.completedOn(plan.name, when)}${againstPromise(plan, schedule, promised, l).words}`;
  const against = againstPromise(plan, schedule, promised, l);
  const runs = l.runsTo(plan.name, when);
  if (against.words !== '')
    return `${runs}${against.words}${against.later ? '' : lateMilestone(plan, schedule, promised, l)}`;
  const whole = percentComplete(plan, schedule, 'stated').whole;
  const percent = Math.min(99, Math.floor(whole));
  return plan.statusDate !== null && percent >= 1 ? `${runs}${l.percentOfWork(percent)}` : runs;
}

function againstPromise(
  plan: Plan,
  schedule: Schedule,
  promised: Promised | null,
  l: PageLanguage,
): { words: string; later: boolean } {
  const days = promised && finishMoved(plan, schedule, promised.schedule);
  if (days === null) return { words: '', later: false };
  if (days === 0) return { words: l.asPromised, later: false };
  return { words: l.againstPromise(Math.abs(days), days > 0), later: days > 0 };
}

/** Less than this many working days late are not worth a word in a title. */
const WORTH_SAYING = 5;

/** Where the whole is not late: the milestone to come that is latest against its promise. */
function lateMilestone(plan: Plan, schedule: Schedule, promised: Promised | null, l: PageLanguage): string {
  if (!promised) return '';
  const time = activityTime(plan, schedule);
  let [worst, name] = [WORTH_SAYING - 0.5, ''];
  plan.activities.forEach((a, i) => {
    const j = promised.schedule.outline.indexOf.get(a.ref);
    if (!isMilestone(a.kind) || isComplete(a) || j === undefined) return;
    if (schedule.finish[i] === NONE || promised.schedule.finish[j] === NONE) return;
    const days = time.daysBetween(i, promised.schedule.finish[j]!, schedule.finish[i]!);
    if (days > worst) [worst, name] = [days, a.name || a.ref];
  });
  return name === '' ? '' : l.milestoneLate(name, Math.round(worst));
}
