import {
  countWords,
  type Activity,
  applyCommand,
  type Arrangement,
  arrange,
  type Band,
  bandOfDays,
  bandOfRatio,
  calendarOf,
  type Command,
  codeOfFieldId,
  type Concealed,
  ConditionRefused,
  constraintWords,
  type Day,
  dayOf,
  fieldReader,
  fieldType,
  finishDayOf,
  freeRef,
  insertBehind,
  type LedgerLine,
  makeActivity,
  NONE,
  outlineNumbers,
  percentReader,
  type Plan,
  type Schedule,
  schedulePlan,
  shownDays,
  stretchesAt,
  type Tolerance,
  toleranceOf,
  type Totals,
  type Variance,
  varianceReader,
  valueText,
  workingDaysFrom,
  isLoose,
  ROUND_THE_CLOCK,
  wholePercent,
} from '@clembo/core';
import { cellText, dayTyped, lengthTyped, typedInto, isElapsed } from '@clembo/formats/typed';
import { formatDay } from '@clembo/scene/dates';
import { CATEGORIES } from '@clembo/scene/ink';
import { type Held, oneDecimal } from './held';
import { dateSpan } from './span';

/** How a cell is told apart: late and ahead by colour too, what is required and empty, what is worked out. */
export type Tone = '' | 'late' | 'watch' | 'ahead' | 'bold' | 'soft' | 'missing';

/** What a row's strip is drawn from. */
export interface Strip {
  first: Day;
  last: Day;
  /** Where it begins and ends, in days and fractions of them: whole days unless the plan is in hours. */
  from: number;
  to: number;
  /** Stretches of interrupted work, likewise; null for work in one piece. */
  pieces: { from: number; to: number }[] | null;
  /** Whose working time it is in: the id of a calendar. */
  calendar: string;
  percent: number;
  kind: Activity['kind'];
  summary: boolean;
  critical: boolean;
  /** Where the promise has it, if that is known. */
  promised: { first: Day; last: Day } | null;
}

/** One line of the ledger as it is shown. */
export interface LedgerShown {
  kind: LedgerLine['kind'];
  key: string;
  /** The reference of an activity; an empty text for headings. */
  ref: string;
  number: string;
  name: string;
  level: number;
  summary: boolean;
  milestone: boolean;
  canClose: boolean;
  closed: boolean;
  /** What a closed line conceals, in words. */
  hides: string;
  /** Totals of a group, in words. */
  totals: string;
  /** The colour of the code value that a group is about; null for what has none. */
  colour: string | null;
  cells: string[];
  tones: Tone[];
  strip: Strip | null;
}

/** What is in sight: places of lines, from the first up to one behind the last, and the activity that is chosen. */
export interface Sight {
  from: number;
  to: number;
  ref: string | null;
}

/** What the ledger is, with the lines in sight. */
export interface LedgerShape {
  lines: number;
  /** Activities that are no groups, of how many. */
  activities: number;
  listed: number;
  undated: number;
  range: [Day, Day] | null;
  error: string | null;
  /** The lines that are in sight, from a place on, and where the activity that is chosen stands; -1 for nowhere. */
  sight: { from: number; lines: LedgerShown[]; ref: string | null; place: number };
}

/** Something typed that cannot be used, with the reason. */
export interface WrongCell {
  ref: string;
  field: string;
  text: string;
  why: string;
}

/** The ledger of a plan as it stands: arranged once, answered line by line. */
export class LedgerView {
  private lines: LedgerLine[] = [];
  private error: string | null = null;
  private readonly readers: ((i: number) => string)[];
  private readonly percent: (i: number) => number;
  private readonly numbers: string[] | null;
  private readonly variance: ((i: number) => Variance | null) | null;
  private readonly promisedAt: ((ref: string) => { first: Day; last: Day } | null) | null;

  constructor(
    private readonly held: Held,
    private readonly arrangement: Arrangement,
    closed: readonly string[],
  ) {
    const { plan, schedule, promised = null } = held;
    this.variance = promised && varianceReader(plan, schedule, promised.plan, promised.schedule);
    try {
      this.lines = arrange(plan, schedule, arrangement, new Set(closed), promised);
    } catch (error) {
      if (!(error instanceof ConditionRefused)) throw error;
      this.error = error.message;
    }
    this.percent = percentReader(plan, schedule);
    this.readers = arrangement.columns.map(({ field }) => cellReader(held, field, this.percent));
    this.numbers = arrangement.numbers ? outlineNumbers(schedule.outline) : null;
    this.promisedAt =
      promised &&
      ((ref) => {
        const at = promised.schedule.outline.indexOf.get(ref);
        return at === undefined ? null : shownDays(promised.schedule, at);
      });
  }

