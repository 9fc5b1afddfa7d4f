import {
  amountsOff,
  type Amount,
  type Band,
  bandOfDays,
  bandOfRatio,
  codeFieldId,
  comingUp,
  type Condition,
  conditionHolds,
  ConditionRefused,
  DEFAULT_TOLERANCE,
  dayOf,
  doneReader,
  earnedCurves,
  endsOf,
  isMilestone,
  isTest,
  monthStart,
  paymentsByMonth,
  percentOfRows,
  type Plan,
  resourceNeed,
  type Schedule,
  slipsOf,
  type Standing,
  type StandingRow,
  standingOf,
  type Status,
  statusAt,
  startOfDay,
  weekdayOf,
} from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import type { Held } from './held';
import { dateSpan } from './span';

/** What of a plan is measured, and by what. */
export interface Measuring {
  /** An edition, or the one that was promised. */
  against: string;
  where: Condition;
  /** Only what is late, ahead, or beyond what is normal. */
  off: 'late' | 'ahead' | 'beyond' | null;
  statuses: Status[];
  refs: string[];
  amount: Amount;
  /** How far what comes up reaches. */
  weeks: number;
  /** The code field of the breakdown. */
  by: string | null;
}

export interface SlipShown {
  ref: string;
  name: string;
  late: number;
  band: Band;
}
export interface AmountShown {
  ref: string;
  name: string;
  percent: number;
  band: Band;
  words: string;
}
export interface ComingShown {
  ref: string;
  name: string;
  milestone: boolean;
  day: string;
  promised: string;
  late: number;
}
export interface SnapshotShown {
  name: string;
  now: string;
  promised: string;
  actual: string;
  toGo: string;
  off: string;
  band: Band | null;
}
export interface PartShown {
  code: string;
  title: string;
  activities: number;
  percent: number | null;
  late: number | null;
  band: Band | null;
}

/** The standing as the page shows it. Amounts are in hours or in the plan's currency. */
export interface StandingShown {
  error: string | null;
  edition: string;
  activities: number;
  listed: number;
  finish: { words: string; about: string; band: Band | null } | null;
  percent: { time: number | null; effort: number | null; stated: number | null; planned: number | null };
  /** `band` is that of the schedule index: how much more would have had to be earned. */
  indices: { spi: number | null; cpi: number | null; words: string; band: Band | null } | null;
  atEnd: { words: string; about: string; band: Band } | null;
  slips: SlipShown[];
  slipped: number;
  amounts: AmountShown[];
  curves: { days: number[]; planned: number[]; earned: (number | null)[]; spent: (number | null)[] } | null;
  now: number;
  counts: Record<Status, number>;
  coming: ComingShown[];
  payments: { month: string; promised: number; due: number; earned: number }[];
  snapshot: SnapshotShown[];
  parts: PartShown[];
  need: { steps: string[]; hours: number[]; past: number };
}

/** A row behind a figure. */
export interface RowShown {
  ref: string;
  name: string;
  start: string;
  finish: string;
  promised: string;
  late: number | null;
  percent: number;
}

export interface RowsShown {
  count: number;
  rows: RowShown[];
}

/** Which rows a figure is made of. */
export type Behind =
  | { what: 'all' }
  | { what: 'status'; status: Status }
  | { what: 'slipped' }
  | { what: 'coming' }
  | { what: 'payments' };

type Promised = { plan: Plan; schedule: Schedule; name: string };

const thousands = (n: number): string => Math.round(n).toLocaleString('en-GB').replace(/,/g, ' ');

/** An amount as a person would say it: `7.1 M`, `412 000`, `820`. */
function amountWords(value: number, amount: Amount): string {
  const n = amount === 'cost' ? value / 100 : value / 60;
  const unit = amount === 'effort' ? ' h' : '';
  if (Math.abs(n) >= 1e6) return `${(n / 1e6).toFixed(Math.abs(n) >= 1e7 ? 1 : 2)} M${unit}`;
  return `${thousands(n)}${unit}`;
}

const days = (n: number): string => `${n} ${n === 1 ? 'day' : 'days'}`;
const lateWords = (n: number): string => (n === 0 ? 'on the day' : n > 0 ? `${days(n)} late` : `${days(-n)} ahead`);
const dayWords = (day: number | null): string => (day === null ? '–' : formatDay(day, 'medium'));

