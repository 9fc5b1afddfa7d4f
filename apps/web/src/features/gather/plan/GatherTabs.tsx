'use client';
import { PageTabs } from '@/ui/PageTabs';

const TABS = [
  ['gather', 'Sources and editions'],
  ['gather/books', 'Code books'],
  ['gather/work', 'Clean up'],
  ['sketch', 'Sketch'],
] as const;

export type GatherTab = (typeof TABS)[number][1];

/** What there is to gather for a plan. */
export function GatherTabs({ planId, current }: { planId: string; current: GatherTab }) {
  return <PageTabs label="Gather" planId={planId} tabs={TABS} current={current} />;
}
