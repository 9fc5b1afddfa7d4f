'use client';
import { type CalendarSpec, civilFromDay, type Day, daySaid } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { useEffect, useState } from 'react';
import { ask } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';

interface Props {
  calendar: CalendarSpec;
  year: number;
  busy: boolean;
  onChange: (calendar: CalendarSpec, words: string) => void;
}

/** Public holidays of a country or a part of it, looked at before they are taken in. */
export function HolidayPick({ calendar, year, busy, onChange }: Props) {
  const [regions, setRegions] = useState<{ code: string; name: string }[] | null>(null);
  const [region, setRegion] = useState('');
  const [years, setYears] = useState('3');
  const [found, setFound] = useState<{ day: Day; name: string }[]>([]);
  const count = Math.min(40, Math.max(1, Math.round(Number(years)) || 1));
  useEffect(() => {
    let current = true;
    setFound([]);
    if (region === '') return;
    ask<{ holidays: { day: Day; name: string }[] }>(
      `/api/holidays?region=${encodeURIComponent(region)}&from=${year}&to=${year + count - 1}`,
    ).then((a) => current && setFound(a.holidays), wrong);
    return () => {
      current = false;
    };
  }, [region, year, count]);
  const open = () => {
    if (regions === null)
      ask<{ regions: { code: string; name: string }[] }>('/api/holidays').then((a) => setRegions(a.regions), wrong);
  };
  // Days that are said otherwise, and those that are off anyway, stay as they are.
  const fresh = found.filter(({ day }) => {
    const { by, pattern } = daySaid(calendar, day);
    return by === 'weekday' && pattern.length > 0;
  });
  return (
    <section>
      <h2 className="border-b border-line pb-0.5 font-semibold">Public holidays</h2>
      <div className="mt-1.5 flex flex-wrap items-center gap-1.5 text-[14.5px]">
        <select
          aria-label="Country or part of it"
          value={region}
          onFocus={open}
          onPointerDown={open}
          onChange={(e) => setRegion(e.target.value)}
          className="w-full rounded-md border border-line bg-paper px-2 py-1"
        >
          <option value="">{regions === null ? 'choose a country …' : 'none'}</option>
          {regions?.map((r) => (
            <option key={r.code} value={r.code}>
              {r.name}
            </option>
          ))}
        </select>
        for
        <input
          aria-label="Years of holidays"
          value={years}
          inputMode="numeric"
          onChange={(e) => setYears(e.target.value)}
          className="w-12 rounded-md border border-line bg-paper px-2 py-0.5 text-right"
        />
        {count === 1 ? 'year' : 'years'} from {year}
      </div>
      {found.length > 0 && (
        <>
          <ul className="mt-2 max-h-40 overflow-auto font-narrow text-[14px] text-soft">
            {fresh.slice(0, 60).map((h) => (
              <li key={h.day}>
                {formatDay(h.day, 'weekday')} · {h.name}
              </li>
            ))}
          </ul>
          <button
            type="button"
            className="action mt-2 py-1"
            disabled={busy || fresh.length === 0}
            onClick={() =>
              onChange(
                {
                  ...calendar,
                  exceptions: [...calendar.exceptions, ...fresh.map(({ day, name }) => ({ day, name, pattern: [] }))],
                },
                `Take ${fresh.length} public holidays into ${calendar.name}`,
              )
            }
          >
            {fresh.length === 0
              ? 'All of them are off already'
              : `Give ${fresh.length} ${fresh.length === 1 ? 'day' : 'days'} off, ${civilFromDay(fresh[0]!.day).year} to ${civilFromDay(fresh.at(-1)!.day).year}`}
          </button>
          <p className="mt-1 text-[13.5px] text-soft">
            As the open library date-holidays knows them; look them over, some places observe others.
          </p>
        </>
      )}
    </section>
  );
}
