'use client';
import { useEffect, useState } from 'react';
import { PlanFrame } from '@/ui/plan/PlanFrame';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import type { FramePlan } from '@/ui/Frame';
import { wrong } from '@/ui/Toasts';
import type { RoundShown, RoundWould } from '@/workers/answers/round';
import type { OpenRoom } from '@/workers/planRoom';
import { MeasureTabs } from '../MeasureTabs';
import { Asked } from './Asked';
import { AskedList } from './AskedList';
import { AskedTable } from './AskedTable';
import { KeepRound } from './KeepRound';
import { RoundLine } from './RoundLine';

/** The weekly round: what the status date asks, answered one after the other or in a list, kept as an edition. */
export function RoundDesk({ plan, version }: { plan: FramePlan; version: number }) {
  return (
    <PlanFrame stage="Measure" plan={plan} version={version}>
      {(open) => <Round planId={plan.id} open={open} />}
    </PlanFrame>
  );
}

function Round({ planId, open }: { planId: string; open: OpenRoom }) {
  const [weeks, setWeeks] = useState(2);
  const [asList, setAsList] = useState(false);
  const [shown, setShown] = useState<RoundShown | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set());
  const [would, setWould] = useState<RoundWould | null>(null);
  const { change } = usePlanChange(planId);
  useEffect(() => {
    let current = true;
    open.room.round(weeks).then((found) => current && setShown(found), wrong);
    return () => {
      current = false;
    };
  }, [open, weeks]);
  const rows = shown?.rows ?? [];
  const at = Math.max(
    0,
    rows.findIndex((r) => (chosen === null ? !r.changed : r.ref === chosen)),
  );
  const row = rows[at];
  const step = (by: number) => {
    const next = rows[at + by];
    setWould(null);
    if (next) setChosen(next.ref);
  };
  const done = rows.filter((r) => r.changed || seen.has(r.ref)).length;
  return (
    <div className="flex h-full flex-col">
      <div className="shrink-0 px-6 pt-4">
        <MeasureTabs planId={planId} current="Weekly round" />
        <RoundLine
          planId={planId}
          open={open}
          last={shown?.last ?? null}
          weeks={weeks}
          onWeeks={setWeeks}
          asList={asList}
          onAsList={setAsList}
        />
      </div>
      {open.head.statusDate === null ? (
        <p className="px-6 pt-6 text-soft">Say the status date above: the day up to which progress is reported.</p>
      ) : shown === null ? (
        <p className="px-6 pt-6 text-soft" role="status">
          Looking what is to be asked …
        </p>
      ) : rows.length === 0 || !row ? (
        <p className="px-6 pt-6 text-soft">
          Nothing is to be asked at this date: nothing should have started or finished, and nothing is due in the next{' '}
          {weeks} weeks.
        </p>
      ) : asList ? (
        <AskedTable open={open} planId={planId} rows={rows} onWould={setWould} />
      ) : (
        <div className="flex min-h-0 flex-1 border-t border-line">
          <AskedList rows={rows} chosen={row.ref} seen={seen} onChoose={setChosen} />
          <Asked
            key={row.ref}
            open={open}
            planId={planId}
            row={row}
            place={`${at + 1} of ${rows.length}`}
            onStep={step}
            onNothingNew={() => {
              setSeen((s) => new Set([...s, row.ref]));
              step(1);
            }}
            onHold={(onHold) =>
              change(
                { do: 'changeActivity', ref: row.ref, part: { onHold } },
                `${onHold ? 'Put on hold' : 'Take up again'} ${row.ref}`,
              )
            }
            onWould={setWould}
          />
        </div>
      )}
      <div className="flex min-h-[50px] shrink-0 items-center gap-4 border-t border-line bg-paper px-6">
        <p aria-live="polite" data-testid="would" className={`min-w-0 flex-1 ${would?.bad ? 'text-madder' : ''}`}>
          {would?.error ??
            (would?.words || (
              <span className="text-soft">
                {rows.length > 0 &&
                  `${done} of ${rows.length} answered · ${shown?.changed ?? 0} ${shown?.last ? `changed since ${shown.last}` : 'changed'}`}
              </span>
            ))}
        </p>
        {shown && <KeepRound planId={planId} open={open} rows={rows} last={shown.last} />}
      </div>
    </div>
  );
}
