import type { Activity, Link, Plan } from '../plan/schema';

/** What differs between two editions of one activity, field by field. Moments and minutes as in the plan. */
export type FieldChange = { [K in keyof Activity]: { field: K; from: Activity[K]; to: Activity[K] } }[keyof Activity];

/** What differs in the plan itself: its name, calendars, status date, code books and settings. */
export type PlanFields = Omit<Plan, 'activities' | 'links'>;
export type PlanChange = {
  [K in keyof PlanFields]: { field: K; from: PlanFields[K]; to: PlanFields[K] };
}[keyof PlanFields];

/** What a change is to its reader. */
export type ChangeKind = 'renamed' | 'moved' | 'resized' | 'recoded' | 'progressed' | 'reordered' | 'other';

/**
 * The changes list between two editions: what to add, remove and change so that the first becomes the second.
 * Activities are matched by unique reference.
 */
export interface Changes {
  added: { activity: Activity; position: number }[];
  removed: { activity: Activity; position: number }[];
  changed: { ref: string; kinds: ChangeKind[]; fields: FieldChange[] }[];
  linksAdded: { link: Link; position: number }[];
  linksRemoved: { link: Link; position: number }[];
  /** References in their new order, when the order of what stays has changed; else null. */
  order: { from: string[]; to: string[] } | null;
  plan: PlanChange[];
}

const KIND_OF: Partial<Record<keyof Activity, ChangeKind>> = {
  name: 'renamed',
  start: 'moved',
  finish: 'moved',
  duration: 'resized',
  codes: 'recoded',
  actualStart: 'progressed',
  actualFinish: 'progressed',
  percent: 'progressed',
  remaining: 'progressed',
  actualEffort: 'progressed',
  actualCost: 'progressed',
};

/** Compares two editions. Comparing an edition with itself gives nothing. */
export function compareEditions(before: Plan, after: Plan): Changes {
  const old = new Map(before.activities.map((a, position) => [a.ref, { activity: a, position }]));
  const now = new Map(after.activities.map((a, position) => [a.ref, { activity: a, position }]));
  const changes: Changes = {
    added: [],
    removed: [],
    changed: [],
    linksAdded: [],
    linksRemoved: [],
    order: null,
    plan: planChanges(before, after),
  };
  for (const entry of now.values()) {
    const had = old.get(entry.activity.ref);
    if (!had) changes.added.push(entry);
    else {
      const fields = fieldChanges(had.activity, entry.activity);
      if (fields.length > 0) changes.changed.push({ ref: entry.activity.ref, kinds: kindsOf(fields), fields });
    }
  }
  for (const entry of old.values()) if (!now.has(entry.activity.ref)) changes.removed.push(entry);
  compareLinks(before.links, after.links, changes);
  const stays = (list: Activity[], other: Map<string, unknown>) =>
    list.filter((a) => other.has(a.ref)).map((a) => a.ref);
  const [from, to] = [stays(before.activities, now), stays(after.activities, old)];
  if (from.some((ref, i) => ref !== to[i]))
    changes.order = { from: before.activities.map((a) => a.ref), to: after.activities.map((a) => a.ref) };
  return changes;
}

/** True when nothing differs. */
export const isSame = (c: Changes): boolean =>
  c.added.length + c.removed.length + c.changed.length + c.linksAdded.length + c.linksRemoved.length + c.plan.length ===
    0 && c.order === null;

function planChanges(
  { activities: _, links: __, ...before }: Plan,
  { activities: ___, links: ____, ...after }: Plan,
): PlanChange[] {
  return (Object.keys(after) as (keyof PlanFields)[]).flatMap((field) =>
    sameValue(before[field], after[field]) ? [] : [{ field, from: before[field], to: after[field] } as PlanChange],
  );
}

function fieldChanges(a: Activity, b: Activity): FieldChange[] {
  const fields: FieldChange[] = [];
  for (const field of Object.keys(b) as (keyof Activity)[]) {
    if (!sameValue(a[field], b[field])) fields.push({ field, from: a[field], to: b[field] } as FieldChange);
  }
  return fields;
}

