import { fieldType, valueText } from '../select/fields';
import type { BuildElement, ElementCode } from './element';
import { elementReader } from './elementFields';

/** What a pasted table says of the codes of elements. */
export interface PastedElementCodes {
  codes: [ref: string, code: string][];
  /** What stands in the first row in place of a key, where that is of no element: read as a heading. */
  heading: string | null;
  /** Keys that no element has, and keys that stand in the table with several codes. */
  unknown: string[];
  twofold: string[];
}

/**
 * Reads codes of elements from a table of two columns and more: a key that elements have, and the code, in whichever
 * of the columns either stands. Rows are in any order; where a key means several elements, all get the code.
 *
 * @param key the id of the field of elements that the key is
 */
export function pastedElementCodes(
  elements: readonly BuildElement[],
  codes: readonly ElementCode[],
  key: string,
  table: readonly (readonly string[])[],
): PastedElementCodes {
  const read = elementReader(elements, codes, key);
  const by = new Map<string, string[]>();
  if (read)
    elements.forEach((e, i) => {
      const text = valueText(read(i), fieldType(key)).trim().toLowerCase();
      if (text === '') return;
      const own = by.get(text);
      if (own) own.push(e.ref);
      else by.set(text, [e.ref]);
    });
  const width = Math.max(0, ...table.map((row) => row.length));
  const hits = Array.from({ length: width }, (_, c) =>
    table.reduce((n, row) => n + (by.has((row[c] ?? '').trim().toLowerCase()) ? 1 : 0), 0),
  );
  const keyAt = hits.indexOf(Math.max(...hits, 0));
  const codeAt = Array.from({ length: width }, (_, c) => c).find((c) => c !== keyAt) ?? -1;
  const found = new Map<string, string>();
  let heading: string | null = null;
  const [unknown, twofold] = [new Set<string>(), new Set<string>()];
  table.forEach((row, r) => {
    const said = (row[keyAt] ?? '').trim();
    const code = codeAt < 0 ? '' : (row[codeAt] ?? '').trim();
    if (said === '') return;
    const refs = by.get(said.toLowerCase());
    if (!refs) {
      if (r === 0) heading = said;
      else unknown.add(said);
      return;
    }
    for (const ref of refs) {
      const known = found.get(ref);
      if (known !== undefined && known !== code) twofold.add(said);
      found.set(ref, code);
    }
  });
  for (const said of twofold) for (const ref of by.get(said.toLowerCase()) ?? []) found.delete(ref);
  return { codes: [...found], heading, unknown: [...unknown], twofold: [...twofold] };
}
