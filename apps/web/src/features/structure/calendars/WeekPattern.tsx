'use client';
import { type CalendarSpec, hasWorkingTime, minutesIn, patternWords, readPattern, usualMinutes } from '@clembo/core';
import { useState } from 'react';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

interface Props {
  calendar: CalendarSpec;
  busy: boolean;
  onChange: (calendar: CalendarSpec, words: string) => void;
}

/** The working hours of the week, weekday by weekday, and what a day of length comes to. */
export function WeekPattern({ calendar, busy, onChange }: Props) {
  const hours = Math.round((100 * calendar.minutesPerDay) / 60) / 100;
  return (
    <section>
      <h2 className="border-b border-line pb-0.5 font-semibold">Week</h2>
      <ul className="mt-1.5 space-y-1">
        {DAYS.map((d, k) => (
          <DayHours
            key={`${d} ${patternWords(calendar.week[k]!)}`}
            label={d}
            text={patternWords(calendar.week[k]!)}
            busy={busy}
            onChange={(pattern) => {
              const week = calendar.week.map((p, at) => (at === k ? pattern : p));
              const next = { ...calendar, week };
              // What a day of length comes to goes along as long as it is what most days have.
              const follows = calendar.minutesPerDay === usualMinutes(calendar.week) && hasWorkingTime(next);
              onChange(
                { ...next, minutesPerDay: follows ? usualMinutes(week) : calendar.minutesPerDay },
                `Change ${d} in ${calendar.name}`,
              );
            }}
          />
        ))}
      </ul>
      <p className="mt-2 flex items-center gap-1.5 text-[14.5px]">
        A day of length is
        <HoursField
          key={hours}
          hours={hours}
          onChange={(minutes) =>
            onChange({ ...calendar, minutesPerDay: minutes }, `A day of ${calendar.name} is ${minutes / 60} h`)
          }
        />
        hours
      </p>
    </section>
  );
}

function DayHours({
  label,
  text,
  busy,
  onChange,
}: {
  label: string;
  text: string;
  busy: boolean;
  onChange: (pattern: NonNullable<ReturnType<typeof readPattern>>) => void;
}) {
  const [typed, setTyped] = useState(text);
  const pattern = readPattern(typed);
  const keep = () => {
    if (pattern && patternWords(pattern) !== text) onChange(pattern);
  };
  return (
    <li className="flex items-center gap-2 text-[14.5px]">
      <span className="w-9 text-soft">{label}</span>
      <input
        aria-label={`Hours of ${label}`}
        value={typed}
        placeholder="off"
        disabled={busy}
        aria-invalid={pattern === null}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => {
          if (e.key === 'Enter') keep();
          if (e.key === 'Escape') setTyped(text);
        }}
        className={`min-w-0 flex-1 rounded-md border bg-paper px-2 py-0.5 font-narrow ${pattern === null ? 'border-madder' : 'border-line'}`}
      />
      <span className="w-10 text-right font-narrow text-soft">
        {pattern === null ? '?' : pattern.length === 0 ? '' : `${Math.round((10 * minutesIn(pattern)) / 60) / 10} h`}
      </span>
    </li>
  );
}

function HoursField({ hours, onChange }: { hours: number; onChange: (minutes: number) => void }) {
  const [typed, setTyped] = useState(String(hours));
  const keep = () => {
    const minutes = Math.round(Number(typed.replace(',', '.')) * 60);
    if (Number.isFinite(minutes) && minutes >= 1 && minutes <= 1440) {
      if (minutes !== Math.round(hours * 60)) onChange(minutes);
    } else setTyped(String(hours));
  };
  return (
    <input
      aria-label="Hours of a day of length"
      value={typed}
      inputMode="decimal"
      onChange={(e) => setTyped(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
      className="w-14 rounded-md border border-line bg-paper px-2 py-0.5 text-right"
    />
  );
}
