'use client';
import type { ColumnMap, ColumnMeaning } from '@clembo/formats';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { parseIsoDate, startOfDay } from '@clembo/core';
import type { IntakeView } from '@/server/intake/view';
import { ask } from '@/ui/ask';
import { DayField } from '@/ui/DayField';
import { Frame } from '@/ui/Frame';
import { Pick } from '@/ui/Pick';
import { wrong } from '@/ui/Toasts';
import { ColumnPick } from './ColumnPick';

/** The column map of what was taken in, over sample values, with what would come of it. */
export function IntakeDesk({ first }: { first: IntakeView }) {
  const router = useRouter();
  const [view, setView] = useState(first);
  const [name, setName] = useState(first.name);
  const [strict, setStrict] = useState(false);
  const [start, setStart] = useState('');
  const [making, setMaking] = useState(false);
  const asked = useRef(0);
  const { map } = view;

  const correct = async (change: { sheet?: string; map?: ColumnMap }) => {
    const turn = ++asked.current;
    // The choice is seen at once; what comes of it follows.
    if (change.map) setView((v) => ({ ...v, map: change.map! }));
    try {
      const next = await ask<IntakeView>(`/api/intakes/${view.id}`, { method: 'PATCH', json: change });
      if (turn === asked.current) setView(next);
    } catch (error) {
      wrong(error);
    }
  };
  const changeMap = (change: Partial<ColumnMap>) => correct({ map: { ...map, ...change } });
  const changeColumn = (column: number, meaning: ColumnMeaning) => {
    const columns = map.columns.map((m, c): ColumnMeaning => {
      if (c === column) return meaning;
      // A field has one column: the one chosen last.
      return meaning.as === 'field' && m.as === 'field' && m.field === meaning.field ? { as: 'skip' } : m;
    });
    void changeMap({ columns });
  };
  const make = async () => {
    setMaking(true);
    try {
      const { planId } = await ask<{ planId: string }>(`/api/intakes/${view.id}/plan`, {
        method: 'POST',
        json: { name, strict, start: startDay === null ? null : startOfDay(startDay) },
      });
      router.push(`/plans/${planId}/show`);
    } catch (error) {
      wrong(error);
      setMaking(false);
    }
  };
  const held = strict && view.problemCount > 0;
  const startDay = view.dates === 'computed' ? parseIsoDate(start) : null;
  const dated = view.dates === 'given' || startDay !== null;
  const ready = map.dateOrder !== null && name.trim() !== '' && view.rowsTaken > 0 && !held && dated;

  return (
    <Frame
      stage="Gather"
      plan={null}
      controls={
        <button type="button" className="action" disabled={!ready || making} onClick={() => void make()}>
          {making ? 'Making the plan …' : 'Make the plan'}
        </button>
      }
    >
      <div className="flex h-full flex-col">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-2 px-6 pt-5 pb-3">
          <h1 className="font-serif text-[22px] font-semibold">What is in {view.source}?</h1>
          <label className="flex items-center gap-2">
            <span className="text-soft">Name of the plan</span>
            <input
              value={name}
              onChange={(e) => setName(e.target.value)}
              className="w-64 rounded-md border border-line bg-paper px-2.5 py-1"
            />
          </label>
          {view.sheets.length > 1 && (
            <Pick
              label="Sheet"
              value={view.sheet ?? ''}
              options={view.sheets.map((s) => [s, s])}
              onChange={(sheet) => void correct({ sheet })}
            />
          )}
          <Pick
            label="Headings"
            value={map.headerRow === null ? 'none' : String(map.headerRow)}
            options={[
              ['none', 'no row of headings'],
              ...Array.from({ length: Math.max(10, (map.headerRow ?? 0) + 1) }, (_, r): [string, string] => [
                String(r),
                `in row ${r + 1}`,
              ]),
            ]}
            onChange={(v) => void changeMap({ headerRow: v === 'none' ? null : Number(v) })}
          />
          <Pick
            label="Dates"
            value={map.dateOrder ?? 'open'}
            wanted={map.dateOrder === null}
            options={[
              ...(map.dateOrder === null ? [['open', 'day or month first?'] as [string, string]] : []),
              ['dmy', 'day before month'],
              ['mdy', 'month before day'],
            ]}
            onChange={(v) => v !== 'open' && void changeMap({ dateOrder: v as 'dmy' | 'mdy' })}
          />
          <Pick
            label="Durations in"
            value={map.durationUnit}
            options={[
              ['day', 'working days'],
              ['week', 'weeks'],
              ['hour', 'hours'],
            ]}
            onChange={(v) => void changeMap({ durationUnit: v as ColumnMap['durationUnit'] })}
          />
        </div>
        {map.dateOrder === null && (
          <p role="alert" className="mx-6 mb-3 rounded-lg border border-marigold bg-marigold/15 px-4 py-2">
            In {sampleDate(view)} the dates leave open whether day or month comes first. Choose it under <b>Dates</b>;
            nothing is guessed.
          </p>
        )}
        {view.dates === 'computed' && (
          <label className="mx-6 mb-3 flex items-center gap-3 rounded-lg border border-marigold bg-marigold/15 px-4 py-2">
            <span>
              The table has lengths and links, but no dates: they are computed. On which day does the plan start?
            </span>
            <DayField label="Start of the plan" value={start} onChange={setStart} />
          </label>
        )}
        {view.dates === 'none' && view.rowsTaken > 0 && (
          <p role="alert" className="mx-6 mb-3 rounded-lg border border-marigold bg-marigold/15 px-4 py-2">
            No column holds dates, durations or links, so there is nothing to draw. Say below which column holds the
            dates.
          </p>
        )}
        <div className="min-h-0 flex-1 overflow-auto px-6 pb-4">
          <ColumnTable view={view} onChange={changeColumn} />
          <Problems view={view} strict={strict} onStrict={setStrict} />
        </div>
        <footer className="flex shrink-0 items-center gap-6 border-t border-line bg-paper px-6 py-2.5" role="status">
          <Outcome view={view} />
        </footer>
      </div>
    </Frame>
  );
}

