'use client';
import { isFloors } from '@clembo/core';
import type { LinearBrief } from '@clembo/scene/brief';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useEffect, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { PanelHead } from '@/ui/PanelHead';
import { wrong } from '@/ui/Toasts';
import type { Balancing, TradeShown } from '@/workers/answers/balance';
import type { ComposedPage } from '@/workers/composing';
import type { BalanceShown } from '@/workers/registry/lines';
import type { OpenRoom } from '@/workers/planRoom';
import { TakeOrLeave } from './TakeOrLeave';

/** Days that works along a line are to keep from each other: who would move, seen on the page before it is taken. */
export function BalancePanel({
  planId,
  brief,
  open,
  onPage,
  onKeep,
  onClose,
}: {
  planId: string;
  brief: LinearBrief;
  open: OpenRoom;
  /** The page as it would be; null where nothing would move. */
  onPage: (page: ComposedPage | null) => void;
  /** The buffer that the page asks for from now on. */
  onKeep: (days: number) => void;
  onClose: () => void;
}) {
  const { busy, change } = usePlanChange(planId);
  const line = open.head.lines.find((l) => l.id === brief.line) ?? open.head.lines[0];
  const inUnits = line !== undefined && isFloors(line.unit);
  const [asked, setAsked] = useState<Balancing>({
    days: inUnits ? brief.keep : Math.max(1, brief.keep),
    distance: 0,
    by: inUnits ? 'name' : 'each',
    order: [],
    own: {},
    waits: !inUnits,
    whole: inUnits,
  });
  const ask = (part: Partial<Balancing>) => setAsked((was) => ({ ...was, ...part }));
  const [shown, setShown] = useState<(BalanceShown & { asked: Balancing }) | null>(null);
  /** What is shown is the answer to what is asked now, not to what was asked before. */
  const fresh = shown !== null && shown.asked === asked;
  useEffect(() => {
    let current = true;
    open.room.balanced(brief, asked).then((found) => {
      if (!current) return;
      setShown({ ...found, asked });
      onPage(found.page);
    }, wrong);
    return () => {
      current = false;
    };
  }, [open, brief, asked, onPage]);
  const take = async () => {
    if (!shown || !fresh || shown.commands.length === 0) return;
    const words = asked.days === 0 ? 'Balance the line' : `Keep ${asked.days} days between works along the line`;
    if (!(await change({ do: 'all', commands: shown.commands }, words))) return;
    onKeep(asked.days);
    onClose();
  };
  return (
    <aside aria-label="Balance" className="w-[300px] shrink-0 overflow-auto pr-5 pb-4 text-[14.5px]">
      <PanelHead title="Balance" close="Leave it as it is" onClose={onClose} />
      <label className="mt-2 flex items-center gap-2">
        <span className="text-soft">At least</span>
        <Amount label="Days between works" value={asked.days} onChange={(days) => ask({ days })} />
        <span className="text-soft">days between works</span>
      </label>
      {!inUnits && (
        <label className="mt-2 flex items-center gap-2">
          <span className="text-soft">and</span>
          <Amount label="Distance between works" value={asked.distance} onChange={(distance) => ask({ distance })} />
          <span className="text-soft">{line?.unit === '' ? '' : (line?.unit ?? '')} apart</span>
        </label>
      )}
      <label className="mt-2 flex items-center gap-2">
        <span className="text-soft">What goes together</span>
        <select
          aria-label="What goes together"
          value={asked.by}
          onChange={(e) => ask({ by: e.target.value as Balancing['by'], order: [], own: {} })}
          className="min-w-0 flex-1 rounded-md border border-line bg-paper px-1 py-0.5"
        >
          <option value="each">each work by itself</option>
          <option value="name">works of one name</option>
          {open.head.codeFields.map((f) => (
            <option key={f.id} value={`code.${f.id}`}>
              works of one {f.name}
            </option>
          ))}
        </select>
      </label>
      {asked.by !== 'each' && (
        <label className="mt-2 flex items-center gap-2">
          <input type="checkbox" checked={!asked.waits} onChange={(e) => ask({ waits: !e.target.checked })} />
          without a rest from one place to the next
        </label>
      )}
      <label className="mt-1 flex items-center gap-2">
        <input type="checkbox" checked={asked.whole} onChange={(e) => ask({ whole: e.target.checked })} />a stretch is
        left before the next comes in
      </label>
      {shown && shown.trades.length > 1 && (
        <Trades trades={shown.trades} asked={asked} onOrder={(order) => ask({ order })} onOwn={(own) => ask({ own })} />
      )}
      {shown === null ? (
        <p role="status" className="mt-3 text-soft">
          Working it out …
        </p>
      ) : shown.changes.length === 0 ? (
        <p className="mt-3">All works keep that already, or have begun.</p>
      ) : (
        <>
          <p className="mt-3">
            {shown.changes.length} {shown.changes.length === 1 ? 'work moves' : 'works move'}.{' '}
            {shown.finish!.now === shown.finish!.then
              ? `The last still ends on ${shown.finish!.now}.`
              : `The last ends on ${shown.finish!.then}, not on ${shown.finish!.now}.`}{' '}
            From first to last {shown.length!.then} working days
            {shown.length!.now === shown.length!.then ? '.' : `, now ${shown.length!.now}.`}
          </p>
          <ul aria-label="What moves" className="mt-2 space-y-1">
            {shown.changes.map((c) => (
              <li key={c.ref}>
                {c.name}
                <span className="block text-[13.5px] text-soft">{c.words}</span>
              </li>
            ))}
          </ul>
          <TakeOrLeave can={!busy && fresh} onTake={() => void take()} onLeave={onClose} />
        </>
      )}
    </aside>
  );
}

