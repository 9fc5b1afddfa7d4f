import { lowered } from '../plan/text';

/**
 * Names in their order, those that are alike told apart, also from names that are taken: `Zone`, `Zone (2)`. Capital
 * letters do not tell names apart.
 */
export function toldApart(names: readonly string[], taken: Iterable<string> = []): string[] {
  const used = new Set([...taken].map(lowered));
  return names.map((name) => {
    let own = name;
    for (let k = 2; used.has(lowered(own)); k++) own = `${name} (${k})`;
    used.add(lowered(own));
    return own;
  });
}
