'use client';
import type { Mend, ProblemGroup } from '@clembo/formats/columns';
import { useState } from 'react';
import { many } from './Outcome';
import type { Intake } from './useIntake';

/** Cells that could not be read, those alike together, each group with what mends it. */
export function Problems({
  intake,
  strict,
  onStrict,
}: {
  intake: Intake;
  strict: boolean;
  onStrict: (strict: boolean) => void;
}) {
  const { view } = intake;
  if (view.problemCount === 0) return null;
  const elsewhere = view.problemCount - view.groups.reduce((sum, g) => sum + g.count, 0);
  return (
    <section className="mt-5" aria-labelledby="problems">
      <div className="flex items-baseline justify-between gap-4">
        <h2 id="problems" className="text-[17px] font-semibold">
          {view.problemCount} {view.problemCount === 1 ? 'cell' : 'cells'} cannot be read as{' '}
          {view.problemCount === 1 ? 'it stands' : 'they stand'}
        </h2>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={strict}
            onChange={(e) => onStrict(e.target.checked)}
            className="size-4 accent-kelp"
          />
          Take nothing in until every cell can be read
        </label>
      </div>
      <ul className="mt-2 divide-y divide-line rounded-xl border border-line bg-paper">
        {view.groups.map((g) => (
          <Group key={`${g.code} ${g.column} ${g.texts[0]?.text}`} group={g} intake={intake} />
        ))}
      </ul>
      {elsewhere > 0 && (
        <p className="mt-1 text-[14px] text-soft">
          … and {many(elsewhere, 'more', 'more')} of this kind or in other tables.
        </p>
      )}
    </section>
  );
}

const rowsOf = (rows: number[], count: number): string =>
  `${rows.length === 1 ? 'row' : 'rows'} ${rows.slice(0, 6).join(', ')}${count > Math.min(rows.length, 6) ? ' …' : ''}`;

function Group({ group, intake }: { group: ProblemGroup; intake: Intake }) {
  const first = group.texts[0];
  const where = group.heading ? `in ${group.heading}` : '';
  return (
    <li className="px-4 py-2.5 text-[14.5px]">
      <p>
        <span className="font-semibold">
          {many(group.count, 'cell', 'cells')} {where}
        </span>{' '}
        <span className="text-soft">
          {first &&
            `(${rowsOf(
              group.texts.flatMap((t) => t.rows),
              group.count,
            )})`}{' '}
          · {group.words}
        </span>
      </p>
      <Mending group={group} intake={intake} />
    </li>
  );
}

function Mending({ group, intake }: { group: ProblemGroup; intake: Intake }) {
  const { map, changeMap } = intake;
  const style = (change: object) =>
    changeMap({ styles: map.columns.map((_, c) => ({ ...map.styles[c], ...(c === group.column ? change : {}) })) });
  const sample = group.texts[0]?.text ?? '';
  switch (group.mend) {
    case 'year':
      return <Year onSay={(year) => changeMap({ year })} />;
    case 'month':
      return (
        <Choices
          options={[
            ['The number is the year: Apr-26 is April 2026', () => style({ behindMonth: 'year' })],
            ['The number is the day: Apr-26 is 26 April', () => style({ behindMonth: 'day' })],
          ]}
        />
      );
    case 'scale':
      return (
        <Choices
          options={[
            ['They are shares of one: 0.45 is 45 %', () => style({ scale: 'fraction' })],
            ['They are percentages: 0.45 is 0.45 %', () => style({ scale: 'percent' })],
          ]}
        />
      );
    case 'unit':
      return (
        <Choices
          options={[
            ['m is months', () => changeMap({ shortM: 'month' })],
            ['m is minutes', () => changeMap({ shortM: 'minute' })],
          ]}
        />
      );
    case 'decimal': {
      const digits = sample.replace(/[^\d.,]/g, '');
      const mark = digits.includes(',') ? ',' : '.';
      return (
        <Choices
          options={[
            [`${digits} is ${digits.replace(/[.,]/, '')}`, () => style({ decimal: mark === '.' ? ',' : '.' })],
            [`${digits} is ${digits.replace(',', '.').replace(/0+$/, '')}`, () => style({ decimal: mark })],
          ]}
        />
      );
    }
    case 'texts':
      return <Texts group={group} intake={intake} />;
    default:
      return null;
  }
}

const Choices = ({ options }: { options: [words: string, choose: () => void][] }) => (
  <div className="mt-1.5 flex flex-wrap gap-2">
    {options.map(([words, choose]) => (
      <button key={words} type="button" className="quiet py-0.5" onClick={choose}>
        {words}
      </button>
    ))}
  </div>
);

function Year({ onSay }: { onSay: (year: number) => void }) {
  const [text, setText] = useState('');
  const year = /^\d{4}$/.test(text) && Number(text) >= 1900 && Number(text) <= 2299 ? Number(text) : null;
  return (
    <form
      className="mt-1.5 flex items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (year !== null) onSay(year);
      }}
    >
      <label className="flex items-center gap-2">
        The dates without a year are in
        <input
          aria-label="Year of the dates"
          inputMode="numeric"
          value={text}
          onChange={(e) => setText(e.target.value)}
          className="w-20 rounded-md border border-line bg-paper px-2 py-0.5"
        />
      </label>
      <button type="submit" className="quiet py-0.5" disabled={year === null}>
        All of them
      </button>
    </form>
  );
}

/** What each text stands for; all cells with it are mended at once. */
function Texts({ group, intake }: { group: ProblemGroup; intake: Intake }) {
  const { map, changeMap } = intake;
  const [said, setSaid] = useState<Record<string, string>>(
    group.suggestion !== null && group.texts[0] ? { [group.texts[0].text]: group.suggestion } : {},
  );
  const apply = (entries: [text: string, to: string][]) => {
    const mends = entries.map(([text, to]): Mend => ({ column: group.column, text, to }));
    const others = map.mends.filter((m) => !(m.column === group.column && entries.some(([text]) => text === m.text)));
    changeMap({ mends: [...others, ...mends] });
  };
  const filled = Object.entries(said).filter(([, to]) => to.trim() !== '');
  return (
    <form
      className="mt-1.5"
      onSubmit={(e) => {
        e.preventDefault();
        if (filled.length > 0) apply(filled.map(([text, to]) => [text, to.trim()]));
      }}
    >
      <div className="grid max-h-52 grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1 overflow-auto">
        {group.texts.map((t) => (
          <label key={t.text} className="contents">
            <span className="max-w-72 truncate" title={t.text}>
              “{t.text}” {t.count > 1 && <span className="text-soft">× {t.count}</span>}
            </span>
            <span className="flex items-center gap-2">
              means
              <input
                aria-label={`What ${t.text} means`}
                value={said[t.text] ?? ''}
                onChange={(e) => setSaid((s) => ({ ...s, [t.text]: e.target.value }))}
                className="w-52 rounded-md border border-line bg-paper px-2 py-0.5"
              />
            </span>
          </label>
        ))}
      </div>
      <div className="mt-2 flex gap-2">
        <button type="submit" className="quiet py-0.5" disabled={filled.length === 0}>
          Read {group.count > 1 ? 'them' : 'it'} so
        </button>
        <button type="button" className="quiet py-0.5" onClick={() => apply(group.texts.map((t) => [t.text, '']))}>
          Leave {group.texts.length > 1 ? 'them' : 'it'} empty
        </button>
      </div>
    </form>
  );
}
