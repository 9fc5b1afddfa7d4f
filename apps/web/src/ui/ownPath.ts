/**
 * A path of this application out of what stands in an address; the list of plans for anything else, so that no address
 * leads elsewhere from here.
 */
export function ownPath(said: unknown): string {
  if (typeof said !== 'string' || !/^\/(?![/\\])[^\\\p{Cc}]*$/u.test(said)) return '/';
  const base = 'http://own.invalid';
  return URL.canParse(said, base) && new URL(said, base).origin === base && !said.startsWith('/sign-in') ? said : '/';
}