  shape({ from, to, ref }: Sight): LedgerShape {
    const { plan, schedule: s } = this.held;
    let [undated, activities, listed] = [0, 0, 0];
    for (let i = 0; i < plan.activities.length; i++) {
      if (s.outline.isSummary[i]) continue;
      activities++;
      if (s.start[i] === NONE) undated++;
    }
    for (const line of this.lines) if (line.kind === 'row' && !s.outline.isSummary[line.at]) listed++;
    const span = dateSpan(s);
    return {
      lines: this.lines.length,
      activities,
      listed,
      undated,
      range: span && [span.first, span.last],
      error: this.error,
      sight: { from, lines: this.window(from, to), ref, place: ref === null ? -1 : this.placeOf(ref) },
    };
  }

  window(from: number, to: number): LedgerShown[] {
    return this.lines.slice(from, to).map((line) => (line.kind === 'row' ? this.row(line) : this.heading(line)));
  }

  /** The place of an activity among the lines, or -1 where it is closed away or not listed. */
  placeOf(ref: string): number {
    const at = this.held.schedule.outline.indexOf.get(ref);
    return at === undefined ? -1 : this.lines.findIndex((l) => l.kind === 'row' && l.at === at);
  }

  /** References of the activities on lines. */
  refs(from: number, to: number): string[] {
    return this.lines.slice(from, to).map((l) => (l.kind === 'row' ? this.held.plan.activities[l.at]!.ref : ''));
  }

  /** A field of an activity as it is shown, whether it has a column or not. */
  shownOf(ref: string, field: string): string {
    const i = this.held.schedule.outline.indexOf.get(ref);
    return i === undefined ? '' : this.readerOf(field)(i);
  }

  private readerOf(field: string): (i: number) => string {
    const k = this.arrangement.columns.findIndex((c) => c.field === field);
    return k < 0 ? cellReader(this.held, field) : this.readers[k]!;
  }

  /** The cells of the listed rows that hold something, row by row. */
  search(fields: readonly string[], holds: (text: string) => boolean): { ref: string; field: string }[] {
    const readers = fields.map((field) => this.readerOf(field));
    return this.lines.flatMap((line) => {
      if (line.kind !== 'row') return [];
      const { ref } = this.held.plan.activities[line.at]!;
      return fields.flatMap((field, k) => (holds(readers[k]!(line.at)) ? [{ ref, field }] : []));
    });
  }

  /** The lines as a table to be copied: names and cells as they are shown. */
  table(from: number, to: number, columns: number[]): string[][] {
    return this.window(from, to).map((l) => columns.map((c) => (c === 0 ? l.name : (l.cells[c - 1] ?? ''))));
  }

  private row(line: Extract<LedgerLine, { kind: 'row' }>): LedgerShown {
    const { plan, schedule: s } = this.held;
    const { at } = line;
    const a = plan.activities[at]!;
    const summary = s.outline.isSummary[at] === true;
    return {
      kind: 'row',
      key: line.key,
      ref: a.ref,
      number: this.numbers?.[at] ?? '',
      name: a.name,
      level: line.level,
      summary,
      milestone: a.kind.endsWith('Milestone'),
      canClose: summary && this.arrangement.groups.length === 0,
      closed: line.closed,
      hides: line.concealed ? concealedWords(line.concealed) : '',
      totals: '',
      colour: null,
      cells: this.readers.map((read) => read(at)),
      tones: this.arrangement.columns.map(({ field }) => this.tone(field, at)),
      strip: this.strip(at),
    };
  }

  /** What the strip of an activity is drawn from; null where it has no dates. */
  strip(at: number): Strip | null {
    const { plan, schedule: s } = this.held;
    const a = plan.activities[at]!;
    const days = shownDays(s, at);
    const inDays = (x: { start: number; finish: number }) =>
      plan.inHours
        ? { from: x.start / 1440, to: x.finish / 1440 }
        : { from: dayOf(x.start), to: finishDayOf(x.finish) + 1 };
    const pieces = a.stretches.length > 1 && !s.outline.isSummary[at] ? stretchesAt(plan, s, at).map(inDays) : null;
    return (
      days && {
        first: days.first,
        last: days.last,
        from: plan.inHours ? s.start[at]! / 1440 : days.first,
        to: plan.inHours ? s.finish[at]! / 1440 : days.last + 1,
        pieces: pieces && pieces.length > 1 ? pieces : null,
        calendar: a.calendar ?? plan.calendar,
        percent: wholePercent(this.percent(at) || 0),
        kind: a.kind,
        summary: s.outline.isSummary[at] === true,
        critical: s.critical[at] === 1,
        promised: this.promisedAt?.(a.ref) ?? null,
      }
    );
  }

