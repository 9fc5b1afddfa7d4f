'use client';
import { PageTabs } from '@/ui/PageTabs';
import { SCREENS } from '@/ui/screens';

export type MeasurePage = (typeof SCREENS.Measure)[number][1];

/** How a plan stands, and what that is measured by. */
export function MeasureTabs({ planId, current }: { planId: string; current: MeasurePage }) {
  return <PageTabs label="Measure" planId={planId} tabs={SCREENS.Measure} current={current} />;
}
