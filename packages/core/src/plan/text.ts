/** The zero character, and halves of characters without their other half: no database and no page can hold them. */
const UNUSABLE = /\u0000|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;
const EACH = new RegExp(UNUSABLE, 'g');

export const isUsableText = (text: string): boolean => !UNUSABLE.test(text);

/** The text with a mark (U+FFFD) in place of each character that cannot be held. */
export const usableText = (text: string): string => text.replace(EACH, '\ufffd');

/**
 * A text in small letters, each in the place of its own: what has other letters than one when it is small (`İ`) stays,
 * so that places in the one are places in the other.
 */
export const lowered = (text: string): string => {
  const small = text.toLowerCase();
  if (small.length === text.length) return small;
  return Array.from(text, (c) => (c.toLowerCase().length === c.length ? c.toLowerCase() : c)).join('');
};

/** The path to the first text (or name of a field) in a value that cannot be held, or null. Values hold no circles. */
export function findUnusableText(value: unknown): PropertyKey[] | null {
  const path: PropertyKey[] = [];
  // The same few keys stand in all activities.
  const usable = new Set<string>();
  const look = (v: unknown): boolean => {
    if (typeof v === 'string') return UNUSABLE.test(v);
    if (typeof v !== 'object' || v === null) return false;
    for (const key of Object.keys(v)) {
      const part = (v as Record<string, unknown>)[key];
      const isKnown = usable.has(key);
      if (isKnown && (part === null || typeof part === 'number' || typeof part === 'boolean')) continue;
      path.push(key);
      if ((!isKnown && UNUSABLE.test(key)) || look(part)) return true;
      path.pop();
      if (!isKnown && !Array.isArray(v)) usable.add(key);
    }
    return false;
  };
  return look(value) ? path : null;
}
