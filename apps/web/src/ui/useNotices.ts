'use client';
import { useCallback, useEffect, useState } from 'react';
import { ask } from './ask';

/** Something that somebody is told of: where they were named or answered. */
export interface Notice {
  commentId: string;
  planId: string;
  plan: string;
  ref: string | null;
  exhibitId: string | null;
  text: string;
  person: string | null;
  isNew: boolean;
}

/** How often is looked, in milliseconds. */
const AGAIN = 60_000;

/** What whoever is signed in is told of, and a way to say that it is read. */
export function useNotices(isWanted: boolean): { notices: Notice[]; read: () => void } {
  const [notices, setNotices] = useState<Notice[]>([]);
  useEffect(() => {
    if (!isWanted) return;
    let current = true;
    const look = () =>
      void ask<{ notices: Notice[] }>('/api/notices').then(
        (found) => current && setNotices(found.notices),
        () => {},
      );
    look();
    const timer = setInterval(() => !document.hidden && look(), AGAIN);
    return () => {
      current = false;
      clearInterval(timer);
    };
  }, [isWanted]);
  const read = useCallback(() => {
    void ask('/api/notices', { method: 'POST' }).catch(() => {});
    setNotices((all) => all.map((n) => ({ ...n, isNew: false })));
  }, []);
  return { notices, read };
}

/** Where a notice leads. */
export const noticePath = ({ planId, ref, exhibitId }: Notice): string =>
  ref !== null
    ? `/plans/${planId}/structure?ref=${encodeURIComponent(ref)}&margin`
    : exhibitId !== null
      ? `/plans/${planId}/show/${exhibitId}`
      : `/plans/${planId}/show`;