  private heading(line: Exclude<LedgerLine, { kind: 'row' }>): LedgerShown {
    const whole = line.kind === 'whole';
    const { first, last } = line.totals;
    return {
      kind: line.kind,
      key: line.key,
      ref: '',
      number: '',
      name: whole ? this.held.plan.name : line.title,
      level: line.level,
      summary: true,
      milestone: false,
      canClose: !whole,
      closed: !whole && line.closed,
      hides: !whole && line.concealed ? concealedWords(line.concealed) : '',
      totals: totalsWords(line.totals),
      colour: whole ? null : this.groupColour(line.field, line.value),
      cells: this.arrangement.columns.map(({ field }) => totalCell(field, this.held.plan.effortDay ?? 60, line.totals)),
      tones: this.arrangement.columns.map(() => ''),
      strip:
        first === null || last === null
          ? null
          : {
              first,
              last,
              from: first,
              to: last + 1,
              pieces: null,
              calendar: this.held.plan.calendar,
              percent: wholePercent(line.totals.percent ?? 0),
              kind: 'summary',
              summary: true,
              critical: false,
              promised: null,
            },
    };
  }

  /** As it is on pages: the book's own colour, or the next of the palette. */
  private groupColour(field: string, value: string): string | null {
    const values = this.held.plan.codeFields.find((f) => f.id === codeOfFieldId(field))?.values ?? [];
    const k = values.findIndex((v) => v.code === value);
    return k < 0 ? null : (values[k]!.colour ?? CATEGORIES[k] ?? null);
  }

  private tone(field: string, i: number): Tone {
    const { plan, schedule: s } = this.held;
    if (plan.required.includes(field) && !s.outline.isSummary[i] && this.cell(field, i) === '') return 'missing';
    if (field === 'float' && s.totalFloat[i] !== NONE) {
      if (s.totalFloat[i]! < 0) return 'late';
      if (s.critical[i] === 1) return 'bold';
      // Nothing follows: only the end of the plan bounds it.
      return isLoose(s, i) ? 'soft' : '';
    }
    if (field === 'off') {
      const value = Number(this.cell(field, i).replace('−', '-'));
      return value > 0 ? 'late' : value < 0 ? 'ahead' : '';
    }
    const { deadline } = plan.activities[i]!;
    if (
      (field === 'finish' || field === 'deadline') &&
      deadline !== null &&
      s.finish[i] !== NONE &&
      s.finish[i]! > deadline
    )
      return 'late';
    return this.variance ? toneOfBand(plan, s, field, i, this.variance) : '';
  }

  private cell(field: string, i: number): string {
    const k = this.arrangement.columns.findIndex((c) => c.field === field);
    return k < 0 ? '' : this.readers[k]!(i);
  }
}

const BAND_TONES: Record<Band, Tone> = { ahead: '', inTolerance: '', watch: 'watch', breach: 'late' };
const ofDays = ({ finishDays }: Variance, t: Tolerance) => (finishDays === null ? null : bandOfDays(finishDays, t));
/** Fields that are told apart by how far off they are. */
const BAND_FIELDS: Partial<Record<string, (v: Variance, t: Tolerance) => Band | null>> = {
  finish: ofDays,
  late: ofDays,
  band: (v) => v.band,
  effortOff: (v, t) => (v.effortRatio === null ? null : bandOfRatio(v.effortRatio, t.effort)),
  costOff: (v, t) => (v.costRatio === null ? null : bandOfRatio(v.costRatio, t.cost)),
};

function toneOfBand(plan: Plan, s: Schedule, field: string, i: number, variance: (i: number) => Variance | null): Tone {
  const asked = BAND_FIELDS[field];
  if (!asked || s.outline.isSummary[i]) return '';
  const v = variance(i);
  const band = v && asked(v, toleranceOf(plan, plan.activities[i]!));
  return band ? BAND_TONES[band] : '';
}

