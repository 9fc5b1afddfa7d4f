import { isUsableText } from '@clembo/core';
import Papa from 'papaparse';
import { withDrawnDates } from '../intake/grid';
import { MAX_CELLS, type Table, trimTable, UnreadableFile } from '../table/table';
import { decodeText } from './decode';

const DELIMITERS = ['\t', ';', ',', '|'];

/** Reads delimited text (RFC 4180, any of the usual delimiters). An unclosed quote is an error with its row. */
export function readCsv(bytes: Uint8Array, source: string): Table {
  const text = decodeText(bytes);
  if (text.includes('\u0000')) {
    throw new UnreadableFile(`${source} is not a text file. Upload a CSV or XLSX file, or Clembo's own JSON.`);
  }
  return readDelimited(text, source);
}

/** A table pasted from a spreadsheet, or delimited text in general. */
export function readDelimited(text: string, source: string): Table {
  const delimiter = guessDelimiter(text);
  checkCells(text, delimiter, source);
  const { data, errors } = Papa.parse<string[]>(text, { delimiter });
  const quote = errors.find((e) => e.type === 'Quotes');
  if (quote) {
    throw new UnreadableFile(
      `${source}, row ${(quote.row ?? 0) + 1}: a quotation mark is opened and not closed. Close it, or double it if it belongs to the text.`,
    );
  }
  // An apostrophe before what a spreadsheet would take for a formula marks it as text.
  if (/(?:^|[\n\t;,|"])'[=+\-@]/.test(text))
    for (const row of data)
      for (let c = 0; c < row.length; c++) if (/^'[=+\-@]/.test(row[c]!)) row[c] = row[c]!.slice(1);
  return trimTable({ source, sheet: null, rows: data, firstRow: 1 }, isUsableText(text));
}

/** A table from the clipboard, with a calendar that is drawn in its cells read as dates. */
export function readPasted(text: string, source: string): Table {
  const table = readDelimited(text, source);
  return withDrawnDates(table) ?? table;
}

/** Refuses what would be more cells than can be taken in, before any is made. */
function checkCells(text: string, delimiter: string, source: string): void {
  // Fewer characters cannot be more cells.
  if (text.length < MAX_CELLS) return;
  const code = delimiter.charCodeAt(0);
  let cells = 1;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c === code || c === 10) cells++;
  }
  if (cells > MAX_CELLS)
    throw new UnreadableFile(
      `${source} has about ${cells} cells; at most ${MAX_CELLS} can be taken in. Leave out columns that are not needed, or split it.`,
    );
}

/** The delimiter that splits the first lines into the most columns, evenly; quoted text is passed over. */
export function guessDelimiter(text: string): string {
  const lines = text
    .slice(0, 20_000)
    .replace(/"(?:[^"]|"")*"/g, '""')
    .split(/\r\n|\n|\r/)
    .filter((line) => line.trim() !== '')
    .slice(0, 30);
  let best = ',';
  let bestScore = 0;
  for (const delimiter of DELIMITERS) {
    const counts = lines.map((line) => line.split(delimiter).length - 1);
    const typical = [...counts].sort((a, b) => a - b)[counts.length >> 1] ?? 0;
    const even = counts.filter((c) => c === typical).length / Math.max(1, counts.length);
    const score = typical * even;
    if (score > bestScore) [best, bestScore] = [delimiter, score];
  }
  return best;
}
