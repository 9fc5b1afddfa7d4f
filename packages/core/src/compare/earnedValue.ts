import type { Plan } from '../plan/schema';
import { NONE } from '../schedule/slots';
import type { Schedule } from '../schedule/model';
import { activityTime } from '../schedule/workingDays';
import { type SpreadShape, shareReached } from './spread';

/** The measures of earned value from its three amounts and the budget at completion (ANSI/EIA-748, ISO 21508). */
export interface EarnedValue {
  pv: number;
  ev: number;
  ac: number;
  bac: number;
  /** Cost and schedule variance. */
  cv: number;
  sv: number;
  /** Cost and schedule performance index; null where they would be divided by nothing. */
  cpi: number | null;
  spi: number | null;
  /** Estimate at completion (BAC / CPI), to complete, and variance at completion. */
  eac: number | null;
  etc: number | null;
  vac: number | null;
  /** To-complete performance index against the budget. */
  tcpi: number | null;
}

export function earnedValueOf(pv: number, ev: number, ac: number, bac: number): EarnedValue {
  const ratio = (a: number, b: number) => (b === 0 ? null : a / b);
  const cpi = ratio(ev, ac);
  const eac = cpi === null || cpi === 0 ? null : bac / cpi;
  return {
    pv,
    ev,
    ac,
    bac,
    cv: ev - ac,
    sv: ev - pv,
    cpi,
    spi: ratio(ev, pv),
    eac,
    etc: eac === null ? null : eac - ac,
    vac: eac === null ? null : bac - eac,
    tcpi: ratio(bac - ev, bac - ac),
  };
}

/** Amounts planned by a moment: each activity's budgeted cost, spread over its baseline dates. */
export function plannedValue(baseline: Plan, b: Schedule, moment: number, shape: SpreadShape = 'uniform'): number {
  const time = activityTime(baseline, b);
  let sum = 0;
  baseline.activities.forEach((a, i) => {
    if (a.cost === null || b.outline.isSummary[i] || b.start[i] === NONE) return;
    sum +=
      a.cost *
      shareDone(
        time.minutesBetween(i, b.start[i]!, b.finish[i]!),
        b.start[i]!,
        moment,
        b.finish[i]!,
        (to) => time.minutesBetween(i, b.start[i]!, to),
        shape,
      );
  });
  return sum;
}

function shareDone(
  length: number,
  start: number,
  moment: number,
  finish: number,
  elapsed: (to: number) => number,
  shape: SpreadShape,
): number {
  if (moment >= finish) return 1;
  if (moment <= start || length <= 0) return 0;
  return shareReached(shape, elapsed(moment) / length);
}

/** Earned value of a plan at its status date: budgets of the baseline, percent and actual cost of the current edition. */
export function earnedValue(
  current: Plan,
  s: Schedule,
  baseline: Plan,
  b: Schedule,
  moment: number,
  shape: SpreadShape = 'uniform',
): EarnedValue {
  let [ev, ac, bac] = [0, 0, 0];
  baseline.activities.forEach((base, j) => {
    if (base.cost === null || b.outline.isSummary[j]) return;
    bac += base.cost;
    const i = s.outline.indexOf.get(base.ref);
    if (i === undefined) return;
    const a = current.activities[i]!;
    ev += (base.cost * (a.actualFinish !== null ? 100 : (a.percent ?? 0))) / 100;
  });
  current.activities.forEach((a, i) => {
    if (!s.outline.isSummary[i]) ac += a.actualCost ?? 0;
  });
  return earnedValueOf(plannedValue(baseline, b, moment, shape), ev, ac, bac);
}

/**
 * Earned schedule (W. Lipke, "Schedule is Different", 2003): the time at which as much was planned as is earned
 * now, in periods.
 * @param planned cumulative planned value at the end of each period, the first one after one period
 */
export function earnedSchedule(planned: readonly number[], ev: number): number {
  let n = 0;
  while (n < planned.length && planned[n]! <= ev) n++;
  if (n === planned.length) return n;
  const before = n === 0 ? 0 : planned[n - 1]!;
  return n + (ev - before) / (planned[n]! - before);
}
