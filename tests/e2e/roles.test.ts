import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Asker, type OwnServer, ownServer } from '../support/ownServer';
import { firstOwner, joined, PASSWORD, secretFor, stranger } from '../support/people';

const NOBODY = '00000000-0000-4000-8000-000000000000';
const API = join(import.meta.dirname, '../../apps/web/src/app/api');

/** Every route with the methods that it answers, as they stand in the source. */
function allRoutes(folder = API, path = '/api'): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const own = join(folder, entry.name);
    if (entry.isDirectory()) return allRoutes(own, `${path}/${entry.name}`);
    if (entry.name !== 'route.ts') return [];
    const methods = readFileSync(own, 'utf8').matchAll(
      /^export (?:const|async function|function) (GET|POST|PUT|PATCH|DELETE)\b/gm,
    );
    return [...methods].map((m) => `${m[1]} ${path}`);
  });
}

/** Who may do what a route does: anybody; whoever is signed in; who looks; who comments; who changes; owners. */
type Who = 'anybody' | 'signed in' | 'viewer' | 'commenter' | 'editor' | 'owner';

let server: OwnServer;
let owner: Asker;
const people: Record<string, Asker> = {};
const ids: Record<string, string> = {};

/** A file in a form. */
const BOUNDARY = 'tide-line';
const FORM = `--${BOUNDARY}\r\nContent-Disposition: form-data; name="file"; filename="a.txt"\r\n\r\nwords\r\n--${BOUNDARY}--\r\n`;

/**
 * All routes: for whom they are, and something that they understand. In paths, names in braces stand for what belongs
 * to the workspace of the owner.
 */
