import { ORIGIN_HEADINGS } from '../out/originHeadings';
import { isChainageText } from '@clembo/core';
import type { Table } from '../table/table';
import { readDuration, readNumber, readPercent, readYesNo, saysNothing } from '../values/amounts';
import { MONTHS } from '../values/calendarWords';
import { isMonthWithNumber, readDate, readRange } from '../values/dates';
import type { ColumnMap, ColumnMeaning } from './columnMap';
import { type FieldId, fieldByHeading, fieldById, headingRank, plainHeading, type TableField } from './fields';
import { DRAWN_START, isMark } from './grid';
import { findHeader, findStatusDate, type Header, headerAt, headingsOf } from './header';
import { readKind } from './kinds';
import { bodyOf, filled, needsYear, settle } from './settle';

/** Why a column was taken for what it is, where its heading does not say it: shown beside it, to be confirmed. */
export interface Reason {
  column: number;
  /** So many of so many values are what the field needs. */
  fit: number;
  of: number;
}

/** Of a longer heading the beginning names the code field. */
const LONGEST_NAME = 200;
/** So many columns are taken for codes unasked; the person may say more. */
const MOST_GUESSED_CODES = 30;
const SAMPLE = 2000;
/** Under a heading that names a field, so many values have to fit it, as a share; the others are listed as not read. */
const ENOUGH = 0.25;
/** How many values are tried on whether they are of a kind. */
const TRIED = 200;

/** Guesses the column map of a table from its headings and from the values below them. */
export const guessColumnMap = (table: Table): ColumnMap => guessWith(table, findHeader(table)).map;

/** As {@link guessColumnMap}, with the row of headings that a person says; null for none. */
export const guessBelow = (table: Table, row: number | null): { map: ColumnMap; reasons: Reason[] } =>
  guessWith(table, row === null ? null : headerAt(table, row));

/** The guess with what it rests on where that is not the heading. */
export const guessWithReasons = (table: Table): { map: ColumnMap; reasons: Reason[] } =>
  guessWith(table, findHeader(table));

function guessWith(table: Table, header: Header | null): { map: ColumnMap; reasons: Reason[] } {
  const width = table.rows.reduce((max, row) => Math.max(max, row.length), 0);
  const headings = headingsOf(table, header, width);
  const headerRow = header?.row ?? null;
  const body = bodyOf(table, { headerRow });
  const samples = headings.map((_, c) => filled(body, c, SAMPLE));
  const isOrigin = (heading: string) => (ORIGIN_HEADINGS as readonly string[]).includes(heading);
  const meanings = headings.map(
    (heading, c): ColumnMeaning => (isOrigin(heading) ? { as: 'skip' } : meaningByHeading(heading, samples[c]!)),
  );
  namesNotReferences(meanings, samples);
  keepOneColumnEach(meanings, headings, samples);
  const reasons = datesByValues(meanings, samples, body, headerRow === null);
  reasons.push(...placesByValues(meanings, headings, samples));
  if (headerRow === null) referenceByValues(meanings, samples);
  referenceByPredecessors(meanings, samples);
  hoursAreLengths(meanings, headings);
  nameFallback(meanings, samples);
  let codes = 0;
  const isDrawn = headings.includes(DRAWN_START);
  meanings.forEach((m, c) => {
    if (
      m.as !== 'skip' ||
      isOrigin(headings[c]!) ||
      headings[c] === '' ||
      (isDrawn && isSpanHeading(headings[c]!) && samples[c]!.every(isMark))
    )
      return;
    if (codes < MOST_GUESSED_CODES && looksLikeCode(body, c)) {
      codes++;
      meanings[c] = { as: 'code', name: headings[c]!.slice(0, LONGEST_NAME) };
    }
  });
  const settled = settle(table, headerRow, headings, meanings);
  const status = findStatusDate(table, header);
  const statusDay = status
    ? (readDate(status.text, { order: settled.dateOrder ?? 'dmy', year: settled.year })?.day ?? null)
    : null;
  const map: ColumnMap = {
    headerRow,
    headerRows: header?.rows ?? 1,
    headings,
    columns: meanings,
    derived: [],
    ...settled,
    predecessorsBy: predecessorsBy(table, headerRow, meanings),
    statusDay,
    asPromised: null,
    mends: [],
    foot: 'out',
    hidden: 'in',
    pick: { only: [], from: null, to: null, without: [] },
  };
  return { map, reasons };
}

