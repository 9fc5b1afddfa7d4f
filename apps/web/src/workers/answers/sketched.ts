import type { Day } from '@clembo/core';
import { shownDays } from '@clembo/core';
import type { Held } from './held';

/** One row of a sketch. */
export interface SketchedRow {
  ref: string;
  name: string;
  level: number;
  kind: string;
  summary: boolean;
  start: Day | null;
  finish: Day | null;
}

/** All rows in the order of the outline. */
export const sketchedRows = ({ plan, schedule: s }: Held): SketchedRow[] =>
  [...s.outline.order].map((i) => {
    const a = plan.activities[i]!;
    const days = shownDays(s, i);
    return {
      ref: a.ref,
      name: a.name,
      level: s.outline.level[i]!,
      kind: a.kind,
      summary: s.outline.isSummary[i]!,
      start: days?.first ?? null,
      finish: days?.last ?? null,
    };
  });
