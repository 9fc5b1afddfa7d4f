'use client';
import { useEffect, useState } from 'react';
import { ask } from './ask';
import { useMe } from './useMe';

const WORDS: Record<string, string> = {
  viewer: 'only to look at',
  commenter: 'to look at and comment on',
};

/** Says that a plan cannot be changed by who has opened it, before they try. */
export function MayHere({ planId }: { planId: string }) {
  const me = useMe();
  const needed = me?.needed ?? false;
  const [role, setRole] = useState<string | null>(null);
  useEffect(() => {
    let current = true;
    // Where it cannot be known, a change that is refused says so.
    if (needed)
      ask<{ here: string | null }>(`/api/me?plan=${planId}`).then(
        ({ here }) => current && setRole(here),
        () => {},
      );
    return () => {
      current = false;
    };
  }, [needed, planId]);
  const words = role === null ? undefined : WORDS[role];
  return words === undefined ? null : (
    <span
      data-testid="may-here"
      className="shrink-0 rounded-full border border-line bg-desk px-2 text-[13px] text-soft"
      title="Whoever owns the workspace can let you edit it."
    >
      {words}
    </span>
  );
}
