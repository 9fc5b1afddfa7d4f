'use client';
import { type DatePair, dayOf, finishDayOf, type SourceChange } from '@clembo/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import { KINDS } from '@/ui/changeKinds';
import { type ChangesPlan, changeWords, movedWords } from './changesList';

interface Props {
  changes: SourceChange[];
  plan: ChangesPlan;
  /** Ids of those that are refused; null where nothing is to be decided. */
  refused: ReadonlySet<string> | null;
  onDecide?: (ids: string[], accept: boolean) => void;
}

type Line = { heading: SourceChange['kind']; all: SourceChange[] } | { change: SourceChange };

/** The changes by kind, filterable; each, or all of a kind at once, to be accepted or refused. */
export function ChangesList({ changes, plan, refused, onDecide }: Props) {
  const [only, setOnly] = useState<SourceChange['kind'] | null>(null);
  const [text, setText] = useState('');
  const scroller = useRef<HTMLDivElement>(null);
  const kinds = useMemo(
    () =>
      KINDS.map(([kind, one, many]) => ({ kind, one, many, all: changes.filter((c) => c.kind === kind) })).filter(
        (k) => k.all.length > 0,
      ),
    [changes],
  );
  const range = useMemo(() => rangeOf(changes), [changes]);
  const lines = useMemo(() => {
    const wanted = text.trim().toLowerCase();
    return kinds
      .filter((k) => only === null || k.kind === only)
      .flatMap(({ kind, all }): Line[] => {
        const found = all.filter((c) => `${c.ref} ${c.name}`.toLowerCase().includes(wanted));
        return found.length === 0 ? [] : [{ heading: kind, all: found }, ...found.map((change) => ({ change }))];
      });
  }, [kinds, only, text]);
  const list = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => ('heading' in lines[i]! ? 46 : 40),
    overscan: 10,
  });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-2 pb-2">
        {kinds.map(({ kind, one, many, all }) => (
          <button
            key={kind}
            type="button"
            aria-pressed={only === kind}
            onClick={() => setOnly(only === kind ? null : kind)}
            className={`rounded-full border px-3 py-0.5 ${only === kind ? 'border-ink bg-ink text-paper' : 'border-line bg-paper hover:border-soft'}`}
          >
            {all.length} {all.length === 1 ? one : many}
          </button>
        ))}
        <input
          aria-label="Changes that hold"
          placeholder="that hold …"
          value={text}
          onChange={(e) => setText(e.target.value)}
          className="w-44 rounded-md border border-line bg-paper px-2.5 py-0.5"
        />
      </div>
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto rounded-xl border border-line bg-paper">
        <div style={{ height: list.getTotalSize() }} className="relative" role="list" aria-label="Changes">
          {list.getVirtualItems().map((item) => {
            const line = lines[item.index]!;
            return (
              <div
                key={item.key}
                role="listitem"
                style={{ transform: `translateY(${item.start}px)`, height: item.size }}
                className="absolute inset-x-0 px-4"
              >
                {'heading' in line ? (
                  <Heading kind={line.heading} all={line.all} refused={refused} onDecide={onDecide} />
                ) : (
                  <Row change={line.change} plan={plan} range={range} refused={refused} onDecide={onDecide} />
                )}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

function Heading({
  kind,
  all,
  refused,
  onDecide,
}: {
  kind: SourceChange['kind'];
  all: SourceChange[];
  refused: Props['refused'];
  onDecide: Props['onDecide'];
}) {
  const [, one, many] = KINDS.find(([k]) => k === kind)!;
  const accepted = refused ? all.filter((c) => !refused.has(c.id)).length : all.length;
  const title = `${all.length} ${all.length === 1 ? one : many}`;
  return (
    <div className="flex h-full items-end gap-3 border-b border-line pb-1">
      {refused && onDecide && (
        <input
          type="checkbox"
          aria-label={`Accept all that are ${many}`}
          checked={accepted === all.length}
          ref={(e) => {
            if (e) e.indeterminate = accepted > 0 && accepted < all.length;
          }}
          onChange={(e) =>
            onDecide(
              all.map((c) => c.id),
              e.target.checked,
            )
          }
          className="mb-1 size-4 accent-kelp"
        />
      )}
      <h2 className="font-serif text-[18px] font-semibold">{title}</h2>
      {refused && accepted < all.length && (
        <span className="pb-0.5 text-[14px] text-soft">{all.length - accepted} refused</span>
      )}
    </div>
  );
}

function Row({
  change,
  plan,
  range,
  refused,
  onDecide,
}: {
  change: SourceChange;
  plan: ChangesPlan;
  range: [number, number] | null;
  refused: Props['refused'];
  onDecide: Props['onDecide'];
}) {
  const accepted = !refused?.has(change.id);
  const words = changeWords(change, plan);
  const moved = movedWords(change);
  return (
    <label
      className={`grid h-full grid-cols-[auto_minmax(0,1fr)_minmax(0,1.5fr)_150px_170px] items-center gap-3 border-b border-line/60 text-[14.5px] ${accepted ? '' : 'text-soft line-through decoration-line'}`}
    >
      {refused && onDecide ? (
        <input
          type="checkbox"
          aria-label={`Accept: ${change.name || change.ref}, ${change.kind}`}
          checked={accepted}
          onChange={(e) => onDecide([change.id], e.target.checked)}
          className="size-4 accent-kelp"
        />
      ) : (
        <span />
      )}
      <span className="truncate" title={`${change.ref} ${change.name}`}>
        {change.name || change.ref} <span className="text-[13px] text-soft">{change.ref}</span>
      </span>
      <span className="truncate font-narrow" title={words}>
        {change.byHand.length > 0 && (
          <span
            className="mr-1.5 rounded bg-marigold/25 px-1.5 text-[13px] no-underline"
            title="You changed it here by hand meanwhile"
          >
            changed by hand
          </span>
        )}
        {words}
      </span>
      <span className={`truncate font-narrow ${moved.includes('later') ? 'text-madder' : 'text-harebell'}`}>
        {moved}
      </span>
      {range ? <Before change={change} range={range} /> : <span />}
    </label>
  );
}

/** Where an activity was, and where it comes to stand. */
function placesOf(c: SourceChange): { was: DatePair | null; is: DatePair | null } {
  if (c.kind === 'added') return { was: null, is: c.activity };
  if (c.kind === 'removed') return { was: c.activity, is: null };
  return { was: c.moved?.from ?? null, is: c.moved?.to ?? null };
}

const daysOf = ({ start, finish }: DatePair): [number, number] | null =>
  start === null && finish === null
    ? null
    : [dayOf(start ?? finish! - 1), finish === null ? dayOf(start!) : finishDayOf(finish)];

function rangeOf(changes: SourceChange[]): [number, number] | null {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const c of changes)
    for (const place of Object.values(placesOf(c))) {
      const days = place && daysOf(place);
      if (!days) continue;
      first = Math.min(first, days[0]);
      last = Math.max(last, days[1]);
    }
  return first <= last ? [first, last + 1] : null;
}

/** What was as an outline, what is as a bar, on one scale for the whole list. */
function Before({ change, range }: { change: SourceChange; range: [number, number] }) {
  const { was, is } = placesOf(change);
  const x = (day: number) => ((day - range[0]) / (range[1] - range[0])) * 160;
  const bar = (place: DatePair | null, y: number, old: boolean) => {
    const days = place && daysOf(place);
    if (!days) return null;
    return (
      <rect
        x={x(days[0]) + 0.5}
        y={y}
        width={Math.max(4, x(days[1] + 1) - x(days[0]) - 1)}
        height={7}
        rx={2}
        fill={old ? 'none' : 'var(--color-kelp)'}
        stroke={old ? 'var(--color-soft)' : 'var(--color-kelp)'}
        strokeDasharray={change.kind === 'removed' ? '2 2' : undefined}
      />
    );
  };
  return (
    <svg width={170} height={26} aria-hidden>
      {bar(was, is ? 15 : 9, true)}
      {bar(is, was ? 4 : 9, false)}
    </svg>
  );
}
