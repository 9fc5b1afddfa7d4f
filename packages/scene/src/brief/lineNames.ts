import type { Plan } from '@clembo/core';
import type { LinearBrief } from './linear';

/** More works than these are not named one by one. */
const MOST_NAMED = 16;

/**
 * How the works of a line are best named: each, once for all of one name where the same ones come again and again (the
 * floors of a building), else by their groups.
 */
export function namesAlong(plan: Plan, line: string | null): LinearBrief['names'] {
  const own = line ?? plan.lines[0]?.id ?? null;
  const works = plan.activities.filter(
    (a) => a.from !== null && a.to !== null && a.from !== a.to && (a.line ?? plan.lines[0]?.id ?? null) === own,
  );
  if (works.length <= MOST_NAMED) return 'each';
  return works.length >= 3 * new Set(works.map((a) => a.name)).size ? 'alike' : 'group';
}
