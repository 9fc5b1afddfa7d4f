import { z } from 'zod';

/** Any of the fields of an object, none of them filled in when it is not said. */
export function anyOf<Shape extends z.ZodRawShape>(object: z.ZodObject<Shape>) {
  const bare = Object.entries(object.shape).map(([key, schema]) => [
    key,
    (schema instanceof z.ZodDefault ? schema.unwrap() : schema) as z.ZodType,
  ]);
  return z.strictObject(Object.fromEntries(bare)).partial() as unknown as z.ZodType<
    Partial<z.infer<z.ZodObject<Shape>>>
  >;
}
