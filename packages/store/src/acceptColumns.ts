import { type Columns, findUnusableText } from '@clembo/core';
import { z } from 'zod';

/** What is wrong in columns: where, as list, row and field, and why. */
export interface Fault {
  path: PropertyKey[];
  message: string;
}

const Shape = z.object({
  count: z.int().min(0),
  same: z.record(z.string(), z.unknown()),
  each: z.record(z.string(), z.array(z.unknown())),
});

/** The value of a field in one row of columns. */
export const valueAt = ({ same, each }: Columns, field: string, row: number): unknown =>
  each[field] ? each[field][row] : same[field];

/** Checks columns by the schemas of their fields; what they do not know is left out. */
export function acceptColumns(
  list: string,
  shape: Readonly<Record<string, z.ZodType>>,
  data: Columns,
  most: number,
): { columns: Columns; faults: Fault[] } {
  const columns: Columns = { count: 0, same: {}, each: {} };
  const read = Shape.safeParse(data);
  if (!read.success)
    return { columns, faults: read.error.issues.map((i) => ({ path: [list, ...i.path], message: i.message })) };
  const { count, same, each } = read.data;
  if (count > most)
    return { columns, faults: [{ path: [list], message: `there are ${count}; at most ${most} can be` }] };
  columns.count = count;
  const faults: Fault[] = [];
  for (const [field, schema] of Object.entries(shape)) {
    const values = Object.hasOwn(each, field) ? each[field]! : null;
    if (values && values.length !== count) {
      faults.push({ path: [list], message: `${field} is given for ${values.length} of ${count}` });
      continue;
    }
    if (!values && count === 0) continue;
    const found = values ? z.array(schema).safeParse(values) : schema.safeParse(same[field]);
    if (!found.success)
      for (const { path, message } of found.error.issues) {
        const [row, ...rest] = values ? path : [0, ...path];
        faults.push({ path: [list, row!, field, ...rest], message });
      }
    else if (values) columns.each[field] = found.data as unknown[];
    else columns.same[field] = found.data;
  }
  return { columns, faults: faults.sort((a, b) => Number(a.path[1] ?? -1) - Number(b.path[1] ?? -1)) };
}

/** Where columns hold a text that PostgreSQL cannot keep, as list, row and field; null where all can be. */
export function unusableIn(list: string, { same, each }: Columns): PropertyKey[] | null {
  const found = findUnusableText({ same, each });
  if (!found) return null;
  const [kind, field, ...rest] = found;
  return kind === 'same' ? [list, 0, field!, ...rest] : [list, rest[0]!, field!, ...rest.slice(1)];
}