const ROUTES: Record<string, [who: Who, body?: unknown, path?: string]> = {
  'GET /api/health': ['anybody'],
  'GET /api/ready': ['anybody'],
  'GET /api/metrics': ['anybody'],
  'GET /api/holidays': ['anybody', undefined, '/api/holidays?country=DE&from=2026&to=2026'],
  'POST /api/session': ['anybody', { email: 'x@y.example', password: 'wrong' }],
  'DELETE /api/session': ['anybody'],
  'PUT /api/session': ['signed in', { workspace: '{workspace}' }],
  'GET /api/me': ['signed in'],
  'PATCH /api/me': ['signed in', { before: 'wrong password', password: 'another long password' }],
  'POST /api/people': ['anybody', { name: 'N', email: 'n@y.example', password: PASSWORD }],
  'GET /api/people': ['owner'],
  'PATCH /api/people/[account]': ['owner', { role: 'viewer' }, '/api/people/{account}'],
  'DELETE /api/people/[account]': ['owner', undefined, '/api/people/{account}'],
  'POST /api/invitations': ['owner', { email: 'new@y.example', role: 'owner', planId: '{plan}' }],
  'DELETE /api/invitations/[id]': ['owner', undefined, '/api/invitations/{invitation}'],
  'POST /api/invitations/taken': ['anybody', { token: 'x'.repeat(43) }],
  'POST /api/password': ['anybody', { email: 'nobody@y.example' }],
  'PUT /api/password': ['anybody', { token: 'x'.repeat(24), password: PASSWORD }],
  'GET /api/deeds': ['viewer'],
  'GET /api/notices': ['viewer'],
  'POST /api/notices': ['viewer'],
  'GET /api/workspace': ['viewer'],
  'PATCH /api/workspace': ['editor', { locale: 'de-DE' }],
  'GET /api/books': ['viewer'],
  'POST /api/books': ['editor', { name: 'B', field: { id: 'b', name: 'B', values: [] } }],
  'DELETE /api/books/[id]': ['editor', undefined, '/api/books/{book}'],
  'GET /api/briefs': ['viewer'],
  'POST /api/briefs': ['editor', { name: 'B', brief: { kind: 'timeline' }, fields: {} }],
  'DELETE /api/briefs/[id]': ['editor', undefined, '/api/briefs/{brief}'],
  'POST /api/starters': ['editor', { plan: '{plan}', name: 'S', note: '' }],
  'DELETE /api/starters/[id]': ['editor', undefined, `/api/starters/${NOBODY}`],
  'GET /api/exhibits/[id]': ['viewer', undefined, '/api/exhibits/{exhibit}'],
  'PATCH /api/exhibits/[id]': ['editor', { name: 'Hacked' }, '/api/exhibits/{exhibit}'],
  'DELETE /api/exhibits/[id]': ['editor', undefined, '/api/exhibits/{exhibit}'],
  'POST /api/exhibits/[id]/restore': ['editor', undefined, '/api/exhibits/{exhibit}/restore'],
  'POST /api/exhibits/[id]/page': ['viewer', { format: 'svg' }, '/api/exhibits/{exhibit}/page'],
  'GET /api/folios': ['viewer'],
  'POST /api/folios': ['editor', { name: 'F' }],
  'GET /api/folios/[id]': ['viewer', undefined, '/api/folios/{folio}'],
  'PUT /api/folios/[id]': ['editor', { version: 1, folio: { name: 'Hacked' } }, '/api/folios/{folio}'],
  'DELETE /api/folios/[id]': ['editor', undefined, '/api/folios/{folio}'],
  'POST /api/folios/[id]': ['editor', undefined, '/api/folios/{folio}'],
  'POST /api/folios/[id]/file': ['viewer', { format: 'pdf' }, '/api/folios/{folio}/file'],
  'POST /api/intakes': ['editor', { text: 'Name,Start\nA,2026-01-05', plan: '{plan}' }],
  'GET /api/intakes/[id]': ['viewer', undefined, '/api/intakes/{intake}'],
  'PATCH /api/intakes/[id]': ['editor', { again: 'guess' }, '/api/intakes/{intake}'],
  'DELETE /api/intakes/[id]': ['editor', undefined, '/api/intakes/{intake}'],
  'POST /api/intakes/[id]/changes': ['viewer', {}, '/api/intakes/{intake}/changes'],
  'PUT /api/intakes/[id]/choices': ['editor', {}, '/api/intakes/{intake}/choices'],
  'POST /api/intakes/[id]/rows': ['viewer', {}, '/api/intakes/{intake}/rows'],
  'POST /api/intakes/[id]/plan': ['editor', { name: 'P' }, '/api/intakes/{intake}/plan'],
  'POST /api/intakes/[id]/refresh': ['editor', { version: 1 }, '/api/intakes/{intake}/refresh'],
  'GET /api/jobs/[id]': ['viewer', undefined, '/api/jobs/{job}'],
  'DELETE /api/jobs/[id]': ['viewer', undefined, '/api/jobs/{job}'],
  'GET /api/jobs/[id]/file': ['viewer', undefined, '/api/jobs/{job}/file'],
  'POST /api/models/[id]': ['editor', undefined, '/api/models/{model}'],
  'DELETE /api/models/[id]': ['editor', undefined, '/api/models/{model}'],
  'GET /api/models/[id]/elements': ['viewer', undefined, '/api/models/{model}/elements'],
  'GET /api/models/[id]/geometry': ['viewer', undefined, '/api/models/{model}/geometry'],
  'GET /api/plans': ['viewer', undefined, '/api/plans?find=sea'],
  'POST /api/plans': ['editor', { name: 'P', from: null }],
  'GET /api/plans/[id]': ['viewer', undefined, '/api/plans/{plan}'],
  'PATCH /api/plans/[id]': [
    'editor',
    { version: 1, command: { do: 'setPlan', settings: { name: 'Hacked' } } },
    '/api/plans/{plan}',
  ],
  'DELETE /api/plans/[id]': ['editor', undefined, '/api/plans/{plan}'],
  'GET /api/plans/[id]/arrangements': ['viewer', undefined, '/api/plans/{plan}/arrangements'],
  'PUT /api/plans/[id]/arrangements': ['editor', { name: 'A', arrangement: null }, '/api/plans/{plan}/arrangements'],
  'GET /api/plans/[id]/changes': ['viewer', undefined, '/api/plans/{plan}/changes'],
  'GET /api/plans/[id]/comments': ['viewer', undefined, '/api/plans/{plan}/comments'],
  'POST /api/plans/[id]/comments': ['commenter', { text: 'Hacked' }, '/api/plans/{plan}/comments'],
  'PATCH /api/comments/[id]': ['commenter', { done: true }, '/api/comments/{comment}'],
  'DELETE /api/comments/[id]': ['commenter', undefined, '/api/comments/{comment}'],
  'POST /api/comments/[id]/files': ['commenter', FORM, '/api/comments/{comment}/files'],
  'GET /api/comments/[id]/files/[no]': ['commenter', undefined, '/api/comments/{comment}/files/1'],
  'GET /api/plans/[id]/compare': ['viewer', undefined, '/api/plans/{plan}/compare?from={edition}&to={edition}'],
  'POST /api/plans/[id]/editions': ['editor', { name: 'E', note: '' }, '/api/plans/{plan}/editions'],
  'PATCH /api/plans/[id]/editions/[edition]': ['editor', { note: 'Hacked' }, '/api/plans/{plan}/editions/{edition}'],
  'POST /api/plans/[id]/editions/[edition]/work': [
    'editor',
    { keepAs: 'K' },
    '/api/plans/{plan}/editions/{edition}/work',
  ],
  'POST /api/plans/[id]/exhibits': ['editor', { name: 'X', brief: { kind: 'timeline' } }, '/api/plans/{plan}/exhibits'],
  'PUT /api/plans/[id]/exhibits': ['editor', { order: ['{exhibit}'] }, '/api/plans/{plan}/exhibits'],
  'POST /api/plans/[id]/file': ['viewer', { format: 'csv' }, '/api/plans/{plan}/file'],
  'POST /api/plans/[id]/here': ['viewer', { who: NOBODY, ref: null, gone: false }, '/api/plans/{plan}/here'],
  'GET /api/plans/[id]/models': ['viewer', undefined, '/api/plans/{plan}/models'],
  'POST /api/plans/[id]/models': ['editor', FORM, '/api/plans/{plan}/models'],
  'POST /api/plans/[id]/pages': ['viewer', { exhibits: ['{exhibit}'], format: 'pdf' }, '/api/plans/{plan}/pages'],
  'POST /api/plans/[id]/refreshes/[refresh]': ['editor', { undo: true }, `/api/plans/{plan}/refreshes/${NOBODY}`],
  'POST /api/plans/[id]/restore': ['editor', undefined, '/api/plans/{plan}/restore'],
  'GET /api/plans/[id]/shared': ['viewer', undefined, '/api/plans/{plan}/shared'],
  'POST /api/plans/[id]/shared': [
    'editor',
    { what: { exhibit: '{exhibit}' }, lay: 'pages', frozen: null, until: null, password: null, origins: [] },
    '/api/plans/{plan}/shared',
  ],
  'DELETE /api/shared/[id]': ['editor', undefined, '/api/shared/{shared}'],
  'GET /api/plans/[id]/sources/[no]/rows/[row]': ['viewer', undefined, '/api/plans/{plan}/sources/1/rows/2'],
  'POST /api/plans/[id]/sources/open': ['editor', undefined, '/api/plans/{plan}/sources/open'],
  'GET /api/plans/[id]/steps': ['viewer', undefined, '/api/plans/{plan}/steps?after=0'],
  'GET /api/plans/[id]/turn': ['viewer', undefined, '/api/plans/{plan}/turn'],
  'POST /api/plans/[id]/turn': ['editor', { version: 1, undo: true }, '/api/plans/{plan}/turn'],
  'GET /api/plans/[id]/weekly': ['viewer', undefined, '/api/plans/{plan}/weekly'],
  'PUT /api/plans/[id]/weekly': [
    'editor',
    {
      on: false,
      weekday: 4,
      minute: 960,
      zone: 'Europe/London',
      folder: 'planner',
      words: '',
      accept: 'wait',
      folio: null,
      formats: ['pdf'],
      out: 'out',
    },
    '/api/plans/{plan}/weekly',
  ],
  'DELETE /api/plans/[id]/weekly': ['editor', undefined, '/api/plans/{plan}/weekly'],
  'POST /api/plans/[id]/weekly/now': ['editor', undefined, '/api/plans/{plan}/weekly/now'],
};

