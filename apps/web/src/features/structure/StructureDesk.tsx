'use client';
import type { ReactNode } from 'react';
import { PlanFrame } from '@/ui/plan/PlanFrame';
import type { FramePlan } from '@/ui/Frame';
import type { OpenRoom } from '@/workers/planRoom';
import { type StructureTab, StructureTabs } from './StructureTabs';

interface Props {
  plan: FramePlan;
  version: number;
  current: StructureTab;
  children: (open: OpenRoom) => ReactNode;
}

/** A page of Structure beside the ledger. */
export function StructureDesk({ plan, version, current, children }: Props) {
  return (
    <PlanFrame stage="Structure" plan={plan} version={version}>
      {(open) => (
        <div className="h-full overflow-auto">
          <div className="mx-auto max-w-[1240px] px-8 pt-6 pb-10">
            <StructureTabs planId={plan.id} current={current} />
            {children(open)}
          </div>
        </div>
      )}
    </PlanFrame>
  );
}
