'use client';
import { isChainage, placeWords } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import type { PlaneShape } from '@clembo/scene';
import { type RefObject, useEffect, useState } from 'react';
import type { ComposedPage } from '@/workers/composing';
import { isOnPlane, readPlane } from './onPlane';

interface Seen {
  x: number;
  y: number;
  words: string;
}

/** What is pointed at on a page of linear work: the place, the day, and what is there. */
export function Readout({
  page,
  plane: p,
  sheet,
}: {
  page: ComposedPage;
  plane: PlaneShape;
  sheet: RefObject<HTMLDivElement | null>;
}) {
  const [seen, setSeen] = useState<Seen | null>(null);
  useEffect(() => {
    const element = sheet.current;
    if (!element) return;
    const onMove = (e: PointerEvent) => {
      const frame = element.getBoundingClientRect();
      const [left, top] = [e.clientX - frame.left, e.clientY - frame.top];
      const [x, y] = [(left * page.width) / frame.width, (top * page.height) / frame.height];
      if (!isOnPlane(p, { x, y })) return setSeen(null);
      const { place, day } = readPlane(p, { x, y });
      const ref = (e.target as Element).closest('[data-ref]')?.getAttribute('data-ref');
      const { rows, named } = page.content;
      const name = ref ? rows.find((r) => r.ref === ref)?.cells[named] : undefined;
      const unit = p.unit === '' || isChainage(p.unit) ? '' : ` ${p.unit}`;
      const at = `${placeWords(Math.round(place) * 1000, p.unit)}${unit}, ${formatDay(Math.floor(day), 'long')}`;
      setSeen({ x: left, y: top, words: name ? `${at} · ${name}` : at });
    };
    const onLeave = () => setSeen(null);
    element.addEventListener('pointermove', onMove);
    element.addEventListener('pointerleave', onLeave);
    return () => {
      element.removeEventListener('pointermove', onMove);
      element.removeEventListener('pointerleave', onLeave);
    };
  }, [page, p, sheet]);
  if (!seen) return null;
  return (
    <p
      data-testid="readout"
      className="pointer-events-none absolute z-10 rounded bg-ink px-2 py-0.5 text-[13.5px] whitespace-nowrap text-paper"
      style={{ left: seen.x + 14, top: seen.y + 14 }}
    >
      {seen.words}
    </p>
  );
}
