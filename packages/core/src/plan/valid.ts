import type { Activity, Plan } from './schema';

/**
 * Whether what a plan says of its own parts holds together: every reference is one activity's, groups hold without
 * circles, links join activities, and calendars, code fields and resources that are named are there.
 *
 * @returns the first fault in words, with the name of what it is about; null where there is none
 */
export function planFault(plan: Plan): string | null {
  const places = new Map<string, number>();
  for (const [i, { ref }] of plan.activities.entries()) {
    if (places.has(ref)) return `The reference “${ref}” stands twice.`;
    places.set(ref, i);
  }
  const calendars = new Set(plan.calendars.map((c) => c.id));
  const fields = new Set(plan.codeFields.map((f) => f.id));
  const resources = new Set(plan.resources.map((r) => r.id));
  if (!calendars.has(plan.calendar)) return `The plan’s own calendar “${plan.calendar}” is not in it (any more).`;
  for (const r of plan.resources)
    if (r.calendar !== null && !calendars.has(r.calendar))
      return `The calendar “${r.calendar}” of the resource “${r.name}” is not in the plan (any more).`;
  for (const a of plan.activities) {
    if (a.parent !== null && !places.has(a.parent)) return `The group “${a.parent}” ${missing(a)}`;
    if (a.calendar !== null && !calendars.has(a.calendar)) return `The calendar “${a.calendar}” ${missing(a)}`;
    for (const id in a.codes) if (!fields.has(id)) return `The code field “${id}” ${missing(a)}`;
    for (const { resource } of a.assignments)
      if (!resources.has(resource)) return `The resource “${resource}” ${missing(a)}`;
  }
  for (const { from, to } of plan.links)
    for (const end of [from, to])
      if (!places.has(end))
        return `The link ${from} → ${to} needs activity “${end}”, which is not in the plan (any more).`;
  return circle(plan.activities, places);
}

const missing = ({ ref }: Activity): string => `of activity “${ref}” is not in the plan (any more).`;

/** What is held by itself, by way of others. */
function circle(activities: readonly Activity[], places: ReadonlyMap<string, number>): string | null {
  // The walk on which each was first met: who meets their own walk again has gone around.
  const walk = new Int32Array(activities.length);
  for (let start = 0; start < activities.length; start++) {
    let at = start;
    while (walk[at] === 0) {
      walk[at] = start + 1;
      const { parent } = activities[at]!;
      if (parent === null) break;
      const above = places.get(parent)!;
      if (walk[above] === start + 1) return `Activity “${parent}” would be in a group that is in itself.`;
      at = above;
    }
  }
  return null;
}

/** Whether a change is of anything that {@link planFault} looks at. */
export function isAboutParts(before: Plan, after: Plan): boolean {
  const of = ['links', 'calendars', 'calendar', 'codeFields', 'resources'] as const;
  if (of.some((part) => before[part] !== after[part])) return true;
  if (before.activities === after.activities) return false;
  if (before.activities.length !== after.activities.length) return true;
  return after.activities.some((a, i) => {
    const b = before.activities[i]!;
    const isSame =
      a.ref === b.ref &&
      a.parent === b.parent &&
      a.calendar === b.calendar &&
      a.codes === b.codes &&
      a.assignments === b.assignments;
    return a !== b && !isSame;
  });
}
