'use client';
import type { Command } from '@clembo/core';
import { useCallback, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import { changePlan } from '@/workers/planRoom';

/** Changes the open plan, and says what was refused; `busy` while it is being written. */
export function usePlanChange(planId: string): {
  busy: boolean;
  change: (command: Command | Promise<Command>, words?: string) => Promise<boolean>;
} {
  const [busy, setBusy] = useState(false);
  const change = useCallback(
    async (command: Command | Promise<Command>, words?: string) => {
      setBusy(true);
      try {
        await changePlan(planId, await command, words);
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
