import { RATE_TIMES } from '../values/rateTimes';
import { MOST_ACTIVITIES } from '@clembo/core';
import { z } from 'zod';
import { MAX_CELL, MAX_COLUMNS } from '../table/table';
import { type FieldId, TABLE_FIELDS } from './fields';

const FIELD_IDS = TABLE_FIELDS.map((f) => f.id) as [FieldId, ...FieldId[]];

/** What one column of the table means: a field, a code field of the person's own, a note, or nothing. */
export const ColumnMeaning = z.discriminatedUnion('as', [
  z.object({ as: z.literal('field'), field: z.enum(FIELD_IDS) }),
  z.object({ as: z.literal('code'), name: z.string().min(1).max(200) }),
  z.object({ as: z.literal('note'), name: z.string().min(1).max(200) }),
  z.object({ as: z.literal('skip') }),
]);
export type ColumnMeaning = z.infer<typeof ColumnMeaning>;

const Order = z.enum(['dmy', 'mdy', 'ymd']);

/** How the values of one column are written, where they do not say it themselves; null where that is open. */
export const ColumnStyle = z.object({
  /** Of dates in numbers; else that of the whole table. */
  order: Order.nullable().optional(),
  /** Of two figures behind a month (“Apr-26”). */
  behindMonth: z.enum(['year', 'day']).nullable().optional(),
  /** Of numbers. */
  decimal: z.enum(['.', ',']).nullable().optional(),
  /** Of percentages without a sign. */
  scale: z.enum(['percent', 'fraction']).nullable().optional(),
  /** How many units of the currency one of an amount of money stands for; one where that is null. */
  factor: z
    .union([z.literal(1), z.literal(1e3), z.literal(1e6)])
    .nullable()
    .optional(),
  /** The time that a rate is told for; null where nothing says it: it is asked, and the rates are not read till then. */
  per: z.enum(RATE_TIMES).nullable().optional(),
});
export type ColumnStyle = z.infer<typeof ColumnStyle>;

/** A column that is made of another: its beginning, a part of it, what stands between two marks, or two joined. */
export const DerivedColumn = z.object({
  from: z.int().min(0).max(MAX_COLUMNS),
  take: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('first'), count: z.int().min(1).max(200) }),
    z.object({ kind: z.literal('part'), separator: z.string().min(1).max(10), part: z.int().min(1).max(50) }),
    z.object({ kind: z.literal('between'), after: z.string().max(20), before: z.string().max(20) }),
    z.object({ kind: z.literal('join'), other: z.int().min(0).max(MAX_COLUMNS), mark: z.string().max(10) }),
  ]),
});
export type DerivedColumn = z.infer<typeof DerivedColumn>;

/** What a person says that a text in a column stands for; an empty text for nothing. */
export const Mend = z.object({
  column: z
    .int()
    .min(0)
    .max(2 * MAX_COLUMNS),
  text: z.string().min(1).max(MAX_CELL),
  to: z.string().max(1000),
});
export type Mend = z.infer<typeof Mend>;

/** Which rows are taken: those with one of some values in a column, less those taken out by hand. */
export const RowPick = z.object({
  only: z
    .array(
      z.object({
        column: z
          .int()
          .min(0)
          .max(2 * MAX_COLUMNS),
        values: z.array(z.string().max(300)).max(1000),
      }),
    )
    .max(20)
    .default([]),
  /** Only what lies, at least in part, within these days. */
  from: z.int().nullable().default(null),
  to: z.int().nullable().default(null),
  /** References of rows that are left out by hand. */
  without: z.array(z.string().max(200)).max(MOST_ACTIVITIES).default([]),
});
export type RowPick = z.infer<typeof RowPick>;

/** Which column means which field, and how what is written in the columns is read. Kept for the next time. */
export const ColumnMap = z.object({
  /** Position of the (last) row of headings in the table, or null when there is none. */
  headerRow: z.int().min(0).nullable(),
  /** How many rows the headings take, the last one included. */
  headerRows: z.int().min(1).max(4).default(1),
  headings: z.array(z.string().max(MAX_CELL)).max(MAX_COLUMNS),
  /** One for each column of the table, then one for each derived column. */
  columns: z.array(ColumnMeaning).max(2 * MAX_COLUMNS),
  styles: z
    .array(ColumnStyle)
    .max(2 * MAX_COLUMNS)
    .default([]),
  derived: z.array(DerivedColumn).max(50).default([]),
  /** Null while the columns leave it open: the person is asked. */
  dateOrder: Order.nullable(),
  /** Of dates that are written without one. */
  year: z.int().min(1900).max(2299).nullable().default(null),
  durationUnit: z.enum(['minute', 'hour', 'day', 'week', 'month']).default('day'),
  /** What “3m” means as a duration. */
  shortM: z.enum(['minute', 'month']).nullable().default(null),
  /** What numbers in the column of predecessors name, where the rows have no references of their own. */
  predecessorsBy: z.enum(['reference', 'position', 'row']).default('reference'),
  /** The currency of all amounts of money (ISO 4217); null where nothing says it. */
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/)
    .nullable()
    .default(null),
  /** The status date, as a day since 1970. */
  statusDay: z.int().nullable().default(null),
  /** Whether what has only promised dates takes these as they stand; null until a person has said so. */
  asPromised: z.boolean().nullable().default(null),
  mends: z.array(Mend).max(5000).default([]),
  /** Rows that a reader would not take for work: the foot of the table and its totals, and those hidden in the sheet. */
  foot: z.enum(['out', 'in']).default('out'),
  hidden: z.enum(['out', 'in']).default('in'),
  pick: RowPick.default({ only: [], from: null, to: null, without: [] }),
});
export type ColumnMap = z.infer<typeof ColumnMap>;
