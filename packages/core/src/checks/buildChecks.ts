import { makeElement } from '../build/element';
import { conflicts } from '../build/standing';
import { buildTimes } from '../build/times';
import type { Finding } from '../findings/finding';
import type { Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';

/** What cannot be as elements are matched to work: one finding for each set of activities, whichever elements it is about. */
export function buildFindings({ plan, s }: { plan: Plan; s: Schedule }): Finding[] {
  if (plan.matches.length === 0) return [];
  const refs = [...new Set(plan.matches.flatMap((m) => m.elements))];
  const times = buildTimes(
    plan,
    s,
    refs.map((ref) => makeElement({ ref })),
  );
  const groups = new Map<string, Finding & { facts: { elements: number } }>();
  for (const { kind, activities } of conflicts(times)) {
    const own = [...new Set(activities.map((i) => plan.activities[i]!.ref))];
    const key = `${kind} ${own.join(' ')}`;
    const finding = groups.get(key) ?? { code: kind, severity: 'warning' as const, refs: own, facts: { elements: 0 } };
    finding.facts.elements++;
    groups.set(key, finding);
  }
  return [...groups.values()];
}
