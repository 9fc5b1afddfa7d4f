import { type Activity, isMilestone, type PercentMeasure, type Plan } from '../plan/schema';
import { isComplete } from '../schedule/given';
import { NONE } from '../schedule/slots';
import type { Schedule } from '../schedule/model';
import { activityTime } from '../schedule/workingDays';
import { doneReader, percentOf } from '../schedule/percent';

/** How far off is normal, and how far is a risk. Shares of the baseline, and working days for dates. */
export interface Tolerance {
  /** Up to this share off the baseline is in tolerance (common practice: 10 %). */
  watch: number;
  /** From this share on it is a breach (common practice: 50 %). */
  breach: number;
  /** The same for dates, in working days late. */
  watchDays: number;
  breachDays: number;
}

export const DEFAULT_TOLERANCE: Tolerance = { watch: 0.1, breach: 0.5, watchDays: 5, breachDays: 25 };

export type Band = 'ahead' | 'inTolerance' | 'watch' | 'breach';

/** Working days late; early is negative. */
export function bandOfDays(days: number, t: Tolerance): Band {
  if (days < 0) return 'ahead';
  if (days <= t.watchDays) return 'inTolerance';
  return days < t.breachDays ? 'watch' : 'breach';
}

/** Ratio of an amount to its baseline: 1.5 is half as much again. */
export function bandOfRatio(ratio: number, t: Tolerance): Band {
  if (ratio < 1) return 'ahead';
  // Shares are compared to a millionth: 66 of 60 hours are ten percent over, not a hair more.
  const over = Math.round((ratio - 1) * 1e6) / 1e6;
  if (over <= t.watch) return 'inTolerance';
  return over < t.breach ? 'watch' : 'breach';
}

/** One activity against its baseline. Dates in working days (late is positive), amounts as ratios; null where one side is missing. */
export interface Variance {
  ref: string;
  startDays: number | null;
  finishDays: number | null;
  durationDays: number | null;
  durationRatio: number | null;
  effortRatio: number | null;
  costRatio: number | null;
  band: Band | null;
}

/**
 * Compares every activity of the current edition with the baseline, matched by unique reference, in working days
 * of its own calendar in the current edition. The band is that of the finish, or of the worst amount if worse.
 */
export function varianceAgainst(
  current: Plan,
  s: Schedule,
  baseline: Plan,
  b: Schedule,
  tolerance = DEFAULT_TOLERANCE,
): Variance[] {
  const time = activityTime(current, s);
  const baseTime = activityTime(baseline, b);
  const list: Variance[] = [];
  current.activities.forEach((a, i) => {
    const j = b.outline.indexOf.get(a.ref);
    if (j === undefined || s.outline.isSummary[i] !== b.outline.isSummary[j]) return;
    const base = baseline.activities[j]!;
    const both = s.start[i] !== NONE && b.start[j] !== NONE;
    const days = (from: number, to: number) => round(time.daysBetween(i, from, to));
    const length = (p: typeof time, k: number, x: Schedule) => p.daysBetween(k, x.start[k]!, x.finish[k]!);
    const duration = both && !isMilestone(a.kind) ? [length(time, i, s), length(baseTime, j, b)] : null;
    const ratio = (now: number | null, then: number | null) =>
      now === null || then === null || then <= 0 ? null : now / then;
    const v: Variance = {
      ref: a.ref,
      startDays: both ? days(b.start[j]!, s.start[i]!) : null,
      finishDays: both ? days(b.finish[j]!, s.finish[i]!) : null,
      durationDays: duration ? round(duration[0]! - duration[1]!) : null,
      durationRatio: duration ? ratio(duration[0]!, duration[1]!) : null,
      effortRatio: ratio(amountAtEnd(a, 'effort'), base.effort),
      costRatio: ratio(amountAtEnd(a, 'cost'), base.cost),
      band: null,
    };
    v.band = worst([
      v.finishDays === null ? null : bandOfDays(v.finishDays, tolerance),
      ...[v.effortRatio, v.costRatio].map((r) => (r === null ? null : bandOfRatio(r, tolerance))),
    ]);
    list.push(v);
  });
  return list;
}

