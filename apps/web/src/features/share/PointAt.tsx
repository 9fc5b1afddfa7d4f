'use client';
import type { PageBox } from '@clembo/scene/folio';
import { type PointerEvent, useRef, useState } from 'react';
import type { ComposedPage } from '@/workers/composing';
import { PageThumb } from './PageThumb';

/** What is pointed at on a page: a thing by its reference, or a rectangle. */
export type Pointed = { ref: string; box: null } | { ref: null; box: PageBox };

interface Props {
  testId: string;
  page: ComposedPage | null;
  pointed: Pointed | null;
  onPoint: (pointed: Pointed | null) => void;
}

/** A smaller stroke than this is a click, in pixels. */
const STROKE = 6;

interface Point {
  x: number;
  y: number;
}

const between = (a: Point, b: Point): PageBox => ({
  x: Math.min(a.x, b.x),
  y: Math.min(a.y, b.y),
  width: Math.abs(a.x - b.x),
  height: Math.abs(a.y - b.y),
});

/** A small page on which a thing is clicked, or a rectangle is drawn around a place. */
export function PointAt({ testId, page, pointed, onPoint }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const drew = useRef(false);
  const [drawn, setDrawn] = useState<{ from: Point; box: PageBox } | null>(null);
  const at = (e: PointerEvent) => {
    const { left, top, width, height } = frame.current!.getBoundingClientRect();
    const share = (v: number) => Math.min(1, Math.max(0, v));
    return { x: share((e.clientX - left) / width), y: share((e.clientY - top) / height), width, height };
  };
  const box = drawn?.box ?? pointed?.box ?? null;
  return (
    <div
      ref={frame}
      data-testid={testId}
      className={`relative cursor-crosshair touch-none select-none [&_[data-ref]]:cursor-pointer ${pointed ? 'outline-2 outline-marigold' : ''}`}
      onPointerDown={(e) => {
        drew.current = false;
        const { x, y } = at(e);
        if (e.button === 0) setDrawn({ from: { x, y }, box: { x, y, width: 0, height: 0 } });
      }}
      onPointerMove={(e) => drawn && setDrawn({ from: drawn.from, box: between(drawn.from, at(e)) })}
      onPointerLeave={() => setDrawn(null)}
      onPointerUp={(e) => {
        const end = at(e);
        const own = drawn && between(drawn.from, end);
        setDrawn(null);
        // The click that ends a stroke is none.
        drew.current = own !== null && Math.max(own.width * end.width, own.height * end.height) >= STROKE;
        if (own && drew.current) onPoint({ ref: null, box: own });
      }}
      onClick={(e) => {
        if (drew.current) return;
        const ref = (e.target as Element).closest('[data-ref]')?.getAttribute('data-ref') ?? null;
        onPoint(ref === null ? null : { ref, box: null });
      }}
      onKeyDown={() => {}}
    >
      <PageThumb page={page} />
      {box && (
        <span
          className="pointer-events-none absolute border-2 border-marigold bg-marigold/15"
          style={{
            left: `${100 * box.x}%`,
            top: `${100 * box.y}%`,
            width: `${100 * box.width}%`,
            height: `${100 * box.height}%`,
          }}
        />
      )}
    </div>
  );
}
