'use client';
import { useEffect, useState } from 'react';
import { ask } from './ask';
import { useMe } from './useMe';

/** What somebody may do with a plan. */
export interface May {
  role: string | null;
  edit: boolean;
  comment: boolean;
}

// Until it is known, and where it cannot be, all is offered: a change that is refused says so.
const ALL: May = { role: null, edit: true, comment: true };
const known = new Map<string, May>();

const mayOf = (role: string | null): May => ({
  role,
  edit: role !== 'viewer' && role !== 'commenter',
  comment: role !== 'viewer',
});

/** What whoever has opened a plan may do with it. */
export function useMay(planId: string): May {
  const needed = useMe()?.needed ?? false;
  const [may, setMay] = useState(known.get(planId) ?? ALL);
  useEffect(() => {
    let current = true;
    if (needed)
      ask<{ here: string | null }>(`/api/me?plan=${planId}`).then(
        ({ here }) => {
          const found = mayOf(here);
          known.set(planId, found);
          if (current) setMay(found);
        },
        () => {},
      );
    return () => {
      current = false;
    };
  }, [needed, planId]);
  return may;
}

/** What is said to whoever tries to change what they may only look at. */
export const LOOK_ONLY = 'You may look at this plan, not change it. Its owner can let you edit it.';

/** As {@link useMay}, as far as it is known: for what is not drawn. */
export const mayNow = (planId: string): May => known.get(planId) ?? ALL;
