'use client';
import {
  type ColumnMap,
  type ColumnStyle,
  type DerivedColumn,
  fieldById,
  isMoneyField,
  RATE_TIMES,
  type RateTime,
} from '@clembo/formats/columns';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { columnTitle } from './columnTitle';
import type { Intake } from './useIntake';

/** What became of a column's values, in a few words; opened, with examples, ways to read it otherwise, and what to make of it. */
export function ColumnDetails({ intake, column }: { intake: Intake; column: number }) {
  const { view, map } = intake;
  const tally = view.tallies[column];
  const meaning = map.columns[column]!;
  const counts =
    meaning.as === 'skip' || !tally
      ? []
      : ([
          [tally.read + tally.changed, 'read', 'text-soft'],
          [tally.changed, 'changed', 'text-soft'],
          [tally.unread, 'not read', 'font-semibold text-madder'],
        ] as const);
  const words = counts.filter(([n], k) => n > 0 || k === 0);
  return (
    <Popover className="mt-1.5">
      <PopoverButton
        aria-label={`More about ${columnTitle(intake, column)}`}
        className="flex items-center gap-0.5 rounded text-[13px] text-soft hover:text-ink"
      >
        {words.length === 0 ? (
          <span>more</span>
        ) : (
          words.map(([n, what, tone], k) => (
            <span key={what} className={tone}>
              {k > 0 ? ' · ' : ''}
              {n} {what}
            </span>
          ))
        )}
        <ChevronRight size={12} aria-hidden />
      </PopoverButton>
      <PopoverPanel anchor="bottom start" className="panel w-80 max-h-[60vh]! overflow-auto p-3! text-[14px]">
        <Examples intake={intake} column={column} />
        <Styles intake={intake} column={column} />
        <OnlyRows intake={intake} column={column} />
        <MakeColumn intake={intake} column={column} />
      </PopoverPanel>
    </Popover>
  );
}

interface Of {
  intake: Intake;
  column: number;
}

const OUTCOMES = [
  ['unread', 'Not read'],
  ['changed', 'Changed in reading'],
  ['read', 'Read'],
] as const;

function Examples({ intake, column }: Of) {
  const examples = intake.view.tallies[column]?.examples ?? [];
  if (examples.length === 0) return <p className="text-soft">Nothing of this column is read.</p>;
  return (
    <dl className="space-y-1.5">
      {OUTCOMES.map(([outcome, title]) => {
        const some = examples.filter((e) => e.outcome === outcome);
        return some.length === 0 ? null : (
          <div key={outcome}>
            <dt className={outcome === 'unread' ? 'text-madder' : 'text-soft'}>{title}</dt>
            {some.map((e) => (
              <dd key={e.text} className="flex justify-between gap-3">
                <span className="truncate" title={e.text}>
                  {e.text}
                </span>
                {e.as !== null && e.as !== e.text && (
                  <span className="shrink-0 font-narrow text-soft">{e.as === '' ? 'empty' : e.as}</span>
                )}
              </dd>
            ))}
          </div>
        );
      })}
    </dl>
  );
}

const Section = 'mt-3 border-t border-line pt-2.5';

type Choice = [title: string, options: [words: string, is: boolean, change: ColumnStyle][]];

const RATE_TIME_WORDS: Record<RateTime, string> = {
  hour: 'a working hour',
  shift: 'a shift',
  day: 'a working day',
  week: 'a week',
  month: 'a month of four weeks',
};

/** How the values of a field may be written, beside what holds now. */
function choicesFor(field: string, style: ColumnStyle, order: ColumnMap['dateOrder']): Choice[] {
  switch (fieldById(field)?.type) {
    case 'percent':
      return [
        [
          'A number up to 1 is',
          [
            ['a share: 0.45 is 45 %', style.scale === 'fraction', { scale: 'fraction' }],
            ['a percentage: 0.45 is 0.45 %', style.scale === 'percent', { scale: 'percent' }],
          ],
        ],
      ];
    case 'number':
      return [
        ...(field === 'rate'
          ? [
              [
                'A rate is for',
                RATE_TIMES.map((per): [string, boolean, ColumnStyle] => [
                  RATE_TIME_WORDS[per],
                  style.per === per,
                  { per },
                ]),
              ] satisfies Choice,
            ]
          : []),
        [
          'Decimals stand behind',
          [
            ['a point: 1,234.5', style.decimal === '.', { decimal: '.' }],
            ['a comma: 1.234,5', style.decimal === ',', { decimal: ',' }],
          ],
        ],
        ...(isMoneyField(field)
          ? [
              [
                'A number without a scale is in',
                [
                  ['units', (style.factor ?? 1) === 1, { factor: 1 }],
                  ['thousands: 12 is 12,000', style.factor === 1e3, { factor: 1e3 }],
                  ['millions: 12 is 12,000,000', style.factor === 1e6, { factor: 1e6 }],
                ],
              ] satisfies Choice,
            ]
          : []),
      ];
    case 'date': {
      const own = style.order ?? order;
      return [
        [
          'Dates of this column',
          [
            ['day before month', own === 'dmy', { order: 'dmy' }],
            ['month before day', own === 'mdy', { order: 'mdy' }],
            ['year, month, day', own === 'ymd', { order: 'ymd' }],
          ],
        ],
        // Where a month has a number behind it.
        ...(style.behindMonth === undefined
          ? []
          : [
              [
                'The number in “Apr-26” is',
                [
                  ['the year: April 2026', style.behindMonth === 'year', { behindMonth: 'year' }],
                  ['the day: 26 April', style.behindMonth === 'day', { behindMonth: 'day' }],
                ],
              ] satisfies Choice,
            ]),
      ];
    }
    default:
      return [];
  }
}