function sampleDate(view: IntakeView): string {
  for (const { cells } of view.samples) {
    const found = cells.find((c) => /^\d{1,2}[-/.]\d{1,2}[-/.]\d{2,4}/.test(c.text));
    if (found) return `“${found.text}” and all others`;
  }
  return 'this table';
}

function ColumnTable({
  view,
  onChange,
}: {
  view: IntakeView;
  onChange: (column: number, meaning: ColumnMeaning) => void;
}) {
  const { map, samples } = view;
  return (
    <div className="overflow-x-auto rounded-xl border border-line bg-paper">
      <table className="w-max min-w-full border-collapse text-[14px]">
        <thead>
          <tr>
            <th className="w-10 border-b border-line" aria-label="Row" />
            {map.columns.map((meaning, c) => (
              <th
                key={`${c}-${map.headings[c]}`}
                scope="col"
                className={`min-w-28 border-b border-l border-line p-2 text-left align-top font-normal ${meaning.as === 'skip' ? 'bg-wash' : ''}`}
              >
                <span className="block truncate pb-1 text-soft" title={map.headings[c]}>
                  {map.headings[c] || `Column ${c + 1}`}
                </span>
                <ColumnPick
                  column={map.headings[c] || `Column ${c + 1}`}
                  meaning={meaning}
                  onChange={(m) => onChange(c, m)}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {samples.map(({ row, cells }) => (
            <tr key={row} className="align-top">
              <td className="border-t border-line/60 px-2 py-1 text-right text-soft">{row}</td>
              {cells.map((cell, c) => (
                // biome-ignore lint: columns have no other name
                <td
                  key={c}
                  className={`max-w-64 border-t border-l border-line/60 px-2 py-1 ${map.columns[c]?.as === 'skip' ? 'bg-wash text-soft' : ''}`}
                >
                  <span className="block truncate" title={cell.text}>
                    {cell.text}
                  </span>
                  {cell.read !== null && cell.read !== cell.text && (
                    <span
                      className={`block truncate font-narrow text-[13px] ${cell.read === 'not a date' ? 'text-madder' : 'text-soft'}`}
                    >
                      {cell.read}
                    </span>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Problems({
  view,
  strict,
  onStrict,
}: {
  view: IntakeView;
  strict: boolean;
  onStrict: (strict: boolean) => void;
}) {
  if (view.problemCount === 0) return null;
  return (
    <section className="mt-5" aria-labelledby="problems">
      <div className="flex items-baseline justify-between gap-4">
        <h2 id="problems" className="text-[17px] font-semibold">
          {view.problemCount} {view.problemCount === 1 ? 'cell' : 'cells'} cannot be read as{' '}
          {view.problemCount === 1 ? 'it stands' : 'they stand'}
        </h2>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={strict}
            onChange={(e) => onStrict(e.target.checked)}
            className="size-4 accent-kelp"
          />
          Take nothing in until every cell can be read
        </label>
      </div>
      <ul className="mt-2 divide-y divide-line rounded-xl border border-line bg-paper">
        {view.problems.map((p, k) => (
          // biome-ignore lint: the list is replaced as a whole
          <li key={k} className="grid grid-cols-[300px_1fr] gap-4 px-4 py-1.5 text-[14px]">
            <span className="text-soft">{p.place}</span>
            <span>{p.words}</span>
          </li>
        ))}
      </ul>
      {view.problemCount > view.problems.length && (
        <p className="mt-1 text-[14px] text-soft">… and {view.problemCount - view.problems.length} more.</p>
      )}
    </section>
  );
}

function Outcome({ view }: { view: IntakeView }) {
  const { counts, rowsRead, rowsTaken } = view;
  const some = (n: number, one: string, many: string) => (n === 0 ? null : `${n} ${n === 1 ? one : many}`);
  const parts = [
    some(counts.activities, 'activity', 'activities'),
    some(counts.milestones, 'milestone', 'milestones'),
    some(counts.summaries, 'summary', 'summaries'),
    some(counts.links, 'link', 'links'),
    some(counts.baseline, 'baseline date', 'baseline dates'),
  ].filter((p) => p !== null);
  return (
    <>
      <span className="font-semibold">{parts.length > 0 ? parts.join(', ') : 'Nothing to take in yet'}</span>
      <span className="text-soft">
        from {rowsTaken} of {rowsRead} rows · {view.calendar}
      </span>
    </>
  );
}
