'use client';
import { type ColumnMeaning, fieldById, TABLE_FIELDS } from '@clembo/formats/columns';
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { ChevronDown } from 'lucide-react';

/** What one column means: nothing, a code field under its own heading, or a field of an activity. */
export function ColumnPick({
  column,
  meaning,
  onChange,
}: {
  column: string;
  meaning: ColumnMeaning;
  onChange: (meaning: ColumnMeaning) => void;
}) {
  const value = meaning.as === 'field' ? meaning.field : meaning.as;
  const title =
    meaning.as === 'skip'
      ? 'leave out'
      : meaning.as === 'code'
        ? `Code: ${meaning.name}`
        : (fieldById(meaning.field)?.label ?? meaning.field);
  const choose = (v: string) => {
    if (v === 'skip') onChange({ as: 'skip' });
    else if (v === 'code') onChange({ as: 'code', name: column });
    else onChange({ as: 'field', field: v as Extract<ColumnMeaning, { as: 'field' }>['field'] });
  };
  return (
    <Listbox value={value} onChange={choose}>
      <ListboxButton
        aria-label={`Meaning of ${column}`}
        className={`flex w-full items-center justify-between gap-1 rounded-md border px-2 py-1 text-left ${meaning.as === 'skip' ? 'border-line text-soft' : 'border-kelp/50 font-semibold text-kelp'}`}
      >
        <span className="truncate">{title}</span> <ChevronDown size={14} aria-hidden className="shrink-0" />
      </ListboxButton>
      <ListboxOptions anchor="bottom start" className="panel max-h-96! w-60">
        <ListboxOption value="skip" className="choice">
          leave out
        </ListboxOption>
        <ListboxOption value="code" className="choice">
          Code: {column}
        </ListboxOption>
        <div className="mx-2 my-1 border-t border-line" />
        {TABLE_FIELDS.map((f) => (
          <ListboxOption key={f.id} value={f.id} className="choice">
            {f.label}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}
