import type { Plan } from '../plan/schema';

/** What a pasted table says of the codes of a field. */
export interface PastedCodes {
  /** Which of its columns names activities, by what, and which holds the codes; null where no column names any. */
  key: { column: number; by: 'ref' | 'name' } | null;
  column: number;
  columns: number;
  /** The first row, where it is taken for headings: it names no activity, and most others do. */
  heading: string[] | null;
  /** Reference and code; an empty code takes the code away. */
  codes: [ref: string, code: string][];
  /** Rows whose key is no activity's, and rows whose key means several. */
  unknown: { row: number; key: string }[];
  ambiguous: { row: number; key: string }[];
  /** Rows that say of the same activity something else than a row before. */
  contradicted: { row: number; key: string; first: string; second: string }[];
}

const plain = (text: string): string => text.trim().toLowerCase();

/**
 * Reads a column of codes beside a column of keys, in any order of rows and of columns. The key is the column that
 * names most activities, by reference or, where none does, by name; the codes are the first other column, unless
 * said otherwise. A first row that names no activity, while most others do, is taken for headings, which is said.
 *
 * @param table rows of cells
 * @param column the column that holds the codes, where a person says so
 */
export function readPastedCodes(plan: Plan, table: readonly string[][], column: number | null = null): PastedCodes {
  const width = table.reduce((most, row) => Math.max(most, row.length), 0);
  const byRef = new Map(plan.activities.map((a) => [plain(a.ref), [a.ref]]));
  const byName = new Map<string, string[]>();
  for (const a of plan.activities) {
    const key = plain(a.name);
    if (key === '') continue;
    const list = byName.get(key);
    if (list) list.push(a.ref);
    else byName.set(key, [a.ref]);
  }
  const hits = (c: number, names: ReadonlyMap<string, string[]>) =>
    table.filter((row) => names.has(plain(row[c] ?? ''))).length;
  const candidates = Array.from({ length: width }, (_, c) => c)
    .filter((c) => c !== column)
    .flatMap((c) => [
      { column: c, by: 'ref' as const, hits: hits(c, byRef) },
      { column: c, by: 'name' as const, hits: hits(c, byName) },
    ]);
  const best = candidates.reduce<(typeof candidates)[number] | null>(
    (most, k) => (k.hits > (most?.hits ?? 0) ? k : most),
    null,
  );
  const result: PastedCodes = {
    key: best && { column: best.column, by: best.by },
    column: column ?? (best?.column === 0 ? 1 : 0),
    columns: width,
    heading: null,
    codes: [],
    unknown: [],
    ambiguous: [],
    contradicted: [],
  };
  if (!best || width < 2) return { ...result, key: null };
  const names = best.by === 'ref' ? byRef : byName;
  const codes = new Map<string, string>();
  table.forEach((cells, row) => {
    const key = (cells[best.column] ?? '').trim();
    const code = (cells[result.column] ?? '').trim();
    if (key === '') return;
    const refs = names.get(plain(key));
    if (!refs) {
      const keys = table.filter((r) => (r[best.column] ?? '').trim() !== '').length;
      if (row === 0 && best.hits > (keys - 1) / 2) result.heading = cells.map((c) => c.trim());
      else result.unknown.push({ row, key });
    } else if (refs.length > 1) result.ambiguous.push({ row, key });
    else {
      const before = codes.get(refs[0]!);
      if (before !== undefined && before !== code) result.contradicted.push({ row, key, first: before, second: code });
      else codes.set(refs[0]!, code);
    }
  });
  result.codes = [...codes];
  return result;
}
