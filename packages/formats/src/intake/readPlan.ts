import {
  type Activity,
  type CalendarSpec,
  type CodeField,
  daysByRate,
  endOfDay,
  FIVE_DAY,
  type Link,
  makeActivity,
  makePlan,
  type Plan,
  ROUND_THE_CLOCK,
  STANDARD_CALENDARS,
  startOfDay,
  makeField,
  makeValue,
  isChainageText,
  readPlace,
  isMilestone,
} from '@clembo/core';
import { type Table, UnreadableFile } from '../table/table';
import { type ReadDuration, saysNothing, toMinutes } from '../values/amounts';
import type { ReadDate } from '../values/dates';
import { MOST_IN_A_CELL, readPredecessors } from '../values/predecessors';
import { guessCalendar } from './calendars';
import { type CellDates, CellReader, type ColumnTally } from './cells';
import type { ColumnMap } from './columnMap';
import { type FieldId, isMoneyField } from './fields';
import { type ReadKind, readKind } from './kinds';
import { type OutlineRow, readOutline } from './outline';
import type { Problem } from './problems';
import { type RowKind, type TableRow, tellRows } from './rows';

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
  /** Rows that were left out for what they are, or because nobody wants them. */
  left: { row: number; kind: Exclude<RowKind, 'work' | 'section'>; text: string; ref?: string }[];
  /** What became of the cells of each column. */
  tallies: ColumnTally[];
}

/** How many code fields a plan may have. */
const MOST_CODE_FIELDS = 100;
const LONGEST_NOTES = 10_000;
/** How many links a plan may have. */
const MOST_LINKS = 1_000_000;
/** The longest that a duration or lag may be, in working minutes, and the farthest that a place may lie, in thousandths. */
const MOST_MINUTES = 105_000_000;
const FARTHEST = 2_000_000_000;

/** One row on its way to an activity. */
interface Draft extends OutlineRow {
  row: number;
  ref: string;
  name: string;
  start: ReadDate | null;
  finish: ReadDate | null;
  duration: ReadDuration | null;
  said: { start: string | null; finish: string | null };
  codes: Record<string, string>;
  notes: string[];
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
  if (cells.codeColumns.length > MOST_CODE_FIELDS)
    throw new UnreadableFile(
      `${cells.codeColumns.length} columns are said to be codes; a plan can have ${MOST_CODE_FIELDS}. Leave out those that are not needed.`,
    );
  const { drafts, rowsRead, left } = readDrafts(cells);
  const rowOf = nameReferences(drafts, cells);
  leaveOutByHand(drafts, rowOf, left, cells);
  const parents = readOutline(drafts, cells);
  const calendars = [...(options.calendars ?? STANDARD_CALENDARS), ...(table.calendars ?? [])];
  const own =
    calendars.find((c) => c.id === options.calendar) ??
    mostNamed(drafts, calendars, cells) ??
    calendars.find((c) => c.id === guessCalendar(drafts)) ??
    calendars[0] ??
    FIVE_DAY;
  const inHours = hasTimes(drafts) || drafts.some((d) => isPartOfDay(d.duration, own));
  if (drafts.some((d) => d.duration?.elapsed) && !calendars.some((c) => c.id === ROUND_THE_CLOCK.id))
    calendars.push(ROUND_THE_CLOCK);

