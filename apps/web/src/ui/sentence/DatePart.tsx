'use client';
import { dayOf, endOfDay, finishDayOf, isoDate, parseIsoDate, startOfDay } from '@clembo/core/time';
import { PartPanel, type SaidPart } from './PartPanel';

interface Props extends SaidPart {
  /** What the part says while no date is set. */
  open: string;
  moment: number | null;
  isFinish: boolean;
  onChange: (moment: number | null) => void;
}

/** A part that is a date, or is left to the data. */
export function DatePart({ part, label, text, open, moment, isFinish, onChange }: Props) {
  const value = moment === null ? '' : isoDate(isFinish ? finishDayOf(moment) : dayOf(moment));
  const type = (iso: string) => {
    const day = parseIsoDate(iso);
    if (day !== null && day > -25_000 && day < 120_000) onChange(isFinish ? endOfDay(day) : startOfDay(day));
  };
  return (
    <PartPanel part={part} label={label} text={text}>
      {(close) => (
        <div className="flex items-center gap-3">
          <input
            type="date"
            aria-label={label}
            defaultValue={value}
            className="rounded border border-line bg-paper px-2 py-1"
            onChange={(e) => type(e.target.value)}
            onKeyDown={(e) => {
              if (e.key !== 'Enter') return;
              e.preventDefault(); // or the key would press the button that gets the focus, and open this again
              close();
            }}
          />
          <button
            type="button"
            className="quiet py-1"
            onClick={() => {
              onChange(null);
              close();
            }}
          >
            {open}
          </button>
        </div>
      )}
    </PartPanel>
  );
}
