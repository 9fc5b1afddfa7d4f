'use client';
import { type RefObject, useCallback, useRef, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { LedgerShape, LedgerShown, Sight } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';

/** How many lines are asked for at a time. */
const CHUNK = 60;

/** What is asked for before anything is in sight. */
export const FIRST_SIGHT: Sight = { from: 0, to: CHUNK, ref: null };

const chunksOf = (from: number, to: number): number[] => {
  const first = Math.floor(Math.max(0, from) / CHUNK);
  return Array.from({ length: Math.floor(Math.max(0, to) / CHUNK) - first + 1 }, (_, k) => first + k);
};

/**
 * The lines of the ledger: those in sight come with its shape, others are asked for as they come in sight; the old ones
 * stand until the new are there.
 */
export function useLines(open: OpenRoom, shape: LedgerShape, sight: RefObject<Sight>) {
  const lines = useRef(new Map<number, LedgerShown>());
  /** Parts that are there, or on their way; another set for each shape. */
  const asked = useRef(new Set<number>());
  /** What is asked for, while it is on its way; and what is wanted after it. */
  const waits = useRef<Set<number> | null>(null);
  const next = useRef<(() => void) | null>(null);
  const taken = useRef<LedgerShape | null>(null);
  const [, setTick] = useState(0);

  const put = (from: number, found: readonly LedgerShown[]): void =>
    found.forEach((line, k) => {
      // A line that is as it was is not drawn again.
      const before = lines.current.get(from + k);
      if (!before || JSON.stringify(before) !== JSON.stringify(line)) lines.current.set(from + k, line);
    });
  // While it is drawn, and not behind it: lines that were are not drawn once more.
  if (taken.current !== shape) {
    const { from, lines: found } = shape.sight;
    taken.current = shape;
    put(from, found);
    asked.current = new Set(found.length === 0 ? [] : chunksOf(from, from + found.length - 1));
    next.current = null;
  }

  const load = useCallback(
    async (c: number): Promise<void> => {
      const mine = asked.current;
      mine.add(c);
      const found = await open.room.lines(c * CHUNK, (c + 1) * CHUNK).catch((error: unknown) => {
        // It is asked for again when it comes in sight again.
        mine.delete(c);
        throw error;
      });
      if (mine !== asked.current) return;
      put(c * CHUNK, found);
      setTick((t) => t + 1);
    },
    [open],
  );
  const want = useCallback(
    (from: number, to: number): void => {
      const chunks = chunksOf(from, to);
      sight.current = { ...sight.current, from: chunks[0]! * CHUNK, to: (chunks.at(-1)! + 1) * CHUNK };
      // While some are on their way, only what was wanted last is asked for next: what was passed by is not.
      if (waits.current === asked.current) {
        next.current = () => want(from, to);
        return;
      }
      const missing = chunks.filter((c) => !asked.current.has(c));
      if (missing.length === 0) return;
      const mine = asked.current;
      waits.current = mine;
      Promise.all(missing.map(load))
        .catch(wrong)
        .finally(() => {
          if (waits.current !== mine) return;
          waits.current = null;
          const then = next.current;
          next.current = null;
          then?.();
        });
    },
    [load, sight],
  );
  const at = (k: number): LedgerShown | null => (k < shape.lines ? (lines.current.get(k) ?? null) : null);
  return { at, want };
}
