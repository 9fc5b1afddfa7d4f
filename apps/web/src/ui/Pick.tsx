'use client';
import { Label, Field, Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { ChevronDown } from 'lucide-react';
import { openByEnter } from '@/ui/openByEnter';

interface Props {
  label: string;
  value: string;
  options: [value: string, title: string][];
  onChange: (value: string) => void;
  /** Marks a choice that has to be made. */
  wanted?: boolean;
  /** What stands of a title while the list is closed. */
  shown?: (title: string) => string;
}

/** A labelled choice of one from a few. */
export function Pick({ label, value, options, onChange, wanted = false, shown = (title) => title }: Props) {
  const title = options.find(([v]) => v === value)?.[1] ?? value;
  return (
    <Field className="flex items-center gap-2">
      <Label className="text-soft">{label}</Label>
      <Listbox value={value} onChange={onChange}>
        <ListboxButton
          onKeyDown={openByEnter}
          className={`quiet py-1 ${wanted ? 'border-marigold bg-marigold/15' : ''}`}
        >
          {shown(title)} <ChevronDown size={14} aria-hidden />
        </ListboxButton>
        <ListboxOptions anchor="bottom start" className="panel max-h-80! min-w-44">
          {options.map(([v, t]) => (
            <ListboxOption key={v} value={v} className="choice">
              {t}
            </ListboxOption>
          ))}
        </ListboxOptions>
      </Listbox>
    </Field>
  );
}