/** How far off a field of an activity is, where that is known. */
export const bandTone = ({ plan, schedule: s, promised }: Held, field: string, i: number): Tone =>
  promised ? toneOfBand(plan, s, field, i, varianceReader(plan, s, promised.plan, promised.schedule)) : '';

/** Reads a field of activities as it is shown. */
export function cellReader(
  held: Held,
  field: string,
  percent = percentReader(held.plan, held.schedule),
): (i: number) => string {
  const { plan, schedule: s } = held;
  if (field === 'percent')
    return (i) => {
      const done = percent(i);
      return done > 0 ? String(wholePercent(done)) : '';
    };
  const read = fieldReader(plan, s, field, held.promised);
  if (!read) return () => '';
  const code = codeOfFieldId(field);
  if (code !== null) {
    const titles = new Map(plan.codeFields.find((f) => f.id === code)?.values.map((v) => [v.code, v.title]));
    return (i) => {
      const value = String(read(i) ?? '');
      return titles.get(value) ?? value;
    };
  }
  if (field === 'predecessors' || field === 'successors' || field === 'resources') {
    return (i) => cellText(plan, s, plan.activities[i]!.ref, field, '');
  }
  if (field === 'constraint')
    return (i) => constraintWords(plan.activities[i]!.constraint, (day) => formatDay(day, 'medium'));
  if (field === 'stretches') {
    const say = (day: number) => formatDay(day, 'medium');
    return (i) =>
      plan.activities[i]!.stretches.length < 2
        ? ''
        : stretchesAt(plan, s, i)
            .map((x) => `${say(dayOf(x.start))} to ${say(finishDayOf(x.finish))}`)
            .join('; ');
  }
  const type = fieldType(field);
  return (i) => {
    const value = read(i);
    if (value === null) return '';
    if (typeof value !== 'number') return valueText(value, type);
    if (type === 'day') return formatDay(value, 'medium');
    if (field === 'off') return value === 0 ? '' : signed(oneDecimal(value));
    if (field === 'late') return value === 0 ? '0' : signed(oneDecimal(value));
    if (WHOLE.has(field)) return String(Math.round(value));
    if (field === 'days' && value === 0) return '';
    return String(field === 'cost' || field === 'actualCost' ? value : oneDecimal(value));
  };
}

const WHOLE = new Set(['percentTime', 'percentEffort', 'effortOff', 'costOff']);

const signed = (value: number): string => (value > 0 ? `+${value}` : value < 0 ? `−${-value}` : '');

function concealedWords({ rows, milestones, critical, late, links }: Concealed): string {
  const parts = [
    countWords(rows, 'row', 'rows'),
    milestones > 0 ? countWords(milestones, 'milestone', 'milestones') : '',
    critical > 0 ? `${critical} critical` : '',
    late > 0 ? `${late} late` : '',
    links > 0 ? countWords(links, 'link', 'links') : '',
  ].filter(Boolean);
  return `hides ${parts.join(', ')}`;
}

function totalsWords({ rows, first, last, percent }: Totals): string {
  const span =
    first === null || last === null ? '' : ` · ${formatDay(first, 'medium')} to ${formatDay(last, 'medium')}`;
  return `${countWords(rows, 'row', 'rows')}${span}${percent === null ? '' : ` · ${wholePercent(percent)} %`}`;
}

function totalCell(field: string, effortUnit: number, { first, last, percent, effort, cost }: Totals): string {
  if (field === 'start') return first === null ? '' : formatDay(first, 'medium');
  if (field === 'finish') return last === null ? '' : formatDay(last, 'medium');
  if (field === 'percent') return percent !== null && percent > 0 ? String(wholePercent(percent)) : '';
  if (field === 'effort') return effort > 0 ? String(oneDecimal(effort / effortUnit)) : '';
  if (field === 'cost') return cost === 0 ? '' : String(cost / 100);
  return '';
}

/** Fields that depend on each other in one row. */
const DATES = new Set(['start', 'finish', 'days', 'kind', 'calendar']);

