'use client';
import { type ColumnMeaning, fieldById, TABLE_FIELDS } from '@clembo/formats/columns';
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { ChevronDown } from 'lucide-react';
import { openByEnter } from '@/ui/openByEnter';

const titleOf = (meaning: ColumnMeaning): string => {
  switch (meaning.as) {
    case 'skip':
      return 'leave out';
    case 'code':
      return `Code: ${meaning.name}`;
    case 'note':
      return 'into the notes';
    case 'field':
      return fieldById(meaning.field)?.label ?? meaning.field;
  }
};

/** What one column means: nothing, a code field under its own heading, a line of the notes, or a field of an activity. */
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
  const name = column.slice(0, 200);
  const choose = (v: string) => {
    if (v === 'skip') onChange({ as: 'skip' });
    else if (v === 'code' || v === 'note') onChange({ as: v, name });
    else onChange({ as: 'field', field: v as Extract<ColumnMeaning, { as: 'field' }>['field'] });
  };
  return (
    <Listbox value={value} onChange={choose}>
      <ListboxButton
        onKeyDown={openByEnter}
        aria-label={`Meaning of ${column}`}
        className={`flex w-full items-center justify-between gap-1 rounded-md border px-2 py-1 text-left ${meaning.as === 'skip' ? 'border-line text-soft' : 'border-kelp/50 font-semibold text-kelp'}`}
      >
        <span className="max-w-52 truncate">{titleOf(meaning)}</span>{' '}
        <ChevronDown size={14} aria-hidden className="shrink-0" />
      </ListboxButton>
      <ListboxOptions anchor="bottom start" className="panel max-h-96! w-60">
        <ListboxOption value="skip" className="choice">
          leave out
        </ListboxOption>
        <ListboxOption value="code" className="choice">
          <span className="truncate">Code: {column}</span>
        </ListboxOption>
        <ListboxOption value="note" className="choice">
          into the notes
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
