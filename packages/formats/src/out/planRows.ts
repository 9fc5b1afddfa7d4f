import { ORIGIN_HEADINGS } from './originHeadings';
import {
  type Activity,
  type CalendarSpec,
  dayOf,
  finishDayOf,
  isMilestone,
  isoDate,
  type Link,
  MINUTES_PER_DAY,
  NONE,
  type Origin,
  ORIGINS,
  type Plan,
  ROUND_THE_CLOCK,
  schedulePlan,
  UNKNOWN,
} from '@clembo/core';

/** A cell of a plan that is written: text, a number, a day or moment as minutes since 1970, or nothing. */
export type OutCell = string | number | null | { moment: number; timed: boolean };

/** A plan as a table that every program reads, and that intake reads back. */
export interface PlanRows {
  headings: string[];
  rows: OutCell[][];
}

const KINDS: Record<Activity['kind'], string> = {
  activity: 'activity',
  startMilestone: 'start milestone',
  finishMilestone: 'finish milestone',
  levelOfEffort: 'level of effort',
  summary: 'summary',
};

const ORIGIN_WORDS: Partial<Record<Origin, string>> = {
  computed: 'computed',
  expected: 'expected',
  asPromised: 'as promised',
  unknown: 'not known',
};

/**
 * The columns of a plan that hold anything, under headings that intake knows. What a table cannot hold (stretches,
 * lines, rates by section, constraints other than a fixed or an earliest start) is not in it; our JSON has all.
 */
export function planRows(plan: Plan): PlanRows {
  const own = plan.calendars.find((c) => c.id === plan.calendar) ?? plan.calendars[0]!;
  const calendarOf = (a: Activity): CalendarSpec => plan.calendars.find((c) => c.id === a.calendar) ?? own;
  const hasSeveral = plan.activities.some((a) => calendarOf(a) !== own);
  const byRef = new Map(plan.activities.map((a) => [a.ref, a]));
  const before = new Map<string, Link[]>();
  for (const l of plan.links) before.set(l.to, [...(before.get(l.to) ?? []), l]);
  const start = (moment: number | null): OutCell =>
    moment === null ? null : { moment: plan.inHours ? moment : dayOf(moment) * MINUTES_PER_DAY, timed: plan.inHours };
  const finish = (moment: number | null): OutCell =>
    moment === null
      ? null
      : { moment: plan.inHours ? moment : finishDayOf(moment) * MINUTES_PER_DAY, timed: plan.inHours };
  const s = schedulePlan(plan);
  const at = new Map(plan.activities.map((a, i) => [a, i]));
  /** The dates that the plan shows, whoever states or computes them; a point in time has one. */
  const shown = (a: Activity, end: 'start' | 'finish'): OutCell => {
    const i = at.get(a)!;
    if (s.start[i] === NONE) return null;
    const isPoint = s.start[i] === s.finish[i] && isMilestone(a.kind);
    if (isPoint && (s.atFinish[i] === 1) !== (end === 'finish')) return null;
    // An end that is not known stands where the other is.
    if (!isPoint && s.start[i] === s.finish[i] && (end === 'start' ? s.startFrom : s.finishFrom)[i] === UNKNOWN)
      return null;
    if (a.said?.[end] && plan.source === 'given') return a.said[end];
    return end === 'start' ? start(s.start[i]!) : finish(s.finish[i]!);
  };
  /** Where a shown date comes from, where nobody stated it. */
  const origin = (a: Activity, end: 'start' | 'finish'): OutCell => {
    const from = (end === 'start' ? s.startFrom : s.finishFrom)[at.get(a)!]!;
    return a.kind === 'summary' || s.start[at.get(a)!] === NONE ? null : (ORIGIN_WORDS[ORIGINS[from]!] ?? null);
  };
  const hundredth = (v: number | null) => (v === null ? null : v / 100);
  const thousandth = (v: number | null) => (v === null ? null : v / 1000);
  const hours = (v: number | null) => (v === null ? null : v / 60);
  const constraint = (a: Activity, kind: string): OutCell =>
    a.constraint?.kind === kind ? start(a.constraint.moment) : null;
  const columns: [heading: string, cell: (a: Activity) => OutCell][] = [
    ['Reference', (a) => a.ref],
    ['Name', (a) => a.name],
    ['Kind', (a) => KINDS[a.kind]],
    ['Parent', (a) => a.parent],
    ['Start', (a) => shown(a, 'start')],
    ['Finish', (a) => shown(a, 'finish')],
    ['Duration', (a) => (a.duration === null ? null : lengthText(a.duration, calendarOf(a)))],
    [
      'Predecessors',
      (a) => (before.get(a.ref) ?? []).map((l) => linkText(l, byRef.get(l.to)!, calendarOf, own)).join('; '),
    ],
    ['Percent complete', (a) => (a.percent === null ? null : `${Number(a.percent.toFixed(4))}%`)],
    ['Actual start', (a) => start(a.actualStart)],
    ['Actual finish', (a) => finish(a.actualFinish)],
    ['Remaining duration', (a) => (a.remaining === null ? null : lengthText(a.remaining, calendarOf(a)))],
    // Where some have another week, each says its own.
    ['Calendar', (a) => (hasSeveral && a.kind !== 'summary' ? calendarOf(a).name : null)],
    ['Deadline', (a) => finish(a.deadline)],
    ['Fixed start', (a) => constraint(a, 'fixedStart')],
    ['Not earlier than', (a) => constraint(a, 'startNotEarlier')],
    ['Responsible', (a) => a.responsible.join('; ')],
    ...plan.codeFields.map((f): [string, (a: Activity) => OutCell] => [f.name, (a) => a.codes[f.id] ?? null]),
    ['Budgeted effort', (a) => hours(a.effort)],
    ['Actual effort', (a) => hours(a.actualEffort)],
    ['Budgeted cost', (a) => hundredth(a.cost)],
    ['Actual cost', (a) => hundredth(a.actualCost)],
    ['From place', (a) => thousandth(a.from)],
    ['To place', (a) => thousandth(a.to)],
    ['Rate (per working day)', (a) => a.rate],
    ['Crews', (a) => a.crews],
    ['Quantity', (a) => a.quantity],
    ['Daily output', (a) => a.output],
    ['Notes', (a) => a.notes],
    [ORIGIN_HEADINGS[0], (a) => origin(a, 'start')],
    [ORIGIN_HEADINGS[1], (a) => origin(a, 'finish')],
  ];
  const cells = columns.map(([, cell]) => plan.activities.map(cell));
  const holds = (k: number) => k < 2 || cells[k]!.some((c) => c !== null && c !== '');
  const kept = columns.map((_, k) => k).filter(holds);
  return {
    headings: kept.map((k) => columns[k]![0]),
    rows: plan.activities.map((_, i) => kept.map((k) => cells[k]![i]!)),
  };
}

