/** How a text is looked for. */
export interface Looking {
  text: string;
  /** Only where it stands with the same capital letters. */
  exact: boolean;
  /** Only where it is the whole of what stands there. */
  whole: boolean;
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/**
 * What finds a text, letters compared regardless of capitals unless said otherwise; null where nothing is looked for.
 * It holds as plain text: nothing in it has a meaning of its own.
 */
export function finder({ text, exact, whole }: Looking): ((value: string) => boolean) | null {
  if (text === '') return null;
  const pattern = new RegExp(whole ? `^${escaped(text)}$` : escaped(text), exact ? 'u' : 'iu');
  return (value) => pattern.test(value);
}

/** A value with every place where the text stands replaced; what is put in is taken as it is. */
export function replaced(value: string, { text, exact, whole }: Looking, by: string): string {
  if (text === '') return value;
  const pattern = new RegExp(whole ? `^${escaped(text)}$` : escaped(text), exact ? 'gu' : 'giu');
  return value.replace(pattern, () => by);
}
