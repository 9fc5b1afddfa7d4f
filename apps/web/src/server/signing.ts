import 'server-only';
import { limits } from '@clembo/store';
import { createHmac } from 'node:crypto';
import { z } from 'zod';
import { WORKSPACE_COOKIE } from './access';
import { ownAddress } from './address';
import { BadRequest } from './answer';
import { LEAST_PASSWORD } from './auth';
import { isSame } from './same';
import { store } from './store';

export const Email = z.string().trim().toLowerCase().max(200).pipe(z.email('This is no e-mail address.'));
export const Password = z
  .string()
  .min(LEAST_PASSWORD, `A password has at least ${LEAST_PASSWORD} characters.`)
  .max(200, 'A password has at most 200 characters.');
export const PersonName = z
  .string()
  .trim()
  .min(1, 'A name is needed.')
  .max(100)
  .regex(/^[^\p{Cc}<>]*$/u, 'A name has no control characters and no angle brackets.');

/** From where a request comes: `tools/lib/asker.mjs` has put that there, whatever the request itself says. */
const askerOf = (request: Request): string => request.headers.get('x-forwarded-for') ?? 'unknown';

const tooMany = (seconds: number): BadRequest => {
  const minutes = Math.max(1, Math.ceil(seconds / 60));
  return new BadRequest(
    `That was tried too often. Try again in ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}.`,
    429,
  );
};

/** Counts a try of a password for an address, and of all that one machine tries. */
export async function limitTries(request: Request, key: string): Promise<{ clear: () => Promise<void> }> {
  const { password, asker } = limits(store());
  const wait = (await password.take(key)) ?? (await asker.take(askerOf(request)));
  if (wait !== null) throw tooMany(wait);
  return { clear: () => password.clear(key) };
}

/** Counts mails that are asked for. */
export async function limitMail(key: string): Promise<void> {
  const wait = await limits(store()).mail.take(key);
  if (wait !== null) throw tooMany(wait);
}

/** Counts secrets of addresses that lead nowhere, by who asks. */
export async function limitGuesses(request: Request): Promise<void> {
  const wait = await limits(store()).link.take(askerOf(request));
  if (wait !== null) throw tooMany(wait);
}

/**
 * What the first one has to know where others than this machine reach the server: made of the secret of the server,
 * which says the address when it starts.
 */
export const firstCode = (): string =>
  createHmac('sha256', process.env.CLEMBO_SECRET ?? '')
    .update('first account')
    .digest('base64url');

export const isFirstCode = (code: string): boolean => isSame(code, firstCode());

/** Remembers in which of their workspaces somebody works. */
export function rememberWorkspace(response: Response, workspace: string): Response {
  const secure = ownAddress().startsWith('https:') ? '; Secure' : '';
  response.headers.append(
    'Set-Cookie',
    `${WORKSPACE_COOKIE}=${workspace}; Path=/; HttpOnly; SameSite=Lax; Max-Age=31536000${secure}`,
  );
  return response;
}

/** The answer of the library that signs in, with its cookies and nothing else of it. */
export function withCookies(answered: Response, body: object): Response {
  const response = Response.json(body);
  for (const cookie of answered.headers.getSetCookie()) response.headers.append('Set-Cookie', cookie);
  return response;
}
