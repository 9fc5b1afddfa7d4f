'use client';
import { useEffect, useState } from 'react';
import { Frame, type FramePlan } from '@/ui/Frame';
import { wrong } from '@/ui/Toasts';
import type { Checks, LedgerRow } from '@/workers/plan.worker';
import { usePlanRoom } from '@/workers/planRoom';
import { usePlanSearch } from '../planSearch';
import { LedgerList } from './LedgerList';

/** The list of activities with a small time strip in each row. */
export function Ledger({ plan, version }: { plan: FramePlan; version: number }) {
  const { open, error } = usePlanRoom(plan.id, version);
  const [rows, setRows] = useState<LedgerRow[] | null>(null);
  const [checks, setChecks] = useState<Checks | null>(null);
  const search = usePlanSearch(plan.id, open);
  useEffect(() => {
    let current = true;
    open?.room.ledger().then((list) => current && setRows(list), wrong);
    open?.room.checks().then((found) => current && setChecks(found), wrong);
    return () => {
      current = false;
    };
  }, [open]);
  return (
    <Frame stage="Structure" plan={plan} search={search}>
      {error ? (
        <p role="alert" className="p-10 text-madder">
          {error}
        </p>
      ) : open && rows ? (
        <LedgerList planId={plan.id} head={open.head} rows={rows} checks={checks} />
      ) : (
        <p className="p-10 text-soft" role="status">
          Opening the plan …
        </p>
      )}
    </Frame>
  );
}