function Amount({ label, value, onChange }: { label: string; value: number; onChange: (value: number) => void }) {
  return (
    <input
      type="number"
      aria-label={label}
      min={0}
      max={100_000}
      value={value}
      onChange={(e) => onChange(Math.min(100_000, Math.max(0, Math.round(Number(e.target.value) || 0))))}
      className="w-20 rounded-md border border-line bg-paper px-2 py-0.5 text-right"
    />
  );
}

/** Who follows whom, and how many days behind the one before. */
function Trades({
  trades,
  asked,
  onOrder,
  onOwn,
}: {
  trades: readonly TradeShown[];
  asked: Balancing;
  onOrder: (order: string[]) => void;
  onOwn: (own: Record<string, number>) => void;
}) {
  const keys = trades.map((t) => t.key);
  const moved = (k: number, by: number) => {
    const order = [...keys];
    const [key] = order.splice(k, 1);
    order.splice(k + by, 0, key!);
    onOrder(order);
  };
  const setOwn = (key: string, text: string) => {
    const { [key]: _, ...rest } = asked.own;
    const days = Math.min(1000, Math.max(0, Math.round(Number(text) || 0)));
    onOwn(text.trim() === '' ? rest : { ...rest, [key]: days });
  };
  return (
    <details className="mt-3" open={trades.length <= 8}>
      <summary className="cursor-pointer text-soft">Who follows whom</summary>
      <ol aria-label="Order of trades" className="mt-1">
        {trades.map((t, k) => (
          <li key={t.key} className="flex items-center gap-1 py-0.5">
            <span className="min-w-0 flex-1 truncate" title={t.name}>
              {t.name}
              {t.works > 1 && <span className="text-soft"> · {t.works}</span>}
            </span>
            {k > 0 && (
              <input
                type="number"
                min={0}
                aria-label={`Days behind ${trades[k - 1]!.name} for ${t.name}`}
                title={`Days behind ${trades[k - 1]!.name}`}
                placeholder={String(asked.days)}
                value={asked.own[t.key] ?? ''}
                onChange={(e) => setOwn(t.key, e.target.value)}
                className="w-12 rounded-md border border-line bg-paper px-1 text-right text-[13.5px]"
              />
            )}
            <button
              type="button"
              className="rounded p-1 text-soft hover:bg-line disabled:opacity-30"
              aria-label={`${t.name} earlier in the order`}
              disabled={k === 0}
              onClick={() => moved(k, -1)}
            >
              <ArrowUp size={14} aria-hidden />
            </button>
            <button
              type="button"
              className="rounded p-1 text-soft hover:bg-line disabled:opacity-30"
              aria-label={`${t.name} later in the order`}
              disabled={k === trades.length - 1}
              onClick={() => moved(k, 1)}
            >
              <ArrowDown size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ol>
    </details>
  );
}
