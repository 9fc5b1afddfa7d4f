import { z } from 'zod';
import { MomentValue } from '../plan/schema';
import { Condition } from '../select/condition';

const FieldId = z.string().min(1).max(110);

/** How the ledger stands: which rows, in which order and groups, with which columns. Kept under a name. */
export const Arrangement = z.object({
  /** Fields that rows are grouped by, outermost first; none stands for the outline. */
  groups: z.array(FieldId).max(4).default([]),
  /** What rows are sorted by within their groups; nothing stands for the order of the plan. */
  sort: z
    .array(z.object({ field: FieldId, down: z.boolean().default(false) }))
    .max(4)
    .default([]),
  /** Only what meets it is listed. */
  where: Condition.default({ match: 'all', tests: [] }),
  columns: z
    .array(z.object({ field: FieldId, width: z.int().min(30).max(900).nullable().default(null) }))
    .max(60)
    .default(['start', 'finish', 'days', 'float', 'percent'].map((field) => ({ field, width: null }))),
  nameWidth: z.int().min(120).max(900).default(310),
  /** Numbers of the outline before the names. */
  numbers: z.boolean().default(false),
  /** Whether groups of the outline are listed. */
  summaries: z.boolean().default(true),
  /** A row for the whole plan above all. */
  whole: z.boolean().default(false),
  /** What the time strip shows; null for all that there is. */
  from: MomentValue.nullable().default(null),
  to: MomentValue.nullable().default(null),
});
export type Arrangement = z.infer<typeof Arrangement>;

export const defaultArrangement = (): Arrangement => Arrangement.parse({});
