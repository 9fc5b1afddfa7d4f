import { apartReader, extentOf, promisedExtent } from '../compare/behind';
import type { Plan } from '../plan/schema';
import { AS_PROMISED, EXPECTED, isComplete, UNKNOWN } from '../schedule/given';
import type { Schedule } from '../schedule/model';
import { NONE } from '../schedule/slots';
import type { Day } from '../time/civil';
import { lastDayOf } from '../time/days';

/** When a set of activities begins and ends, how sure that is, and how it stands against what was promised of it. */
export interface Ends {
  /** How many activities are told of. */
  of: number;
  /** How many of them are open and have no finish that is known. */
  openWithout: number;
  /** Whether all of them are complete. */
  complete: boolean;
  first: Day | null;
  /** The last day that is known: that of the end where `openWithout` is 0. */
  last: Day | null;
  /** Position of what ends last. */
  lastOf: number | null;
  /** Whether the last finish was worked out, or is taken from the promise, rather than stated. */
  expected: 'expected' | 'asPromised' | null;
  /** First and last day that was promised of the same activities. */
  promisedFirst: Day | null;
  promised: Day | null;
  /** Working days of the plan's calendar behind the promise; earlier is negative. Null where one of both is not known. */
  startLate: number | null;
  late: number | null;
}

/**
 * The fact of the end: one function for every title, snapshot, standing and command that tells of it. Nothing is said
 * of an end against a promise where something open has none. Supporting work ends with what it supports, and is told
 * of only where there is nothing else.
 *
 * @param positions the activities that are told of; groups among them are passed over
 */
export function endsOf(
  plan: Plan,
  s: Schedule,
  promised: { plan: Plan; schedule: Schedule } | null,
  positions: Iterable<number>,
): Ends {
  const all: number[] = [];
  let [open, openWithout] = [0, 0];
  for (const i of positions) {
    if (s.outline.isSummary[i]) continue;
    all.push(i);
    const a = plan.activities[i]!;
    if (isComplete(a)) continue;
    open++;
    if (a.kind !== 'levelOfEffort' && s.finishFrom[i] === UNKNOWN) openWithout++;
  }
  const place = extentOf(s, all);
  const then = promised && promisedExtent(plan, promised, all);
  const apart = apartReader(plan);
  const known = place !== null && then !== null && openWithout === 0;
  return {
    of: all.length,
    openWithout,
    complete: all.length > 0 && open === 0,
    first: place?.first ?? null,
    last: place?.last ?? null,
    lastOf: place?.lastOf ?? null,
    expected: place && softness(s, all, place.last),
    promisedFirst: then?.first ?? null,
    promised: then?.last ?? null,
    startLate: place && then ? apart.starts(null, then, place) : null,
    late: known ? apart.finishes(null, then, place) : null,
  };
}

/** How the finish on a last day was found: of several on that day one that is stated settles it. */
function softness(s: Schedule, positions: readonly number[], last: Day): Ends['expected'] {
  let found: Ends['expected'] = 'asPromised';
  for (const i of positions) {
    const from = s.finishFrom[i];
    if (
      from === AS_PROMISED ||
      s.start[i] === NONE ||
      lastDayOf({ start: s.start[i]!, finish: s.finish[i]!, atFinish: s.atFinish[i] === 1 }) !== last
    )
      continue;
    if (from !== EXPECTED) return null;
    found = 'expected';
  }
  return found;
}

/** All activities of a plan that are no groups. */
export const allRows = (plan: Plan, s: Schedule): number[] =>
  [...plan.activities.keys()].filter((i) => !s.outline.isSummary[i]);

/** The fact of the end of a whole plan; see {@link endsOf}. */
export const planEnds = (plan: Plan, s: Schedule, promised: { plan: Plan; schedule: Schedule } | null): Ends =>
  endsOf(plan, s, promised, allRows(plan, s));
