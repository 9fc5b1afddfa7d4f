import { type Day, dayOf } from '@clembo/core';
import type { PlanHead } from '@/workers/openPlan';

/** A day near the work of a plan that may have no dates yet: its status date, its start, or today by the reader's clock. */
export const nearDay = ({ statusDate, start }: Pick<PlanHead, 'statusDate' | 'start'>): Day => {
  const moment = statusDate ?? start;
  return moment === null ? Math.floor(Date.now() / 86_400_000) : dayOf(moment);
};
