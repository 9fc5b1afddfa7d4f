import type { Table } from '../table/table';
import { type ReadDuration, readDuration, readNumber, readYesNo } from '../values/amounts';
import { type ReadDate, readDate } from '../values/dates';
import type { ColumnMap } from './columnMap';
import type { FieldId } from './fields';
import type { Problem } from './problems';

/** A row of the table: its number as a spreadsheet counts, and its cells. */
export interface CellRow {
  row: number;
  line: string[];
}

/** Reads cells by field, remembers what it has read before, and notes what cannot be read. */
export class CellReader {
  readonly problems: Problem[] = [];
  readonly codeColumns: { id: string; name: string; column: number }[] = [];
  private readonly columns: Partial<Record<FieldId, number>> = {};
  private readonly dates = new Map<string, ReadDate | null>();
  private readonly durations = new Map<string, ReadDuration | null>();

  constructor(
    readonly table: Table,
    readonly map: ColumnMap,
  ) {
    const used = new Set<string>();
    map.columns.forEach((meaning, column) => {
      if (meaning.as === 'field') this.columns[meaning.field] ??= column;
      if (meaning.as !== 'code') return;
      const base =
        meaning.name
          .toLowerCase()
          .replace(/[^\p{L}\p{N}]+/gu, '-')
          .replace(/^-|-$/g, '') || 'code';
      let id = base;
      for (let k = 2; used.has(id); k++) id = `${base}-${k}`;
      used.add(id);
      this.codeColumns.push({ id, name: meaning.name, column });
    });
  }

  columnOf(field: FieldId): number {
    return this.columns[field] ?? -1;
  }

  /** The cell of a field, without space around it; empty where there is none. */
  text(d: CellRow, field: FieldId): string {
    const column = this.columns[field];
    return column === undefined ? '' : (d.line[column] ?? '').trim();
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

  readDate(text: string, row: number, field: FieldId): ReadDate | null {
    if (text === '') return null;
    let date = this.dates.get(text);
    if (date === undefined) {
      date = readDate(text, this.map.dateOrder ?? 'dmy');
      this.dates.set(text, date);
    }
    if (date === null) this.problem('notADate', row, field, text);
    return date;
  }

  date(d: CellRow, field: FieldId): ReadDate | null {
    return this.readDate(this.text(d, field), d.row, field);
  }

  number(d: CellRow, field: FieldId): number | null {
    return this.value(d, field, readNumber, 'notANumber');
  }

  yesNo(d: CellRow, field: FieldId): boolean | null {
    return this.value(d, field, readYesNo, 'notYesNo');
  }

  private value<T>(d: CellRow, field: FieldId, read: (text: string) => T | null, code: Problem['code']): T | null {
    const text = this.text(d, field);
    if (text === '') return null;
    const value = read(text);
    if (value === null) this.problem(code, d.row, field, text);
    return value;
  }

  duration(text: string, row: number, field: FieldId): ReadDuration | null {
    if (text === '') return null;
    let duration = this.durations.get(text);
    if (duration === undefined) {
      duration = readDuration(text, this.map.durationUnit);
      this.durations.set(text, duration);
    }
    if (duration === null) this.problem('notADuration', row, field, text);
    else if (duration.amount < 0) this.problem('negativeDuration', row, field, text);
    return duration !== null && duration.amount >= 0 ? duration : null;
  }
}
