import { fieldType } from '@clembo/core';

/** How high a line of the ledger is, in pixels. */
export const ROW_HEIGHT = 30;
/** How high its head is, in pixels. */
export const HEAD_HEIGHT = 35;

/** A cell by its line and column. */
export interface Spot {
  row: number;
  col: number;
}

export interface Range {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

/** The line that is worked from, and the lines that are chosen with it. */
export interface Chosen {
  ref: string | null;
  top: number;
  bottom: number;
}
export const NOTHING_CHOSEN: Chosen = { ref: null, top: 0, bottom: 0 };

/** The cells between two spots; one alone where nothing is drawn out. */
export function rangeOf(focus: Spot, anchor: Spot | null): Range {
  const other = anchor ?? focus;
  return {
    top: Math.min(focus.row, other.row),
    bottom: Math.max(focus.row, other.row),
    left: Math.min(focus.col, other.col),
    right: Math.max(focus.col, other.col),
  };
}

export const inRange = (r: Range, row: number, col: number): boolean =>
  row >= r.top && row <= r.bottom && col >= r.left && col <= r.right;

const WIDTHS: Record<string, number> = {
  ref: 84,
  notes: 220,
  predecessors: 130,
  successors: 130,
  responsible: 150,
  status: 100,
  group: 150,
};

/** How wide a column is that nobody has made wider. */
export function columnWidth(field: string): number {
  const type = fieldType(field);
  return WIDTHS[field] ?? (type === 'day' ? 92 : type === 'number' ? 66 : 124);
}

/** Cells as text that spreadsheets take: tabs between cells, lines between rows, neither within a cell. */
export const tableText = (table: readonly (readonly string[])[]): string =>
  table.map((row) => row.map((cell) => cell.replace(/[\t\r\n]+/g, ' ')).join('\t')).join('\n');

/** To the next cell or the one before it: behind the last of a row comes the first of the next. */
export function goAlong({ row, col }: Spot, by: 1 | -1, columns: number, go: (row: number, col: number) => void): void {
  const next = col + by;
  if (next < 0) go(row - 1, columns - 1);
  else if (next >= columns) go(row + 1, 0);
  else go(row, next);
}
