import type { Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import type { Day } from '../time/civil';
import type { BuildElement, ElementMeasure } from './element';
import {
  type BuildTimes,
  GONE,
  LOOSE,
  NOT_YET,
  shareRaised,
  stageAt,
  STAGES,
  THERE,
  UNDATED,
  UNDER_WAY,
} from './times';

/** Against the promise: not as far as promised, as promised, farther. */
export type Against = -1 | 0 | 1;

/**
 * How elements stand against a promise at the end of a day: behind where they have not come as far as was promised,
 * ahead where they have come farther. What is loose or without dates on either side is neither.
 */
export function againstPromise(now: BuildTimes, promised: BuildTimes, day: Day): Int8Array {
  const against = new Int8Array(now.count);
  for (let e = 0; e < now.count; e++) {
    const [a, b] = [stageAt(now, e, day), stageAt(promised, e, day)];
    if (a <= UNDATED || b <= UNDATED) continue;
    against[e] = Math.sign(a - b);
  }
  return against;
}

/** How many elements stand how. */
export function countStages(stages: Uint8Array): Record<(typeof STAGES)[number], number> {
  const counts = Object.fromEntries(STAGES.map((s) => [s, 0])) as Record<(typeof STAGES)[number], number>;
  for (const s of stages) counts[STAGES[s]!]++;
  return counts;
}

/** What elements are counted by. */
export type CurveMeasure = 'count' | ElementMeasure;

const amountOf = (e: BuildElement, measure: CurveMeasure): number => (measure === 'count' ? 1 : (e[measure] ?? 0));

/**
 * How much is built by the ends of some days, of what any work builds; on and behind the last day of building it is
 * all of it, whatever is removed later.
 *
 * @param days in their order
 * @param meant 1 for each element that is counted; all where nothing is said
 */
export function quantityBuilt(
  t: BuildTimes,
  elements: readonly BuildElement[],
  measure: CurveMeasure,
  days: readonly Day[],
  meant: Uint8Array | null = null,
): { built: number[]; total: number } {
  const built = days.map(() => 0);
  let total = 0;
  for (let e = 0; e < t.count; e++) {
    if (t.builders[e]!.length === 0 || t.isUndated[e] || (meant && !meant[e])) continue;
    const amount = amountOf(elements[e]!, measure);
    total += amount;
    days.forEach((day, k) => {
      if (day >= t.built[e]!) built[k]! += amount;
      else if (day >= t.from[e]!) built[k]! += amount * shareRaised(t, e, day);
    });
  }
  return { built, total };
}

/** What has a partner and what waits for one. */
export interface Coverage {
  elements: number;
  matched: number;
  /** Positions of elements without work, and of activities without elements. */
  loose: number[];
  idle: number[];
  /** How many activities could have elements: no summaries, no milestones. */
  activities: number;
  /** How many elements each activity has, by its position. */
  counts: Map<number, number>;
}

/** Which elements have no activity, and which activities no element. Milestones and summaries need none. */
export function coverage(plan: Plan, s: Schedule, elements: readonly BuildElement[]): Coverage {
  const known = new Set(elements.map((e) => e.ref));
  const withWork = new Set<string>();
  const counts = new Map<number, number>();
  for (const m of plan.matches) {
    const i = s.outline.indexOf.get(m.activity);
    if (i === undefined) continue;
    const own = m.elements.filter((e) => known.has(e));
    if (own.length > 0) counts.set(i, (counts.get(i) ?? 0) + own.length);
    for (const e of own) withWork.add(e);
  }
  const works = plan.activities.flatMap((a, i) =>
    s.outline.isSummary[i] || (a.kind !== 'activity' && a.kind !== 'levelOfEffort') ? [] : [i],
  );
  return {
    elements: elements.length,
    matched: withWork.size,
    loose: elements.flatMap((e, i) => (withWork.has(e.ref) ? [] : [i])),
    idle: works.filter((i) => !counts.has(i)),
    activities: works.length,
    counts,
  };
}

/** What cannot be as it is matched. */
export interface Conflict {
  kind: 'builtTwice' | 'removedBeforeBuilt' | 'standsAndBuilt';
  element: number;
  /** Positions of the activities that it is about. */
  activities: number[];
}

/**
 * Elements that several activities build, elements that are removed before they stand, and elements that stand for a
 * while although other work builds or removes them.
 */
export function conflicts(t: BuildTimes): Conflict[] {
  const found: Conflict[] = [];
  for (let element = 0; element < t.count; element++) {
    const build = t.builders[element]!;
    const remove = t.removers[element]!;
    if (build.length > 1) found.push({ kind: 'builtTwice', element, activities: build.map((w) => w.activity) });
    if (t.standers[element]!.length > 0 && build.length + remove.length > 0)
      found.push({
        kind: 'standsAndBuilt',
        element,
        activities: [...t.standers[element]!, ...[...build, ...remove].map((w) => w.activity)],
      });
    if (build.length > 0 && remove.length > 0 && t.leaves[element]! <= t.built[element]!)
      found.push({
        kind: 'removedBeforeBuilt',
        element,
        activities: [...build, ...remove].map((w) => w.activity),
      });
  }
  return found;
}

/** Whether anything of an element is to be seen at a stage: it stands, comes or goes. */
export const isSeen = (stage: number): boolean => stage !== GONE && stage !== NOT_YET && stage !== LOOSE;
export const isDone = (stage: number): boolean => stage === THERE || stage === UNDER_WAY;
