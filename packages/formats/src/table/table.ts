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
}

/** Why a file could not be read at all: what, where and what to do. */
export class UnreadableFile extends Error {
  override name = 'UnreadableFile';
}

/** How large an uploaded file may be, and how much of it there may be when unpacked, in bytes. */
export const MAX_FILE_BYTES = 60 * 1024 * 1024;
export const MAX_UNPACKED_BYTES = 600 * 1024 * 1024;
export const MAX_ROWS = 200_000;
export const MAX_COLUMNS = 300;

/** Removes rows and columns at the end that hold nothing, and checks the size. */
export function trimTable(table: Table): Table {
  let end = table.rows.length;
  while (end > 0 && table.rows[end - 1]!.every((cell) => cell.trim() === '')) end--;
  const rows = table.rows.slice(0, end);
  if (rows.length > MAX_ROWS) {
    throw new UnreadableFile(
      `${table.source} has ${rows.length} rows; at most ${MAX_ROWS} can be taken in. Split the file.`,
    );
  }
  const widest = rows.reduce((max, row) => Math.max(max, row.length), 0);
  if (widest > MAX_COLUMNS) {
    throw new UnreadableFile(`${table.source} has ${widest} columns; at most ${MAX_COLUMNS} can be taken in.`);
  }
  return { ...table, rows };
}
