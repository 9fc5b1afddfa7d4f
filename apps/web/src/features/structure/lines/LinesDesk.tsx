'use client';
import type { Line, RoundedTo } from '@clembo/core';
import { useEffect, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import type { FramePlan } from '@/ui/Frame';
import { toast, wrong } from '@/ui/Toasts';
import type { OpenRoom } from '@/workers/planRoom';
import { StructureDesk } from '../StructureDesk';
import { LineHead } from './LineHead';
import { Places } from './Places';
import { Strips } from './Strips';

/** The lines that work of a plan runs along: where they begin and end, and what lies on them. */
export function LinesDesk({ plan, version }: { plan: FramePlan; version: number }) {
  return (
    <StructureDesk plan={plan} version={version} current="Lines">
      {(open) => <Lines planId={plan.id} open={open} />}
    </StructureDesk>
  );
}

function Lines({ planId, open }: { planId: string; open: OpenRoom }) {
  const { lines } = open.head;
  const { busy, change } = usePlanChange(planId);
  const [chosen, setChosen] = useState<string | null>(null);
  const [name, setName] = useState('');
  const line = lines.find((l) => l.id === chosen) ?? lines[0] ?? null;
  const [works, setWorks] = useState(0);
  const shown = line?.id;
  useEffect(() => {
    let current = true;
    if (shown !== undefined) open.room.worksOn(shown).then((n) => current && setWorks(n), wrong);
    return () => {
      current = false;
    };
  }, [open, shown]);
  const put = (list: Line[], words: string) => change({ do: 'setPlan', settings: { lines: list } }, words);
  const set = (part: Partial<Line>, words: string) =>
    void put(
      lines.map((l) => (l.id === line!.id ? { ...l, ...part } : l)),
      words,
    );
  const lengths = async (of: Line, to: RoundedTo) => {
    const command = await open.room.lengthsByRates(of.id, to);
    if (!command) toast('All works with a rate have that length already, or have begun.');
    else await change(command, `Lengths by rates on the line ${of.name}`);
  };
  const withStrips = (of: Line, strips: Line['strips']) => lines.map((l) => (l.id === of.id ? { ...l, strips } : l));
  const add = async () => {
    const wanted = name.trim();
    if (wanted === '') return;
    if (lines.some((l) => l.name.toLowerCase() === wanted.toLowerCase()))
      return wrong(new Error(`There is a line “${wanted}” already.`));
    let id = wanted.toLowerCase().slice(0, 90);
    for (let k = 2; lines.some((l) => l.id === id); k++) id = `${wanted.toLowerCase().slice(0, 90)} ${k}`;
    const made: Line = { id, name: wanted, unit: 'm', from: 0, to: 1_000_000, stations: [], zones: [], windows: [] };
    if (!(await put([...lines, made], `Add the line ${wanted}`))) return;
    setName('');
    setChosen(id);
  };
  return (
    <div className="mt-6">
      {lines.length === 0 && (
        <p className="max-w-lg text-soft">
          This plan has no line yet. A line is what work runs along: a road, a pipe, a wall, the floors of a tower. Add
          one here, then say in the ledger from where to where each activity goes.
        </p>
      )}
      <div className="flex flex-wrap items-center gap-2">
        {lines.map((l) => (
          <button
            key={l.id}
            type="button"
            aria-pressed={l.id === line?.id}
            className={`rounded-full border px-3 py-0.5 ${l.id === line?.id ? 'border-ink bg-ink text-paper' : 'border-line hover:border-kelp'}`}
            onClick={() => setChosen(l.id)}
          >
            {l.name || l.id}
          </button>
        ))}
        <form
          className="flex gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            void add();
          }}
        >
          <input
            aria-label="New line"
            placeholder="New line"
            value={name}
            maxLength={200}
            onChange={(e) => setName(e.target.value)}
            className="w-52 rounded-md border border-line bg-paper px-2.5 py-1"
          />
          <button type="submit" className="quiet py-1" disabled={busy || name.trim() === ''}>
            Add
          </button>
        </form>
      </div>
      {line && (
        <div key={line.id}>
          <LineHead
            line={line}
            works={works}
            busy={busy}
            onChange={set}
            onLengths={(to) => void lengths(line, to)}
            onRemove={() =>
              void put(
                lines.filter((l) => l.id !== line.id),
                `Remove the line ${line.name}`,
              )
            }
          />
          <div className="mt-7 grid gap-x-10 gap-y-8 lg:grid-cols-2">
            <Places open={open} line={line} kind="stations" busy={busy} onChange={set} />
            <Places open={open} line={line} kind="zones" busy={busy} onChange={set} />
            <div className="lg:col-span-2">
              <Strips
                open={open}
                line={line}
                busy={busy}
                onChange={set}
                onAdd={(picture, strip) => {
                  const put = { lines: withStrips(line, [...(line.strips ?? []), strip]) };
                  void change(
                    {
                      do: 'all',
                      commands: [
                        { do: 'setPicture', picture },
                        { do: 'setPlan', settings: put },
                      ],
                    },
                    `Put the picture ${picture.name} along the line ${line.name}`.slice(0, 290),
                  );
                }}
                onRemove={(strip) => {
                  const put = {
                    lines: withStrips(
                      line,
                      (line.strips ?? []).filter((s) => s.id !== strip.id),
                    ),
                  };
                  void change(
                    {
                      do: 'all',
                      commands: [
                        { do: 'setPlan', settings: put },
                        { do: 'removePicture', id: strip.picture },
                      ],
                    },
                    `Remove a picture of the line ${line.name}`,
                  );
                }}
              />
            </div>
            <div className="lg:col-span-2">
              <Places open={open} line={line} kind="windows" busy={busy} onChange={set} />
            </div>
          </div>
        </div>
      )}
    </div>
  );
}