  const codeFields = cells.codeColumns.map(({ id, name }): CodeField => makeField({ id, name }));
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
      notes: notesOf(cells.textUpTo(d, 'notes', LONGEST_NOTES), d.notes),
    });
    readAmounts(activity, d, calendar, cells);
    readTimes(activity, d, calendar, inHours, lengthKnown, hasPredecessors(d), cells);
    const start = cells.date(d, 'baselineStart');
    const finish = cells.date(d, 'baselineFinish');
    if (start || finish) {
      const promised = {
        start: start && startMoment(start, inHours),
        finish: finish && finishMoment(finish, inHours),
      };
      baseline.push({ ref: d.ref, ...promised });
      if (isShort(activity)) activity.promised = promised;
    }
    return activity;
  });
  fillCodeBooks(codeFields, activities);
  const links = readLinks(drafts, activities, calendars, own, rowOf, cells);
  const dates = datesOf(activities, links);
  const plan = makePlan({
    name: options.name,
    statusDate: options.statusDate ?? (map.statusDay === null ? null : startOfDay(map.statusDay)),
    start: dates === 'computed' ? (options.start ?? null) : null,
    source: dates === 'computed' ? 'computed' : 'given',
    asPromised: map.asPromised ?? false,
    inHours,
    calendars,
    calendar: own.id,
    activities,
    links,
    codeFields,
    currency: cells.columnOf('cost') >= 0 || cells.columnOf('actualCost') >= 0 ? map.currency : null,
  });
  return {
    plan,
    baseline,
    dates,
    problems: cells.problems.sort((a, b) => a.row - b.row || a.column - b.column),
    rowOf,
    rowsRead,
    rowsTaken: drafts.length,
    left,
    tallies: cells.tallies,
  };
}

/** Whether an activity lacks dates of its own that its promise could stand in for, or the length between them. */
const isShort = (a: Activity): boolean =>
  a.kind !== 'summary' &&
  (isMilestone(a.kind) ? a.start === null && a.finish === null : a.start === null || a.finish === null);

/** Takes out the rows that a person took out by hand. */
function leaveOutByHand(drafts: Draft[], rowOf: Map<string, number>, left: Intake['left'], cells: CellReader): void {
  const without = new Set(cells.map.pick.without);
  if (without.size === 0) return;
  for (let i = drafts.length - 1; i >= 0; i--) {
    const d = drafts[i]!;
    if (!without.has(d.ref)) continue;
    drafts.splice(i, 1);
    rowOf.delete(d.ref);
    left.push({ row: d.row, kind: 'notPicked', text: d.name, ref: d.ref });
  }
}

/** A table without any date is a plan to be computed when it has lengths or links; without those too, it says nothing of time. */
function datesOf(activities: Activity[], links: Link[]): Intake['dates'] {
  if (activities.some((a) => [a.start, a.finish, a.actualStart, a.actualFinish].some((d) => d !== null)))
    return 'given';
  const isLong = (a: Activity) => (a.duration ?? 0) > 0 || (daysByRate(a) ?? 0) > 0;
  return links.length > 0 || activities.some(isLong) ? 'computed' : 'none';
}

const notesOf = (own: string, more: readonly string[]): string =>
  more.length === 0
    ? own
    : [own, ...more]
        .filter((t) => t !== '')
        .join('\n')
        .slice(0, LONGEST_NOTES);

function readDrafts(cells: CellReader): { drafts: Draft[]; rowsRead: number; left: Intake['left'] } {
  const drafts: Draft[] = [];
  const left: Intake['left'] = [];
  const rows = tellRows(cells);
  for (const at of rows) {
    const taken =
      at.kind === 'work' ||
      at.kind === 'section' ||
      (cells.map.foot === 'in' && (at.kind === 'foot' || at.kind === 'total'));
    if (!taken) {
      left.push({ row: at.row, kind: at.kind as Intake['left'][number]['kind'], text: wordsOf(at) });
      continue;
    }
    const draft = readDraft(at, cells);
    if (draft.name === '' && !draft.start && !draft.finish && !draft.duration && draft.ref === '')
      cells.problem('nothingUsable', at.row, null, wordsOf(at));
    else if (isOutside(draft, cells.map.pick)) left.push({ row: at.row, kind: 'notPicked', text: wordsOf(at) });
    else drafts.push(draft);
  }
  return { drafts, rowsRead: rows.length, left };
}

/** True for what lies before the first day that is wanted, or behind the last. */
function isOutside({ start, finish }: Draft, { from, to }: ColumnMap['pick']): boolean {
  const [first, last] = [start ?? finish, finish ?? start];
  return first !== null && last !== null && ((from !== null && last.last < from) || (to !== null && first.day > to));
}

