import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { request } from 'node:http';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { openBrowser, openPage } from '../support/browser';
import { address } from '../support/desk';
import { awaitJob, takeIn, upload } from '../support/api';
import { seeded } from '../support/random';

let browser: Browser;
let close: () => Promise<void>;
let planId: string;
let exhibitId: string;

const json = { 'Content-Type': 'application/json' };
const nobody = '00000000-0000-4000-8000-000000000000';

beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  planId = await takeIn('safety.csv', 'Name,Start,Finish\nQuay,2026-03-02,2026-03-06\nSlip,2026-03-09,2026-03-13\n');
  const made = await fetch(`${address}/api/plans/${planId}/exhibits`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ name: 'Safe', brief: { kind: 'timeline' } }),
  });
  exhibitId = ((await made.json()) as { id: string }).id;
});
afterAll(() => close());

/** A request with headers that browsers do not let a page set. */
function ask(
  path: string,
  headers: Record<string, string>,
  method = 'GET',
  body?: string,
): Promise<{ status: number; text: string; headers: Record<string, unknown> }> {
  const { hostname, port } = new URL(address);
  return new Promise((resolve, reject) => {
    const sent = request({ hostname, port, path, method, headers }, (answer) => {
      let text = '';
      answer.setEncoding('utf8');
      answer.on('data', (d) => {
        text += d;
      });
      answer.on('end', () => resolve({ status: answer.statusCode!, text, headers: answer.headers }));
    });
    sent.on('error', reject);
    sent.end(body);
  });
}

describe('other sites', () => {
  const host = new URL(address).host;
  test.each([
    ['/', 'a page'],
    ['/api/plans/PLAN', 'the data of a plan'],
  ])('cannot read %s (%s) under a name of their own that leads here', async (path) => {
    const answer = await ask(path.replace('PLAN', planId), { Host: 'evil.example' });
    expect(answer.status).toBe(403);
    expect(answer.text).toContain('not known under that name');
    expect(answer.text).not.toContain('Quay');
    expect((await ask(path.replace('PLAN', planId), { Host: `localhost:${new URL(address).port}` })).status).toBe(200);
  });

  test.each<[string, Record<string, string>]>([
    ['a foreign origin', { Origin: 'https://evil.example' }],
    ['another port of this machine', { Origin: 'http://127.0.0.1:1' }],
    ['no origin that can be named', { Origin: 'null' }],
    ['a request that says it crosses sites', { 'Sec-Fetch-Site': 'cross-site', 'Sec-Fetch-Mode': 'no-cors' }],
    ['a neighbouring site', { 'Sec-Fetch-Site': 'same-site', 'Sec-Fetch-Mode': 'cors' }],
    ['a form that is sent from elsewhere', { 'Sec-Fetch-Site': 'cross-site', 'Sec-Fetch-Mode': 'navigate' }],
  ])('cannot write: %s', async (_, headers) => {
    const command = JSON.stringify({ version: 1, command: { do: 'setPlan', settings: { name: 'Theirs' } } });
    const wrote = await ask(`/api/plans/${planId}`, { Host: host, ...json, ...headers }, 'PATCH', command);
    expect(wrote.status).toBe(403);
    expect((await ask(`/api/plans/${planId}`, { Host: host, ...headers }, 'DELETE')).status).toBe(403);
    const { plan } = (await (await fetch(`${address}/api/plans/${planId}`)).json()) as { plan: { name: string } };
    expect(plan.name).toBe('safety');
  });

  test('may link to a page, but not put it into a frame', async () => {
    const answer = await ask('/', { Host: host, 'Sec-Fetch-Site': 'cross-site', 'Sec-Fetch-Mode': 'navigate' });
    expect(answer.status).toBe(200);
    expect(answer.headers['content-security-policy']).toContain("frame-ancestors 'none'");
    expect(answer.headers['x-frame-options']).toBe('DENY');
  });
});

