import type { Measuring } from '@/workers/answers/measure';

/** Nothing left out, against the promise, by effort: how Measure begins. @param by field of the breakdown */
export const everything = (by: string | null): Measuring => ({
  against: 'promised',
  where: { match: 'all', tests: [] },
  off: null,
  statuses: [],
  refs: [],
  months: [],
  amount: 'effort',
  weeks: 4,
  by,
});
