import { WorkingTime } from '../calendar/workingTime';
import { sameValue } from '../compare/changes';
import { type Activity, type CodeField, type Link, makeValue, type Plan } from '../plan/schema';
import { dayOf } from '../time/civil';

/** What a change at the source is to its reader. */
export const SOURCE_CHANGE_KINDS = [
  'added',
  'removed',
  'renamed',
  'moved',
  'resized',
  'progressed',
  'recoded',
  'relinked',
  'outlined',
  'other',
] as const;
export type SourceChangeKind = (typeof SOURCE_CHANGE_KINDS)[number];

export type ActivityField = Exclude<keyof Activity, 'ref'>;

/** A field that the source states otherwise than last time. */
export interface SourceFieldChange {
  field: ActivityField;
  /** As it stood in the source, and as it stands there now. */
  from: unknown;
  to: unknown;
}

/** Start and finish of an activity, as moments. */
export type DatePair = Pick<Activity, 'start' | 'finish'>;

/** One thing that has changed at the source since it was last read: accepted or refused as a whole. */
export interface SourceChange {
  /** The same for the same change, in whichever order the list stands. */
  id: string;
  kind: SourceChangeKind;
  ref: string;
  name: string;
  fields: SourceFieldChange[];
  /** Working days by which start and finish have moved, in the activity's calendar; null where one side is missing. */
  startDays: number | null;
  finishDays: number | null;
  linksAdded: Link[];
  linksRemoved: Link[];
  /** The activity as it comes or goes. */
  activity: Activity | null;
  /** For one that has moved, its dates as they stand here and as they are at the source. */
  moved: { from: DatePair; to: DatePair } | null;
  /** The reference behind which a new activity stands; null at the beginning. */
  after: string | null;
  /** What was changed here by hand meanwhile, and would be overwritten. */
  byHand: ActivityField[];
}

const KIND_OF: Partial<Record<ActivityField, SourceChangeKind>> = {
  name: 'renamed',
  start: 'moved',
  finish: 'moved',
  said: 'moved',
  promised: 'moved',
  duration: 'resized',
  actualStart: 'progressed',
  actualFinish: 'progressed',
  percent: 'progressed',
  remaining: 'progressed',
  actualEffort: 'progressed',
  actualCost: 'progressed',
  onHold: 'progressed',
  codes: 'recoded',
  parent: 'outlined',
  kind: 'outlined',
};

/**
 * What has changed at the source between two readings of it, as far as it is not so in the plan already. Whatever the
 * source has not changed stays as it is in the plan, by whomever it was made; so what was refused once comes back only
 * when the source changes it again.
 *
 * @param base the source as it was last read, with the plan's references
 * @param incoming the source as it is read now, with the plan's references
 */
export function sourceChanges(base: Plan, incoming: Plan, current: Plan): SourceChange[] {
  const was = new Map(base.activities.map((a) => [a.ref, a]));
  const is = new Map(incoming.activities.map((a) => [a.ref, a]));
  const now = new Map(current.activities.map((a) => [a.ref, a]));
  const time = workingTimes(current, incoming);
  const links = linkChanges(base.links, incoming.links, current.links);
  const list: SourceChange[] = [];
  let after: string | null = null;
  for (const a of incoming.activities) {
    const old = was.get(a.ref);
    const here = now.get(a.ref);
    const own = links.get(a.ref) ?? { added: [], removed: [] };
    if (!here) {
      // What is in the plan no more though the source had it was taken out here.
      if (!old) list.push({ ...blank('added', a), activity: a, after, linksAdded: own.added });
    } else {
      // Made here under the reference that the source now uses: what differs is said.
      list.push(...fieldChanges(old ?? here, a, here, time));
      if (own.added.length + own.removed.length > 0)
        list.push({ ...blank('relinked', a), linksAdded: own.added, linksRemoved: own.removed });
    }
    if (here || !old) after = a.ref;
  }
  for (const a of base.activities) {
    const here = now.get(a.ref);
    if (here && !is.has(a.ref)) list.push({ ...blank('removed', here), activity: here });
  }
  return list;
}

