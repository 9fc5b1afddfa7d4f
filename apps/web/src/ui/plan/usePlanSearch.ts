'use client';
import { useRouter } from 'next/navigation';
import { useCallback } from 'react';
import type { Found } from '../SearchAndAct';
import type { OpenRoom } from '@/workers/planRoom';

/** Finds activities of the open plan; choosing one goes to its row of the ledger. */
export function usePlanSearch(
  planId: string,
  open: OpenRoom | null,
  more: Found[] = [],
): (text: string) => Promise<Found[]> {
  const router = useRouter();
  return useCallback(
    async (text: string) => {
      const wanted = text.trim().toLowerCase();
      const list = more.filter((f) => f.label.toLowerCase().includes(wanted));
      const activities = (await open?.room.find(text, 12)) ?? [];
      return [
        ...list,
        ...activities.map(
          ({ ref, name }): Found => ({
            id: `activity ${ref}`,
            group: 'Activities',
            label: name,
            hint: ref,
            run: () => router.push(`/plans/${planId}/structure?ref=${encodeURIComponent(ref)}`),
          }),
        ),
      ];
    },
    [planId, open, router, more],
  );
}
