import { workingTimeOf } from '../calendar/workingTime';
import { shownDays } from '../commands/dating';
import { calendarOf } from '../plan/calendars';
import type { Plan } from '../plan/schema';
import { isComplete } from '../schedule/given';
import type { Schedule } from '../schedule/model';
import { dayOf, type Day } from '../time/civil';
import type { BuildElement } from './element';

/** How an element stands on a date, at the end of the day. */
export const STAGES = ['loose', 'undated', 'notYet', 'underWay', 'there', 'going', 'gone'] as const;
export type Stage = (typeof STAGES)[number];
/** No activity is matched to it; its activities have no dates; … */
export const [LOOSE, UNDATED, NOT_YET, UNDER_WAY, THERE, GOING, GONE] = [0, 1, 2, 3, 4, 5, 6] as const;

/** Later than any day. */
const NEVER = 2_000_000;
/** Earlier than any day. */
const ALWAYS = -2_000_000;

/** From the first day of a work to its last, and how much of it is done at its end of each day, 0 to 1. */
interface Work {
  activity: number;
  first: Day;
  last: Day;
}

/**
 * When elements come and go. Days are those on which works are shown; an element is built from the first day of the
 * first work that builds it to the last day of the last one, and stands at the end of that day.
 */
export interface BuildTimes {
  count: number;
  /** Whether any activity of the plan is matched to it, and whether all of those have dates. */
  isLoose: Uint8Array;
  isUndated: Uint8Array;
  /** First day of building, and the day at whose end it stands. Always there before anything is said of building it. */
  from: Int32Array;
  built: Int32Array;
  /** First day of removal, and the day at whose end it is gone. */
  leaves: Int32Array;
  gone: Int32Array;
  /** Stays of what stands for a while, in their order, where there is more than one: the gaps between them. */
  stays: Map<number, [from: Day, to: Day][]>;
  /** Works by element: what builds it, and what removes it. */
  builders: Work[][];
  removers: Work[][];
  /** Positions of the activities that it stands for. */
  standers: number[][];
  /** Activities by element of any effect, positions in the plan. */
  activities: number[][];
  plan: Plan;
  status: Day | null;
}

/**
 * When elements come and go by the shown dates of a schedule.
 *
 * What stands for a while comes on the first day of its activity and is gone behind its last; that says nothing of what
 * other work builds or removes (see `conflicts`). Matches to activities
 * that the plan does not have (any more), and of elements that no model has, say nothing.
 */
export function buildTimes(plan: Plan, s: Schedule, elements: readonly BuildElement[]): BuildTimes {
  const count = elements.length;
  const at = new Map(elements.map((e, i) => [e.ref, i]));
  const t: BuildTimes = {
    count,
    isLoose: new Uint8Array(count).fill(1),
    isUndated: new Uint8Array(count),
    from: new Int32Array(count).fill(ALWAYS),
    built: new Int32Array(count).fill(ALWAYS),
    leaves: new Int32Array(count).fill(NEVER),
    gone: new Int32Array(count).fill(NEVER),
    stays: new Map(),
    builders: Array.from({ length: count }, () => EMPTY),
    removers: Array.from({ length: count }, () => EMPTY),
    standers: Array.from({ length: count }, () => NOBODY),
    activities: Array.from({ length: count }, () => NOBODY),
    plan,
    status: plan.statusDate === null ? null : dayOf(plan.statusDate),
  };
  const stays = new Map<number, [Day, Day][]>();
  for (const { activity, effect, elements: refs } of plan.matches) {
    const i = s.outline.indexOf.get(activity);
    if (i === undefined) continue;
    const shown = shownDays(s, i);
    for (const ref of refs) {
      const e = at.get(ref);
      if (e === undefined) continue;
      t.isLoose[e] = 0;
      t.activities[e] = [...t.activities[e]!, i];
      if (!shown) {
        t.isUndated[e] = 1;
        continue;
      }
      const work: Work = { activity: i, first: shown.first, last: shown.last };
      if (effect === 'builds') t.builders[e] = [...t.builders[e]!, work];
      else if (effect === 'removes') t.removers[e] = [...t.removers[e]!, work];
      else {
        t.standers[e] = [...t.standers[e]!, i];
        stays.set(e, [...(stays.get(e) ?? []), [shown.first, shown.last]]);
      }
    }
  }
  for (let e = 0; e < count; e++) {
    const [build, remove, stay] = [t.builders[e]!, t.removers[e]!, stays.get(e)];
    // What is built or removed does not only stand for a while.
    if (stay && build.length === 0 && remove.length === 0) {
      stay.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
      t.from[e] = stay[0]![0];
      t.built[e] = stay[0]![0];
      const end = stay.reduce((m, [, to]) => Math.max(m, to), ALWAYS);
      t.leaves[e] = end + 1;
      t.gone[e] = end + 1;
      // Between stays it is not there.
      if (stay.length > 1) t.stays.set(e, stay);
    }
    if (build.length > 0) {
      t.from[e] = build.reduce((m, w) => Math.min(m, w.first), NEVER);
      t.built[e] = build.reduce((m, w) => Math.max(m, w.last), ALWAYS);
    }
    if (remove.length > 0) {
      t.leaves[e] = remove.reduce((m, w) => Math.min(m, w.first), NEVER);
      t.gone[e] = remove.reduce((m, w) => Math.max(m, w.last), ALWAYS);
    }
  }
  return t;
}

