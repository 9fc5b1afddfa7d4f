import { listIntakes, listPlans } from '@clembo/store';
import { dayOf, finishDayOf } from '@clembo/core';
import { formatDay } from '@clembo/scene';
import { Gather } from '@/features/gather/Gather';
import { pageAccess } from '@/server/access';
import { store } from '@/server/store';
import { whenChanged } from '@/server/when';

export const dynamic = 'force-dynamic';

export default async function Page() {
  const access = await pageAccess();
  const [plans, begun] = await Promise.all([listPlans(store(), access), listIntakes(store(), access)]);
  return (
    <Gather
      begun={begun.map(({ id, source, targetPlan, createdAt }) => ({
        id,
        source,
        when: whenChanged(createdAt),
        target: plans.find((p) => p.id === targetPlan)?.name ?? null,
      }))}
      plans={plans.map((p) => ({
        id: p.id,
        name: p.name,
        edition: p.edition,
        version: p.version,
        activities: p.activities,
        changed: whenChanged(p.updatedAt),
        span:
          p.start === null || p.finish === null
            ? 'no dates'
            : `${formatDay(dayOf(p.start), 'long')} to ${formatDay(finishDayOf(p.finish), 'long')}`,
      }))}
    />
  );
}
