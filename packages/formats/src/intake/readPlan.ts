import {
  type Activity,
  type CalendarSpec,
  type CodeField,
  endOfDay,
  FIVE_DAY,
  type Link,
  makeActivity,
  makePlan,
  type Plan,
  STANDARD_CALENDARS,
  startOfDay,
} from '@clembo/core';
import type { Table } from '../table/table';
import { type ReadDuration, readNumber, toMinutes } from '../values/amounts';
import type { ReadDate } from '../values/dates';
import { readPredecessors } from '../values/predecessors';
import { guessCalendar } from './calendars';
import { CellReader, type CellRow } from './cells';
import { type ColumnMap, type ReadKind, readKind } from './columnMap';
import type { FieldId } from './fields';
import { type OutlineRow, readOutline } from './outline';
import type { Problem } from './problems';

export interface IntakeOptions {
  /** Name of the plan. */
  name: string;
  /** Calendars that the calendar column may name; the standard ones by default. */
  calendars?: readonly CalendarSpec[];
  /** Id of the plan's own calendar; guessed from dates and durations by default. */
  calendar?: string;
  /** Moment of the status date. */
  statusDate?: number | null;
  /** Moment at which a plan without dates starts, as a person says it; nothing is taken in its place. */
  start?: number | null;
}

/** A baseline that the table carries beside the current dates. */
export interface BaselineDates {
  ref: string;
  start: number | null;
  finish: number | null;
}

export interface Intake {
  plan: Plan;
  baseline: BaselineDates[];
  problems: Problem[];
  /** The row of the source of every reference, as a spreadsheet counts. */
  rowOf: Map<string, number>;
  /** What can be drawn of it: given dates, dates to be computed from lengths and links, or nothing at all. */
  dates: 'given' | 'computed' | 'none';
  /** Rows of the table that hold anything, and how many of them were taken in. */
  rowsRead: number;
  rowsTaken: number;
}

/** One row on its way to an activity. */
interface Draft extends OutlineRow {
  row: number;
  ref: string;
  name: string;
  start: ReadDate | null;
  finish: ReadDate | null;
  duration: ReadDuration | null;
  codes: Record<string, string>;
}

/**
 * Makes a plan of a table by a column map.
 *
 *   rows → drafts → references → outline → working time → activities → links
 *
 * A cell that cannot be read is a problem with its place and is left empty; its row stays.
 */
export function readPlan(table: Table, map: ColumnMap, options: IntakeOptions): Intake {
  const cells = new CellReader(table, map);
  const { drafts, rowsRead } = readDrafts(cells);
  const rowOf = nameReferences(drafts, cells);
  const parents = readOutline(drafts, cells);
  const inHours = hasTimes(drafts) || drafts.some((d) => d.duration?.unit === 'minute' || d.duration?.unit === 'hour');
  const calendars = [...(options.calendars ?? STANDARD_CALENDARS)];
  const own =
    calendars.find((c) => c.id === options.calendar) ??
    calendars.find((c) => c.id === guessCalendar(drafts)) ??
    calendars[0] ??
    FIVE_DAY;

  const codeFields = cells.codeColumns.map(({ id, name }): CodeField => ({ id, name, values: [] }));
  const hasPredecessors = (d: Draft) => cells.text(d, 'predecessors') !== '';
  const lengthKnown = cells.columnOf('duration') >= 0 || cells.columnOf('finish') >= 0;
  const baseline: BaselineDates[] = [];
  const activities = drafts.map((d): Activity => {
    const calendar = readCalendar(d, calendars, own, cells);
    const activity = makeActivity({
      ref: d.ref,
      name: d.name,
      parent: parents.size > 0 ? (parents.get(d.ref) ?? null) : null,
      calendar: calendar === own ? null : calendar.id,
      codes: d.codes,
      notes: cells.text(d, 'notes'),
    });
    readTimes(activity, d, calendar, inHours, lengthKnown, hasPredecessors(d), cells);
    readAmounts(activity, d, cells);
    const start = cells.date(d, 'baselineStart');
    const finish = cells.date(d, 'baselineFinish');
    if (start || finish) {
      baseline.push({
        ref: d.ref,
        start: start && startMoment(start, inHours),
        finish: finish && finishMoment(finish, inHours),
      });
    }
    return activity;
  });
  fillCodeBooks(codeFields, activities);
  const links = readLinks(drafts, activities, calendars, own, rowOf, cells);
  const dates = datesOf(activities, links);
  const plan = makePlan({
    name: options.name,
    statusDate: options.statusDate ?? null,
    start: dates === 'computed' ? (options.start ?? null) : null,
    source: dates === 'computed' ? 'computed' : 'given',
    inHours,
    calendars,
    calendar: own.id,
    activities,
    links,
    codeFields,
  });
  return {
    plan,
    baseline,
    dates,
    problems: cells.problems.sort((a, b) => a.row - b.row || a.column - b.column),
    rowOf,
    rowsRead,
    rowsTaken: drafts.length,
  };
}

