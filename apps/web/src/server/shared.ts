import 'server-only';
import {
  accessOfShared,
  askFor,
  hasEnded,
  isPassword,
  markOfShared,
  type OpenedShared,
  openShared,
  readJob,
  readShared,
} from '@clembo/store';
import { createHash } from 'node:crypto';
import { BadRequest, readBytes } from './answer';
import { hostRefusal } from './guard';
import { watch } from './jobs';
import { logFault } from './log';
import { metrics } from './metrics';
import { isPass, passOf, sharedIdOf } from './sharedAddress';
import { limitGuesses, limitTries } from './signing';
import { store } from './store';

/** So long is waited for a page to be composed, in milliseconds. */
const PATIENCE = 60_000;

/** Headers of all answers at the address of a shared page: not found by searching, not kept, shown only where allowed. */
const headersOf = (origins: readonly string[]): Record<string, string> => ({
  'Content-Type': 'text/html; charset=utf-8',
  'Cache-Control': 'private, no-store',
  'X-Robots-Tag': 'noindex, nofollow, noarchive',
  'Referrer-Policy': 'no-referrer',
  'X-Content-Type-Options': 'nosniff',
  'Content-Security-Policy': `frame-ancestors ${origins.length === 0 ? "'none'" : origins.join(' ')}; base-uri 'none'; object-src 'none'`,
  ...(origins.length === 0 && { 'X-Frame-Options': 'DENY' }),
});

