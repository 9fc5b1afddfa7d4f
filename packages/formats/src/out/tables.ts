import type { Plan } from '@clembo/core';
import Papa from 'papaparse';
import writeXlsx from 'write-excel-file/node';
import { momentText, type OutCell, planRows } from './planRows';

const plainCell = (cell: OutCell): string | number | null =>
  cell !== null && typeof cell === 'object' ? momentText(cell) : cell;

/**
 * A plan as CSV (RFC 4180) in UTF-8 with its mark, so that spreadsheets take its letters for what they are. What they
 * would take for a formula is marked as text by an apostrophe.
 */
export function writePlanCsv(plan: Plan): string {
  const { headings, rows } = planRows(plan);
  // Control characters would steer a terminal; breaks of lines belong to notes.
  const clean = (cell: string | number | null) =>
    typeof cell === 'string' ? cell.replace(/[^\P{Cc}\n\t]/gu, ' ') : cell;
  const data = rows.map((row) => row.map((cell) => clean(plainCell(cell))));
  const text = Papa.unparse({ fields: headings, data }, { newline: '\r\n', escapeFormulae: true });
  return `\ufeff${text}\r\n`;
}

/** What a sheet may be called. */
const sheetName = (name: string): string =>
  name
    .replace(/[[\]:*?/\\]/g, ' ')
    .trim()
    .slice(0, 31) || 'Plan';

/** A plan as a workbook of one sheet; dates are dates, numbers numbers. */
export async function writePlanXlsx(plan: Plan): Promise<Uint8Array> {
  const { headings, rows } = planRows(plan);
  const cell = (c: OutCell) => {
    if (c === null || c === '') return null;
    if (typeof c === 'number') return { value: c, type: Number };
    if (typeof c === 'string') return { value: c, type: String };
    return { value: new Date(c.moment * 60_000), type: Date, format: c.timed ? 'yyyy-mm-dd hh:mm' : 'yyyy-mm-dd' };
  };
  const data = [
    headings.map((value) => ({ value, type: String, fontWeight: 'bold' })),
    ...rows.map((row) => row.map(cell)),
  ];
  const sheet = { sheet: sheetName(plan.name), data, stickyRowsCount: 1 };
  return new Uint8Array(await writeXlsx([sheet] as never).toBuffer());
}
