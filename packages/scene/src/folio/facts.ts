import { allRows, type Day, dayOf, type Ends, isComplete, type Plan, planEnds, type Schedule } from '@clembo/core';
import { nextMilestone } from '../exhibits/statement';
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
  const ends = planEnds(plan, schedule, promised);
  const moved = ends.late;
  const status = plan.statusDate === null ? null : dayOf(plan.statusDate);
  const next = nextMilestone(plan, schedule, allRows(plan, schedule));
  const work = plan.activities.filter((_, i) => !schedule.outline.isSummary[i]);
  const done = work.filter(isComplete).length;
  const days = (n: number) =>
    `${Math.abs(n)} working ${Math.abs(n) === 1 ? 'day' : 'days'} ${n > 0 ? 'later' : 'earlier'} than promised`;
  const refOf = (i: number) => plan.activities[i]!.ref;
  const nameOf = (i: number) => plan.activities[i]!.name || refOf(i);
  /** The end, or how far it is known. */
  const endFact = ({ last, openWithout, of, expected }: Ends): Fact => {
    const day = formatDay(last!, 'long');
    if (openWithout > 0) return fact('Known to', `${day}; ${openWithout} of ${of} without dates`);
    return fact(expected === null ? 'Ends' : 'Expected to end', day);
  };
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
      ...(ends.last === null ? [] : [endFact(ends)]),
      ...(moved === null
        ? []
        : [fact('Against the promise', moved === 0 ? 'as promised' : days(moved), { late: moved > 0 })]),
      ...(next
        ? [fact('Next', `${nameOf(next.position)}, ${formatDay(next.day, 'medium')}`, { ref: refOf(next.position) })]
        : []),
      ...(work.length === 0 ? [] : [fact('Complete', `${done} of ${work.length} activities`)]),
    ],
    phases: phasesOf(plan, schedule, promised),
    status,
  };
}
