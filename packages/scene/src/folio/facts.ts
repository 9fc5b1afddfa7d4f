import {
  type Day,
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
import { type Phase, phasesOf } from './phases';

/** Something that is so of a plan, in words. */
export interface Fact {
  name: string;
  value: string;
  late: boolean;
  /** The activity that it is about, where it is about one. */
  ref: string | null;
}

/** How a plan stands, in a few words each, for a page that looks at several. */
export interface PlanFacts {
  /** The plan, by the id and the name that it is known by. */
  id: string;
  plan: string;
  facts: Fact[];
  phases: Phase[];
  status: Day | null;
}

/** When a plan ends, by how much that has moved, what its next milestone is, how much is complete, and its phases. */
export function planFacts(
  plan: Plan,
  schedule: Schedule,
  promised: { plan: Plan; schedule: Schedule } | null,
  id = '',
): PlanFacts {
  const finish = planFinish(schedule)?.day ?? null;
  // In working days, as the pages beside it say it.
  const moved = promised && finishMoved(plan, schedule, promised.schedule);
  const status = plan.statusDate === null ? null : dayOf(plan.statusDate);
  const next = plan.activities
    .flatMap((a, i) => {
      const shown = isMilestone(a.kind) && !isComplete(a) ? shownDays(schedule, i) : null;
      return shown && (status === null || shown.last >= status)
        ? [{ ref: a.ref, name: a.name || a.ref, day: shown.last }]
        : [];
    })
    .sort((a, b) => a.day - b.day)[0];
  const work = plan.activities.filter((_, i) => !schedule.outline.isSummary[i]);
  const done = work.filter(isComplete).length;
  const days = (n: number) =>
    `${Math.abs(n)} working ${Math.abs(n) === 1 ? 'day' : 'days'} ${n > 0 ? 'later' : 'earlier'} than promised`;
  const fact = (name: string, value: string, more: Partial<Fact> = {}): Fact => ({
    name,
    value,
    late: false,
    ref: null,
    ...more,
  });
  return {
    id,
    plan: plan.name,
    facts: [
      ...(finish === null ? [] : [fact('Ends', formatDay(finish, 'long'))]),
      ...(moved === null
        ? []
        : [fact('Against the promise', moved === 0 ? 'as promised' : days(moved), { late: moved > 0 })]),
      ...(next ? [fact('Next', `${next.name}, ${formatDay(next.day, 'medium')}`, { ref: next.ref })] : []),
      ...(work.length === 0 ? [] : [fact('Complete', `${done} of ${work.length} activities`)]),
    ],
    phases: phasesOf(plan, schedule, promised),
    status,
  };
}
