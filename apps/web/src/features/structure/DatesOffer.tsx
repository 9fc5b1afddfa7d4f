'use client';
import { type Command, type PromiseOffer, startOfDay } from '@clembo/core';
import { useEffect, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { DayField, dayOfField } from '@/ui/DayField';
import { toast, wrong } from '@/ui/Toasts';
import type { PlanHead } from '@/workers/openPlan';
import type { OpenRoom } from '@/workers/planRoom';
import { turnPlan } from '@/workers/planWrites';

interface Props {
  planId: string;
  open: OpenRoom;
  head: PlanHead;
  /** How many activities have no dates. */
  undated: number;
  /** Whether only what has no dates is listed. */
  only: boolean;
  onOnly: (only: boolean) => void;
}

/** Says how many activities have no dates, and offers what gives them some: computing, a start to compute from. */
export function DatesOffer({ planId, open, head, undated, only, onOnly }: Props) {
  const [start, setStart] = useState('');
  const { change: write } = usePlanChange(planId);
  const computed = head.source === 'computed';
  const [offer, setOffer] = useState<PromiseOffer | null>(null);
  useEffect(() => {
    let current = true;
    if (undated === 0) return setOffer(null);
    open.room.promiseOffer().then((found) => current && setOffer(found), wrong);
    return () => {
      current = false;
    };
  }, [open, undated]);
  if (undated === 0) return null;

  const change = async (command: Command, words: string) => {
    if (!(await write(command, words))) return;
    onOnly(false);
    toast(words, { seconds: 8, action: { label: 'Undo', run: () => void turnPlan(planId, true).catch(wrong) } });
  };
  const compute = () =>
    change({ do: 'setPlan', settings: { source: 'computed' } }, 'All dates are computed from lengths and links.');
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
      <span>{many} no dates, and so no place on a page with a time axis.</span>
      <button type="button" aria-pressed={only} className="quiet bg-paper py-0" onClick={() => onOnly(!only)}>
        {only ? 'Show all rows' : undated === 1 ? 'Show it' : 'Show them'}
      </button>
      {offer && offer.rows > 0 && (
        <button
          type="button"
          className="quiet bg-paper py-0"
          onClick={() => void change(offer.command, 'Promised dates are taken as they stand.')}
        >
          {offer.rows === 1 ? 'Take its promised dates' : `Take the promised dates of ${offer.rows} as they stand`}
        </button>
      )}
      {!computed && (
        <button type="button" className="quiet bg-paper py-0" onClick={() => void compute()}>
          Compute all dates from lengths and links
        </button>
      )}
      {computed && head.start === null && (
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
    </div>
  );
}
