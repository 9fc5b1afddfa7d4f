'use client';
import { PageTabs } from '@/ui/PageTabs';
import { ROOMS } from '@/ui/rooms';

export type StructureTab = (typeof ROOMS.Structure)[number][1];

/** What a plan is shaped of. */
export function StructureTabs({ planId, current }: { planId: string; current: StructureTab }) {
  return <PageTabs label="Structure" planId={planId} tabs={ROOMS.Structure} current={current} />;
}
