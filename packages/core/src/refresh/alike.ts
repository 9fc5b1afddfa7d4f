import type { Activity, Plan } from '../plan/schema';

/** Two rows of which one is gone and one is new, and which may be the same under another reference. */
export interface AlikePair {
  /** Reference that is gone at the source, and the one that is new there. */
  was: string;
  is: string;
  wasName: string;
  name: string;
}

const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/**
 * Finds what has another reference than before and looks the same: the same name under the same summary, where just
 * one such row is gone and one is new; else the same name anywhere, with the same dates or length. A person says
 * whether they are.
 */
export function alikePairs(base: Plan, incoming: Plan): AlikePair[] {
  const before = new Set(base.activities.map((a) => a.ref));
  const after = new Set(incoming.activities.map((a) => a.ref));
  let gone = base.activities.filter((a) => !after.has(a.ref));
  let fresh = incoming.activities.filter((a) => !before.has(a.ref));
  const pairs: AlikePair[] = [];
  const keys: ((a: Activity, plan: Plan) => string | null)[] = [
    (a, plan) => {
      const parent = plan.activities.find((p) => p.ref === a.parent);
      return a.name === '' ? null : `${a.kind === 'summary'} ${plain(parent?.name ?? '')} / ${plain(a.name)}`;
    },
    (a) => (a.name === '' ? null : `${a.kind === 'summary'} ${plain(a.name)}`),
    (a) => (a.start === null || a.finish === null ? null : `${a.start} ${a.finish} ${JSON.stringify(a.codes)}`),
  ];
  for (const key of keys) {
    const [old, now] = [single(gone, (a) => key(a, base)), single(fresh, (a) => key(a, incoming))];
    for (const [k, a] of now) {
      const had = old.get(k);
      if (had) pairs.push({ was: had.ref, is: a.ref, wasName: had.name, name: a.name });
    }
    const taken = new Set(pairs.flatMap((p) => [p.was, p.is]));
    gone = gone.filter((a) => !taken.has(a.ref));
    fresh = fresh.filter((a) => !taken.has(a.ref));
  }
  return pairs;
}

/** What stands once under its key. */
function single(list: readonly Activity[], key: (a: Activity) => string | null): Map<string, Activity> {
  const found = new Map<string, Activity | null>();
  for (const a of list) {
    const k = key(a);
    if (k !== null) found.set(k, found.has(k) ? null : a);
  }
  return new Map([...found].filter((entry): entry is [string, Activity] => entry[1] !== null));
}

/** A plan whose references are replaced where they are named, in activities, outline and links. */
export function withReferences(plan: Plan, named: ReadonlyMap<string, string>): Plan {
  if (named.size === 0) return plan;
  const now = (ref: string) => named.get(ref) ?? ref;
  return {
    ...plan,
    activities: plan.activities.map((a) => ({
      ...a,
      ref: now(a.ref),
      parent: a.parent === null ? null : now(a.parent),
    })),
    links: plan.links.map((l) => ({ ...l, from: now(l.from), to: now(l.to) })),
  };
}
