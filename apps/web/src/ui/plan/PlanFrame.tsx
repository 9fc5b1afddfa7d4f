'use client';
import { useRouter } from 'next/navigation';
import { type ReactNode, useMemo } from 'react';
import { usePlanSearch } from './usePlanSearch';
import { Frame, type FramePlan } from '../Frame';
import type { Found } from '../SearchAndAct';
import type { StageName } from '../stages';
import { type OpenRoom, usePlanRoom } from '@/workers/planRoom';
import { PlanTurns } from './PlanTurns';

interface Props {
  stage: StageName;
  plan: FramePlan;
  version: number;
  /** Pages of the plan that are found by searching here. */
  beside?: readonly (readonly [path: string, title: string])[];
  /** What is shown once the plan is open. */
  children: (open: OpenRoom) => ReactNode;
}

const NOTHING: NonNullable<Props['beside']> = [];

/** A page that works on an open plan: its frame with search, undo and redo, and what it shows until it is open. */
export function PlanFrame({ stage, plan, version, beside = NOTHING, children }: Props) {
  const { open, error } = usePlanRoom(plan.id, version);
  const router = useRouter();
  const more = useMemo(
    () =>
      beside.map(
        ([path, label]): Found => ({
          id: path,
          group: 'Go to',
          label,
          run: () => router.push(`/plans/${plan.id}/${path}`),
        }),
      ),
    [plan.id, router, beside],
  );
  const search = usePlanSearch(plan.id, open, more);
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
