'use client';
import { type RefObject, useCallback, useEffect, useLayoutEffect, useState } from 'react';
import type { LedgerShape, LedgerShown, Sight } from '@/workers/answers/ledger';
import { type Chosen, rangeOf, type Spot } from './grid';

interface Options {
  shape: LedgerShape;
  sight: RefObject<Sight>;
  at: (row: number) => LedgerShown | null;
  columns: number;
  /** A row behind the last that is there, which can be chosen while rows before it are on their way. */
  beyond: RefObject<number>;
  /** A row that is wanted in sight. */
  goal: { place: number } | null;
  scrollTo: (row: number, align?: 'center') => void;
  onChosen: (chosen: Chosen) => void;
}

/** The cell that keys go to, and the cells that are drawn out from it; the choice stays with its activity. */
export function useChoice({ shape, sight, at, columns, beyond, goal, scrollTo, onChosen }: Options) {
  const [focus, setFocus] = useState<Spot>({ row: 0, col: 0 });
  const [anchor, setAnchor] = useState<Spot | null>(null);
  const [seen, setSeen] = useState(shape);
  if (seen !== shape) {
    setSeen(shape);
    // Rows that go elsewhere take the choice with them.
    const row = placeIn(shape, sight.current.ref);
    if (row >= 0 && row !== focus.row) setFocus({ ...focus, row });
  }
  const chosen = at(focus.row);
  const area = rangeOf(focus, anchor);
  const go = useCallback(
    (row: number, col: number, extend = false) => {
      const last = Math.max(shape.lines, beyond.current);
      const spot = { row: Math.max(0, Math.min(last, row)), col: Math.max(0, Math.min(columns - 1, col)) };
      setAnchor((a) => (extend ? (a ?? focus) : null));
      setFocus(spot);
      scrollTo(Math.min(spot.row, shape.lines));
    },
    [shape.lines, columns, beyond, focus, scrollTo],
  );
  useLayoutEffect(() => {
    // A line that is still on its way is the same choice.
    if (chosen || focus.row >= shape.lines) sight.current = { ...sight.current, ref: chosen?.ref || null };
  }, [chosen, focus.row, shape.lines, sight]);
  useEffect(() => {
    onChosen({ ref: chosen?.ref || null, top: area.top, bottom: area.bottom });
  }, [chosen?.ref, area.top, area.bottom, onChosen]);
  useEffect(() => {
    if (!goal || goal.place < 0) return;
    setFocus({ row: goal.place, col: 0 });
    setAnchor(null);
    scrollTo(goal.place, 'center');
  }, [goal]);
  return { focus, setFocus, anchor, setAnchor, chosen, area, go };
}

/** Where an activity stands now, as far as that came with the shape; -1 where it did not. */
function placeIn({ sight }: LedgerShape, ref: string | null): number {
  if (ref === null) return -1;
  if (ref === sight.ref) return sight.place;
  const at = sight.lines.findIndex((l) => l.ref === ref);
  return at < 0 ? -1 : sight.from + at;
}

/** Scrolls so that the chosen cell lies free between the names and the strips, which stay in sight. */
export function useColumnInSight(
  scroller: RefObject<HTMLElement | null>,
  col: number,
  widths: readonly number[],
  stripWidth: number,
): void {
  useEffect(() => {
    const el = scroller.current;
    if (!el || col === 0) return;
    const left = widths.slice(0, col).reduce((a, b) => a + b, 0);
    const room = el.clientWidth - stripWidth;
    if (left - el.scrollLeft < widths[0]!) el.scrollLeft = left - widths[0]!;
    else if (left + widths[col]! - el.scrollLeft > room) el.scrollLeft = left + widths[col]! - room;
  }, [scroller, col, widths, stripWidth]);
}