const blank = (kind: SourceChangeKind, { ref, name }: Activity): SourceChange => ({
  id: `${kind} ${ref}`,
  kind,
  ref,
  name,
  fields: [],
  startDays: null,
  finishDays: null,
  linksAdded: [],
  linksRemoved: [],
  activity: null,
  moved: null,
  after: null,
  byHand: [],
});

function fieldChanges(old: Activity, next: Activity, here: Activity, time: Times): SourceChange[] {
  const byKind = new Map<SourceChangeKind, SourceChange>();
  for (const field of Object.keys(next) as (keyof Activity)[]) {
    if (field === 'ref' || sameValue(old[field], next[field])) continue;
    const to = field === 'codes' ? mergedCodes(old.codes, next.codes, here.codes) : next[field];
    // It is so here already: typed in by hand, or accepted from elsewhere.
    if (sameValue(here[field], to)) continue;
    const kind = KIND_OF[field] ?? 'other';
    const change = byKind.get(kind) ?? { ...blank(kind, here) };
    byKind.set(kind, change);
    change.fields.push({ field, from: here[field], to });
    if (!sameValue(here[field], old[field]) && field !== 'codes') change.byHand.push(field);
  }
  const moved = byKind.get('moved');
  if (moved) {
    moved.moved = { from: { start: here.start, finish: here.finish }, to: { start: next.start, finish: next.finish } };
    moved.startDays = time.days(next, here.start, next.start);
    moved.finishDays = time.days(next, here.finish, next.finish);
  }
  return [...byKind.values()];
}

/** Code values with what the source has changed of them; those of fields that it does not have stay. */
function mergedCodes(old: Activity['codes'], next: Activity['codes'], here: Activity['codes']): Activity['codes'] {
  const merged = { ...here };
  for (const field of new Set([...Object.keys(old), ...Object.keys(next)])) {
    if (old[field] === next[field]) continue;
    if (next[field] === undefined) delete merged[field];
    else merged[field] = next[field];
  }
  return merged;
}

interface Times {
  days(a: Activity, from: number | null, to: number | null): number | null;
}

function workingTimes(current: Plan, incoming: Plan): Times {
  const specs = [...current.calendars, ...incoming.calendars];
  const times = new Map<string, WorkingTime>();
  const timeOf = (id: string): WorkingTime => {
    let time = times.get(id);
    if (!time) {
      const spec = specs.find((c) => c.id === id) ?? specs[0]!;
      time = new WorkingTime(spec, 'day', dayOf(current.activities.find((a) => a.start !== null)?.start ?? 0));
      times.set(id, time);
    }
    return time;
  };
  return {
    days(a, from, to) {
      if (from === null || to === null) return null;
      const time = timeOf(a.calendar ?? current.calendar);
      const day = (m: number) => Math.ceil(m / 1440);
      return from <= to ? time.between(day(from), day(to)) : -time.between(day(to), day(from));
    },
  };
}

const linkKey = (l: Link): string => JSON.stringify([l.from, l.to, l.type, l.lag, l.lagCalendar]);

/** Links that the source has now or no more, by the activity that they lead to, as far as the plan differs. */
function linkChanges(
  base: readonly Link[],
  incoming: readonly Link[],
  current: readonly Link[],
): Map<string, { added: Link[]; removed: Link[] }> {
  const [was, is, here] = [base, incoming, current].map((list) => new Set(list.map(linkKey))) as [
    Set<string>,
    Set<string>,
    Set<string>,
  ];
  const changes = new Map<string, { added: Link[]; removed: Link[] }>();
  const of = (ref: string) => {
    const known = changes.get(ref) ?? { added: [], removed: [] };
    changes.set(ref, known);
    return known;
  };
  for (const l of incoming) if (!was.has(linkKey(l)) && !here.has(linkKey(l))) of(l.to).added.push(l);
  for (const l of base) if (!is.has(linkKey(l)) && here.has(linkKey(l))) of(l.to).removed.push(l);
  return changes;
}

/**
 * The plan with the changes that were accepted. New activities stand behind the one that they stand behind at the
 * source; of what goes, what it held goes up, and its links and matches go with it; code books get the values that are
 * new, and calendars and resources come that new work names.
 */
