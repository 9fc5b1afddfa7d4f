import { rateTimeOf } from '../values/rates';
import type { RateTime } from '../values/rateTimes';
import type { Table } from '../table/table';
import { decimalEvidence, percentScale, readDuration, saidOfAmount } from '../values/amounts';
import {
  isMonthWithNumber,
  lacksYear,
  monthEvidence,
  type OrderEvidence,
  orderEvidence,
  readDate,
  readRange,
  yearsByWeekday,
} from '../values/dates';
import { currencyOfAll, moneyHeading } from '../values/money';
import type { ColumnMap, ColumnMeaning, ColumnStyle } from './columnMap';
import { fieldById, type FieldType, isMoneyField, plainHeading } from './fields';

/** What a table means is settled by its columns: each by all of its values, never one by one. */

const typeOf = (m: ColumnMeaning | undefined): FieldType | undefined =>
  m?.as === 'field' ? fieldById(m.field)?.type : undefined;

/** The values of a column below the headings that are not empty, at most so many. */
export function filled(body: readonly string[][], column: number, most = Number.POSITIVE_INFINITY): string[] {
  const values: string[] = [];
  for (const row of body) {
    const value = (row[column] ?? '').trim();
    if (value !== '') values.push(value);
    if (values.length >= most) break;
  }
  return values;
}

/** The values of a column that are not empty, one after the other. */
function* eachValue(body: readonly string[][], column: number): Generator<string> {
  for (const row of body) {
    const value = (row[column] ?? '').trim();
    if (value !== '') yield value;
  }
}

/** The different values of a column that are not empty. */
const distinct = (body: readonly string[][], column: number): Set<string> => new Set(eachValue(body, column));

export const bodyOf = (table: Table, map: Pick<ColumnMap, 'headerRow'>): string[][] =>
  table.rows.slice(map.headerRow === null ? 0 : map.headerRow + 1);

const datesOf = (body: string[][], columns: readonly ColumnMeaning[]): [column: number, values: Set<string>][] =>
  columns.flatMap((m, c) => (typeOf(m) === 'date' ? [[c, distinct(body, c)] as [number, Set<string>]] : []));

/** What the date columns of a table say together about the order of day and month. */
export const orderInTable = (table: Table, map: Pick<ColumnMap, 'headerRow' | 'columns'>): OrderEvidence =>
  togetherOrder(datesOf(bodyOf(table, map), map.columns).map(([, values]) => orderEvidence(values)));

/** One order for the file: what any date column shows; open while all of them are. */
function togetherOrder(evidence: OrderEvidence[]): OrderEvidence {
  const has = (e: OrderEvidence) => evidence.includes(e);
  const told = (['dmy', 'mdy', 'ymd'] as const).filter(has);
  if (has('mixed') || told.length > 1) return 'mixed';
  return told[0] ?? (has('open') ? 'open' : 'irrelevant');
}

/** The order that the evidence settles; where dates are written without it, either reads them the same. */
export const settledOrder = (evidence: OrderEvidence): ColumnMap['dateOrder'] =>
  evidence === 'dmy' || evidence === 'mdy' || evidence === 'ymd' ? evidence : evidence === 'irrelevant' ? 'dmy' : null;

function unitByHeading(heading: string): ColumnMap['durationUnit'] {
  const words = plainHeading(heading).split(' ');
  const has = (list: string) => words.some((w) => list.split(' ').includes(w));
  if (has('h hr hrs hour hours std stunden heures horas ore uren')) return 'hour';
  if (has('w wk wks week weeks wochen semaines semanas settimane weken')) return 'week';
  if (has('months mons monate mois meses mesi maanden')) return 'month';
  return 'day';
}

/** How the columns of a table are written, as far as their values settle it. */
export function settle(
  table: Table,
  headerRow: number | null,
  headings: readonly string[],
  columns: readonly ColumnMeaning[],
): Pick<ColumnMap, 'currency' | 'dateOrder' | 'durationUnit' | 'shortM' | 'styles' | 'year'> {
  const body = bodyOf(table, { headerRow });
  const dates = datesOf(body, columns);
  const evidence = dates.map(([, values]) => orderEvidence(values));
  const together = togetherOrder(evidence);
  const styles = columns.map((m, c): ColumnStyle => {
    const type = typeOf(m);
    if (isMoney(m)) return { decimal: markOf(eachValue(body, c)), factor: factorOf(headings[c] ?? '') };
    if (m.as === 'field' && m.field === 'rate')
      return { decimal: markOf(eachValue(body, c)), per: rateTime(headings[c] ?? '', eachValue(body, c)) };
    if (type === 'number') return { decimal: markOf(eachValue(body, c)) };
    if (type === 'date' && [...dates.find(([at]) => at === c)![1]].some(isMonthWithNumber))
      return { behindMonth: monthEvidence(eachValue(body, c)) };
    if (type === 'percent') return { scale: percentScale(eachValue(body, c)) };
    return {};
  });
  // Columns that each are clear in themselves may differ from one another.
  if (together === 'mixed' && !evidence.includes('mixed') && dates.every(([, values]) => values.size > 1))
    dates.forEach(([c], k) => (styles[c] = { ...styles[c], order: settledOrder(evidence[k]!) }));
  const apart = dates.map(([c]) => styles[c]!.order);
  const dateOrder = settledOrder(together) ?? (apart.every((o) => o) ? (apart[0] ?? null) : null);
  const durations = columns.findIndex((m) => m.as === 'field' && m.field === 'duration');
  return {
    currency: currencyOf(body, headings, columns),
    dateOrder,
    durationUnit: unitByHeading(headings[durations] ?? ''),
    shortM: meaningOfM(body, columns, dateOrder),
    styles,
    year: yearOf(
      table,
      headerRow,
      dates.flatMap(([, values]) => [...values]),
      dateOrder,
    ),
  };
}

