import { perWorkingDay, rateNumber, rateScale, rateTimeOf } from '../values/rates';
import { isoDate, type CalendarSpec, isChainageText } from '@clembo/core';
import type { Table } from '../table/table';
import {
  type ReadDuration,
  readDuration,
  readNumber,
  readPercent,
  readYesNo,
  saidOfAmount,
  saysNothing,
} from '../values/amounts';
import {
  dayWithoutWeekday,
  type DateStyle,
  isMonthWithNumber,
  type ReadDate,
  readDate,
  readRange,
} from '../values/dates';
import type { ColumnMap, DerivedColumn } from './columnMap';
import type { FieldId } from './fields';
import type { Problem } from './problems';
import { needsYear } from './settle';

/** A row of the table: its number as a spreadsheet counts, and its cells with those of derived columns behind them. */
export interface CellRow {
  row: number;
  line: string[];
}

/** What reading did with the cells of a column. */
export interface ColumnTally {
  read: number;
  /** Read, but something written was put aside or stands for something else. */
  changed: number;
  unread: number;
  /** Some of each, as written; with what was made of them, where that differs. */
  examples: { text: string; as: string | null; outcome: 'read' | 'changed' | 'unread' }[];
}

/** Dates of one cell: one, or two of a range; none where the cell says that there is none, or none yet. */
export interface CellDates {
  start: ReadDate;
  finish: ReadDate | null;
}

const EMPTY = () => '';
/** How many examples of each outcome are kept for a column. */
const EXAMPLES = 3;

/** Reads cells by field, remembers what it has read before, notes what cannot be read and counts what became of each. */
export class CellReader {
  readonly problems: Problem[] = [];
  readonly codeColumns: { id: string; name: string; column: number }[] = [];
  readonly noteColumns: { name: string; column: number }[] = [];
  readonly tallies: ColumnTally[];
  private readonly columns: Partial<Record<FieldId, number>> = {};
  /** By column: the same text may be another date in another. */
  private readonly dates: Map<string, CellDates | 'none' | 'notYet' | null>[] = [];
  private readonly durations = new Map<string, ReadDuration | null>();
  private readonly mends = new Map<number, Map<string, string>>();
  /** Columns of the table itself, before those that are derived. */
  private readonly own: number;

  constructor(
    readonly table: Table,
    readonly map: ColumnMap,
  ) {
    this.own = map.columns.length - map.derived.length;
    this.tallies = map.columns.map(() => ({ read: 0, changed: 0, unread: 0, examples: [] }));
    for (const { column, text, to } of map.mends) {
      const known = this.mends.get(column) ?? new Map<string, string>();
      this.mends.set(column, known.set(text, to));
    }
    const used = new Set<string>();
    map.columns.forEach((meaning, column) => {
      if (meaning.as === 'field') this.columns[meaning.field] ??= column;
      if (meaning.as === 'note') this.noteColumns.push({ name: meaning.name, column });
      if (meaning.as !== 'code') return;
      const base =
        meaning.name
          .toLowerCase()
          .replace(/[^\p{L}\p{N}]+/gu, '-')
          .replace(/^-|-$/g, '')
          .slice(0, 80) || 'code';
      // A word that every object answers to is no key.
      let id = base in Object.prototype ? `${base}-code` : base;
      for (let k = 2; used.has(id); k++) id = `${base}-${k}`;
      used.add(id);
      this.codeColumns.push({ id, name: meaning.name, column });
    });
  }

  columnOf(field: FieldId): number {
    return this.columns[field] ?? -1;
  }

  /** A row with what its derived columns hold. */
  line(cells: string[]): string[] {
    if (this.map.derived.length === 0) return cells;
    const line = Array.from({ length: this.own }, (_, c) => cells[c] ?? '');
    return [...line, ...this.map.derived.map((d) => derive(line, d))];
  }

  /** A cell without space around it, or what a person said that it stands for. */
  cell(d: CellRow, column: number): string {
    const text = (d.line[column] ?? '').trim();
    return text === '' || this.mends.size === 0 ? text : (this.mends.get(column)?.get(text) ?? text);
  }

  /** A cell that lists several things, each as a person said that it stands for. */
  listed(d: CellRow, field: FieldId): string {
    const text = this.text(d, field);
    const known = this.mends.get(this.columnOf(field));
    if (text === '' || !known) return text;
    return text
      .split(/[,;\n]/)
      .map((part) => known.get(part.trim()) ?? part)
      .filter((part) => part.trim() !== '')
      .join(';');
  }

  /** The cell of a field; empty where there is none. */
  text(d: CellRow, field: FieldId): string {
    const column = this.columns[field];
    return column === undefined ? '' : this.cell(d, column);
  }

