'use client';
import { codeFieldId } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { PlanFrame } from '@/ui/plan/PlanFrame';
import { ManyPart, OnePart } from '@/ui/sentence/ListParts';
import type { FramePlan } from '@/ui/Frame';
import { wrong } from '@/ui/Toasts';
import type { EditionsAsked, EditionsShown } from '@/workers/answers/editions';
import type { OpenRoom } from '@/workers/planRoom';
import { MeasureTabs } from '../MeasureTabs';
import { Section } from '../Section';
import { TrendChart } from './TrendChart';

/** How the plan came to stand as it does: its finish and its milestones over the editions, and who moved what. */
export function EditionsDesk({ plan, version }: { plan: FramePlan; version: number }) {
  return (
    <PlanFrame stage="Measure" plan={plan} version={version}>
      {(open) => <Desk planId={plan.id} open={open} />}
    </PlanFrame>
  );
}

const days = (n: number): string => `${n > 0 ? '+' : n < 0 ? '−' : ''}${Math.abs(n)}`;
const tone = (n: number | null): string =>
  n === null || n === 0 ? 'text-soft' : n > 0 ? 'text-madder' : 'text-harebell-deep';

function Desk({ planId, open }: { planId: string; open: OpenRoom }) {
  const [asked, setAsked] = useState<EditionsAsked>({ refs: null, since: null, by: 'responsible' });
  const [shown, setShown] = useState<EditionsShown | null>(null);
  useEffect(() => {
    let current = true;
    open.room.overEditions(asked).then((found) => current && setShown(found), wrong);
    return () => {
      current = false;
    };
  }, [open, asked]);
  const { codeFields } = open.head;
  if (shown === null)
    return (
      <p className="p-10 text-soft" role="status">
        Reading the editions …
      </p>
    );
  const { editions, since, trends, milestones } = shown;
  const chosen = trends.flatMap((t) => t.ref ?? []);
  return (
    <div className="h-full overflow-auto">
      <div className="mx-auto max-w-[1500px] px-6 pt-4 pb-8">
        <MeasureTabs planId={planId} current="Over the editions" />
        {editions.length < 2 ? (
          <p className="mt-8 max-w-[70ch] text-soft">
            Only the plan as it stands now is known. Keep an edition of it under{' '}
            <Link href={`/plans/${planId}/gather`} className="text-kelp underline underline-offset-2">
              Gather
            </Link>
            , or at the end of a weekly round; from then on this page says what moved since, and who moved it.
          </p>
        ) : (
          <>
            <p className="pt-3 pb-1 text-[16.5px] leading-relaxed" aria-label="Over the editions">
              The finish and{' '}
              <ManyPart
                part="milestones"
                label="Milestones that are followed"
                text={chosen.length === 0 ? 'no milestone' : `${chosen.length} of ${milestones.length} milestones`}
                values={chosen}
                options={milestones.slice(0, 300).map((m): [string, string] => [m.ref, m.name])}
                most={12}
                onChange={(refs) => setAsked((a) => ({ ...a, refs }))}
              />{' '}
              over {editions.length - 1} {editions.length === 2 ? 'edition' : 'editions'} and now; what changed since{' '}
              <OnePart
                part="since"
                label="Since"
                text={since?.name ?? 'the edition before'}
                value={asked.since ?? editions.at(-2)!.id}
                options={editions
                  .slice(0, -1)
                  .toReversed()
                  .map((e): [string, string] => [e.id, e.name])}
                onChange={(id) => setAsked((a) => ({ ...a, since: id }))}
              />
              , by{' '}
              <OnePart
                part="by"
                label="By"
                text={
                  codeFields.find((f) => codeFieldId(f.id) === asked.by)?.name.toLowerCase() ?? 'who is responsible'
                }
                value={asked.by}
                options={[
                  ['responsible', 'who is responsible'],
                  ...codeFields.map((f): [string, string] => [codeFieldId(f.id), f.name.toLowerCase()]),
                ]}
                onChange={(by) => setAsked((a) => ({ ...a, by }))}
              />
              .
            </p>
            <div className="mt-3 grid grid-cols-[minmax(0,7fr)_minmax(0,5fr)] gap-x-10 gap-y-4 border-t border-line pt-4">
              <Section
                title="Where the finish and the milestones were expected"
                note="a line that leans to the right slips"
              >
                <TrendChart editions={editions} trends={trends} />
              </Section>
              <Section title="The editions" note={shown.older > 0 ? `${shown.older} older are left out` : ''}>
                <table className="w-full text-[14px]">
                  <thead className="text-left text-[13.5px] text-soft">
                    <tr>
                      <th className="py-1 font-normal">Edition</th>
                      <th className="py-1 pl-3 font-normal">Finish</th>
                      <th className="py-1 pl-3 text-right font-normal">Days</th>
                    </tr>
                  </thead>
                  <tbody>
                    {editions.toReversed().map((e) => (
                      <tr key={e.id} className="border-t border-line align-baseline">
                        <td className="max-w-0 py-1">
                          <span className="block truncate font-semibold" title={e.name}>
                            {e.name}
                            {e.day !== null && (
                              <span className="font-normal text-soft"> · {formatDay(e.day, 'medium')}</span>
                            )}
                          </span>
                          <span className="block text-[13.5px] leading-snug text-soft">
                            {e.words || `${e.activities} activities`}
                          </span>
                        </td>
                        <td className="w-[86px] py-1 pl-3 font-narrow whitespace-nowrap">{e.finish}</td>
                        <td className={`w-12 py-1 pl-3 text-right font-narrow ${tone(e.moved)}`}>
                          {e.moved === null ? '' : days(e.moved)}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </Section>
            </div>
            {since && (
              <div className="grid grid-cols-[minmax(0,7fr)_minmax(0,5fr)] gap-x-10 border-t border-line pt-4">
                <Section title={`What moved since ${since.name}`} note={since.words.join(', ') || 'nothing changed'}>
                  {since.moves.length === 0 ? (
                    <p className="text-[14.5px] text-soft">No activity stands anywhere else.</p>
                  ) : (
                    <table className="w-full text-[14px]">
                      <thead className="text-left text-[13.5px] text-soft">
                        <tr>
                          <th className="py-1 font-normal">Activity</th>
                          <th className="w-[200px] py-1 pl-3 font-normal">Responsible</th>
                          <th className="w-16 py-1 pl-3 text-right font-normal">Start</th>
                          <th className="w-16 py-1 pl-3 text-right font-normal">Finish</th>
                        </tr>
                      </thead>
                      <tbody>
                        {since.moves.map((m) => (
                          <tr key={m.ref} className="border-t border-line/60">
                            <td className="max-w-0 py-0.5">
                              <Link
                                href={`/plans/${planId}/structure?ref=${encodeURIComponent(m.ref)}`}
                                className="block truncate hover:text-kelp hover:underline"
                              >
                                {m.name}
                              </Link>
                            </td>
                            <td className="max-w-0 truncate py-0.5 pl-3 text-soft">{m.responsible.join(', ')}</td>
                            <td className={`py-0.5 pl-3 text-right font-narrow ${tone(m.startDays)}`}>
                              {days(m.startDays)}
                            </td>
                            <td className={`py-0.5 pl-3 text-right font-narrow ${tone(m.finishDays)}`}>
                              {days(m.finishDays)}
                            </td>
                          </tr>
                        ))}
                      </tbody>
                    </table>
                  )}
                  {since.count > since.moves.length && (
                    <p className="mt-1 text-soft">and {since.count - since.moves.length} more that moved less</p>
                  )}
                </Section>
                <Section title="Who moved what" note="working days of finishes, added up">
                  {since.movers.length === 0 ? (
                    <p className="text-[14.5px] text-soft">Nobody moved anything.</p>
                  ) : (
                    <table className="w-full text-[14px]">
                      <tbody>
                        {since.movers.map((m) => (
                          <tr key={m.who} className="border-t border-line/60 first:border-t-0">
                            <td className="max-w-0 truncate py-0.5">{m.who}</td>
                            <td className="w-[150px] py-0.5 pl-3 text-soft">
                              {[m.later > 0 ? `${m.later} later` : '', m.earlier > 0 ? `${m.earlier} earlier` : '']
                                .filter(Boolean)
                                .join(', ') || 'starts only'}
                            </td>
                            <td className={`w-14 py-0.5 pl-3 text-right font-narrow ${tone(m.days)}`}>
                              {days(m.days)}
                            </td>
                          </tr>
                        ))}
                      </tbody>
                    </table>
                  )}
                </Section>
              </div>
            )}
          </>
        )}
      </div>
    </div>
  );
}
