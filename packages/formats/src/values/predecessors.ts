import type { LinkType } from '@clembo/core';
import { type ReadDuration, readDuration } from './amounts';

/** One predecessor as written in a cell. */
export interface ReadPredecessor {
  ref: string;
  type: LinkType;
  lag: ReadDuration | null;
}

/** A reference with link type and lag is not longer; patterns are tried on what is not. */
const LONGEST = 260;
/** How many predecessors of one activity are read. */
export const MOST_IN_A_CELL = 2000;

/**
 * Link types by the letters that each language writes them with: end (finish) and beginning (start), of the
 * predecessor and of the successor. English, German, French, Spanish, Italian, Dutch, Portuguese.
 */
const TYPES: ReadonlyMap<string, LinkType> = new Map<string, LinkType>([
  ...(['FS', 'EA', 'FD', 'FC', 'FI', 'EB', 'TI'] as const).map((word) => [word, 'FS'] as const),
  ...(['SS', 'AA', 'DD', 'CC', 'II', 'BB'] as const).map((word) => [word, 'SS'] as const),
  ...(['FF', 'EE', 'TT'] as const).map((word) => [word, 'FF'] as const),
  ...(['SF', 'AE', 'DF', 'CF', 'IF', 'BE', 'IT'] as const).map((word) => [word, 'SF'] as const),
]);

const LETTERS = [...TYPES.keys()].join('|');
const SUFFIX = new RegExp(
  String.raw`^(.*?)\s*[\[(:]?\s*(?:\b|(?<=\d))(${LETTERS})?\s*([+-]\s*(?:\d[\d.,]*|P\S+)\s*(?:%|[\p{L}.]+(?:\s[\p{L}.]+)?)?)?\s*[\])]?\s*$`,
  'isu',
);

/**
 * Reads the predecessors of a cell: references separated by commas or semicolons, each optionally followed by link
 * type and lag (`A12`, `A12 SS`, `A12 FS+3d`, `3EA+2 Tage`). A reference that is known as it stands is taken as it
 * stands, so references may hold hyphens and letters of link types. A bare `5-8` is neither: a lead says its unit or
 * its type. Returns what was read, the parts that could not be, and whether there was more than is read.
 */
export function readPredecessors(
  text: string,
  isKnown: (ref: string) => boolean,
): { read: ReadPredecessor[]; wrong: string[]; more: boolean } {
  const read: ReadPredecessor[] = [];
  const wrong: string[] = [];
  for (const part of text.split(/[,;\n]/)) {
    const body = part.trim();
    if (body === '') continue;
    if (read.length + wrong.length === MOST_IN_A_CELL) return { read, wrong, more: true };
    const one = readOne(body, isKnown);
    if (one) read.push(one);
    else wrong.push(body);
  }
  return { read, wrong, more: false };
}

function readOne(body: string, isKnown: (ref: string) => boolean): ReadPredecessor | null {
  if (isKnown(body)) return { ref: body, type: 'FS', lag: null };
  if (body.length > LONGEST) return null;
  const m = SUFFIX.exec(body);
  const ref = m?.[1]?.trim() ?? '';
  if (!m || ref === '' || !isKnown(ref)) return null;
  const type = m[2] ? TYPES.get(m[2].toUpperCase())! : 'FS';
  if (!m[3]) return { ref, type, lag: null };
  const written = m[3].replace(/\s+/g, ' ').replace(/^([+-]) /, '$1');
  const bare = /^-[\d.,]+$/.test(written);
  const lag = bare && !m[2] ? null : readLag(written);
  return lag ? { ref, type, lag } : null;
}

function readLag(written: string): ReadDuration | null {
  const lag = readDuration(written.slice(1), { unit: 'day', m: 'minute' });
  return lag && { ...lag, amount: written.startsWith('-') ? -lag.amount : lag.amount };
}