/** Choices of how the values are written, where the field has some. */
function Styles({ intake, column }: Of) {
  const { map, changeMap } = intake;
  const meaning = map.columns[column]!;
  if (meaning.as !== 'field') return null;
  const style = map.styles[column] ?? {};
  const set = (change: ColumnStyle) => {
    const styles = map.columns.map((_, c) => (c === column ? { ...style, ...change } : (map.styles[c] ?? {})));
    changeMap({ styles });
  };
  return choicesFor(meaning.field, style, map.dateOrder).map(([title, options]) => (
    <fieldset key={title} className={Section}>
      <legend className="sr-only">{title}</legend>
      <p className="text-soft">{title}</p>
      {options.map(([words, is, change]) => (
        <label key={words} className="flex items-center gap-2 py-0.5">
          <input type="radio" checked={is} onChange={() => set(change)} className="accent-kelp" /> {words}
        </label>
      ))}
    </fieldset>
  ));
}

/** Rows with some of the values only. */
function OnlyRows({ intake, column }: Of) {
  const { view, map, changeMap } = intake;
  const values = view.values[column];
  if (!values) return null;
  const chosen = map.pick.only.find((o) => o.column === column)?.values ?? values;
  const set = (value: string, on: boolean) => {
    const next = values.filter((v) => (v === value ? on : chosen.includes(v)));
    const others = map.pick.only.filter((o) => o.column !== column);
    const only = next.length === values.length ? others : [...others, { column, values: next }];
    changeMap({ pick: { ...map.pick, only } });
  };
  return (
    <fieldset className={Section}>
      <legend className="sr-only">Only rows with</legend>
      <p className="text-soft">Only rows with</p>
      <div className="max-h-40 overflow-auto">
        {values.map((v) => (
          <label key={v} className="flex items-center gap-2 py-0.5">
            <input
              type="checkbox"
              checked={chosen.includes(v)}
              onChange={(e) => set(v, e.target.checked)}
              className="accent-kelp"
            />
            <span className="truncate">{v === '' ? 'nothing' : v}</span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** Makes a column of this one: its beginning, a part, what stands between two marks, or two joined; or takes a made one away. */
function MakeColumn({ intake, column }: Of) {
  const { map, changeMap } = intake;
  const own = map.columns.length - map.derived.length;
  const [kind, setKind] = useState<DerivedColumn['take']['kind']>('first');
  const [count, setCount] = useState('2');
  const [a, setA] = useState('.');
  const [b, setB] = useState('');
  const [other, setOther] = useState(column === 0 ? 1 : 0);
  if (column >= own) {
    const remove = () =>
      changeMap({
        derived: map.derived.filter((_, k) => k !== column - own),
        columns: map.columns.filter((_, c) => c !== column),
        styles: map.styles.filter((_, c) => c !== column),
        mends: map.mends.filter((m) => m.column !== column),
      });
    return (
      <button type="button" className="quiet mt-3" onClick={remove}>
        Take this column away
      </button>
    );
  }
  const number = Math.min(50, Math.max(1, Math.round(Number(count)) || 1));
  const take: DerivedColumn['take'] =
    kind === 'first'
      ? { kind, count: number }
      : kind === 'part'
        ? { kind, separator: a || '.', part: number }
        : kind === 'between'
          ? { kind, after: a, before: b }
          : { kind, other, mark: a };
  const make = () => {
    const derived: DerivedColumn = { from: column, take };
    const name = columnTitle(
      { map: { ...map, derived: [derived], columns: [...map.columns.slice(0, own), { as: 'skip' }] } } as Intake,
      own,
    );
    changeMap({
      derived: [...map.derived, derived],
      columns: [...map.columns, { as: 'code', name: name.slice(0, 200) }],
    });
  };
  const text = 'w-14 rounded border border-line bg-paper px-1.5 py-0.5';
  return (
    <details className={Section}>
      <summary className="cursor-pointer text-soft">Make a column of it</summary>
      <div className="mt-2 space-y-1.5">
        <label className="flex items-center gap-2">
          <input type="radio" checked={kind === 'first'} onChange={() => setKind('first')} className="accent-kelp" />
          the first
          <input
            aria-label="How many letters"
            className={text}
            value={count}
            onChange={(e) => setCount(e.target.value)}
          />
          letters
        </label>
        <label className="flex items-center gap-2">
          <input type="radio" checked={kind === 'part'} onChange={() => setKind('part')} className="accent-kelp" />
          part
          <input aria-label="Which part" className={text} value={count} onChange={(e) => setCount(e.target.value)} />
          between
          <input aria-label="Separator" className={text} value={a} onChange={(e) => setA(e.target.value)} />
        </label>
        <label className="flex items-center gap-2">
          <input
            type="radio"
            checked={kind === 'between'}
            onChange={() => setKind('between')}
            className="accent-kelp"
          />
          what stands between
          <input aria-label="Behind" className={text} value={a} onChange={(e) => setA(e.target.value)} />
          <input aria-label="Before" className={text} value={b} onChange={(e) => setB(e.target.value)} />
        </label>
        <label className="flex items-center gap-2">
          <input type="radio" checked={kind === 'join'} onChange={() => setKind('join')} className="accent-kelp" />
          it and
          <select
            aria-label="Other column"
            className="max-w-28 rounded border border-line bg-paper px-1 py-0.5"
            value={other}
            onChange={(e) => setOther(Number(e.target.value))}
          >
            {map.columns.slice(0, own).map((_, c) =>
              c === column ? null : (
                // biome-ignore lint: columns have no other name
                <option key={c} value={c}>
                  {columnTitle(intake, c)}
                </option>
              ),
            )}
          </select>
          joined
        </label>
        <button type="button" className="quiet" onClick={make}>
          Make it
        </button>
      </div>
    </details>
  );
}