/** True for values that say the same, however they are held. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const [keysA, keysB] = [Object.keys(a), Object.keys(b)];
  return (
    keysA.length === keysB.length &&
    keysA.every((k) => sameValue((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]))
  );
}

const kindsOf = (fields: FieldChange[]): ChangeKind[] => [...new Set(fields.map((f) => KIND_OF[f.field] ?? 'other'))];

const linkKey = (l: Link): string => JSON.stringify([l.from, l.to, l.type, l.lag, l.lagCalendar]);

/** Links are told apart by all they say; the same link twice counts twice. */
function compareLinks(before: Link[], after: Link[], changes: Changes): void {
  const left = new Map<string, number[]>();
  before.forEach((l, position) => {
    const key = linkKey(l);
    const list = left.get(key);
    if (list) list.push(position);
    else left.set(key, [position]);
  });
  after.forEach((link, position) => {
    if (left.get(linkKey(link))?.shift() === undefined) changes.linksAdded.push({ link, position });
  });
  for (const position of [...left.values()].flat().sort((a, b) => a - b))
    changes.linksRemoved.push({ link: before[position]!, position });
}

/**
 * Applies a changes list to the edition that it was made from, and gives the other one: activities and links are
 * those of the other edition, in its order, and so is all that the plan itself says.
 * @throws RangeError when the list does not fit the edition
 */
export function applyChanges(plan: Plan, changes: Changes): Plan {
  const gone = new Set(changes.removed.map((r) => r.activity.ref));
  const changed = new Map(changes.changed.map((c) => [c.ref, c.fields]));
  const present = new Set(plan.activities.map((a) => a.ref));
  for (const ref of [...gone, ...changed.keys()])
    if (!present.has(ref)) throw new RangeError(`the changes list is about ${ref}, which is not in the plan`);
  for (const { activity } of changes.added)
    if (present.has(activity.ref) && !gone.has(activity.ref))
      throw new RangeError(`${activity.ref} would be added, but is in the plan already`);
  const stays = plan.activities
    .filter((a) => !gone.has(a.ref))
    .map((a) => {
      const fields = changed.get(a.ref);
      return fields ? { ...a, ...Object.fromEntries(fields.map((f) => [f.field, f.to])) } : a;
    });
  let activities = insertAt(
    stays,
    changes.added.map((x) => [x.position, x.activity]),
  );
  if (changes.order) {
    const byRef = new Map(activities.map((a) => [a.ref, a]));
    activities = changes.order.to.map((ref) => byRef.get(ref)!);
  }
  const linksGone = new Set(changes.linksRemoved.map((l) => l.position));
  const linksStay = plan.links.filter((_, i) => !linksGone.has(i));
  return {
    ...plan,
    ...Object.fromEntries(changes.plan.map((p) => [p.field, p.to])),
    activities,
    links: insertAt(
      linksStay,
      changes.linksAdded.map((x) => [x.position, x.link]),
    ),
  };
}

/** Puts items at the positions that they have in the result. */
function insertAt<T>(list: T[], items: [position: number, item: T][]): T[] {
  const result: T[] = [];
  let next = 0;
  for (const [position, item] of [...items].sort((a, b) => a[0] - b[0])) {
    while (result.length < position && next < list.length) result.push(list[next++]!);
    result.push(item);
  }
  return [...result, ...list.slice(next)];
}

/** The changes list that leads back. */
export function invertChanges(c: Changes): Changes {
  return {
    added: c.removed,
    removed: c.added,
    changed: c.changed.map((x) => ({
      ...x,
      fields: x.fields.map((f) => ({ field: f.field, from: f.to, to: f.from }) as FieldChange),
    })),
    linksAdded: c.linksRemoved,
    linksRemoved: c.linksAdded,
    order: c.order && { from: c.order.to, to: c.order.from },
    plan: c.plan.map((p) => ({ field: p.field, from: p.to, to: p.from }) as PlanChange),
  };
}
