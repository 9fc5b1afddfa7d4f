'use client';
import { type CalendarSpec, type Day, type DaysMade, daySaid, patternWords, readPattern } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { X } from 'lucide-react';
import { useState } from 'react';

interface Props {
  calendar: CalendarSpec;
  first: Day;
  last: Day;
  busy: boolean;
  onMake: (made: DaysMade, words: string) => void;
  onClose: () => void;
}

/** What the chosen days are, and what they can be made. */
export function DaysPanel({ calendar, first, last, busy, onMake, onClose }: Props) {
  const said = daySaid(calendar, first);
  const [name, setName] = useState(said.name);
  const [hours, setHours] = useState(patternWords(said.pattern));
  const [yearly, setYearly] = useState(said.by === 'yearly');
  const pattern = readPattern(hours);
  const one = first === last;
  const words = one ? formatDay(first, 'weekday') : `${formatDay(first, 'weekday')} to ${formatDay(last, 'weekday')}`;
  const make = (to: DaysMade['pattern'], what: string) =>
    onMake(
      { first, last, pattern: to, name: to === null ? '' : name.trim(), yearly },
      `${what}: ${words}, ${calendar.name}`,
    );
  return (
    <section aria-label="The chosen days" className="rounded-lg border border-marigold bg-paper p-3">
      <div className="flex items-start justify-between gap-2">
        <p className="font-semibold">{words}</p>
        <button type="button" aria-label="Let the days go" className="rounded p-0.5 hover:bg-line" onClick={onClose}>
          <X size={15} />
        </button>
      </div>
      <input
        aria-label="Called"
        placeholder="called (a holiday, a closure)"
        value={name}
        maxLength={200}
        onChange={(e) => setName(e.target.value)}
        className="mt-2 w-full rounded-md border border-line bg-paper px-2 py-1"
      />
      <label className="mt-2 flex items-center gap-2 text-[14.5px]">
        <input type="checkbox" checked={yearly} onChange={(e) => setYearly(e.target.checked)} /> every year
      </label>
      <div className="mt-2 flex flex-wrap gap-2">
        <button type="button" className="action py-1" disabled={busy} onClick={() => make([], 'Off')}>
          Give off
        </button>
        <button
          type="button"
          className="quiet py-1"
          disabled={busy || said.by === 'weekday'}
          onClick={() => make(null, 'As usual')}
        >
          As its weekday
        </button>
      </div>
      <form
        className="mt-2 flex items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (pattern && pattern.length > 0) make(pattern, 'Other hours');
        }}
      >
        <input
          aria-label="Hours of these days"
          placeholder="8-12, 13-17"
          value={hours}
          onChange={(e) => setHours(e.target.value)}
          aria-invalid={pattern === null}
          className={`min-w-0 flex-1 rounded-md border bg-paper px-2 py-1 ${pattern === null ? 'border-madder' : 'border-line'}`}
        />
        <button type="submit" className="quiet py-1" disabled={busy || !pattern || pattern.length === 0}>
          These hours
        </button>
      </form>
      {pattern === null && <p className="mt-1 text-[14px] text-madder">Type hours as in 8-12, 13-17.</p>}
    </section>
  );
}
