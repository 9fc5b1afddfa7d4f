/** Who asks, and for which workspace. Every question to the store carries one, made from the request that asks. */
export interface Access {
  workspace: string;
  /** Who it is; null until there are accounts. */
  person: string | null;
  role: 'owner' | 'editor' | 'reader';
}

/** Something that this access may not do; the message says what. */
export class AccessRefused extends Error {}

/** Throws unless the access may change things. */
export function mayWrite(access: Access): void {
  if (access.role === 'reader') throw new AccessRefused('You may look at this workspace, but not change it.');
}
