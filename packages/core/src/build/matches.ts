import type { Effect, ElementCode, ElementMatch } from './element';

/** Groups that share a key, in the order of their keys, each with its elements in their order and once. */
function grouped<Group extends { elements: string[] }>(groups: readonly Group[], keyOf: (g: Group) => string): Group[] {
  return groups
    .filter((g) => g.elements.length > 0)
    .map((g) => ({ g, key: keyOf(g) }))
    .sort((a, b) => (a.key < b.key ? -1 : 1))
    .map(({ g }) => g);
}

const matchKey = (m: { activity: string; effect: Effect }): string => `${m.activity}\n${m.effect}`;
const codeKey = (c: { field: string; code: string }): string => `${c.field}\n${c.code}`;

/**
 * Matches with more elements for an activity, in an order that does not depend on the order of what was done.
 * @returns also those elements that had not been matched so before
 */
export function matched(
  matches: readonly ElementMatch[],
  { activity, effect, elements }: ElementMatch,
): { matches: ElementMatch[]; added: string[] } {
  const key = matchKey({ activity, effect });
  const own = matches.find((m) => matchKey(m) === key);
  const known = new Set(own?.elements);
  const added = [...new Set(elements)].filter((e) => !known.has(e)).sort();
  const all = [...(own?.elements ?? []), ...added].sort();
  return {
    matches: grouped([...matches.filter((m) => m !== own), { activity, effect, elements: all }], matchKey),
    added,
  };
}

/**
 * Matches without some elements of an activity.
 * @returns also those elements that had been matched so
 */
export function unmatched(
  matches: readonly ElementMatch[],
  { activity, effect, elements }: ElementMatch,
): { matches: ElementMatch[]; removed: string[] } {
  const key = matchKey({ activity, effect });
  const wanted = new Set(elements);
  const removed: string[] = [];
  const left = matches.map((m) => {
    if (matchKey(m) !== key) return m;
    const [gone, stay] = [m.elements.filter((e) => wanted.has(e)), m.elements.filter((e) => !wanted.has(e))];
    removed.push(...gone);
    return { ...m, elements: stay };
  });
  return { matches: grouped(left, matchKey), removed };
}

/**
 * Codes of a field for elements; an empty code takes it away.
 * @returns also what these elements had before
 */
export function coded(
  codes: readonly ElementCode[],
  field: string,
  given: readonly (readonly [ref: string, code: string])[],
): { codes: ElementCode[]; before: [string, string][] } {
  const wanted = new Map(given);
  const before = new Map([...wanted.keys()].map((ref): [string, string] => [ref, '']));
  const groups = new Map<string, string[]>();
  for (const c of codes)
    if (c.field === field)
      groups.set(
        c.code,
        c.elements.filter((ref) => {
          if (!wanted.has(ref)) return true;
          before.set(ref, c.code);
          return false;
        }),
      );
  for (const [ref, code] of wanted) {
    if (code === '') continue;
    const own = groups.get(code);
    if (own) own.push(ref);
    else groups.set(code, [ref]);
  }
  const own = [...groups].map(([code, elements]) => ({ field, code, elements: [...elements].sort() }));
  return {
    codes: grouped([...codes.filter((c) => c.field !== field), ...own], codeKey),
    before: [...before],
  };
}
