import type { ElementCode, ElementMatch } from './element';

/** Groups that share a key, in the order of their keys, each with its elements in their order and once. */
function grouped<Group extends { elements: string[] }>(groups: readonly Group[], keyOf: (g: Group) => string): Group[] {
  return groups
    .filter((g) => g.elements.length > 0)
    .map((g) => ({ g, key: keyOf(g) }))
    .sort((a, b) => (a.key < b.key ? -1 : 1))
    .map(({ g }) => g);
}

/** What a group of matches is known by. */
export const matchKey = (m: Pick<ElementMatch, 'activity' | 'effect'>): string => `${m.activity}\n${m.effect}`;
const codeKey = (c: ElementCode): string => `${c.field}\n${c.code}`;

/** The same groups with those of one key as one, in their order; the very list where it is so already. */
function merged<G extends { elements: string[] }>(groups: readonly G[], keyOf: (g: G) => string): G[] {
  const isSorted = (list: readonly string[]) => list.every((x, i) => i === 0 || list[i - 1]! < x);
  const keys = groups.map(keyOf);
  if (isSorted(keys) && groups.every((g) => isSorted(g.elements))) return groups as G[];
  const found = new Map<string, { group: G; elements: Set<string> }>();
  groups.forEach((group, i) => {
    const own = found.get(keys[i]!);
    if (own) for (const e of group.elements) own.elements.add(e);
    else found.set(keys[i]!, { group, elements: new Set(group.elements) });
  });
  const all = [...found.values()].map(({ group, elements }) => ({ ...group, elements: [...elements].sort() }));
  return grouped(all, keyOf);
}

/** Matches as a plan keeps them: one group for each activity and effect, however they came. */
export const mergedMatches = (matches: readonly ElementMatch[]): ElementMatch[] => merged(matches, matchKey);
/** Codes of elements as a plan keeps them: one group for each value of a field. */
export const mergedCodes = (codes: readonly ElementCode[]): ElementCode[] => merged(codes, codeKey);

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
