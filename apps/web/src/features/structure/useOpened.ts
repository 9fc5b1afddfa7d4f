'use client';
import { useEffect, useState } from 'react';
import { wrong as sayWrong } from '@/ui/Toasts';
import type { LedgerShape } from '@/workers/answers/ledger';
import type { Neighbours } from '@/workers/answers/neighbours';
import type { OpenRoom } from '@/workers/planRoom';

/** The activity that stands open with its neighbours, and the place of its line; -1 where none does. */
export function useOpened(open: OpenRoom, shape: LedgerShape) {
  const [opened, setOpened] = useState<string | null>(null);
  const [around, setAround] = useState<Neighbours | null>(null);
  const [openAt, setOpenAt] = useState(-1);
  useEffect(() => {
    if (opened === null) {
      setAround(null);
      setOpenAt(-1);
      return;
    }
    let current = true;
    Promise.all([open.room.neighbours(opened), open.room.lineOf(opened)]).then(([found, { place }]) => {
      if (!current) return;
      setAround(found);
      setOpenAt(place);
    }, sayWrong);
    return () => {
      current = false;
    };
  }, [opened, open, shape]);
  const toggle = (ref: string | null): void => setOpened((o) => (o === ref ? null : ref));
  return { opened, setOpened, toggle, around, openAt };
}
