'use client';
import { isoDate, dayOf } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import { type KeyboardEvent, useEffect, useRef } from 'react';
import type { OpenRoom } from '@/workers/planRoom';
import { changePlan } from '@/workers/planWrites';
import type { RoundField, RoundRow, RoundWould } from '@/workers/answers/round';
import { wrong } from '@/ui/Toasts';
import { AskedInput } from './AskedInput';
import { StatusChoice } from './StatusChoice';

interface Props {
  planId: string;
  open: OpenRoom;
  row: RoundRow;
  place: string;
  onStep: (by: number) => void;
  onNothingNew: () => void;
  onHold: (onHold: boolean) => Promise<unknown>;
  onWould: (would: RoundWould | null) => void;
}

export const FIELD_LABELS: Record<RoundField, string> = {
  actualStart: 'Started',
  actualFinish: 'Finished',
  percent: 'Percent done',
  remaining: 'Days remaining',
  actualEffort: 'Effort so far',
  actualCost: 'Cost so far',
  notes: 'Comment',
};

/** What a field is called where it is asked. */
export const labelOf = (row: RoundRow, field: RoundField): string =>
  row.milestone && (field === 'actualStart' || field === 'actualFinish') ? 'Reached' : FIELD_LABELS[field];

/** One activity of the round: what is asked, beside what was promised and what was said last. */
export function Asked({ planId, open, row, place, onStep, onNothingNew, onHold, onWould }: Props) {
  const form = useRef<HTMLDivElement>(null);
  const first = (row.complete ? undefined : row.asksFor.find((f) => row.now[f] === '')) ?? row.asksFor[0]!;
  useEffect(() => {
    form.current?.querySelector<HTMLElement>(`[data-field="${first === 'notes' ? row.asksFor[0]! : first}"]`)?.focus();
    // Only when it is opened: what is typed later moves on by itself.
    // biome-ignore lint: see above
  }, []);
  const onKey = (e: KeyboardEvent) => {
    if (!e.altKey) return;
    if (e.key === 'ArrowDown') onStep(1);
    else if (e.key === 'ArrowUp') onStep(-1);
    else if (e.key.toLowerCase() === 'n') onNothingNew();
    else if (e.key.toLowerCase() === 'h') void onHold(!row.onHold);
    else return;
    e.preventDefault();
  };
  const next = (input: HTMLElement, back: boolean) => {
    const all = [...form.current!.querySelectorAll<HTMLElement>('[data-field]')];
    const to = all[all.indexOf(input) + (back ? -1 : 1)];
    if (to) to.focus();
    else if (!back) onStep(1);
  };
  const say = (field: string, text: string) =>
    changePlan(planId, async (room) => (await room.typed([{ ref: row.ref, field, text }])).command).catch(wrong);
  const { planned } = row;
  // What is planned for later has not happened.
  const over = (day: number): boolean => open.head.statusDate !== null && day <= dayOf(open.head.statusDate);
  return (
    <section ref={form} aria-label={row.name} className="min-w-0 flex-1 overflow-auto px-8 pt-4 pb-8" onKeyDown={onKey}>
      <div className="flex items-baseline gap-3">
        <h2 className="min-w-0 truncate font-serif text-[22px] font-semibold">{row.name}</h2>
        <span className="ml-auto shrink-0 text-[14px] text-soft">{place}</span>
      </div>
      <p className="text-[14.5px] text-soft">
        {[row.ref, row.group, row.responsible].filter(Boolean).join(' · ')} ·{' '}
        <span className={row.why === 'shouldHaveFinished' || row.why === 'shouldHaveStarted' ? 'text-madder' : ''}>
          {row.asks}
        </span>
        {row.onHold && <span className="font-semibold text-ink"> · on hold</span>}
      </p>
      <div className="mt-4 grid grid-cols-[minmax(0,7fr)_minmax(0,5fr)] gap-10">
        <div>
          <dl className="grid grid-cols-[120px_minmax(0,1fr)_minmax(90px,150px)] items-start gap-x-3 gap-y-2">
            <span />
            <span className="text-[13.5px] text-soft">now</span>
            <span className="text-[13.5px] text-soft">said last</span>
            <dt className="pt-1">Status</dt>
            <dd>
              <StatusChoice planId={planId} row={row} />
            </dd>
            <dd />
            {row.asksFor.map((field) => (
              <div key={field} className="contents">
                <dt className="pt-1">{labelOf(row, field)}</dt>
                <dd>
                  <AskedInput
                    planId={planId}
                    open={open}
                    reference={row.ref}
                    field={field}
                    label={labelOf(row, field)}
                    value={row.now[field]}
                    onWould={onWould}
                    onEnter={next}
                    wide={field === 'notes'}
                  />
                </dd>
                <dd className="truncate pt-1 font-narrow text-soft" title={row.last?.[field]}>
                  {row.last === null ? '' : row.last[field] || '–'}
                </dd>
              </div>
            ))}
          </dl>
        </div>
        <div>
          <dl className="grid grid-cols-[84px_minmax(0,1fr)] gap-y-1 border-l border-line pl-5">
            {row.facts.map(([label, value]) => (
              <div key={label} className="contents">
                <dt className="text-soft">{label}</dt>
                <dd>{value}</dd>
              </div>
            ))}
          </dl>
          <div className="mt-5 flex flex-wrap gap-2 border-l border-line pl-5">
            {planned && !row.complete && (
              <>
                {!row.milestone && row.now.actualStart === '' && over(planned.first) && (
                  <button
                    type="button"
                    className="quiet"
                    onClick={() => void say('actualStart', isoDate(planned.first))}
                  >
                    Started {formatDay(planned.first, 'short')}, as planned
                  </button>
                )}
                {over(planned.last) && (
                  <button
                    type="button"
                    className="quiet"
                    onClick={() =>
                      void say(
                        row.asksFor.includes('actualFinish') ? 'actualFinish' : 'actualStart',
                        isoDate(planned.last),
                      )
                    }
                  >
                    {row.milestone ? 'Reached' : 'Finished'} {formatDay(planned.last, 'short')}, as planned
                  </button>
                )}
              </>
            )}
            <button
              type="button"
              className="quiet"
              title="Alt H"
              aria-pressed={row.onHold}
              onClick={() => void onHold(!row.onHold)}
            >
              {row.onHold ? 'Take it up again' : 'Put on hold'}
            </button>
            <button type="button" className="quiet" title="Alt N" onClick={onNothingNew}>
              Nothing new
            </button>
          </div>
          <p className="mt-4 pl-5 text-[13.5px] text-soft">
            <kbd>Enter</kbd> keeps and goes on · <kbd>Alt ↓</kbd> <kbd>Alt ↑</kbd> next and previous activity ·{' '}
            <kbd>Alt N</kbd> nothing new · <kbd>Alt H</kbd> on hold · <kbd>Esc</kbd> leaves what was there
          </p>
        </div>
      </div>
    </section>
  );
}
