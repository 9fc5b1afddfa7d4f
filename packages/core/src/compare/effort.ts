import type { Plan } from '../plan/schema';
import type { Schedule } from '../schedule/schedule';

/** Percent complete of effort: actual of actual and remaining, 0 to 100; null where no effort is budgeted. */
export function percentByEffort(budget: number | null, actual: number | null): number | null {
  if (budget === null && actual === null) return null;
  const spent = actual ?? 0;
  const all = Math.max(budget ?? 0, spent);
  return all === 0 ? null : (100 * spent) / all;
}

/** Sums over a group of activities. Effort in minutes, cost in hundredths. */
export interface Sums {
  activities: number;
  effort: number;
  actualEffort: number;
  cost: number;
  actualCost: number;
}

const none = (): Sums => ({ activities: 0, effort: 0, actualEffort: 0, cost: 0, actualCost: 0 });

function add(sums: Sums, plan: Plan, i: number): void {
  const a = plan.activities[i]!;
  sums.activities++;
  sums.effort += a.effort ?? 0;
  sums.actualEffort += a.actualEffort ?? 0;
  sums.cost += a.cost ?? 0;
  sums.actualCost += a.actualCost ?? 0;
}

/** Sums of effort and cost for every position: of the activity itself, or of all that a summary holds. */
export function rollUpSums(plan: Plan, s: Schedule): Sums[] {
  const { order, parent, isSummary } = s.outline;
  const sums = plan.activities.map(none);
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    if (!isSummary[i]) add(sums[i]!, plan, i);
    const p = parent[i]!;
    if (p === -1) continue;
    for (const key of Object.keys(sums[p]!) as (keyof Sums)[]) sums[p]![key] += sums[i]![key];
  }
  return sums;
}

/** Sums for every combination of the values of some code fields, in the order of first appearance. Missing values are empty texts. */
export function sumsByCodes(plan: Plan, s: Schedule, fields: string[]): { codes: string[]; sums: Sums }[] {
  const groups = new Map<string, { codes: string[]; sums: Sums }>();
  plan.activities.forEach((a, i) => {
    if (s.outline.isSummary[i]) return;
    const codes = fields.map((f) => a.codes[f] ?? '');
    const key = JSON.stringify(codes);
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { codes, sums: none() }));
    add(group.sums, plan, i);
  });
  return [...groups.values()];
}
