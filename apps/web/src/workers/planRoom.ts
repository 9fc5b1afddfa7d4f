'use client';
import { type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { PlanHead, PlanRoom } from './plan.worker';

export interface OpenRoom {
  room: Remote<PlanRoom>;
  head: PlanHead;
}

/** One worker for the plan that is open; going from page to page keeps it. */
let open: { planId: string; version: number; worker: Worker; ready: Promise<OpenRoom> } | null = null;

function openRoom(planId: string, version: number): Promise<OpenRoom> {
  if (open?.planId === planId && open.version === version) return open.ready;
  open?.worker.terminate();
  const worker = new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' });
  const room = wrap<PlanRoom>(worker);
  const ready = room.open(planId).then((head) => ({ room, head }));
  open = { planId, version, worker, ready };
  ready.catch(() => {
    open = null;
  });
  return ready;
}

/** The room of a plan once it is open, or what went wrong. */
export function usePlanRoom(planId: string, version: number): { open: OpenRoom | null; error: string | null } {
  const [state, setState] = useState<{ open: OpenRoom | null; error: string | null }>({ open: null, error: null });
  useEffect(() => {
    let current = true;
    openRoom(planId, version).then(
      (ready) => current && setState({ open: ready, error: null }),
      (error: Error) => current && setState({ open: null, error: error.message }),
    );
    return () => {
      current = false;
    };
  }, [planId, version]);
  return state;
}
