'use client';
import { useCallback, useState } from 'react';
import { wrong } from '../Toasts';
import { changePlan, type Wanted } from '@/workers/planWrites';

/** Changes the open plan, and says what was refused; `busy` while it is being written. */
export function usePlanChange(planId: string): {
  busy: boolean;
  change: (wanted: Wanted, words?: string) => Promise<boolean>;
} {
  const [busy, setBusy] = useState(false);
  const change = useCallback(
    async (wanted: Wanted, words?: string) => {
      setBusy(true);
      try {
        await changePlan(planId, wanted, words);
        return true;
      } catch (error) {
        wrong(error);
        return false;
      } finally {
        setBusy(false);
      }
    },
    [planId],
  );
  return { busy, change };
}