const wordsOf = ({ line }: TableRow): string =>
  line
    .map((c) => c.trim())
    .filter((c) => c !== '')
    .join(' · ')
    .slice(0, 80);

function readDraft(at: TableRow, cells: CellReader): Draft {
  const { row, line } = at;
  const codes: Record<string, string> = {};
  for (const { id, column } of cells.codeColumns) {
    const text = cells.cell(at, column);
    if (text === '') continue;
    codes[id] = text.slice(0, 300);
    cells.count(column, text, 'read');
  }
  const notes: string[] = [];
  for (const { name, column } of cells.noteColumns) {
    const text = cells.cell(at, column);
    if (text === '') continue;
    cells.count(column, text, 'read');
    notes.push(`${name}: ${text}`);
  }
  const blanksBefore = (field: FieldId) => /^\s*/.exec(line[cells.columnOf(field)] ?? '')![0].length;
  // A section may stand in any column.
  const isSection = at.kind === 'section';
  let name = cells.text(at, 'name') || (isSection ? line.find((c) => c.trim() !== '')!.trim() : '');
  if (name.length > 1000) {
    cells.problem('tooLong', row, 'name', name, '1000');
    name = name.slice(0, 1000);
  } else if (name !== '') cells.count(cells.columnOf('name'), name, 'read');
  const dates = readDates(at, cells);
  const ref = cells.text(at, 'ref');
  if (ref !== '') cells.count(cells.columnOf('ref'), ref, 'read');
  return {
    row,
    line,
    ref,
    name,
    // Where names stand in a line, references may be set in.
    indent: blanksBefore('name') || blanksBefore('ref'),
    isSection,
    ...dates,
    duration: cells.duration(at, 'duration'),
    codes,
    notes,
  };
}

/** Start and finish of a row: of two cells, or of one that holds both or a date vaguer than a day. */
function readDates(at: TableRow, cells: CellReader): Pick<Draft, 'start' | 'finish' | 'said'> {
  const a = cells.cellDates(at, 'start');
  const b = cells.cellDates(at, 'finish');
  const s = datesOrNull(a);
  const f = datesOrNull(b);
  const words = (field: FieldId) => cells.text(at, field).slice(0, 200);
  // A cell that says both is read for both, as far as the other cell says nothing.
  const ownFinish = f ? (f.finish ?? f.start) : null;
  const finish = ownFinish ?? s?.finish ?? (s && b === null && isSpan(s.start) ? s.start : null);
  const isOfFinish =
    f !== null && a === null && (f.finish !== null || (isSpan(f.start) && cells.columnOf('start') < 0));
  const start = s?.start ?? (isOfFinish ? f.start : null);
  const said = {
    start: s?.start.said ?? (a === 'notYet' ? words('start') : null),
    finish: finish?.said ?? (b === 'notYet' ? words('finish') : null),
  };
  return { start, finish, said: said.start === null && said.finish === null ? NOTHING_SAID : said };
}

const NOTHING_SAID = { start: null, finish: null };
const datesOrNull = (read: CellDates | 'none' | 'notYet' | null): CellDates | null =>
  read === null || typeof read === 'string' ? null : read;
const isSpan = (date: ReadDate): boolean => date.last > date.day;

/** A dotted number before a name. */
const NUMBER_BEFORE = /^(\d+(?:\.\d+)*)\.?\s+\S/;

/**
 * Gives every draft a reference of its own: the one in the table, the outline code (in a column, or before the names),
 * or the number of its row.
 */
