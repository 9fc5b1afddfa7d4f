'use client';
import { formatDay } from '@clembo/scene/dates';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Checks, LedgerRow, PlanHead } from '@/workers/plan.worker';
import { ChecksPanel } from './ChecksPanel';
import { DatesOffer } from './DatesOffer';
import { LedgerLine, ROW_HEIGHT } from './LedgerLine';
import { dateRange, groupsAround, visibleRows } from './ledgerRows';

/** The rows of the ledger, virtualised: with the line above them, and the checks beside them. */
export function LedgerList({
  planId,
  head,
  rows,
  checks,
}: {
  planId: string;
  head: PlanHead;
  rows: LedgerRow[];
  checks: Checks | null;
}) {
  const [checking, setChecking] = useState(false);
  const wanted = useSearchParams().get('ref');
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [chosen, setChosen] = useState<string | null>(wanted);
  const [goal, setGoal] = useState<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const [undatedOnly, setUndatedOnly] = useState(false);
  const shown = useMemo(
    () => (undatedOnly ? rows.filter((r) => !r.summary && r.start === null) : visibleRows(rows, closed)),
    [rows, closed, undatedOnly],
  );
  const range = useMemo(() => dateRange(rows), [rows]);
  const fields = head.codeFields.slice(0, 3);
  const list = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
  });

  /** Chooses a row and brings it to the middle; groups that hide it are opened first. */
  const jump = useCallback(
    (ref: string) => {
      setChosen(ref);
      const hidden = groupsAround(rows, ref).filter((g) => closed.has(g));
      if (hidden.length > 0) setClosed((set) => new Set([...set].filter((g) => !hidden.includes(g))));
      setGoal(ref);
    },
    [rows, closed],
  );
  useEffect(() => {
    if (wanted !== null) jump(wanted);
    // Only a new wish jumps; opening and closing groups does not.
  }, [wanted]);
  useEffect(() => {
    if (goal === null) return;
    const at = shown.findIndex((r) => r.ref === goal);
    if (at < 0) return;
    list.scrollToIndex(at, { align: 'center' });
    setGoal(null);
  }, [goal, shown, list]);

  const toggle = (ref: string) =>
    setClosed((set) => {
      const next = new Set(set);
      if (!next.delete(ref)) next.add(ref);
      return next;
    });
  const toLevel = (level: number) =>
    setClosed(new Set(rows.filter((r) => r.summary && r.level >= level).map((r) => r.ref)));
  const columns = `84px minmax(290px,1.9fr) 92px 92px 54px 58px 50px 52px ${fields.map(() => 'minmax(86px,0.6fr)').join(' ')} minmax(220px,1.3fr)`;

  return (
    <div className="flex h-full flex-col">
      <div className="flex shrink-0 items-center gap-4 px-5 py-2.5 text-[14px]">
        <span className="text-soft">
          {rows.filter((r) => !r.summary).length} activities ·{' '}
          {head.source === 'given' ? 'dates as given' : 'computed dates'} · days and float in working days · off:
          computed finish against given
        </span>
        {head.levels > 1 && (
          <span className="flex items-center gap-1" role="group" aria-label="Open down to level">
            <span className="text-soft">Open to level</span>
            {Array.from({ length: head.levels }, (_, k) => (
              <button key={k + 1} type="button" className="quiet px-2 py-0" onClick={() => toLevel(k + 1)}>
                {k + 1}
              </button>
            ))}
          </span>
        )}
        {checks && (
          <button
            type="button"
            aria-pressed={checking}
            className="quiet ml-auto py-0.5"
            onClick={() => setChecking((v) => !v)}
          >
            Checks
            <span
              className={`rounded-full px-1.5 text-[13px] text-paper ${checks.findings.some((f) => f.severity === 'error') ? 'bg-madder' : 'bg-soft'}`}
            >
              {checks.findings.length}
            </span>
          </button>
        )}
      </div>
      <DatesOffer planId={planId} head={head} rows={rows} only={undatedOnly} onOnly={setUndatedOnly} />
      <div className="flex min-h-0 flex-1">
        <div
          ref={scroller}
          className="min-h-0 flex-1 overflow-auto border-t border-line bg-paper"
          role="table"
          aria-label="Ledger"
          aria-rowcount={shown.length + 1}
        >
          <div
            className="sticky top-0 z-10 grid min-w-[1080px] border-b border-line bg-paper px-5 py-1.5 text-[14px] text-soft"
            style={{ gridTemplateColumns: columns }}
            role="row"
          >
            {['Reference', 'Name', 'Start', 'Finish', 'Days', 'Float', 'Off', '%', ...fields.map((f) => f.name)].map(
              (h, k) => (
                <span key={h} role="columnheader" className={k >= 4 && k <= 7 ? 'pr-4 text-right' : 'truncate pr-3'}>
                  {h}
                </span>
              ),
            )}
            <span role="columnheader" className="flex justify-between font-narrow">
              <span>{range ? formatDay(range[0], 'medium') : ''}</span>
              <span>{range ? formatDay(range[1], 'medium') : ''}</span>
            </span>
          </div>
          <div style={{ height: list.getTotalSize() }} className="relative min-w-[1080px]">
            {list.getVirtualItems().map((v) => {
              const row = shown[v.index]!;
              return (
                <LedgerLine
                  key={row.ref}
                  row={row}
                  at={v}
                  fields={fields}
                  columns={columns}
                  range={range}
                  statusDay={head.statusDate === null ? null : head.statusDate / 1440}
                  chosen={row.ref === chosen}
                  closed={closed.has(row.ref)}
                  onChoose={() => setChosen(row.ref)}
                  onToggle={() => toggle(row.ref)}
                />
              );
            })}
          </div>
        </div>
        {checking && checks && <ChecksPanel checks={checks} onJump={jump} onClose={() => setChecking(false)} />}
      </div>
    </div>
  );
}
