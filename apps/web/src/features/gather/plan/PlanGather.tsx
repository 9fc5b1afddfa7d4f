'use client';
import type { ProblemGroup } from '@clembo/formats/columns';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask, awaitJob } from '@/ui/ask';
import { Frame, type FramePlan } from '@/ui/Frame';
import { useKeys } from '@/ui/keys';
import { toast, wrong } from '@/ui/Toasts';
import { useMay } from '@/ui/useMay';
import { usePlanSearch } from '@/ui/plan/usePlanSearch';
import { many } from '../desk/Outcome';
import { TakeIn } from '../TakeIn';
import { type EditionCard, Editions } from './Editions';
import { GatherTabs } from './GatherTabs';
import { TakeOut } from './TakeOut';

interface Props {
  plan: FramePlan;
  canReopen: boolean;
  sources: { no: number; reading: number; name: string; sheet: string | null; when: string }[];
  problems: (ProblemGroup & { source: string })[];
  editions: EditionCard[];
  refreshes: {
    id: string;
    name: string;
    counts: { accepted: number; refused: number };
    undone: boolean;
    when: string;
  }[];
}

/** Where a plan comes from and what became of it: next week's file, its sources, its editions. */
export function PlanGather({ plan, canReopen, sources, problems, editions, refreshes }: Props) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const search = usePlanSearch(plan.id, null);
  const last = sources[0]?.reading;
  const reopen = async () => {
    setBusy(true);
    try {
      const { intake, job } = await ask<{ intake: string; job: string }>(`/api/plans/${plan.id}/sources/open`, {
        method: 'POST',
      });
      await awaitJob(job);
      router.push(`/intake/${intake}`);
    } catch (error) {
      wrong(error);
      setBusy(false);
    }
  };
  const turn = async (id: string, undo: boolean) => {
    setBusy(true);
    try {
      const { left } = await ask<{ left: number }>(`/api/plans/${plan.id}/refreshes/${id}`, {
        method: 'POST',
        json: { undo },
      });
      toast(
        `${undo ? 'The refresh is taken back.' : 'The refresh is done again.'}${left > 0 ? ` ${many(left, 'value', 'values')} that you changed since ${left === 1 ? 'stays' : 'stay'} as ${left === 1 ? 'it is' : 'they are'}.` : ''}`,
      );
      router.refresh();
    } catch (error) {
      wrong(error);
    } finally {
      setBusy(false);
    }
  };
  const { edit } = useMay(plan.id);
  const [latest] = refreshes;
  useKeys({
    'mod+z': () => edit && latest && !latest.undone && !busy && void turn(latest.id, true),
    'mod+shift+z': () => edit && latest?.undone && !busy && void turn(latest.id, false),
  });
  return (
    <Frame stage="Gather" plan={plan} search={search}>
      <div className="h-full overflow-auto">
        <div className="mx-auto max-w-[1240px] px-8 pt-6">
          <GatherTabs planId={plan.id} current="Sources and editions" />
        </div>
        <div
          className={`mx-auto grid max-w-[1240px] gap-9 px-8 py-6 ${edit ? 'grid-cols-[minmax(270px,370px)_minmax(0,1fr)]' : ''}`}
        >
          {edit && (
            <div>
              <TakeIn planId={plan.id} />
            </div>
          )}
          <div className="min-w-0 space-y-8">
            <section aria-labelledby="from">
              <div className="flex items-baseline gap-4">
                <h2 id="from" className="font-serif text-[22px] font-semibold">
                  Where it came from
                </h2>
                {edit && canReopen && (
                  <button type="button" className="quiet ml-auto py-1" disabled={busy} onClick={() => void reopen()}>
                    Open its columns
                  </button>
                )}
              </div>
              {sources.length === 0 ? (
                <p className="mt-1 text-soft">It was made here, of no file.</p>
              ) : (
                <ul className="mt-2 divide-y divide-line border-y border-line">
                  {sources.slice(0, 12).map((s) => (
                    <li
                      key={s.no}
                      className={`flex items-baseline gap-3 py-1.5 ${s.reading === last ? '' : 'text-soft'}`}
                    >
                      <span className="min-w-0 truncate font-semibold">{s.name}</span>
                      {s.sheet && <span className="truncate">sheet {s.sheet}</span>}
                      <span className="ml-auto shrink-0 text-[14px] text-soft">
                        {s.reading === last ? 'read ' : 'read before, '}
                        {s.when}
                      </span>
                    </li>
                  ))}
                </ul>
              )}
              {problems.length > 0 && (
                <Worklist problems={problems} canReopen={edit && canReopen} onReopen={() => void reopen()} />
              )}
            </section>
            {refreshes.length > 0 && (
              <section aria-labelledby="refreshes">
                <h2 id="refreshes" className="font-serif text-[22px] font-semibold">
                  Refreshes
                </h2>
                <ul className="mt-2 divide-y divide-line border-y border-line">
                  {refreshes.map((r, k) => (
                    <li key={r.id} className="flex items-baseline gap-3 py-1.5">
                      <span className={`truncate font-semibold ${r.undone ? 'text-soft line-through' : ''}`}>
                        {r.name}
                      </span>
                      <span className="truncate text-soft">
                        {many(r.counts.accepted, 'change', 'changes')} accepted
                        {r.counts.refused > 0 ? `, ${r.counts.refused} refused` : ''}
                        {r.undone ? ', taken back' : ''}
                      </span>
                      <span className="ml-auto shrink-0 text-[14px] text-soft">{r.when}</span>
                      {edit && k === 0 && (
                        <button
                          type="button"
                          className="quiet shrink-0 py-0.5"
                          disabled={busy}
                          onClick={() => void turn(r.id, !r.undone)}
                        >
                          {r.undone ? 'Do it again' : 'Take it back'}
                        </button>
                      )}
                    </li>
                  ))}
                </ul>
              </section>
            )}
            <Editions planId={plan.id} editions={editions} />
            <TakeOut planId={plan.id} name={plan.name} />
          </div>
        </div>
      </div>
    </Frame>
  );
}

/** What could not be read of the sources, until it is mended. */
function Worklist({
  problems,
  canReopen,
  onReopen,
}: {
  problems: Props['problems'];
  canReopen: boolean;
  onReopen: () => void;
}) {
  const count = problems.reduce((sum, p) => sum + p.count, 0);
  return (
    <details className="mt-3">
      <summary className="cursor-pointer">
        <span className="text-madder">{many(count, 'cell', 'cells')}</span> of it could not be read
      </summary>
      <ul className="mt-1.5 divide-y divide-line rounded-lg border border-line bg-paper">
        {problems.map((p) => (
          <li key={`${p.source} ${p.code} ${p.column} ${p.texts[0]?.text}`} className="px-3 py-1.5 text-[14.5px]">
            <span className="font-semibold">
              {many(p.count, 'cell', 'cells')} {p.heading ? `in ${p.heading}` : ''}
            </span>{' '}
            <span className="text-soft">
              ({p.source}, row{' '}
              {p.texts
                .flatMap((t) => t.rows)
                .slice(0, 6)
                .join(', ')}
              ) · {p.words}
            </span>
          </li>
        ))}
      </ul>
      {canReopen && (
        <button type="button" className="quiet mt-2 py-1" onClick={onReopen}>
          Mend them in its columns
        </button>
      )}
    </details>
  );
}
