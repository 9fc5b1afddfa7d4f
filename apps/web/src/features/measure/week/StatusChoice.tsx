'use client';
import type { Activity } from '@clembo/core';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import type { RoundRow } from '@/workers/answers/round';

type Part = Partial<Omit<Activity, 'ref'>>;

/** What a status says of an activity; dates are never made up: those that contradict it go. */
const SAYS: Record<string, (row: RoundRow) => Part> = {
  'not started': () => ({ actualStart: null, actualFinish: null, percent: null, remaining: null, onHold: false }),
  'in progress': ({ complete }) => ({
    onHold: false,
    actualFinish: null,
    // What was done is not any more; how much of it is, somebody has to say.
    ...(complete && { percent: null }),
  }),
  complete: () => ({ percent: 100, onHold: false }),
  'on hold': () => ({ onHold: true }),
};

/** The status of an activity, from its dates and its percent; chosen, these are made to say it. */
export function StatusChoice({ planId, row }: { planId: string; row: RoundRow }) {
  const { change } = usePlanChange(planId);
  const choices = Object.keys(SAYS).filter((s) => !row.milestone || s !== 'in progress');
  const percent = Number(row.now.percent || 0);
  /** Nobody but who reports knows when it started. */
  const begun = row.now.actualStart !== '' || (percent > 0 && percent < 100);
  return (
    <select
      aria-label="Status"
      value={row.status}
      onChange={(e) =>
        void change(
          { do: 'changeActivity', ref: row.ref, part: SAYS[e.target.value]!(row) },
          `Set the status of ${row.ref}`,
        )
      }
      className="w-full rounded border border-line bg-paper px-1.5 py-1"
    >
      {choices.map((s) => (
        <option key={s} value={s} disabled={s === 'in progress' && !begun}>
          {s === 'in progress' && !begun ? 'in progress: say when it started' : s}
        </option>
      ))}
    </select>
  );
}
