import { type CalendarSpec, isUsableText, usableText } from '@clembo/core';

/**
 * A sheet of text cells as it came from a file or the clipboard. Dates that a file holds as such are ISO
 * text, numbers their plain notation. Row numbers that people see are positions in `rows` plus `firstRow`.
 */
export interface Table {
  /** Where it comes from: a file name, or "pasted table". */
  source: string;
  sheet: string | null;
  rows: string[][];
  /** Number of the first row as a spreadsheet shows it. */
  firstRow: number;
  /** The sheet is hidden in its workbook. */
  hidden?: boolean;
  /** Positions of rows that are hidden in the sheet. */
  hiddenRows?: number[];
  /** Cells that are joined; what they say stands in all their rows, and in the first of their columns. */
  merges?: Merge[];
  /** Calendars that come with the table, which its rows may name. */
  calendars?: CalendarSpec[];
  /** Cells that are painted in a colour and hold nothing. */
  filled?: [row: number, column: number][];
}

/** Joined cells: positions of the first and the last row and column. */
export type Merge = [top: number, left: number, bottom: number, right: number];

/** Why a file could not be read at all: what, where and what to do. */
export class UnreadableFile extends Error {
  override name = 'UnreadableFile';
}

/** How large an uploaded file may be, and how much of it there may be when unpacked, in bytes. */
export const MAX_FILE_BYTES = 60 * 1024 * 1024;
export const MAX_UNPACKED_BYTES = 400 * 1024 * 1024;
export const MAX_ROWS = 200_000;
export const MAX_COLUMNS = 300;
export const MAX_CELLS = 10_000_000;
/** As many characters as a cell of a spreadsheet can hold. */
export const MAX_CELL = 32_767;

/**
 * Removes rows and columns at the end that hold nothing, checks the size, and cleans what no text may hold, unless
 * that is known already.
 */
export function trimTable(table: Table, isClean = false): Table {
  let end = table.rows.length;
  while (end > 0 && table.rows[end - 1]!.every((cell) => cell.trim() === '')) end--;
  const rows = end < table.rows.length ? table.rows.slice(0, end) : table.rows;
  const where = table.sheet === null ? table.source : `${table.source}, sheet ${table.sheet},`;
  if (rows.length > MAX_ROWS)
    throw new UnreadableFile(`${where} has ${rows.length} rows; at most ${MAX_ROWS} can be taken in. Split the file.`);
  const widest = rows.reduce((max, row) => Math.max(max, usedWidth(row)), 0);
  if (widest > MAX_COLUMNS)
    throw new UnreadableFile(`${where} has ${widest} columns; at most ${MAX_COLUMNS} can be taken in.`);
  rows.forEach((row, r) => {
    if (row.length > widest) row.length = widest;
    for (let c = 0; c < row.length; c++) {
      const cell = row[c]!;
      if (cell.length > MAX_CELL)
        throw new UnreadableFile(
          `${where} row ${table.firstRow + r}, column ${columnLetters(c)} holds ${cell.length} characters; a cell may hold ${MAX_CELL}. Shorten it, or look for a quotation mark that is opened and not closed.`,
        );
      if (!isClean && !isUsableText(cell)) row[c] = usableText(cell);
    }
  });
  return { ...table, rows };
}

const usedWidth = (row: readonly string[]): number => {
  let width = row.length;
  while (width > 0 && row[width - 1]!.trim() === '') width--;
  return width;
};

/** The letters by which a spreadsheet names a column. */
export function columnLetters(column: number): string {
  let letters = '';
  for (let c = column; c >= 0; c = Math.floor(c / 26) - 1) letters = String.fromCharCode(65 + (c % 26)) + letters;
  return letters;
}
