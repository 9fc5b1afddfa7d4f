import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { request } from 'node:http';
import type { Browser, Page } from 'puppeteer-core';
import { openBrowser } from '../support/browser';
import { fill, shows } from '../support/forms';
import { type OwnServer, ownServer } from '../support/ownServer';
import { PASSWORD, secretFor } from '../support/people';

/** An application that other machines reach, under a name: nobody has anything of it without an account. */
const HOST = 'plans.saltmere.example';

let server: OwnServer;
let browser: Browser;
let close: () => Promise<void>;
beforeAll(async () => {
  server = await ownServer('clembo_beyond', HOST);
  ({ browser, close } = await openBrowser(HOST, 'elsewhere.example'));
}, 120_000);
afterAll(async () => {
  await close();
  await server.stop();
});

async function somebody(path: string): Promise<Page> {
  const page = await (await browser.createBrowserContext()).newPage();
  await page.goto(`${server.address}${path}`, { waitUntil: 'networkidle2' });
  return page;
}

/** Asks under any name, which a browser would not. */
const ask = (
  host: string,
  path: string,
  method = 'GET',
  body?: object,
): Promise<{ status: number; location: string; text: string }> =>
  new Promise((resolve, reject) => {
    const headers = { Host: host, ...(body && { 'Content-Type': 'application/json' }) };
    const sent = request({ hostname: '127.0.0.1', port: server.port, path, method, headers }, (answer) => {
      let text = '';
      answer.setEncoding('utf8');
      answer.on('data', (d) => {
        text += d;
      });
      answer.on('end', () =>
        resolve({ status: answer.statusCode!, location: String(answer.headers.location ?? ''), text }),
      );
    });
    sent.on('error', reject);
    sent.end(body && JSON.stringify(body));
  });

test('nobody sees anything before there is an account, by its name or on the machine itself', async () => {
  for (const host of [`${HOST}:${server.port}`, `127.0.0.1:${server.port}`]) {
    for (const path of ['/', '/people', '/history', '/mailbox']) {
      const { status, location } = await ask(host, path);
      expect([path, status, location]).toEqual([path, 307, expect.stringMatching(/^\/sign-in/)]);
    }
    for (const path of ['/api/plans?find=sea', '/api/people', '/api/workspace']) {
      const { status, text } = await ask(host, path);
      expect([path, status]).toEqual([path, 401]);
      expect(text).not.toContain('Saltmere');
    }
  }
  expect((await ask('elsewhere.example', '/sign-in')).status).toBe(403);
});

test('the first account is made by the address that is said when it starts, and by no other', async () => {
  const said = /made here: (\S+)/.exec(server.said)![1]!;
  expect(said.startsWith(`${server.address}/first?code=`)).toBe(true);
  const guess = { name: 'Eve Marsh', email: 'eve@saltmere.example', password: PASSWORD, code: 'A'.repeat(43) };
  for (const code of ['', guess.code])
    expect((await ask(HOST, '/api/people', 'POST', { ...guess, code })).status).toBe(403);
  const eve = await somebody('/first');
  await fill(eve, 'Eve Marsh', 'eve@saltmere.example', PASSWORD);
  await shows(eve, 'by the address that the server says when it starts');
  await eve.browserContext().close();

  const ada = await somebody(said.slice(server.address.length));
  await fill(ada, 'Ada Reed', 'ada@saltmere.example', PASSWORD);
  await shows(ada, 'Ask somebody in');
  // Her session is kept where scripts and other sites do not reach it.
  const cookies = await ada.browserContext().cookies();
  const session = cookies.find((c) => c.name.includes('session_token'))!;
  expect(session).toMatchObject({ httpOnly: true, sameSite: 'Lax', domain: HOST });
  await ada.goto(`${server.address}/`, { waitUntil: 'networkidle2' });
  await shows(ada, 'Saltmere sea wall');
  // The address has done its work.
  const again = { ...guess, code: new URL(said).searchParams.get('code') };
  expect((await ask(HOST, '/api/people', 'POST', again)).status).toBe(403);
  await ada.browserContext().close();
}, 90_000);

test('people sign in, and letters lead to its name', async () => {
  const ada = await somebody('/');
  expect(new URL(ada.url()).pathname).toBe('/sign-in');
  await fill(ada, 'ada@saltmere.example', PASSWORD);
  await shows(ada, 'Saltmere sea wall');
  const invited = await ada.evaluate(async () => {
    const answer = await fetch('/api/invitations', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ email: 'ben@saltmere.example', role: 'viewer', planId: null }),
    });
    return answer.status;
  });
  expect(invited).toBe(200);
  const { rows } = await server.pool.query<{ text: string }>('select text from mail where "to" = $1', [
    'ben@saltmere.example',
  ]);
  const token = await secretFor(server, 'ben@saltmere.example');
  expect(rows[0]!.text).toContain(`${server.address}/invited/${token}`);
  const ben = await somebody(`/invited/${token}`);
  await fill(ben, 'Ben Quay', PASSWORD);
  await shows(ben, 'Saltmere sea wall');
  await ben.browserContext().close();
  await ada.browserContext().close();
}, 90_000);
