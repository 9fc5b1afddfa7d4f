import { type Band, bandOfDays, bandOfRatio, toleranceOf, worstBand } from '../plan/tolerance';
import { type Activity, isMilestone, type PercentMeasure, type Plan } from '../plan/schema';
import { daysDoneReader } from '../measure/daysDone';
import { isComplete } from '../schedule/given';
import { behindReader } from './behind';
import { NONE } from '../schedule/slots';
import type { Schedule } from '../schedule/model';
import { activityTime } from '../schedule/workingDays';
import { doneReader, percentOf } from '../schedule/percent';

/** One activity against its baseline. Dates in working days (late is positive), amounts as ratios; null where one side is missing. */
export interface Variance {
  ref: string;
  startDays: number | null;
  finishDays: number | null;
  durationDays: number | null;
  durationRatio: number | null;
  effortRatio: number | null;
  costRatio: number | null;
  /** By its dates alone. */
  dateBand: Band | null;
  band: Band | null;
}

/**
 * Compares activities of the current edition with the baseline, matched by unique reference, in working days of their
 * own calendar in the current edition. By the tolerances of the current edition, the band is that of the finish, or of
 * the worst amount if worse. Null for what the baseline does not have, or has as a group where the other is none.
 */
export function varianceReader(
  current: Plan,
  s: Schedule,
  baseline: Plan,
  b: Schedule,
): (position: number) => Variance | null {
  const time = activityTime(current, s);
  const baseTime = activityTime(baseline, b);
  const behind = behindReader(current, s, { schedule: b });
  const length = (p: typeof time, k: number, x: Schedule) => p.daysBetween(k, x.start[k]!, x.finish[k]!);
  const ratio = (now: number | null, then: number | null) =>
    now === null || then === null || then <= 0 ? null : now / then;
  return (i) => {
    const a = current.activities[i]!;
    const j = b.outline.indexOf.get(a.ref);
    if (j === undefined || s.outline.isSummary[i] !== b.outline.isSummary[j]) return null;
    const base = baseline.activities[j]!;
    const off = behind(i, j);
    const duration = off && !isMilestone(a.kind) ? [length(time, i, s), length(baseTime, j, b)] : null;
    const finishDays = off?.finish ?? null;
    const effortRatio = ratio(amountAtEnd(a, 'effort'), base.effort);
    const costRatio = ratio(amountAtEnd(a, 'cost'), base.cost);
    const tolerance = toleranceOf(current, a);
    const dateBand = finishDays === null ? null : bandOfDays(finishDays, tolerance);
    return {
      ref: a.ref,
      startDays: off?.start ?? null,
      finishDays,
      durationDays: duration ? round(duration[0]! - duration[1]!) : null,
      durationRatio: duration ? ratio(duration[0]!, duration[1]!) : null,
      effortRatio,
      costRatio,
      dateBand,
      band: worstBand([
        dateBand,
        effortRatio === null ? null : bandOfRatio(effortRatio, tolerance.effort),
        costRatio === null ? null : bandOfRatio(costRatio, tolerance.cost),
      ]),
    };
  };
}

/** Compares every activity with the baseline; see {@link varianceReader}. */
export function varianceAgainst(current: Plan, s: Schedule, baseline: Plan, b: Schedule): Variance[] {
  const read = varianceReader(current, s, baseline, b);
  return current.activities.flatMap((_, i) => read(i) ?? []);
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
  const off = j < 0 ? null : behindReader(current, s, { schedule: b })(i, j);
  const dates = (now: number | null, then: number | null, actual: number | null, by?: number): SnapshotRow => ({
    current: now,
    baseline: then,
    actual,
    remaining: null,
    variance: by ?? null,
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
  const split = daysDoneReader(current, s)(i);
  const before =
    j < 0 || moment(b.start[j]) === null
      ? null
      : round(activityTime(baseline, b).daysBetween(j, b.start[j]!, b.finish[j]!));
  return {
    start: dates(moment(s.start[i]), j < 0 ? null : moment(b.start[j]), a.actualStart, off?.start),
    finish: dates(moment(s.finish[i]), j < 0 ? null : moment(b.finish[j]), a.actualFinish, off?.finish),
    duration: {
      current: whole,
      baseline: before,
      actual: split?.done ?? null,
      remaining: split?.toGo ?? null,
      variance: whole === null || before === null ? null : round(whole - before),
    },
    effort: amounts(amountAtEnd(a, 'effort'), base?.effort ?? null, a.actualEffort),
    cost: amounts(amountAtEnd(a, 'cost'), base?.cost ?? null, a.actualCost),
    percent: { stated: percent, time: measured('time'), effort: measured('effort') },
  };
}
