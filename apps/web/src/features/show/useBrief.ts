'use client';
import type { Brief } from '@clembo/scene/brief';
import { useCallback, useEffect, useRef, useState } from 'react';
import { ask, Refused } from '@/ui/ask';
import { toast, wrong } from '@/ui/Toasts';

interface History {
  past: Brief[];
  now: Brief;
  future: Brief[];
}

interface Kept {
  brief: Brief;
  version: number;
}

/** Between attempts to keep what could not be kept, in milliseconds. */
const AGAIN = 4000;

/** The parts of a brief that differ from another. */
function difference(from: Brief, to: Brief): Partial<Brief> {
  const parts = Object.entries(to).filter(
    ([part, value]) => JSON.stringify(value) !== JSON.stringify(from[part as keyof Brief]),
  );
  return Object.fromEntries(parts) as Partial<Brief>;
}

/**
 * The brief of an exhibit with its history. Every change is kept on the server at once, part by part, so that what
 * others change meanwhile stays; what cannot be kept is said, held here, and tried again. Whoever may not edit the plan
 * sees the page as they like, and nothing of it is kept.
 */
export function useBrief(exhibitId: string, first: Brief, version: number, mayKeep: boolean) {
  const [history, setHistory] = useState<History>({ past: [], now: first, future: [] });
  const [unsaved, setUnsaved] = useState(false);
  /** What the server is known to have. */
  const kept = useRef<Kept>({ brief: first, version });
  const screen = useRef(first);
  /** Ends when what is on screen is what the server has. */
  const saving = useRef<Promise<void>>(Promise.resolve());
  const { now } = history;
  screen.current = now;

  const adopt = useCallback((brief: Brief) => {
    setHistory((h) => ({ past: [...h.past.slice(-99), h.now], now: brief, future: [] }));
  }, []);
  const change = useCallback((part: Partial<Brief>) => {
    setHistory((h) => ({ past: [...h.past.slice(-99), h.now], now: { ...h.now, ...part } as Brief, future: [] }));
  }, []);

  const keep = useCallback(async () => {
    const wanted = screen.current;
    const mine = difference(kept.current.brief, wanted);
    if (Object.keys(mine).length === 0) return setUnsaved(false);
    try {
      const done = await ask<Kept>(`/api/exhibits/${exhibitId}`, {
        method: 'PATCH',
        headers: { 'If-Match': `"${kept.current.version}"` },
        json: { brief: mine },
        keepalive: true,
      });
      const theirs = difference({ ...kept.current.brief, ...mine } as Brief, done.brief);
      kept.current = { brief: done.brief, version: done.version };
      setUnsaved(false);
      // What others have changed meanwhile is shown too.
      if (Object.keys(theirs).length > 0) change(theirs);
    } catch (error) {
      const now = error instanceof Refused && error.status === 409 ? (error.body as { now?: Kept }).now : undefined;
      if (!now) {
        setUnsaved(true);
        throw error;
      }
      kept.current = { brief: now.brief, version: now.version };
      setUnsaved(false);
      adopt({ ...screen.current, ...difference(screen.current, now.brief) } as Brief);
      toast((error as Error).message, {
        seconds: 20,
        action: { label: 'Put mine back', run: () => change(mine) },
      });
    }
  }, [exhibitId, adopt, change]);

  useEffect(() => {
    if (!mayKeep || Object.keys(difference(kept.current.brief, now)).length === 0) return;
    saving.current = saving.current.catch(() => {}).then(keep);
    saving.current.catch(wrong);
  }, [now, keep, mayKeep]);

  // What could not be kept is tried again, until it is.
  useEffect(() => {
    if (!unsaved || !mayKeep) return;
    const timer = setInterval(() => {
      saving.current = saving.current.catch(() => {}).then(keep);
      saving.current.catch(() => {});
    }, AGAIN);
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => {
      clearInterval(timer);
      window.removeEventListener('beforeunload', warn);
    };
  }, [unsaved, keep, mayKeep]);

  const undo = useCallback(() => {
    setHistory((h) =>
      h.past.length === 0 ? h : { past: h.past.slice(0, -1), now: h.past.at(-1)!, future: [h.now, ...h.future] },
    );
  }, []);
  const redo = useCallback(() => {
    setHistory((h) =>
      h.future.length === 0 ? h : { past: [...h.past, h.now], now: h.future[0]!, future: h.future.slice(1) },
    );
  }, []);
  const saved = useCallback(() => saving.current, []);
  return {
    brief: now,
    change,
    undo,
    redo,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    unsaved,
    saved,
    /** What is seen here is seen by nobody else. */
    alone: !mayKeep && Object.keys(difference(kept.current.brief, now)).length > 0,
  };
}
