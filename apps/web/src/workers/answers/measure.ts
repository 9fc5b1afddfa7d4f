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
  toleranceOf,
  dayOf,
  doneReader,
  earnedCurves,
  earnedMoment,
  endsOf,
  finishDayOf,
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
  standingOfRows,
  standingRows,
  type Status,
  startOfDay,
  weekdayOf,
  wholePercent,
} from '@clembo/core';
import { amountWords, type AmountWords } from '@clembo/formats/amounts';
import { type SnapshotLine, snapshotLines } from '@clembo/scene';
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
  /** First days of months: only what goes on in one of them. */
  months: number[];
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
export interface PartShown {
  code: string;
  title: string;
  activities: number;
  percent: number | null;
  late: number | null;
  band: Band | null;
}

/** What the large words say. */
export interface Statement {
  finish: { words: string; about: string; band: Band | null } | null;
  percent: Standing['percent'];
  /** `band` is that of the schedule index: how much more would have had to be earned. */
  indices: { spi: number | null; cpi: number | null; words: string; band: Band | null } | null;
  atEnd: { words: string; about: string; band: Band } | null;
}

/** The standing as the page shows it. Amounts are in hours or in the plan's currency. */
export interface StandingShown extends Statement {
  error: string | null;
  edition: string;
  activities: number;
  listed: number;
  slips: SlipShown[];
  slipped: number;
  amounts: AmountShown[];
  curves: { days: number[]; planned: number[]; earned: (number | null)[]; spent: (number | null)[] } | null;
  /** What amounts are in; an empty text for costs without a currency. */
  unit: string;
  /** The day that the status date ends with. */
  now: number;
  counts: Record<Status, number>;
  coming: ComingShown[];
  payments: { start: number; month: string; promised: number; due: number; earned: number }[];
  snapshot: SnapshotLine[];
  parts: PartShown[];
  need: { steps: string[]; months: number[]; hours: number[]; past: number };
  /** The same of the whole plan, where what is measured is a part of it. */
  whole: Statement | null;
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

const dayWords = (day: number | null): string => (day === null ? '–' : formatDay(day, 'medium'));

const OFF: Record<NonNullable<Measuring['off']>, (row: StandingRow) => boolean> = {
  late: (r) => (r.late ?? 0) > 0,
  ahead: (r) => (r.late ?? 0) < 0,
  beyond: ({ variance }) => variance?.band === 'watch' || variance?.band === 'breach',
};

const known = new WeakMap<Schedule, { promised: Schedule; moment: number; rows: StandingRow[] }>();

/** All rows of a plan against an edition: made once for each state of it. */
function rowsOf({ plan, schedule: s }: Held, promised: Promised, moment: number): StandingRow[] {
  const before = known.get(s);
  if (before?.promised === promised.schedule && before.moment === moment) return before.rows;
  const rows = standingRows(plan, s, promised.plan, promised.schedule, moment);
  known.set(s, { promised: promised.schedule, moment, rows });
  return rows;
}

/** The rows that are measured. */
function chosenRows(held: Held, promised: Promised, m: Measuring, moment: number): StandingRow[] {
  const { plan, schedule: s } = held;
  const holds = m.where.tests.length === 0 ? null : conditionHolds(plan, s, m.where, promised);
  const statuses = new Set(m.statuses);
  const refs = new Set(m.refs);
  const inMonths = (r: StandingRow): boolean =>
    r.last !== null && m.months.some((month) => r.first! < monthStart(month, 1) && r.last! >= month);
  return rowsOf(held, promised, moment).filter(
    (r) =>
      (holds === null || holds(r.position)) &&
      (statuses.size === 0 || statuses.has(r.status)) &&
      (refs.size === 0 || refs.has(r.ref)) &&
      (m.months.length === 0 || inMonths(r)) &&
      (m.off === null || OFF[m.off](r)),
  );
}

const NOWHERE: Standing['counts'] = { complete: 0, inProgress: 0, onHold: 0, lateToStart: 0, notStarted: 0 };

/** How many rows have each status. */
function countsOf(rows: readonly StandingRow[]): Standing['counts'] {
  const counts = { ...NOWHERE };
  for (const r of rows) counts[r.status]++;
  return counts;
}

/** How the plan, or what is chosen of it, stands against an edition. */
export function standingShown(
  held: Held,
  promised: Promised,
  m: Measuring,
  moment: number,
  locale: string,
): StandingShown {
  const { plan, schedule: s } = held;
  const words = amountWords(plan, locale);
  const activities = s.outline.isSummary.filter((x) => !x).length;
  const empty: StandingShown = {
    error: null,
    edition: promised.name,
    activities,
    listed: 0,
    finish: null,
    percent: { time: null, effort: null, stated: null, planned: null, unknown: 0 },
    indices: null,
    atEnd: null,
    slips: [],
    slipped: 0,
    amounts: [],
    curves: null,
    unit: '',
    now: dayOf(moment),
    counts: NOWHERE,
    coming: [],
    payments: [],
    snapshot: [],
    parts: [],
    need: { steps: [], months: [], hours: [], past: 0 },
    whole: null,
  };
  const stand = (rows: StandingRow[]) => standingOfRows(plan, s, promised.plan, promised.schedule, moment, rows);
  let rows: StandingRow[];
  try {
    rows = chosenRows(held, promised, m, moment);
  } catch (error) {
    if (!(error instanceof ConditionRefused)) throw error;
    return { ...empty, error: error.message };
  }
  const st = stand(rows);
  // What can be clicked to choose more shows what there is beside the choice.
  const beside = (part: Partial<Measuring>, differs: boolean): StandingRow[] =>
    differs ? chosenRows(held, promised, { ...m, ...part }, moment) : rows;
  const ofRefs = beside({ refs: [] }, m.refs.length > 0);
  const ofStatuses = beside({ statuses: [] }, m.statuses.length > 0);
  const others = without(m.where, m.by);
  const ofParts = beside({ where: others }, others !== m.where);
  const slips = slipsOf(ofRefs);
  const off = amountsOff(promised.plan, promised.schedule, ofRefs, m.amount);
  return {
    ...empty,
    listed: rows.length,
    ...statementOf(plan, st, promised, m.amount, words),
    whole:
      rows.length === activities
        ? null
        : statementOf(plan, stand(rowsOf(held, promised, moment)), promised, m.amount, words),
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
      words: `${words.amount(a.now, m.amount)} of ${words.amount(a.promised, m.amount)}`,
    })),
    curves: curvesOf(held, promised, m, moment, rows, words),
    unit: words.unit(m.amount),
    counts: countsOf(ofStatuses),
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
      start: p.month,
      month: formatDay(p.month, 'medium').split(' ').slice(1).join(' '),
      promised: p.promised / 100,
      due: p.due / 100,
      earned: p.earned / 100,
    })),
    snapshot: snapshotLines(st, plan.tolerance, words),
    parts: partsOf(held, promised, m.by, ofParts),
    need: needOf(held, rows, moment),
  };
}