/** A heading that is itself a day, week or month. */
const isSpanHeading = (heading: string): boolean =>
  isMonthWithNumber(heading) ||
  readDate(heading, { order: 'dmy', year: 2026 }) !== null ||
  MONTHS.has(heading.toLowerCase().replace(/\.$/, ''));

const isDate = (v: string): boolean =>
  readDate(v, 'dmy') !== null ||
  readDate(v, 'mdy') !== null ||
  readRange(v, { order: 'dmy' }) !== null ||
  isMonthWithNumber(v) ||
  needsYear(v, 'dmy') ||
  needsYear(v, 'mdy');
/** A year or a serial number alone does not make a column one of dates. */
const isPlainDate = (v: string): boolean => !/^\d{4,5}$/.test(v) && isDate(v);

function shareOf(values: readonly string[], test: (v: string) => boolean): number {
  const some = spread(values.filter((v) => v.trim() !== '' && saysNothing(v) === null));
  return some.length === 0 ? 0 : some.filter(test).length / some.length;
}

/** Some of the values, from all over the column. */
const spread = (values: string[]): string[] =>
  values.length <= TRIED
    ? values
    : Array.from({ length: TRIED }, (_, k) => values[Math.floor((k * values.length) / TRIED)]!);

/** Trusts a heading only when the values below can be what it says: a name is never taken for a date. */
function meaningByHeading(heading: string, values: string[]): ColumnMeaning {
  const field = fieldByHeading(heading);
  if (!field || !valuesFit(field, values)) return { as: 'skip' };
  return { as: 'field', field: field.id as FieldId };
}

function valuesFit(field: TableField, values: string[]): boolean {
  if (values.every((v) => saysNothing(v) !== null)) return true;
  // A reference names one row; a column that mostly repeats itself names something else.
  if (field.id === 'ref' && new Set(values).size < values.length / 2) return false;
  switch (field.type) {
    case 'date':
      return shareOf(values, isDate) >= ENOUGH;
    case 'duration':
      return shareOf(values, (v) => readDuration(v, { unit: 'day', m: 'month' }) !== null) >= ENOUGH;
    case 'percent':
      return shareOf(values, (v) => readPercent(v, 'percent') !== null) >= 0.5;
    case 'number': {
      const isPlace = field.id === 'from' || field.id === 'to';
      return shareOf(values, (v) => readNumber(v, '.') !== null || (isPlace && isChainageText(v))) >= 0.5;
    }
    case 'level':
      return shareOf(values, (v) => /^\d{1,2}$/.test(v)) >= 0.5;
    case 'yesNo':
      return shareOf(values, (v) => readYesNo(v) !== null) >= 0.8;
    case 'kind':
      return shareOf(values, (v) => readKind(v) !== null) >= 0.8;
    default:
      return true;
  }
}

/** Where nothing else is called a name, words under “Item” are names and not references. */
function namesNotReferences(meanings: ColumnMeaning[], samples: string[][]): void {
  if (meanings.some((m) => m.as === 'field' && m.field === 'name')) return;
  const isWords = (v: string) => /\p{L}{3}/u.test(v) && !/\d/.test(v);
  const at = meanings.findIndex((m, c) => m.as === 'field' && m.field === 'ref' && shareOf(samples[c]!, isWords) > 0.5);
  if (at >= 0) meanings[at] = { as: 'field', field: 'name' };
}

/** Of several columns for one field the one that holds more keeps it; else the one whose heading comes first for it. */
function keepOneColumnEach(meanings: ColumnMeaning[], headings: string[], samples: string[][]): void {
  const owner = new Map<FieldId, number>();
  meanings.forEach((m, c) => {
    if (m.as !== 'field') return;
    const had = owner.get(m.field);
    if (had === undefined) {
      owner.set(m.field, c);
      return;
    }
    const field = fieldById(m.field)!;
    const better = (a: number, b: number) =>
      (samples[a]!.length === 0) !== (samples[b]!.length === 0)
        ? samples[a]!.length > 0
        : headingRank(field, headings[a]!) < headingRank(field, headings[b]!);
    const loser = better(c, had) ? had : c;
    owner.set(m.field, loser === c ? had : c);
    meanings[loser] = { as: 'skip' };
  });
}

/**
 * Columns that are called no more than “From” and “To” are places where they hold numbers or chainage, and no dates:
 * both of them, or neither.
 */
