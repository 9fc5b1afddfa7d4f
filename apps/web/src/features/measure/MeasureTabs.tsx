'use client';
import { PageTabs } from '@/ui/PageTabs';
import { ROOMS } from '@/ui/rooms';

export type MeasurePage = (typeof ROOMS.Measure)[number][1];

/** How a plan stands, and what that is measured by. */
export function MeasureTabs({ planId, current }: { planId: string; current: MeasurePage }) {
  return <PageTabs label="Measure" planId={planId} tabs={ROOMS.Measure} current={current} />;
}
