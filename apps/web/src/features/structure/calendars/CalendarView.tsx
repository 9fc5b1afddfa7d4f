'use client';
import {
  type CalendarSpec,
  civilFromDay,
  type Day,
  dayFromCivil,
  daySaid,
  dayOf,
  hasWorkingTime,
  isoDate,
  minutesIn,
  parseIsoDate,
  patternWords,
  usualMinutes,
  withDays,
  workingDaysFrom,
  workingTimeOf,
} from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useState } from 'react';
import { DayField, dayOfField } from '@/ui/DayField';
import { MonthGrid } from '@/ui/MonthGrid';
import type { OpenRoom } from '@/workers/planRoom';
import { DaysPanel } from './DaysPanel';
import { HolidayPick } from './HolidayPick';
import { WeekPattern } from './WeekPattern';

interface Props {
  open: OpenRoom;
  calendar: CalendarSpec;
  own: boolean;
  /** How many activities have it. */
  used: number;
  busy: boolean;
  onChange: (calendar: CalendarSpec, words: string) => void;
  onOwn: () => void;
  onRemove: () => void;
}

/** One calendar: its week, a year at a glance, its days off, and what working days come to. */
export function CalendarView({ open, calendar, own, used, busy, onChange, onOwn, onRemove }: Props) {
  const [name, setName] = useState(calendar.name);
  const near = open.head.statusDate ?? open.head.start;
  const [year, setYear] = useState(
    () => civilFromDay(near === null ? Math.floor(Date.now() / 86_400_000) : dayOf(near)).year,
  );
  const [from, setFrom] = useState<Day | null>(null);
  const [to, setTo] = useState<Day | null>(null);
  const [drawing, setDrawing] = useState(false);
  useEffect(() => {
    const end = () => setDrawing(false);
    window.addEventListener('pointerup', end);
    return () => window.removeEventListener('pointerup', end);
  }, []);
  const chosen = from === null || to === null ? null : { first: Math.min(from, to), last: Math.max(from, to) };
  const [newYear, nextYear] = [dayFromCivil(year, 1, 1), dayFromCivil(year + 1, 1, 1)];
  const works = hasWorkingTime(calendar);
  const workdays = works ? workingTimeOf(calendar, 'day', newYear).between(newYear, nextYear) : 0;
  const usual = usualMinutes(calendar.week);
  const look = (day: Day) => {
    const { pattern, name: said, by } = daySaid(calendar, day);
    const inside = chosen && day >= chosen.first && day <= chosen.last;
    const off = pattern.length === 0;
    const short = !off && minutesIn(pattern) !== usual;
    const tone = off
      ? by === 'weekday'
        ? 'text-soft bg-line/40'
        : 'bg-madder text-paper'
      : by !== 'weekday' || short
        ? 'bg-harebell/25'
        : 'bg-kelp/10';
    const words = [
      said,
      off ? 'off' : short || by !== 'weekday' ? patternWords(pattern) : '',
      by === 'yearly' ? 'every year' : '',
    ]
      .filter(Boolean)
      .join(', ');
    return {
      className: `${tone} ${inside ? 'outline-2 outline-marigold' : ''}`,
      ...(by !== 'weekday' || short ? { title: words } : {}),
    };
  };
  const offDays = [
    ...calendar.exceptions.filter((e) => e.day >= newYear && e.day < nextYear).map((e) => ({ ...e, yearly: false })),
    ...calendar.yearly.flatMap((y) => {
      const day = parseIsoDate(`${year}-${String(y.month).padStart(2, '0')}-${String(y.day).padStart(2, '0')}`);
      return day === null ? [] : [{ day, pattern: y.pattern, name: y.name, yearly: true }];
    }),
  ].sort((a, b) => a.day - b.day);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_270px] gap-8">
      <div>
        <div className="flex flex-wrap items-baseline gap-4">
          <input
            aria-label="Name of the calendar"
            value={name}
            maxLength={200}
            onChange={(e) => setName(e.target.value)}
            onBlur={() => {
              const wanted = name.trim();
              if (wanted !== '' && wanted !== calendar.name)
                onChange({ ...calendar, name: wanted }, `Call the calendar ${wanted}`);
              else setName(calendar.name);
            }}
            onKeyDown={(e) => e.key === 'Enter' && (e.target as HTMLElement).blur()}
            className="min-w-0 flex-1 border-b border-transparent bg-transparent font-serif text-[22px] font-semibold hover:border-line focus:border-kelp"
          />
          {own ? (
            <span className="text-[14.5px] text-soft">the plan’s own</span>
          ) : (
            <>
              <button type="button" className="quiet py-1" disabled={busy} onClick={onOwn}>
                Make it the plan’s own
              </button>
              <button type="button" className="quiet py-1" disabled={busy} onClick={onRemove}>
                Remove
              </button>
            </>
          )}
        </div>
        <p className="mt-1 text-[14.5px] text-soft">
          {used} {used === 1 ? 'activity has' : 'activities have'} it · {workdays} working days in {year}, of{' '}
          {nextYear - newYear} days
        </p>
        <div className="mt-4 flex items-center gap-3">
          <button
            type="button"
            aria-label="The year before"
            className="quiet px-1.5 py-0.5"
            onClick={() => setYear(year - 1)}
          >
            <ChevronLeft size={16} />
          </button>
          <span className="w-12 text-center font-serif text-[18px] font-semibold">{year}</span>
          <button
            type="button"
            aria-label="The next year"
            className="quiet px-1.5 py-0.5"
            onClick={() => setYear(year + 1)}
          >
            <ChevronRight size={16} />
          </button>
          <Legend />
        </div>
        <div className="mt-3 grid grid-cols-4 gap-x-6 gap-y-5 select-none">
          {Array.from({ length: 12 }, (_, k) => (
            <MonthGrid
              key={k + 1}
              year={year}
              month={k + 1}
              dayLook={look}
              onDown={(day, e) => {
                e.preventDefault();
                setDrawing(true);
                if (e.shiftKey && from !== null) setTo(day);
                else {
                  setFrom(day);
                  setTo(day);
                }
              }}
              onOver={(day) => drawing && setTo(day)}
              onPick={(day) => {
                if (from === null) setFrom(day);
                if (!chosen || day < chosen.first || day > chosen.last) {
                  setFrom(day);
                  setTo(day);
                }
              }}
            />
          ))}
        </div>
      </div>
      <div className="space-y-6">
        {chosen ? (
          <DaysPanel
            key={`${chosen.first} ${chosen.last}`}
            calendar={calendar}
            first={chosen.first}
            last={chosen.last}
            busy={busy}
            onMake={(made, words) => onChange(withDays(calendar, made), words)}
            onClose={() => {
              setFrom(null);
              setTo(null);
            }}
          />
        ) : (
          <p className="rounded-lg bg-wash px-3 py-2.5 text-[14.5px] text-soft">
            Click a day, or draw over several, to give them off or other hours.
          </p>
        )}
        <WeekPattern calendar={calendar} busy={busy} onChange={onChange} />
        <Reckoner calendar={calendar} from={near === null ? newYear : dayOf(near)} />
        <HolidayPick calendar={calendar} year={year} busy={busy} onChange={onChange} />
        {offDays.length > 0 && (
          <section>
            <h2 className="border-b border-line pb-0.5 font-semibold">Said for days of {year}</h2>
            <ul className="mt-1 max-h-64 space-y-0.5 overflow-auto text-[14.5px]">
              {offDays.map((d) => (
                <li key={`${d.day} ${d.yearly}`}>
                  <button
                    type="button"
                    className="flex w-full items-baseline gap-2 rounded px-1 text-left hover:bg-wash"
                    onClick={() => {
                      setFrom(d.day);
                      setTo(d.day);
                    }}
                  >
                    <span className="w-[86px] shrink-0 font-narrow text-soft">
                      {formatDay(d.day, 'weekday').slice(0, -5)}
                    </span>
                    <span className="min-w-0 truncate">
                      {d.name || (d.pattern.length === 0 ? 'off' : patternWords(d.pattern))}
                      {d.yearly ? ', every year' : ''}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}

function Legend() {
  const marks: [string, string][] = [
    ['bg-kelp/10', 'work'],
    ['bg-line/50', 'weekly day off'],
    ['bg-madder', 'day off'],
    ['bg-harebell/25', 'other hours'],
  ];
  return (
    <span className="ml-3 flex gap-4 text-[13.5px] text-soft">
      {marks.map(([tone, words]) => (
        <span key={words} className="flex items-center gap-1.5">
          <span aria-hidden className={`size-3 rounded-[3px] ${tone}`} />
          {words}
        </span>
      ))}
    </span>
  );
}

/** What working days come to from a day on, in working and in calendar days. */
function Reckoner({ calendar, from }: { calendar: CalendarSpec; from: Day }) {
  const [days, setDays] = useState('10');
  const [day, setDay] = useState(isoDate(from));
  const [count, begin] = [Number(days), dayOfField(day)];
  const usable = Number.isInteger(count) && count > 0 && count <= 100_000 && begin !== null && hasWorkingTime(calendar);
  const span = usable ? workingDaysFrom(calendar, begin, count) : null;
  return (
    <section>
      <h2 className="border-b border-line pb-0.5 font-semibold">Reckon</h2>
      <p className="mt-1.5 flex flex-wrap items-center gap-1.5 text-[14.5px]">
        <input
          aria-label="Working days"
          value={days}
          inputMode="numeric"
          onChange={(e) => setDays(e.target.value)}
          className="w-14 rounded-md border border-line bg-paper px-2 py-0.5 text-right"
        />
        working days from
        <DayField label="From" value={day} onChange={setDay} />
      </p>
      <p className="mt-1.5 text-[14.5px]" role="status" data-testid="reckoned">
        {span ? (
          <>
            {count} working {count === 1 ? 'day' : 'days'} from {formatDay(span.first, 'weekday')}:{' '}
            <strong>{formatDay(span.last, 'weekday')}</strong>, {span.calendarDays} calendar{' '}
            {span.calendarDays === 1 ? 'day' : 'days'}
          </>
        ) : (
          <span className="text-madder">
            {hasWorkingTime(calendar) ? 'Type a number of days and a day.' : 'This calendar has no working days.'}
          </span>
        )}
      </p>
    </section>
  );
}
