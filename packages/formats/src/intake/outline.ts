import { readNumber, readYesNo } from '../values/amounts';
import type { CellReader, CellRow } from './cells';

/** What the outline is read from, and what it finds. */
export interface OutlineRow extends CellRow {
  ref: string;
  /** Leading spaces of the name. */
  indent: number;
  isSummary?: boolean;
}

/**
 * Recognises summary rows, and which summary each row belongs to: from a column of parents, else outline
 * levels, else dotted codes (2.1 holds 2.1.5), else a yes/no column, else the indentation of the names.
 * Marks the summaries and returns the parent of each reference that has one.
 */
export function readOutline(rows: OutlineRow[], cells: CellReader): Map<string, string> {
  markStated(rows, cells);
  const parents =
    cells.columnOf('parent') >= 0
      ? byParentColumn(rows, cells)
      : cells.columnOf('level') >= 0
        ? byLevel(rows, readLevels(rows, cells))
        : cells.columnOf('outline') >= 0
          ? byDottedCode(rows, cells)
          : rows.some((r) => r.isSummary)
            ? bySummaryRows(rows)
            : byIndent(rows);
  const holding = new Set(parents.values());
  for (const row of rows) if (holding.has(row.ref)) row.isSummary = true;
  return parents;
}

function markStated(rows: OutlineRow[], cells: CellReader): void {
  for (const row of rows) {
    const said = cells.text(row, 'summary');
    if (said !== '') {
      const yes = readYesNo(said);
      if (yes === null) cells.problem('notYesNo', row.row, 'summary', said);
      row.isSummary = yes === true;
    }
    if (/^(summary|group|heading|phase)$/i.test(cells.text(row, 'kind'))) row.isSummary = true;
  }
}

function byParentColumn(rows: OutlineRow[], cells: CellReader): Map<string, string> {
  const refs = new Set(rows.map((r) => r.ref));
  const parents = new Map<string, string>();
  for (const row of rows) {
    const parent = cells.text(row, 'parent');
    if (parent === '') continue;
    if (refs.has(parent) && parent !== row.ref) parents.set(row.ref, parent);
    else cells.problem('unknownParent', row.row, 'parent', parent);
  }
  return parents;
}

function readLevels(rows: OutlineRow[], cells: CellReader): number[] {
  let last = 1;
  return rows.map((row) => {
    const text = cells.text(row, 'level');
    const level = readNumber(text);
    if (text === '' || level === null || !Number.isInteger(level) || level < 0 || level > 50) {
      if (text !== '') cells.problem('notALevel', row.row, 'level', text);
      return last;
    }
    last = level;
    return level;
  });
}

/** A row belongs to the nearest row above it that stands further out. */
function byLevel(rows: OutlineRow[], levels: number[]): Map<string, string> {
  const parents = new Map<string, string>();
  const open: { ref: string; level: number }[] = [];
  rows.forEach((row, i) => {
    const level = levels[i]!;
    while (open.length > 0 && open[open.length - 1]!.level >= level) open.pop();
    const parent = open[open.length - 1];
    if (parent) parents.set(row.ref, parent.ref);
    open.push({ ref: row.ref, level });
  });
  return parents;
}

/** A row belongs to the row with the longest code that its own begins with; where several share a code, to the first. */
function byDottedCode(rows: OutlineRow[], cells: CellReader): Map<string, string> {
  const owner = new Map<string, OutlineRow>();
  for (const row of rows) {
    const code = cells.text(row, 'outline');
    if (code === '') continue;
    if (!owner.has(code) || row.isSummary) owner.set(code, row);
  }
  const parents = new Map<string, string>();
  for (const row of rows) {
    const code = cells.text(row, 'outline');
    if (code === '') continue;
    const shared = owner.get(code)!;
    if (shared !== row && shared.isSummary) {
      parents.set(row.ref, shared.ref);
      continue;
    }
    for (let cut = code.lastIndexOf('.'); cut > 0; cut = code.lastIndexOf('.', cut - 1)) {
      const parent = owner.get(code.slice(0, cut));
      if (parent === undefined) continue;
      parents.set(row.ref, parent.ref);
      break;
    }
  }
  return parents;
}

function bySummaryRows(rows: OutlineRow[]): Map<string, string> {
  const parents = new Map<string, string>();
  let summary: string | null = null;
  for (const row of rows) {
    if (row.isSummary) summary = row.ref;
    else if (summary !== null) parents.set(row.ref, summary);
  }
  return parents;
}

function byIndent(rows: OutlineRow[]): Map<string, string> {
  return rows.some((r) => r.indent > 0)
    ? byLevel(
        rows,
        rows.map((r) => r.indent),
      )
    : new Map();
}
