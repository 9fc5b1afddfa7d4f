'use client';
import { type Arrangement, dayOf, endOfDay, isoDate, selectFields, startOfDay } from '@clembo/core';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { X } from 'lucide-react';
import { memo, useDeferredValue, useState } from 'react';
import { WherePart } from '@/ui/sentence/WherePart';
import { ManyPart, OnePart, PART_STYLE } from '@/ui/sentence/ListParts';
import { DayField, dayOfField } from '@/ui/DayField';
import type { OpenRoom } from '@/workers/planRoom';
import { useSteady } from './useSteady';

interface Props {
  open: OpenRoom;
  arrangement: Arrangement;
  kept: { name: string; arrangement: Arrangement }[];
  onChange: (part: Partial<Arrangement>) => void;
  onKeep: (name: string) => void;
  onDrop: (name: string) => void;
  /** Chooses which dates the plan shows. */
  onSource: (source: Source) => void;
  /** Whether the plan may be changed. */
  may: boolean;
}

type Source = 'given' | 'computed';

/** What may stand beside the rows themselves. */
const MARKS = [
  ['summaries', 'groups'],
  ['numbers', 'numbers'],
  ['whole', 'the whole plan'],
] as const;

const then = (names: string[]): string => names.join(', then ');

/** The arrangement as a sentence; every underlined part of it can be changed. Of a changed plan the rows come first. */
export function ArrangementLine({ open, onChange, onKeep, onDrop, onSource, ...rest }: Props) {
  const on = useSteady({ onChange, onKeep, onDrop, onSource });
  return <Sentence {...rest} {...on} open={useDeferredValue(open)} />;
}

const Sentence = memo(function Sentence({
  open,
  arrangement: a,
  kept,
  may,
  onChange,
  onKeep,
  onDrop,
  onSource,
}: Props) {
  const fields = selectFields(open.head);
  const nameOf = (id: string) => fields.find((f) => f.id === id)?.name ?? id;
  const groupable = fields.filter((f) => !['ref', 'name', 'notes', 'predecessors', 'successors'].includes(f.id));
  const marks = MARKS.flatMap(([id]) => (a[id] ? [id] : []));
  const sorted = a.sort.map((s) => `${nameOf(s.field)}${s.down ? ' (down)' : ''}`);
  return (
    <p className="text-[16px] leading-relaxed" aria-label="Arrangement">
      Rows by{' '}
      <ManyPart
        part="groups"
        label="Rows by"
        text={a.groups.length === 0 ? 'outline' : then(a.groups.map(nameOf))}
        values={a.groups}
        most={4}
        options={groupable.map((f) => [f.id, f.name])}
        onChange={(groups) => onChange({ groups })}
      />{' '}
      showing{' '}
      <ManyPart
        part="marks"
        label="Showing"
        text={marks.length === 0 ? 'rows only' : marks.map((m) => MARKS.find(([id]) => id === m)![1]).join(', ')}
        values={marks}
        options={MARKS.map(([id, title]) => [id, title])}
        onChange={(wanted) =>
          onChange({
            summaries: wanted.includes('summaries'),
            numbers: wanted.includes('numbers'),
            whole: wanted.includes('whole'),
          })
        }
      />
      , sorted by{' '}
      <OnePart
        part="sort"
        label="Sorted by"
        text={sorted.length === 0 ? 'their place' : then(sorted)}
        value={a.sort[0]?.field ?? ''}
        options={[['', 'their place'], ...fields.map((f): [string, string] => [f.id, f.name])]}
        onChange={(field) => {
          const [first] = a.sort;
          // The same again turns it round; another goes before what it was sorted by.
          if (field === '') onChange({ sort: [] });
          else if (first?.field === field) onChange({ sort: [{ field, down: !first.down }, ...a.sort.slice(1)] });
          else onChange({ sort: [{ field, down: false }, ...a.sort.filter((s) => s.field !== field)].slice(0, 2) });
        }}
      />
      , only <WherePart open={open} where={a.where} act="List" onChange={(where) => onChange({ where })} />, with{' '}
      <ManyPart
        part="columns"
        label="With columns"
        text={a.columns.length === 0 ? 'no columns' : a.columns.map((c) => nameOf(c.field)).join(', ')}
        values={a.columns.map((c) => c.field)}
        most={60}
        options={fields.filter((f) => f.id !== 'name').map((f) => [f.id, f.name])}
        onChange={(wanted) =>
          onChange({
            columns: [
              ...a.columns.filter((c) => wanted.includes(c.field)),
              ...wanted.filter((f) => !a.columns.some((c) => c.field === f)).map((field) => ({ field, width: null })),
            ],
          })
        }
      />{' '}
      and the time strip from <StripPart arrangement={a} onChange={onChange} />, dates{' '}
      <SourcePart source={open.head.source} onChange={may ? onSource : null} />.{' '}
      <KeptPart kept={kept} onTake={onChange} onKeep={onKeep} onDrop={onDrop} />
    </p>
  );
});