/**
 * What an amount of an activity will come to: what was spent once it is complete, else the budget, or what is spent
 * already where that is more. Null where nothing is known.
 */
export function amountAtEnd(a: Activity, amount: 'cost' | 'effort'): number | null {
  const actual = amount === 'cost' ? a.actualCost : a.actualEffort;
  if (actual === null) return a[amount];
  return isComplete(a) ? actual : Math.max(actual, a[amount] ?? 0);
}

const ORDER: Band[] = ['ahead', 'inTolerance', 'watch', 'breach'];

const worst = (bands: (Band | null)[]): Band | null =>
  bands.reduce<Band | null>(
    (a, b) => (b === null || (a !== null && ORDER.indexOf(a) >= ORDER.indexOf(b)) ? a : b),
    null,
  );

const round = (n: number): number => Math.round(n * 1000) / 1000 + 0;

/** Current, baseline, actual, remaining and variance of one thing. */
export interface SnapshotRow {
  current: number | null;
  baseline: number | null;
  actual: number | null;
  remaining: number | null;
  variance: number | null;
}

/** The small table about one activity. Moments for dates (their variance in working days), working days, minutes, hundredths of cost. */
export interface Snapshot {
  start: SnapshotRow;
  finish: SnapshotRow;
  duration: SnapshotRow;
  effort: SnapshotRow;
  cost: SnapshotRow;
  /** By each measure; null where there is nothing to measure. */
  percent: Record<PercentMeasure, number | null>;
}

export function snapshotOf(current: Plan, s: Schedule, baseline: Plan, b: Schedule, ref: string): Snapshot | null {
  const i = s.outline.indexOf.get(ref);
  if (i === undefined) return null;
  const j = b.outline.indexOf.get(ref) ?? -1;
  const a = current.activities[i]!;
  const base = j < 0 ? null : baseline.activities[j]!;
  const time = activityTime(current, s);
  const moment = (m: number | undefined) => (m === undefined || m === NONE ? null : m);
  const dates = (now: number | null, then: number | null, actual: number | null): SnapshotRow => ({
    current: now,
    baseline: then,
    actual,
    remaining: null,
    variance: now === null || then === null ? null : round(time.daysBetween(i, then, now)),
  });
  const amounts = (now: number | null, then: number | null, actual: number | null): SnapshotRow => ({
    current: now,
    baseline: then,
    actual,
    remaining: now === null ? null : Math.max(0, now - (actual ?? 0)),
    variance: now === null || then === null ? null : now - then,
  });
  const measured = (measure: PercentMeasure) => {
    const value = percentOf(doneReader(current, s, measure)(i));
    return Number.isNaN(value) ? null : value;
  };
  const whole = moment(s.start[i]) === null ? null : round(time.daysBetween(i, s.start[i]!, s.finish[i]!));
  const percent = a.actualFinish !== null ? 100 : (a.percent ?? 0);
  // Whole days done are rounded down: thirty percent of fourteen days are four days done and ten to go.
  const done = whole === null ? null : Math.floor((whole * percent) / 100 + 1e-9);
  const before =
    j < 0 || moment(b.start[j]) === null
      ? null
      : round(activityTime(baseline, b).daysBetween(j, b.start[j]!, b.finish[j]!));
  return {
    start: dates(moment(s.start[i]), j < 0 ? null : moment(b.start[j]), a.actualStart),
    finish: dates(moment(s.finish[i]), j < 0 ? null : moment(b.finish[j]), a.actualFinish),
    duration: {
      current: whole,
      baseline: before,
      actual: done,
      remaining: whole === null ? null : whole - done!,
      variance: whole === null || before === null ? null : round(whole - before),
    },
    effort: amounts(amountAtEnd(a, 'effort'), base?.effort ?? null, a.actualEffort),
    cost: amounts(amountAtEnd(a, 'cost'), base?.cost ?? null, a.actualCost),
    percent: { stated: percent, time: measured('time'), effort: measured('effort') },
  };
}
