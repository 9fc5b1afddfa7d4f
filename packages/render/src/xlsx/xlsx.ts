import { type ContentValue, eachLeaf, type Scene, SOFT_INK, textOf } from '@clembo/scene';
import { unzipSync, zipSync } from 'fflate';
import writeXlsx from 'write-excel-file/node';
import { zipDate } from '../zipDate';

type Cell = Record<string, unknown> | null;

/** Writes what pages show as a workbook: a sheet for each, dates as dates, numbers as numbers, below them the source. */
export async function writeXlsxOf(scenes: Scene[], date: Date, names: string[] = []): Promise<Uint8Array> {
  const taken = new Set<string>();
  const sheets = scenes.map((scene, k) => ({
    sheet: sheetName(names[k] ?? (scenes.length > 1 ? `Page ${k + 1}` : scene.title), taken),
    data: rowsOf(scene),
    columns: widthsOf(scene),
    stickyRowsCount: 3,
    showGridLines: false,
  }));
  // The same pages give the same bytes, whenever they are written.
  return zipSync(unzipSync(new Uint8Array(await writeXlsx(sheets as never).toBuffer())), { mtime: zipDate(date) });
}

function rowsOf({ title, content, ...scene }: Scene): Cell[][] {
  const withRefs = content.rows.some((r) => r.ref !== null);
  const heads = [...(withRefs ? ['Reference'] : []), ...content.heads];
  const source: string[] = [];
  eachLeaf(scene.nodes, (n) => {
    if (n.type === 'text' && n.role === 'source') source.push(textOf(n));
  });
  return [
    [{ value: title, type: String, fontWeight: 'bold', fontSize: 14 }],
    [],
    heads.map((value) => ({ value, type: String, fontWeight: 'bold', bottomBorderStyle: 'thin', wrap: true })),
    ...content.rows.map((row): Cell[] => [
      ...(withRefs ? [textCell(row.ref ?? '')] : []),
      ...row.cells.map((text, k) => valueCell(text, row.values?.[k] ?? null)),
    ]),
    [],
    ...source.map((text): Cell[] => [{ value: text, type: String, textColor: SOFT_INK }]),
  ];
}

const textCell = (text: string): Cell => (text === '' ? null : { value: text, type: String, alignVertical: 'top' });

function valueCell(text: string, value: ContentValue | null): Cell {
  if (value === null) return textCell(text);
  const top = { alignVertical: 'top' };
  if ('day' in value)
    return { value: new Date(value.day * 86_400_000), type: Date, format: 'd mmm yyyy', align: 'left', ...top };
  if ('share' in value) return { value: value.share, type: Number, format: '0%', ...top };
  return { value: Math.round(value.number * 100) / 100, type: Number, format: '#,##0.##', ...top };
}

const LEAST = 10;
const MOST = 60;

function widthsOf({ content }: Scene): { width: number }[] {
  const withRefs = content.rows.some((r) => r.ref !== null);
  const longest = (texts: string[]) =>
    Math.min(MOST, Math.max(LEAST, ...texts.slice(0, 2000).map((t) => t.length + 2)));
  return [
    ...(withRefs ? [{ width: longest(content.rows.map((r) => r.ref ?? '')) }] : []),
    ...content.heads.map((head, k) => ({ width: longest([head, ...content.rows.map((r) => r.cells[k] ?? '')]) })),
  ];
}

/** What a sheet may be called, and none called as another. */
function sheetName(name: string, taken: Set<string>): string {
  const plain =
    name
      .replace(/[[\]:*?/\\]/g, ' ')
      .replace(/\s+/g, ' ')
      .trim()
      .replace(/^'+|'+$/g, '') || 'Page';
  for (let n = 1; ; n++) {
    const end = n === 1 ? '' : ` ${n}`;
    const own = plain.slice(0, 31 - end.length) + end;
    if (taken.has(own.toLowerCase())) continue;
    taken.add(own.toLowerCase());
    return own;
  }
}