/** A length as it is read back: in days of its calendar, elapsed days, hours or minutes, whichever is whole. */
export function lengthText(minutes: number, calendar: CalendarSpec): string {
  if (calendar.id === ROUND_THE_CLOCK.id && minutes % MINUTES_PER_DAY === 0 && minutes > 0)
    return `${minutes / MINUTES_PER_DAY} elapsed days`;
  if (minutes % calendar.minutesPerDay === 0) return `${minutes / calendar.minutesPerDay} d`;
  return minutes % 60 === 0 ? `${minutes / 60} h` : `${minutes} min`;
}

function linkText(l: Link, to: Activity, calendarOf: (a: Activity) => CalendarSpec, own: CalendarSpec): string {
  if (l.lag === 0) return l.type === 'FS' ? l.from : `${l.from} ${l.type}`;
  const amount = Math.abs(l.lag);
  const calendar = l.lagCalendar === 'plan' ? own : calendarOf(to);
  const text =
    l.lagCalendar === 'elapsed'
      ? amount % MINUTES_PER_DAY === 0
        ? `${amount / MINUTES_PER_DAY} elapsed days`
        : `${amount} elapsed min`
      : lengthText(amount, calendar);
  return `${l.from} ${l.type}${l.lag > 0 ? '+' : '-'}${text}`;
}

/** A day or moment as ISO text. */
export const momentText = ({ moment, timed }: { moment: number; timed: boolean }): string => {
  const day = Math.floor(moment / MINUTES_PER_DAY);
  const minute = moment - day * MINUTES_PER_DAY;
  const clock = `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
  return timed ? `${isoDate(day)} ${clock}` : isoDate(day);
};
