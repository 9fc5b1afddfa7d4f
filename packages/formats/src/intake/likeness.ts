import type { Table } from '../table/table';
import { guessColumnMap } from './guess';

/** Of a longer table the beginning shows what it is. */
const SHOWN_ROWS = 300;

/** How much of a plan a table is: rows below headings, where there are dates among them. */
function planLikeness(table: Table): number {
  const top = { ...table, rows: table.rows.slice(0, SHOWN_ROWS) };
  const { headerRow, columns } = guessColumnMap(top);
  const fields = columns.filter((m) => m.as === 'field');
  const isDated = fields.some((m) => m.field === 'start' || m.field === 'finish');
  const rows = table.rows.length - (headerRow ?? -1) - 1;
  return rows <= 0 ? 0 : Math.log2(rows + 1) * fields.length * (isDated ? 4 : 1) * (table.hidden ? 0.01 : 1);
}

/** The table of a file that is most likely meant: the one that is most like a plan; what is hidden only if nothing else is. */
export function mainTable(tables: readonly Table[]): Table {
  const rated = tables.map((table) => ({ table, likeness: tables.length > 1 ? planLikeness(table) : 1 }));
  return rated.reduce((best, t) => (t.likeness > best.likeness * 1.05 ? t : best)).table;
}
