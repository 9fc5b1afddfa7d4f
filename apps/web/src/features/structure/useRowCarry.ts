'use client';
import type { RowPlace } from '@clembo/core';
import { type PointerEvent, useState } from 'react';

/** Where rows that are dragged would come to stand. */
export interface Landing {
  ref: string;
  place: RowPlace;
}

/** Drags rows by their handles to another place: before, behind, or into another row. */
export function useRowCarry(onDrop: (ref: string, landing: Landing) => void) {
  const [landing, setLanding] = useState<Landing | null>(null);
  const onCarry = (e: PointerEvent, ref: string) => {
    if (e.button !== 0) return;
    e.preventDefault();
    e.stopPropagation();
    let now: Landing | null = null;
    const move = (m: globalThis.PointerEvent) => {
      const row = document.elementsFromPoint(m.clientX, m.clientY).find((el) => el.matches('[role="row"][data-ref]'));
      const to = (row as HTMLElement | undefined)?.dataset.ref;
      if (!row || !to || to === ref) now = null;
      else {
        const box = row.getBoundingClientRect();
        const share = (m.clientY - box.top) / box.height;
        now = { ref: to, place: share < 0.3 ? 'before' : share > 0.7 ? 'behind' : 'into' };
      }
      setLanding(now);
    };
    const end = () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('keydown', key, true);
      setLanding(null);
    };
    const up = () => {
      end();
      if (now) onDrop(ref, now);
    };
    const key = (k: globalThis.KeyboardEvent) => {
      if (k.key !== 'Escape') return;
      k.stopPropagation();
      now = null;
      end();
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
    window.addEventListener('keydown', key, true);
  };
  return { landing, onCarry };
}
