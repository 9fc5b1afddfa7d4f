import {
  dayOf,
  finishMoved,
  isComplete,
  isMilestone,
  type Plan,
  planFinish,
  type Schedule,
  shownDays,
} from '@clembo/core';
import { formatDay } from '../text/dates';

/** How a plan stands, in a few words each, for a page that looks at several. */
export interface PlanFacts {
  plan: string;
  facts: { name: string; value: string; late: boolean }[];
}

/** When a plan ends, by how much that has moved, what its next milestone is, and how much of it is complete. */
export function planFacts(
  plan: Plan,
  schedule: Schedule,
  promised: { plan: Plan; schedule: Schedule } | null,
): PlanFacts {
  const finish = planFinish(schedule)?.day ?? null;
  // In working days, as the pages beside it say it.
  const moved = promised && finishMoved(plan, schedule, promised.schedule);
  const status = plan.statusDate === null ? null : dayOf(plan.statusDate);
  const next = plan.activities
    .flatMap((a, i) => {
      const shown = isMilestone(a.kind) && !isComplete(a) ? shownDays(schedule, i) : null;
      return shown && (status === null || shown.last >= status) ? [{ name: a.name || a.ref, day: shown.last }] : [];
    })
    .sort((a, b) => a.day - b.day)[0];
  const work = plan.activities.filter((_, i) => !schedule.outline.isSummary[i]);
  const done = work.filter(isComplete).length;
  const days = (n: number) =>
    `${Math.abs(n)} working ${Math.abs(n) === 1 ? 'day' : 'days'} ${n > 0 ? 'later' : 'earlier'} than promised`;
  return {
    plan: plan.name,
    facts: [
      ...(finish === null ? [] : [{ name: 'Ends', value: formatDay(finish, 'long'), late: false }]),
      ...(moved === null
        ? []
        : [{ name: 'Against the promise', value: moved === 0 ? 'as promised' : days(moved), late: moved > 0 }]),
      ...(next ? [{ name: 'Next', value: `${next.name}, ${formatDay(next.day, 'medium')}`, late: false }] : []),
      ...(work.length === 0 ? [] : [{ name: 'Complete', value: `${done} of ${work.length} activities`, late: false }]),
    ],
  };
}
