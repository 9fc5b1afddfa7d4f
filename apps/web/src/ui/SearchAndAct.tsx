'use client';
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from '@headlessui/react';
import { useEffect, useState } from 'react';

/** Something that can be found and done. */
export interface Found {
  id: string;
  group: string;
  label: string;
  hint?: string;
  /** Other words by which it is looked for. */
  also?: string;
  run: () => void;
}

/** One field for going anywhere and doing anything: activities, exhibits and actions by name. */
export function SearchAndAct({
  always,
  search,
  onClose,
}: {
  always: Found[];
  search: ((text: string) => Promise<Found[]>) | null;
  onClose: () => void;
}) {
  const [text, setText] = useState('');
  const [found, setFound] = useState<Found[]>([]);
  useEffect(() => {
    let current = true;
    search?.(text).then(
      (list) => current && setFound(list),
      () => {},
    );
    return () => {
      current = false;
    };
  }, [text, search]);
  const wanted = text.trim().toLowerCase();
  const names = (f: Found) => `${f.label} ${f.hint ?? ''} ${f.also ?? ''}`.toLowerCase().includes(wanted);
  // What was found for fewer letters stands until the rest is found; what does not hold them all is gone at once.
  const list = [...always.filter((f) => f.label.toLowerCase().includes(wanted)), ...found.filter(names)];
  return (
    <Dialog open onClose={onClose} className="relative z-50">
      <div className="fixed inset-0 bg-ink/20" aria-hidden />
      <DialogPanel className="fixed top-24 left-1/2 w-[560px] -translate-x-1/2 rounded-xl border border-line bg-paper p-2 shadow-xl">
        <Combobox<Found | null>
          value={null}
          onChange={(f) => {
            if (!f) return;
            onClose();
            f.run();
          }}
        >
          <ComboboxInput
            autoFocus
            aria-label="Search and act"
            placeholder="An activity, an exhibit, or what you want to do"
            className="w-full rounded-lg bg-wash px-3 py-2 text-[16px] outline-none"
            onChange={(e) => setText(e.target.value)}
          />
          <ComboboxOptions static className="mt-1 max-h-[46vh] overflow-auto outline-none">
            {list.length === 0 && <p className="px-3 py-2 text-soft">Nothing by that name.</p>}
            {list.map((f, k) => (
              <div key={f.id}>
                {(k === 0 || list[k - 1]!.group !== f.group) && (
                  <p className="px-3 pt-2 pb-0.5 text-[13px] text-soft">{f.group}</p>
                )}
                <ComboboxOption value={f} className="choice justify-between">
                  <span className="truncate">{f.label}</span>
                  {f.hint && <kbd className="font-sans text-soft">{f.hint}</kbd>}
                </ComboboxOption>
              </div>
            ))}
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </Dialog>
  );
}