function statementOf(plan: Plan, st: Standing, promised: Promised, amount: Amount, words: AmountWords): Statement {
  const earned = st.earned[amount];
  const refs = new Set(st.rows.map((r) => r.ref));
  const at = earned && earned.ev > 0 ? earnedMoment(promised.plan, promised.schedule, amount, earned.ev, refs) : null;
  return {
    finish: endShown(st, plan),
    percent: st.percent,
    indices: earned && {
      spi: earned.spi,
      cpi: earned.cpi,
      band: earned.spi === null || earned.spi === 0 ? null : bandOfRatio(1 / earned.spi, plan.tolerance[amount]),
      words: [
        earned.spi === null
          ? 'nothing was planned by now'
          : `for each 100 planned, ${Math.round(100 * earned.spi)} earned (SPI)`,
        earned.cpi === null ? '' : `for each 100 spent, ${Math.round(100 * earned.cpi)} earned (CPI)`,
        at === null ? '' : `as much as was planned by ${formatDay(finishDayOf(at), 'medium')}`,
      ]
        .filter(Boolean)
        .join(' · '),
    },
    atEnd:
      !earned || earned.eac === null || earned.vac === null
        ? null
        : {
            words: `${words.amount(Math.abs(earned.vac), amount)} ${earned.vac < 0 ? 'over' : 'under'}`,
            about: `${words.amount(earned.eac, amount)} at completion at this rate, budget ${words.amount(earned.bac, amount)}`,
            band: bandOfRatio(earned.eac / earned.bac, plan.tolerance[amount]),
          },
  };
}

