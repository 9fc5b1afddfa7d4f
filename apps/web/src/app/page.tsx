import { listPlans } from '@clembo/store';
import { dayOf, finishDayOf } from '@clembo/core';
import { formatDay } from '@clembo/scene';
import { Gather } from '@/features/gather/Gather';
import { accessOf, store } from '@/server/store';

export const dynamic = 'force-dynamic';

export default async function Page() {
  const plans = await listPlans(store(), await accessOf());
  return (
    <Gather
      plans={plans.map((p) => ({
        id: p.id,
        name: p.name,
        edition: p.edition,
        version: p.version,
        activities: p.activities,
        span:
          p.start === null || p.finish === null
            ? 'no dates'
            : `${formatDay(dayOf(p.start), 'long')} to ${formatDay(finishDayOf(p.finish), 'long')}`,
      }))}
    />
  );
}
