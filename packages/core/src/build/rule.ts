import { z } from 'zod';
import { Condition } from '../select/condition';
import { EFFECTS } from './element';

/**
 * Which elements belong to which activities: those that a condition catches belong to one activity (`to`), or each to
 * the activities that have the same value (`same`: a field of elements and a field of activities).
 */
export const MatchRule = z.object({
  id: z.string().min(1).max(100),
  name: z.string().max(200).default(''),
  where: Condition,
  effect: z.enum(EFFECTS).default('builds'),
  to: z.string().min(1).max(200).nullable().default(null),
  same: z
    .object({ element: z.string().min(1).max(110), activity: z.string().min(1).max(110) })
    .nullable()
    .default(null),
});
export type MatchRule = z.infer<typeof MatchRule>;
