'use client';
import { PageTabs } from '@/ui/PageTabs';

export const MEASURE_PAGES = [
  ['measure', 'Standing'],
  ['measure/week', 'Weekly round'],
  ['measure/editions', 'Over the editions'],
  ['measure/tolerance', 'Tolerance and units'],
] as const;

export type MeasurePage = (typeof MEASURE_PAGES)[number][1];

/** How a plan stands, and what that is measured by. */
export function MeasureTabs({ planId, current }: { planId: string; current: MeasurePage }) {
  return <PageTabs label="Measure" planId={planId} tabs={MEASURE_PAGES} current={current} />;
}