function placesByValues(meanings: ColumnMeaning[], headings: string[], samples: string[][]): Reason[] {
  const at = (name: string) =>
    headings.findIndex(
      (h, c) => h.trim().toLowerCase() === name && meanings[c]!.as === 'skip' && samples[c]!.length > 0,
    );
  const pair = [at('from'), at('to')] as const;
  const has = meanings.some((m) => m.as === 'field' && (m.field === 'from' || m.field === 'to'));
  const isPlace = (v: string) => isChainageText(v) || readNumber(v, '.') !== null;
  if (has || pair.some((c) => c < 0 || shareOf(samples[c]!, isPlace) < 0.8 || shareOf(samples[c]!, isPlainDate) > 0.2))
    return [];
  return pair.map((column, k): Reason => {
    meanings[column] = { as: 'field', field: k === 0 ? 'from' : 'to' };
    const tried = spread(samples[column]!);
    return { column, fit: tried.filter(isPlace).length, of: tried.length };
  });
}

/** Without headings that say it, columns of dates are found by their values: the earlier one is the start. */
function datesByValues(
  meanings: ColumnMeaning[],
  samples: string[][],
  body: readonly string[][],
  noHeadings: boolean,
): Reason[] {
  const has = (field: FieldId) => meanings.some((m) => m.as === 'field' && m.field === field);
  const free = samples.flatMap((values, c) =>
    meanings[c]!.as === 'skip' && values.length > 0 && shareOf(values, noHeadings ? isDate : isPlainDate) > 0.6
      ? [c]
      : [],
  );
  const reasons: Reason[] = [];
  const take = (column: number | undefined, field: FieldId) => {
    if (column === undefined || has(field)) return;
    meanings[column] = { as: 'field', field };
    const tried = spread(samples[column]!);
    reasons.push({ column, fit: tried.filter(isDate).length, of: tried.length });
  };
  if (!has('start') && !has('finish')) {
    const [a, b] = free;
    const turned = a !== undefined && b !== undefined && isLater(body, a, b);
    take(turned ? b : a, 'start');
    take(turned ? a : b, 'finish');
  } else if (!has('finish')) take(free[0], 'finish');
  else if (!has('start')) take(free[0], 'start');
  return reasons;
}

/** True when the dates of one column mostly lie behind those of another in the same rows. */
function isLater(body: readonly string[][], first: number, second: number): boolean {
  let [later, earlier, tried] = [0, 0, 0];
  for (const row of body) {
    const [a, b] = [readDate((row[first] ?? '').trim(), 'dmy'), readDate((row[second] ?? '').trim(), 'dmy')];
    if (!a || !b) continue;
    if (a.day !== b.day) a.day > b.day ? later++ : earlier++;
    if (++tried === TRIED) break;
  }
  return later > earlier;
}

/** Without headings, short texts with a figure that all differ are references. */
function referenceByValues(meanings: ColumnMeaning[], samples: string[][]): void {
  const ref = samples.findIndex(
    (v, c) =>
      meanings[c]!.as === 'skip' &&
      v.length > 1 &&
      new Set(v).size === v.length &&
      v.every((x) => /^[\w.-]{1,20}$/.test(x) && /\d/.test(x)),
  );
  if (ref >= 0) meanings[ref] = { as: 'field', field: 'ref' };
}

/** Without a column that is called one, that is the reference which predecessors name. */
function referenceByPredecessors(meanings: ColumnMeaning[], samples: string[][]): void {
  const at = (field: FieldId) => meanings.findIndex((m) => m.as === 'field' && m.field === field);
  const preds = at('predecessors');
  if (preds < 0 || at('ref') >= 0 || at('outline') >= 0) return;
  const named = samples[preds]!.filter((v) => v.length <= LONGEST_NAME)
    .flatMap((v) => v.split(/[,;\n]/))
    .map((v) => v.trim().toLowerCase())
    .slice(0, SAMPLE);
  const ref = samples.findIndex((values, c) => {
    if (meanings[c]!.as !== 'skip' || values.length < 2) return false;
    const own = new Set(values.map((v) => v.toLowerCase()));
    // A list of places counts itself: it is not needed to tell rows apart.
    if (own.size < values.length || values.every((v, k) => v === String(k + 1))) return false;
    const found = named.filter(
      (v) => own.has(v) || [...v.matchAll(/[^\p{L}\d]|(?<=\d)(?=\p{L})/gu)].some((m) => own.has(v.slice(0, m.index))),
    );
    return found.length > named.length / 2;
  });
  if (ref >= 0) meanings[ref] = { as: 'field', field: 'ref' };
}