function nameReferences(drafts: Draft[], cells: CellReader): Map<string, number> {
  const outlineCodes =
    cells.columnOf('outline') >= 0
      ? drafts.map((d) => cells.text(d, 'outline'))
      : drafts.map((d) => NUMBER_BEFORE.exec(d.name)?.[1] ?? '');
  const byOutline =
    cells.columnOf('ref') < 0 && outlineCodes.every((c) => c !== '') && new Set(outlineCodes).size === drafts.length;
  const hasOwn = drafts.some((d) => d.ref !== '');
  const rowOf = new Map<string, number>();
  // Where a reference comes back again and again, the next number is known.
  const next = new Map<string, number>();
  drafts.forEach((d, i) => {
    const wanted = (hasOwn ? d.ref : byOutline ? outlineCodes[i]! : String(i + 1)).slice(0, 190) || `row ${d.row}`;
    let ref = wanted;
    if (rowOf.has(ref)) {
      cells.problem('duplicateReference', d.row, 'ref', wanted, String(rowOf.get(ref)));
      let k = next.get(wanted) ?? 2;
      for (; rowOf.has(ref); k++) ref = `${wanted} (${k})`;
      next.set(wanted, k);
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

/** True for a length in hours or minutes that is no whole number of days. */
const isPartOfDay = (d: ReadDuration | null, { minutesPerDay }: CalendarSpec): boolean =>
  d !== null &&
  !d.elapsed &&
  (d.unit === 'hour' || d.unit === 'minute') &&
  (d.amount * (d.unit === 'hour' ? 60 : 1)) % minutesPerDay !== 0;

const startMoment = (date: ReadDate, inHours: boolean): number =>
  startOfDay(date.day) + (inHours ? (date.minute ?? 0) : 0);

const finishMoment = (date: ReadDate, inHours: boolean): number =>
  inHours && date.minute !== null ? startOfDay(date.day) + date.minute : endOfDay(date.last);

/** The calendar that the most rows name, or undefined where more of them name none. */
function mostNamed(drafts: Draft[], calendars: readonly CalendarSpec[], cells: CellReader): CalendarSpec | undefined {
  if (cells.columnOf('calendar') < 0) return undefined;
  const counts = new Map<string, number>();
  for (const d of drafts) {
    const text = cells.text(d, 'calendar');
    counts.set(text, (counts.get(text) ?? 0) + 1);
  }
  const [text] = [...counts].reduce((best, entry) => (entry[1] > best[1] ? entry : best), ['', 0] as [string, number]);
  return calendarNamed(text, calendars);
}

const plainName = (s: string): string =>
  s
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '')
    .replace('5', 'five')
    .replace('6', 'six')
    .replace('7', 'seven')
    .replace(/week$/, '');

const calendarNamed = (text: string, calendars: readonly CalendarSpec[]): CalendarSpec | undefined =>
  text === ''
    ? undefined
    : calendars.find((c) => plainName(c.id) === plainName(text) || plainName(c.name) === plainName(text));

function readCalendar(d: Draft, calendars: CalendarSpec[], own: CalendarSpec, cells: CellReader): CalendarSpec {
  const text = cells.text(d, 'calendar');
  // What is counted in elapsed time goes on by night and on days off.
  if (text === '') return d.duration?.elapsed ? ROUND_THE_CLOCK : own;
  cells.count(cells.columnOf('calendar'), text, 'read');
  const found = calendarNamed(text, calendars);
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
  const minutes = (r: ReadDuration, field: FieldId) => {
    const amount = toMinutes(r, calendar);
    if (amount <= MOST_MINUTES) return amount;
    cells.problem('tooLarge', d.row, field, cells.text(d, field), '200 working years');
    return null;
  };
  const startOf = (date: ReadDate | null) => date && startMoment(date, inHours);
  const finishOf = (date: ReadDate | null) => date && finishMoment(date, inHours);
  a.kind = kindOf(a, d, lengthKnown, hasPredecessors, cells);
  a.duration = d.duration ? minutes(d.duration, 'duration') : null;
  a.start = startOf(d.start);
  a.finish = finishOf(d.finish);
  if (d.said.start !== null || d.said.finish !== null) a.said = { ...d.said };
  if (d.start && d.finish && d.finish.last < d.start.day) {
    cells.problem('finishBeforeStart', d.row, 'finish', cells.text(d, 'finish'), cells.text(d, 'start'));
    a.finish = null;
  }
  const happened = (date: ReadDate | null) => (date?.mark === 'actual' ? date : null);
  a.actualStart = startOf(cells.date(d, 'actualStart') ?? happened(d.start));
  a.actualFinish = finishOf(cells.date(d, 'actualFinish') ?? happened(d.finish));
  a.deadline = finishOf(cells.date(d, 'deadline'));
  const fixed = startOf(cells.date(d, 'fixedStart'));
  const notEarlier = startOf(cells.date(d, 'notEarlier'));
  if (fixed !== null) a.constraint = { kind: 'fixedStart', moment: fixed };
  else if (notEarlier !== null) a.constraint = { kind: 'startNotEarlier', moment: notEarlier };
  const remaining = cells.duration(d, 'remaining');
  if (remaining) a.remaining = minutes(remaining, 'remaining');
  if (a.kind === 'startMilestone' && a.start === null && a.finish !== null) {
    a.start = startOfDay(d.finish!.day);
    a.finish = null;
    if (a.said) a.said = { start: a.said.finish, finish: null };
  }
  if (a.kind === 'finishMilestone' && a.finish === null && d.start) {
    a.finish = finishOf(d.start);
    if (a.said) a.said = { start: null, finish: a.said.finish ?? a.said.start };
  }
  if ((a.kind === 'startMilestone' || a.kind === 'finishMilestone') && a.duration === null) a.duration = 0;
}

/** One date, or a duration of nothing, means a milestone, unless the table says the kind. */
function kindOf(
  a: Activity,
  d: Draft,
  lengthKnown: boolean,
  hasPredecessors: boolean,
  cells: CellReader,
): Activity['kind'] {
  if (d.isSummary) return 'summary';
  const isLatest = (d.start ?? d.finish)?.bound === 'by';
  const milestone = hasPredecessors || isLatest || (!d.start && d.finish) ? 'finishMilestone' : 'startMilestone';
  const text = cells.text(d, 'kind');
  if (text !== '') {
    const kind: ReadKind | null = readKind(text);
    cells.count(cells.columnOf('kind'), text, kind === null ? 'unread' : 'read');
    if (kind === null) cells.problem('notAKind', d.row, 'kind', text);
    else if (kind === 'milestone') return milestone;
    else if (kind !== 'activity') return kind;
  }
  if (cells.yesNo(d, 'milestone')) return milestone;
  if (d.duration) return d.duration.amount === 0 ? milestone : 'activity';
  if ((a.effort ?? 0) > 0) return 'activity';
  // A quantity at a daily output, or a way at a rate, is work, whose length is not said.
  if ((daysByRate(a) ?? 0) > 0 || cells.text(d, 'rate') !== '') return 'activity';
  const dates = (d.start ? 1 : 0) + (d.finish ? 1 : 0);
  // A duration or finish that could not be read is not the same as none.
  const said = (field: FieldId) => cells.text(d, field) !== '' && saysNothing(cells.text(d, field)) !== 'none';
  const unread = said('duration') || (said('start') && !d.start) || (said('finish') && !d.finish);
  return dates === 1 && !unread && (lengthKnown || cells.columnOf('start') >= 0) ? milestone : 'activity';
}

function readAmounts(a: Activity, d: Draft, calendar: CalendarSpec, cells: CellReader): void {
  a.percent = cells.percent(d);
  const scaled = (field: FieldId, factor: number, most = Number.MAX_SAFE_INTEGER) => {
    const value = isMoneyField(field) ? cells.money(d, field) : cells.number(d, field);
    if (value === null) return null;
    const whole = Math.round(value * factor);
    if (Math.abs(whole) <= most) return whole;
    cells.problem('tooLarge', d.row, field, cells.text(d, field), String(most / factor));
    return null;
  };
  /** A place in thousandths: a number, or chainage in metres. */
  const place = (field: 'from' | 'to'): number | null => {
    const text = cells.text(d, field);
    const chain = isChainageText(text) ? readPlace(text, 'chainage') : null;
    if (chain === null || Math.abs(chain) > FARTHEST) return scaled(field, 1000, FARTHEST);
    cells.count(cells.columnOf(field), text, 'read');
    return chain;
  };
  const positive = (value: number | null) => (value === null ? null : Math.max(0, value));
  a.effort = positive(scaled('effort', 60));
  a.actualEffort = positive(scaled('actualEffort', 60));
  a.cost = scaled('cost', 100);
  a.actualCost = scaled('actualCost', 100);
  a.from = place('from');
  a.to = place('to');
  a.occupies = cells.yesNo(d, 'occupies') ?? false;
  a.quantity = cells.number(d, 'quantity');
  a.output = positive(cells.number(d, 'output'));
  a.rate = positive(cells.rate(d, calendar));
  a.crews = positive(cells.number(d, 'crews'));
  const people = cells.text(d, 'responsible');
  if (people === '') return;
  cells.count(cells.columnOf('responsible'), people, 'read');
  // Where semicolons stand between people, a comma belongs to a name.
  a.responsible = people
    .split(people.includes(';') ? /[;\n]/ : /[,\n]/)
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
      if (seen.size <= 10_000) field.values.push(makeValue({ code }));
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
  const refFor = referenceFinder(drafts, rowOf, cells.map.predecessorsBy);
  drafts.forEach((d, i) => {
    const text = cells.listed(d, 'predecessors');
    if (text === '' || saysNothing(text) === 'none') return;
    const { read, wrong, more } = readPredecessors(text, (said) => refFor(said) !== undefined);
    cells.count(cells.columnOf('predecessors'), text, wrong.length > 0 ? 'unread' : 'read');
    if (more) cells.problem('tooMany', d.row, 'predecessors', '', String(MOST_IN_A_CELL));
    if (links.length + read.length > MOST_LINKS)
      throw new UnreadableFile(
        `${cells.table.source} has more than ${MOST_LINKS} links (row ${d.row}). Is that column one of predecessors?`,
      );
    for (const part of wrong) cells.problem('unknownPredecessor', d.row, 'predecessors', part);
    // Beside work that goes on round the clock, a lag in days is one of the plan's days.
    const isRound = activities[i]!.calendar === ROUND_THE_CLOCK.id;
    const calendar = isRound ? own : (calendars.find((c) => c.id === activities[i]!.calendar) ?? own);
    for (const p of read) {
      const lag = p.lag ? toMinutes(p.lag, calendar) : 0;
      if (Math.abs(lag) > MOST_MINUTES) {
        cells.problem('tooLarge', d.row, 'predecessors', text, 'a lag of 200 working years');
        continue;
      }
      links.push({
        from: refFor(p.ref)!,
        to: d.ref,
        type: p.type,
        lag,
        lagCalendar: p.lag?.elapsed ? 'elapsed' : isRound && lag !== 0 ? 'plan' : 'successor',
      });
    }
  });
  return links;
}

/** The reference of the row that a predecessor names: by reference, by its place in the list, or by its row in the sheet. */
function referenceFinder(
  drafts: readonly Draft[],
  rowOf: ReadonlyMap<string, number>,
  by: ColumnMap['predecessorsBy'],
): (said: string) => string | undefined {
  if (by === 'reference') {
    // A spreadsheet takes zeros away: 1 is 01 where that is the only one.
    const byNumber = new Map<string, string | undefined>();
    for (const ref of rowOf.keys()) {
      const plain = /^\d+$/.test(ref) ? ref.replace(/^0+(?=\d)/, '') : null;
      if (plain !== null) byNumber.set(plain, byNumber.has(plain) ? undefined : ref);
    }
    return (said) => (rowOf.has(said) ? said : byNumber.get(said.replace(/^0+(?=\d)/, '')));
  }
  const named = new Map(drafts.map((d, i) => [String(by === 'row' ? d.row : i + 1), d.ref]));
  return (said) => named.get(said);
}
