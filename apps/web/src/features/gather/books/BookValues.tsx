'use client';
import { type CodeValue, makeValue, SHAPES } from '@clembo/core';
import { CATEGORIES, NEUTRAL } from '@clembo/scene/ink';
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { X } from 'lucide-react';
import { useState } from 'react';
import { openByEnter } from '@/ui/openByEnter';
import { ShapeGlyph } from '@/ui/ShapeGlyph';
import { moved, Sortable, SortableItem } from '@/ui/Sortable';
import { wrong } from '@/ui/Toasts';
import { Words } from '@/ui/Words';
import type { Book } from '@/workers/answers/books';
import { ColourPick } from './ColourPick';

interface Props {
  book: Book;
  onValues: (values: CodeValue[], words: string) => void;
  /** Renames a code wherever it is used. */
  onRecode: (from: string, to: string) => void;
}

const GRID =
  'grid min-w-0 flex-1 grid-cols-[42px_36px_minmax(80px,0.8fr)_minmax(110px,1.2fr)_minmax(50px,0.6fr)_44px_36px_20px] items-center gap-1.5';

/** The values of a book in their order: colour, shape, code, title, and what each is a part of. */
export function BookValues({ book, onValues, onRecode }: Props) {
  const { field, used, outside, without } = book;
  const { values } = field;
  const [fresh, setFresh] = useState('');
  const set = (k: number, part: Partial<CodeValue>, what: string) =>
    onValues(
      values.map((v, j) => (j === k ? { ...v, ...part } : v)),
      `${what} of ${values[k]!.title} in ${field.name}`,
    );
  const add = (codes: string[]) =>
    onValues([...values, ...codes.map((code) => makeValue({ code }))], `Add ${codes.join(', ')} to ${field.name}`);
  const remove = (k: number) => {
    const { code, title } = values[k]!;
    onValues(
      values.filter((_, j) => j !== k).map((v) => (v.parent === code ? { ...v, parent: null } : v)),
      `Take ${title} out of ${field.name}`,
    );
  };
  const recode = (k: number, code: string) => {
    if (code === '') return;
    if (values.some((v, j) => j !== k && v.code === code)) wrong(new Error(`The book has a value “${code}” already.`));
    else onRecode(values[k]!.code, code);
  };
  return (
    <section aria-label="Values">
      <div className={`flex gap-2 pb-1 text-[13.5px] text-soft`}>
        <span className="w-[15px]" />
        <span className={GRID}>
          <span>Colour</span>
          <span>Mark</span>
          <span>Code</span>
          <span>Title</span>
          <span>Part of</span>
          <span title="How many rows high a lane of it is at least">High</span>
          <span className="text-right">Rows</span>
          <span />
        </span>
      </div>
      <Sortable
        ids={values.map((v) => v.code)}
        onMove={(from, to) => onValues(moved(values, from, to), `Order of ${field.name}`)}
      >
        <ul className="border-y border-line">
          {values.map((v, k) => (
            <SortableItem
              key={v.code}
              id={v.code}
              name={v.title}
              className="flex items-center gap-2 border-b border-line/60 py-1 last:border-0"
            >
              <div className={GRID} data-value={v.code}>
                <ColourPick
                  name={v.title}
                  colour={v.colour}
                  place={k}
                  onChange={(colour) => set(k, { colour }, 'Colour')}
                />
                <ShapePick
                  name={v.title}
                  shape={v.shape}
                  colour={v.colour ?? CATEGORIES[k] ?? NEUTRAL}
                  onChange={(shape) => set(k, { shape }, 'Mark')}
                />
                <Words
                  label={`Code of ${v.title}`}
                  value={v.code}
                  className="w-full min-w-0! font-narrow"
                  onSay={(code) => recode(k, code)}
                />
                <Words
                  label={`Title of ${v.code}`}
                  value={v.title}
                  className="w-full min-w-0! font-semibold"
                  onSay={(title) => title !== '' && set(k, { title }, 'Title')}
                />
                <ParentPick value={v} values={values} onChange={(parent) => set(k, { parent }, 'Place')} />
                <HeightInput value={v} onChange={(height) => set(k, { height }, 'Height of lanes')} />
                <span className={`text-right text-[14px] ${used[k] === 0 ? 'text-soft' : ''}`}>{used[k]}</span>
                <button
                  type="button"
                  aria-label={`Take ${v.title} out of the book`}
                  className="rounded p-0.5 text-soft hover:bg-line"
                  onClick={() => remove(k)}
                >
                  <X size={15} />
                </button>
              </div>
            </SortableItem>
          ))}
          {values.length === 0 && <li className="py-2 text-soft">The book is empty. Type a value below.</li>}
        </ul>
      </Sortable>
      <form
        className="mt-2 flex items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          const code = fresh.trim();
          if (code === '') return;
          if (values.some((v) => v.code === code)) return wrong(new Error(`The book has a value “${code}” already.`));
          add([code]);
          setFresh('');
        }}
      >
        <input
          aria-label="New value"
          placeholder="New value"
          value={fresh}
          maxLength={300}
          onChange={(e) => setFresh(e.target.value)}
          className="w-44 rounded-md border border-line bg-paper px-2.5 py-1"
        />
        <button type="submit" className="quiet py-1" disabled={fresh.trim() === ''}>
          Add
        </button>
        {without > 0 && (
          <span className="ml-auto text-[14px] text-soft">
            {without === 1 ? 'One row' : `${without} rows`} without any
          </span>
        )}
      </form>
      {outside.length > 0 && (
        <div className="mt-4 rounded-lg border border-marigold bg-marigold/10 px-3 py-2" data-testid="outside">
          <p className="flex items-baseline gap-3">
            <span>In use, and not in the book:</span>
            <button
              type="button"
              className="quiet ml-auto bg-paper py-0"
              onClick={() => add(outside.map((o) => o.code))}
            >
              Take {outside.length === 1 ? 'it' : `all ${outside.length}`} in
            </button>
          </p>
          <ul className="mt-1 flex max-h-32 flex-wrap gap-1.5 overflow-auto">
            {outside.map((o) => (
              <li key={o.code}>
                <button
                  type="button"
                  className="rounded-full border border-line bg-paper px-2.5 text-[14px] hover:border-soft"
                  title={`Take ${o.code} into the book`}
                  onClick={() => add([o.code])}
                >
                  {o.code} <span className="text-soft">{o.count}</span>
                </button>
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

function ShapePick({
  name,
  shape,
  colour,
  onChange,
}: {
  name: string;
  shape: CodeValue['shape'];
  colour: string;
  onChange: (shape: CodeValue['shape']) => void;
}) {
  return (
    <Listbox value={shape ?? 'diamond'} onChange={(s) => onChange(s)}>
      <ListboxButton
        onKeyDown={openByEnter}
        aria-label={`Mark of ${name}: ${shape ?? 'diamond'}`}
        className="flex size-7 shrink-0 items-center justify-center rounded hover:bg-line"
      >
        <ShapeGlyph shape={shape ?? 'diamond'} colour={colour} />
      </ListboxButton>
      <ListboxOptions anchor="bottom start" className="panel">
        {SHAPES.map((s) => (
          <ListboxOption key={s} value={s} className="choice">
            <ShapeGlyph shape={s} colour={colour} /> {s}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}

/** How many rows high a lane of it is at least; left empty, as many as it needs. */
function HeightInput({ value, onChange }: { value: CodeValue; onChange: (height: number | null) => void }) {
  return (
    <input
      key={value.height}
      type="number"
      min={1}
      max={50}
      aria-label={`Rows that lanes of ${value.title} are high at least`}
      placeholder="–"
      defaultValue={value.height ?? ''}
      className="w-full rounded border border-transparent bg-transparent px-1 text-right hover:border-line focus:border-line focus:bg-paper"
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      onBlur={(e) => {
        const said = Math.round(Number(e.target.value));
        const height = e.target.value.trim() === '' ? null : Math.min(50, Math.max(1, said || 1));
        e.target.value = height === null ? '' : String(height);
        if (height !== value.height) onChange(height);
      }}
    />
  );
}

/** Codes that a value may be a part of: not itself, nor what is a part of it. */
function above(value: CodeValue, values: readonly CodeValue[]): CodeValue[] {
  const byCode = new Map(values.map((v) => [v.code, v]));
  return values.filter((candidate) => {
    for (let at: CodeValue | undefined = candidate, k = 0; at && k <= values.length; k++) {
      if (at.code === value.code) return false;
      at = at.parent === null ? undefined : byCode.get(at.parent);
    }
    return true;
  });
}

function ParentPick({
  value,
  values,
  onChange,
}: {
  value: CodeValue;
  values: readonly CodeValue[];
  onChange: (parent: string | null) => void;
}) {
  const titles = new Map(values.map((v) => [v.code, v.title]));
  const title = value.parent === null ? '' : (titles.get(value.parent) ?? value.parent);
  return (
    <Listbox value={value.parent} onChange={onChange}>
      <ListboxButton
        onKeyDown={openByEnter}
        aria-label={`${value.title} is a part of: ${title || 'nothing'}`}
        className="min-w-0 truncate rounded px-1 text-left hover:bg-line"
      >
        {title || <span className="text-soft">–</span>}
      </ListboxButton>
      <ListboxOptions anchor="bottom start" className="panel max-h-80!">
        <ListboxOption value={null} className="choice text-soft">
          nothing
        </ListboxOption>
        {above(value, values).map((v) => (
          <ListboxOption key={v.code} value={v.code} className="choice">
            {v.title}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}