const filled = (text: string): string => text.replace(/\{(\w+)\}/g, (_, name: string) => ids[name] ?? NOBODY);

/** Asks a route with what it understands. */
function tryRoute(asker: Asker, route: string): Promise<{ status: number; body: string }> {
  const [, body, path] = ROUTES[route]!;
  const [method, own] = route.split(' ') as [string, string];
  const isForm = body === FORM;
  const sent = body === undefined || isForm ? (body as string) : filled(JSON.stringify(body));
  return asker.ask(method, filled(path ?? own), sent, {
    'If-Match': '"1"',
    ...(isForm && { 'Content-Type': `multipart/form-data; boundary=${BOUNDARY}` }),
  });
}

/** What may not be in any answer to who has no business here. */
const SECRETS = ['Saltmere', 'Toe piling', 'Half the wall units set', 'ada@saltmere.example'];

/** An answer that holds nothing. */
const NOTHING = /^(\[\]|\{"\w+":\[\]\}|\{"undo":null,"redo":null\})$/;

/** All that the workspace of the owner holds, to be compared. */
async function state(): Promise<string> {
  const tables = ['plan', 'edition', 'exhibit', 'folio', 'member', 'comment', 'shared_page', 'kept_book', 'kept_brief'];
  const parts = [];
  for (const table of [...tables, 'invitation', 'weekly_run', 'intake', 'workspace', 'starter', 'arrangement']) {
    // How often a plan was looked at is no change of it.
    const { rows } = await server.pool.query(
      `select md5(string_agg(t::text, '|' order by t::text)) as own from ${table} t`,
    );
    parts.push(`${table}:${rows[0].own}`);
  }
  return parts.join('\n');
}