  /** As {@link text}, and what is longer is cut, and said. */
  textUpTo(d: CellRow, field: FieldId, most: number): string {
    const text = this.text(d, field);
    if (text === '') return text;
    if (text.length <= most) {
      this.count(this.columnOf(field), text, 'read');
      return text;
    }
    this.problem('tooLong', d.row, field, text.slice(0, 100), String(most));
    return text.slice(0, most);
  }

  problem(code: Problem['code'], row: number, field: FieldId | null, value: string, detail?: string): void {
    const column = field === null ? -1 : this.columnOf(field);
    const heading = this.map.headings[column] ?? '';
    this.problems.push({
      code,
      source: this.table.source,
      sheet: this.table.sheet,
      row,
      column,
      heading,
      value,
      ...(detail && { detail }),
    });
  }

  /** Notes what became of a cell. */
  count(column: number, text: string, outcome: 'read' | 'changed' | 'unread', as?: () => string): void {
    const tally = this.tallies[column];
    if (!tally) return;
    tally[outcome]++;
    if (tally[outcome] <= EXAMPLES) tally.examples.push({ text: text.slice(0, 100), as: as?.() ?? null, outcome });
  }

  private unread(code: Problem['code'], d: CellRow, field: FieldId, text: string, detail?: string): null {
    this.problem(code, d.row, field, text, detail);
    this.count(this.columnOf(field), text, 'unread');
    return null;
  }

  private style(field: FieldId): DateStyle {
    const own = this.map.styles[this.columnOf(field)];
    return {
      order: own?.order ?? this.map.dateOrder ?? 'dmy',
      year: this.map.year,
      behindMonth: own?.behindMonth ?? null,
    };
  }

  /** The dates of a cell; a word where it says that there is none, or none yet. */
  cellDates(d: CellRow, field: FieldId): CellDates | 'none' | 'notYet' | null {
    const text = this.text(d, field);
    if (text === '') return null;
    const column = this.columnOf(field);
    const known = (this.dates[column] ??= new Map());
    let found = known.get(text);
    if (found === undefined) {
      found = saysNothing(text) ?? readCell(text, this.style(field));
      known.set(text, found);
    }
    if (found === null) {
      const other = dayWithoutWeekday(text, this.style(field));
      if (other !== null) return this.unread('weekdayDiffers', d, field, text, isoDate(other));
      if (isMonthWithNumber(text) && !this.style(field).behindMonth) return this.unread('openMonth', d, field, text);
      return this.unread(needsYear(text, this.style(field).order) ? 'noYear' : 'notADate', d, field, text);
    }
    const read = found;
    if (read === 'none') this.count(column, text, 'changed', EMPTY);
    else if (read === 'notYet') this.count(column, text, 'read');
    else this.count(column, text, isChanged(read) ? 'changed' : 'read', () => dateWords(read));
    return found;
  }

  /** One date: of a range its first or its last day, as the field needs it. */
  date(d: CellRow, field: FieldId): ReadDate | null {
    const dates = this.cellDates(d, field);
    if (dates === null || typeof dates === 'string') return null;
    return /finish|deadline/i.test(field) ? (dates.finish ?? dates.start) : dates.start;
  }

  number(d: CellRow, field: FieldId): number | null {
    if (this.columns[field] === undefined) return null;
    const style = this.map.styles[this.columnOf(field)];
    return this.value(d, field, (text) => readNumber(text, style?.decimal ?? null), 'notANumber');
  }

  /** A rate of work along a line, as distance in a working day of a calendar; one without a unit of time is not read. */
  rate(d: CellRow, calendar: CalendarSpec): number | null {
    if (this.columns.rate === undefined) return null;
    const text = this.text(d, 'rate');
    if (text === '') return null;
    const column = this.columnOf('rate');
    const { decimal = null, per = null } = this.map.styles[column] ?? {};
    const time = rateTimeOf(text) ?? per;
    if (time === null && rateNumber(text, decimal) !== null) return this.unread('rateWithoutTime', d, 'rate', text);
    const heading = this.map.headings[column] ?? '';
    const scale = rateScale(text) ?? rateScale(heading);
    const places = this.map.headings[this.columnOf('from')] ?? '';
    const inKm = /\bkm\b/i.test(places) && !isChainageText(this.text(d, 'from'));
    const factor = scale === 'km' && !inKm ? 1000 : scale === 'm' && inKm ? 1 / 1000 : 1;
    const read = (t: string) => {
      const value = rateNumber(t, decimal);
      return value === null || time === null
        ? null
        : Number((value * factor * perWorkingDay(time, calendar)).toPrecision(12));
    };
    return this.value(d, 'rate', read, 'notANumber');
  }

