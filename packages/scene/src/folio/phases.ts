import { endsOf, type Day, percentComplete, type Plan, type Schedule, shownDays, wholePercent } from '@clembo/core';

/** A stretch of a plan that stands for all that is in it. */
export interface Phase {
  /** The group; null for the plan as a whole. */
  ref: string | null;
  name: string;
  /** All that is in it. */
  within: string[];
  first: Day;
  last: Day;
  /** The share of it that is done, 0 to 1; null where nothing says how much there is of it. */
  done: number | null;
  /** By how many working days it ends later than promised (earlier: negative); null without a promise. */
  late: number | null;
}

/**
 * The phases of a plan: the groups at the top of its outline; where one group holds everything, the groups in that one.
 * A plan that is not divided has itself as its only phase; one without dates has none.
 */
export function phasesOf(plan: Plan, schedule: Schedule, promised: { plan: Plan; schedule: Schedule } | null): Phase[] {
  const { outline } = schedule;
  const groupsIn = (list: readonly number[]) => list.filter((i) => outline.isSummary[i]);
  let groups = groupsIn(outline.roots);
  for (let only = groups[0]; groups.length === 1 && only !== undefined; only = groups[0]) {
    const within = groupsIn(outline.children[only]!);
    if (within.length < 2) break;
    groups = within;
  }
  const { percent, whole } = percentComplete(plan, schedule, 'stated');
  const share = (of: number) => (Number.isNaN(of) ? null : of / 100);
  if (groups.length < 2) {
    const days = plan.activities.flatMap((_, i) => shownDays(schedule, i) ?? []);
    if (days.length === 0) return [];
    const first = days.reduce((a, d) => Math.min(a, d.first), Number.POSITIVE_INFINITY);
    const last = days.reduce((a, d) => Math.max(a, d.last), Number.NEGATIVE_INFINITY);
    return [{ ref: null, name: plan.name, within: [], first, last, done: share(whole), late: null }];
  }
  return groups.flatMap((i): Phase[] => {
    const shown = shownDays(schedule, i);
    if (!shown) return [];
    const { ref, name } = plan.activities[i]!;
    const { late } = endsOf(plan, schedule, promised, insideOf(i, outline.children));
    const within = insideOf(i, outline.children).map((k) => plan.activities[k]!.ref);
    return [{ ref, name: name || ref, within, first: shown.first, last: shown.last, done: share(percent[i]!), late }];
  });
}

/** How much of a phase is done, in words. */
export const doneWords = ({ done }: Phase): string =>
  done === null ? 'share done not known' : `${wholePercent(100 * done)} % done`;

/** All positions below one, at any depth. */
const insideOf = (i: number, children: readonly (readonly number[])[]): number[] =>
  children[i]!.flatMap((k) => [k, ...insideOf(k, children)]);
