'use client';
import { PageTabs } from '@/ui/PageTabs';

const TABS = [
  ['structure', 'Ledger'],
  ['structure/calendars', 'Calendars'],
  ['structure/resources', 'Resources'],
  ['structure/lines', 'Lines'],
  ['structure/model', 'Model'],
] as const;

export type StructureTab = (typeof TABS)[number][1];

/** What a plan is shaped of. */
export function StructureTabs({ planId, current }: { planId: string; current: StructureTab }) {
  return <PageTabs label="Structure" planId={planId} tabs={TABS} current={current} />;
}
