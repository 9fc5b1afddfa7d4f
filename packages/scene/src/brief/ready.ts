import { type Activity, type Condition, isMilestone, type Plan } from '@clembo/core';
import { type Brief, defaultBrief } from './kinds';

/** A brief that is made for a question that is asked often. */
export interface Ready {
  name: string;
  /** What it answers, in a line. */
  about?: string;
  brief: Brief;
}

const only = (...tests: Condition['tests']): Condition => ({ match: 'all', tests });

/**
 * Ready-made briefs that say how a plan stands against its promise, in the plan's own code fields: of what it has, since
 * a page about an effort that nobody stated says nothing.
 */
export function readyMade(plan: Pick<Plan, 'codeFields' | 'activities'>): Ready[] {
  const [first, second] = plan.codeFields.filter((f) => f.values.length >= 2 && f.values.length <= 15);
  const slips = defaultBrief('slips');
  const bars = defaultBrief('bars');
  const amounts = defaultBrief('amounts');
  const curves = defaultBrief('curves');
  const months = defaultBrief('months');
  const snapshot = defaultBrief('snapshot');
  const by = (name: string) => name.toLowerCase();
  const when = (has: boolean, ...list: Ready[]): Ready[] => (has ? list : []);
  const some = (test: (a: Activity) => boolean) => plan.activities.some(test);
  const hasEffort = some((a) => (a.effort ?? 0) > 0);
  const hasCost = some((a) => (a.cost ?? 0) > 0);
  const hasPayments = some((a) => isMilestone(a.kind) && (a.cost ?? 0) > 0);
  const needsPeople = some((a) => a.assignments.length > 0);
  const hasMilestones = some((a) => isMilestone(a.kind));
  return [
    { name: 'What slipped most', brief: slips },
    { name: 'Late by ten days or more', brief: { ...slips, only: 'late', least: 10 } },
    ...when(hasMilestones, { name: 'Milestones that moved', brief: { ...slips, include: 'milestones' } }),
    ...(first ? [{ name: `Slips by ${by(first.name)}`, brief: { ...slips, of: first.id, least: 0 } }] : []),
    ...(second ? [{ name: `Slips by ${by(second.name)}`, brief: { ...slips, of: second.id, least: 0 } }] : []),
    { name: 'What is off, then and now', brief: { ...bars, only: 'off', order: 'start', page: 'A3 portrait' } },
    { name: 'The critical work, then and now', brief: { ...bars, only: 'critical', order: 'start' } },
    ...when(hasMilestones, {
      name: 'Milestones, then and now',
      brief: { ...bars, include: 'milestones', order: 'start' },
    }),
    ...when(hasEffort, { name: 'Effort against budget', brief: amounts }),
    ...when(hasCost, { name: 'Cost against budget', brief: { ...amounts, amount: 'cost' } }),
    ...when(hasEffort, { name: 'Effort beyond tolerance', brief: { ...amounts, only: 'beyond' } }),
    ...(first && hasEffort
      ? [
          {
            name: `Effort by ${by(first.name)}`,
            brief: { ...amounts, of: first.id, only: 'all' as const, order: 'plan' as const },
          },
        ]
      : []),
    ...when(hasMilestones, { name: 'How the milestones moved', brief: defaultBrief('trend') }),
    ...when(hasEffort, { name: 'Work promised, earned, spent', brief: curves }),
    ...when(hasCost, { name: 'Cost promised, earned, spent', brief: { ...curves, of: 'cost' } }),
    { name: 'Activities done', brief: { ...curves, of: 'activities' } },
    ...when(hasMilestones, { name: 'Milestones reached', brief: { ...curves, of: 'milestones' } }),
    ...when(hasPayments, {
      name: 'Payments promised and earned',
      brief: {
        ...curves,
        of: 'cost',
        where: only({ field: 'kind', is: 'is', values: ['milestone'] }, { field: 'cost', is: 'above', values: ['0'] }),
      },
    }),
    ...when(needsPeople, { name: 'People and plant', brief: months }),
    ...when(hasPayments, { name: 'Payments by month', brief: { ...months, of: 'payments' } }),
    { name: 'What finishes when', brief: { ...months, of: 'finishes' } },
    { name: 'The snapshot', brief: snapshot },
    ...(first
      ? [
          {
            name: `The snapshot by ${by(first.name)}`,
            brief: { ...snapshot, by: first.id, page: 'A3 landscape' as const },
          },
        ]
      : []),
    ...(second
      ? [
          {
            name: `The snapshot by ${by(second.name)}`,
            brief: { ...snapshot, by: second.id, page: 'A3 landscape' as const },
          },
        ]
      : []),
  ] satisfies Ready[];
}
