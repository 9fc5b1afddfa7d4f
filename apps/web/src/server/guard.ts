/** Hosts under which this server may be asked: loopback, and what is set by CLEMBO_HOSTS (names parted by commas). */
const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

const namesOf = (list: string | undefined): Set<string> =>
  new Set((list ?? '').split(',').flatMap((name) => (name.trim() === '' ? [] : [name.trim().toLowerCase()])));

/** The header by which a page learns its own path; it is set here, whatever was sent. */
export const PATH_HEADER = 'x-clembo-path';

/** The name of the address that people open, where one is said. */
const baseHost = (base: string | undefined): string | null =>
  base !== undefined && URL.canParse(base) ? new URL(base).hostname.toLowerCase() : null;

/** The name of a Host header without its port; null when it is none. */
function hostName(host: string | null): string | null {
  const m = /^(\[[0-9a-f:]+\]|[a-z0-9.-]+)(?::\d{1,5})?$/i.exec(host ?? '');
  return m ? m[1]!.toLowerCase() : null;
}

/** Why a request is not answered under the name that it was sent to, or null. */
export function hostRefusal(
  headers: Headers,
  hosts = process.env.CLEMBO_HOSTS,
  base = process.env.BASE_URL,
): string | null {
  const host = headers.get('host');
  const name = hostName(host);
  if (name === null || !(LOOPBACK.has(name) || namesOf(hosts).has(name) || name === baseHost(base)))
    return 'This server is not known under that name. Open it at its own address, or name the host in CLEMBO_HOSTS.';
  return null;
}

/**
 * Why a request is not answered, or null. Other sites must not read or write through the browser of a visitor: the
 * server answers under its own names only (a foreign name may lead to the same address), and to its own pages only.
 * Following a link to a page is allowed from anywhere.
 */
export function refusal(
  headers: Headers,
  isPage: boolean,
  hosts = process.env.CLEMBO_HOSTS,
  base = process.env.BASE_URL,
): string | null {
  const host = headers.get('host');
  const unknown = hostRefusal(headers, hosts, base);
  if (unknown) return unknown;
  const origin = headers.get('origin');
  if (origin !== null && !(URL.canParse(origin) && new URL(origin).host === host))
    return 'Requests from other sites are refused.';
  const site = headers.get('sec-fetch-site');
  const foreign = site === 'cross-site' || site === 'same-site';
  if (foreign && !(isPage && headers.get('sec-fetch-mode') === 'navigate'))
    return 'Requests from other sites are refused.';
  return null;
}

/** What the browser may load and run on a page: our own, and scripts that carry the nonce of this answer. */
export const pagePolicy = (nonce: string): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self' data:",
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
