'use client';
import { LOCALES } from '@clembo/formats/amounts';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask } from '@/ui/ask';
import { Pick } from '@/ui/Pick';
import { Tick } from '@/ui/Tick';
import { wrong } from '@/ui/Toasts';

export interface Settings {
  name: string;
  locale: string;
  commentsForAll: boolean;
}

/** How numbers of a place are written, by an example. */
const example = (locale: string): string => `${(1234.5).toLocaleString(locale)} (${locale})`;

/** What concerns the whole workspace; kept as it is changed. */
export function WorkspaceForm({ settings }: { settings: Settings }) {
  const router = useRouter();
  const [own, setOwn] = useState(settings);
  const keep = (part: Partial<Settings>) => {
    setOwn({ ...own, ...part });
    ask('/api/workspace', { method: 'PATCH', json: part }).then(
      () => router.refresh(),
      (error) => {
        setOwn(own);
        wrong(error);
      },
    );
  };
  return (
    <section aria-label="The workspace" className="mt-10">
      <h2 className="font-serif text-[19px] font-semibold">The workspace</h2>
      <div className="mt-3 flex flex-wrap items-center gap-x-8 gap-y-3">
        <label className="flex items-center gap-2">
          <span className="text-soft">called</span>
          <input
            className="w-56 rounded-md border border-line bg-paper px-2.5 py-1"
            maxLength={200}
            defaultValue={own.name}
            onBlur={(e) => {
              const name = e.target.value.trim();
              if (name === '') e.target.value = own.name;
              else if (name !== own.name) keep({ name });
            }}
          />
        </label>
        <Pick
          label="numbers as"
          value={own.locale}
          options={LOCALES.map((l): [string, string] => [l, example(l)])}
          onChange={(locale) => keep({ locale })}
        />
        <Tick checked={own.commentsForAll} onFlip={() => keep({ commentsForAll: !own.commentsForAll })}>
          who only looks sees comments
        </Tick>
      </div>
    </section>
  );
}
