import { z } from 'zod';
import type { Table } from '../table/table';
import { readDuration, readNumber, readYesNo } from '../values/amounts';
import { type OrderEvidence, orderEvidence, readDate } from '../values/dates';
import { type FieldId, fieldByHeading, fieldById, plainHeading, type TableField, TABLE_FIELDS } from './fields';

const FIELD_IDS = TABLE_FIELDS.map((f) => f.id) as [FieldId, ...FieldId[]];

/** What one column of the table means: a field, a code field of the person's own, or nothing. */
export const ColumnMeaning = z.discriminatedUnion('as', [
  z.object({ as: z.literal('field'), field: z.enum(FIELD_IDS) }),
  z.object({ as: z.literal('code'), name: z.string().min(1).max(200) }),
  z.object({ as: z.literal('skip') }),
]);
export type ColumnMeaning = z.infer<typeof ColumnMeaning>;

/** Which column means which field, and how what is written in the columns is read. Kept for the next time. */
export const ColumnMap = z.object({
  /** Position of the row of headings in the table, or null when there is none. */
  headerRow: z.int().min(0).nullable(),
  headings: z.array(z.string()),
  columns: z.array(ColumnMeaning),
  /** Null while the columns leave it open: the person is asked. */
  dateOrder: z.enum(['dmy', 'mdy']).nullable(),
  durationUnit: z.enum(['minute', 'hour', 'day', 'week', 'month']).default('day'),
  /** Percent written as fractions of one. */
  percentIsFraction: z.boolean().default(false),
});
export type ColumnMap = z.infer<typeof ColumnMap>;

const SAMPLE = 2000;
const WHOLE = Number.POSITIVE_INFINITY;

/** The first values of a column that are not empty. */
function filled(body: string[][], column: number, most: number): string[] {
  const values: string[] = [];
  for (const row of body) {
    const value = (row[column] ?? '').trim();
    if (value !== '') values.push(value);
    if (values.length >= most) break;
  }
  return values;
}

/** Guesses the column map of a table from its headings and from the values below them. */
export function guessColumnMap(table: Table): ColumnMap {
  const headerRow = findHeaderRow(table);
  const width = table.rows.reduce((max, row) => Math.max(max, row.length), 0);
  const headings = Array.from({ length: width }, (_, c) =>
    headerRow === null ? '' : (table.rows[headerRow]![c] ?? '').trim(),
  );
  const body = table.rows.slice(headerRow === null ? 0 : headerRow + 1);
  const columns = headings.map((_, c) => filled(body, c, SAMPLE));
  const meanings = headings.map((heading, c) => meaningByHeading(heading, columns[c]!));
  keepOneColumnEach(meanings, headings);
  if (headerRow === null) guessByValues(meanings, columns);
  nameFallback(meanings, columns);
  meanings.forEach((m, c) => {
    if (m.as === 'skip' && headings[c] !== '' && looksLikeCode(filled(body, c, WHOLE)))
      meanings[c] = { as: 'code', name: headings[c]! };
  });
  // Day and month are settled by the whole column, everything else by its first values.
  const of = (type: string) => meanings.flatMap((m, c) => (typeOf(m) === type ? [filled(body, c, WHOLE)] : []));
  const percents = of('percent')
    .flatMap((values) => values.map(readNumber))
    .filter((v) => v !== null);
  return {
    headerRow,
    headings,
    columns: meanings,
    dateOrder: settledOrder(togetherOrder(of('date'))),
    durationUnit: unitByHeading(headings[meanings.findIndex((m) => m.as === 'field' && m.field === 'duration')] ?? ''),
    percentIsFraction: percents.length > 0 && percents.every((v) => v <= 1) && percents.some((v) => v > 0 && v < 1),
  };
}

const typeOf = (m: ColumnMeaning): string | undefined => (m.as === 'field' ? fieldById(m.field)?.type : undefined);

