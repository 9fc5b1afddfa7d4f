'use client';
import { dayOf, startOfDay } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { OnePart } from '@/ui/sentence/ListParts';
import type { OpenRoom } from '@/workers/planRoom';
import { StatusPart } from '../StatusPart';

interface Props {
  planId: string;
  open: OpenRoom;
  last: string | null;
  weeks: number;
  onWeeks: (weeks: number) => void;
  asList: boolean;
  onAsList: (asList: boolean) => void;
}

/** What is asked, as a sentence. */
export function RoundLine({ planId, open, last, weeks, onWeeks, asList, onAsList }: Props) {
  const { change } = usePlanChange(planId);
  const { statusDate } = open.head;
  const next = statusDate === null ? null : dayOf(statusDate) + 7;
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 pt-3 pb-3">
      <p className="text-[16.5px] leading-relaxed" aria-label="Round">
        What is to be reported at <StatusPart planId={planId} open={open} />, looking{' '}
        <OnePart
          part="weeks"
          label="How far ahead"
          text={`${weeks} ${weeks === 1 ? 'week' : 'weeks'} ahead`}
          value={String(weeks)}
          options={[1, 2, 3, 4, 6, 8].map((w): [string, string] => [String(w), `${w} ${w === 1 ? 'week' : 'weeks'}`])}
          onChange={(w) => onWeeks(Number(w))}
        />
        ,{' '}
        <OnePart
          part="as"
          label="As"
          text={asList ? 'as a list' : 'one after the other'}
          value={asList ? 'list' : 'one'}
          options={[
            ['one', 'one after the other'],
            ['list', 'as a list'],
          ]}
          onChange={(v) => onAsList(v === 'list')}
        />
        {last === null ? '' : `, beside what ${last} said`}.
      </p>
      {next !== null && (
        <button
          type="button"
          className="quiet py-0.5"
          onClick={() =>
            void change({ do: 'setPlan', settings: { statusDate: startOfDay(next) } }, 'Set the status date')
          }
        >
          A week on: {formatDay(next, 'medium')}
        </button>
      )}
    </div>
  );
}
