'use client';
import { formatDay } from '@clembo/scene/dates';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Frame, type FramePlan } from '@/ui/Frame';
import { wrong } from '@/ui/Toasts';
import { usePlanRoom } from '@/workers/planRoom';
import type { Checks, LedgerRow, PlanHead } from '@/workers/plan.worker';
import { usePlanSearch } from '../planSearch';
import { ChecksPanel } from './ChecksPanel';
import { TimeStrip } from './TimeStrip';

const ROW_HEIGHT = 30;

/** The list of activities with a small time strip in each row. */
export function Ledger({ plan, version }: { plan: FramePlan; version: number }) {
  const { open, error } = usePlanRoom(plan.id, version);
  const [rows, setRows] = useState<LedgerRow[] | null>(null);
  const [checks, setChecks] = useState<Checks | null>(null);
  const search = usePlanSearch(plan.id, open);
  useEffect(() => {
    let current = true;
    open?.room.ledger().then((list) => current && setRows(list), wrong);
    open?.room.checks().then((found) => current && setChecks(found), wrong);
    return () => {
      current = false;
    };
  }, [open]);
  return (
    <Frame stage="Structure" plan={plan} search={search}>
      {error ? (
        <p role="alert" className="p-10 text-madder">
          {error}
        </p>
      ) : open && rows ? (
        <LedgerList head={open.head} rows={rows} checks={checks} />
      ) : (
        <p className="p-10 text-soft" role="status">
          Opening the plan …
        </p>
      )}
    </Frame>
  );
}

function LedgerList({ head, rows, checks }: { head: PlanHead; rows: LedgerRow[]; checks: Checks | null }) {
  const [checking, setChecking] = useState(false);
  const wanted = useSearchParams().get('ref');
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [chosen, setChosen] = useState<string | null>(wanted);
  const [goal, setGoal] = useState<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const shown = useMemo(() => visibleRows(rows, closed), [rows, closed]);
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
                <div
                  key={row.ref}
                  role="row"
                  aria-rowindex={v.index + 2}
                  aria-selected={row.ref === chosen}
                  onClick={() => setChosen(row.ref)}
                  className={`absolute inset-x-0 grid items-center border-b border-line/50 px-5 text-[14.5px] ${row.ref === chosen ? 'bg-marigold/20' : 'hover:bg-wash'} ${row.summary ? 'font-semibold' : ''}`}
                  style={{ gridTemplateColumns: columns, height: ROW_HEIGHT, transform: `translateY(${v.start}px)` }}
                >
                  <span role="cell" className="truncate pr-3 font-narrow font-normal text-soft">
                    {row.ref}
                  </span>
                  <span
                    role="cell"
                    className="flex min-w-0 items-center pr-3"
                    style={{ paddingLeft: (row.level - 1) * 18 }}
                  >
                    {row.summary ? (
                      <button
                        type="button"
                        aria-label={`${closed.has(row.ref) ? 'Open' : 'Close'} ${row.name}`}
                        aria-expanded={!closed.has(row.ref)}
                        onClick={(e) => {
                          e.stopPropagation();
                          toggle(row.ref);
                        }}
                        className="mr-1 rounded hover:bg-line"
                      >
                        {closed.has(row.ref) ? <ChevronRight size={15} /> : <ChevronDown size={15} />}
                      </button>
                    ) : (
                      <span className="mr-1 w-[15px] shrink-0 text-center text-kelp">
                        {row.kind.endsWith('Milestone') ? '◆' : ''}
                      </span>
                    )}
                    <span className="truncate" title={row.name}>
                      {row.name}
                    </span>
                  </span>
                  <span role="cell" className="font-narrow">
                    {row.start === null ? '' : formatDay(row.start, 'medium')}
                  </span>
                  <span role="cell" className="font-narrow">
                    {row.finish === null ? '' : formatDay(row.finish, 'medium')}
                  </span>
                  <span role="cell" className="pr-4 text-right">
                    {row.days ?? ''}
                  </span>
                  <span
                    role="cell"
                    className={`pr-4 text-right ${row.float !== null && row.float < 0 ? 'text-madder' : row.critical ? 'font-semibold' : ''}`}
                    title={row.critical ? 'critical' : undefined}
                  >
                    {row.float ?? ''}
                  </span>
                  <span
                    role="cell"
                    className={`pr-4 text-right ${row.off !== null && row.off > 0 ? 'text-madder' : 'text-harebell'}`}
                    title={
                      row.off
                        ? `computed ${Math.abs(row.off)} working days ${row.off > 0 ? 'later' : 'earlier'} than given`
                        : undefined
                    }
                  >
                    {row.off ? (row.off > 0 ? `+${row.off}` : `−${-row.off}`) : ''}
                  </span>
                  <span role="cell" className="pr-4 text-right">
                    {row.percent === 0 ? '' : row.percent}
                  </span>
                  {fields.map((f) => (
                    <span key={f.id} role="cell" className="truncate pr-3 font-narrow font-normal">
                      {f.values.find((x) => x.code === row.codes[f.id])?.title ?? row.codes[f.id] ?? ''}
                    </span>
                  ))}
                  <TimeStrip
                    row={row}
                    range={range}
                    statusDay={head.statusDate === null ? null : head.statusDate / 1440}
                  />
                </div>
              );
            })}
          </div>
        </div>
        {checking && checks && <ChecksPanel checks={checks} onJump={jump} onClose={() => setChecking(false)} />}
      </div>
    </div>
  );
}

/** References of the groups that a row lies in. */
function groupsAround(rows: LedgerRow[], ref: string): string[] {
  const groups: string[] = [];
  for (let at = rows.find((r) => r.ref === ref)?.parent ?? -1; at !== -1; at = rows[at]!.parent)
    groups.push(rows[at]!.ref);
  return groups;
}

/** Rows that no closed summary hides. */
function visibleRows(rows: LedgerRow[], closed: ReadonlySet<string>): LedgerRow[] {
  if (closed.size === 0) return rows;
  const hidden = new Array<boolean>(rows.length).fill(false);
  return rows.filter((row, k) => {
    const parent = row.parent;
    hidden[k] = parent !== -1 && (hidden[parent]! || closed.has(rows[parent]!.ref));
    return !hidden[k];
  });
}

function dateRange(rows: LedgerRow[]): [number, number] | null {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const r of rows) {
    if (r.start !== null && r.start < first) first = r.start;
    if (r.finish !== null && r.finish > last) last = r.finish;
  }
  return first > last ? null : [first, last];
}
