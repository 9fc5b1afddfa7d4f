'use client';
import { defaultBrief } from '@clembo/scene/brief';
import { useRouter } from 'next/navigation';
import { useCallback } from 'react';
import { ask } from '../ask';
import { wrong } from '../Toasts';

/** So far back a network goes at first: a page that can be read. */
const STEPS = 4;

/** Makes a network of what leads to an activity, and goes to it. */
export function useNetworkAround(planId: string): (ref: string, name: string) => void {
  const router = useRouter();
  return useCallback(
    (ref, name) => {
      const brief = { ...defaultBrief('network'), around: ref, steps: STEPS, page: 'A3 landscape' as const };
      const called = `What leads to ${name || ref}`.slice(0, 200);
      ask<{ id: string }>(`/api/plans/${planId}/exhibits`, { method: 'POST', json: { name: called, brief } }).then(
        ({ id }) => router.push(`/plans/${planId}/show/${id}`),
        wrong,
      );
    },
    [planId, router],
  );
}