/** A table without any date is a plan to be computed when it has lengths or links; without those too, it says nothing of time. */
function datesOf(activities: Activity[], links: Link[]): Intake['dates'] {
  if (activities.some((a) => [a.start, a.finish, a.actualStart, a.actualFinish].some((d) => d !== null)))
    return 'given';
  return links.length > 0 || activities.some((a) => (a.duration ?? 0) > 0) ? 'computed' : 'none';
}

function readDrafts(cells: CellReader): { drafts: Draft[]; rowsRead: number } {
  const { table, map } = cells;
  const drafts: Draft[] = [];
  let rowsRead = 0;
  for (let r = map.headerRow === null ? 0 : map.headerRow + 1; r < table.rows.length; r++) {
    const line = table.rows[r]!;
    if (line.every((cell) => cell.trim() === '')) continue;
    rowsRead++;
    const row = table.firstRow + r;
    const at: CellRow = { row, line };
    const codes: Record<string, string> = {};
    for (const { id, column } of cells.codeColumns) {
      const text = (line[column] ?? '').trim();
      if (text !== '') codes[id] = text.slice(0, 300);
    }
    const rawName = line[cells.columnOf('name')] ?? '';
    let name = rawName.trim();
    if (name.length > 1000) {
      cells.problem('tooLong', row, 'name', name, '1000');
      name = name.slice(0, 1000);
    }
    const draft: Draft = {
      row,
      line,
      ref: cells.text(at, 'ref'),
      name,
      indent: rawName.length - rawName.trimStart().length,
      start: cells.date(at, 'start'),
      finish: cells.date(at, 'finish'),
      duration: cells.duration(cells.text(at, 'duration'), row, 'duration'),
      codes,
    };
    if (name === '' && !draft.start && !draft.finish && !draft.duration && draft.ref === '') {
      cells.problem('nothingUsable', row, null, line.join(' ').trim().slice(0, 80));
      continue;
    }
    drafts.push(draft);
  }
  return { drafts, rowsRead };
}

/** Gives every draft a reference of its own: the one in the table, the outline code, or the number of its row. */
function nameReferences(drafts: Draft[], cells: CellReader): Map<string, number> {
  const outlineCodes = drafts.map((d) => cells.text(d, 'outline'));
  const byOutline =
    cells.columnOf('ref') < 0 && outlineCodes.every((c) => c !== '') && new Set(outlineCodes).size === drafts.length;
  const rowOf = new Map<string, number>();
  drafts.forEach((d, i) => {
    const wanted =
      (cells.columnOf('ref') >= 0 ? d.ref : byOutline ? outlineCodes[i]! : String(i + 1)).slice(0, 190) ||
      `row ${d.row}`;
    let ref = wanted;
    if (rowOf.has(ref)) {
      cells.problem('duplicateReference', d.row, 'ref', wanted, String(rowOf.get(ref)));
      for (let k = 2; rowOf.has(ref); k++) ref = `${wanted} (${k})`;
    }
    rowOf.set(ref, d.row);
    d.ref = ref;
  });
  return rowOf;
}