/** What the date columns of a table say together about the order of day and month. */
export function orderInTable(table: Table, map: Pick<ColumnMap, 'headerRow' | 'columns'>): OrderEvidence {
  const body = table.rows.slice(map.headerRow === null ? 0 : map.headerRow + 1);
  const dates = map.columns.flatMap((m, c) => (typeOf(m) === 'date' ? [filled(body, c, WHOLE)] : []));
  return togetherOrder(dates);
}

/** One order for the file: what any date column shows; open while all of them are. */
function togetherOrder(columns: string[][]): OrderEvidence {
  const evidence = columns.map((values) => orderEvidence(values));
  const has = (e: OrderEvidence) => evidence.includes(e);
  if (has('mixed') || (has('dmy') && has('mdy'))) return 'mixed';
  return (['dmy', 'mdy', 'open'] as const).find(has) ?? 'irrelevant';
}

/** The order that the evidence settles; where dates are written without it, either reads them the same. */
export const settledOrder = (evidence: OrderEvidence): ColumnMap['dateOrder'] =>
  evidence === 'dmy' || evidence === 'mdy' ? evidence : evidence === 'irrelevant' ? 'dmy' : null;

function unitByHeading(heading: string): ColumnMap['durationUnit'] {
  const words = plainHeading(heading).split(' ');
  if (words.some((w) => ['h', 'hr', 'hrs', 'hour', 'hours'].includes(w))) return 'hour';
  if (words.some((w) => ['w', 'wk', 'wks', 'week', 'weeks'].includes(w))) return 'week';
  return 'day';
}

/** The row among the first thirty whose cells name the most fields and that has data below it. */
export function findHeaderRow(table: Table): number | null {
  let best: number | null = null;
  let bestScore = 1.5;
  table.rows.slice(0, 30).forEach((row, r) => {
    if (r === table.rows.length - 1) return;
    const cells = row.map((c) => c.trim()).filter((c) => c !== '');
    const named = new Set(cells.map((c) => fieldByHeading(c)?.id).filter(Boolean)).size;
    const values = cells.filter((c) => readDate(c, 'dmy') !== null || readNumber(c) !== null).length;
    const score = named + 0.1 * Math.min(cells.length, 5) - values;
    if (named >= 1 && score > bestScore) [best, bestScore] = [r, score];
  });
  return best ?? textRowAboveDates(table);
}

/** Headings in words of the person's own: a first row of text over columns that hold dates. */
function textRowAboveDates(table: Table): number | null {
  const [first, ...rest] = table.rows;
  if (!first || rest.length === 0 || first.some((c) => readDate(c, 'dmy') !== null)) return null;
  const dated = first.some(
    (_, c) =>
      shareOf(
        rest.slice(0, SAMPLE).map((row) => row[c] ?? ''),
        isDate,
      ) > 0.5,
  );
  return dated ? 0 : null;
}

const isDate = (v: string): boolean => readDate(v, 'dmy') !== null || readDate(v, 'mdy') !== null;

function shareOf(values: string[], test: (v: string) => boolean): number {
  const some = values.slice(0, SAMPLE).filter((v) => v.trim() !== '');
  return some.length === 0 ? 0 : some.filter(test).length / some.length;
}

/** Trusts a heading only when the values below can be what it says: a name is never taken for a date. */
function meaningByHeading(heading: string, values: string[]): ColumnMeaning {
  const field = fieldByHeading(heading);
  if (!field || !valuesFit(field, values)) return { as: 'skip' };
  return { as: 'field', field: field.id as FieldId };
}

function valuesFit(field: TableField, values: string[]): boolean {
  if (values.length === 0) return true;
  switch (field.type) {
    case 'date':
      return shareOf(values, isDate) >= 0.5;
    case 'duration':
      return shareOf(values, (v) => readDuration(v, 'day') !== null) >= 0.5;
    case 'percent':
    case 'number':
    case 'level':
      return shareOf(values, (v) => readNumber(v) !== null) >= 0.5;
    case 'yesNo':
      return shareOf(values, (v) => readYesNo(v) !== null) >= 0.8;
    case 'kind':
      return shareOf(values, (v) => readKind(v) !== null) >= 0.8;
    default:
      return true;
  }
}

