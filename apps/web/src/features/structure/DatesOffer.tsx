'use client';
import { type Command, startOfDay } from '@clembo/core';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask } from '@/ui/ask';
import { DayField, dayOfField } from '@/ui/DayField';
import { toast, wrong } from '@/ui/Toasts';
import type { LedgerRow, PlanHead } from '@/workers/plan.worker';

interface Props {
  planId: string;
  head: PlanHead;
  rows: LedgerRow[];
  /** Whether only what has no dates is listed. */
  only: boolean;
  onOnly: (only: boolean) => void;
}

/** Says how many activities have no dates, and offers what gives them some: computing, a start to compute from. */
export function DatesOffer({ planId, head, rows, only, onOnly }: Props) {
  const router = useRouter();
  const [start, setStart] = useState('');
  const undated = rows.filter((r) => !r.summary && r.start === null).length;
  const computed = head.source === 'computed';
  if (undated === 0 && !computed) return null;

  const change = async (command: Command, words: string) => {
    try {
      const path = `/api/plans/${planId}`;
      const done = await ask<{ version: number; inverse: Command }>(path, {
        method: 'PATCH',
        json: { version: head.version, command },
      });
      onOnly(false);
      router.refresh();
      toast(words, {
        seconds: 12,
        action: {
          label: 'Undo',
          run: () => {
            ask(path, { method: 'PATCH', json: { version: done.version, command: done.inverse } }).then(
              () => router.refresh(),
              wrong,
            );
          },
        },
      });
    } catch (error) {
      wrong(error);
      router.refresh();
    }
  };
  const compute = () =>
    change({ do: 'setPlan', settings: { source: 'computed' } }, 'All dates are computed from lengths and links.');
  const asGiven = () => change({ do: 'setPlan', settings: { source: 'given' } }, 'The dates are those of the source.');
  const day = dayOfField(start);
  const begin = (from: number) =>
    void change({ do: 'setPlan', settings: { start: startOfDay(from) } }, 'The plan starts on that day.');
  const many = undated === 1 ? 'One activity has' : `${undated} activities have`;

  return (
    <div
      role="status"
      data-testid="dates-offer"
      className="mx-5 mb-2 flex shrink-0 flex-wrap items-center gap-3 rounded-lg border border-marigold bg-marigold/15 px-4 py-1.5 text-[14.5px]"
    >
      {undated > 0 && <span>{many} no dates, and so no place on a page with a time axis.</span>}
      {undated === 0 && <span>All dates are computed from lengths and links.</span>}
      {undated > 0 && (
        <button type="button" aria-pressed={only} className="quiet bg-paper py-0" onClick={() => onOnly(!only)}>
          {only ? 'Show all rows' : undated === 1 ? 'Show it' : 'Show them'}
        </button>
      )}
      {!computed && (
        <button type="button" className="quiet bg-paper py-0" onClick={() => void compute()}>
          Compute all dates from lengths and links
        </button>
      )}
      {computed && undated > 0 && head.start === null && (
        <label className="flex items-center gap-2">
          The plan starts on
          <DayField label="Start of the plan" value={start} onChange={setStart} />
          <button
            type="button"
            className="quiet bg-paper py-0"
            disabled={day === null}
            onClick={() => day !== null && begin(day)}
          >
            Compute from there
          </button>
          {start !== '' && day === null && <span className="text-madder">Say a day from 1900 to 2299.</span>}
        </label>
      )}
      {computed && (
        <button type="button" className="quiet bg-paper py-0" onClick={() => void asGiven()}>
          Show the dates of the source
        </button>
      )}
    </div>
  );
}