/** True when the dates carry times that differ from row to row; one hour for all says nothing. */
function hasTimes(drafts: Draft[]): boolean {
  const times = (read: (d: Draft) => ReadDate | null) =>
    new Set(drafts.map((d) => read(d)?.minute).filter((m) => m !== null && m !== undefined)).size;
  return times((d) => d.start) > 1 || times((d) => d.finish) > 1;
}

const startMoment = (date: ReadDate, inHours: boolean): number =>
  startOfDay(date.day) + (inHours ? (date.minute ?? 0) : 0);

const finishMoment = (date: ReadDate, inHours: boolean): number =>
  inHours && date.minute !== null ? startOfDay(date.day) + date.minute : endOfDay(date.day);

function readCalendar(d: Draft, calendars: CalendarSpec[], own: CalendarSpec, cells: CellReader): CalendarSpec {
  const text = cells.text(d, 'calendar');
  if (text === '') return own;
  const plain = (s: string) =>
    s
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '')
      .replace('5', 'five')
      .replace('6', 'six')
      .replace('7', 'seven')
      .replace(/week$/, '');
  const found = calendars.find((c) => plain(c.id) === plain(text) || plain(c.name) === plain(text));
  if (!found) cells.problem('unknownCalendar', d.row, 'calendar', text, calendars.map((c) => c.name).join(', '));
  return found ?? own;
}

function readTimes(
  a: Activity,
  d: Draft,
  calendar: CalendarSpec,
  inHours: boolean,
  lengthKnown: boolean,
  hasPredecessors: boolean,
  cells: CellReader,
): void {
  const minutes = (r: ReadDuration) => toMinutes(r, calendar);
  const startOf = (date: ReadDate | null) => date && startMoment(date, inHours);
  const finishOf = (date: ReadDate | null) => date && finishMoment(date, inHours);
  a.kind = kindOf(d, lengthKnown, hasPredecessors, cells);
  a.duration = d.duration ? minutes(d.duration) : null;
  a.start = startOf(d.start);
  a.finish = finishOf(d.finish);
  if (d.start && d.finish && d.finish.day < d.start.day) {
    cells.problem('finishBeforeStart', d.row, 'finish', cells.text(d, 'finish'), cells.text(d, 'start'));
    a.finish = null;
  }
  a.actualStart = startOf(cells.date(d, 'actualStart'));
  a.actualFinish = finishOf(cells.date(d, 'actualFinish'));
  a.deadline = finishOf(cells.date(d, 'deadline'));
  const fixed = startOf(cells.date(d, 'fixedStart'));
  const notEarlier = startOf(cells.date(d, 'notEarlier'));
  if (fixed !== null) a.constraint = { kind: 'fixedStart', moment: fixed };
  else if (notEarlier !== null) a.constraint = { kind: 'startNotEarlier', moment: notEarlier };
  const remaining = cells.duration(cells.text(d, 'remaining'), d.row, 'remaining');
  if (remaining) a.remaining = minutes(remaining);
  if (a.kind === 'startMilestone' && a.start === null && a.finish !== null) {
    a.start = startOfDay(d.finish!.day);
    a.finish = null;
  }
  if (a.kind === 'finishMilestone' && a.finish === null && d.start) a.finish = finishOf(d.start);
  if ((a.kind === 'startMilestone' || a.kind === 'finishMilestone') && a.duration === null) a.duration = 0;
}

