import { isMilestone, makeField, type Plan, schedulePlan } from '../../packages/core/src/index';
import { seeded } from '../../packages/core/tests/helpers';
import { Brief, type BriefKind, PAGES } from '../../packages/scene/src/index';
import { randomPage } from './randomPages';

/** A page that says how a random plan stands against its promise. */
export interface VariancePage {
  seed: number;
  plan: Plan;
  promised: Plan;
  /** On the way from the promise to now. */
  between: Plan[];
  brief: Exclude<Brief, { kind: 'timeline' }>;
}

const KINDS: Exclude<BriefKind, 'timeline'>[] = ['slips', 'bars', 'amounts', 'trend', 'curves', 'months', 'snapshot'];

/** A random plan with amounts and editions, and a brief of each kind by turns. */
export function variancePage(seed: number): VariancePage {
  const random = seeded(seed * 6151 + 7);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const chance = (p: number) => random() < p;
  const given = randomPage(seed);
  const amounts = chance(0.8);
  const plan: Plan = {
    ...given.plan,
    codeFields: given.plan.codeFields.map((f) => makeField(f)),
    currency: chance(0.5) ? 'EUR' : null,
    activities: given.plan.activities.map((a) => {
      if (!amounts || a.kind === 'summary') return a;
      const effort = isMilestone(a.kind) ? null : Math.round(random() * 400) * 60;
      const cost = chance(0.5) ? Math.round(random() * 1e7) : null;
      const begun = (a.percent ?? 0) > 0;
      return {
        ...a,
        effort,
        cost,
        actualEffort: begun && effort !== null ? Math.round(effort * random() * 2) : null,
        actualCost: begun && cost !== null ? Math.round(cost * random() * 2) : null,
      };
    }),
  };
  const moved = (most: number): Plan => ({
    ...plan,
    activities: plan.activities.map((a) => {
      const by = chance(0.3) ? 0 : Math.floor((random() - 0.3) * most) * 1440;
      return {
        ...a,
        start: a.start === null ? null : a.start - by,
        finish: a.finish === null ? null : a.finish - by,
        stretches: [],
        percent: null,
        actualStart: null,
        actualFinish: null,
        actualEffort: null,
        actualCost: null,
      };
    }),
  });
  const kind = KINDS[seed % KINDS.length]!;
  const brief = Brief.parse({
    kind,
    where: chance(0.2)
      ? { match: 'all', tests: [{ field: 'percent', is: pick(['atMost', 'above']), values: ['40'] }] }
      : undefined,
    page: pick(Object.keys(PAGES) as (keyof typeof PAGES)[]),
    print: chance(0.2) ? 'grey' : 'colour',
    include: pick(['both', 'both', 'activities', 'milestones']),
    only:
      kind === 'slips'
        ? pick(['both', 'late', 'ahead'])
        : kind === 'bars'
          ? pick(['all', 'off', 'critical', 'open'])
          : pick(['all', 'off', 'over', 'beyond']),
    order: kind === 'bars' ? pick(['plan', 'start', 'size']) : pick(['ratio', 'size', 'plan']),
    of:
      kind === 'curves'
        ? pick(['effort', 'cost', 'activities', 'milestones'])
        : kind === 'months'
          ? pick(['hours', 'payments', 'finishes'])
          : pick(['each', 'each', 'lane', 'outline']),
    least: pick([0, 1, 5]),
    by: kind === 'snapshot' ? pick([null, 'lane', 'outline']) : pick(['finish', 'finish', 'start']),
    amount: pick(['effort', 'cost']),
    forecast: chance(0.7),
  }) as VariancePage['brief'];
  return {
    seed,
    plan,
    promised: moved(50),
    between: Array.from({ length: Math.floor(random() * 6) }, () => moved(30)),
    brief,
  };
}

/** Working days from Monday to Friday that lie between two days, late is positive; counted day by day. */
export function weekdaysBetween(from: number, to: number): number {
  const weekday = (day: number) => (((day + 3) % 7) + 7) % 7 < 5;
  let n = 0;
  for (let d = Math.min(from, to); d < Math.max(from, to); d++) if (weekday(d)) n++;
  return to >= from ? n : -n;
}

/** Positions of activities that are no groups. */
export const leavesIn = (plan: Plan): number[] => {
  const { isSummary } = schedulePlan(plan).outline;
  return plan.activities.flatMap((_, i) => (isSummary[i] ? [] : [i]));
};
