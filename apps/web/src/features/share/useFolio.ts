'use client';
import type { Folio } from '@clembo/scene/folio';
import { useEffect, useRef, useState } from 'react';
import { ask, Refused } from '@/ui/ask';
import { toast, wrong } from '@/ui/Toasts';

/** After so long without a change a folio is kept, in milliseconds. */
const CALM = 500;

/** A folio that is worked on: what is done is kept by itself, and can be taken back. */
export function useFolio(id: string, version: number, first: Folio) {
  const [folio, setFolio] = useState(first);
  const [past, setPast] = useState<Folio[]>([]);
  const [future, setFuture] = useState<Folio[]>([]);
  const held = useRef({ version, kept: first, now: first, work: Promise.resolve() });
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const keep = (): Promise<void> => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = null;
    const h = held.current;
    h.work = h.work.then(async () => {
      if (h.kept === h.now) return;
      const wanted = h.now;
      try {
        const { version: next } = await ask<{ version: number }>(`/api/folios/${id}`, {
          method: 'PUT',
          json: { version: h.version, folio: wanted },
        });
        h.version = next;
        h.kept = wanted;
      } catch (error) {
        if (error instanceof Refused && error.status === 409) {
          const { now } = error.body as { now: { version: number; content: Folio } };
          h.version = now.version;
          h.kept = now.content;
          h.now = now.content;
          setFolio(now.content);
        }
        wrong(error);
      }
    });
    return h.work;
  };
  const show = (next: Folio) => {
    held.current.now = next;
    setFolio(next);
    if (timer.current) clearTimeout(timer.current);
    timer.current = setTimeout(() => void keep(), CALM);
  };
  const set = (next: Folio) => {
    const was = held.current.now;
    setPast((p) => [...p.slice(-99), was]);
    setFuture([]);
    show(next);
  };
  useEffect(() => () => void keep(), []); // biome-ignore lint: what is open is kept when it is left
  const undo = () => {
    const was = past.at(-1);
    if (!was) return;
    setPast(past.slice(0, -1));
    setFuture([held.current.now, ...future]);
    show(was);
    toast('Taken back.', { seconds: 2 });
  };
  const redo = () => {
    const [next, ...rest] = future;
    if (!next) return;
    setFuture(rest);
    setPast([...past, held.current.now]);
    show(next);
  };
  return { folio, set, undo, redo, canUndo: past.length > 0, canRedo: future.length > 0, saved: keep };
}