test('pages run nothing but what they say they run, and nothing is missing for it', async () => {
  const page = await openPage(browser, address);
  const refused: string[] = [];
  page.on('console', (m) => /Content Security Policy/i.test(m.text()) && refused.push(m.text()));
  await page.goto(`${address}/plans/${planId}/show/${exhibitId}`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('[data-testid="page"] svg');
  // What text on a page could bring with it does not run.
  const ran = await page.evaluate(async () => {
    document.body.insertAdjacentHTML('beforeend', '<img src="x" onerror="window.injected = true">');
    await new Promise((r) => setTimeout(r, 500));
    return 'injected' in window;
  });
  expect(ran).toBe(false);
  expect(refused.length).toBe(1);
  expect(refused[0]).toContain('inline event handler');
  await page.close();
});

describe('what is sent is checked before it is held', () => {
  const patch = (path: string, body: string, headers: Record<string, string> = json) =>
    fetch(address + path, { method: 'PATCH', headers: { 'If-Match': '"1"', ...headers }, body });

  test('a brief of many megabytes is refused, and so is one that does not say how large it is', async () => {
    const huge = JSON.stringify({ brief: { title: 'x'.repeat(3_000_000) } });
    const refused = await patch(`/api/exhibits/${exhibitId}`, huge);
    expect(refused.status).toBe(413);
    expect(((await refused.json()) as { error: string }).error).toContain('larger than 1 MB');
    const stream = new ReadableStream({
      start(c) {
        c.enqueue(new TextEncoder().encode(huge));
        c.close();
      },
    });
    const streamed = await fetch(`${address}/api/exhibits/${exhibitId}`, {
      method: 'PATCH',
      headers: { ...json, 'If-Match': '"1"' },
      body: stream,
      duplex: 'half',
    } as RequestInit);
    expect(streamed.status).toBe(413);
  });

  test('a brief with a list or a text beyond any use is refused', async () => {
    for (const brief of [{ title: 'x'.repeat(5000) }, { lanes: Array(1000).fill('phase') }, { rows: 'sideways' }])
      expect((await patch(`/api/exhibits/${exhibitId}`, JSON.stringify({ brief }))).status).toBe(400);
  });

  test('a request that is nested without end is refused', async () => {
    const deep = `${'{"do":"all","commands":['.repeat(5000)}${']}'.repeat(5000)}`;
    const answer = await patch(`/api/plans/${planId}`, `{"version":1,"command":${deep}}`);
    expect(answer.status).toBe(400);
    expect(((await answer.json()) as { error: string }).error).toContain('nested more than 60 deep');
  });

  test('JSON that does not say that it is JSON is refused', async () => {
    const answer = await patch(`/api/exhibits/${exhibitId}`, '{"name":"x"}', { 'Content-Type': 'text/plain' });
    expect(answer.status).toBe(415);
  });

  test('a change that does not say on which state it was made is refused', async () => {
    const answer = await fetch(`${address}/api/exhibits/${exhibitId}`, {
      method: 'PATCH',
      headers: json,
      body: '{"name":"x"}',
    });
    expect(answer.status).toBe(428);
  });

  test.each([
    ['the zero character', '{"name":"a\\u0000b"}'],
    ['half a character', '{"name":"a\\ud800b"}'],
  ])('%s is refused with its place', async (_, body) => {
    const answer = await patch(`/api/exhibits/${exhibitId}`, body);
    expect(answer.status).toBe(400);
    expect(((await answer.json()) as { error: string }).error).toContain('name holds a character');
  });

  test('text that only looks like the zero character is kept as it was typed', async () => {
    const { plan, version } = (await (await fetch(`${address}/api/plans/${planId}`)).json()) as {
      plan: { activities: { ref: string; name: string; notes: string }[] };
      version: number;
    };
    const { ref } = plan.activities[0]!;
    const text = 'C:\\u0000 \\\\u0000 \\n';
    const change = { do: 'changeActivity', ref, part: { notes: text, codes: { tricky: text } } };
    const field = { do: 'setCodeField', field: { id: 'tricky', name: 'Tricky' }, before: null };
    const command = { do: 'all', commands: [field, change] };
    expect((await patch(`/api/plans/${planId}`, JSON.stringify({ version, command }))).status).toBe(200);
    const after = (await (await fetch(`${address}/api/plans/${planId}`)).json()) as {
      plan: { activities: { notes: string; codes: { tricky: string } }[] };
    };
    expect(after.plan.activities[0]).toMatchObject({ notes: text, codes: { tricky: text } });
  });

  test.each([
    '/api/plans/%E0%A4%A',
    '/plans/%00/show',
    '/api/plans/%00',
    '/plans/..%2f..%2f/show',
    '/api/exhibits/%ff',
  ])('the path %s leads nowhere, and nothing breaks', async (path) => {
    const answer = await ask(path, { Host: new URL(address).host });
    expect([400, 404, 405]).toContain(answer.status);
  });
});

describe('files that hurt', () => {
  const folder = 'tests/fuzz/hostile';
  test.each(readdirSync(folder))('%s is read or refused in words, and leaves nothing behind', async (name) => {
    const began = Date.now();
    const { intake, job } = await upload(name, readFileSync(join(folder, name)));
    const { state, error } = await awaitJob(job);
    expect(Date.now() - began).toBeLessThan(10_000);
    if (state === 'failed') {
      expect(error).toMatch(/^.*(xlsx|csv|json).* .*\./);
      expect((await fetch(`${address}/api/intakes/${intake}`)).status).toBe(404);
    } else {
      expect(state).toBe('done');
      expect((await fetch(`${address}/api/intakes/${intake}`, { method: 'DELETE' })).status).toBe(200);
    }
  });

  test('a large file is read while others are answered as before, and can be cancelled', async () => {
    const row = (i: number) =>
      `A${i};Activity number ${i};05/01/2026;16/01/2026;10;Phase ${i % 9};A${Math.max(0, i - 3)}`;
    const text = `ID;Name;Start;Finish;Days;Phase;Preds\n${Array.from({ length: 120_000 }, (_, i) => row(i)).join('\n')}\n`;
    const { intake, job } = await upload('large.csv', Buffer.from(text));
    const waits: number[] = [];
    let state = 'waiting';
    while (waits.length < 40 && state !== 'done') {
      const began = performance.now();
      await (await fetch(`${address}/api/plans/${planId}`)).text();
      waits.push(performance.now() - began);
      state = ((await (await fetch(`${address}/api/jobs/${job}`)).json()) as { state: string }).state;
      await new Promise((r) => setTimeout(r, 50));
    }
    expect(waits.length).toBeGreaterThan(10);
    expect(waits.sort((a, b) => a - b)[Math.floor(waits.length * 0.95)]).toBeLessThan(300);
    await fetch(`${address}/api/jobs/${job}`, { method: 'DELETE' });
    expect(['cancelled', 'done']).toContain((await awaitJob(job)).state);
    await fetch(`${address}/api/intakes/${intake}`, { method: 'DELETE' });
  });
});

describe('what is asked for more than once', () => {
  test('an intake that is posted three times at once is one plan', async () => {
    const before = await plans();
    const { job } = await upload('Thrice.csv', Buffer.from('Name,Start,Finish\nA,2026-03-02,2026-03-06\n'));
    const { intakeId } = (await awaitJob(job)).result as { intakeId: string };
    const made = await Promise.all(
      [1, 2, 3].map(async () => {
        const answer = await fetch(`${address}/api/intakes/${intakeId}/plan`, {
          method: 'POST',
          headers: json,
          body: JSON.stringify({ name: 'Thrice' }),
        });
        return (await awaitJob(((await answer.json()) as { job: string }).job)).result as { planId: string };
      }),
    );
    expect(new Set(made.map((m) => m.planId)).size).toBe(1);
    expect((await plans()).length).toBe(before.length + 1);
  });

  const plans = async (): Promise<string[]> => [
    ...new Set((await (await fetch(address)).text()).match(/plans\/[0-9a-f-]{36}\/show/g)),
  ];
});

test('the process that does the jobs is killed in the middle: another one does the job', async () => {
  const row = (i: number) => `A${i},Activity number ${i},2026-01-05,2026-01-16,Phase ${i % 9}`;
  const text = `ID,Name,Start,Finish,Phase\n${Array.from({ length: 60_000 }, (_, i) => row(i)).join('\n')}\n`;
  const { intake, job } = await upload('Killed.csv', Buffer.from(text));
  for (let k = 0; k < 200; k++) {
    const { state } = (await (await fetch(`${address}/api/jobs/${job}`)).json()) as { state: string };
    if (state === 'running') break;
    await new Promise((r) => setTimeout(r, 20));
  }
  process.kill(processOf('worker/bin/worker.mjs'), 'SIGKILL');
  expect(await awaitJob(job)).toMatchObject({ state: 'done', result: { intakeId: intake } });
  const { preview } = (await (await fetch(`${address}/api/intakes/${intake}`)).json()) as {
    preview: { rowsTaken: number };
  };
  expect(preview.rowsTaken).toBe(60_000);
  expect((await fetch(`${address}/api/jobs/${nobody}`)).status).toBe(404);
  await fetch(`${address}/api/intakes/${intake}`, { method: 'DELETE' });
}, 180_000);

/** How often each is killed; more of it by hand (CLEMBO_KILLS=50). */
const KILLS = Number(process.env.CLEMBO_KILLS ?? 2);

describe.each([
  ['the application', () => processOf('next-server', `CLEMBO_PORT=${new URL(address).port}`)],
  [
    'the database',
    () => Number(readFileSync(join(process.env.CLEMBO_CLUSTER!, 'cluster/postmaster.pid'), 'utf8').split('\n')[0]),
  ],
])('%s is killed while people work', (_, find) => {
  test(
    'it comes back by itself, and what was acknowledged is there',
    async () => {
      // It may be away just then: whoever reads asks again.
      const read = async () => {
        type Found = { version: number; plan: { activities: { ref: string; name: string }[] } };
        for (let k = 0; ; k++) {
          const found = await fetch(`${address}/api/plans/${planId}`).catch(() => null);
          if (found?.ok) return (await found.json()) as Found;
          if (k === 200) throw new Error('it did not come back');
          await new Promise((r) => setTimeout(r, 200));
        }
      };
      const start = await read();
      const { ref } = start.plan.activities[1]!;
      let { version } = start;
      let acknowledged = 0;
      let failed = 0;
      const last = 40 + 20 * KILLS;
      let [killed, lastKill] = [0, 0];
      const random = seeded(KILLS);
      for (let n = 1; n <= last || killed < KILLS || acknowledged < n - 1; n++) {
        const sent = fetch(`${address}/api/plans/${planId}`, {
          method: 'PATCH',
          headers: json,
          body: JSON.stringify({ version, command: { do: 'changeActivity', ref, part: { name: `Name ${n}` } } }),
        }).catch(() => null);
        // In the middle of an edit; each time only once it works again, so that there is something to be lost. Whoever
        // watches over it gives up what ends again and again within a minute.
        const isDue = KILLS <= 3 || Date.now() - lastKill > 21_000;
        if (n >= 20 * (killed + 1) && killed < KILLS && acknowledged === n - 1 && isDue) {
          await new Promise((r) => setTimeout(r, random() * 12));
          process.kill(find(), 'SIGKILL');
          killed++;
          lastKill = Date.now();
        } else if (KILLS > 3) await new Promise((r) => setTimeout(r, 100));
        const answer = await sent;
        if (answer?.ok) {
          ({ version } = (await answer.json()) as { version: number });
          acknowledged = n;
          // What is said to be kept is there at once, also after it was killed.
          if (killed > 0 && n % 20 === 5)
            expect((await read()).plan.activities.find((a) => a.ref === ref)!.name).toBe(`Name ${n}`);
        } else {
          failed++;
          // It may have been kept although the answer was lost: whoever tries again looks first.
          if (answer?.status === 409) ({ version } = await read());
          await new Promise((r) => setTimeout(r, 200));
        }
        if (n > last + 300 * KILLS) throw new Error('it did not come back');
      }
      expect(killed).toBe(KILLS);
      // Some edits were cut off, or found nobody there: otherwise nothing was tried.
      expect(failed).toBeGreaterThanOrEqual(KILLS / 2);
      const { plan } = await read();
      expect(plan.activities.find((a) => a.ref === ref)!.name).toBe(`Name ${acknowledged}`);
    },
    60_000 + 60_000 * KILLS,
  );
});

/** A process of this run, told by its command and by the database that it works for. */
function processOf(command: string, more = ''): number {
  for (const pid of readdirSync('/proc').filter((p) => /^\d+$/.test(p))) {
    try {
      if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(command)) continue;
      const env = readFileSync(`/proc/${pid}/environ`, 'utf8').split('\0');
      if (!env.includes(`DATABASE_URL=${process.env.DATABASE_URL}`)) continue;
      if (more === '' || env.includes(more)) return Number(pid);
    } catch {}
  }
  throw new Error(`there is no ${command}`);
}