beforeAll(async () => {
  server = await ownServer('clembo_roles');
  owner = await firstOwner(server);
  const [plan] = await owner.get<{ id: string }[]>('GET', '/api/plans?find=sea');
  ids.plan = plan!.id;
  const one = async (text: string): Promise<string> => (await server.pool.query<{ id: string }>(text)).rows[0]!.id;
  ids.workspace = await one('select id from workspace limit 1');
  ids.exhibit = await one(`select id from exhibit where plan_id = '${ids.plan}' order by position limit 1`);
  ids.edition = await one(`select id from edition where plan_id = '${ids.plan}' and not working limit 1`);
  ids.model = await one(`select id from build_model where plan_id = '${ids.plan}' limit 1`);
  ids.account = await one("select id from person where name = 'Ada Reed'");
  ids.folio = (await owner.get<{ id: string }>('POST', '/api/folios', { name: 'Saltmere board' })).id;
  await owner.get('POST', '/api/books', { name: 'Saltmere trades', field: { id: 'b', name: 'Trades', values: [] } });
  ids.book = await one('select id from kept_book limit 1');
  await owner.get('POST', '/api/briefs', { name: 'Saltmere brief', brief: { kind: 'timeline' }, fields: {} });
  ids.brief = await one('select id from kept_brief limit 1');
  ids.shared = (
    await owner.get<{ id: string }>('POST', `/api/plans/${ids.plan}/shared`, {
      what: { exhibit: ids.exhibit },
      lay: 'pages',
      frozen: null,
      until: null,
      password: null,
      origins: [],
    })
  ).id;
  ids.comment = (
    await owner.get<{ id: string }>('POST', `/api/plans/${ids.plan}/comments`, { text: 'Saltmere is late' })
  ).id;
  ids.job = (await owner.get<{ job: string }>('POST', `/api/plans/${ids.plan}/file`, { format: 'csv' })).job;
  const taken = await owner.get<{ intake: string; job: string }>('POST', '/api/intakes', {
    text: 'ID,Name,Start\nX1,Saltmere,2026-01-05',
    plan: ids.plan,
  });
  ids.intake = taken.intake;
  const reading = taken.job;
  for (let after = 0, state = ''; !['done', 'failed'].includes(state); )
    ({ revision: after, state } = await owner.get<{ revision: number; state: string }>(
      'GET',
      `/api/jobs/${reading}?after=${after}`,
    ));
  await owner.get('POST', '/api/invitations', { email: 'later@saltmere.example', role: 'viewer' });
  ids.invitation = await one('select id from invitation limit 1');
  people.editor = await joined(server, owner, 'Ed Tor', 'editor');
  people.commenter = await joined(server, owner, 'Com Menter', 'commenter');
  people.viewer = await joined(server, owner, 'Vi Ewer', 'viewer');
  people.stranger = await stranger(server, owner);
  // A guest of another plan of the workspace: what is of this one is not for them.
  const [museum] = await owner.get<{ id: string }[]>('GET', '/api/plans?find=museum');
  ids.museum = museum!.id;
  people.guest = await joined(server, owner, 'Gu Est', 'editor', museum!.id);
}, 120_000);
afterAll(() => server.stop());

test('every route is walked here, and none that is not there', () => {
  expect(Object.keys(ROUTES).sort()).toEqual(allRoutes().sort());
});

