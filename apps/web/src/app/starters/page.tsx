import { isMilestone, NONE, schedulePlan } from '@clembo/core';
import { STARTERS } from '@clembo/starters';
import { listStarters } from '@clembo/store';
import type { Metadata } from 'next';
import { type StarterCard, Starters } from '@/features/gather/Starters';
import { pageAccess } from '@/server/access';
import { store } from '@/server/store';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Starters' };

let own: StarterCard[] | null = null;

/** What the starters that everybody has look like; worked out once. */
const ownCards = (): StarterCard[] =>
  (own ??= STARTERS.map(({ id, name, about, plan }) => {
    const s = schedulePlan(plan);
    const bars = [...s.outline.order].map((i) => ({
      name: plan.activities[i]!.name,
      start: s.start[i] === NONE ? null : s.start[i]!,
      finish: s.finish[i] === NONE ? null : s.finish[i]!,
      kind: s.outline.isSummary[i] ? ('summary' as const) : plan.activities[i]!.kind,
      isSoft: false,
      level: s.outline.level[i]!,
    }));
    return {
      key: `own ${id}`,
      name,
      about,
      activities: plan.activities.filter((a) => a.kind !== 'summary' && !isMilestone(a.kind)).length,
      milestones: plan.activities.filter((a) => isMilestone(a.kind)).length,
      links: plan.links.length,
      bars,
    };
  }));

export default async function Page() {
  const kept = await listStarters(store(), await pageAccess());
  return (
    <Starters
      own={ownCards()}
      kept={kept.map((k) => ({ key: `kept ${k.id}`, name: k.name, about: k.note, activities: k.activities }))}
    />
  );
}
