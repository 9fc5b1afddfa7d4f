'use client';
import { type Command, type Day, isoDate, workingDaysTo } from '@clembo/core';
import { type PointerEvent, type RefObject, useState } from 'react';
import type { Consequences } from '@/workers/plan.worker';
import type { OpenRoom } from '@/workers/planRoom';
import type { Grip } from './Strip';

/** A bar or its end that is dragged on the strip. */
export interface Dragged {
  ref: string;
  grip: Grip;
  from: Day;
  to: Day;
  first: Day;
  last: Day;
}

interface Options {
  open: OpenRoom;
  range: [Day, Day];
  /** References whose places would be drawn. */
  inSight: RefObject<string[]>;
  isGroup: (ref: string) => boolean;
  onDrop: (make: () => Promise<Command | null>, words: string) => void;
  onEnd: () => void;
}

/** Drags bars and their ends on the strips: what would come of it is known before they are let go; Escape leaves them. */
export function useStripDrag({ open, range, inSight, isGroup, onDrop, onEnd }: Options) {
  const [drag, setDrag] = useState<Dragged | null>(null);
  const [would, setWould] = useState<Consequences | null>(null);
  const dragCommand = async (d: Dragged) => {
    const by = d.to - d.from;
    const cell =
      d.grip === 'finish'
        ? { ref: d.ref, field: 'finish', text: isoDate(Math.max(d.first, d.last + by)) }
        : { ref: d.ref, field: 'start', text: isoDate(d.first + by) };
    if (isGroup(d.ref) && d.grip === 'move') {
      const made = await open.room.drawn({
        do: 'shift',
        ref: d.ref,
        days: workingDaysTo(open.head, d.first, d.first + by),
      });
      return made?.command ?? null;
    }
    return (await open.room.typed([cell])).command;
  };
  const onGrip = (e: PointerEvent, grip: Grip, ref: string, first: Day, last: Day) => {
    if (e.button !== 0) return;
    e.preventDefault();
    e.stopPropagation();
    const box = (e.currentTarget as HTMLElement).closest('[data-strip]')!.getBoundingClientRect();
    const perDay = box.width / (range[1] + 1 - range[0]);
    const begun = e.clientX;
    const dayAt = (x: number) => Math.round((x - begun) / perDay);
    let now: Dragged = { ref, grip, from: 0, to: 0, first, last };
    setDrag(now);
    const end = () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('keydown', key, true);
      setDrag(null);
      setWould(null);
    };
    let asked = 0;
    const move = (m: globalThis.PointerEvent) => {
      const to = dayAt(m.clientX);
      if (to === now.to) return;
      now = { ...now, to };
      setDrag(now);
      const mine = ++asked;
      void dragCommand(now).then(
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
      if (now.to !== 0) onDrop(() => dragCommand(now), `Move ${ref}`);
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
