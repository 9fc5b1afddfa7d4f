'use client';
import { type CalendarSpec, FIVE_DAY, patternWords, STANDARD_CALENDARS, usualMinutes } from '@clembo/core';
import { useEffect, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import type { FramePlan } from '@/ui/Frame';
import { wrong } from '@/ui/Toasts';
import type { OpenRoom } from '@/workers/planRoom';
import { StructureDesk } from '../StructureDesk';
import { CalendarView } from './CalendarView';

/** The calendars of a plan: when work is done, at a glance and day by day. */
export function CalendarsDesk({ plan, version }: { plan: FramePlan; version: number }) {
  return (
    <StructureDesk plan={plan} version={version} current="Calendars">
      {(open) => <Calendars planId={plan.id} open={open} />}
    </StructureDesk>
  );
}

/** `Monday to Friday, 8 h a day`, or what it is where days differ. */
export function weekWords({ week }: CalendarSpec): string {
  const days = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
  const worked = week.flatMap((p, k) => (p.length > 0 ? [k] : []));
  if (worked.length === 0) return 'no working days';
  const [first, last] = [worked[0]!, worked.at(-1)!];
  const run = last - first + 1 === worked.length;
  const which =
    worked.length === 7
      ? 'every day'
      : worked.length === 1
        ? `${days[first]} only`
        : run
          ? `${days[first]} to ${days[last]}`
          : worked.map((k) => days[k]!.slice(0, 3)).join(', ');
  const same = worked.every((k) => patternWords(week[k]!) === patternWords(week[first]!));
  return same ? `${which}, ${Math.round((10 * usualMinutes(week)) / 60) / 10} h a day` : `${which}, hours by weekday`;
}

function Calendars({ planId, open }: { planId: string; open: OpenRoom }) {
  const { calendars, calendar: own } = open.head;
  const { busy, change } = usePlanChange(planId);
  const [chosen, setChosen] = useState<string | null>(null);
  const [use, setUse] = useState<Record<string, number>>({});
  useEffect(() => {
    let current = true;
    open.room.calendarUse().then((found) => current && setUse(found), wrong);
    return () => {
      current = false;
    };
  }, [open]);
  const calendar = calendars.find((c) => c.id === chosen) ?? calendars.find((c) => c.id === own) ?? calendars[0]!;
  const add = async (from: CalendarSpec, name: string) => {
    let id =
      name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || 'calendar';
    for (let k = 2; calendars.some((c) => c.id === id); k++) id = `${id.replace(/-\d+$/, '')}-${k}`;
    const made = { ...from, id, name };
    if (await change({ do: 'setPlan', settings: { calendars: [...calendars, made] } }, `Add the calendar ${name}`))
      setChosen(id);
  };
  const freeName = (base: string): string => {
    for (let k = 1; ; k++) {
      const name = k === 1 ? base : `${base} (${k})`;
      if (!calendars.some((c) => c.name === name)) return name;
    }
  };
  return (
    <div className="mt-6 grid grid-cols-[230px_minmax(0,1fr)] gap-8">
      <nav aria-label="Calendars">
        <ul className="space-y-0.5">
          {calendars.map((c) => (
            <li key={c.id}>
              <button
                type="button"
                aria-current={c.id === calendar.id ? 'true' : undefined}
                onClick={() => setChosen(c.id)}
                className={`w-full rounded-md px-3 py-1.5 text-left ${c.id === calendar.id ? 'bg-ink text-paper' : 'hover:bg-wash'}`}
              >
                <span className="flex items-baseline gap-2">
                  <span className="min-w-0 truncate font-semibold">{c.name}</span>
                  <span className="ml-auto shrink-0 text-[14px]">{use[c.id] ?? 0}</span>
                </span>
                <span className={`block font-narrow text-[13.5px] ${c.id === calendar.id ? '' : 'text-soft'}`}>
                  {weekWords(c)}
                  {c.id === own ? ' · the plan’s own' : ''}
                </span>
              </button>
            </li>
          ))}
        </ul>
        <div className="mt-4 space-y-1.5 text-[14.5px]">
          <button
            type="button"
            className="quiet py-1"
            disabled={busy}
            onClick={() => void add(calendar, freeName(`${calendar.name}, another`))}
          >
            A copy of this one
          </button>
          {STANDARD_CALENDARS.filter((s) => !calendars.some((c) => c.name === s.name)).map((s) => (
            <button
              key={s.id}
              type="button"
              className="block text-kelp hover:underline"
              disabled={busy}
              onClick={() => void add(s, freeName(s.name))}
            >
              Add a {s.name.toLowerCase()}
            </button>
          ))}
          <button
            type="button"
            className="block text-kelp hover:underline"
            disabled={busy}
            onClick={() => void add({ ...FIVE_DAY, exceptions: [], yearly: [] }, freeName('New calendar'))}
          >
            Begin one from nothing
          </button>
        </div>
      </nav>
      <CalendarView
        key={calendar.id}
        open={open}
        calendar={calendar}
        own={calendar.id === own}
        used={use[calendar.id] ?? 0}
        busy={busy}
        onChange={(next, words) => void change((room) => room.putCalendar(next), words)}
        onOwn={() =>
          void change({ do: 'setPlan', settings: { calendar: calendar.id } }, `Make ${calendar.name} the plan’s own`)
        }
        onRemove={() =>
          void change((room) => room.withoutCalendar(calendar.id), `Remove the calendar ${calendar.name}`).then(() =>
            setChosen(null),
          )
        }
      />
    </div>
  );
}
