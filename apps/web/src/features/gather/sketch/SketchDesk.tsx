'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { PlanTurns } from '@/ui/plan/PlanTurns';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { usePlanSearch } from '@/ui/plan/usePlanSearch';
import { Frame, type FramePlan } from '@/ui/Frame';
import { wrong } from '@/ui/Toasts';
import { Words } from '@/ui/Words';
import type { SketchedRow } from '@/workers/answers/sketched';
import { usePlanRoom } from '@/workers/planRoom';
import { GatherTabs } from '../plan/GatherTabs';
import { SketchBoard } from './SketchBoard';

/** More rows are a plan for the ledger. */
const MOST_ROWS = 400;

/** A plan drawn on a time line: phases and milestones are made, named and moved where they stand. */
export function SketchDesk({ plan, version, today }: { plan: FramePlan; version: number; today: number }) {
  const { open, error } = usePlanRoom(plan.id, version);
  const [rows, setRows] = useState<SketchedRow[] | null>(null);
  const search = usePlanSearch(plan.id, open);
  const { change } = usePlanChange(plan.id);
  useEffect(() => {
    let current = true;
    open?.room.sketched().then((list) => current && setRows(list), wrong);
    return () => {
      current = false;
    };
  }, [open]);
  const name = open?.head.name ?? plan.name;
  return (
    <Frame
      stage="Gather"
      plan={{ ...plan, name }}
      search={search}
      controls={<PlanTurns planId={plan.id} open={open} />}
    >
      <div className="flex h-full flex-col px-8 pt-6">
        <div className="flex items-baseline gap-6">
          <GatherTabs planId={plan.id} current="Sketch" />
          <span className="ml-auto flex items-center gap-3">
            <Words
              label="Name of the plan"
              value={name}
              className="text-right font-semibold"
              onSay={(text) => text !== '' && void change({ do: 'setPlan', settings: { name: text } })}
            />
            <Link href={`/plans/${plan.id}/show`} className="quiet py-1">
              See its page
            </Link>
          </span>
        </div>
        {error ? (
          <p role="alert" className="mt-6 text-madder">
            {error}
          </p>
        ) : !open || !rows ? (
          <p role="status" className="mt-6 text-soft">
            Opening the plan …
          </p>
        ) : open.head.source === 'computed' ? (
          <p className="mt-6 max-w-xl text-soft">
            The dates of this plan are computed from lengths and links, so they are not drawn. Change it in{' '}
            <Link href={`/plans/${plan.id}/structure`} className="text-kelp underline">
              Structure
            </Link>
            .
          </p>
        ) : rows.length > MOST_ROWS ? (
          <p className="mt-6 max-w-xl text-soft">
            This plan has {rows.length} rows; a sketch has at most {MOST_ROWS}. Work on it in{' '}
            <Link href={`/plans/${plan.id}/structure`} className="text-kelp underline">
              Structure
            </Link>
            .
          </p>
        ) : (
          <SketchBoard planId={plan.id} open={open} rows={rows} today={today} />
        )}
      </div>
    </Frame>
  );
}
