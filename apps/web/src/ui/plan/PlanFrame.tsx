'use client';
import type { ReactNode } from 'react';
import { usePlanSearch } from './usePlanSearch';
import { Frame, type FramePlan } from '../Frame';
import type { StageName } from '../stages';
import { type OpenRoom, usePlanRoom } from '@/workers/planRoom';
import { PlanTurns } from './PlanTurns';

interface Props {
  stage: StageName;
  plan: FramePlan;
  version: number;
  /** What is shown once the plan is open. */
  children: (open: OpenRoom) => ReactNode;
}

/** A page that works on an open plan: its frame with search, undo and redo, and what it shows until it is open. */
export function PlanFrame({ stage, plan, version, children }: Props) {
  const { open, error } = usePlanRoom(plan.id, version);
  const search = usePlanSearch(plan.id, open);
  return (
    <Frame
      stage={stage}
      plan={{ ...plan, name: open?.head.name ?? plan.name }}
      search={search}
      controls={<PlanTurns planId={plan.id} open={open} />}
    >
      {error ? (
        <p role="alert" className="p-10 text-madder">
          {error}
        </p>
      ) : open ? (
        children(open)
      ) : (
        <p className="p-10 text-soft" role="status">
          Opening the plan …
        </p>
      )}
    </Frame>
  );
}
