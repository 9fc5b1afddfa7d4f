'use client';
import { STATUSES, type Status } from '@clembo/core';

export const STATUS_WORDS: Record<Status, string> = {
  complete: 'Complete',
  inProgress: 'In progress',
  onHold: 'On hold',
  lateToStart: 'Late to start',
  notStarted: 'Not started',
};
const TONES: Record<Status, string> = {
  complete: 'bg-kelp text-paper',
  inProgress: 'bg-[#6fa5a2] text-ink',
  onHold: 'bg-marigold text-ink',
  lateToStart: 'bg-madder text-paper',
  notStarted: 'bg-[#cdc8bb] text-ink',
};

interface Props {
  counts: Record<Status, number>;
  chosen: Status[];
  onPick: (status: Status) => void;
  onRows: (status: Status, title: string) => void;
}

/** How many activities stand where; clicked, only these are measured. */
export function StatusBar({ counts, chosen, onPick, onRows }: Props) {
  const there = STATUSES.filter((s) => counts[s] > 0);
  return (
    <>
      <div className="flex h-7 gap-px" role="group" aria-label="Status">
        {there.map((s) => (
          <button
            key={s}
            type="button"
            data-status={s}
            aria-pressed={chosen.includes(s)}
            aria-label={`${STATUS_WORDS[s]}: ${counts[s]}`}
            title={STATUS_WORDS[s]}
            onClick={() => onPick(s)}
            className={`min-w-6 rounded-[2px] px-1.5 text-left text-[14px] ${TONES[s]} ${chosen.includes(s) ? 'outline-2 outline-offset-1 outline-marigold' : ''}`}
            style={{ flexGrow: counts[s], flexBasis: 0 }}
          >
            {counts[s]}
          </button>
        ))}
      </div>
      <p className="mt-1.5 flex flex-wrap gap-x-4 text-[13.5px]">
        {there.map((s) => (
          <button
            key={s}
            type="button"
            className="flex items-center gap-1.5 hover:underline"
            onClick={() => onRows(s, STATUS_WORDS[s])}
          >
            <span aria-hidden className={`size-2.5 rounded-[2px] ${TONES[s].split(' ')[0]}`} />
            {STATUS_WORDS[s]} {counts[s]}
          </button>
        ))}
      </p>
    </>
  );
}
