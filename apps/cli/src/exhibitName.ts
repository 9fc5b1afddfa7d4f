import { EXHIBITS, type ExhibitName } from '@clembo/scene';
import { UsageError } from './fail';

/** The kind of exhibit that a word names. */
export function exhibitName(word: string): ExhibitName {
  if (!Object.hasOwn(EXHIBITS, word))
    throw new UsageError(`--kind takes ${Object.keys(EXHIBITS).join(', ')}, not “${word}”.`);
  return word as ExhibitName;
}
