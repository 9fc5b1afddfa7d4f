'use client';
import type { Resource } from '@clembo/core';
import { useEffect, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import type { FramePlan } from '@/ui/Frame';
import { wrong } from '@/ui/Toasts';
import type { NeedsShown, Step } from '@/workers/answers/resources';
import type { OpenRoom } from '@/workers/planRoom';
import { StructureDesk } from '../StructureDesk';
import { NeedChart } from './NeedChart';
import { ResourceRow } from './ResourceRow';
import { ResourceWork } from './ResourceWork';

const STEPS: [Step, string][] = [
  ['week', 'weeks'],
  ['month', 'months'],
  ['quarter', 'quarters'],
];

/** Who and what does the work of a plan: how much of it there is, and how much is needed when. */
export function ResourcesDesk({ plan, version }: { plan: FramePlan; version: number }) {
  return (
    <StructureDesk plan={plan} version={version} current="Resources">
      {(open) => <Resources planId={plan.id} open={open} />}
    </StructureDesk>
  );
}

function Resources({ planId, open }: { planId: string; open: OpenRoom }) {
  const { resources } = open.head;
  const { busy, change } = usePlanChange(planId);
  const [step, setStep] = useState<Step>('month');
  const [shown, setShown] = useState<NeedsShown | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [name, setName] = useState('');
  useEffect(() => {
    let current = true;
    open.room.needs(step).then((found) => current && setShown(found), wrong);
    return () => {
      current = false;
    };
  }, [open, step]);
  const put = (id: string, part: Partial<Omit<Resource, 'id'>>, words: string) =>
    void change((room) => room.putResource(id, part), words);
  const add = async () => {
    const wanted = name.trim();
    if (wanted === '') return;
    if (resources.some((r) => r.name.toLowerCase() === wanted.toLowerCase()))
      return wrong(new Error(`There is a resource “${wanted}” already.`));
    let id = wanted.slice(0, 90);
    for (let k = 2; resources.some((r) => r.id === id); k++) id = `${wanted.slice(0, 90)} ${k}`;
    const made: Resource = { id, name: wanted, unit: 'hour', rate: null, limit: null, calendar: null };
    if (await change({ do: 'setPlan', settings: { resources: [...resources, made] } }, `Add the resource ${wanted}`)) {
      setName('');
      setChosen(id);
    }
  };
  const resource = resources.find((r) => r.id === chosen) ?? resources[0] ?? null;
  const need = shown?.needs.find((n) => n.id === resource?.id) ?? null;
  return (
    <div className="mt-6">
      {resources.length === 0 ? (
        <p className="max-w-lg text-soft">
          This plan has no resources yet. A resource is who or what does the work: a crew, a crane, a person. Add one
          here, then say on which activities it works, and for how many hours.
        </p>
      ) : (
        <table className="w-full text-[14.5px]">
          <thead>
            <tr className="border-b border-line text-left text-[13.5px] text-soft">
              <th className="py-1 pr-3 font-normal">Name</th>
              <th className="py-1 pr-3 font-normal">Counted in</th>
              <th
                className="py-1 pr-3 text-right font-normal"
                title="How many there are at a time; empty where that is not limited"
              >
                At a time
              </th>
              <th className="py-1 pr-3 text-right font-normal" title="Cost of an hour of it">
                Rate
              </th>
              <th className="py-1 pr-3 font-normal">Calendar</th>
              <th className="py-1 pr-3 text-right font-normal">Hours in all</th>
              <th className="py-1 pr-3 text-right font-normal">Activities</th>
              <th className="py-1 pr-3 font-normal">Load</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {resources.map((r) => (
              <ResourceRow
                key={r.id}
                resource={r}
                need={shown?.needs.find((n) => n.id === r.id) ?? null}
                steps={shown?.steps ?? []}
                stepName={STEPS.find(([id]) => id === step)![1]}
                calendars={open.head.calendars}
                chosen={r.id === resource?.id}
                busy={busy}
                onChoose={() => setChosen(r.id)}
                onChange={(part, words) => put(r.id, part, words)}
                onRemove={() => void change((room) => room.withoutResource(r.id), `Remove the resource ${r.name}`)}
              />
            ))}
          </tbody>
        </table>
      )}
      <form
        className="mt-3 flex gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void add();
        }}
      >
        <input
          aria-label="New resource"
          placeholder="New resource"
          value={name}
          maxLength={200}
          onChange={(e) => setName(e.target.value)}
          className="w-60 rounded-md border border-line bg-paper px-2.5 py-1"
        />
        <button type="submit" className="quiet py-1" disabled={busy || name.trim() === ''}>
          Add
        </button>
      </form>
      {resource && need && shown && (
        <section className="mt-8">
          <div className="flex items-baseline gap-4">
            <h2 className="font-serif text-[20px] font-semibold">{resource.name}</h2>
            <span className="text-[14.5px] text-soft">
              need, counted in {resource.unit || 'hour'}s, by{' '}
              <select
                aria-label="Steps"
                value={step}
                onChange={(e) => setStep(e.target.value as Step)}
                className="rounded-md border border-line bg-paper px-1.5 py-0.5"
              >
                {STEPS.map(([id, words]) => (
                  <option key={id} value={id}>
                    {words}
                  </option>
                ))}
              </select>
            </span>
            {need.undated > 0 && (
              <span className="text-[14.5px] text-soft">{need.undated} h are of activities without dates</span>
            )}
          </div>
          <NeedChart steps={shown.steps} need={need} name={resource.name} />
          <ResourceWork planId={planId} open={open} resource={resource} need={need} />
        </section>
      )}
    </div>
  );
}
