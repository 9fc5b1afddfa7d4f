'use client';
import { codeFieldId, isTest, type Status, startOfDay } from '@clembo/core';
import { useRouter } from 'next/navigation';
import { amountWords } from '@clembo/formats/amounts';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { PlanFrame } from '@/ui/plan/PlanFrame';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { DayField, dayOfField } from '@/ui/DayField';
import type { FramePlan } from '@/ui/Frame';
import { ask } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';
import type { Behind, Measuring, StandingShown } from '@/workers/answers/measure';
import type { OpenRoom } from '@/workers/planRoom';
import { AmountChart } from './AmountChart';
import { Coming } from './Coming';
import { CurveChart } from './CurveChart';
import { type Chart, exhibitOf } from './exhibits';
import { LoadChart } from './LoadChart';
import { MeasureTabs } from './MeasureTabs';
import { MeasureLine } from './MeasureLine';
import { Parts } from './Parts';
import { PaymentChart } from './PaymentChart';
import { RowsPanel } from './RowsPanel';
import { SlipChart } from './SlipChart';
import { SnapshotTable } from './SnapshotTable';
import { Section } from './Section';
import { everything } from './everything';
import { Statements } from './Statements';
import { StatusBar } from './StatusBar';

/** How the plan stands against what was promised: the week's question, answered in one look. */
export function MeasureDesk({ plan, version }: { plan: FramePlan; version: number }) {
  return (
    <PlanFrame stage="Measure" plan={plan} version={version}>
      {(open) => <Standing planId={plan.id} open={open} />}
    </PlanFrame>
  );
}