function keepOf({ plan, schedule: s }: Held, promised: Promised, m: Measuring, moment: number): (i: number) => boolean {
  const holds = conditionHolds(plan, s, m.where);
  const statuses = new Set(m.statuses);
  const refs = new Set(m.refs);
  const late = new Map<string, number>();
  if (m.off !== null)
    for (const r of standingOf(plan, s, promised.plan, promised.schedule, moment).rows)
      if (r.late !== null) late.set(r.ref, r.late);
  const off = (ref: string): boolean => {
    const by = late.get(ref) ?? 0;
    if (m.off === 'late') return by > 0;
    if (m.off === 'ahead') return by < 0;
    return by > DEFAULT_TOLERANCE.watchDays;
  };
  return (i) => {
    const a = plan.activities[i]!;
    return (
      (m.where.tests.length === 0 || holds(i)) &&
      (statuses.size === 0 || statuses.has(statusAt(plan, s, i, moment))) &&
      (refs.size === 0 || refs.has(a.ref)) &&
      (m.off === null || off(a.ref))
    );
  };
}

const NOWHERE: Standing['counts'] = { complete: 0, inProgress: 0, onHold: 0, lateToStart: 0, notStarted: 0 };

/** How the plan, or what is chosen of it, stands against an edition. */
export function standingShown(held: Held, promised: Promised, m: Measuring, moment: number): StandingShown {
  const { plan, schedule: s } = held;
  const activities = s.outline.isSummary.filter((x) => !x).length;
  const empty: StandingShown = {
    error: null,
    edition: promised.name,
    activities,
    listed: 0,
    finish: null,
    percent: { time: null, effort: null, stated: null, planned: null },
    indices: null,
    atEnd: null,
    slips: [],
    slipped: 0,
    amounts: [],
    curves: null,
    now: dayOf(moment),
    counts: NOWHERE,
    coming: [],
    payments: [],
    snapshot: [],
    parts: [],
    need: { steps: [], hours: [], past: 0 },
  };
  let keep: (i: number) => boolean;
  try {
    keep = keepOf(held, promised, m, moment);
  } catch (error) {
    if (!(error instanceof ConditionRefused)) throw error;
    return { ...empty, error: error.message };
  }
  const st = standingOf(plan, s, promised.plan, promised.schedule, moment, keep);
  const { rows } = st;
  // What can be clicked to choose more shows what there is beside the choice.
  const beside = (part: Partial<Measuring>, differs: boolean): Standing =>
    differs
      ? standingOf(plan, s, promised.plan, promised.schedule, moment, keepOf(held, promised, { ...m, ...part }, moment))
      : st;
  const ofRefs = beside({ refs: [] }, m.refs.length > 0);
  const ofStatuses = beside({ statuses: [] }, m.statuses.length > 0);
  const others = without(m.where, m.by);
  const ofParts = beside({ where: others }, others !== m.where);
  const slips = slipsOf(ofRefs.rows);
  const earned = st.earned[m.amount];
  const off = amountsOff(promised.plan, promised.schedule, ofRefs.rows, m.amount);
  return {
    ...empty,
    listed: rows.length,
    finish: st.finish && {
      words: st.finish.late === null ? dayWords(st.finish.now) : finishWords(st.finish.late),
      about: `finish ${formatDay(st.finish.now, 'medium')}${st.finish.promised === null ? ', not in the promise' : `, promised ${formatDay(st.finish.promised, 'medium')}`}`,
      band: st.finish.late === null ? null : bandOfDays(st.finish.late, DEFAULT_TOLERANCE),
    },
    percent: st.percent,
    indices: earned && {
      spi: earned.spi,
      cpi: earned.cpi,
      band: earned.spi === null || earned.spi === 0 ? null : bandOfRatio(1 / earned.spi, DEFAULT_TOLERANCE),
      words: [
        earned.spi === null
          ? 'nothing was planned by now'
          : `for each 100 planned, ${Math.round(100 * earned.spi)} earned (SPI)`,
        earned.cpi === null ? '' : `for each 100 spent, ${Math.round(100 * earned.cpi)} earned (CPI)`,
      ]
        .filter(Boolean)
        .join(' · '),
    },
    atEnd:
      !earned || earned.eac === null || earned.vac === null
        ? null
        : {
            words: `${amountWords(Math.abs(earned.vac), m.amount)} ${earned.vac < 0 ? 'over' : 'under'}`,
            about: `${amountWords(earned.eac, m.amount)} at completion, budget ${amountWords(earned.bac, m.amount)}`,
            band: bandOfRatio(earned.eac / earned.bac, DEFAULT_TOLERANCE),
          },
    slips: [...slips.slice(0, 9), ...slips.slice(9).slice(-3)].map(({ ref, name, late, band }) => ({
      ref,
      name,
      late,
      band,
    })),
    slipped: slips.length,
    amounts: [...off.filter((a) => a.ratio > 1).slice(0, 8), ...off.filter((a) => a.ratio < 1).slice(-3)].map((a) => ({
      ref: a.ref,
      name: a.name,
      percent: Math.round(100 * a.ratio),
      band: a.band,
      words: `${amountWords(a.now, m.amount)} of ${amountWords(a.promised, m.amount)}`,
    })),
    curves: curvesOf(held, promised, m, moment, rows),
    counts: ofStatuses.counts,
    coming: comingUp(rows, moment, 7 * m.weeks)
      .slice(0, 60)
      .map((r) => ({
        ref: r.ref,
        name: r.name,
        milestone: r.milestone,
        day: formatDay(r.last!, 'short'),
        promised:
          r.late === null ? 'new' : r.late === 0 ? 'as promised' : `promised ${formatDay(r.promised!, 'short')}`,
        late: r.late ?? 0,
      })),
    payments: paymentsByMonth(plan, promised.plan, promised.schedule, rows).map((p) => ({
      month: formatDay(p.month, 'medium').split(' ').slice(1).join(' '),
      promised: p.promised / 100,
      due: p.due / 100,
      earned: p.earned / 100,
    })),
    snapshot: snapshotRows(st),
    parts: partsOf(held, promised, m.by, ofParts.rows),
    need: needOf(held, rows, moment),
  };
}