  /** An amount of money, in units of the currency of all of them: one in another is not read. */
  money(d: CellRow, field: FieldId): number | null {
    const text = this.text(d, field);
    if (text === '') return null;
    const { currencies, isScaled } = saidOfAmount(text);
    const own = this.map.currency;
    if (own !== null && currencies.length > 0 && !currencies.includes(own))
      return this.unread('otherCurrency', d, field, text, own);
    const { decimal = null, factor } = this.map.styles[this.columnOf(field)] ?? {};
    const read = (t: string) => {
      const value = readNumber(t, decimal);
      return value === null || isScaled || !factor ? value : Number((value * factor).toPrecision(15));
    };
    return this.value(d, field, read, 'notANumber');
  }

  percent(d: CellRow): number | null {
    if (this.columns.percent === undefined) return null;
    const style = this.map.styles[this.columnOf('percent')];
    const read = (text: string) => readPercent(text, style?.scale ?? null, style?.decimal ?? null);
    const text = this.text(d, 'percent');
    if (text === '') return null;
    const value = read(text);
    const isOpen = value === null && readPercent(text, 'percent') !== null;
    return this.value(
      d,
      'percent',
      () => value,
      isOpen ? 'openPercent' : 'notAPercent',
      (v) => v >= 0 && v <= 100,
    );
  }

  yesNo(d: CellRow, field: FieldId): boolean | null {
    if (this.columns[field] === undefined) return null;
    return this.value(d, field, readYesNo, 'notYesNo');
  }

  private value<T>(
    d: CellRow,
    field: FieldId,
    read: (text: string) => T | null,
    code: Problem['code'],
    isGood: (value: T) => boolean = () => true,
  ): T | null {
    const text = this.text(d, field);
    if (text === '') return null;
    const value = read(text);
    const column = this.columnOf(field);
    if (value !== null && isGood(value)) {
      this.count(column, text, 'read', () => String(value));
      return value;
    }
    if (saysNothing(text) !== null) {
      this.count(column, text, 'changed', EMPTY);
      return null;
    }
    return this.unread(code, d, field, text);
  }

  duration(d: CellRow, field: FieldId): ReadDuration | null {
    const text = this.text(d, field);
    if (text === '') return null;
    const column = this.columnOf(field);
    let duration = this.durations.get(text);
    if (duration === undefined) {
      duration = readDuration(text, { unit: this.map.durationUnit, m: this.map.shortM });
      this.durations.set(text, duration);
    }
    if (duration === null) {
      if (saysNothing(text) !== null) {
        this.count(column, text, 'changed', EMPTY);
        return null;
      }
      const open = readDuration(text, { unit: 'day', m: 'month' }) !== null;
      return this.unread(open ? 'openUnit' : 'notADuration', d, field, text);
    }
    if (duration.amount < 0) return this.unread('negativeDuration', d, field, text);
    const { amount, unit, elapsed } = duration;
    this.count(column, text, 'read', () => `${amount} ${elapsed ? 'elapsed ' : ''}${unit}s`);
    return duration;
  }
}

function readCell(text: string, style: DateStyle): CellDates | null {
  const start = readDate(text, style);
  return start ? { start, finish: null } : readRange(text, style);
}

const isChanged = ({ start, finish }: CellDates): boolean =>
  [start, finish].some((date) => date !== null && (date.mark !== undefined || date.zone !== undefined));

const dayWords = ({ day, last, minute }: ReadDate): string =>
  `${isoDate(day)}${last > day ? `/${isoDate(last)}` : ''}${minute === null ? '' : ` ${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, '0')}`}`;

const dateWords = ({ start, finish }: CellDates): string =>
  finish ? `${dayWords(start)} – ${dayWords(finish)}` : dayWords(start);

function derive(line: string[], { from, take }: DerivedColumn): string {
  const text = (line[from] ?? '').trim();
  switch (take.kind) {
    case 'first':
      return [...text].slice(0, take.count).join('');
    case 'part':
      return (text.split(take.separator)[take.part - 1] ?? '').trim();
    case 'between': {
      const begin = take.after === '' ? 0 : text.indexOf(take.after);
      if (begin < 0) return '';
      const rest = text.slice(begin + take.after.length);
      const end = take.before === '' ? rest.length : rest.indexOf(take.before);
      return end < 0 ? '' : rest.slice(0, end).trim();
    }
    case 'join':
      return [text, (line[take.other] ?? '').trim()].filter((t) => t !== '').join(take.mark);
  }
}
