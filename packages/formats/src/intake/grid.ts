import { isoDate } from '@clembo/core';
import type { Table } from '../table/table';
import { monthEvidence, readDate } from '../values/dates';

/** A calendar that is drawn in cells: columns that stand for spans of days. Positions count from 0. */
interface Grid {
  headerRow: number;
  columns: { column: number; day: number; last: number }[];
}

/** So many columns of spans in a row make a calendar. */
const FEWEST = 4;
const LOOKED_AT = 15;
const MONTH_NAMES = /^\p{L}{3,9}\.?$/u;

/** Headings of the columns that are added for what is drawn. */
export const DRAWN_START = 'Start (as drawn)';
const DRAWN_FINISH = 'Finish (as drawn)';

/**
 * A table whose bars are drawn in cells (months, weeks or days across, crosses or fills below) with their first and
 * last days in two columns behind it. Null when it is none: the table has dates of its own, or no such columns.
 */
export function withDrawnDates(table: Table): Table | null {
  const grid = findGrid(table);
  if (!grid) return null;
  const filled = new Set((table.filled ?? []).map(([r, c]) => `${r} ${c}`));
  const width = table.rows.reduce(
    (w, row) => Math.max(w, row.length),
    Math.max(...grid.columns.map((c) => c.column)) + 1,
  );
  let drawn = 0;
  const rows = table.rows.map((cells, r) => {
    const row = Array.from({ length: width }, (_, c) => cells[c] ?? '');
    if (r === grid.headerRow) return [...row, DRAWN_START, DRAWN_FINISH];
    if (r < grid.headerRow) return [...row, '', ''];
    const marked = grid.columns.filter(({ column }) => isMark(row[column]!) || filled.has(`${r} ${column}`));
    if (marked.length === 0) return [...row, '', ''];
    drawn++;
    return [...row, isoDate(marked[0]!.day), isoDate(marked.at(-1)!.last)];
  });
  return drawn >= 2 ? { ...table, rows } : null;
}

/** What a cell of such a calendar holds where something goes on. */
export const isMark = (text: string): boolean =>
  text.trim() !== '' && text.trim().length <= 3 && !/^(?:0|-|–|n|no)$/i.test(text.trim());

/** The row whose cells are spans of days that follow one another. */
function findGrid(table: Table): Grid | null {
  for (let r = 0; r < Math.min(table.rows.length - 1, LOOKED_AT); r++) {
    const found = spansOf(table, r);
    if (
      found &&
      found.length >= FEWEST &&
      marksBelow(
        table,
        r,
        found.map((f) => f.column),
      )
    )
      return { headerRow: r, columns: found };
  }
  return null;
}

function spansOf(table: Table, r: number): Grid['columns'] | null {
  const row = table.rows[r]!;
  const spans: Grid['columns'] = [];
  const behindMonth = monthEvidence(row);
  let year: number | null = null;
  for (let c = 0; c < row.length; c++) {
    const text = row[c]!.trim();
    const above = yearAbove(table, r, c);
    if (above !== null && above !== year && spans.length === 0) year = above;
    else if (above !== null) year = above;
    const read = spanOf(text, year, behindMonth);
    if (!read) {
      if (spans.length >= FEWEST) break;
      spans.length = 0;
      continue;
    }
    const last = spans.at(-1);
    let span = read;
    // Months without a year go on into the next one.
    if (last && span.day <= last.day && above === null && year !== null) {
      year++;
      span = spanOf(text, year, behindMonth) ?? span;
    }
    if (last && span.day <= last.day) return null;
    spans.push({ column: c, day: span.day, last: span.last });
  }
  // Days that head columns stand for all days up to the next one.
  spans.forEach((s, k) => {
    const next = spans[k + 1] ?? { day: s.day + (s.day - (spans[k - 1]?.day ?? s.day - 1)) };
    if (s.last === s.day) s.last = Math.max(s.day, next.day - 1);
  });
  return spans;
}

function spanOf(
  text: string,
  year: number | null,
  behindMonth: ReturnType<typeof monthEvidence>,
): { day: number; last: number } | null {
  if (text === '' || /^\d+$/.test(text)) return null;
  const read = readDate(text, { order: 'dmy', year, behindMonth });
  if (read) return read;
  return MONTH_NAMES.test(text) && year !== null ? readDate(`${text} ${year}`, 'dmy') : null;
}

/** The year in the rows above a column: in its own cell, a joined one, or the last to the left; else in the title. */
function yearAbove(table: Table, r: number, c: number): number | null {
  for (let up = r - 1; up >= 0; up--) {
    const row = table.rows[up]!;
    for (let k = c; k >= 0; k--) {
      const text = (row[k] ?? '').trim();
      if (text === '') continue;
      const m = /(?<!\d)((?:19|20)\d{2})(?!\d)/.exec(text);
      if (m) return Number(m[1]);
      break;
    }
  }
  const sheet = /(?<!\d)((?:19|20)\d{2})(?!\d)/.exec(table.sheet ?? '');
  return sheet ? Number(sheet[1]) : null;
}

/** True where little but marks stands below the columns. */
function marksBelow(table: Table, r: number, columns: number[]): boolean {
  const filled = (table.filled ?? []).filter(([row, column]) => row > r && columns.includes(column)).length;
  let [marks, others] = [filled, 0];
  for (const row of table.rows.slice(r + 1, r + 400))
    for (const c of columns) {
      const text = (row[c] ?? '').trim();
      if (text !== '') isMark(text) ? marks++ : others++;
    }
  return marks >= 2 && others * 5 <= marks;
}
