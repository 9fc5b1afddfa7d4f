'use client';
import { PageTabs } from '@/ui/PageTabs';
import { ROOMS } from '@/ui/rooms';

export type GatherTab = (typeof ROOMS.Gather)[number][1];

/** What there is to gather for a plan. */
export function GatherTabs({ planId, current }: { planId: string; current: GatherTab }) {
  return <PageTabs label="Gather" planId={planId} tabs={ROOMS.Gather} current={current} />;
}