test('whoever is not signed in gets nothing of any route but those for everybody', async () => {
  const before = await state();
  for (const [route, [who]] of Object.entries(ROUTES)) {
    const { status, body } = await tryRoute(new Asker(server.address), route);
    if (who !== 'anybody') expect(`${route} ${status}`).toBe(`${route} 401`);
    for (const secret of SECRETS) expect(`${route}: ${body}`).not.toContain(secret);
  }
  expect(await state()).toBe(before);
}, 120_000);

describe.each(['stranger', 'guest'])('a %s', (name) => {
  test('sees and changes nothing of a plan of others, whatever ids they know', async () => {
    const before = await state();
    for (const [route, [who, , path]] of Object.entries(ROUTES)) {
      if (who === 'anybody') continue;
      // What belongs to one's own workspace is one's own.
      const isOwn = !/\{\w+\}/.test(`${path ?? ''}${JSON.stringify(ROUTES[route]![1] ?? '')}`);
      if (isOwn && name === 'stranger') continue;
      if (route.endsWith('/api/session') || route.endsWith('/api/me')) continue;
      const { status, body } = await tryRoute(people[name]!, route);
      for (const secret of SECRETS) expect(`${route}: ${body}`).not.toContain(secret);
      // What nobody else asked for cannot be cancelled: it is only said that nothing was.
      if (route === 'DELETE /api/jobs/[id]') expect(body).toBe('{"cancelled":false}');
      else if (route.startsWith('GET') && NOTHING.test(body)) continue;
      else if (!isOwn) expect(`${route} ${[403, 404].includes(status) ? 'refused' : status}`).toBe(`${route} refused`);
    }
    expect(await state()).toBe(before);
  }, 120_000);
});

const RANK: Who[] = ['viewer', 'commenter', 'editor', 'owner'];

describe.each(['viewer', 'commenter', 'editor'])('a %s of the workspace', (name) => {
  test('may do what is for them, and nothing more', async () => {
    const rank = RANK.indexOf(name as Who);
    const before = await state();
    for (const [route, [who]] of Object.entries(ROUTES)) {
      const wanted = RANK.indexOf(who);
      if (wanted < 0 || wanted <= rank) continue;
      const { status } = await tryRoute(people[name]!, route);
      expect(`${route} ${[403, 404].includes(status) ? 'refused' : status}`).toBe(`${route} refused`);
    }
    expect(await state()).toBe(before);
    for (const [route, [who]] of Object.entries(ROUTES)) {
      if (who !== 'viewer' || /\/api\/jobs|DELETE/.test(route) || route.includes('sources')) continue;
      const { status } = await tryRoute(people[name]!, route);
      expect(`${route} ${status === 409 || status === 422 || status === 404 ? 200 : status}`).toBe(`${route} 200`);
    }
  }, 120_000);

  test('does not get what others had written for themselves', async () => {
    expect((await people[name]!.ask('GET', `/api/jobs/${ids.job}`)).status).toBe(404);
    expect((await people[name]!.ask('GET', `/api/jobs/${ids.job}/file`)).status).toBe(404);
  });
});

test('a guest works on their one plan, and finds no other', async () => {
  const guest = people.guest!;
  expect(await guest.get<unknown[]>('GET', '/api/plans?find=sea')).toEqual([]);
  const { version } = await guest.get<{ version: number }>('GET', `/api/plans/${ids.museum}`);
  await guest.get('PATCH', `/api/plans/${ids.museum}`, {
    version,
    command: { do: 'setPlan', settings: { name: 'Museum move, by a guest' } },
  });
  expect((await guest.ask('POST', '/api/plans', { name: 'Mine', from: null })).status).toBe(403);
  const { body } = await guest.ask('GET', '/');
  expect(body).toContain('by a guest');
  expect(body).not.toContain('Saltmere');
});

test('a role in one plan holds there, more or less than in the workspace', async () => {
  const account = (await server.pool.query("select id from person where name = 'Ed Tor'")).rows[0].id as string;
  await owner.get('PATCH', `/api/people/${account}`, { planId: ids.plan, role: 'viewer' });
  const { version } = await people.editor!.get<{ version: number }>('GET', `/api/plans/${ids.plan}`);
  const change = { version, command: { do: 'setPlan', settings: { name: 'Saltmere sea wall' } } };
  expect((await people.editor!.ask('PATCH', `/api/plans/${ids.plan}`, change)).status).toBe(403);
  expect((await tryRoute(people.editor!, 'PATCH /api/exhibits/[id]')).status).toBe(403);
  expect((await people.editor!.ask('DELETE', `/api/shared/${ids.shared}`)).status).toBe(403);
  await owner.get('PATCH', `/api/people/${account}`, { planId: ids.plan, role: null });
  expect((await people.editor!.ask('PATCH', `/api/plans/${ids.plan}`, change)).status).toBe(200);
});

