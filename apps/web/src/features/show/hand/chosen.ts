/** What is chosen on a page: things by their references, a note, or a lane. */
export type Chosen =
  | { kind: 'things'; refs: string[] }
  | { kind: 'note'; id: string }
  | { kind: 'lane'; codes: string[] }
  | null;

export const thing = (ref: string | null): Chosen => (ref === null ? null : { kind: 'things', refs: [ref] });

/** One more thing, or one less where it was chosen. */
export function toggled(chosen: Chosen, ref: string): Chosen {
  if (chosen?.kind !== 'things') return thing(ref);
  const refs = chosen.refs.includes(ref) ? chosen.refs.filter((r) => r !== ref) : [...chosen.refs, ref];
  return refs.length === 0 ? null : { kind: 'things', refs };
}

export const sameLane = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((code, k) => code === b[k]);
