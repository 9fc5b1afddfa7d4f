import { type Table, trimTable, UnreadableFile } from '../table/table';
import { readSheet, type Shared } from './sheet';
import { readStyles } from './styles';
import { notAWorkbook, unpackWorkbook } from './unpack';
import { readXml } from './xml';

/** Reads all sheets of a workbook that hold anything, in their order; those that are hidden say so. */
export async function readXlsx(bytes: Uint8Array, source: string): Promise<Table[]> {
  const parts = unpackWorkbook(bytes, source);
  let tables: Table[];
  try {
    tables = readSheets(parts, source);
  } catch (error) {
    if (error instanceof UnreadableFile) throw error;
    throw new UnreadableFile(
      `${source} could not be read as a workbook (${error instanceof Error ? error.message.slice(0, 200) : 'unknown reason'}). Save it again as XLSX, or as CSV.`,
    );
  }
  if (tables.length === 0) throw new UnreadableFile(`${source} has no sheet with anything in it.`);
  return tables;
}

interface SheetEntry {
  name: string;
  id: string;
  hidden: boolean;
}

function readSheets(parts: ReadonlyMap<string, Uint8Array>, source: string): Table[] {
  const targets = relations(parts, '');
  const book = [...targets.values()].find((t) => /workbook[^/]*\.xml$/i.test(t)) ?? 'xl/workbook.xml';
  const bytes = parts.get(book);
  if (!bytes) throw notAWorkbook(source);
  const sheets: SheetEntry[] = [];
  let from1904 = false;
  readXml(bytes, {
    open(name, a) {
      if (name === 'workbookPr') from1904 = a.date1904 === '1' || a.date1904 === 'true';
      if (name === 'sheet')
        sheets.push({
          name: a.name ?? `Sheet ${sheets.length + 1}`,
          id: a.id ?? '',
          hidden: (a.state ?? 'visible') !== 'visible',
        });
    },
  });
  const places = relations(parts, book);
  const folder = book.slice(0, book.lastIndexOf('/') + 1);
  const part = (ending: string) => [...places.values()].find((t) => t.endsWith(ending)) ?? `${folder}${ending}`;
  const shared: Shared = {
    strings: readStrings(parts.get(part('sharedStrings.xml'))),
    styles: readStyles(parts.get(part('styles.xml'))),
    from1904,
  };
  return sheets.flatMap(({ name, id, hidden }): Table[] => {
    const data = parts.get(places.get(id) ?? '');
    if (!data) return [];
    const { rows, merges, hiddenRows, filled } = readSheet(data, shared, `${source}, sheet ${name},`);
    // What a merged cell says, it says for each of its rows.
    for (const [top, left, bottom] of merges) {
      const text = rows[top]?.[left];
      if (!text || bottom - top > rows.length) continue;
      for (let r = top + 1; r <= bottom && r < rows.length; r++) {
        const row = rows[r]!;
        while (row.length < left) row.push('');
        row[left] ||= text;
      }
    }
    const table = trimTable({ source, sheet: name, rows, firstRow: 1 });
    const last = table.rows.length;
    return last === 0
      ? []
      : [
          {
            ...table,
            ...(hidden && { hidden }),
            ...(merges.length > 0 && { merges: merges.filter(([top]) => top < last) }),
            ...(hiddenRows.length > 0 && { hiddenRows: hiddenRows.filter((r) => r < last) }),
            ...(filled.length > 0 && { filled: filled.filter(([r]) => r < last) }),
          },
        ];
  });
}

/** Where the parts lie that a part names, by the names that it gives them (ISO/IEC 29500-2, 9.3). */
function relations(parts: ReadonlyMap<string, Uint8Array>, of: string): Map<string, string> {
  const cut = of.lastIndexOf('/') + 1;
  const bytes = parts.get(`${of.slice(0, cut)}_rels/${of.slice(cut)}.rels`);
  const found = new Map<string, string>();
  if (!bytes) return found;
  readXml(bytes, {
    open(name, a) {
      if (name !== 'Relationship' || !a.Id || !a.Target || a.TargetMode === 'External') return;
      found.set(a.Id, a.Target.startsWith('/') ? a.Target.slice(1) : resolve(of.slice(0, cut) + a.Target));
    },
  });
  return found;
}

function resolve(path: string): string {
  const steps: string[] = [];
  for (const step of path.split('/')) {
    if (step === '..') steps.pop();
    else if (step !== '.' && step !== '') steps.push(step);
  }
  return steps.join('/');
}

/** The texts that cells share; those with several runs are one. */
function readStrings(bytes: Uint8Array | undefined): string[] {
  if (!bytes) return [];
  const strings: string[] = [];
  let text = '';
  let inText = false;
  let spoken = false;
  readXml(bytes, {
    open(name) {
      if (name === 'si') text = '';
      else if (name === 'rPh') spoken = true;
      else if (name === 't') inText = !spoken;
    },
    text(t) {
      if (inText) text += t;
    },
    close(name) {
      if (name === 'si') strings.push(text);
      else if (name === 'rPh') spoken = false;
      else if (name === 't') inText = false;
    },
  });
  return strings;
}
