import type { Plan } from '@clembo/core';
import type { BaselineDates } from './readPlan';

/** What the edition is called that a table promises in columns of its own. */
export const PROMISED_IN_SOURCE = 'Baseline in the source';

/**
 * The edition that a table promised beside its current dates: the same activities on their baseline dates, without
 * progress. What the table promises nothing about has no dates there. Null where there are no baseline dates.
 */
export function promisedEdition(plan: Plan, baseline: readonly BaselineDates[]): Plan | null {
  if (baseline.length === 0) return null;
  const dates = new Map(baseline.map((b) => [b.ref, b]));
  return {
    ...plan,
    source: 'given',
    asPromised: false,
    // Nothing is promised but dates: links would give some to what has none.
    links: [],
    activities: plan.activities.map((a) => ({
      ...a,
      start: dates.get(a.ref)?.start ?? null,
      finish: dates.get(a.ref)?.finish ?? null,
      actualStart: null,
      actualFinish: null,
      percent: null,
      remaining: null,
      stretches: [],
      promised: null,
    })),
  };
}