export function acceptSourceChanges(current: Plan, incoming: Plan, accepted: readonly SourceChange[]): Plan {
  const gone = new Set(accepted.filter((c) => c.kind === 'removed').map((c) => c.ref));
  const fields = new Map<string, Record<string, unknown>>();
  for (const c of accepted)
    if (c.fields.length > 0)
      fields.set(c.ref, { ...fields.get(c.ref), ...Object.fromEntries(c.fields.map((f) => [f.field, f.to])) });
  const parentOf = new Map(current.activities.map((a) => [a.ref, a.parent]));
  const held = (parent: string | null): string | null => {
    let at = parent;
    while (at !== null && gone.has(at)) at = parentOf.get(at) ?? null;
    return at;
  };
  let activities = current.activities
    .filter((a) => !gone.has(a.ref))
    .map((a): Activity => {
      const own = fields.get(a.ref);
      const next = own ? ({ ...a, ...own } as Activity) : a;
      const parent = held(next.parent);
      return parent === next.parent ? next : { ...next, parent };
    });
  activities = withAdded(
    activities,
    accepted.filter((c) => c.kind === 'added'),
  );
  const there = new Set(activities.map((a) => a.ref));
  activities = activities.map((a) =>
    a.parent === null || (there.has(a.parent) && a.parent !== a.ref) ? a : { ...a, parent: null },
  );
  const linksGone = new Set(accepted.flatMap((c) => c.linksRemoved.map(linkKey)));
  const links = [
    ...current.links.filter((l) => there.has(l.from) && there.has(l.to) && !linksGone.has(linkKey(l))),
    ...accepted.flatMap((c) => c.linksAdded).filter((l) => there.has(l.from) && there.has(l.to)),
  ];
  const calendars = [
    ...current.calendars,
    ...incoming.calendars.filter(
      (c) => !current.calendars.some((x) => x.id === c.id) && activities.some((a) => a.calendar === c.id),
    ),
  ];
  const working = new Set(activities.flatMap((a) => a.assignments.map((x) => x.resource)));
  const known = new Set(current.resources.map((r) => r.id));
  const resources = incoming.resources.filter((r) => working.has(r.id) && !known.has(r.id));
  return {
    ...current,
    activities,
    links,
    calendars,
    resources: resources.length === 0 ? current.resources : [...current.resources, ...resources],
    matches: current.matches.every((m) => there.has(m.activity))
      ? current.matches
      : current.matches.filter((m) => there.has(m.activity)),
    inHours: current.inHours || (incoming.inHours && accepted.length > 0),
    codeFields: withValues(current.codeFields, incoming.codeFields, activities),
  };
}

function withAdded(activities: Activity[], added: readonly SourceChange[]): Activity[] {
  if (added.length === 0) return activities;
  const behind = new Map<string | null, Activity[]>();
  const coming = new Set(added.map((c) => c.ref));
  const there = new Set(activities.map((a) => a.ref));
  let last: string | null = null;
  for (const c of added) {
    // Behind one that is not there, it stands behind the last one that is.
    const after: string | null = c.after === null || there.has(c.after) || coming.has(c.after) ? c.after : last;
    behind.set(after, [...(behind.get(after) ?? []), c.activity!]);
    last = c.ref;
  }
  const result: Activity[] = [];
  const put = (a: Activity) => {
    result.push(a);
    for (const next of behind.get(a.ref) ?? []) put(next);
  };
  for (const a of behind.get(null) ?? []) put(a);
  for (const a of activities) put(a);
  return result;
}

/** Code books with the fields and values that activities now use and that were not there. */
function withValues(
  own: readonly CodeField[],
  incoming: readonly CodeField[],
  activities: readonly Activity[],
): CodeField[] {
  const used = new Map<string, Set<string>>();
  for (const a of activities)
    for (const [field, code] of Object.entries(a.codes)) {
      const values = used.get(field) ?? new Set<string>();
      used.set(field, values.add(code));
    }
  const fields = own.map((f) => {
    const known = new Set(f.values.map((v) => v.code));
    const fresh = [...(used.get(f.id) ?? [])].filter((code) => !known.has(code));
    return fresh.length === 0 ? f : { ...f, values: [...f.values, ...fresh.map((code) => makeValue({ code }))] };
  });
  const others = incoming.filter((f) => !own.some((x) => x.id === f.id) && used.has(f.id));
  return [...fields, ...others];
}
