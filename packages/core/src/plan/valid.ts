import type { Activity, Link, Plan } from './schema';

/** What the parts of a plan may name, each known in one step. */
export interface Names {
  calendars: ReadonlySet<string>;
  fields: ReadonlySet<string>;
  resources: ReadonlySet<string>;
  has: (ref: string) => boolean;
}

export const namesOf = (
  plan: Pick<Plan, 'calendars' | 'codeFields' | 'resources'>,
  has: (ref: string) => boolean,
): Names => ({
  calendars: new Set(plan.calendars.map((c) => c.id)),
  fields: new Set(plan.codeFields.map((f) => f.id)),
  resources: new Set(plan.resources.map((r) => r.id)),
  has,
});

type Naming = Pick<Activity, 'ref' | 'parent' | 'calendar' | 'codes' | 'assignments'>;
/** What {@link planFault} looks at. */
export type Parts = Pick<
  Plan,
  'calendars' | 'calendar' | 'codeFields' | 'resources' | 'links' | 'matches' | 'elementCodes'
> & { activities: readonly Naming[] };

/**
 * Whether what a plan says of its own parts holds together: every reference is one activity's, groups hold without
 * circles, links join activities, elements are matched to activities, and calendars, code fields and resources that
 * are named are there.
 *
 * @returns the first fault in words, with the name of what it is about; null where there is none
 */
export function planFault(plan: Parts): string | null {
  const above = new Map<string, string | null>();
  for (const { ref, parent } of plan.activities) {
    if (above.has(ref)) return `The reference “${ref}” stands twice.`;
    above.set(ref, parent);
  }
  const names = namesOf(plan, (ref) => above.has(ref));
  if (!names.calendars.has(plan.calendar)) return `The plan’s own calendar “${plan.calendar}” is not in it (any more).`;
  for (const r of plan.resources)
    if (r.calendar !== null && !names.calendars.has(r.calendar))
      return `The calendar “${r.calendar}” of the resource “${r.name}” is not in the plan (any more).`;
  for (const a of plan.activities) {
    const fault = activityFault(a, names);
    if (fault !== null) return fault;
  }
  for (const link of plan.links) {
    const fault = linkFault(link, names);
    if (fault !== null) return fault;
  }
  for (const { activity } of plan.matches)
    if (!above.has(activity))
      return `Elements are matched to activity “${activity}”, which is not in the plan (any more).`;
  for (const { field } of plan.elementCodes)
    if (!names.fields.has(field))
      return `Elements have codes of the field “${field}”, which is not in the plan (any more).`;
  return circleAbove(above.keys(), (ref) => above.get(ref) ?? null);
}

/** What an activity names that is not there. */
export function activityFault(a: Naming, names: Names): string | null {
  const missing = (what: string) => `The ${what} of activity “${a.ref}” is not in the plan (any more).`;
  if (a.parent !== null && !names.has(a.parent)) return missing(`group “${a.parent}”`);
  if (a.calendar !== null && !names.calendars.has(a.calendar)) return missing(`calendar “${a.calendar}”`);
  for (const id in a.codes) if (!names.fields.has(id)) return missing(`code field “${id}”`);
  for (const { resource } of a.assignments)
    if (!names.resources.has(resource)) return missing(`resource “${resource}”`);
  return null;
}

/** The end of a link that is not there. */
export function linkFault({ from, to }: Link, names: Names): string | null {
  const end = names.has(from) ? to : from;
  return names.has(end)
    ? null
    : `The link ${from} → ${to} needs activity “${end}”, which is not in the plan (any more).`;
}

/** A group that is held by itself, by way of others, above any of some activities. */
export function circleAbove(refs: Iterable<string>, parentOf: (ref: string) => string | null): string | null {
  // The walk on which each was first met: one that meets itself again has gone around.
  const met = new Map<string, number>();
  let walk = 0;
  for (const ref of refs) {
    walk++;
    for (let at: string | null = ref; at !== null; at = parentOf(at)) {
      const before = met.get(at);
      if (before === walk) return `Activity “${at}” would be in a group that is in itself.`;
      if (before !== undefined) break;
      met.set(at, walk);
    }
  }
  return null;
}

/** Whether a change is of anything that {@link planFault} looks at. */
export function isAboutParts(before: Plan, after: Plan): boolean {
  const of = ['links', 'calendars', 'calendar', 'codeFields', 'resources', 'matches', 'elementCodes'] as const;
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
