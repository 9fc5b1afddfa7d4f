import type { Activity, Plan } from '../plan/schema';
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

/** What is spread and earned: cost in hundredths, effort in minutes. */
type Budgeted = 'cost' | 'effort';

/** Amounts planned by a moment: each activity's budgeted cost, spread over its baseline dates. */
export const plannedValue = (baseline: Plan, b: Schedule, moment: number, shape: SpreadShape = 'uniform'): number =>
  plannedBy(baseline, b, moment, 'cost', null, shape);

/**
 * Amounts planned by a moment, of all activities or of some.
 * @param refs the activities that are counted; null for all
 */
export function plannedBy(
  baseline: Plan,
  b: Schedule,
  moment: number,
  amount: Budgeted,
  refs: ReadonlySet<string> | null = null,
  shape: SpreadShape = 'uniform',
): number {
  const time = activityTime(baseline, b);
  let sum = 0;
  baseline.activities.forEach((a, i) => {
    const budget = a[amount];
    if (budget === null || b.outline.isSummary[i] || b.start[i] === NONE || refs?.has(a.ref) === false) return;
    // What is over or has not begun needs no calendar.
    if (moment <= b.start[i]! && moment < b.finish[i]!) return;
    if (moment >= b.finish[i]!) {
      sum += budget;
      return;
    }
    sum +=
      budget *
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

/** Share of an activity that is done as the planner states it. */
const statedShare = (a: Activity): number => (a.actualFinish !== null ? 1 : (a.percent ?? 0) / 100);

/**
 * What is earned, spent and budgeted in all: budgets of the baseline, percent and actual amounts of the current edition.
 * @param refs the activities that are counted; null for all
 */
export function earnedAmounts(
  current: Plan,
  s: Schedule,
  baseline: Plan,
  b: Schedule,
  amount: Budgeted,
  refs: ReadonlySet<string> | null = null,
): { ev: number; ac: number; bac: number } {
  let [ev, ac, bac] = [0, 0, 0];
  baseline.activities.forEach((base, j) => {
    const budget = base[amount];
    if (budget === null || b.outline.isSummary[j] || refs?.has(base.ref) === false) return;
    bac += budget;
    const i = s.outline.indexOf.get(base.ref);
    if (i !== undefined) ev += budget * statedShare(current.activities[i]!);
  });
  const spent = amount === 'cost' ? 'actualCost' : 'actualEffort';
  current.activities.forEach((a, i) => {
    if (!s.outline.isSummary[i] && refs?.has(a.ref) !== false) ac += a[spent] ?? 0;
  });
  return { ev, ac, bac };
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
  const { ev, ac, bac } = earnedAmounts(current, s, baseline, b, 'cost');
  return earnedValueOf(plannedValue(baseline, b, moment, shape), ev, ac, bac);
}

/**
 * The end of the day by which as much was planned as is earned now: earned schedule on the calendar (W. Lipke, "Schedule is
 * Different", 2003). Null where nothing was planned, or less in all than is earned.
 */
export function earnedMoment(
  baseline: Plan,
  b: Schedule,
  amount: Budgeted,
  ev: number,
  refs: ReadonlySet<string> | null = null,
): number | null {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  baseline.activities.forEach((a, i) => {
    if (a[amount] === null || b.outline.isSummary[i] || b.start[i] === NONE || refs?.has(a.ref) === false) return;
    low = Math.min(low, b.start[i]!);
    high = Math.max(high, b.finish[i]!);
  });
  if (low > high || plannedBy(baseline, b, high, amount, refs) < ev - 1e-6) return null;
  // Whole days: nobody asks at which hour.
  let [first, last] = [Math.floor(low / 1440), Math.ceil(high / 1440)];
  while (last - first > 1) {
    const middle = Math.floor((first + last) / 2);
    if (plannedBy(baseline, b, middle * 1440, amount, refs) >= ev - 1e-6) last = middle;
    else first = middle;
  }
  return last * 1440;
}

/** Cumulative amounts at moments; earned and spent end where the status date is. */
export interface Curves {
  moments: number[];
  planned: number[];
  earned: (number | null)[];
  spent: (number | null)[];
}

/**
 * Planned, earned and spent amounts over time. What is earned and spent lies over the time in which it was worked: from
 * the actual start (or the one that is shown) to the actual finish, or to the status date where it goes on.
 *
 * @param moments rising moments at which the curves are told
 * @param now the status date
 */
export function earnedCurves(
  current: Plan,
  s: Schedule,
  baseline: Plan,
  b: Schedule,
  amount: Budgeted,
  moments: readonly number[],
  now: number,
  refs: ReadonlySet<string> | null = null,
): Curves {
  const count = moments.length;
  const planned = new Array<number>(count).fill(0);
  const earned = new Array<number>(count).fill(0);
  const spentAt = new Array<number>(count).fill(0);
  const lay = (
    into: number[],
    whole: number,
    start: number,
    finish: number,
    between: (from: number, to: number) => number,
  ) => {
    if (whole === 0) return;
    const length = finish > start ? between(start, finish) : 0;
    for (let k = count - 1; k >= 0 && moments[k]! > start; k--) {
      const m = moments[k]!;
      into[k]! += m >= finish || length <= 0 ? whole : whole * (between(start, m) / length);
    }
    if (finish <= start) for (let k = 0; k < count; k++) if (moments[k] === start) into[k]! += whole;
  };
  const then = activityTime(baseline, b);
  const time = activityTime(current, s);
  baseline.activities.forEach((a, j) => {
    const budget = a[amount];
    if (budget === null || b.outline.isSummary[j] || refs?.has(a.ref) === false) return;
    if (b.start[j] !== NONE) lay(planned, budget, b.start[j]!, b.finish[j]!, (x, y) => then.minutesBetween(j, x, y));
    const i = s.outline.indexOf.get(a.ref);
    const own = i === undefined ? null : current.activities[i]!;
    if (own && i !== undefined) {
      const [start, finish] = workedSpan(own, s, i, now);
      lay(earned, budget * statedShare(own), start, finish, (x, y) => time.minutesBetween(i, x, y));
    }
  });
  const spent = amount === 'cost' ? 'actualCost' : 'actualEffort';
  current.activities.forEach((a, i) => {
    if (s.outline.isSummary[i] || refs?.has(a.ref) === false || !a[spent]) return;
    const [start, finish] = workedSpan(a, s, i, now);
    lay(spentAt, a[spent], start, finish, (x, y) => time.minutesBetween(i, x, y));
  });
  const past = (list: number[]) => list.map((v, k) => (moments[k]! <= now ? v : null));
  return { moments: [...moments], planned, earned: past(earned), spent: past(spentAt) };
}

/** From when to when something was worked, as far as it is known: never behind the status date. */
function workedSpan(a: Activity, s: Schedule, i: number, now: number): [start: number, finish: number] {
  const start = Math.min(now, a.actualStart ?? (s.start[i] === NONE ? now : s.start[i]!));
  const finish = Math.min(now, a.actualFinish ?? (statedShare(a) >= 1 && s.finish[i] !== NONE ? s.finish[i]! : now));
  return [start, Math.max(start, finish)];
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