/** Where a table has one date and no other length, “Hours” are how long the work takes. */
function hoursAreLengths(meanings: ColumnMeaning[], headings: string[]): void {
  const has = (field: FieldId) => meanings.some((m) => m.as === 'field' && m.field === field);
  if (!has('start') || has('finish') || has('duration')) return;
  const at = meanings.findIndex(
    (m, c) => m.as === 'field' && m.field === 'effort' && HOURS.has(plainHeading(headings[c]!)),
  );
  if (at >= 0) meanings[at] = { as: 'field', field: 'duration' };
}
const HOURS = new Set(['hours', 'stunden', 'heures', 'horas', 'ore', 'uren']);

/** A table without a column for names takes the free column with the longest texts. */
function nameFallback(meanings: ColumnMeaning[], samples: string[][]): void {
  if (meanings.some((m) => m.as === 'field' && m.field === 'name')) return;
  const mean = (v: string[]) => (v.length === 0 ? 0 : v.reduce((sum, x) => sum + x.length, 0) / v.length);
  // What repeats itself sorts activities; what differs from row to row names them.
  const worth = (v: string[]) => mean(v) * (new Set(v).size / Math.max(1, v.length));
  let best = -1;
  samples.forEach((values, c) => {
    if (meanings[c]!.as !== 'skip' || shareOf(values, (v) => readNumber(v) !== null || isDate(v)) > 0.5) return;
    if (values.length > 0 && (best < 0 || worth(values) > worth(samples[best]!))) best = c;
  });
  if (best >= 0) meanings[best] = { as: 'field', field: 'name' };
}

/** A free column whose few values come back again and again sorts the activities. */
function looksLikeCode(body: string[][], column: number): boolean {
  const seen = new Set<string>();
  let count = 0;
  for (const row of body) {
    const value = (row[column] ?? '').trim();
    if (value === '') continue;
    count++;
    if (seen.has(value)) continue;
    if (value.length > 80 || seen.add(value).size > 60) return false;
  }
  const few = count <= 12 ? seen.size < count : seen.size <= count * 0.6;
  return count >= 2 && (few || seen.size <= 2);
}

/**
 * What numbers in the column of predecessors name: references, where rows have them; else the place in the list or
 * the row of the sheet, whichever of them names rows that all exist and finish before their successors start.
 */
function predecessorsBy(
  table: Table,
  headerRow: number | null,
  meanings: readonly ColumnMeaning[],
): ColumnMap['predecessorsBy'] {
  const at = (field: FieldId) => meanings.findIndex((m) => m.as === 'field' && m.field === field);
  const [preds, ref] = [at('predecessors'), at('ref')];
  if (preds < 0) return 'reference';
  const first = headerRow === null ? 0 : headerRow + 1;
  const rows: { cells: string[]; row: number }[] = [];
  for (let r = first; r < table.rows.length && rows.length < SAMPLE; r++) {
    const cells = table.rows[r]!;
    if (cells.some((c) => c.trim() !== '')) rows.push({ cells, row: table.firstRow + r });
  }
  const named = rows.map(({ cells }, i) => ({
    i,
    numbers: (cells[preds] ?? '').match(/(?<![\w.+-])\d+(?!\w*\.\d)/g)?.map(Number) ?? [],
  }));
  const all = named.flatMap((n) => n.numbers);
  if (all.length === 0) return 'reference';
  const plain = (text: string) => text.trim().replace(/^0+(?=\d+$)/, '');
  const refs = ref < 0 ? null : new Set(table.rows.slice(first).map((cells) => plain(cells[ref] ?? '')));
  if (refs && all.filter((n) => refs.has(String(n))).length >= all.length / 2) return 'reference';
  if (refs && named.some((n) => /[a-z]/i.test(rows[n.i]!.cells[preds] ?? '') && n.numbers.length === 0))
    return 'reference';
  const byRow = new Map(rows.map(({ row }, i) => [row, i]));
  const [start, finish] = [at('start'), at('finish')];
  const dayAt = (i: number, column: number) =>
    column < 0 ? null : (readDate(rows[i]!.cells[column] ?? '', 'dmy')?.day ?? null);
  const score = (find: (n: number) => number | undefined): number => {
    let good = 0;
    for (const { i, numbers } of named)
      for (const n of numbers) {
        const p = find(n);
        if (p === undefined || p === i || p < 0 || p >= rows.length) good -= 3;
        else {
          const [f, s] = [dayAt(p, finish), dayAt(i, start)];
          good += f !== null && s !== null && f > s ? -1 : f !== null && s !== null && s - f <= 4 ? 2 : 1;
        }
      }
    return good;
  };
  return score((n) => byRow.get(n)) > score((n) => n - 1) ? 'row' : 'position';
}