/** One date, or a duration of nothing, means a milestone, unless the table says the kind. */
function kindOf(d: Draft, lengthKnown: boolean, hasPredecessors: boolean, cells: CellReader): Activity['kind'] {
  if (d.isSummary) return 'summary';
  const milestone = hasPredecessors || (!d.start && d.finish) ? 'finishMilestone' : 'startMilestone';
  const text = cells.text(d, 'kind');
  if (text !== '') {
    const kind: ReadKind | null = readKind(text);
    if (kind === null) cells.problem('notAKind', d.row, 'kind', text);
    else if (kind === 'milestone') return milestone;
    else if (kind !== 'activity') return kind;
  }
  if (cells.yesNo(d, 'milestone')) return milestone;
  if (d.duration) return d.duration.amount === 0 ? milestone : 'activity';
  const dates = (d.start ? 1 : 0) + (d.finish ? 1 : 0);
  // A duration or finish that could not be read is not the same as none.
  const unread =
    cells.text(d, 'duration') !== '' ||
    (cells.text(d, 'start') !== '' && !d.start) ||
    (cells.text(d, 'finish') !== '' && !d.finish);
  return dates === 1 && !unread && (lengthKnown || cells.columnOf('start') >= 0) ? milestone : 'activity';
}

function readAmounts(a: Activity, d: Draft, cells: CellReader): void {
  const text = cells.text(d, 'percent');
  if (text !== '') {
    const number = readNumber(text);
    const percent = number === null ? null : cells.map.percentIsFraction && !text.includes('%') ? number * 100 : number;
    if (percent === null || percent < 0 || percent > 100) cells.problem('notAPercent', d.row, 'percent', text);
    else a.percent = percent;
  }
  const scaled = (field: FieldId, factor: number) => {
    const value = cells.number(d, field);
    return value === null ? null : Math.round(value * factor);
  };
  const positive = (value: number | null) => (value === null ? null : Math.max(0, value));
  a.effort = positive(scaled('effort', 60));
  a.actualEffort = positive(scaled('actualEffort', 60));
  a.cost = scaled('cost', 100);
  a.actualCost = scaled('actualCost', 100);
  a.from = scaled('from', 1000);
  a.to = scaled('to', 1000);
  a.occupies = cells.yesNo(d, 'occupies') ?? false;
  a.quantity = cells.number(d, 'quantity');
  a.rate = positive(cells.number(d, 'rate'));
  a.crews = positive(cells.number(d, 'crews'));
  const people = cells.text(d, 'responsible');
  if (people === '') return;
  a.responsible = people
    .split(/[;,]/)
    .map((p) => p.trim().slice(0, 200))
    .filter((p) => p !== '')
    .slice(0, 50);
}

/** Code books in the order in which values first appear. */
function fillCodeBooks(fields: CodeField[], activities: Activity[]): void {
  for (const field of fields) {
    const seen = new Set<string>();
    for (const a of activities) {
      const code = a.codes[field.id];
      if (code === undefined || seen.has(code)) continue;
      seen.add(code);
      if (seen.size <= 10_000) field.values.push({ code, title: code, colour: null, shape: null });
    }
  }
}

function readLinks(
  drafts: Draft[],
  activities: Activity[],
  calendars: CalendarSpec[],
  own: CalendarSpec,
  rowOf: ReadonlyMap<string, number>,
  cells: CellReader,
): Link[] {
  if (cells.columnOf('predecessors') < 0) return [];
  const links: Link[] = [];
  drafts.forEach((d, i) => {
    const text = cells.text(d, 'predecessors');
    if (text === '') return;
    const { read, wrong } = readPredecessors(text, (ref) => rowOf.has(ref));
    for (const part of wrong) cells.problem('unknownPredecessor', d.row, 'predecessors', part);
    const calendar = calendars.find((c) => c.id === activities[i]!.calendar) ?? own;
    for (const p of read) {
      const lag = p.lag ? toMinutes(p.lag, calendar) : 0;
      links.push({ from: p.ref, to: d.ref, type: p.type, lag, lagCalendar: p.lag?.elapsed ? 'elapsed' : 'successor' });
    }
  });
  return links;
}