const sheet = (title: string, inside: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex,nofollow"><meta http-equiv="Content-Security-Policy" content="default-src 'none';style-src 'unsafe-inline';form-action 'self'"><title>${title}</title><style>body{margin:0;min-height:100vh;display:flex;align-items:center;justify-content:center;background:#E9E6DF;color:#1E2A32;font:16px/1.45 system-ui,sans-serif}main{background:#FBFAF6;border:1px solid #D8D4CA;border-radius:8px;padding:26px 32px;max-width:24rem;margin:16px}h1{font:600 20px/1.2 Georgia,serif;margin:0 0 8px}label{display:block;font-weight:600;font-size:14px;margin:14px 0 3px}input{font:inherit;width:100%;box-sizing:border-box;padding:6px 10px;border:1px solid #D8D4CA;border-radius:6px}button{font:inherit;font-weight:600;margin-top:14px;padding:6px 16px;border:0;border-radius:6px;background:#0F6E6E;color:#FBFAF6;cursor:pointer}p{margin:0}.wrong{color:#B3402E;margin-top:10px}:focus-visible{outline:2px solid #E3A019;outline-offset:2px}</style></head><body><main>${inside}</main></body></html>\n`;

const says = (title: string, words: string, status: number, origins: readonly string[] = []): Response =>
  new Response(sheet(title, `<h1>${title}</h1><p>${words}</p>`), { status, headers: headersOf(origins) });

const asksPassword = (origins: readonly string[], wrong: string | null): Response =>
  new Response(
    sheet(
      'This page has a password',
      `<h1>This page has a password</h1><p>Whoever sent you its address knows it.</p><form method="post"><label for="p">Password</label><input id="p" name="password" type="password" autocomplete="off" required autofocus>${wrong === null ? '' : `<p class="wrong" role="alert">${wrong}</p>`}<button>Open</button></form>`,
    ),
    { status: 401, headers: headersOf(origins) },
  );

const GONE = 'This address leads nowhere';
const passName = (id: string): string => `clembo-pass-${id}`;

function cookieOf(request: Request, name: string): string | null {
  for (const part of (request.headers.get('cookie') ?? '').split(';')) {
    const [key, value] = part.trim().split('=');
    if (key === name) return value ?? '';
  }
  return null;
}

/** The page that an address is of, while it is shared; otherwise the answer that says that it is not. */
async function find(request: Request, token: string): Promise<OpenedShared | Response> {
  const refused = hostRefusal(request.headers);
  if (refused) return says('Refused', refused, 403);
  const id = sharedIdOf(token);
  if (id === null) {
    try {
      await limitGuesses(request);
    } catch (error) {
      if (error instanceof BadRequest) return says(GONE, error.message, error.status);
      throw error;
    }
    return says(GONE, 'Is it whole? Ask whoever sent it.', 404);
  }
  return (
    (await openShared(store(), id, new Date())) ??
    says(GONE, 'The page is not shared any more. Ask whoever sent the address for another one.', 404)
  );
}

const isOpen = (request: Request, shared: OpenedShared): boolean =>
  shared.password === null || isPass(cookieOf(request, passName(shared.id)) ?? '', shared.id, shared.password);

/** Faults are told in general words: an address may be open to anybody. */
async function guarded(request: Request, work: () => Promise<Response>): Promise<Response> {
  const begun = performance.now();
  try {
    const response = await work();
    metrics()
      .answers.labels('/s/:token', request.method, String(response.status))
      .observe((performance.now() - begun) / 1000);
    return response;
  } catch (error) {
    logFault('a shared page failed', error);
    return says('Not now', 'The page cannot be shown at the moment. Try again in a minute.', 503);
  }
}

/** Answers with a page that is shared, composed anew where what it shows has changed. */
export const answerShared = (request: Request, token: string): Promise<Response> =>
  guarded(request, async () => {
    const shared = await find(request, token);
    if (shared instanceof Response) return shared;
    if (!isOpen(request, shared)) return asksPassword(shared.origins, null);
    const mark = await markOfShared(store(), shared);
    if (shared.mark !== mark) {
      const trouble = await compose(shared, mark);
      if (trouble !== null) return says('Not now', trouble, 503, shared.origins);
    }
    const content = await readShared(store(), shared.id);
    if (!content) return says('Not now', 'The page is being composed. Try again in a minute.', 503, shared.origins);
    return new Response(content as BodyInit, { headers: headersOf(shared.origins) });
  });

/** Composes a page for all who wait for it at once; gives why that failed. */
const composing = new Map<string, Promise<string | null>>();
function compose(shared: OpenedShared, mark: string): Promise<string | null> {
  const key = `${shared.id} ${mark}`;
  const known = composing.get(key);
  if (known) return known;
  const work = waitFor(shared, mark).finally(() => composing.delete(key));
  composing.set(key, work);
  return work;
}

async function waitFor(shared: OpenedShared, mark: string): Promise<string | null> {
  const access = accessOfShared(shared);
  const id = await askFor(store(), access, { kind: 'composeShared', shared: shared.id, mark });
  const until = Date.now() + PATIENCE;
  for (;;) {
    const changed = watch().changed(id, Math.max(0, until - Date.now()));
    const job = await readJob(store(), access, id);
    if (!job || Date.now() >= until) return 'The page is being composed. Try again in a minute.';
    if (hasEnded(job)) return job.state === 'done' ? null : 'The page cannot be composed at the moment.';
    await changed;
  }
}

/** Composes a page that stays as it is now, before anybody has its address; gives why that failed. */
export async function freezeShared(id: string): Promise<string | null> {
  const shared = await openShared(store(), id, new Date());
  return shared ? compose(shared, await markOfShared(store(), shared)) : 'The page is not shared any more.';
}

/** Takes the password of a shared page. */
export const openByPassword = (request: Request, token: string): Promise<Response> =>
  guarded(request, async () => {
    const shared = await find(request, token);
    if (shared instanceof Response) return shared;
    if (shared.password === null) return answerShared(request, token);
    let said: string;
    try {
      const body = new TextDecoder().decode(
        await readBytes(request, 2000, 'The password').catch(() => {
          throw new BadRequest('That is not the password.');
        }),
      );
      said = new URLSearchParams(body).get('password') ?? '';
      const tries = await limitTries(request, `shared ${shared.id}`);
      if (!(await isPassword(said, shared.password))) return asksPassword(shared.origins, 'That is not the password.');
      await tries.clear();
    } catch (error) {
      if (error instanceof BadRequest) return asksPassword(shared.origins, error.message);
      throw error;
    }
    const secure = new URL(request.url).protocol === 'https:' || process.env.BASE_URL?.startsWith('https:');
    return new Response(null, {
      status: 303,
      headers: {
        ...headersOf(shared.origins),
        Location: `/s/${token}`,
        'Set-Cookie': `${passName(shared.id)}=${passOf(shared.id, shared.password)}; Path=/s/; HttpOnly; Max-Age=86400; ${secure ? 'SameSite=None; Secure' : 'SameSite=Lax'}`,
      },
    });
  });

/** Answers with a mark that changes when the page does, and says nothing else. */
export const answerMark = (request: Request, token: string): Promise<Response> =>
  guarded(request, async () => {
    const shared = await find(request, token);
    if (shared instanceof Response) return shared;
    if (!isOpen(request, shared)) return new Response('', { status: 401, headers: headersOf([]) });
    const mark = await markOfShared(store(), shared);
    return new Response(createHash('sha256').update(`${shared.id} ${mark}`).digest('base64url'), {
      headers: { ...headersOf(shared.origins), 'Content-Type': 'text/plain' },
    });
  });
