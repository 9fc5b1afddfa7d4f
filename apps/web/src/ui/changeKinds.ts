import type { SourceChange } from '@clembo/core';

/** Kinds of change in the order in which they are read, each with its heading. */
export const KINDS: [kind: SourceChange['kind'], one: string, many: string][] = [
  ['moved', 'moved', 'moved'],
  ['added', 'new', 'new'],
  ['removed', 'gone', 'gone'],
  ['progressed', 'progressed', 'progressed'],
  ['resized', 'of another length', 'of another length'],
  ['renamed', 'renamed', 'renamed'],
  ['relinked', 'linked otherwise', 'linked otherwise'],
  ['recoded', 'coded otherwise', 'coded otherwise'],
  ['outlined', 'in another place of the outline', 'in another place of the outline'],
  ['other', 'otherwise changed', 'otherwise changed'],
];
