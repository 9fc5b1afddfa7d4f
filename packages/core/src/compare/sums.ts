import { extentOf } from './behind';
import { PERCENT_MEASURES, type PercentMeasure, type Plan } from '../plan/schema';
import { addDone, type Done, doneReader, nothingDone, percentOf } from '../schedule/percent';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';

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

/** What activities with the same values of some code fields come to. */
export interface CodeGroup {
  /** Values in the order of the fields; empty where one is missing. */
  codes: string[];
  positions: number[];
  /** Earliest start and latest finish that the plan shows, as moments; NONE where nothing has dates. */
  start: number;
  finish: number;
  sums: Sums;
  /** Percent complete by each measure; NaN where there is nothing to measure. */
  percent: Record<PercentMeasure, number>;
}

/** Rolls up every combination of the values of some code fields, in the order of first appearance. */
export function rollUpByCodes(plan: Plan, s: Schedule, fields: readonly string[]): CodeGroup[] {
  const positions = new Map<string, number[]>();
  plan.activities.forEach((a, i) => {
    if (s.outline.isSummary[i]) return;
    const key = JSON.stringify(fields.map((f) => a.codes[f] ?? ''));
    const group = positions.get(key);
    if (group) group.push(i);
    else positions.set(key, [i]);
  });
  const readers = PERCENT_MEASURES.map((m) => [m, doneReader(plan, s, m)] as const);
  return [...positions].map(([key, members]) => {
    const place = extentOf(s, members);
    const sums = none();
    for (const i of members) add(sums, plan, i);
    const percent = (read: (position: number) => Done) => {
      const all = nothingDone();
      for (const i of members) addDone(all, read(i));
      return percentOf(all);
    };
    return {
      codes: JSON.parse(key) as string[],
      positions: members,
      start: place?.start ?? NONE,
      finish: place?.finish ?? NONE,
      sums,
      percent: Object.fromEntries(readers.map(([m, read]) => [m, percent(read)])) as Record<PercentMeasure, number>,
    };
  });
}
