import { MAX_CELLS, type Merge, UnreadableFile } from '../table/table';
import { numberText } from './numbers';
import { type CellStyle, NO_STYLE } from './styles';
import { readXml } from './xml';

/** What the sheets of a workbook share. */
export interface Shared {
  strings: string[];
  styles: CellStyle[];
  from1904: boolean;
}

/** A sheet as it was read. Positions count from 0. */
export interface Sheet {
  rows: string[][];
  merges: Merge[];
  hiddenRows: number[];
  /** Cells that are painted and hold nothing. */
  filled: [row: number, column: number][];
}

/** The last row and column that a sheet can have. */
const LAST_ROW = 1_048_576;
const LAST_COLUMN = 16_384;
const MOST_MARKS = 100_000;
/** So far a name is set in by a step of its cell. */
const STEP = '  ';

/**
 * Reads the cells of a sheet (ISO/IEC 29500-1, 18.3). Cells that lie outside any sheet, or too far out for their
 * number, are refused before anything is made of them.
 *
 * @throws UnreadableFile
 */
export function readSheet(bytes: Uint8Array, shared: Shared, where: string): Sheet {
  const sheet: Sheet = { rows: [], merges: [], hiddenRows: [], filled: [] };
  let [row, column, widest] = [-1, -1, 0];
  let type = '';
  let style = NO_STYLE;
  let value = '';
  let formula: string | null = null;
  let inText = false;
  let inFormula = false;

  const outside = (place: string) =>
    new UnreadableFile(
      `${where} has a cell or row “${place.slice(0, 40)}”, which lies outside any sheet. Save the file again as XLSX, or as CSV.`,
    );
  const reach = () => {
    if ((row + 1) * widest > MAX_CELLS)
      throw new UnreadableFile(
        `${where} reaches to row ${row + 1} and column ${widest}; that is more than can be taken in. Delete what stands far out, or save the table alone as CSV.`,
      );
  };
  const endCell = () => {
    const text = cellText();
    if (text !== '') {
      while (sheet.rows.length <= row) sheet.rows.push([]);
      const line = sheet.rows[row]!;
      while (line.length < column) line.push('');
      line[column] = style.indent > 0 ? STEP.repeat(style.indent) + text : text;
    } else if (style.filled && sheet.filled.length < MOST_MARKS) sheet.filled.push([row, column]);
  };
  const cellText = (): string => {
    if (type === 's') return shared.strings[Number(value)] ?? '';
    if (type === 'inlineStr' || type === 'str' || type === 'e') return value;
    if (type === 'b') return value === '1' ? 'true' : 'false';
    if (type === 'd') return value.replace(/T00:00(?::00(?:\.0+)?)?$/, '');
    if (value === '') return formula === null ? '' : `=${formula}`;
    return numberText(value, style.format, shared.from1904);
  };

  readXml(bytes, {
    open(name, a) {
      switch (name) {
        case 'row':
          row = a.r === undefined ? row + 1 : Number(a.r) - 1;
          if (!(row >= 0 && row < LAST_ROW && Number.isInteger(row))) throw outside(a.r ?? '');
          column = -1;
          reach();
          if (a.hidden === '1' || a.hidden === 'true') sheet.hiddenRows.push(row);
          return;
        case 'c': {
          const place = a.r === undefined ? null : readPlace(a.r);
          if (a.r !== undefined && (place === null || place[0] !== row)) throw outside(a.r);
          column = place ? place[1] : column + 1;
          if (column >= LAST_COLUMN) throw outside(a.r ?? '');
          widest = Math.max(widest, column + 1);
          reach();
          type = a.t ?? 'n';
          style = shared.styles[Number(a.s ?? 0)] ?? NO_STYLE;
          value = '';
          formula = null;
          return;
        }
        case 'v':
        case 't':
          inText = true;
          return;
        case 'rPh':
          // How a word is spoken is not part of it.
          inText = false;
          return;
        case 'f':
          formula = '';
          inFormula = true;
          return;
        case 'mergeCell': {
          const [from, to] = (a.ref ?? '').split(':').map(readPlace);
          if (from && to && sheet.merges.length < MOST_MARKS) sheet.merges.push([from[0], from[1], to[0], to[1]]);
        }
      }
    },
    text(text) {
      if (inFormula) formula += text;
      else if (inText) value += text;
    },
    close(name) {
      if (name === 'v' || name === 't') inText = false;
      else if (name === 'f') inFormula = false;
      else if (name === 'c') endCell();
    },
  });
  return sheet;
}

/** Row and column of a place such as B12, from 0; null where it is none. */
function readPlace(place: string): [row: number, column: number] | null {
  const m = /^\$?([A-Z]{1,3})\$?(\d{1,7})$/.exec(place);
  if (!m) return null;
  let column = 0;
  for (const c of m[1]!) column = column * 26 + (c.charCodeAt(0) - 64);
  const row = Number(m[2]);
  return row >= 1 && row <= LAST_ROW && column <= LAST_COLUMN ? [row - 1, column - 1] : null;
}