const SOURCE_WORDS: Record<Source, string> = { given: 'as drawn', computed: 'as computed' };

/** Which dates the plan shows: those of its source and of the hand, or those that lengths and links give. */
function SourcePart({ source, onChange }: { source: Source; onChange: ((source: Source) => void) | null }) {
  if (!onChange) return <>{SOURCE_WORDS[source]}</>;
  return (
    <OnePart
      part="source"
      label="Dates"
      text={SOURCE_WORDS[source]}
      value={source}
      options={[
        ['given', 'as drawn: those of the source and of the hand'],
        ['computed', 'as computed: from lengths and links'],
      ]}
      onChange={(v) => v !== source && onChange(v as Source)}
    />
  );
}

function StripPart({ arrangement: a, onChange }: { arrangement: Arrangement; onChange: Props['onChange'] }) {
  const iso = (moment: number | null, finish: boolean): string =>
    moment === null ? '' : isoDate(finish ? dayOf(moment - 1) : dayOf(moment));
  const words = `${iso(a.from, false) || 'start'} to ${iso(a.to, true) || 'finish'}`;
  return (
    <Popover as="span">
      <PopoverButton data-brief-part="strip" aria-label={`Time strip from ${words}`} className={PART_STYLE}>
        {words}
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom start', gap: 6 }} className="panel flex items-center gap-2 p-3!" focus>
        <DayField
          label="Strip from"
          value={iso(a.from, false)}
          onChange={(v) => {
            const day = dayOfField(v);
            onChange({ from: day === null ? null : startOfDay(day) });
          }}
        />
        to
        <DayField
          label="Strip to"
          value={iso(a.to, true)}
          onChange={(v) => {
            const day = dayOfField(v);
            onChange({ to: day === null ? null : endOfDay(day) });
          }}
        />
        <button type="button" className="quiet py-0.5" onClick={() => onChange({ from: null, to: null })}>
          All there is
        </button>
      </PopoverPanel>
    </Popover>
  );
}

function KeptPart({
  kept,
  onTake,
  onKeep,
  onDrop,
}: {
  kept: Props['kept'];
  onTake: Props['onChange'];
  onKeep: (name: string) => void;
  onDrop: (name: string) => void;
}) {
  const [name, setName] = useState('');
  return (
    <Popover as="span">
      <PopoverButton className="text-[14px] text-soft hover:text-ink hover:underline">Arrangements</PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom end', gap: 6 }} className="panel w-80 p-3!" focus>
        {({ close }) => (
          <>
            {kept.length > 0 && (
              <ul className="mb-3 divide-y divide-line/60">
                {kept.map((k) => (
                  <li key={k.name} className="flex items-center gap-2 py-1">
                    <button
                      type="button"
                      className="min-w-0 flex-1 truncate text-left hover:underline"
                      onClick={() => {
                        onTake(k.arrangement);
                        close();
                      }}
                    >
                      {k.name}
                    </button>
                    <button
                      type="button"
                      aria-label={`Let go of the arrangement ${k.name}`}
                      className="rounded p-0.5 text-soft hover:bg-line"
                      onClick={() => onDrop(k.name)}
                    >
                      <X size={14} />
                    </button>
                  </li>
                ))}
              </ul>
            )}
            <form
              className="flex gap-2"
              onSubmit={(e) => {
                e.preventDefault();
                if (name.trim() === '') return;
                onKeep(name.trim());
                setName('');
                close();
              }}
            >
              <input
                aria-label="Name of the arrangement"
                placeholder="Keep this one as …"
                value={name}
                maxLength={200}
                onChange={(e) => setName(e.target.value)}
                className="min-w-0 flex-1 rounded-md border border-line bg-paper px-2.5 py-1"
              />
              <button type="submit" className="quiet py-1" disabled={name.trim() === ''}>
                Keep
              </button>
            </form>
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}
