import type { Condition } from '@clembo/core';
import { type Brief, defaultBrief } from './kinds';
import type { PlanWords } from './words';

/** A brief that is made for a question that is asked often. */
export interface Ready {
  name: string;
  /** What it answers, in a line. */
  about?: string;
  brief: Brief;
}

const only = (...tests: Condition['tests']): Condition => ({ match: 'all', tests });

/** Ready-made briefs that say how a plan stands against its promise, in the plan's own code fields. */
export function readyMade(plan: PlanWords): Ready[] {
  const [first, second] = plan.codeFields.filter((f) => f.values.length >= 2 && f.values.length <= 15);
  const slips = defaultBrief('slips');
  const bars = defaultBrief('bars');
  const amounts = defaultBrief('amounts');
  const curves = defaultBrief('curves');
  const months = defaultBrief('months');
  const snapshot = defaultBrief('snapshot');
  const by = (name: string) => name.toLowerCase();
  return [
    { name: 'What slipped most', brief: slips },
    { name: 'Late by ten days or more', brief: { ...slips, only: 'late', least: 10 } },
    { name: 'Milestones that moved', brief: { ...slips, include: 'milestones' } },
    ...(first ? [{ name: `Slips by ${by(first.name)}`, brief: { ...slips, of: first.id, least: 0 } }] : []),
    ...(second ? [{ name: `Slips by ${by(second.name)}`, brief: { ...slips, of: second.id, least: 0 } }] : []),
    { name: 'What is off, then and now', brief: { ...bars, only: 'off', order: 'start', page: 'A3 portrait' } },
    { name: 'The critical work, then and now', brief: { ...bars, only: 'critical', order: 'start' } },
    { name: 'Milestones, then and now', brief: { ...bars, include: 'milestones', order: 'start' } },
    { name: 'Effort against budget', brief: amounts },
    { name: 'Cost against budget', brief: { ...amounts, amount: 'cost' } },
    { name: 'Effort beyond tolerance', brief: { ...amounts, only: 'beyond' } },
    ...(first
      ? [
          {
            name: `Effort by ${by(first.name)}`,
            brief: { ...amounts, of: first.id, only: 'all' as const, order: 'plan' as const },
          },
        ]
      : []),
    { name: 'How the milestones moved', brief: defaultBrief('trend') },
    { name: 'Work promised, earned, spent', brief: curves },
    { name: 'Cost promised, earned, spent', brief: { ...curves, of: 'cost' } },
    { name: 'Activities done', brief: { ...curves, of: 'activities' } },
    { name: 'Milestones reached', brief: { ...curves, of: 'milestones' } },
    {
      name: 'Payments promised and earned',
      brief: {
        ...curves,
        of: 'cost',
        where: only({ field: 'kind', is: 'is', values: ['milestone'] }, { field: 'cost', is: 'above', values: ['0'] }),
      },
    },
    { name: 'People and plant', brief: months },
    { name: 'Payments by month', brief: { ...months, of: 'payments' } },
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
