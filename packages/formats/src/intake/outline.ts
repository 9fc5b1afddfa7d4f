import { FIVE_DAY } from '@clembo/core';
import { type ReadDuration, readNumber, readYesNo, toMinutes } from '../values/amounts';
import type { ReadDate } from '../values/dates';
import type { CellReader, CellRow } from './cells';
import { readKind } from './kinds';

/** What the outline is read from, and what it finds. */
export interface OutlineRow extends CellRow {
  ref: string;
  /** Leading spaces of the name. */
  indent: number;
  isSummary?: boolean;
  /** It stands alone above the rows of a section. */
  isSection?: boolean;
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
          ? byCodes(rows, (row) => cells.text(row, 'outline'))
          : hasDottedReferences(rows)
            ? byCodes(rows, (row) => row.ref)
            : rows.some((r) => r.isSummary)
              ? bySummaryRows(rows)
              : rows.some((r) => r.isSection) && rows.every((r) => r.indent === 0)
                ? bySections(rows)
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
    if (readKind(cells.text(row, 'kind')) === 'summary') row.isSummary = true;
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

/** A longer text is no outline code. */
const LONGEST_CODE = 200;

/** A row belongs to the row with the longest code that its own begins with; where several share a code, to the first. */
function byCodes(rows: OutlineRow[], codeOf: (row: OutlineRow) => string): Map<string, string> {
  const owner = new Map<string, OutlineRow>();
  const codes = rows.map((row) => codeOf(row).replace(/\.$/, ''));
  rows.forEach((row, i) => {
    const code = codes[i]!;
    if (code !== '' && (!owner.has(code) || row.isSummary)) owner.set(code, row);
  });
  const parents = new Map<string, string>();
  rows.forEach((row, i) => {
    const code = codes[i]!;
    if (code === '' || code.length > LONGEST_CODE) return;
    const shared = owner.get(code)!;
    if (shared !== row && shared.isSummary) {
      parents.set(row.ref, shared.ref);
      return;
    }
    for (let cut = code.lastIndexOf('.'); cut > 0; cut = code.lastIndexOf('.', cut - 1)) {
      const parent = owner.get(code.slice(0, cut));
      if (parent === undefined || parent === row) continue;
      parents.set(row.ref, parent.ref);
      break;
    }
  });
  return parents;
}

const DOTTED = /^\d+(?:\.\d+)*\.?$/;

/** References such as 2 and 2.1.5, where every longer one has the one that it begins with. */
function hasDottedReferences(rows: readonly OutlineRow[]): boolean {
  if (!rows.every((r) => DOTTED.test(r.ref))) return false;
  const refs = new Set(rows.map((r) => r.ref.replace(/\.$/, '')));
  const longer = [...refs].filter((r) => r.includes('.'));
  return longer.length >= 2 && longer.every((r) => refs.has(r.slice(0, r.lastIndexOf('.'))));
}

/** A section holds what stands below it, up to the next one. */
function bySections(rows: OutlineRow[]): Map<string, string> {
  for (const row of rows) if (row.isSection) row.isSummary = true;
  return bySummaryRows(rows);
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
 * rows. Elsewhere a blank is a slip of the hand: the rows below it stand beside it, nothing becomes a summary by it,
 * and it is said.
 */
function byIndent(rows: OutlineRow[], cells: CellReader): Map<string, string> {
  if (rows.every((r) => r.indent === 0)) return new Map();
  const parents = byLevel(
    rows,
    rows.map((r) => r.indent),
  );
  const byRef = new Map(rows.map((r) => [r.ref, r]));
  const held = new Map(rows.map((r) => [r.ref, new Held()]));
  for (const row of rows) {
    const parent = parents.get(row.ref);
    if (parent !== undefined) held.get(parent)!.add(row);
  }
  // Rows that come to stand beside a row may be too much for the one above it: that one is looked at again.
  const look = (first: OutlineRow) => {
    for (let row: OutlineRow | undefined = first; row; ) {
      const below: Held = held.get(row.ref)!;
      if (below.rows.length === 0 || !isWork(row, cells) || below.within(row)) return;
      const above = parents.get(row.ref);
      const slipped = below.rows[0]!;
      cells.problem('indentIgnored', slipped.row, 'name', slipped.line[cells.columnOf('name')] ?? '', row.ref);
      held.set(row.ref, new Held());
      for (const r of below.rows) {
        if (above === undefined) parents.delete(r.ref);
        else {
          parents.set(r.ref, above);
          held.get(above)!.add(r);
        }
      }
      row = above === undefined ? undefined : byRef.get(above);
    }
  };
  for (const row of rows) look(row);
  return parents;
}

const isWork = (row: OutlineRow, cells: CellReader): boolean =>
  row.start !== null || row.finish !== null || row.duration !== null || cells.text(row, 'predecessors') !== '';

const lengthOf = ({ duration }: OutlineRow): number => (duration ? toMinutes(duration, FIVE_DAY) : 0);

/** The rows below one, with what their dates and lengths come to together. */
class Held {
  readonly rows: OutlineRow[] = [];
  private first = Number.POSITIVE_INFINITY;
  private last = Number.NEGATIVE_INFINITY;
  private longest = 0;

  add(row: OutlineRow): void {
    this.rows.push(row);
    const [start, finish] = [row.start?.day ?? row.finish?.day, row.finish?.day ?? row.start?.day];
    if (start !== undefined) this.first = Math.min(this.first, start);
    if (finish !== undefined) this.last = Math.max(this.last, finish);
    this.longest = Math.max(this.longest, lengthOf(row));
  }

  /** True when a row begins and ends where several others together do, or without dates is as long as any, as a summary is. */
  within(row: OutlineRow): boolean {
    if (this.rows.length < 2) return false;
    const dated = this.first !== Number.POSITIVE_INFINITY;
    if (!row.start && !row.finish && row.duration) return !dated && this.longest <= lengthOf(row);
    return (
      dated && row.start !== null && row.finish !== null && row.start.day <= this.first && row.finish.day >= this.last
    );
  }
}