function Standing({ planId, open }: { planId: string; open: OpenRoom }) {
  const { head } = open;
  const [measuring, setMeasuring] = useState(() =>
    everything(head.codeFields[0] ? codeFieldId(head.codeFields[0].id) : null),
  );
  const [shown, setShown] = useState<StandingShown | null | 'nothing'>(null);
  const [behind, setBehind] = useState<{ behind: Behind; title: string } | null>(null);
  useEffect(() => {
    let current = true;
    open.room.standing(measuring).then((found) => current && setShown(found ?? 'nothing'), wrong);
    return () => {
      current = false;
    };
  }, [open, measuring]);
  const set = useCallback((part: Partial<Measuring>) => setMeasuring((m) => ({ ...m, ...part })), []);
  /** Chooses what was clicked, more of it, or takes it away again. */
  const toggleRef = useCallback(
    (ref: string) =>
      setMeasuring((m) => ({
        ...m,
        refs: m.refs.includes(ref) ? m.refs.filter((r) => r !== ref) : [...m.refs, ref],
      })),
    [],
  );
  const toggleMonth = (month: number) =>
    set({
      months: measuring.months.includes(month)
        ? measuring.months.filter((x) => x !== month)
        : [...measuring.months, month],
    });
  const toggleStatus = (status: Status) =>
    set({
      statuses: measuring.statuses.includes(status)
        ? measuring.statuses.filter((x) => x !== status)
        : [...measuring.statuses, status],
    });
  const toggleCode = (code: string) => {
    const field = measuring.by;
    if (field === null) return;
    const { where } = measuring;
    const own = where.match === 'all' ? where.tests.find((t) => isTest(t) && t.field === field) : undefined;
    const others = where.match === 'all' ? where.tests.filter((t) => t !== own) : [where];
    const values = own && isTest(own) && own.is === 'is' ? own.values : [];
    const next = values.includes(code) ? values.filter((v) => v !== code) : [...values, code];
    const test =
      code === ''
        ? own && isTest(own) && own.is === 'empty'
          ? []
          : [{ field, is: 'empty' as const, values: [] }]
        : next.length === 0
          ? []
          : [{ field, is: 'is' as const, values: next }];
    set({ where: { match: 'all', tests: [...others, ...test] } });
  };
  const chosenCodes = useMemo(
    () =>
      measuring.where.tests.flatMap((t) =>
        isTest(t) && t.field === measuring.by ? (t.is === 'empty' ? [''] : t.values) : [],
      ),
    [measuring],
  );
  const router = useRouter();
  const page = (chart: Chart) => () => {
    const { name, brief } = exhibitOf(chart, measuring, head.statusDate!);
    ask<{ id: string }>(`/api/plans/${planId}/exhibits`, { method: 'POST', json: { name, brief } }).then(
      ({ id }) => router.push(`/plans/${planId}/show/${id}`),
      wrong,
    );
  };
  const show = (what: Behind, title: string) => setBehind({ behind: what, title });

  if (head.editions.length === 0 || head.statusDate === null)
    return <Missing planId={planId} open={open} noEdition={head.editions.length === 0} />;
  if (shown === null || shown === 'nothing')
    return (
      <p className="p-10 text-soft" role="status">
        {shown === null ? 'Measuring …' : 'The edition that it was measured against is not there any more.'}
      </p>
    );
  const words = amountWords(head, head.locale);
  const filtered = shown.listed !== shown.activities;
  return (
    <div className="flex h-full">
      <div className="min-w-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-[1500px] px-6 pt-4 pb-8">
          <MeasureTabs planId={planId} current="Standing" />
          <MeasureLine planId={planId} open={open} measuring={measuring} shown={shown} onChange={set} />
          {shown.error && <p className="mt-2 text-madder">{shown.error}</p>}
          <p className="mt-1 text-[14px] text-soft" data-testid="measured">
            {filtered ? `${shown.listed} of ${shown.activities} activities` : `${shown.activities} activities`} ·{' '}
            <button
              type="button"
              className="text-kelp underline underline-offset-2"
              onClick={() => show({ what: 'all' }, filtered ? 'What is measured' : 'All activities')}
            >
              show the rows
            </button>
          </p>
          {shown.listed === 0 ? (
            <p className="mt-10 text-soft">Nothing is left to be measured. Take a part of the sentence away.</p>
          ) : (
            <>
              <Statements shown={shown} amount={measuring.amount} />
              <div className="grid grid-cols-[minmax(0,5fr)_minmax(0,4fr)_minmax(0,4fr)] gap-x-9 gap-y-6 border-t border-line pt-4">
                <Section
                  onPage={page('slips')}
                  title="What slipped most"
                  note={shown.slipped > 0 ? `${shown.slipped} are off` : ''}
                  onRows={
                    shown.slipped > 0 ? () => show({ what: 'slipped' }, 'What is not where it was promised') : null
                  }
                >
                  <SlipChart slips={shown.slips} chosen={measuring.refs} onPick={toggleRef} />
                </Section>
                <Section
                  onPage={page('curves')}
                  title={
                    measuring.amount === 'effort' ? 'Work: promised, earned, spent' : 'Cost: promised, earned, spent'
                  }
                >
                  <CurveChart
                    curves={shown.curves}
                    now={shown.now}
                    amount={measuring.amount}
                    unit={shown.unit}
                    words={words}
                    onPick={toggleMonth}
                  />
                </Section>
                <Section
                  onPage={page('amounts')}
                  title={measuring.amount === 'effort' ? 'Effort against budget' : 'Cost against budget'}
                >
                  <AmountChart
                    amounts={shown.amounts}
                    bounds={head.tolerance[measuring.amount]}
                    chosen={measuring.refs}
                    onPick={toggleRef}
                  />
                </Section>
              </div>
              <div className="mt-5 grid grid-cols-[minmax(0,5fr)_minmax(0,4fr)_minmax(0,4fr)] gap-x-9 gap-y-6 border-t border-line pt-4">
                <div>
                  <Section onPage={page('status')} title="Where the work stands">
                    <StatusBar
                      counts={shown.counts}
                      chosen={measuring.statuses}
                      onPick={toggleStatus}
                      onRows={(status, title) => show({ what: 'status', status }, title)}
                    />
                  </Section>
                  <Section
                    onPage={page('coming')}
                    title={`The next ${measuring.weeks} weeks`}
                    onRows={
                      shown.coming.length > 0
                        ? () => show({ what: 'coming' }, `The next ${measuring.weeks} weeks`)
                        : null
                    }
                  >
                    <Coming
                      coming={shown.coming}
                      weeks={measuring.weeks}
                      onWeeks={(weeks) => set({ weeks })}
                      onPick={toggleRef}
                    />
                  </Section>
                </div>
                <div>
                  <Section onPage={page('snapshot')} title="Snapshot">
                    <SnapshotTable rows={shown.snapshot} />
                    {shown.atEnd && (
                      <p className="pt-1 text-[13px] text-soft">Amounts now: actual, and to go as planned.</p>
                    )}
                  </Section>
                  <Section
                    onPage={page('payments')}
                    title="Payments at milestones"
                    onRows={
                      shown.payments.length > 0 ? () => show({ what: 'payments' }, 'Milestones with payments') : null
                    }
                  >
                    <PaymentChart payments={shown.payments} words={words} onPick={toggleMonth} />
                  </Section>
                </div>
                <div>
                  <Parts
                    head={head}
                    by={measuring.by}
                    parts={shown.parts}
                    chosen={chosenCodes}
                    onPage={page('parts')}
                    onBy={(by) => set({ by })}
                    onPick={toggleCode}
                  />
                  <Section title="People and plant" onPage={shown.need.steps.length > 0 ? page('need') : null}>
                    <LoadChart need={shown.need} planId={planId} onPick={toggleMonth} />
                  </Section>
                </div>
              </div>
            </>
          )}
        </div>
      </div>
      {behind && (
        <RowsPanel
          planId={planId}
          open={open}
          measuring={measuring}
          behind={behind.behind}
          title={behind.title}
          onClose={() => setBehind(null)}
        />
      )}
    </div>
  );
}

/** What has to be known before anything can be measured, and where to say it. */
function Missing({ planId, open, noEdition }: { planId: string; open: OpenRoom; noEdition: boolean }) {
  const { change } = usePlanChange(planId);
  const [day, setDay] = useState('');
  const { statusDate } = open.head;
  const chosen = dayOfField(day);
  return (
    <div className="mx-auto max-w-xl px-8 pt-16">
      <h1 className="font-serif text-[26px] font-semibold">
        {noEdition ? 'Nothing to measure against yet' : 'No status date yet'}
      </h1>
      {noEdition && (
        <p className="mt-4">
          A plan is measured against an edition of it. Keep one under{' '}
          <a href={`/plans/${planId}/gather`} className="text-kelp underline underline-offset-2">
            Gather
          </a>{' '}
          as what was promised; from then on this page says how the plan stands.
        </p>
      )}
      {statusDate === null && (
        <form
          className="mt-4"
          onSubmit={(e) => {
            e.preventDefault();
            if (chosen !== null)
              void change({ do: 'setPlan', settings: { statusDate: startOfDay(chosen) } }, 'Set the status date');
          }}
        >
          <p>The plan has no status date: the day up to which its progress is reported.</p>
          <p className="mt-2 flex items-center gap-2">
            <DayField label="Status date" value={day} onChange={setDay} />
            <button type="submit" className="action py-1" disabled={chosen === null}>
              Set it
            </button>
          </p>
        </form>
      )}
    </div>
  );
}
