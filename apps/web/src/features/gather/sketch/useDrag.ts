'use client';
import { type PointerEvent as ReactPointerEvent, useEffect, useRef, useState } from 'react';

/** Something that is being drawn or dragged, from one day to another. */
export interface Drag {
  how: 'make' | 'move' | 'start' | 'finish';
  /** What is dragged; for something new, what it will stand behind. */
  ref: string | null;
  row: number;
  /** The day under the pointer when it began, and now. */
  from: number;
  to: number;
}

/** Follows the pointer until it is let go; Escape leaves everything as it was. */
export function useDrag(dayAt: (clientX: number) => number, onDone: (drag: Drag) => void) {
  const [drag, setDrag] = useState<Drag | null>(null);
  const now = useRef<Drag | null>(null);
  const done = useRef(onDone);
  const day = useRef(dayAt);
  useEffect(() => {
    done.current = onDone;
    day.current = dayAt;
  });
  const put = (next: Drag | null) => {
    now.current = next;
    setDrag(next);
  };
  useEffect(() => {
    if (!drag) return;
    const move = (e: PointerEvent) => now.current && put({ ...now.current, to: day.current(e.clientX) });
    const up = () => {
      const last = now.current;
      put(null);
      if (last) done.current(last);
    };
    const key = (e: KeyboardEvent) => {
      if (e.key !== 'Escape') return;
      e.stopPropagation();
      put(null);
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
    window.addEventListener('keydown', key, true);
    return () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('keydown', key, true);
    };
  }, [drag === null]);
  const begin = (e: ReactPointerEvent, how: Drag['how'], ref: string | null, row: number) => {
    if (e.button !== 0) return;
    e.preventDefault();
    const at = day.current(e.clientX);
    put({ how, ref, row, from: at, to: at });
  };
  return { drag, begin };
}
