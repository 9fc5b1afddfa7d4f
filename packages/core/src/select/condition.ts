import { z } from 'zod';

/** What may be asked of a field. Numbers and days are compared by size, texts without regard to case. */
export const OPERATORS = [
  'is',
  'isNot',
  'begins',
  'ends',
  'contains',
  'lacks',
  'atLeast',
  'atMost',
  'above',
  'below',
  'empty',
  'filled',
] as const;
export type Operator = (typeof OPERATORS)[number];

/**
 * One question to one field. `is` holds when any of the values is met, `isNot` when none is. Numbers are written with
 * a decimal point, days as `2026-07-31`; `empty` and `filled` take no value.
 */
export const Test = z.object({
  field: z.string().min(1).max(110),
  is: z.enum(OPERATORS),
  values: z.array(z.string().max(300)).max(10_000).default([]),
});
export type Test = z.infer<typeof Test>;

/** Tests that must all hold, or of which any must; conditions nest. Without any test it holds for everything. */
export interface Condition {
  match: 'all' | 'any';
  tests: (Test | Condition)[];
}

/** How deep conditions nest at the most. */
const DEPTH = 8;

const conditionOf = (depth: number): z.ZodType<Condition> =>
  z.object({
    match: z.enum(['all', 'any']),
    tests: z.array(depth > 1 ? z.union([Test, conditionOf(depth - 1)]) : Test).max(200),
  });
export const Condition: z.ZodType<Condition> = conditionOf(DEPTH);

export const isTest = (part: Test | Condition): part is Test => 'field' in part;