/** A condition without what it asks of a field. */
function without(where: Condition, field: string | null): Condition {
  if (where.match !== 'all' || !where.tests.some((t) => isTest(t) && t.field === field)) return where;
  return { match: 'all', tests: where.tests.filter((t) => !isTest(t) || t.field !== field) };
}

const finishWords = (late: number): string =>
  late === 0 ? 'On time' : `${Math.abs(late)} ${Math.abs(late) === 1 ? 'day' : 'days'} ${late > 0 ? 'late' : 'ahead'}`;

/** About sixty moments from the first day to the last, and the status date among them. */
function curvesOf(
  held: Held,
  promised: Promised,
  m: Measuring,
  moment: number,
  rows: readonly StandingRow[],
): StandingShown['curves'] {
  const refs = new Set(rows.map((r) => r.ref));
  const spans = [dateSpan(held.schedule), dateSpan(promised.schedule)].flatMap((x) => x ?? []);
  if (spans.length === 0 || rows.length === 0) return null;
  const [first, last] = [Math.min(...spans.map((x) => x.first)), Math.max(...spans.map((x) => x.last)) + 1];
  const step = Math.max(1, Math.ceil((last - first) / 60));
  const list = new Set([dayOf(moment), last]);
  for (let day = first; day < last; day += step) list.add(day);
  const moments = [...list].sort((a, b) => a - b).map(startOfDay);
  const { plan, schedule } = held;
  const c = earnedCurves(plan, schedule, promised.plan, promised.schedule, m.amount, moments, moment, refs);
  if (c.planned.at(-1) === 0) return null;
  const unit = (v: number | null) => (v === null ? null : Math.round(v / (m.amount === 'cost' ? 100 : 60)));
  return {
    days: moments.map((x) => x / 1440),
    planned: c.planned.map((v) => unit(v)!),
    earned: c.earned.map(unit),
    spent: c.spent.map(unit),
  };
}

function snapshotRows(st: Standing): SnapshotShown[] {
  const list: SnapshotShown[] = [];
  const { start, finish, days: d, sums } = st;
  const begun = st.rows.some((r) => r.status === 'complete' || r.status === 'inProgress');
  const over = st.rows.length > 0 && st.rows.every((r) => r.status === 'complete');
  const end = (name: string, of: Standing['start'], happened: boolean) => {
    if (!of) return;
    const { now, promised, late } = of;
    list.push({
      name,
      now: dayWords(now),
      promised: dayWords(promised),
      actual: happened ? dayWords(now) : '–',
      toGo: '–',
      off: late === null ? '–' : lateWords(late),
      band: late === null ? null : bandOfDays(late, DEFAULT_TOLERANCE),
    });
  };
  end('Start', start, begun);
  end('Finish', finish, over);
  if (d)
    list.push({
      name: 'Working days',
      now: thousands(d.now),
      promised: d.promised === null ? '–' : thousands(d.promised),
      actual: thousands(d.gone),
      toGo: thousands(d.now - d.gone),
      off:
        d.promised === null
          ? '–'
          : d.now === d.promised
            ? '0'
            : `${d.now > d.promised ? '+' : '−'}${Math.abs(d.now - d.promised)}`,
      band: d.promised === null ? null : bandOfDays(d.now - d.promised, DEFAULT_TOLERANCE),
    });
  for (const amount of ['effort', 'cost'] as const) {
    const { now, promised, actual } = sums[amount];
    if (now === 0 && promised === 0) continue;
    const share = promised === 0 ? null : Math.round((100 * (now - promised)) / promised);
    list.push({
      name: amount === 'effort' ? 'Effort' : 'Cost',
      now: amountWords(now, amount),
      promised: amountWords(promised, amount),
      actual: amountWords(actual, amount),
      toGo: amountWords(Math.max(0, now - actual), amount),
      off: share === null ? '–' : share === 0 ? '0 %' : `${share > 0 ? '+' : '−'}${Math.abs(share)} %`,
      band: promised === 0 ? null : bandOfRatio(now / promised, DEFAULT_TOLERANCE),
    });
  }
  return list;
}

