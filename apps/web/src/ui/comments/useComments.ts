'use client';
import type { Anchor as Place } from '@clembo/scene/brief';
import { useCallback, useEffect, useState } from 'react';
import { ask } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';

export interface Said {
  id: string;
  ref: string | null;
  /** Its name; null where it is not in the plan any more. */
  activity: string | null;
  exhibitId: string | null;
  exhibit: string | null;
  /** The place of the page that it is about. */
  place: Place | null;
  answers: string | null;
  text: string;
  account: string | null;
  person: string | null;
  doneAt: string | null;
  doneBy: string | null;
  changedAt: string | null;
  createdAt: string;
  files: { no: number; name: string; size: number }[];
}

export interface Comments {
  comments: Said[];
  people: { account: string; name: string }[];
  me: string | null;
  maySay: boolean;
  isOwner: boolean;
}

/** What a comment is about. */
export interface Anchor {
  ref: string | null;
  exhibitId: string | null;
  place?: Place | null;
}

/** What is about the same thing: the same activity, wherever it was said, or the same exhibit. */
export const isAbout = (said: Said, anchor: Anchor): boolean =>
  anchor.ref !== null ? said.ref === anchor.ref : said.ref === null && said.exhibitId === anchor.exhibitId;

const SHOWN = new Map<string, Comments>();
const listeners = new Set<(planId: string) => void>();

/** Reads what was said about a plan anew, for all that show it. */
async function look(planId: string): Promise<void> {
  SHOWN.set(planId, await ask<Comments>(`/api/plans/${planId}/comments`));
  for (const l of listeners) l(planId);
}

/** How often is looked what others said, in milliseconds. */
const AGAIN = 30_000;

/** What was said about a plan, and a way to read it anew; null until it is known. */
export function useComments(planId: string): { found: Comments | null; again: () => Promise<void> } {
  const [found, setFound] = useState(SHOWN.get(planId) ?? null);
  useEffect(() => {
    const take = (id: string) => id === planId && setFound(SHOWN.get(planId)!);
    listeners.add(take);
    if (SHOWN.has(planId)) take(planId);
    // Who cannot read them sees none: the page itself says what is wrong.
    const ask = () => void look(planId).catch(() => {});
    ask();
    const timer = setInterval(() => !document.hidden && ask(), AGAIN);
    return () => {
      listeners.delete(take);
      clearInterval(timer);
    };
  }, [planId]);
  const again = useCallback(() => look(planId).catch(wrong), [planId]);
  return { found, again };
}
