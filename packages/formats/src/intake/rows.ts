import type { CellReader, CellRow } from './cells';
import type { FieldId } from './fields';

/** What a row of a table is to its reader. */
export type RowKind = 'work' | 'section' | 'foot' | 'total' | 'heading' | 'hidden' | 'notPicked';

export interface TableRow extends CellRow {
  /** Position in the table. */
  at: number;
  kind: RowKind;
}

/** Fields that say that something is to be done, and when. */
const FACTS: FieldId[] = ['start', 'finish', 'duration', 'actualStart', 'actualFinish', 'predecessors', 'remaining'];

const TOTAL =
  /^(?:(?:grand|sub)?\s*-?totals?|sums?|summe|gesamt(?:summe)?|zwischensumme|total général|sous-total|totaux|totale|subtotale|totaal|subtotaal|total geral|subtotal)\b[\s:]*$/i;
const FOOT =
  /^(?:legend|key|printed|print date|notes?|source|page \d|generated|exported|created (?:on|by)|version|rev(?:ision)?\b|©|copyright|confidential|legende|gedruckt|hinweis|anmerkung|quelle|seite \d|stand\b|légende|imprimé|remarque|leyenda|impreso|nota\b|legenda|stampato|afgedrukt|impresso|\*)/i;

/**
 * Tells the rows below the headings apart, as a reader does: headings that are printed again, totals, what stands below
 * the table, rows that head a section, rows that are hidden or not wanted, and work.
 */
export function tellRows(cells: CellReader): TableRow[] {
  const { table, map } = cells;
  const hidden = new Set(table.hiddenRows ?? []);
  const heading = map.headerRow === null ? null : plainCells(table.rows[map.headerRow]!);
  const facts = FACTS.map((f) => cells.columnOf(f)).filter((c) => c >= 0);
  const name = cells.columnOf('name');
  const ref = cells.columnOf('ref');
  const rows: TableRow[] = [];
  const work: Candidate[] = [];
  let [dated, full] = [0, 0];
  let gap = false;
  for (let at = map.headerRow === null ? 0 : map.headerRow + 1; at < table.rows.length; at++) {
    const own = table.rows[at]!;
    let [count, first] = [0, 0];
    for (let c = 0; c < own.length && count < 2; c++) if (own[c]!.trim() !== '' && count++ === 0) first = c;
    if (count === 0) {
      gap = true;
      continue;
    }
    const row: TableRow = { at, row: table.firstRow + at, line: cells.line(own), kind: 'work' };
    rows.push(row);
    const afterGap = gap;
    gap = false;
    if (heading !== null && isRowOf(own, heading)) row.kind = 'heading';
    else if (map.hidden === 'out' && hidden.has(at)) row.kind = 'hidden';
    else if (facts.some((c) => (row.line[c] ?? '').trim() !== '')) {
      dated++;
      full++;
      work.push(DATED);
    } else {
      const label = ((name >= 0 ? (row.line[name] ?? '') : '').trim() || own[first]!.trim()).slice(0, 200);
      const given = ref < 0 ? '' : (row.line[ref] ?? '').trim();
      if (count > 1 && !TOTAL.test(label)) full++;
      work.push({
        row,
        isAlone: count === 1,
        hasRef: given !== '',
        isLikeRef: /^[\w.-]*\d[\w.-]*$/.test(given),
        label,
        afterGap,
      });
    }
  }
  const isDatedTable = facts.length > 0 && full > 0 && dated * 2 >= full;
  if (!isDatedTable) return pick(rows, cells);
  for (const r of work) if (r !== DATED && !r.hasRef && TOTAL.test(r.label)) r.row.kind = 'total';
  // From the last row upwards: what holds no date and stands alone below a gap, or says that it is a foot.
  let begin = work.length;
  while (begin > 0 && work[begin - 1] !== DATED) begin--;
  const lastGap = work.findIndex((r, k) => k >= begin && r.afterGap);
  for (let k = work.length - 1; k >= begin; k--) {
    const r = work[k]!;
    if (r.row.kind === 'total') continue;
    const belowGap = lastGap >= 0 && lastGap <= k;
    if (r.isAlone && !r.isLikeRef && (FOOT.test(r.label) || belowGap)) r.row.kind = 'foot';
    else break;
  }
  let next: Candidate | null = null;
  for (let k = work.length - 1; k >= 0; k--) {
    const r = work[k]!;
    // A row that stands alone above dated work, or above another such row, heads it; one that nothing follows heads nothing.
    if (
      r !== DATED &&
      r.row.kind === 'work' &&
      r.isAlone &&
      !r.isLikeRef &&
      next !== null &&
      (next === DATED || next.isAlone)
    )
      r.row.kind = 'section';
    if (r === DATED || r.row.kind === 'work' || r.row.kind === 'section') next = r;
  }
  return pick(rows, cells);
}

/** A row that holds no date, length or link: work without dates, or something else. */
interface Candidate {
  row: TableRow;
  isAlone: boolean;
  hasRef: boolean;
  isLikeRef: boolean;
  label: string;
  afterGap: boolean;
}

/** Stands for every row that holds one. */
const DATED: Candidate = {
  row: { at: -1, row: -1, line: [], kind: 'work' },
  isAlone: false,
  hasRef: true,
  isLikeRef: false,
  label: '',
  afterGap: false,
};

const plainCells = (cells: readonly string[]): string[] => cells.map((c) => c.trim().toLowerCase());

/** True for a row that says the same as another, whatever the letters' case. */
function isRowOf(cells: readonly string[], plain: readonly string[]): boolean {
  if (cells.length !== plain.length) return false;
  for (let c = 0; c < cells.length; c++) if (cells[c]!.trim().toLowerCase() !== plain[c]) return false;
  return true;
}

function pick(rows: TableRow[], cells: CellReader): TableRow[] {
  const { only } = cells.map.pick;
  if (only.length > 0)
    for (const r of rows)
      if (r.kind === 'work' && !only.every(({ column, values }) => values.includes(cells.cell(r, column))))
        r.kind = 'notPicked';
  return rows;
}
