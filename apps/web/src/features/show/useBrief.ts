'use client';
import type { TimelineBrief } from '@clembo/scene/brief';
import { useCallback, useEffect, useRef, useState } from 'react';
import { ask } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';

interface History {
  past: TimelineBrief[];
  now: TimelineBrief;
  future: TimelineBrief[];
}

/** The brief of an exhibit with its history; every change is kept on the server at once. */
export function useBrief(exhibitId: string, first: TimelineBrief) {
  const [history, setHistory] = useState<History>({ past: [], now: first, future: [] });
  const kept = useRef(first);
  /** Ends when what is on screen is what the server has. */
  const saving = useRef<Promise<void>>(Promise.resolve());
  const { now } = history;

  useEffect(() => {
    if (kept.current === now) return;
    kept.current = now;
    saving.current = saving.current
      .then(() => ask(`/api/exhibits/${exhibitId}`, { method: 'PATCH', json: { brief: now }, keepalive: true }))
      .then(() => {}, wrong);
  }, [exhibitId, now]);

  const change = useCallback((part: Partial<TimelineBrief>) => {
    setHistory((h) => ({ past: [...h.past.slice(-99), h.now], now: { ...h.now, ...part }, future: [] }));
  }, []);
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
    saved,
  };
}
