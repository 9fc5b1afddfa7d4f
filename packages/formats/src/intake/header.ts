import type { Table } from '../table/table';
import { readNumber } from '../values/amounts';
import { isMonthWithNumber, readDate } from '../values/dates';
import { fieldByHeading, plainHeading } from './fields';
import { DRAWN_START } from './grid';
import { needsYear } from './settle';

/** Where the headings of a table stand. */
export interface Header {
  /** Position of the last row of headings. */
  row: number;
  /** How many rows they take. */
  rows: number;
}

/** Among so many rows the headings are looked for. */
const LOOKED_AT = 40;
const SAMPLE = 500;

const isValue = (text: string): boolean => readDate(text, 'dmy') !== null || readNumber(text) !== null;

/** A single row of nothing but headings. */
const isHeading = ({ rows }: Table): boolean =>
  rows.length === 1 && rows[0]!.every((cell) => cell.trim() === '' || fieldByHeading(cell) !== undefined);

/** The rows that head the columns: those whose cells name the most fields, with data below; null where there are none. */
export function findHeader(table: Table): Header | null {
  if (isHeading(table)) return { row: 0, rows: 1 };
  const drawn = table.rows.slice(0, LOOKED_AT).findIndex((row) => row.includes(DRAWN_START));
  if (drawn >= 0) return { row: drawn, rows: 1 };
  let best: number | null = null;
  let bestScore = 1.5;
  table.rows.slice(0, LOOKED_AT).forEach((row, r) => {
    const cells = row.map((c) => c.trim()).filter((c) => c !== '');
    const named = new Set(cells.map((c) => fieldByHeading(c)?.id).filter(Boolean)).size;
    const values = cells.filter(isValue).length;
    // A last row heads nothing, unless it is all headings: then the table has no rows.
    if (r === table.rows.length - 1 && named < cells.length) return;
    const score = named + 0.1 * Math.min(cells.length, 5) - values;
    if (named >= 1 && score > bestScore) [best, bestScore] = [r, score];
  });
  best ??= textRowAboveDates(table);
  return best === null ? null : withGroups(table, best);
}

/** The header that a person says by its last row. */
export const headerAt = (table: Table, row: number): Header =>
  withGroups(table, Math.min(row, table.rows.length - 1), true);

/** Words that stand over or under a heading and say which of its kinds a column holds. */
const KINDS = new Set(
  [
    'planned',
    'plan',
    'actual',
    'baseline',
    'forecast',
    'current',
    'contract',
    'original',
    'remaining',
    'budget',
    'budgeted',
    'soll',
    'ist',
    'geplant',
    'tatsächlich',
    'basis',
    'vertrag',
    'aktuell',
    'prévu',
    'réel',
    'contractuel',
    'previsto',
    'real',
    'contractual',
    'effettivo',
    'contrattuale',
    'gepland',
    'werkelijk',
    'early',
    'late',
  ].map(plainHeading),
);

/** Takes in a row of groups above the headings, or one of kinds below them. */
function withGroups(table: Table, row: number, isSaid = false): Header {
  const cells = (r: number) => (table.rows[r] ?? []).map((c) => c.trim());
  if (!isSaid) {
    const below = cells(row + 1).filter((c) => c !== '');
    const kinds = below.filter((c) => KINDS.has(plainHeading(c))).length;
    if ((kinds >= 2 && kinds >= below.length / 2) || isSplit(table, row)) return { row: row + 1, rows: 2 };
  }
  if (row === 0) return { row, rows: 1 };
  const [above, own] = [cells(row - 1), cells(row)];
  const groups = above.filter((c) => c !== '');
  const isGroup =
    groups.length > 0 &&
    !groups.some(isValue) &&
    // A title stands alone; groups name what some headings below them have in common.
    (groups.some((c) => KINDS.has(plainHeading(c))) ||
      (table.merges ?? []).some(
        ([top, left, bottom, right]) =>
          top === row - 1 && bottom === top && right > left && right - left < own.length - 2,
      ));
  return { row, rows: isGroup ? 2 : 1 };
}

/** True when the row below headings says what several columns below one of them are: “from” and “to” below “Planned”. */
function isSplit({ rows, merges = [] }: Table, row: number): boolean {
  const [own, below] = [rows[row] ?? [], rows[row + 1] ?? []];
  const at = (cells: readonly string[], c: number) => (cells[c] ?? '').trim();
  if (row + 2 >= rows.length || below.some((c) => c.trim() !== '' && isValue(c.trim()))) return false;
  // A heading has several columns below it where it is joined over them, or where the next cell is empty.
  const isShared = (c: number) =>
    merges.some(
      ([top, left, bottom, right]) => top === row && bottom === row && left <= c && c <= right && right > left,
    ) || (at(own, c) === '' ? at(own, c - 1) !== '' : at(own, c + 1) === '' && at(below, c + 1) !== '');
  const parts = below.flatMap((cell, c) => (cell.trim() !== '' && isShared(c) ? [cell.trim()] : []));
  const named = parts.filter((p) => KINDS.has(plainHeading(p)) || fieldByHeading(p)).length;
  return named >= 2 && named >= parts.length / 2;
}

