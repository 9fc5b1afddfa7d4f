import { boxShape, makeElement, type ModelGeometry, type Shape } from '@clembo/core';
import { readTables } from '../readFile';
import { UnreadableFile } from '../table/table';
import { LONGEST, aboutOrigin, checkOnce, cut, type ReadModel } from './modelParts';
import { decimalEvidence, readNumber } from '../values/amounts';

/** What a column of a table of blocks may be called. Places and sizes are in metres. */
const COLUMNS = {
  identifier: ['identifier', 'id', 'ref', 'reference', 'code', 'no', 'number', 'tag', 'mark'],
  name: ['name', 'block', 'element', 'description', 'what', 'item'],
  class: ['class', 'kind', 'category'],
  type: ['type'],
  storey: ['storey', 'story', 'floor', 'level'],
  x: ['x', 'east', 'easting'],
  y: ['y', 'north', 'northing'],
  z: ['z', 'bottom', 'base', 'elevation'],
  wide: ['width', 'size x', 'x size', 'dx', 'length x'],
  deep: ['depth', 'size y', 'y size', 'dy', 'length'],
  high: ['height', 'size z', 'z size', 'dz', 'thickness'],
  turn: ['turn', 'rotation', 'angle'],
} as const;
type Column = keyof typeof COLUMNS;
const NEEDED: Column[] = ['name', 'x', 'y', 'wide', 'deep', 'high'];
const NUMBERS: Column[] = ['x', 'y', 'z', 'wide', 'deep', 'high', 'turn'];

const plain = (heading: string): string =>
  heading
    .toLowerCase()
    .replace(/\(.*?\)|\[.*?\]|\bin m\b|\bm\b$/g, '')
    .replace(/[_.\s]+/g, ' ')
    .trim();

/**
 * Reads a table of blocks: a name, a place (x, y and the height z of its bottom) and a size, in metres. The place is
 * the corner with the least x and y before it is turned (counter-clockwise, in degrees, about that corner). Columns
 * that are none of these become properties.
 *
 * @throws UnreadableFile
 */
export async function readBlocks(bytes: Uint8Array, source: string, key: string): Promise<ReadModel> {
  const [table] = await readTables(bytes, source);
  const at = table!.rows.findIndex((row) => row.filter((c) => c.trim() !== '').length >= NEEDED.length);
  const headings = (table!.rows[at] ?? []).map((h) => h.trim());
  const column = new Map<Column, number>();
  headings.forEach((h, c) => {
    const found = (Object.keys(COLUMNS) as Column[]).find((k) => (COLUMNS[k] as readonly string[]).includes(plain(h)));
    if (found && !column.has(found)) column.set(found, c);
  });
  const missing = NEEDED.filter((k) => !column.has(k)).map((k) => `“${COLUMNS[k][0]}”`);
  if (missing.length > 0)
    throw new UnreadableFile(
      `${source} is no model, and no table of blocks: it has no column ${missing.join(', ')}. A table of blocks has the columns name, x, y, z, width, depth and height in metres, and any others.`,
    );
  const rows = table!.rows.slice(at + 1);
  const cell = (row: string[], k: Column): string => (column.has(k) ? (row[column.get(k)!] ?? '').trim() : '');
  const evidence = decimalEvidence(rows.flatMap((row) => NUMBERS.map((k) => cell(row, k)).filter(Boolean)));
  if (evidence === 'mixed')
    throw new UnreadableFile(`${source} writes decimals with points and with commas; use one of them throughout.`);
  const mark = evidence === ',' ? ',' : '.';
  const used = new Set(column.values());
  const elements: ReadModel['elements'] = [];
  const shapes: Shape[] = [];
  const known = new Map<string, number>();
  const parts: ModelGeometry['parts'] = [];
  const notes: string[] = [];
  rows.forEach((row, r) => {
    if (row.every((c) => c.trim() === '')) return;
    const line = table!.firstRow + at + 1 + r;
    const name = cell(row, 'name');
    const wrong: string[] = [];
    const number = (k: Column, otherwise: number | null): number => {
      const said = cell(row, k);
      if (said === '' && otherwise !== null) return otherwise;
      const value = said === '' ? null : readNumber(said, mark);
      if (value === null || !Number.isFinite(value)) {
        wrong.push(`“${said}” under ${headings[column.get(k)!] ?? k}`);
        return Number.NaN;
      }
      return value;
    };
    const place = [number('x', null), number('y', null), number('z', 0)];
    const size = [number('wide', null), number('deep', null), number('high', null)];
    const turn = (number('turn', 0) * Math.PI) / 180;
    const sized = wrong.length === 0 && size.every((v) => v > 0);
    if (wrong.length > 0)
      notes.push(`Row ${line}, ${name || 'no name'}: ${wrong.join(', ')} is no number; it has no body.`);
    else if (!sized) notes.push(`Row ${line}, ${name || 'no name'}: a size is not more than nothing; it has no body.`);
    const [wide, deep, high] = size as [number, number, number];
    const e = makeElement({
      ref: `${key}/${cut(cell(row, 'identifier') || `row ${line}`, 150)}`,
      name: cut(name, 300),
      class: cut(cell(row, 'class') || 'Block', 100),
      type: cut(cell(row, 'type'), 300),
      storey: cut(cell(row, 'storey'), 200),
      ...(sized
        ? { volume: rounded(wide * deep * high), area: rounded(wide * deep), length: Math.max(wide, deep) }
        : {}),
    });
    headings.forEach((h, c) => {
      const value = (row[c] ?? '').trim();
      if (h !== '' && value !== '' && !used.has(c)) e.properties[cut(h, LONGEST.name)] = cut(value, LONGEST.value);
    });
    if (sized) {
      const same = size.join(' ');
      let shape = known.get(same);
      if (shape === undefined) {
        shape = shapes.length;
        shapes.push(boxShape([0, 0, 0], size));
        known.set(same, shape);
      }
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      parts.push({
        element: elements.length,
        shape,
        place: Float64Array.from([c, s, 0, -s, c, 0, 0, 0, 1, ...place]),
      });
    }
    elements.push(e);
  });
  checkOnce(elements, source);
  return { elements, geometry: aboutOrigin(shapes, parts), assigned: [], notes };
}

const rounded = (v: number): number => Number(v.toPrecision(12));
