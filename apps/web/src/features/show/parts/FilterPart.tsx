'use client';
import type { Filter } from '@clembo/scene/brief';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { useState } from 'react';
import type { PlanHead } from '@/workers/plan.worker';
import { PART_STYLE } from './ListParts';

/** The part that leaves things out: values of code fields, ticked while they are shown. */
export function FilterPart({
  text,
  filters,
  head,
  onChange,
}: {
  text: string;
  filters: Filter[];
  head: PlanHead;
  onChange: (filters: Filter[]) => void;
}) {
  const [fieldId, setFieldId] = useState(filters[0]?.field ?? head.codeFields[0]?.id ?? '');
  const field = head.codeFields.find((f) => f.id === fieldId);
  const values = field
    ? [...field.values.map((v): [string, string] => [v.code, v.title]), ['', 'without a value'] as [string, string]]
    : [];
  const filter = filters.find((f) => f.field === fieldId);
  const isShown = (code: string) => !filter || filter.values.includes(code) === (filter.keep === 'only');
  const others = filters.filter((f) => f.field !== fieldId);

  /** Whichever says it in fewer words: what is kept, or what is left out. */
  const show = (codes: string[]) => {
    const hidden = values.map(([c]) => c).filter((c) => !codes.includes(c));
    if (hidden.length === 0) onChange(others);
    else if (codes.length > 0 && codes.length < hidden.length)
      onChange([...others, { field: fieldId, keep: 'only', values: codes }]);
    else onChange([...others, { field: fieldId, keep: 'without', values: hidden }]);
  };
  const toggle = (code: string) => show(values.map(([c]) => c).filter((c) => (c === code ? !isShown(c) : isShown(c))));

  return (
    <Popover as="span">
      <PopoverButton data-brief-part="where" aria-label={`Left out: ${text}`} className={PART_STYLE}>
        {text}
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom start', gap: 6 }} className="panel w-80 p-3!" focus>
        {head.codeFields.length === 0 ? (
          <p className="text-soft">This plan has no code fields to choose by.</p>
        ) : (
          <>
            <div className="flex flex-wrap gap-1.5" role="group" aria-label="Code field">
              {head.codeFields.map((f) => (
                <button
                  key={f.id}
                  type="button"
                  aria-pressed={f.id === fieldId}
                  onClick={() => setFieldId(f.id)}
                  className={`rounded-full border px-2.5 py-0.5 text-[14px] ${f.id === fieldId ? 'border-ink bg-ink text-paper' : 'border-line'}`}
                >
                  {f.name}
                  {filters.some((x) => x.field === f.id) ? ' •' : ''}
                </button>
              ))}
            </div>
            <div className="mt-2 max-h-72 overflow-auto">
              {values.map(([code, title]) => (
                <label key={code} className="flex items-center gap-2 rounded px-1 py-0.5 hover:bg-wash">
                  <input
                    type="checkbox"
                    className="size-4 accent-kelp"
                    checked={isShown(code)}
                    onChange={() => toggle(code)}
                  />
                  <span className={code === '' ? 'text-soft' : ''}>{title}</span>
                </label>
              ))}
            </div>
            <div className="mt-2 flex gap-2 border-t border-line pt-2">
              <button type="button" className="quiet py-0.5" onClick={() => show(values.map(([c]) => c))}>
                Show all
              </button>
              <button type="button" className="quiet py-0.5" onClick={() => show([])}>
                Show none
              </button>
              {filters.length > 0 && (
                <button type="button" className="quiet py-0.5" onClick={() => onChange([])}>
                  Exclude nothing
                </button>
              )}
            </div>
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}