const isMoney = (m: ColumnMeaning): boolean => m.as === 'field' && isMoneyField(m.field);

/** A scale in the heading holds for all of the column; null where it says none. */
function factorOf(heading: string): 1e3 | 1e6 | null {
  const { factor } = moneyHeading(heading);
  return factor === 1e3 || factor === 1e6 ? factor : null;
}

/** The currency of all amounts, which say it themselves or by their heading. */
const currencyOf = (body: string[][], headings: readonly string[], columns: readonly ColumnMeaning[]): string | null =>
  currencyOfAll(saidCurrencies(body, headings, columns));

function* saidCurrencies(
  body: string[][],
  headings: readonly string[],
  columns: readonly ColumnMeaning[],
): Generator<readonly string[]> {
  for (const [c, m] of columns.entries()) {
    if (!isMoney(m)) continue;
    const usual = moneyHeading(headings[c] ?? '').currencies;
    for (const text of eachValue(body, c)) {
      const { currencies } = saidOfAmount(text);
      if (currencies.length > 0 || usual.length > 0) yield currencies.length > 0 ? currencies : usual;
    }
  }
}

function markOf(values: Iterable<string>): '.' | ',' | null {
  const evidence = decimalEvidence(values);
  return evidence === '.' || evidence === ',' ? evidence : null;
}

/** Minutes or months, where “m” is all that a duration says: what the dates beside it say, or other units that leave only one. */
function meaningOfM(
  body: string[][],
  columns: readonly ColumnMeaning[],
  order: ColumnMap['dateOrder'],
): ColumnMap['shortM'] {
  const at = (field: string) => columns.findIndex((m) => m.as === 'field' && m.field === field);
  const [duration, start, finish] = [at('duration'), at('start'), at('finish')];
  if (duration < 0) return null;
  let [months, minutes] = [0, 0];
  for (const row of body) {
    const text = (row[duration] ?? '').trim();
    const amount = /^\d+(?:[.,]\d+)?\s*m\.?$/i.test(text)
      ? readDuration(text, { unit: 'day', m: 'month' })?.amount
      : undefined;
    if (!amount || start < 0 || finish < 0 || order === null) continue;
    const [s, f] = [readDate(row[start] ?? '', order), readDate(row[finish] ?? '', order)];
    if (!s || !f) continue;
    const days = f.day - s.day + 1;
    if (days > amount * 20 && days < amount * 45) months++;
    else if (days <= 1 + amount / 400) minutes++;
  }
  if (months > 0 && minutes === 0) return 'month';
  return minutes > 0 && months === 0 ? 'minute' : null;
}

/** Four figures, or three groups of figures, state a year. */
const HAS_YEAR = /(?<!\d)\d{4}(?!\d)|\d[-/.]\d{1,2}[-/.]\d{2}/;

/** The year of dates without one, where something in the table settles it: weekdays, a year in the title, or nothing needs it. */
function yearOf(
  table: Table,
  headerRow: number | null,
  values: string[],
  order: ColumnMap['dateOrder'],
): number | null {
  const by = order ?? 'dmy';
  const without = values.filter((v) => !HAS_YEAR.test(v) && needsYear(v, by)).slice(0, 200);
  if (without.length === 0) return null;
  const years = yearsByWeekday(without, by);
  if (years.length === 1) return years[0]!;
  const named = new Set<number>();
  for (const row of table.rows.slice(0, headerRow ?? 0))
    for (const cell of row) for (const m of cell.matchAll(/\b(20\d{2}|19\d{2})\b/g)) named.add(Number(m[1]));
  for (const m of `${table.sheet ?? ''}`.matchAll(/(?<!\d)(20\d{2})(?!\d)/g)) named.add(Number(m[1]));
  const fits = [...named].filter((y) => years.length === 0 || years.includes(y));
  return fits.length === 1 ? fits[0]! : null;
}

/** True for a date, or two in one cell, whose year is not written. */
export const needsYear = (text: string, order: 'dmy' | 'mdy' | 'ymd'): boolean =>
  lacksYear(text, order) || (readRange(text, { order }) === null && readRange(text, { order, year: 2024 }) !== null);

/** The unit of time of a column of rates: that of its heading, else the one that its values name. */
function rateTime(heading: string, values: Iterable<string>): RateTime | null {
  const own = rateTimeOf(heading);
  if (own !== null) return own;
  const named = new Set<RateTime>();
  for (const v of values) {
    const time = rateTimeOf(v);
    if (time !== null) named.add(time);
  }
  return named.size === 1 ? [...named][0]! : null;
}
