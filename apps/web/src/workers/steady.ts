/**
 * What came anew from a worker, with the parts that are as they were before: screens compare parts by what they are, and
 * draw again only what has changed.
 */
export function steady<T extends object>(before: T | null, after: T): T {
  if (!before) return after;
  const made = { ...after };
  for (const key of Object.keys(made) as (keyof T)[]) {
    const [was, is] = [before[key], made[key]];
    if (typeof is === 'object' && is !== null && JSON.stringify(was) === JSON.stringify(is)) made[key] = was;
  }
  return made;
}
