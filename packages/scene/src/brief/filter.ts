import { codeFieldId, Condition } from '@clembo/core';
import { z } from 'zod';

/** How briefs once said which activities are left in or out: by values of code fields. */
const Filter = z.object({
  field: z.string().min(1).max(100),
  keep: z.enum(['only', 'without']),
  /** An empty text stands for "no value". */
  values: z.array(z.string().max(300)).min(1).max(10_000),
});

/** A condition; what was kept as filters becomes one. */
export const Where = z.preprocess((said) => {
  const filters = z.array(Filter).max(20).safeParse(said);
  if (!filters.success) return said;
  return {
    match: 'all',
    tests: filters.data.map(({ field, keep, values }) => ({
      field: codeFieldId(field),
      is: keep === 'only' ? 'is' : 'isNot',
      values,
    })),
  };
}, Condition);
