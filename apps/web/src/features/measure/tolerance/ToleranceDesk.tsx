'use client';
import { DEFAULT_TOLERANCE, type Tolerance } from '@clembo/core';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { PlanFrame } from '@/ui/plan/PlanFrame';
import type { FramePlan } from '@/ui/Frame';
import type { OpenRoom } from '@/workers/planRoom';
import { MeasureTabs } from '../MeasureTabs';
import { AddPart } from './AddPart';
import { BoundsRow } from './BoundsRow';
import { Units } from './Units';

/** How far off is normal, and what amounts are told in. */
export function ToleranceDesk({ plan, version }: { plan: FramePlan; version: number }) {
  return (
    <PlanFrame stage="Measure" plan={plan} version={version}>
      {(open) => <Desk planId={plan.id} open={open} />}
    </PlanFrame>
  );
}

function Desk({ planId, open }: { planId: string; open: OpenRoom }) {
  const { change } = usePlanChange(planId);
  const { tolerance, tolerances, codeFields } = open.head;
  const set = (next: Tolerance) => void change({ do: 'setPlan', settings: { tolerance: next } });
  const setParts = (next: typeof tolerances) => void change({ do: 'setPlan', settings: { tolerances: next } });
  const usual = (['days', 'effort', 'cost'] as const).every(
    (k) => tolerance[k].watch === DEFAULT_TOLERANCE[k].watch && tolerance[k].breach === DEFAULT_TOLERANCE[k].breach,
  );
  const titleOf = (field: string, code: string) => {
    const own = codeFields.find((f) => f.id === field);
    return `${own?.name ?? field}: ${own?.values.find((v) => v.code === code)?.title ?? code}`;
  };
  return (
    <div className="h-full overflow-auto">
      <div className="mx-auto max-w-[1500px] px-6 pt-4 pb-10">
        <MeasureTabs planId={planId} current="Tolerance and units" />
        <section aria-label="Tolerance" className="mt-6">
          <h2 className="font-serif text-[19px] font-semibold">How far off is normal</h2>
          <p className="mt-1 max-w-[76ch] text-soft">
            Up to the first bound what is off is normal; beyond it, it is to be watched; from the second bound on it is
            far off. It is told apart in the ledger, in the margin, on pages and in the standing. Ahead and under budget
            are said, and never marked as trouble.
          </p>
          <table className="mt-4 w-full max-w-[1080px] border-collapse">
            <thead className="text-left text-[14px] text-soft">
              <tr>
                <th className="pb-1 font-normal">Holds for</th>
                <th className="pb-1 pl-4 font-normal">Working days late</th>
                <th className="pb-1 pl-4 font-normal">Effort over budget</th>
                <th className="pb-1 pl-4 font-normal">Cost over budget</th>
                <th />
              </tr>
            </thead>
            <tbody>
              <BoundsRow
                title="The whole plan"
                tolerance={tolerance}
                onChange={set}
                action={
                  usual
                    ? null
                    : { label: 'As usual', title: 'Back to the usual bounds', run: () => set(DEFAULT_TOLERANCE) }
                }
              />
              {tolerances.map((p, k) => (
                <BoundsRow
                  key={`${p.field} ${p.code}`}
                  title={titleOf(p.field, p.code)}
                  tolerance={p.tolerance}
                  onChange={(next) => setParts(tolerances.map((x, m) => (m === k ? { ...x, tolerance: next } : x)))}
                  action={{
                    label: 'Remove',
                    title: `Let the plan’s bounds hold for ${titleOf(p.field, p.code)}`,
                    run: () => setParts(tolerances.filter((_, m) => m !== k)),
                  }}
                />
              ))}
            </tbody>
          </table>
          <AddPart
            fields={codeFields}
            taken={tolerances}
            onAdd={(field, code) => setParts([...tolerances, { field, code, tolerance }])}
          />
          {tolerances.length > 1 && (
            <p className="mt-2 text-[14px] text-soft">
              What belongs to several of them takes the one that stands first.
            </p>
          )}
        </section>
        <Units planId={planId} open={open} />
      </div>
    </div>
  );
}
