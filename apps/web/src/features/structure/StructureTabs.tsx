'use client';
import { PageTabs } from '@/ui/PageTabs';
import { SCREENS } from '@/ui/screens';

export type StructureTab = (typeof SCREENS.Structure)[number][1];

/** What a plan is shaped of. */
export function StructureTabs({ planId, current }: { planId: string; current: StructureTab }) {
  return <PageTabs label="Structure" planId={planId} tabs={SCREENS.Structure} current={current} />;
}
