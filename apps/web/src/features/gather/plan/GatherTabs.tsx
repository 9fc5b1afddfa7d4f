'use client';
import { PageTabs } from '@/ui/PageTabs';
import { SCREENS } from '@/ui/screens';

export type GatherTab = (typeof SCREENS.Gather)[number][1];

/** What there is to gather for a plan. */
export function GatherTabs({ planId, current }: { planId: string; current: GatherTab }) {
  return <PageTabs label="Gather" planId={planId} tabs={SCREENS.Gather} current={current} />;
}
