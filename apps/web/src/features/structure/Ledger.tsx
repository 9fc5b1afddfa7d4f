'use client';
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { Fragment, useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { PlanFrame } from '@/ui/plan/PlanFrame';
import type { FramePlan } from '@/ui/Frame';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { toast, wrong } from '@/ui/Toasts';
import { SCREENS } from '@/ui/screens';
import { useMay } from '@/ui/useMay';
import type { Checks } from '@/workers/answers/checks';
import type { LedgerShape, Sight } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import { turnPlan } from '@/workers/planWrites';
import { useOthers, useTellWhere } from '@/workers/presence';
import { ArrangementLine } from './ArrangementLine';
import { ChecksPanel } from './ChecksPanel';
import { DatesOffer } from './DatesOffer';
import { type Chosen, NOTHING_CHOSEN } from './grid';
import { HistoryPanel } from './HistoryPanel';
import { LedgerGrid } from './LedgerGrid';
import { LedgerMargin } from './LedgerMargin';
import { useArrangement } from './useArrangement';
import { FIRST_SIGHT } from './useLines';

/** How long nothing has to change before the checks are made, in milliseconds. */
const CHECKS_WAIT = 400;

/** The list of activities with a small time strip in each row: where a plan is shaped. */
export function Ledger({ plan, version }: { plan: FramePlan; version: number }) {
  return (
    <PlanFrame stage="Structure" plan={plan} version={version}>
      {(open) => <LedgerDesk planId={plan.id} open={open} />}
    </PlanFrame>
  );
}

function LedgerDesk({ planId, open }: { planId: string; open: OpenRoom }) {
  const { arrangement, kept, change, keep, drop } = useArrangement(planId, open.head.codeFields);
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [shape, setShape] = useState<LedgerShape | null>(null);
  /** The lines that are in sight, which come with the shape. */
  const sight = useRef<Sight>(FIRST_SIGHT);
  const [checks, setChecks] = useState<Checks | null>(null);
  const address = useSearchParams();
  /** Whoever comes for what was said about an activity finds its margin open. */
  const [side, setSide] = useState<'checks' | 'margin' | 'history' | null>(address.has('margin') ? 'margin' : null);
  const [chosen, setChosen] = useState<Chosen>(NOTHING_CHOSEN);
  const [refs, setRefs] = useState<string[]>([]);
  const [goal, setGoal] = useState<{ place: number } | null>(null);
  const [undatedOnly, setUndatedOnly] = useState(false);
  const others = useOthers();
  useTellWhere(planId, chosen.ref);
  const wanted = address.get('ref');
  const may = useMay(planId);
  const { change: write } = usePlanChange(planId);
  const chooseDates = async (source: 'given' | 'computed') => {
    const words =
      source === 'computed' ? 'All dates are computed from lengths and links.' : 'The dates are those of the source.';
    if (!(await write({ do: 'setPlan', settings: { source } }, words))) return;
    toast(words, { seconds: 8, action: { label: 'Undo', run: () => void turnPlan(planId, true).catch(wrong) } });
  };

  // What is seen of a change is asked for before the browser paints: an edit waits for no frame that shows nothing new.
  useLayoutEffect(() => {
    if (!arrangement) return;
    let current = true;
    const asked = undatedOnly
      ? {
          ...arrangement,
          groups: [],
          where: {
            match: 'all' as const,
            tests: [
              { field: 'start', is: 'empty' as const, values: [] },
              { field: 'kind', is: 'isNot' as const, values: ['summary'] },
            ],
          },
        }
      : arrangement;
    open.room.arrange(asked, [...closed], sight.current).then((found) => {
      if (current) setShape(found);
    }, wrong);
    return () => {
      current = false;
    };
  }, [open, arrangement, closed, undatedOnly]);
  useEffect(() => {
    let current = true;
    // The rows come first: checks wait until nothing has been changed for a moment.
    const timer = setTimeout(() => {
      open.room.checks().then((found) => current && setChecks(found), wrong);
    }, CHECKS_WAIT);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [open]);
  useEffect(() => {
    let current = true;
    if (side !== 'margin') return;
    if (chosen.top === chosen.bottom) setRefs(chosen.ref === null ? [] : [chosen.ref]);
    else
      open.room
        .refsOn(chosen.top, chosen.bottom + 1)
        .then((found) => current && setRefs(found.filter((r) => r !== '')), wrong);
    return () => {
      current = false;
    };
  }, [open, side, chosen, shape]);

  /** Brings a row in sight; groups that hide it are opened first. */
  const jump = useCallback(
    async (ref: string) => {
      const { place, holders } = await open.room.lineOf(ref);
      if (place >= 0) return setGoal({ place });
      if (!arrangement) return;
      // In the outline the groups that hold it are opened; in groups by fields, all of them.
      const inOutline = arrangement.groups.length === 0;
      const next = new Set([...closed].filter((k) => inOutline && !holders.includes(k)));
      setClosed(next);
      await open.room.arrange(arrangement, [...next], sight.current);
      const after = await open.room.lineOf(ref);
      if (after.place >= 0) setGoal({ place: after.place });
      else wrong(new Error(`${ref} is not among the rows that are listed. List everything to see it.`));
    },
    [open, closed, arrangement],
  );
  const ready = shape !== null;
  useEffect(() => {
    if (wanted !== null && ready) void jump(wanted);
    // Only a new wish jumps; what changes later does not.
  }, [wanted, ready]);
  const toggle = (key: string) =>
    setClosed((set) => {
      const next = new Set(set);
      if (!next.delete(key)) next.add(key);
      return next;
    });

  if (!arrangement || !shape)
    return (
      <p className="p-10 text-soft" role="status">
        Arranging the rows …
      </p>
    );
  return (
    <div className="flex h-full flex-col">
      <div className="flex shrink-0 items-start gap-6 px-5 pt-3 pb-2">
        <div className="min-w-0 flex-1">
          <ArrangementLine
            open={open}
            arrangement={arrangement}
            kept={kept}
            onChange={change}
            onKeep={keep}
            onDrop={drop}
            onSource={(source) => void chooseDates(source)}
            may={may.edit}
          />
          <p className="text-[13.5px] text-soft" data-testid="listed">
            {shape.listed === shape.activities
              ? `${shape.activities} activities`
              : `${shape.listed} of ${shape.activities} activities`}{' '}
            · lengths and float in working days
            {others.length > 0 && (
              <span className="text-ink" data-testid="others">
                {' '}
                ·{' '}
                {others.length === 1
                  ? `${others[0]!.name ?? 'someone else'} is here`
                  : `${others.length} others are here`}
              </span>
            )}
            {shape.error && <span className="text-madder"> · {shape.error}</span>}
            {SCREENS.Structure.slice(1).map(([path, title]) => (
              <Fragment key={path}>
                <span aria-hidden> · </span>
                <Link href={`/plans/${planId}/${path}`} className="text-kelp underline underline-offset-2">
                  {title}
                </Link>
              </Fragment>
            ))}
          </p>
        </div>
        {arrangement.groups.length === 0 && open.head.levels > 1 && (
          <span className="flex shrink-0 items-center gap-1 text-[14px]" role="group" aria-label="Open down to level">
            <span className="text-soft">To level</span>
            {Array.from({ length: Math.min(6, open.head.levels) }, (_, k) => (
              <button
                key={k + 1}
                type="button"
                className="quiet px-2 py-0"
                onClick={() => void open.room.closable(k + 1).then((keys) => setClosed(new Set(keys)), wrong)}
              >
                {k + 1}
              </button>
            ))}
          </span>
        )}
        <button
          type="button"
          aria-pressed={side === 'margin'}
          className="quiet shrink-0 py-0.5"
          disabled={chosen.ref === null}
          onClick={() => setSide((s) => (s === 'margin' ? null : 'margin'))}
        >
          Facts
        </button>
        <button
          type="button"
          aria-pressed={side === 'history'}
          className="quiet shrink-0 py-0.5"
          onClick={() => setSide((s) => (s === 'history' ? null : 'history'))}
        >
          History
        </button>
        {checks && (
          <button
            type="button"
            aria-pressed={side === 'checks'}
            className="quiet shrink-0 py-0.5"
            onClick={() => setSide((s) => (s === 'checks' ? null : 'checks'))}
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
      <DatesOffer
        planId={planId}
        open={open}
        head={open.head}
        undated={shape.undated}
        only={undatedOnly}
        onOnly={setUndatedOnly}
      />
      <div className="flex min-h-0 flex-1">
        <LedgerGrid
          planId={planId}
          open={open}
          shape={shape}
          sight={sight}
          arrangement={arrangement}
          goal={goal}
          others={others}
          onJump={(ref) => void jump(ref)}
          onToggle={toggle}
          onArrange={change}
          onChosen={setChosen}
        />
        {side === 'checks' && checks && (
          <ChecksPanel checks={checks} planId={planId} onJump={(ref) => void jump(ref)} onClose={() => setSide(null)} />
        )}
        {side === 'margin' && refs.length > 0 && (
          <LedgerMargin
            planId={planId}
            open={open}
            refs={refs}
            onJump={(ref) => void jump(ref)}
            onClose={() => setSide(null)}
          />
        )}
        {side === 'history' && <HistoryPanel planId={planId} open={open} onClose={() => setSide(null)} />}
      </div>
    </div>
  );
}
