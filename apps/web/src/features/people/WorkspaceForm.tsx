'use client';
import { LOCALES } from '@clembo/formats/amounts';
import { type House, PAGES, pageWords, type PageName } from '@clembo/scene/brief';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { pictureOf } from '@/ui/pictureOf';
import { ask } from '@/ui/ask';
import { Pick } from '@/ui/Pick';
import { Tick } from '@/ui/Tick';
import { wrong } from '@/ui/Toasts';
import { HouseColours } from './HouseColours';

export interface Settings {
  name: string;
  locale: string;
  commentsForAll: boolean;
  house: House;
}

const LANGUAGES: [string, string][] = [
  ['en', 'English'],
  ['de', 'German'],
  ['fr', 'French'],
  ['es', 'Spanish'],
  ['it', 'Italian'],
  ['nl', 'Dutch'],
];
const MONTHS = Array.from({ length: 12 }, (_, k) =>
  new Date(Date.UTC(2026, k, 1)).toLocaleString('en-GB', { month: 'long', timeZone: 'UTC' }),
);

const currencies = new Intl.DisplayNames('en-GB', { type: 'currency' });
const CURRENCIES = Intl.supportedValuesOf('currency').map((c): [string, string] => [c, `${c} · ${currencies.of(c)}`]);

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
  const keepHouse = (part: Partial<House>) => keep({ house: { ...own.house, ...part } });
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
        <Pick
          label="money in"
          value={own.house.currency ?? ''}
          options={[['', 'no currency'], ...CURRENCIES]}
          shown={(title) => title.split(' · ')[0]!}
          onChange={(c) => keepHouse({ currency: c === '' ? null : c })}
        />
        <Tick checked={own.commentsForAll} onFlip={() => keep({ commentsForAll: !own.commentsForAll })}>
          who only looks sees comments
        </Tick>
      </div>
      <h3 className="mt-5 font-semibold">New pages begin</h3>
      <div className="mt-2 flex flex-wrap items-center gap-x-8 gap-y-3">
        <Pick
          label="on"
          value={own.house.page ?? ''}
          options={[
            ['', 'the usual page'],
            ...Object.keys(PAGES).map((p): [string, string] => [p, pageWords(p as PageName)]),
          ]}
          onChange={(page) => keepHouse({ page: page === '' ? null : (page as PageName) })}
        />
        <Pick
          label="in"
          value={own.house.language ?? ''}
          options={[['', 'English, as usual'], ...LANGUAGES]}
          onChange={(l) => keepHouse({ language: l === '' ? null : (l as House['language']) })}
        />
        <Pick
          label="fiscal years from"
          value={String(own.house.fiscal ?? 1)}
          options={MONTHS.map((m, k): [string, string] => [String(k + 1), m])}
          onChange={(m) => keepHouse({ fiscal: m === '1' ? null : Number(m) })}
        />
        <span className="flex items-center gap-3">
          {own.house.logo ? (
            <>
              {/* biome-ignore lint: a picture of a few kilobytes that is here already */}
              <img
                src={own.house.logo.data}
                alt="The logo"
                className="h-9 max-w-40 rounded border border-line bg-paper object-contain p-1"
              />
              <button type="button" className="quiet py-1" onClick={() => keepHouse({ logo: null })}>
                Without a logo
              </button>
            </>
          ) : (
            <label className="quiet cursor-pointer py-1">
              Choose a logo
              <input
                type="file"
                accept="image/*"
                className="sr-only"
                onChange={(e) => {
                  const [file] = e.target.files ?? [];
                  if (file) pictureOf(file).then((logo) => keepHouse({ logo }), wrong);
                }}
              />
            </label>
          )}
        </span>
      </div>
      <HouseColours colours={own.house.colours} onChange={(colours) => keepHouse({ colours })} />
    </section>
  );
}