describe('attacks', () => {
  test('a session that was known before is not the one after signing in; signing out ends it', async () => {
    const planted = 'clembo.session_token=planted.by-somebody-else';
    const answer = await fetch(`${server.address}/api/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Cookie: planted },
      body: JSON.stringify({ email: 'ada@saltmere.example', password: PASSWORD }),
    });
    const cookie = answer.headers.getSetCookie().find((c) => c.startsWith('clembo.session_token='))!;
    expect(cookie).not.toContain('planted');
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Lax/i);
    const own = { Cookie: cookie.split(';')[0]! };
    expect((await fetch(`${server.address}/api/me`, { headers: own })).status).toBe(200);
    await fetch(`${server.address}/api/session`, { method: 'DELETE', headers: own });
    expect((await fetch(`${server.address}/api/me`, { headers: own })).status).toBe(401);
    expect((await fetch(`${server.address}/api/me`, { headers: { Cookie: planted } })).status).toBe(401);
  });

  test.each([
    ['another site', { Origin: 'https://evil.example' }],
    ['a page of another site', { 'Sec-Fetch-Site': 'cross-site' }],
    ['a part of the same domain', { 'Sec-Fetch-Site': 'same-site' }],
  ])('the cookies of a visitor do not work for %s', async (_, headers) => {
    const { status } = await owner.ask(
      'DELETE',
      `/api/plans/${ids.plan}`,
      undefined,
      headers as Record<string, string>,
    );
    expect(status).toBe(403);
  });

  test.each([
    'https://evil.example/',
    '//evil.example',
    '/\\evil.example',
    '/%09/evil.example',
    'javascript:alert(1)',
    '/sign-in?to=//evil.example',
  ])('signing in does not lead to %s', async (to) => {
    const { status, headers } = await owner.ask('GET', `/sign-in?to=${encodeURIComponent(to)}`);
    expect(status).toBe(307);
    const target = new URL(headers.get('location')!, server.address);
    expect(target.origin).toBe(server.address);
  });

  test('who is known and who is not are told the same, signing in and asking for a password', async () => {
    const nobody = new Asker(server.address);
    const known = await nobody.ask('POST', '/api/session', { email: 'vi.ewer@saltmere.example', password: 'wrong' });
    const unknown = await nobody.ask('POST', '/api/session', { email: 'no.one@saltmere.example', password: 'wrong' });
    expect([unknown.status, unknown.body]).toEqual([known.status, known.body]);
    const mailed = await nobody.ask('POST', '/api/password', { email: 'vi.ewer@saltmere.example' });
    const not = await nobody.ask('POST', '/api/password', { email: 'no.one@saltmere.example' });
    expect([not.status, not.body]).toEqual([mailed.status, mailed.body]);
  });

  test('passwords are not guessed: after some tries nobody is let in for a while, also not with the right one', async () => {
    const statuses = [];
    for (let k = 0; k < 10; k++)
      statuses.push(
        (
          await new Asker(server.address).ask('POST', '/api/session', {
            email: 'com.menter@saltmere.example',
            password: `no ${k}`,
          })
        ).status,
      );
    expect(statuses.slice(0, 8)).toEqual(Array(8).fill(403));
    expect(statuses.slice(8)).toEqual([429, 429]);
    const { status } = await new Asker(server.address).ask('POST', '/api/session', {
      email: 'com.menter@saltmere.example',
      password: PASSWORD,
    });
    expect(status).toBe(429);
  });

  test('a new password comes by mail, once, and ends all other sessions', async () => {
    const asker = new Asker(server.address);
    await asker.get('POST', '/api/password', { email: 'vi.ewer@saltmere.example' });
    const token = await secretFor(server, 'vi.ewer@saltmere.example');
    await asker.get('PUT', '/api/password', { token, password: 'quite another password' });
    expect((await people.viewer!.ask('GET', '/api/me')).status).toBe(401);
    expect((await asker.ask('PUT', '/api/password', { token, password: 'a third password' })).status).toBe(404);
    await asker.get('POST', '/api/session', { email: 'vi.ewer@saltmere.example', password: 'quite another password' });
  });

  test('an invitation is for its address, for once, and cannot be guessed', async () => {
    await owner.get('POST', '/api/invitations', { email: 'only.me@saltmere.example', role: 'owner' });
    const token = await secretFor(server, 'only.me@saltmere.example');
    const other = await people.editor!.ask('POST', '/api/invitations/taken', { token });
    expect(other.status).toBe(403);
    expect(other.body).toContain('only.me@saltmere.example');
    const { rows } = await server.pool.query('select digest from invitation');
    expect(JSON.stringify(rows)).not.toContain(token);
    expect((await people.editor!.ask('POST', '/api/invitations/taken', { token: rows[0].digest })).status).toBe(404);
  });

  test('nobody takes over a workspace that has an owner, and no owner leaves it without one', async () => {
    const { status } = await new Asker(server.address).ask('POST', '/api/people', {
      name: 'Late Comer',
      email: 'late@saltmere.example',
      password: PASSWORD,
    });
    expect(status).toBe(403);
    const self = await owner.ask('PATCH', `/api/people/${ids.account}`, { role: 'viewer' });
    expect([self.status, self.body]).toEqual([403, expect.stringContaining('needs an owner')]);
  });

  test.each([
    ['<script>alert(1)</script>', 422],
    ['<img src=x onerror=alert(1)>', 422],
  ])('a name that would be %s is refused', async (name) => {
    const answer = await owner.ask('PATCH', '/api/me', { name });
    expect(answer.status).toBe(400);
  });

  test('what is written into names and comments is text wherever it is shown', async () => {
    const script = '"><script>document.title="owned"</script>';
    await owner.get('POST', `/api/plans/${ids.plan}/comments`, { text: script });
    const made = await owner.get<{ id: string }>('POST', `/api/plans/${ids.plan}/exhibits`, {
      name: script,
      brief: { kind: 'timeline', title: script },
    });
    const shared = await owner.get<{ address: string }>('POST', `/api/plans/${ids.plan}/shared`, {
      what: { exhibit: made.id },
      lay: 'pages',
      frozen: null,
      until: null,
      password: null,
      origins: [],
    });
    const page = await (await fetch(shared.address)).text();
    expect(page).not.toContain('<script>document');
    expect(page).toContain('&lt;script&gt;document');
    const { body } = await owner.ask('GET', `/plans/${ids.plan}/show`);
    expect(body).not.toContain('"><script>document');
  });

  test.each([
    ['a web page', 'note.txt.html', '<!doctype html><script>alert(1)</script>'],
    ['a drawing with a script', 'plan.svg', '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'],
    ['a program under the name of a picture', 'photo.png', '\x7fELF\x02\x01\x01\0\0\0\0\0\0\0\0\0'],
    ['bytes under the name of a text', 'notes.txt', 'a\0b'],
  ])('%s is not taken beside a comment', async (_, name, content) => {
    const form = new FormData();
    form.set('file', new Blob([content]), name);
    const answer = await fetch(`${server.address}/api/comments/${ids.comment}/files`, {
      method: 'POST',
      headers: { Cookie: owner.sent() },
      body: form,
    });
    expect(answer.status).toBe(415);
  });

  test('a file beside a comment is only ever handed over to be kept, whatever it is called', async () => {
    const form = new FormData();
    form.set('file', new Blob(['<script>alert(1)</script> and some words']), '../../../etc/"passwd\r\nX: y.txt');
    const put = await fetch(`${server.address}/api/comments/${ids.comment}/files`, {
      method: 'POST',
      headers: { Cookie: owner.sent() },
      body: form,
    });
    expect(put.status).toBe(200);
    const file = await owner.ask('GET', `/api/comments/${ids.comment}/files/1`);
    expect(file.headers.get('content-type')).toBe('text/plain; charset=utf-8');
    expect(file.headers.get('content-disposition')).toMatch(/^attachment; filename\*=UTF-8''[\w%.-]+$/);
    expect(file.headers.get('content-security-policy')).toBe("default-src 'none'; frame-ancestors 'none'; sandbox");
    expect(file.headers.get('x-content-type-options')).toBe('nosniff');
  });

  test('what was done is not changed afterwards, by nobody', async () => {
    for (const words of ["update deed set words = 'nothing'", 'delete from deed', 'truncate deed'])
      await expect(server.pool.query(words)).rejects.toThrow('not changed afterwards');
  });
});