/** The same by the values of a code field, in the order of its book. */
function partsOf(
  { plan, schedule: s }: Held,
  promised: Promised,
  by: string | null,
  rows: readonly StandingRow[],
): PartShown[] {
  const field = plan.codeFields.find((f) => codeFieldId(f.id) === by);
  if (!field) return [];
  const groups = new Map<string, StandingRow[]>();
  for (const r of rows) {
    const code = plan.activities[r.position]!.codes[field.id] ?? '';
    const own = groups.get(code);
    if (own) own.push(r);
    else groups.set(code, [r]);
  }
  const order = new Map(field.values.map((v, k) => [v.code, k]));
  const read = doneReader(plan, s, plan.percentShown);
  return [...groups]
    .sort(([a], [b]) => (order.get(a) ?? 1e9) - (order.get(b) ?? 1e9))
    .slice(0, 40)
    .map(([code, own]) => {
      const late = endsOf(plan, promised.schedule, own).finish?.late ?? null;
      return {
        code,
        title: field.values.find((v) => v.code === code)?.title ?? (code || 'none'),
        activities: own.length,
        percent: percentOfRows(read, own),
        late,
        band: late === null ? null : bandOfDays(late, DEFAULT_TOLERANCE),
      };
    });
}

/** Hours needed of all resources, week by week or month by month. */
function needOf({ plan, schedule: s }: Held, rows: readonly StandingRow[], moment: number): StandingShown['need'] {
  const span = dateSpan(s);
  const none = { steps: [], hours: [], past: 0 };
  if (!span || plan.resources.length === 0) return none;
  const weekly = span.last - span.first < 420;
  const bounds: number[] = [];
  for (let at = weekly ? span.first - weekdayOf(span.first) : monthStart(span.first); ; ) {
    bounds.push(at);
    if (at > span.last || bounds.length > 400) break;
    at = weekly ? at + 7 : monthStart(at, 1);
  }
  const own = new Set(rows.map((r) => r.position));
  const some = {
    ...plan,
    activities: plan.activities.map((a, i) =>
      own.has(i) || a.assignments.length === 0 ? a : { ...a, assignments: [] },
    ),
  };
  const needs = resourceNeed(some, s, bounds);
  const hours = bounds.slice(0, -1).map((_, k) => Math.round(needs.reduce((sum, n) => sum + n.need[k]!, 0) / 60));
  if (hours.every((h) => h === 0)) return none;
  return {
    steps: bounds
      .slice(0, -1)
      .map((day) => (weekly ? formatDay(day, 'short') : formatDay(day, 'medium').split(' ').slice(1).join(' '))),
    hours,
    past: bounds.filter((day) => startOfDay(day) <= moment).length - 1,
  };
}

/** How many rows of a figure are listed; of the others it is said how many they are. */
const LISTED = 400;

/** The rows that a figure is made of. */
export function rowsBehind(held: Held, promised: Promised, m: Measuring, moment: number, behind: Behind): RowsShown {
  const st = standingOf(
    held.plan,
    held.schedule,
    promised.plan,
    promised.schedule,
    moment,
    keepOf(held, promised, m, moment),
  );
  const chosen: readonly StandingRow[] =
    behind.what === 'status'
      ? st.rows.filter((r) => r.status === behind.status)
      : behind.what === 'slipped'
        ? slipsOf(st.rows)
        : behind.what === 'coming'
          ? comingUp(st.rows, moment, 7 * m.weeks)
          : behind.what === 'payments'
            ? st.rows.filter((r) => r.milestone && (held.plan.activities[r.position]!.cost ?? 0) !== 0)
            : st.rows;
  const rows = chosen.slice(0, LISTED).map((r) => ({
    ref: r.ref,
    name: r.name,
    start: isMilestone(held.plan.activities[r.position]!.kind) ? '' : dayWords(r.first),
    finish: dayWords(r.last),
    promised: dayWords(r.promised),
    late: r.late,
    percent: Math.round(r.percent),
  }));
  return { count: chosen.length, rows };
}
