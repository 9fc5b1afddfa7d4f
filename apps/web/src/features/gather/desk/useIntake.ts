'use client';
import type { ColumnMap, ColumnMeaning, IntakeChange, IntakePreview, IntakeState } from '@clembo/formats/columns';
import { useRef, useState } from 'react';
import { ask, awaitJob } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';

/** An intake as the server keeps it. */
export interface OpenIntake {
  source: string;
  preview: IntakePreview | null;
  /** The plan that it is to refresh. */
  targetPlan: string | null;
  planId: string | null;
}

/** So many changes can be taken back. */
const REMEMBERED = 100;

/** An intake while it is corrected: each change is read on the server, and every one can be undone. */
export function useIntake(id: string, first: IntakePreview) {
  const [view, setView] = useState(first);
  const [reading, setReading] = useState(false);
  const [past, setPast] = useState<IntakeState[]>([]);
  const [future, setFuture] = useState<IntakeState[]>([]);
  const asked = useRef(0);
  /** Ends when the server has what was corrected last. */
  const settled = useRef<Promise<void>>(Promise.resolve());

  const send = async (change: IntakeChange) => {
    const turn = ++asked.current;
    setReading(true);
    try {
      const { job } = await ask<{ job: string }>(`/api/intakes/${id}`, { method: 'PATCH', json: change });
      await awaitJob(job);
      const { preview } = await ask<OpenIntake>(`/api/intakes/${id}`);
      if (turn === asked.current && preview) setView(preview);
    } catch (error) {
      if (turn === asked.current) wrong(error);
    } finally {
      if (turn === asked.current) setReading(false);
    }
  };
  const read = (change: IntakeChange) => {
    settled.current = send(change);
  };
  const correct = (change: IntakeChange) => {
    setPast((p) => [...p.slice(1 - REMEMBERED), view.state]);
    setFuture([]);
    read(change);
  };
  const goTo = (state: IntakeState | undefined) => state && read({ state });
  const { map } = view.part;
  return {
    view,
    map,
    reading,
    settled,
    correct,
    // What is taken back has to be known: while a change is being read, the state behind it is not.
    canUndo: past.length > 0 && !reading,
    canRedo: future.length > 0 && !reading,
    undo: () => {
      if (past.length === 0 || reading) return;
      setFuture((f) => [view.state, ...f]);
      setPast((p) => p.slice(0, -1));
      goTo(past.at(-1));
    },
    redo: () => {
      if (future.length === 0 || reading) return;
      setPast((p) => [...p, view.state]);
      setFuture((f) => f.slice(1));
      goTo(future[0]);
    },
    changeMap: (change: Partial<ColumnMap>) => {
      const next = { ...map, ...change };
      // The choice is seen at once; what comes of it follows.
      setView((v) => ({ ...v, part: { ...v.part, map: next } }));
      correct({ map: next });
    },
    changeColumn: (column: number, meaning: ColumnMeaning): Partial<ColumnMap> => ({
      columns: map.columns.map((m, c): ColumnMeaning => {
        if (c === column) return meaning;
        // A field has one column: the one chosen last.
        return meaning.as === 'field' && m.as === 'field' && m.field === meaning.field ? { as: 'skip' } : m;
      }),
    }),
  };
}

export type Intake = ReturnType<typeof useIntake>;
