import { daysByRate } from '../linear/length';
import { type Activity, isMilestone, type PercentMeasure, type Plan } from '../plan/schema';
import { statusEnd } from '../plan/status';
import { isComplete } from './given';
import type { Schedule } from './model';
import { NONE } from './slots';
import { type ActivityTime, activityTime } from './workingDays';

/** Percent complete, 0 to 100; NaN where there is nothing to measure. */
export interface Percents {
  /** By position: of an activity, or of all that a summary holds. */
  percent: Float64Array;
  whole: number;
}

/**
 * How much there is of something and how much of it is done, in the unit of a measure. Points in time have no
 * length: what holds nothing else is as complete as the share of its points that is reached.
 */
export interface Done {
  all: number;
  done: number;
  points: number;
  reached: number;
  /** How many are not complete, and nothing says how much there is of them. */
  unknown: number;
  /** How many activities, without milestones and supporting work, are not complete. */
  open: number;
}

export const nothingDone = (): Done => ({ all: 0, done: 0, points: 0, reached: 0, unknown: 0, open: 0 });

/** Work that is not complete is at most so many percent done, also once all of its time or effort is gone. */
const MOST_OF_OPEN = 99;

/** Percent of what is known; NaN where nothing is, or where all that is known is done and more is to come. */
export function percentOf({ all, done, points, reached, unknown, open }: Done): number {
  const percent = all > 0 ? (100 * done) / all : points > 0 ? (100 * reached) / points : Number.NaN;
  if (unknown > 0 && percent >= 100) return Number.NaN;
  return open > 0 ? Math.min(percent, MOST_OF_OPEN) : percent;
}

/**
 * What is done of an activity.
 *
 * - `stated`: its percent, or all of it once it has an actual finish; weighted by working time,
 * - `time`: working time gone of its length: what is not remaining, or lies between the actual start and the status
 *   date; weighted by working time,
 * - `effort`: actual of actual and remaining effort; weighted by effort.
 *
 * Supporting work has no weight of its own in working time. What has no dates weighs what its length, its rate or
 * its promise says.
 */
export function doneReader(plan: Plan, s: Schedule, measure: PercentMeasure): (position: number) => Done {
  const time = activityTime(plan, s);
  return (i) => {
    const a = plan.activities[i]!;
    const finished = a.actualFinish !== null;
    const complete = isComplete(a);
    const open = complete || isMilestone(a.kind) || a.kind === 'levelOfEffort' ? 0 : 1;
    if (measure === 'effort') {
      const actual = a.actualEffort ?? 0;
      const all = finished ? (a.actualEffort ?? a.effort ?? 0) : Math.max(a.effort ?? 0, actual);
      return { ...nothingDone(), all, done: finished ? all : actual, open };
    }
    const dated = s.start[i] !== NONE && (s.finish[i]! > s.start[i]! || isMilestone(a.kind));
    const length = dated ? Math.max(0, time.minutesBetween(i, s.start[i]!, s.finish[i]!)) : statedLength(a, time, i);
    const stated = complete ? 1 : (a.percent ?? 0) / 100;
    const share = measure === 'time' && !complete ? shareOfTime(plan, time, i, length ?? 0, stated) : stated;
    const all = a.kind === 'levelOfEffort' ? 0 : (length ?? 0);
    const isUnknown = length === null && !complete && a.kind !== 'levelOfEffort';
    return { all, done: all * share, points: 1, reached: complete ? 1 : 0, unknown: isUnknown ? 1 : 0, open };
  };
}

/** Working minutes of what has no dates, or only one: its own length, that of its rate, or the promised one; null for none. */
function statedLength(a: Activity, time: ActivityTime, i: number): number | null {
  if (isMilestone(a.kind)) return 0;
  if (a.duration !== null) return a.duration;
  const days = daysByRate(a);
  if (days !== null) return days * time.minutesPerDay(i);
  const { start, finish } = a.promised ?? { start: null, finish: null };
  return start === null || finish === null ? null : time.minutesBetween(i, start, finish);
}

/** Share of the working time of an unfinished activity that is gone. */
function shareOfTime(plan: Plan, time: ActivityTime, i: number, length: number, stated: number): number {
  const a = plan.activities[i]!;
  if (a.actualStart === null && stated === 0) return 0;
  if (length === 0) return stated;
  const all = a.duration !== null && a.duration > 0 ? a.duration : length;
  if (a.remaining !== null) return Math.max(0, 1 - a.remaining / all);
  const status = statusEnd(plan);
  if (a.actualStart === null || status === null) return stated;
  const gone = time.minutesBetween(i, a.actualStart, status);
  return Math.min(1, Math.max(0, gone / length));
}

/** Percent complete by a measure, of every activity and summary and of the whole plan; by default the plan's own. */
export function percentComplete(plan: Plan, s: Schedule, measure: PercentMeasure = plan.percentShown): Percents {
  const n = plan.activities.length;
  const percent = new Float64Array(n);
  const read = doneReader(plan, s, measure);
  const held: (Done | undefined)[] = new Array(n);
  const whole = nothingDone();
  const { order, parent, isSummary } = s.outline;
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    const own = isSummary[i] ? (held[i] ?? nothingDone()) : read(i);
    percent[i] = isSummary[i] ? percentOf(own) : ofActivity(plan, i, own, measure);
    const p = parent[i]!;
    addDone(p === -1 ? whole : (held[p] ??= nothingDone()), own);
  }
  return { percent, whole: percentOf(whole) };
}

/**
 * Reads the percents of {@link percentComplete} one by one: those of activities by themselves, and all of them only once
 * a summary is asked for.
 */
export function percentReader(
  plan: Plan,
  s: Schedule,
  measure: PercentMeasure = plan.percentShown,
): (position: number) => number {
  const read = doneReader(plan, s, measure);
  let all: Float64Array | null = null;
  return (i) => {
    if (!all && !s.outline.isSummary[i]) return ofActivity(plan, i, read(i), measure);
    all ??= percentComplete(plan, s, measure).percent;
    return all[i]!;
  };
}

/** An activity says what is done of it also where that has no weight. */
function ofActivity(plan: Plan, i: number, own: Done, measure: PercentMeasure): number {
  if (measure === 'effort' || own.all > 0) return percentOf(own);
  const a = plan.activities[i]!;
  return a.actualFinish !== null || own.reached > 0 ? 100 : (a.percent ?? 0);
}

export function addDone(sum: Done, more: Done): void {
  sum.all += more.all;
  sum.done += more.done;
  sum.points += more.points;
  sum.reached += more.reached;
  sum.unknown += more.unknown;
  sum.open += more.open;
}
