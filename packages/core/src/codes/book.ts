import type { CodeField, Plan } from '../plan/schema';

/** A code as it is used in the plan. */
export interface UsedCode {
  code: string;
  /** Activities and groups that have it. */
  count: number;
}

/** Codes of a field that activities have, those of the book with zero where nothing has them; an empty text for none. */
export function codesUsed(plan: Plan, field: string): Map<string, number> {
  const counts = new Map<string, number>();
  for (const v of plan.codeFields.find((f) => f.id === field)?.values ?? []) counts.set(v.code, 0);
  for (const a of plan.activities) {
    const code = a.codes[field] ?? '';
    counts.set(code, (counts.get(code) ?? 0) + 1);
  }
  return counts;
}

/** Codes that activities have and the book of the field has not, in the order in which they first appear. */
export function codesOutsideBook(plan: Plan, { id, values }: CodeField): UsedCode[] {
  const known = new Set(values.map((v) => v.code));
  return [...codesUsed(plan, id)].flatMap(([code, count]) => (code === '' || known.has(code) ? [] : [{ code, count }]));
}

/** An id for a new code field that no field of the plan has. */
export function freeFieldId(plan: Pick<Plan, 'codeFields'>, name: string): string {
  const base =
    name
      .toLowerCase()
      .normalize('NFKD')
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 80) || 'field';
  const taken = new Set(plan.codeFields.map((f) => f.id));
  const free = (id: string) => !taken.has(id) && !(id in Object.prototype);
  if (free(base)) return base;
  for (let k = 2; ; k++) if (free(`${base}-${k}`)) return `${base}-${k}`;
}
