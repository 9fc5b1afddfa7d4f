'use client';
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { Check } from 'lucide-react';
import { openByEnter } from '../openByEnter';

/** How a part of the sentence looks: words that can be changed. */
export const PART_STYLE =
  'inline cursor-pointer border-b border-kelp/50 text-left font-semibold text-kelp hover:border-kelp hover:bg-kelp/8 data-open:border-marigold data-open:bg-marigold/15';

interface Common {
  part: string;
  label: string;
  text: string;
  options: [value: string, title: string][];
}

/** A part that is one of several. */
export function OnePart({
  part,
  label,
  text,
  value,
  options,
  onChange,
}: Common & { value: string; onChange: (value: string) => void }) {
  return (
    <Listbox value={value} onChange={onChange}>
      <ListboxButton
        onKeyDown={openByEnter}
        data-brief-part={part}
        aria-label={`${label}: ${text}`}
        className={PART_STYLE}
      >
        {text}
      </ListboxButton>
      <ListboxOptions anchor={{ to: 'bottom start', gap: 6 }} className="panel max-h-96! min-w-52">
        {options.map(([v, title]) => (
          <ListboxOption key={v} value={v} className="choice group">
            <Check size={15} aria-hidden className="invisible group-data-selected:visible" />
            {title}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}

/** A part that is any of several, `most` of them at once. */
export function ManyPart({
  part,
  label,
  text,
  values,
  options,
  most = options.length,
  onChange,
}: Common & { values: string[]; most?: number; onChange: (values: string[]) => void }) {
  return (
    <Listbox value={values} onChange={onChange} multiple>
      <ListboxButton
        onKeyDown={openByEnter}
        data-brief-part={part}
        aria-label={`${label}: ${text}`}
        className={PART_STYLE}
      >
        {text}
      </ListboxButton>
      <ListboxOptions anchor={{ to: 'bottom start', gap: 6 }} className="panel min-w-52">
        {options.map(([v, title]) => (
          <ListboxOption
            key={v}
            value={v}
            disabled={values.length >= most && !values.includes(v)}
            className="choice group data-disabled:opacity-50"
          >
            <Check size={15} aria-hidden className="invisible group-data-selected:visible" />
            {title}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}