/** Headings in words of the person's own: a first row of text over columns that hold dates. */
function textRowAboveDates(table: Table): number | null {
  const first = table.rows.findIndex((row) => row.filter((c) => c.trim() !== '').length > 1);
  if (first < 0 || first > LOOKED_AT || table.rows[first]!.some((c) => isValue(c.trim()))) return null;
  const rest = table.rows.slice(first + 1, first + 1 + SAMPLE);
  const dated = table.rows[first]!.some((_, c) => {
    const values = rest.map((row) => (row[c] ?? '').trim()).filter((v) => v !== '');
    return (
      values.length > 0 &&
      values.filter((v) => readDate(v, 'dmy') || readDate(v, 'mdy') || needsYear(v, 'dmy') || isMonthWithNumber(v))
        .length >
        values.length / 2
    );
  });
  return dated ? first : null;
}

/** The heading of each column, groups before what stands below them. */
export function headingsOf(table: Table, header: Header | null, width: number): string[] {
  const cell = (r: number, c: number) => (table.rows[r]?.[c] ?? '').trim();
  return Array.from({ length: width }, (_, c) => {
    if (!header) return '';
    const words: string[] = [];
    for (let r = header.row - header.rows + 1; r < header.row; r++) words.push(groupOver(table, r, c, header.row));
    const own = cell(header.row, c);
    const group = words.filter((w) => w !== '' && w !== own).join(' ');
    if (group === '') return own;
    if (own === '') return group;
    const together = `${group} ${own}`;
    // “Planned Start” is one heading; “Status % done” is the second of the two; “Start planned” is turned round.
    if (fieldByHeading(together)) return together;
    if (fieldByHeading(`${own} ${group}`)) return `${own} ${group}`;
    return fieldByHeading(own) && !KINDS.has(plainHeading(group)) ? own : together;
  });
}

/** What a row of groups says of a column: its own cell, a joined one, or the last one to the left. */
function groupOver(table: Table, r: number, c: number, below: number): string {
  const row = table.rows[r] ?? [];
  const own = (row[c] ?? '').trim();
  if (own !== '') return own;
  const joined = (table.merges ?? []).find(
    ([top, left, bottom, right]) => top <= r && bottom >= r && left <= c && right >= c,
  );
  if (joined) return (table.rows[joined[0]]?.[joined[1]] ?? '').trim();
  if ((table.merges ?? []).some(([top, , bottom]) => top <= r && bottom >= r)) return '';
  if ((table.rows[below]?.[c] ?? '').trim() === '') return '';
  for (let k = c - 1; k >= 0; k--) if ((row[k] ?? '').trim() !== '') return row[k]!.trim();
  return '';
}

const STATUS_WORDS = new Set(
  [
    'data date',
    'status date',
    'status',
    'stand',
    'datenstand',
    'stichtag',
    'statusdatum',
    'as of',
    'as at',
    'progress to',
    'updated to',
    'état au',
    'date d’état',
    "date d'état",
    'situation au',
    'fecha de estado',
    'fecha de datos',
    'a fecha de',
    'data di stato',
    'aggiornato al',
    'peildatum',
    'stand per',
    'data de status',
    'data de atualização',
    'posição em',
    'reporting date',
    'report date',
    'cut off date',
    'cutoff',
    'time now',
  ].map(plainHeading),
);

/** The status date that is written above the headings, as the text of its date, with its place; null where there is none. */
export function findStatusDate(
  table: Table,
  header: Header | null,
): { text: string; row: number; column: number } | null {
  const end = header ? header.row - header.rows + 1 : 0;
  for (let r = 0; r < end; r++) {
    const row = table.rows[r]!;
    for (let c = 0; c < row.length; c++) {
      const cell = row[c]!.trim();
      if (cell === '' || cell.length > 100) continue;
      const next = row
        .slice(c + 1)
        .find((x) => x.trim() !== '')
        ?.trim();
      if (STATUS_WORDS.has(plainHeading(cell)) && next && readDate(next, 'dmy'))
        return { text: next, row: r, column: c };
      const within = /^(.{3,30}?)[\s:]+(\S*\d.*)$/u.exec(cell);
      if (within && STATUS_WORDS.has(plainHeading(within[1]!)) && readDate(within[2]!, 'dmy'))
        return { text: within[2]!, row: r, column: c };
    }
  }
  return null;
}
