import type { Activity, Plan } from '../plan/schema';

/** Which activities of two editions are the same, found by a key, where the source gives no unique references. */
export interface Matching {
  /** Reference in the earlier edition by reference in the later one. */
  earlier: Map<string, string>;
  /** Activities whose key stands for several in either edition: a person has to say which is which. */
  doubtful: { key: string; before: string[]; after: string[] }[];
}

/**
 * Matches activities whose key stands exactly once in both editions. Summaries match summaries only.
 *
 * @param keyOf what tells activities apart, such as name and a code; an empty key matches nothing
 * @param settled pairs that a person has settled, as references in the later and in the earlier edition
 */
export function matchByKey(
  before: Plan,
  after: Plan,
  keyOf: (activity: Activity) => string,
  settled: ReadonlyMap<string, string> = new Map(),
): Matching {
  const earlier = new Map(settled);
  const taken = new Set(settled.values());
  const old = byKey(before, keyOf, (ref) => !taken.has(ref));
  const now = byKey(after, keyOf, (ref) => !earlier.has(ref));
  const doubtful: Matching['doubtful'] = [];
  for (const [key, refs] of now) {
    const had = old.get(key);
    if (!had) continue;
    if (had.refs.length === 1 && refs.refs.length === 1) earlier.set(refs.refs[0]!, had.refs[0]!);
    else doubtful.push({ key: refs.key, before: had.refs, after: refs.refs });
  }
  return { earlier, doubtful };
}

function byKey(
  plan: Plan,
  keyOf: (activity: Activity) => string,
  counts: (ref: string) => boolean,
): Map<string, { key: string; refs: string[] }> {
  const found = new Map<string, { key: string; refs: string[] }>();
  for (const a of plan.activities) {
    const key = keyOf(a).trim();
    if (key === '' || !counts(a.ref)) continue;
    const told = `${a.kind === 'summary'} ${key.toLowerCase()}`;
    const entry = found.get(told);
    if (entry) entry.refs.push(a.ref);
    else found.set(told, { key, refs: [a.ref] });
  }
  return found;
}

/** A key of the name and the values of code fields, by the ids of the fields; `name` stands for the name. */
export const keyOfFields =
  (fields: readonly string[]) =>
  (a: Activity): string => {
    const values = fields.map((f) => (f === 'name' ? a.name : (a.codes[f] ?? '')).trim());
    return values.every((v) => v === '') ? '' : values.join(' · ');
  };

/**
 * The later edition with the references of the earlier one, in activities, parents and links, so that the two can
 * be compared. What has no match keeps its reference, or gets one of its own where the earlier edition uses it
 * for something else.
 */
export function withEarlierReferences(before: Plan, after: Plan, { earlier }: Matching): Plan {
  const used = new Set([...before.activities.map((a) => a.ref), ...earlier.values()]);
  const given = new Map(earlier);
  for (const { ref } of after.activities) {
    if (given.has(ref)) continue;
    let fresh = ref;
    for (let k = 2; used.has(fresh); k++) fresh = `${ref} (${k})`;
    used.add(fresh);
    given.set(ref, fresh);
  }
  const now = (ref: string) => given.get(ref) ?? ref;
  return {
    ...after,
    activities: after.activities.map((a) => ({
      ...a,
      ref: now(a.ref),
      parent: a.parent === null ? null : now(a.parent),
    })),
    links: after.links.map((l) => ({ ...l, from: now(l.from), to: now(l.to) })),
  };
}
