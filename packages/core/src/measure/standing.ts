import { earnedAmounts, type EarnedValue, earnedValueOf, plannedBy } from '../compare/earnedValue';
import { amountAtEnd, type Variance, varianceReader } from '../compare/variance';
import { type Band, BANDS, bandOfDays, bandOfRatio, type Tolerance, toleranceOf } from '../plan/tolerance';
import { calendarOf } from '../plan/calendars';
import { isMilestone, PERCENT_MEASURES, type PercentMeasure, type Plan } from '../plan/schema';
import { isComplete } from '../schedule/given';
import type { Schedule } from '../schedule/model';
import { addDone, type Done, doneReader, nothingDone, percentOf } from '../schedule/percent';
import { NONE } from '../schedule/slots';
import { activityTime } from '../schedule/workingDays';
import { workingTimeOf } from '../calendar/workingTime';
import { type Day, finishDayOf, monthStart } from '../time/civil';
import { shownDays } from '../commands/dating';
import { type Ends, endsOf } from '../facts/ends';

/** What is added up: cost in hundredths of the currency, effort in minutes. */
export type Amount = 'cost' | 'effort';

/** Where an activity stands: what its progress and actual dates say, and whether it should have begun. */
export type Status = 'complete' | 'inProgress' | 'onHold' | 'lateToStart' | 'notStarted';
export const STATUSES: readonly Status[] = ['complete', 'inProgress', 'onHold', 'lateToStart', 'notStarted'];

/** One activity as the standing counts it. */
export interface StandingRow {
  position: number;
  ref: string;
  name: string;
  milestone: boolean;
  status: Status;
  first: Day | null;
  last: Day | null;
  promisedFirst: Day | null;
  /** The last day that was promised; null for what was not in the promise. */
  promised: Day | null;
  /** Working days late in its own calendar; early is negative. */
  late: number | null;
  percent: number;
  variance: Variance | null;
  /** How far off is normal for it. */
  tolerance: Tolerance;
}

/** The plan, or a part of it, against what was promised at a moment. */
export interface Standing {
  rows: StandingRow[];
  /** When the rows begin and end, how sure that is, and how it stands against the promise. */
  ends: Ends;
  /**
   * Percent complete by each measure, of what has a length; null where nothing has. `planned` is what the promise has by
   * then; `unknown` are the open rows of which nothing says how long they take.
   */
  percent: Record<PercentMeasure, number | null> & { planned: number | null; unknown: number };
  /** Earned value by cost and by effort; null where nothing is budgeted. */
  earned: Record<Amount, EarnedValue | null>;
  counts: Record<Status, number>;
  bands: Record<Band, number>;
  /** Sums over the rows: budget now, promised, spent. */
  sums: Record<Amount, { now: number; promised: number; actual: number }>;
  /** Working days of work, of the plan's calendar: now, promised, gone. */
  days: { now: number; promised: number | null; gone: number } | null;
}

/** Status of an activity at a moment. */
export function statusAt(plan: Plan, s: Schedule, i: number, moment: number): Status {
  const a = plan.activities[i]!;
  if (isComplete(a)) return 'complete';
  if (a.onHold) return 'onHold';
  if (a.actualStart !== null || (a.percent ?? 0) > 0) return 'inProgress';
  return s.start[i] !== NONE && s.start[i]! < moment ? 'lateToStart' : 'notStarted';
}

/** All activities that are no groups as the standing counts them. */
export function standingRows(plan: Plan, s: Schedule, baseline: Plan, b: Schedule, moment: number): StandingRow[] {
  const variance = varianceReader(plan, s, baseline, b);
  const stated = doneReader(plan, s, plan.percentShown);
  const rows: StandingRow[] = [];
  plan.activities.forEach((a, i) => {
    if (s.outline.isSummary[i]) return;
    const shown = shownDays(s, i);
    const j = b.outline.indexOf.get(a.ref);
    const then = j === undefined ? null : shownDays(b, j);
    const off = variance(i);
    const percent = percentOf(stated(i));
    rows.push({
      position: i,
      ref: a.ref,
      name: a.name || a.ref,
      milestone: isMilestone(a.kind),
      status: statusAt(plan, s, i, moment),
      first: shown?.first ?? null,
      last: shown?.last ?? null,
      promisedFirst: then?.first ?? null,
      promised: then?.last ?? null,
      late: off?.finishDays ?? null,
      percent: Number.isFinite(percent) ? percent : a.actualFinish !== null ? 100 : (a.percent ?? 0),
      variance: off,
      tolerance: toleranceOf(plan, a),
    });
  });
  return rows;
}