const EMPTY: Work[] = [];
const NOBODY: number[] = [];

/** How an element stands at the end of a day. */
export function stageAt(t: BuildTimes, e: number, day: Day): number {
  if (t.isLoose[e]) return LOOSE;
  if (t.isUndated[e]) return UNDATED;
  if (day >= t.gone[e]!) return GONE;
  const stays = t.stays.get(e);
  if (stays && day >= t.built[e]! && !stays.some(([from, to]) => from <= day && day <= to)) return GONE;
  if (day >= t.built[e]!) return day >= t.leaves[e]! ? GOING : THERE;
  return day >= t.from[e]! ? UNDER_WAY : NOT_YET;
}

/** Working days of an activity behind one day, up to another. */
function workedDays({ plan }: BuildTimes, activity: number, from: Day, to: Day): number {
  if (to <= from) return 0;
  return workingTimeOf(calendarOf(plan, plan.activities[activity]!.calendar), 'day', from).between(from + 1, to + 1);
}

/**
 * How much of a work is done at the end of a day, 0 to 1: evenly over its working days, or over all its days where none
 * is worked. Where work has been reported, it is what was reported on the status date, evenly up to it, and the rest
 * evenly from then on.
 */
export function shareDone(t: BuildTimes, { activity, first, last }: Work, day: Day): number {
  if (day >= last) return 1;
  if (day < first) return 0;
  const a = t.plan.activities[activity]!;
  const even = (from: Day, to: Day) => {
    if (to <= from || day >= to) return 1;
    const all = workedDays(t, activity, from, to);
    return Math.max(0, all > 0 ? workedDays(t, activity, from, day) / all : (day - from) / (to - from));
  };
  const before = first - 1;
  if (t.status === null || isComplete(a) || a.percent === null || t.status < first || t.status >= last)
    return even(before, last);
  const done = a.percent / 100;
  return day <= t.status ? done * even(before, t.status) : done + (1 - done) * even(t.status, last);
}

/** How much of an element is there at the end of a day, 0 to 1; what several works build is theirs by their working days. */
export function shareBuilt(t: BuildTimes, e: number, day: Day): number {
  const stage = stageAt(t, e, day);
  if (stage === THERE) return 1;
  if (stage === UNDER_WAY) return shareRaised(t, e, day);
  if (stage === GOING) return 1 - shareOf(t, t.removers[e]!, day);
  return 0;
}

/** How much of what builds it is done at the end of a day, 0 to 1, whatever is removed of it. */
export const shareRaised = (t: BuildTimes, e: number, day: Day): number => shareOf(t, t.builders[e]!, day);

function shareOf(t: BuildTimes, works: readonly Work[], day: Day): number {
  let [done, all] = [0, 0];
  for (const w of works) {
    const days = workedDays(t, w.activity, w.first - 1, w.last) || w.last - w.first + 1;
    done += days * shareDone(t, w, day);
    all += days;
  }
  return all === 0 ? 1 : done / all;
}

/** The first and the last day on which any element comes or goes; null where none does. */
export function buildRange(t: BuildTimes): { first: Day; last: Day } | null {
  let [first, last] = [NEVER, ALWAYS];
  for (let e = 0; e < t.count; e++) {
    if (t.isLoose[e] || t.isUndated[e]) continue;
    if (t.from[e] !== ALWAYS) first = Math.min(first, t.from[e]!);
    if (t.built[e] !== ALWAYS) last = Math.max(last, t.built[e]!);
    if (t.leaves[e] !== NEVER) first = Math.min(first, t.leaves[e]!);
    if (t.gone[e] !== NEVER) last = Math.max(last, t.gone[e]!);
  }
  return last < first ? null : { first, last };
}