/** What typing texts into cells does, all together; what cannot be used is left as it is, and said. */
export function typedCells(
  held: Held,
  cells: readonly { ref: string; field: string; text: string }[],
): { command: Command | null; wrong: WrongCell[]; changed: number } {
  const commands: Command[] = [];
  const wrong: WrongCell[] = [];
  let { plan, schedule } = held;
  let row = '';
  let dated = 0;
  for (const cell of cells) {
    if (cell.ref !== row) [row, dated, plan, schedule] = [cell.ref, 0, held.plan, held.schedule];
    const done = typedInto(plan, schedule, cell.ref, cell.field, cell.text);
    if ('error' in done) {
      wrong.push({ ...cell, why: done.error });
      continue;
    }
    if (!done.command) continue;
    commands.push(done.command);
    // Of several dates in a row, the next is typed into what the one before has made.
    if (DATES.has(cell.field) && ++dated > 0 && cells.length > 1) {
      plan = alone(applyCommand(plan, done.command).plan, cell.ref);
      schedule = schedulePlan(plan);
    }
  }
  const command =
    commands.length === 0 ? null : commands.length === 1 ? commands[0]! : { do: 'all' as const, commands };
  return { command, wrong, changed: commands.length };
}

/** The plan with one activity only: enough to tell what its own dates are. */
const alone = (plan: Plan, ref: string): Plan =>
  plan.source === 'computed'
    ? plan
    : {
        ...plan,
        links: [],
        activities: plan.activities.filter((a) => a.ref === ref).map((a) => ({ ...a, parent: null })),
      };

/** Adds activities behind another, one for each row of texts, and types these in. */
export function addedRows(
  held: Held,
  behind: string | null,
  fields: readonly string[],
  rows: readonly (readonly string[])[],
): { command: Command | null; wrong: WrongCell[]; changed: number; refs: string[] } {
  let { plan } = held;
  const commands: Command[] = [];
  const refs: string[] = [];
  let last = behind;
  const refColumn = fields.indexOf('ref');
  for (const cells of rows) {
    const wanted = (refColumn < 0 ? '' : (cells[refColumn] ?? '')).trim().slice(0, 200);
    const ref = wanted !== '' && !plan.activities.some((a) => a.ref === wanted) ? wanted : freeRef(plan, 'N');
    const command = insertBehind(plan, last, makeActivity({ ref, duration: null }));
    commands.push(command);
    plan = applyCommand(plan, command).plan;
    refs.push(ref);
    last = ref;
  }
  const schedule = schedulePlan(plan);
  const typed = typedCells(
    { plan, schedule },
    rows.flatMap((cells, k) =>
      fields.flatMap((field, c) => {
        const text = cells[c] ?? '';
        return field === 'ref' || text.trim() === '' ? [] : [{ ref: refs[k]!, field, text }];
      }),
    ),
  );
  if (typed.command) commands.push(typed.command);
  return { ...typed, command: { do: 'all', commands }, refs };
}

/** What an editor begins with. */
export const editText = ({ plan, schedule }: Held, ref: string, field: string, shown: string): string =>
  field === 'name'
    ? (plan.activities[schedule.outline.indexOf.get(ref) ?? -1]?.name ?? '')
    : cellText(plan, schedule, ref, field, shown);

/** What a day that is being typed is understood as, and the calendar of whom it is for. */
export interface DayMeant {
  words: string;
  day: Day | null;
  calendar: string;
}

export const dayMeant = ({ plan, schedule }: Held, ref: string, text: string): DayMeant => {
  const day = dayTyped(plan, schedule, ref, text);
  const a = plan.activities[schedule.outline.indexOf.get(ref) ?? -1];
  return {
    words: day === null ? '' : formatDay(day, 'weekday'),
    day,
    calendar: a?.calendar ?? plan.calendar,
  };
};

/** What a length that is being typed comes to from the start of its activity, in working and in calendar days. */
export function lengthMeant({ plan, schedule: s }: Held, ref: string, text: string): string {
  const i = s.outline.indexOf.get(ref);
  const minutes = lengthTyped(plan, s, ref, text);
  const shown = i === undefined ? null : shownDays(s, i);
  if (i === undefined || minutes === null || !shown) return '';
  const elapsed = isElapsed(text);
  const spec = elapsed ? ROUND_THE_CLOCK : calendarOf(plan, plan.activities[i]!.calendar);
  const days = Math.ceil(minutes / spec.minutesPerDay);
  if (days < 1 || days > 100_000) return '';
  const { first, last, calendarDays } = workingDaysFrom(spec, shown.first, days);
  if (elapsed)
    return `${countWords(days, 'calendar day', 'calendar days')} from ${formatDay(first, 'weekday')}: ${formatDay(last, 'weekday')}`;
  return `${countWords(days, 'working day', 'working days')} from ${formatDay(first, 'weekday')}: ${formatDay(last, 'weekday')}, ${countWords(calendarDays, 'calendar day', 'calendar days')}`;
}
