'use client';
import { useCallback, useLayoutEffect, useRef, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { LedgerShape, LedgerShown } from '@/workers/plan.worker';
import type { OpenRoom } from '@/workers/planRoom';

/** How many lines are asked for at a time. */
const CHUNK = 120;

/** The lines of the ledger that are in sight, asked for as they come; the old ones stand until the new are there. */
export function useLines(open: OpenRoom, shape: LedgerShape) {
  const lines = useRef(new Map<number, LedgerShown>());
  const asked = useRef(new Set<number>());
  const [, setTick] = useState(0);
  /** The shape that the lines in sight were last asked for and came. */
  const [came, setCame] = useState<LedgerShape | null>(null);
  useLayoutEffect(() => {
    asked.current = new Set();
    setTick((t) => t + 1);
  }, [shape]);
  const want = useCallback(
    (from: number, to: number) => {
      for (let c = Math.floor(Math.max(0, from) / CHUNK); c <= Math.floor(Math.max(0, to) / CHUNK); c++) {
        if (asked.current.has(c)) continue;
        asked.current.add(c);
        const mine = asked.current;
        open.room.lines(c * CHUNK, (c + 1) * CHUNK).then((found) => {
          if (mine !== asked.current) return;
          found.forEach((line, k) => {
            // A line that is as it was is not drawn again.
            const before = lines.current.get(c * CHUNK + k);
            if (!before || JSON.stringify(before) !== JSON.stringify(line)) lines.current.set(c * CHUNK + k, line);
          });
          for (let k = found.length; k < CHUNK; k++) lines.current.delete(c * CHUNK + k);
          setTick((t) => t + 1);
          setCame(shape);
        }, wrong);
      }
    },
    [open, shape],
  );
  const at = (k: number): LedgerShown | null => (k < shape.lines ? (lines.current.get(k) ?? null) : null);
  return { at, want, came };
}