/** The end in words: how far it is known, or when it comes and how that stands. */
function endShown({ ends }: Standing, plan: Plan): Statement['finish'] {
  const { last, promised, openWithout, of, expected, late } = ends;
  if (last === null) return null;
  const day = formatDay(last, 'medium');
  const then = promised === null ? ', not in the promise' : `, promised ${formatDay(promised, 'medium')}`;
  if (openWithout > 0)
    return {
      words: `Known to ${dayWords(last)}`,
      about: `${openWithout} of ${of} have no dates${promised === null ? '' : `; promised ${formatDay(promised, 'medium')}`}`,
      band: null,
    };
  return {
    words: late === null ? dayWords(last) : finishWords(late),
    about: `${expected === null ? 'finish' : 'expected finish'} ${day}${then}`,
    band: late === null ? null : bandOfDays(late, plan.tolerance),
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
  words: AmountWords,
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
  const unit = (v: number | null) => (v === null ? null : Math.round(words.size(v, m.amount)));
  return {
    days: moments.map((x) => x / 1440),
    planned: c.planned.map((v) => unit(v)!),
    earned: c.earned.map(unit),
    spent: c.spent.map(unit),
  };
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
      const positions = own.map((r) => r.position);
      const { late } = endsOf(plan, s, promised, positions);
      return {
        code,
        title: field.values.find((v) => v.code === code)?.title ?? (code || 'none'),
        activities: own.length,
        percent: percentOfRows(read, positions),
        late,
        band: late === null ? null : bandOfDays(late, toleranceOf(plan, { codes: { [field.id]: code } })),
      };
    });
}

/** Hours needed of all resources, week by week or month by month. */
function needOf({ plan, schedule: s }: Held, rows: readonly StandingRow[], moment: number): StandingShown['need'] {
  const span = dateSpan(s);
  const none = { steps: [], months: [], hours: [], past: 0 };
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
    months: bounds.slice(0, -1).map((day) => monthStart(day)),
    hours,
    past: bounds.filter((day) => startOfDay(day) <= moment).length - 1,
  };
}

/** How many rows of a figure are listed; of the others it is said how many they are. */
const LISTED = 400;

/** The rows that a figure is made of. */
export function rowsBehind(held: Held, promised: Promised, m: Measuring, moment: number, behind: Behind): RowsShown {
  const rowsOfAll = chosenRows(held, promised, m, moment);
  const chosen: readonly StandingRow[] =
    behind.what === 'status'
      ? rowsOfAll.filter((r) => r.status === behind.status)
      : behind.what === 'slipped'
        ? slipsOf(rowsOfAll)
        : behind.what === 'coming'
          ? comingUp(rowsOfAll, moment, 7 * m.weeks)
          : behind.what === 'payments'
            ? rowsOfAll.filter((r) => r.milestone && (held.plan.activities[r.position]!.cost ?? 0) !== 0)
            : rowsOfAll;
  const rows = chosen.slice(0, LISTED).map((r) => ({
    ref: r.ref,
    name: r.name,
    start: isMilestone(held.plan.activities[r.position]!.kind) ? '' : dayWords(r.first),
    finish: dayWords(r.last),
    promised: dayWords(r.promised),
    late: r.late,
    percent: wholePercent(r.percent),
  }));
  return { count: chosen.length, rows };
}
