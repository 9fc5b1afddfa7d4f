'use client';
import type { Condition, Look } from '@clembo/core';
import { boundsOf, LOOK_BYTES, liftedBy, TO_COME } from '@clembo/scene/model';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { MatchingShown, ModelBook, StandingShown as ModelStandingShown } from '@/workers/answers/models';
import type { OpenRoom } from '@/workers/planRoom';

export const EVERYTHING: Condition = { match: 'all', tests: [] };

export const FIRST_LOOK: Look = {
  turn: 35,
  height: 30,
  perspective: false,
  middle: null,
  span: null,
  lift: 0,
  cut: null,
};

/** What is put aside of the model on the screen: shown as it is, hidden, or as faint edges. */
export type Mode = 'shown' | 'hidden' | 'through';

export interface Asked {
  day: number;
  where: Condition;
  colour: string | null;
  compare: string | null;
  /** The promise beside it. */
  beside: boolean;
}

const CHOSEN = [227, 160, 25] as const;

/** The models of a plan, loaded once; `again` looks for others. */
export function useModelBook(open: OpenRoom): { book: ModelBook | null; error: string | null; again: () => void } {
  const [book, setBook] = useState<ModelBook | null>(null);
  const [error, setError] = useState<string | null>(null);
  const load = useCallback(
    (fresh: boolean) => {
      open.room.modelBook(fresh).then(
        (b) => {
          setBook(b);
          setError(null);
        },
        (e: Error) => setError(e.message),
      );
    },
    [open.room],
  );
  useEffect(() => load(false), [load]);
  return { book, error, again: () => load(true) };
}

/** How the model stands on a day, and what is matched; asked again whenever the plan or what is asked changes. */
export function useStanding(
  open: OpenRoom,
  book: ModelBook | null,
  asked: Asked,
  all: { works: boolean; kinds: boolean },
) {
  const [standing, setStanding] = useState<ModelStandingShown | null>(null);
  const [matching, setMatching] = useState<MatchingShown | null>(null);
  const { day, where, colour, compare, beside } = asked;
  useEffect(() => {
    let current = true;
    if (book && book.elements.length > 0)
      open.room
        .modelStanding({ day, where, colour, promised: beside }, compare)
        .then((s) => current && setStanding(s), wrong);
    return () => {
      current = false;
    };
  }, [open, book, day, where, colour, compare, beside]);
  const { works, kinds } = all;
  useEffect(() => {
    let current = true;
    if (book) open.room.matching({ works, kinds }).then((m) => current && setMatching(m), wrong);
    return () => {
      current = false;
    };
  }, [open, book, works, kinds]);
  return { standing, matching };
}

/** The storey that each element is on, counted from the lowest. */
export function useStoreys(book: ModelBook | null): Float32Array {
  return useMemo(
    () =>
      book
        ? (liftedBy(
            book.elements.map((e) => e.storey),
            book.body,
            1,
          ) ?? new Float32Array())
        : new Float32Array(),
    [book],
  );
}

/** What is seen of the model: its bounds at a lift. */
export function useBounds(book: ModelBook | null, storeys: Float32Array, lift: number) {
  return useMemo(() => {
    if (!book) return null;
    const meant = new Uint8Array(book.elements.length).fill(1);
    return boundsOf({ body: book.body, meant, lifted: lift === 0 ? null : storeys.map((s) => s * lift) });
  }, [book, storeys, lift]);
}

/** Looks with what is put aside, what the condition leaves out, and what is chosen. */
export function withChosen(
  looks: Uint8Array,
  meant: Uint8Array,
  chosen: ReadonlySet<number>,
  lit: ReadonlySet<number>,
  modes: ReadonlyMap<number, Mode>,
): Uint8Array {
  const out = looks.slice();
  const faint = Number.parseInt(TO_COME.slice(1), 16);
  for (let e = 0; e < meant.length; e++) {
    const at = e * LOOK_BYTES;
    const mode = modes.get(e) ?? 'shown';
    if (!meant[e] || mode === 'hidden') {
      out.fill(0, at, at + LOOK_BYTES);
      continue;
    }
    if (mode === 'through') {
      out.fill(0, at, at + LOOK_BYTES);
      out.set([faint >> 16, (faint >> 8) & 255, faint & 255, 255], at + 8);
    }
    if (chosen.has(e)) {
      // Whatever is chosen is seen, whether it is there yet or not.
      out.set([...CHOSEN, 255, ...CHOSEN, 255, 122, 82, 0, 255, 255, mode === 'through' ? 255 : 0, 255, 0], at);
    } else if (lit.has(e)) out.set([246, 220, 160, 255, 246, 220, 160, 255, ...CHOSEN, 255, 255, 0, 255, 0], at);
  }
  return out;
}
