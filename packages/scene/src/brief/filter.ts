import { z } from 'zod';
import { listWords, type PlanWords } from './words';

/** Activities that are left in or out by the value of a code field. */
export const Filter = z.object({
  field: z.string().min(1).max(100),
  /** Keep only these values, or leave these out. */
  keep: z.enum(['only', 'without']),
  /** An empty text stands for "no value". */
  values: z.array(z.string().max(300)).min(1).max(10_000),
});
export type Filter = z.infer<typeof Filter>;

export function filterWords(filters: readonly Filter[], plan: PlanWords): string {
  if (filters.length === 0) return 'nothing is excluded';
  return listWords(
    filters.map((f) => {
      const field = plan.codeFields.find((c) => c.id === f.field);
      const titles = f.values.map((v) => (v === '' ? 'none' : (field?.values.find((x) => x.code === v)?.title ?? v)));
      const shown =
        titles.length > 3 ? `${titles.slice(0, 2).join(', ')} or ${titles.length - 2} more` : titles.join(' or ');
      return `${field?.name.toLowerCase() ?? f.field} is ${f.keep === 'only' ? '' : 'not '}${shown}`;
    }),
  );
}
