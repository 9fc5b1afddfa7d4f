'use client';
import type { LinkType } from '@clembo/core';
import { type PointerEvent, type RefObject, useState } from 'react';
import type { Consequences } from '@/workers/answers/consequences';
import type { Dragging } from '@/workers/answers/dragging';
import type { Strip } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import type { Grip } from './Strip';
import type { View } from './stripView';

/** What is being dragged on the strips. */
export interface Drag {
  dragging: Dragging | null;
  grip: Grip;
  strip: Strip;
  /** Days from where it was taken up. */
  by: number;
  /** For a link that is drawn: from where to where on the screen. */
  line: { x1: number; y1: number; x2: number; y2: number } | null;
}

interface Options {
  open: OpenRoom;
  view: View;
  /** Whether what follows goes along. */
  follow: boolean;
  /** References whose places would be drawn. */
  inSight: RefObject<string[]>;
  onDrop: (dragging: Dragging, words: string) => void;
  onEnd: () => void;
}

export const dragWords = (d: Dragging): string =>
  d.do === 'link'
    ? `Link ${d.from} → ${d.to}`
    : d.do === 'progress'
      ? `Report progress of ${d.ref}`
      : d.do === 'finish'
        ? `Change the length of ${d.ref}`
        : `Move ${d.ref}`;

/** Drags bars, their ends, their progress and links from bar to bar: what would come of it is known before they are let go; Escape leaves them. */
export function useStripDrag({ open, view, follow, inSight, onDrop, onEnd }: Options) {
  const [drag, setDrag] = useState<Drag | null>(null);
  const [would, setWould] = useState<Consequences | null>(null);
  const onGrip = (e: PointerEvent, grip: Grip, ref: string, strip: Strip) => {
    if (e.button !== 0) return;
    e.preventDefault();
    e.stopPropagation();
    const box = (e.currentTarget as HTMLElement).closest('[data-strip]')!.getBoundingClientRect();
    const bar = (e.currentTarget as HTMLElement).closest('[data-bar]')!.getBoundingClientRect();
    const perDay = box.width / (view.to - view.from);
    const begun = e.clientX;
    let now: Drag = { dragging: null, grip, strip, by: 0, line: null };
    setDrag(now);
    const end = () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('keydown', key, true);
      setDrag(null);
      setWould(null);
    };
    let asked = 0;
    const meant = (m: globalThis.PointerEvent): Dragging | null => {
      if (grip === 'link') {
        const to = barUnder(m.clientX, m.clientY);
        return to && to.ref !== ref ? { do: 'link', from: ref, to: to.ref, type: linkType('finish', to.end) } : null;
      }
      if (grip === 'progress') {
        const share = (m.clientX - bar.left) / Math.max(1, bar.width);
        return { do: 'progress', ref, percent: Math.round(20 * Math.max(0, Math.min(1, share))) * 5 };
      }
      const by = Math.round((m.clientX - begun) / perDay);
      return by === 0 ? null : { do: grip, ref, by };
    };
    const move = (m: globalThis.PointerEvent) => {
      const dragging = meant(m);
      const line =
        grip === 'link' ? { x1: bar.right, y1: bar.top + bar.height / 2, x2: m.clientX, y2: m.clientY } : null;
      const same = JSON.stringify(dragging) === JSON.stringify(now.dragging);
      if (same && line === null) return;
      now = { ...now, dragging, line, by: dragging && 'by' in dragging ? dragging.by : 0 };
      setDrag(now);
      if (same) return;
      const mine = ++asked;
      if (!dragging) return setWould(null);
      void open.room.dragged(dragging, follow).then(
        async (command) => {
          const found = command && (await open.room.consequences(command, inSight.current));
          if (mine === asked) setWould(found);
        },
        () => {},
      );
    };
    const up = () => {
      asked++;
      end();
      onEnd();
      if (now.dragging) onDrop(now.dragging, dragWords(now.dragging));
    };
    const key = (k: globalThis.KeyboardEvent) => {
      if (k.key !== 'Escape') return;
      k.stopPropagation();
      asked++;
      end();
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
    window.addEventListener('keydown', key, true);
  };
  return { drag, would, onGrip };
}

/** The bar that lies under the pointer, or in the row under it, and which of its ends is nearer. */
function barUnder(x: number, y: number): { ref: string; end: 'start' | 'finish' } | null {
  const strip = document.elementsFromPoint(x, y).find((el) => el.hasAttribute('data-strip'));
  const bar = strip?.querySelector<HTMLElement>('[data-bar]');
  if (!bar) return null;
  const box = bar.getBoundingClientRect();
  return { ref: bar.dataset.bar!, end: x > box.left + box.width / 2 && box.width > 16 ? 'finish' : 'start' };
}

const linkType = (from: 'start' | 'finish', to: 'start' | 'finish'): LinkType =>
  from === 'finish' ? (to === 'start' ? 'FS' : 'FF') : to === 'start' ? 'SS' : 'SF';