/**
 * How a plan stands against an edition of it at a moment, for all activities that are no groups or for some of them.
 * Every total is the sum over `rows`.
 *
 * @param keep which positions are counted; all of them where it is left out
 */
export function standingOf(
  plan: Plan,
  s: Schedule,
  baseline: Plan,
  b: Schedule,
  moment: number,
  keep: (position: number) => boolean = () => true,
): Standing {
  const rows = standingRows(plan, s, baseline, b, moment).filter((r) => keep(r.position));
  return standingOfRows(plan, s, baseline, b, moment, rows);
}

/** The standing of rows that are known already. */
export function standingOfRows(
  plan: Plan,
  s: Schedule,
  baseline: Plan,
  b: Schedule,
  moment: number,
  rows: StandingRow[],
): Standing {
  const refs = new Set(rows.map((r) => r.ref));
  const earned = (amount: Amount): EarnedValue | null => {
    const { ev, ac, bac } = earnedAmounts(plan, s, baseline, b, amount, refs);
    return bac === 0 ? null : earnedValueOf(plannedBy(baseline, b, moment, amount, refs), ev, ac, bac);
  };
  const count = <K extends string>(keys: readonly K[], of: (r: StandingRow) => K | null) => {
    const counts = Object.fromEntries(keys.map((k) => [k, 0])) as Record<K, number>;
    for (const r of rows) {
      const key = of(r);
      if (key !== null) counts[key]++;
    }
    return counts;
  };
  const ends = endsOf(
    plan,
    s,
    { plan: baseline, schedule: b },
    rows.map((r) => r.position),
  );
  return {
    rows,
    ends,
    percent: percents(plan, s, baseline, b, moment, rows),
    earned: { cost: earned('cost'), effort: earned('effort') },
    counts: count(STATUSES, (r) => r.status),
    bands: count(BANDS, (r) => r.variance?.band ?? null),
    sums: { cost: sums(plan, baseline, b, rows, 'cost'), effort: sums(plan, baseline, b, rows, 'effort') },
    days: spanDays(plan, baseline, ends, moment),
  };
}

const ownTime = (plan: Plan, near: Day) => workingTimeOf(calendarOf(plan, null), 'day', near);

/** Percent complete of the activities at some positions by a measure; null where there is nothing to measure. */
export function percentOfRows(read: (position: number) => Done, positions: Iterable<number>): number | null {
  const all = nothingDone();
  for (const i of positions) addDone(all, read(i));
  const percent = percentOf(all);
  return Number.isFinite(percent) ? percent : null;
}

function percents(
  plan: Plan,
  s: Schedule,
  baseline: Plan,
  b: Schedule,
  moment: number,
  rows: readonly StandingRow[],
): Standing['percent'] {
  const positions = rows.map((r) => r.position);
  const of = (measure: PercentMeasure) => percentOfRows(doneReader(plan, s, measure), positions);
  const time = activityTime(baseline, b);
  let [all, due] = [0, 0];
  for (const { ref } of rows) {
    const j = b.outline.indexOf.get(ref);
    if (j === undefined || b.start[j] === NONE || baseline.activities[j]!.kind === 'levelOfEffort') continue;
    const [start, finish] = [b.start[j]!, b.finish[j]!];
    all += time.minutesBetween(j, start, finish);
    due += time.minutesBetween(j, start, Math.min(Math.max(moment, start), finish));
  }
  const read = doneReader(plan, s, 'time');
  const unknown = rows.reduce((n, { position }) => n + read(position).unknown, 0);
  const measured = Object.fromEntries(PERCENT_MEASURES.map((m) => [m, of(m)])) as Record<PercentMeasure, number | null>;
  return { ...measured, planned: all === 0 ? null : (100 * due) / all, unknown };
}

