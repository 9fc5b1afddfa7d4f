'use client';
import type { Condition, Effect } from '@clembo/core';
import { useDraggable } from '@dnd-kit/core';
import { GripVertical, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { ElementsFacts } from '@/workers/answers/models';
import type { OpenRoom } from '@/workers/planRoom';
import type { Mode } from './useModel';

const EFFECTS: [Effect, string][] = [
  ['builds', 'builds'],
  ['removes', 'removes'],
  ['stands', 'stands for'],
];
const DONE: Record<Effect, string> = { builds: 'built by', removes: 'removed by', stands: 'stands for' };

interface Props {
  open: OpenRoom;
  chosen: ReadonlySet<number>;
  /** The activity that is chosen, by its name, for matching at a click. */
  work: { ref: string; name: string } | null;
  onClose: () => void;
  onMatch: (effect: Effect) => void;
  onUnmatch: (ref: string, effect: Effect) => void;
  onWhere: (where: Condition) => void;
  onChoose: (where: Condition) => void;
  onMode: (mode: Mode, others: boolean) => void;
  onCode: (field: string, code: string) => void;
}

/** What is chosen of the model: what it is, who works on it, and what can be done with it. */
export function ChosenPanel(p: Props) {
  const { open, chosen, work } = p;
  const [facts, setFacts] = useState<ElementsFacts | null>(null);
  const [field, setField] = useState('');
  const [code, setCode] = useState('');
  useEffect(() => {
    let current = true;
    open.room.elementsFacts([...chosen]).then((f) => current && setFacts(f), wrong);
    return () => {
      current = false;
    };
  }, [open, chosen]);
  const drag = useDraggable({
    id: 'chosen elements',
    data: { elements: [...chosen], title: `${chosen.size} ${chosen.size === 1 ? 'element' : 'elements'}` },
  });
  if (!facts) return <p className="text-soft">Looking …</p>;
  const own = open.head.codeFields.find((f) => f.id === field);
  return (
    <section aria-label="Chosen elements" className="flex min-h-0 flex-col">
      <div className="flex items-start gap-1">
        <button
          ref={drag.setNodeRef}
          type="button"
          {...drag.listeners}
          {...drag.attributes}
          aria-label="Carry these to an activity"
          title="Carry these to an activity"
          className="mt-0.5 cursor-grab touch-none rounded text-soft hover:bg-line"
        >
          <GripVertical size={16} />
        </button>
        <h2 className="min-w-0 flex-1 font-serif text-[17px] leading-tight font-semibold" data-testid="chosen-title">
          {facts.name !== null ? facts.name || 'Without a name' : `${facts.count} elements`}
        </h2>
        <button type="button" aria-label="Choose nothing" className="rounded p-0.5 hover:bg-line" onClick={p.onClose}>
          <X size={16} />
        </button>
      </div>
      <div className="mt-2 flex flex-wrap gap-1 text-[13px]">
        {(
          [
            ['Only these', 'hidden', true],
            ['Not these', 'hidden', false],
            ['See through', 'through', false],
            ['Others see-through', 'through', true],
          ] as const
        ).map(([title, mode, others]) => (
          <button
            key={title}
            type="button"
            className="rounded border border-line bg-paper px-1.5 py-0.5 hover:border-kelp"
            onClick={() => p.onMode(mode, others)}
          >
            {title}
          </button>
        ))}
      </div>
      <div className="mt-2 min-h-0 flex-1 overflow-y-auto pr-1 text-[13.5px]">
        {work && (
          <div className="mb-2 rounded-md bg-marigold/10 px-2 py-1.5">
            <p>
              <b>{work.name}</b> and these {facts.count === 1 ? 'one' : facts.count}:
            </p>
            <div className="mt-1 flex gap-1">
              {EFFECTS.map(([effect, title]) => (
                <button
                  key={effect}
                  type="button"
                  className={
                    effect === 'builds' ? 'action px-2! py-0.5! text-[13px]' : 'quiet px-2! py-0.5! text-[13px]'
                  }
                  onClick={() => p.onMatch(effect)}
                >
                  {effect === 'stands' ? 'needs them for a while' : `${title} them`}
                </button>
              ))}
            </div>
          </div>
        )}
        <ul className="mb-2 space-y-1">
          {facts.works.map((w) => (
            <li
              key={`${w.ref} ${w.effect}`}
              className="flex items-start gap-1 border-l-[3px] border-kelp pl-2 leading-tight"
            >
              <span className="min-w-0 flex-1">
                <span className="text-soft">{DONE[w.effect]}</span> <b>{w.name}</b>
                <span className="block font-narrow text-[12.5px] text-soft">
                  {w.dates}
                  {w.elements < facts.count && ` · ${w.elements} of these`}
                </span>
              </span>
              <button
                type="button"
                aria-label={`Take these from ${w.name}`}
                title={`Take these from ${w.name}`}
                className="rounded p-0.5 text-soft hover:bg-line"
                onClick={() => p.onUnmatch(w.ref, w.effect)}
              >
                <X size={13} />
              </button>
            </li>
          ))}
          {facts.works.length === 0 && (
            <li className="text-soft">Nobody works on {facts.count === 1 ? 'it' : 'them'} yet.</li>
          )}
        </ul>
        <dl>
          {facts.rows.map((row) => (
            <div key={row.id} className="flex gap-2 border-t border-line py-0.5">
              <dt className="w-[42%] shrink-0 truncate text-soft" title={row.name}>
                {row.name}
              </dt>
              <dd className="min-w-0 flex-1">
                {row.values === 1 ? (
                  <button
                    type="button"
                    className="max-w-full truncate text-left hover:text-kelp hover:underline"
                    title={`Choose all whose ${row.name} is ${row.value}; with Shift, show only those`}
                    onClick={(e) => {
                      const where: Condition = {
                        match: 'all',
                        tests: [{ field: row.id, is: 'is', values: [row.value] }],
                      };
                      if (e.shiftKey) p.onWhere(where);
                      else p.onChoose(where);
                    }}
                  >
                    {row.value}
                  </button>
                ) : (
                  <span className="text-soft">{row.value}</span>
                )}
              </dd>
            </div>
          ))}
        </dl>
        {open.head.codeFields.length > 0 && (
          <form
            className="mt-2 flex flex-wrap items-center gap-1 border-t border-line pt-2"
            onSubmit={(e) => {
              e.preventDefault();
              if (field !== '') p.onCode(field, own?.values.find((v) => v.title === code)?.code ?? code.trim());
            }}
          >
            <span className="w-full text-soft">Give {facts.count === 1 ? 'it' : 'them'} a code</span>
            <select
              aria-label="Code field"
              value={field}
              onChange={(e) => setField(e.target.value)}
              className="min-w-[120px] flex-1 rounded border border-line bg-paper px-1 py-0.5"
            >
              <option value="">choose a field</option>
              {open.head.codeFields.map((f) => (
                <option key={f.id} value={f.id}>
                  {f.name}
                </option>
              ))}
            </select>
            <input
              aria-label="Code value"
              list="element-codes"
              value={code}
              onChange={(e) => setCode(e.target.value)}
              className="min-w-0 flex-1 rounded border border-line bg-paper px-1 py-0.5"
            />
            <datalist id="element-codes">
              {own?.values.map((v) => (
                <option key={v.code} value={v.title} />
              ))}
            </datalist>
            <button type="submit" className="quiet px-2! py-0.5!" disabled={field === ''}>
              Set
            </button>
          </form>
        )}
      </div>
    </section>
  );
}
