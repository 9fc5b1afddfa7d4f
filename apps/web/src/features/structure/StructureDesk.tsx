'use client';
import type { ReactNode } from 'react';
import { PlanTurns } from '@/features/plan/PlanTurns';
import { usePlanSearch } from '@/features/planSearch';
import { Frame, type FramePlan } from '@/ui/Frame';
import { type OpenRoom, usePlanRoom } from '@/workers/planRoom';
import { type StructureTab, StructureTabs } from './StructureTabs';

interface Props {
  plan: FramePlan;
  version: number;
  current: StructureTab;
  children: (open: OpenRoom) => ReactNode;
}

/** A page of Structure beside the ledger: its tabs, and what it shows once the plan is open. */
export function StructureDesk({ plan, version, current, children }: Props) {
  const { open, error } = usePlanRoom(plan.id, version);
  const search = usePlanSearch(plan.id, open);
  return (
    <Frame
      stage="Structure"
      plan={{ ...plan, name: open?.head.name ?? plan.name }}
      search={search}
      controls={<PlanTurns planId={plan.id} open={open} />}
    >
      <div className="h-full overflow-auto">
        <div className="mx-auto max-w-[1240px] px-8 pt-6 pb-10">
          <StructureTabs planId={plan.id} current={current} />
          {error ? (
            <p role="alert" className="mt-6 text-madder">
              {error}
            </p>
          ) : open ? (
            children(open)
          ) : (
            <p role="status" className="mt-6 text-soft">
              Opening the plan …
            </p>
          )}
        </div>
      </div>
    </Frame>
  );
}
