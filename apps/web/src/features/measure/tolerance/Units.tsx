'use client';
import { amountWords, LOCALES } from '@clembo/formats/amounts';
import { useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { ask } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';
import { type OpenRoom, reopen } from '@/workers/planRoom';

const CURRENCIES = Intl.supportedValuesOf('currency');
const languages = new Intl.DisplayNames('en-GB', { type: 'language' });
const currencies = new Intl.DisplayNames('en-GB', { type: 'currency' });

/** What cost and effort are told in, and whose notation numbers are written in. */
export function Units({ planId, open }: { planId: string; open: OpenRoom }) {
  const { change } = usePlanChange(planId);
  const { currency, effortDay, locale } = open.head;
  const [typed, setTyped] = useState<string | null>(null);
  const [hours, setHours] = useState<string | null>(null);
  const code = (typed ?? currency ?? '').trim().toUpperCase();
  const badCode = code !== '' && !CURRENCIES.includes(code);
  const sample = (l: string) => amountWords({ currency, effortDay }, l);
  const keepCurrency = () => {
    if (typed === null || badCode) return;
    setTyped(null);
    if ((code || null) !== currency) void change({ do: 'setPlan', settings: { currency: code || null } });
  };
  const hoursRead = Number((hours ?? '').replace(',', '.'));
  const badHours = hours !== null && !(hoursRead >= 1 && hoursRead <= 24);
  const keepHours = () => {
    if (hours === null || badHours) return;
    setHours(null);
    void change({ do: 'setPlan', settings: { effortDay: Math.round(hoursRead * 60) } });
  };
  return (
    <section aria-label="Units" className="mt-10">
      <h2 className="font-serif text-[19px] font-semibold">What amounts are told in</h2>
      <dl className="mt-3 grid max-w-[860px] grid-cols-[160px_minmax(0,1fr)] items-baseline gap-y-3">
        <dt>Currency</dt>
        <dd>
          <input
            aria-label="Currency"
            aria-invalid={badCode}
            list="currencies"
            placeholder="none"
            value={typed ?? currency ?? ''}
            onChange={(e) => setTyped(e.target.value)}
            onBlur={keepCurrency}
            onKeyDown={(e) => {
              if (e.key === 'Enter') keepCurrency();
              if (e.key === 'Escape') setTyped(null);
            }}
            className={`w-24 rounded border bg-paper px-2 py-1 uppercase placeholder:normal-case ${badCode ? 'border-madder' : 'border-line'}`}
          />
          <datalist id="currencies">
            {CURRENCIES.map((c) => (
              <option key={c} value={c}>
                {currencies.of(c)}
              </option>
            ))}
          </datalist>
          <span className={`ml-3 ${badCode ? 'text-madder' : 'text-soft'}`} role={badCode ? 'alert' : undefined}>
            {badCode
              ? `“${code}” is no currency. Type its three letters, as in EUR.`
              : code === ''
                ? 'Costs are plain numbers.'
                : currencies.of(code)}
          </span>
        </dd>
        <dt>Effort</dt>
        <dd className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
          <label className="flex items-baseline gap-1.5">
            <input
              type="radio"
              name="effort"
              checked={effortDay === null}
              onChange={() => void change({ do: 'setPlan', settings: { effortDay: null } })}
            />
            in hours
          </label>
          <label className="flex items-baseline gap-1.5">
            <input
              type="radio"
              name="effort"
              checked={effortDay !== null}
              onChange={() => void change({ do: 'setPlan', settings: { effortDay: 480 } })}
            />
            in person-days
          </label>
          {effortDay !== null && (
            <label className="flex items-baseline gap-1.5">
              of
              <input
                aria-label="Hours of a person-day"
                aria-invalid={badHours}
                inputMode="decimal"
                value={hours ?? String(effortDay / 60)}
                onChange={(e) => setHours(e.target.value)}
                onBlur={keepHours}
                onKeyDown={(e) => e.key === 'Enter' && keepHours()}
                className={`w-14 rounded border bg-paper px-1.5 py-0.5 text-right ${badHours ? 'border-madder' : 'border-line'}`}
              />
              hours
            </label>
          )}
          <span className="text-soft">Lengths stay in working days: effort is not duration.</span>
        </dd>
        <dt>Numbers as in</dt>
        <dd>
          <select
            aria-label="Numbers as in"
            value={locale}
            onChange={(e) =>
              void ask('/api/workspace', { method: 'PATCH', json: { locale: e.target.value } }).then(
                () => reopen(planId),
                wrong,
              )
            }
            className="rounded border border-line bg-paper px-2 py-1"
          >
            {LOCALES.map((l) => (
              <option key={l} value={l}>
                {languages.of(l)}
              </option>
            ))}
          </select>
          <span className="ml-3 text-soft">
            {sample(locale).money(123_456_700)} · {sample(locale).effort(61_400 * 60)} · for all plans here
          </span>
        </dd>
      </dl>
    </section>
  );
}
