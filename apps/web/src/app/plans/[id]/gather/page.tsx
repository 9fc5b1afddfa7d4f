import type { ProblemGroup } from '@clembo/formats';
import { listEditions, listRefreshes, listSources } from '@clembo/store';
import { dayOf } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { PlanGather } from '@/features/gather/plan/PlanGather';
import { planPage } from '@/server/planPage';
import { pageAccess } from '@/server/access';
import { store } from '@/server/store';
import { whenChanged } from '@/server/when';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Gather' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { plan } = await planPage((await params).id);
  const access = await pageAccess({ plan: plan.id });
  const [editions, sources, refreshes] = await Promise.all([
    listEditions(store(), access, plan.id),
    listSources(store(), access, plan.id),
    listRefreshes(store(), access, plan.id),
  ]);
  if (!editions) notFound();
  const last = sources.filter((s) => s.reading === sources[0]!.reading);
  return (
    <PlanGather
      plan={plan}
      canReopen={last.some((s) => s.hasTable)}
      sources={sources.map((s) => ({
        no: s.no,
        reading: s.reading,
        name: s.name,
        sheet: s.sheet,
        when: whenChanged(s.createdAt) + (s.person ? `, by ${s.person}` : ''),
      }))}
      problems={last.flatMap((s) => (s.problems as ProblemGroup[]).map((p) => ({ source: s.sheet ?? s.name, ...p })))}
      editions={editions.map((e) => ({
        id: e.id,
        name: e.name,
        note: e.note,
        working: e.working,
        baseline: e.baseline,
        activities: e.activities,
        status: e.statusDate === null ? null : formatDay(dayOf(e.statusDate), 'long'),
        when: whenChanged(e.createdAt),
      }))}
      refreshes={refreshes.map((r) => ({
        id: r.id,
        name: r.name,
        counts: r.counts,
        undone: r.undone,
        when: whenChanged(r.createdAt),
      }))}
    />
  );
}
