'use client';
import { TextField } from '@/ui/TextField';
import { dayOf, endOfDay, finishDayOf, isoDate, type Line, type PlaceKind, startOfDay } from '@clembo/core';
import { X } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { DayField, dayOfField } from '@/ui/DayField';
import type { OpenRoom } from '@/workers/planRoom';
import { nearDay } from '../nearDay';
import { PastePlaces } from './PastePlaces';
import { PlaceField } from './PlaceField';
import { PlaceLooks } from './PlaceLooks';

type Station = Line['stations'][number];
type Zone = Line['zones'][number];
type Window = Line['windows'][number];

const TITLES: Record<PlaceKind, [title: string, one: string, about: string]> = {
  stations: ['Stations', 'station', 'Points on the line that readers know.'],
  zones: ['Zones', 'zone', 'Stretches with a name: sections, lots, floors.'],
  windows: [
    'Closed windows',
    'closed window',
    'Where and when no work may happen: a nesting season, a tide, a possession.',
  ],
};

/** What lies on a line, typed one by one or pasted. */
export function Places({
  open,
  line,
  kind,
  busy,
  onChange,
}: {
  open: OpenRoom;
  line: Line;
  kind: PlaceKind;
  busy: boolean;
  onChange: (part: Partial<Line>, words: string) => void;
}) {
  const [pasting, setPasting] = useState(false);
  const [title, one, about] = TITLES[kind];
  const list: (Station | Zone | Window)[] = line[kind];
  const put = (all: (Station | Zone | Window)[], words: string) => onChange({ [kind]: all } as Partial<Line>, words);
  const change = (k: number, part: object) =>
    put(
      list.map((p, j) => (j === k ? { ...p, ...part } : p)),
      `Change a ${one} of the line ${line.name}`,
    );
  const add = () => {
    const day = nearDay(open.head);
    const made =
      kind === 'stations'
        ? { name: '', at: line.from }
        : kind === 'zones'
          ? { name: '', from: line.from, to: line.to }
          : { name: '', from: line.from, to: line.to, start: startOfDay(day), finish: endOfDay(day + 6) };
    put([...list, made], `Add a ${one} to the line ${line.name}`);
  };
  const place = (k: number, key: 'at' | 'from' | 'to', label: string, value: number): ReactNode => (
    <PlaceField
      label={`${label} of ${one} ${k + 1}`}
      place={value}
      unit={line.unit}
      onChange={(v) => change(k, { [key]: v })}
    />
  );
  return (
    <section aria-label={title}>
      <div className="flex items-baseline gap-3">
        <h2 className="font-serif text-[18px] font-semibold">{title}</h2>
        <span className="text-[13.5px] text-soft">{list.length > 0 ? list.length : about}</span>
      </div>
      {list.length > 0 && (
        <table className="mt-2 text-[14.5px]">
          <tbody>
            {list.map((p, k) => (
              // biome-ignore lint: places stand where they stand
              <tr key={k}>
                <td className="py-0.5 pr-2">
                  <TextField
                    aria-label={`Name of ${one} ${k + 1}`}
                    value={p.name}
                    maxLength={200}
                    placeholder="Name"
                    className="w-40 rounded-md border border-line bg-paper px-2 py-0.5"
                    onKeep={(name) => change(k, { name })}
                  />
                </td>
                {'at' in p ? (
                  <td className="pr-2">{place(k, 'at', 'Place', p.at)}</td>
                ) : (
                  <td className="pr-2 whitespace-nowrap">
                    {place(k, 'from', 'Beginning', p.from)} <span className="text-soft">to</span>{' '}
                    {place(k, 'to', 'End', p.to)}
                  </td>
                )}
                {'start' in p && (
                  <td className="pr-2 whitespace-nowrap">
                    <DayField
                      label={`First day of ${one} ${k + 1}`}
                      value={isoDate(dayOf(p.start))}
                      onChange={(v) => {
                        const day = dayOfField(v);
                        if (day !== null && startOfDay(day) < p.finish) change(k, { start: startOfDay(day) });
                      }}
                    />{' '}
                    <span className="text-soft">to</span>{' '}
                    <DayField
                      label={`Last day of ${one} ${k + 1}`}
                      value={isoDate(finishDayOf(p.finish))}
                      onChange={(v) => {
                        const day = dayOfField(v);
                        if (day !== null && endOfDay(day) > p.start) change(k, { finish: endOfDay(day) });
                      }}
                    />
                  </td>
                )}
                {!('start' in p) && (
                  <td className="pr-2">
                    <PlaceLooks
                      label={`${one} ${k + 1}`}
                      colour={p.colour}
                      style={p.style}
                      usual={kind === 'stations' ? 'dashed line' : 'band'}
                      onChange={(looks) => change(k, looks)}
                    />
                  </td>
                )}
                <td>
                  <button
                    type="button"
                    aria-label={`Remove ${one} ${k + 1}`}
                    className="rounded p-1 text-soft hover:bg-line"
                    disabled={busy}
                    onClick={() =>
                      put(
                        list.filter((_, j) => j !== k),
                        `Remove a ${one} of the line ${line.name}`,
                      )
                    }
                  >
                    <X size={14} />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="mt-2 flex gap-2">
        <button type="button" className="quiet py-0.5" disabled={busy} onClick={add}>
          Add a {one}
        </button>
        <button type="button" className="quiet py-0.5" onClick={() => setPasting((v) => !v)}>
          Paste many
        </button>
      </div>
      {pasting && (
        <PastePlaces
          kind={kind}
          unit={line.unit}
          onTake={(found) => {
            put([...list, ...found[kind]], `Add ${found[kind].length} ${title.toLowerCase()} to the line ${line.name}`);
            setPasting(false);
          }}
        />
      )}
    </section>
  );
}
