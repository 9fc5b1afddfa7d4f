import { FIVE_DAY } from '@clembo/core';
import { type ReadDuration, readNumber, readYesNo, toMinutes } from '../values/amounts';
import type { ReadDate } from '../values/dates';
import type { CellReader, CellRow } from './cells';

/** What the outline is read from, and what it finds. */
export interface OutlineRow extends CellRow {
  ref: string;
  /** Leading spaces of the name. */
  indent: number;
  isSummary?: boolean;
  /** Dates and length that the row states of itself. */
  start: ReadDate | null;
  finish: ReadDate | null;
  duration: ReadDuration | null;
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
            : byIndent(rows, cells);
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

/**
 * Leading blanks make an outline only where they can mean one: a row holds the rows that stand further in below it
 * when it is a heading without work of its own, or when its dates (without dates, its length) hold those of several
 * rows. Elsewhere
 * a blank is a slip of the hand; nothing becomes a summary by it, and it is said.
 */
function byIndent(rows: OutlineRow[], cells: CellReader): Map<string, string> {
  if (rows.every((r) => r.indent === 0)) return new Map();
  const indents = rows.map((r) => r.indent);
  for (;;) {
    const parents = byLevel(rows, indents);
    const slip = firstSlip(rows, parents, cells);
    if (!slip) return parents;
    // The rows below it are taken as far out as itself, and the outline is read again.
    slip.held.forEach((row, k) => {
      indents[rows.indexOf(row)] = indents[rows.indexOf(slip.holder)]!;
      if (k === 0)
        cells.problem('indentIgnored', row.row, 'name', row.line[cells.columnOf('name')] ?? '', slip.holder.ref);
    });
  }
}

/** The first row that would hold others although it is work of its own. */
function firstSlip(
  rows: OutlineRow[],
  parents: Map<string, string>,
  cells: CellReader,
): { holder: OutlineRow; held: OutlineRow[] } | null {
  const held = new Map<string, OutlineRow[]>();
  for (const row of rows) {
    const parent = parents.get(row.ref);
    if (parent === undefined) continue;
    const list = held.get(parent);
    if (list) list.push(row);
    else held.set(parent, [row]);
  }
  for (const row of rows) {
    const list = held.get(row.ref);
    if (list && isWork(row, cells) && !spans(row, list)) return { holder: row, held: list };
  }
  return null;
}

const isWork = (row: OutlineRow, cells: CellReader): boolean =>
  row.start !== null || row.finish !== null || row.duration !== null || cells.text(row, 'predecessors') !== '';

/** True when a row begins and ends where several others together do, or without dates is as long as any of them, as a summary is. */
function spans({ start, finish, duration }: OutlineRow, held: OutlineRow[]): boolean {
  if (held.length < 2) return false;
  if (!start && !finish && duration) {
    const length = toMinutes(duration, FIVE_DAY);
    return held.every((r) => !r.start && !r.finish && (!r.duration || toMinutes(r.duration, FIVE_DAY) <= length));
  }
  if (!start || !finish) return false;
  const starts = held.flatMap((r) => r.start?.day ?? r.finish?.day ?? []);
  const finishes = held.flatMap((r) => r.finish?.day ?? r.start?.day ?? []);
  if (starts.length === 0) return false;
  return start.day <= Math.min(...starts) && finish.day >= Math.max(...finishes);
}
