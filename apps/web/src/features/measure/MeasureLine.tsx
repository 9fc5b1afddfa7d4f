'use client';
import { formatDay } from '@clembo/scene/dates';
import { WherePart } from '@/ui/sentence/WherePart';
import { OnePart } from '@/ui/sentence/ListParts';
import type { Measuring, StandingShown } from '@/workers/answers/measure';
import type { OpenRoom } from '@/workers/planRoom';
import { STATUS_WORDS } from './StatusBar';
import { StatusPart } from './StatusPart';

const OFF: [string, string][] = [
  ['', 'whether late or not'],
  ['late', 'anything late'],
  ['ahead', 'anything ahead'],
  ['beyond', 'what is beyond tolerance'],
];

interface Props {
  planId: string;
  open: OpenRoom;
  measuring: Measuring;
  shown: StandingShown;
  onChange: (part: Partial<Measuring>) => void;
}

/** What is measured, as a sentence; what was clicked stands behind it and is taken away again here. */
export function MeasureLine({ planId, open, measuring: m, shown, onChange }: Props) {
  const clicked = [
    ...m.statuses.map((s) => ({
      key: s,
      words: STATUS_WORDS[s],
      drop: () => onChange({ statuses: m.statuses.filter((x) => x !== s) }),
    })),
    ...m.months.map((month) => ({
      key: String(month),
      words: `in ${formatDay(month, 'long').split(' ').slice(1).join(' ')}`,
      drop: () => onChange({ months: m.months.filter((x) => x !== month) }),
    })),
    ...(m.refs.length > 0
      ? [
          {
            key: 'refs',
            words: m.refs.length === 1 ? m.refs[0]! : `${m.refs.length} chosen activities`,
            drop: () => onChange({ refs: [] }),
          },
        ]
      : []),
  ];
  const narrowed = clicked.length > 0 || m.where.tests.length > 0 || m.off !== null;
  return (
    <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
      <p className="text-[16.5px] leading-relaxed" aria-label="Measuring">
        Measured against{' '}
        <OnePart
          part="against"
          label="Measured against"
          text={shown.edition}
          value={m.against}
          options={[
            ['promised', 'what was promised'],
            ...open.head.editions.map((e): [string, string] => [e.id, e.name]),
          ]}
          onChange={(against) => onChange({ against })}
        />{' '}
        at <StatusPart planId={planId} open={open} />, for{' '}
        <WherePart open={open} where={m.where} act="Measure" onChange={(where) => onChange({ where })} /> and{' '}
        <OnePart
          part="off"
          label="Off"
          text={OFF.find(([v]) => v === (m.off ?? ''))![1]}
          value={m.off ?? ''}
          options={OFF}
          onChange={(off) => onChange({ off: off === '' ? null : (off as Measuring['off']) })}
        />
        , by{' '}
        <OnePart
          part="amount"
          label="By"
          text={m.amount}
          value={m.amount}
          options={[
            ['effort', 'effort'],
            ['cost', 'cost'],
          ]}
          onChange={(amount) => onChange({ amount: amount as Measuring['amount'] })}
        />
        .
      </p>
      {clicked.map((c) => (
        <button
          key={c.key}
          type="button"
          className="rounded-full border border-marigold bg-marigold/15 px-2.5 py-0.5 text-[14px]"
          title="Take it away again"
          onClick={c.drop}
        >
          {c.words} ×
        </button>
      ))}
      {narrowed && (
        <button
          type="button"
          className="quiet py-0.5"
          onClick={() =>
            onChange({ where: { match: 'all', tests: [] }, off: null, statuses: [], refs: [], months: [] })
          }
        >
          Clear
        </button>
      )}
    </div>
  );
}
