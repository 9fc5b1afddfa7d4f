'use client';
import { dayOf, endOfDay, finishDayOf, isoDate, startOfDay } from '@clembo/core/time';
import type { NamedDate } from '@clembo/scene/brief';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { DayField, dayOfField } from '../DayField';
import { PartPanel, type SaidPart } from './PartPanel';

interface Props extends SaidPart {
  dates: NamedDate[];
  onChange: (dates: NamedDate[]) => void;
}

/** A line as it is typed: a name, a day, and the last day where it is a period. */
interface Line {
  name: string;
  from: string;
  to: string;
}

const lineOf = ({ name, start, finish }: NamedDate): Line => ({
  name,
  from: isoDate(dayOf(start)),
  to: finish === null ? '' : isoDate(finishDayOf(finish)),
});

/** What a line says; null while something of it is missing or turned round. */
function dateOf({ name, from, to }: Line): NamedDate | null {
  const [first, last] = [dayOfField(from), to === '' ? null : dayOfField(to)];
  if (name.trim() === '' || first === null || (to !== '' && (last === null || last < first))) return null;
  return { name: name.trim(), start: startOfDay(first), finish: last === null ? null : endOfDay(last) };
}

/** A part that is a list of days and periods with names. */
export function DatesPart({ part, label, text, dates, onChange }: Props) {
  return (
    <PartPanel part={part} label={label} text={text}>
      {() => <Lines dates={dates} onChange={onChange} />}
    </PartPanel>
  );
}

const EMPTY: Line = { name: '', from: '', to: '' };

function Lines({ dates, onChange }: Pick<Props, 'dates' | 'onChange'>) {
  const [lines, setLines] = useState<Line[]>(dates.length === 0 ? [EMPTY] : dates.map(lineOf));
  // What is whole is drawn at once; what is not waits for the rest.
  const change = (next: Line[]) => {
    setLines(next);
    onChange(next.map(dateOf).filter((d) => d !== null));
  };
  const set = (k: number, more: Partial<Line>) => change(lines.map((l, n) => (n === k ? { ...l, ...more } : l)));
  return (
    <div className="flex flex-col gap-2 text-[15px]">
      {lines.map((line, k) => (
        // biome-ignore lint: lines have no names of their own
        <div key={k} className="flex items-center gap-2">
          <input
            aria-label={`Name of date ${k + 1}`}
            placeholder="Name"
            maxLength={120}
            value={line.name}
            onChange={(e) => set(k, { name: e.target.value })}
            className="w-44 rounded-md border border-line bg-paper px-2 py-0.5"
          />
          <DayField label={`Day of date ${k + 1}`} value={line.from} onChange={(from) => set(k, { from })} />
          <span className="text-soft">to</span>
          <DayField label={`Last day of date ${k + 1}`} value={line.to} onChange={(to) => set(k, { to })} />
          <button
            type="button"
            aria-label={`Remove date ${k + 1}`}
            className="rounded p-1 hover:bg-wash"
            onClick={() => change(lines.filter((_, n) => n !== k))}
          >
            <X size={15} aria-hidden />
          </button>
        </div>
      ))}
      <p className="flex items-center justify-between gap-4 text-[13px] text-soft">
        <button
          type="button"
          className="quiet py-0.5 text-[14px] text-ink"
          disabled={lines.length >= 20}
          onClick={() => setLines([...lines, EMPTY])}
        >
          <Plus size={14} aria-hidden /> Another date
        </button>
        A last day makes it a period.
      </p>
    </div>
  );
}