/** Of several columns for one field the first keeps it; the exact first heading of the field goes before. */
function keepOneColumnEach(meanings: ColumnMeaning[], headings: string[]): void {
  const owner = new Map<string, number>();
  meanings.forEach((m, c) => {
    if (m.as !== 'field') return;
    const had = owner.get(m.field);
    if (had === undefined) {
      owner.set(m.field, c);
      return;
    }
    const rank = (column: number) => fieldById(m.field)!.headings.indexOf(plainHeading(headings[column]!));
    const loser = rank(c) < rank(had) ? had : c;
    owner.set(m.field, loser === c ? had : c);
    meanings[loser] = { as: 'skip' };
  });
}

/** Without headings: dates are start and finish in their order, the longest text is the name. */
function guessByValues(meanings: ColumnMeaning[], columns: string[][]): void {
  const dates = columns.map((v, c) => (v.length > 0 && shareOf(v, isDate) > 0.7 ? c : -1)).filter((c) => c >= 0);
  if (dates[0] !== undefined) meanings[dates[0]] = { as: 'field', field: 'start' };
  if (dates[1] !== undefined) meanings[dates[1]] = { as: 'field', field: 'finish' };
  const unique = (v: string[]) => new Set(v).size === v.length;
  const ref = columns.findIndex(
    (v, c) =>
      meanings[c]!.as === 'skip' &&
      v.length > 1 &&
      unique(v) &&
      v.every((x) => /^[\w.-]{1,20}$/.test(x) && /\d/.test(x)),
  );
  if (ref >= 0) meanings[ref] = { as: 'field', field: 'ref' };
}

/** A table without a column for names takes the free column with the longest texts. */
function nameFallback(meanings: ColumnMeaning[], columns: string[][]): void {
  if (meanings.some((m) => m.as === 'field' && m.field === 'name')) return;
  const mean = (v: string[]) => (v.length === 0 ? 0 : v.reduce((sum, x) => sum + x.length, 0) / v.length);
  let best = -1;
  columns.forEach((values, c) => {
    if (meanings[c]!.as !== 'skip' || shareOf(values, (v) => readNumber(v) !== null || isDate(v)) > 0.5) return;
    if (values.length > 0 && (best < 0 || mean(values) > mean(columns[best]!))) best = c;
  });
  if (best >= 0) meanings[best] = { as: 'field', field: 'name' };
}

/** A free column whose few values come back again and again sorts the activities. */
function looksLikeCode(values: string[]): boolean {
  const seen = new Set<string>();
  for (const v of values) if (seen.add(v).size > 60) return false;
  const distinct = seen.size;
  return (
    values.length >= 2 &&
    distinct <= 60 &&
    distinct <= Math.max(2, values.length * 0.6) &&
    values.every((v) => v.length <= 80)
  );
}

export type ReadKind = 'activity' | 'milestone' | 'startMilestone' | 'finishMilestone' | 'levelOfEffort' | 'summary';

const KINDS: Record<string, ReadKind> = {
  activity: 'activity',
  task: 'activity',
  work: 'activity',
  vorgang: 'activity',
  milestone: 'milestone',
  meilenstein: 'milestone',
  gate: 'milestone',
  'start milestone': 'startMilestone',
  'finish milestone': 'finishMilestone',
  'level of effort': 'levelOfEffort',
  loe: 'levelOfEffort',
  'supporting work': 'levelOfEffort',
  support: 'levelOfEffort',
  summary: 'summary',
  group: 'summary',
  heading: 'summary',
  phase: 'summary',
};

/** Reads the kind of an activity; null when the word means none. */
export const readKind = (text: string): ReadKind | null => KINDS[plainHeading(text)] ?? null;
