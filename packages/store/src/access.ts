/** What somebody may do, from everything to looking only. */
export const ROLES = ['owner', 'editor', 'commenter', 'viewer'] as const;
export type Role = (typeof ROLES)[number];

/** Who asks, and for which workspace. Every question to the store carries one, made from the request that asks. */
export interface Access {
  workspace: string;
  /** Who it is, by name; null where nobody is told apart. */
  person: string | null;
  /** The account that asks; left out where nobody is told apart. */
  account?: string;
  role: Role;
  /** The only plans that it is about; left out where it is about the whole workspace. */
  only?: readonly string[];
  /** Whether it sees nothing but those plans: what the workspace has in common is not for guests. */
  guest?: boolean;
}

/** Something that this access may not do; the message says what. */
export class AccessRefused extends Error {}

/** Throws unless the access may change things. */
export function mayWrite({ role }: Access): void {
  if (role !== 'owner' && role !== 'editor')
    throw new AccessRefused('You may look at this, but not change it. An owner of the workspace can let you.');
}

/** Throws unless the access may add to what the workspace has: a plan, a folio, a book. */
export function mayAdd(access: Access): void {
  mayWrite(access);
  if (access.only) throw new AccessRefused('You may change this plan, but add nothing else to the workspace.');
}

/** Throws unless the access may say something beside a plan or a page. */
export function mayComment({ role }: Access): void {
  if (role === 'viewer')
    throw new AccessRefused('You may look at this, but not comment on it. An owner of the workspace can let you.');
}

/** Throws unless the access may decide who belongs to the workspace, and how it is set. */
export function mayOwn({ role, only }: Access): void {
  if (role !== 'owner' || only) throw new AccessRefused('Only an owner of the workspace may do this.');
}

const NOWHERE = '00000000-0000-0000-0000-000000000000';

/** The workspace whose common things an access sees; none for a guest. */
export const commonOf = (access: Access): string => (access.guest ? NOWHERE : access.workspace);