function sums(plan: Plan, baseline: Plan, b: Schedule, rows: readonly StandingRow[], amount: Amount) {
  const spent = amount === 'cost' ? 'actualCost' : 'actualEffort';
  const total = { now: 0, promised: 0, actual: 0 };
  for (const { position, ref } of rows) {
    const a = plan.activities[position]!;
    total.now += amountAtEnd(a, amount) ?? 0;
    total.actual += a[spent] ?? 0;
    const j = b.outline.indexOf.get(ref);
    if (j !== undefined) total.promised += baseline.activities[j]![amount] ?? 0;
  }
  return total;
}

/** Working days from the first day to the last, of the plan's calendar. */
function spanDays(plan: Plan, baseline: Plan, ends: Ends, moment: number): Standing['days'] {
  const { first, last, promisedFirst, promised } = ends;
  if (first === null || last === null) return null;
  const time = ownTime(plan, first);
  const then = ownTime(baseline, first);
  return {
    now: time.between(first, last + 1),
    promised: promisedFirst === null || promised === null ? null : then.between(promisedFirst, promised + 1),
    gone: Math.max(0, time.between(first, Math.min(finishDayOf(moment), last) + 1)),
  };
}

/** How far an amount of one activity is off its promise: what it will come to against the budget that was promised. */
export interface AmountRow {
  ref: string;
  name: string;
  now: number;
  promised: number;
  ratio: number;
  band: Band;
}

/** Activities by how far their amount is off, the worst first. */
export function amountsOff(baseline: Plan, b: Schedule, rows: readonly StandingRow[], amount: Amount): AmountRow[] {
  const list = rows.flatMap(({ ref, name, variance, tolerance }): AmountRow[] => {
    const ratio = (amount === 'cost' ? variance?.costRatio : variance?.effortRatio) ?? null;
    const j = b.outline.indexOf.get(ref);
    if (ratio === null || j === undefined) return [];
    const promised = baseline.activities[j]![amount]!;
    return [{ ref, name, now: promised * ratio, promised, ratio, band: bandOfRatio(ratio, tolerance[amount]) }];
  });
  return list.sort((x, y) => y.ratio - x.ratio || y.promised - x.promised);
}

/** Activities by their slip, the latest first and the most ahead last; what is on time is left out. */
export const slipsOf = (rows: readonly StandingRow[]) =>
  rows
    .filter((r) => r.late !== null && r.late !== 0)
    .map((r) => ({ ...r, late: r.late!, band: bandOfDays(r.late!, r.tolerance) }))
    .sort((x, y) => y.late - x.late || (x.last ?? 0) - (y.last ?? 0));

/** What ends within some days behind the moment of the status date and is not done, in the order of time. */
export const comingUp = (rows: readonly StandingRow[], moment: number, days: number): StandingRow[] => {
  const today = finishDayOf(moment);
  return rows
    .filter((r) => r.status !== 'complete' && r.last !== null && r.last > today && r.last <= today + days)
    .sort((x, y) => x.last! - y.last! || Number(y.milestone) - Number(x.milestone));
};

/** Payments of a month: cost of milestones that fall due in it, promised, now expected, and reached. Hundredths. */
export interface PaymentMonth {
  month: Day;
  promised: number;
  due: number;
  earned: number;
  refs: string[];
}

/** Payments that hang on milestones, by month, from the first to the last. */
export function paymentsByMonth(plan: Plan, baseline: Plan, b: Schedule, rows: readonly StandingRow[]): PaymentMonth[] {
  const months = new Map<Day, PaymentMonth>();
  const at = (day: Day): PaymentMonth => {
    const month = monthStart(day);
    let held = months.get(month);
    if (!held) months.set(month, (held = { month, promised: 0, due: 0, earned: 0, refs: [] }));
    return held;
  };
  for (const r of rows) {
    const { cost } = plan.activities[r.position]!;
    if (!r.milestone || cost === null || cost === 0) continue;
    if (r.last !== null) {
      const month = at(r.last);
      month.due += cost;
      if (r.status === 'complete') month.earned += cost;
      month.refs.push(r.ref);
    }
    const j = b.outline.indexOf.get(r.ref);
    if (j !== undefined && r.promised !== null) at(r.promised).promised += baseline.activities[j]!.cost ?? 0;
  }
  return [...months.values()].sort((x, y) => x.month - y.month);
}
