/** A page that cannot be written in a format; the message says why, for the person who asked. */
export class PageRefused extends Error {
  override name = 'PageRefused';
}
