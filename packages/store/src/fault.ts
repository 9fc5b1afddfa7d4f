/** A cause of a fault, as it may be written down. */
export interface Cause {
  name: string;
  words: string;
  at: string[];
}

/**
 * The causes of a fault, the outer first, without the values that the database was asked with: those belong to
 * people.
 */
export function causesOf(error: unknown): Cause[] {
  const causes: Cause[] = [];
  for (let at: unknown = error; at instanceof Error && causes.length < 5; at = at.cause)
    causes.push({
      name: at.name,
      // The query layer words its errors with the whole statement and its parameters.
      words: at.message.startsWith('Failed query') ? 'a query failed' : at.message,
      at: (at.stack ?? '')
        .split('\n')
        .filter((line) => /^\s+at /.test(line))
        .slice(0, 8)
        .map((line) => line.trim()),
    });
  return causes.length > 0 ? causes : [{ name: 'Fault', words: String(error), at: [] }];
}

/** A fault as lines for whoever watches the terminal. */
export const faultLines = (what: string, error: unknown): string =>
  [
    what,
    ...causesOf(error).flatMap(({ name, words, at }) => [`  ${name}: ${words}`, ...at.map((l) => `    ${l}`)]),
  ].join('\n');
