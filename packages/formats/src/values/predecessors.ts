import { LINK_TYPES, type LinkType } from '@clembo/core';
import { type ReadDuration, readDuration } from './amounts';

/** One predecessor as written in a cell. */
export interface ReadPredecessor {
  ref: string;
  type: LinkType;
  lag: ReadDuration | null;
}

const SUFFIX = /^(.*?)\s*(?:\b|(?<=\d))(FS|SS|FF|SF)?\s*([+-]\s*\d[\d.,]*\s*(?:elapsed\s+)?[a-z]*)?\s*$/is;

/**
 * Reads the predecessors of a cell: references separated by commas or semicolons, each optionally followed
 * by link type and lag (`A12`, `A12 SS`, `A12 FS+3d`, `A12 FF-2d`). A reference that is known as it stands
 * is taken as it stands, so references may hold hyphens and letters of link types.
 * Returns what was read and the parts that could not be.
 */
export function readPredecessors(
  text: string,
  isKnown: (ref: string) => boolean,
): { read: ReadPredecessor[]; wrong: string[] } {
  const read: ReadPredecessor[] = [];
  const wrong: string[] = [];
  for (const part of text.split(/[,;\n]/)) {
    const body = part.trim();
    if (body === '') continue;
    if (isKnown(body)) {
      read.push({ ref: body, type: 'FS', lag: null });
      continue;
    }
    const m = SUFFIX.exec(body);
    const ref = m?.[1]?.trim() ?? '';
    const type = (m?.[2]?.toUpperCase() ?? 'FS') as LinkType;
    const lag = m?.[3] ? readDuration(m[3].replace(/\s+/g, ' '), 'day') : null;
    if (!m || ref === '' || !isKnown(ref) || (m[3] && !lag) || !LINK_TYPES.includes(type)) wrong.push(body);
    else read.push({ ref, type, lag });
  }
  return { read, wrong };
}
