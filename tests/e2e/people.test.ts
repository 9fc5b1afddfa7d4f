import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { createRequire } from 'node:module';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { openBrowser } from '../support/browser';
import { byName, changePart } from '../support/desk';
import { fill, press, shows } from '../support/forms';
import { type Asker, type OwnServer, ownServer } from '../support/ownServer';
import { joined, PASSWORD } from '../support/people';

const require = createRequire(import.meta.url);
const root = join(import.meta.dirname, '../..');

let server: OwnServer;
let browser: Browser;
let close: () => Promise<void>;
let ada: Page;
let ben: Page;
let planId: string;
/** The owner over the API, with the cookies of her browser. */
let owner: Pick<Asker, 'get'>;

/** Somebody with a browser of their own. */
async function somebody(path: string): Promise<Page> {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(path.startsWith('http') ? path : `${server.address}${path}`, { waitUntil: 'networkidle2' });
  return page;
}

const text = (page: Page, selector = 'main'): Promise<string> =>
  page.$eval(selector, (e) => (e as HTMLElement).innerText);
const goTo = (page: Page, path: string) => page.goto(`${server.address}${path}`, { waitUntil: 'networkidle2' });

async function faults(page: Page): Promise<string[]> {
  await page.evaluate(readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8'));
  return page.evaluate(async () => {
    const { axe } = window as unknown as {
      axe: { run(o: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> };
    };
    const { violations } = await axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa'] });
    return violations.map((v) => `${v.id}: ${v.nodes[0]!.html.slice(0, 200)}`);
  });
}

beforeAll(async () => {
  server = await ownServer('clembo_people');
  ({ browser, close } = await openBrowser());
}, 120_000);
/** Sites of others. */
const sites: Server[] = [];
afterAll(async () => {
  for (const own of sites) own.close();
  await close();
  await server.stop();
});

test('the first account is made where people are, and from then on everybody signs in', async () => {
  ada = await somebody('/people');
  expect(await faults(ada)).toEqual([]);
  await fill(ada, 'Ada Reed', 'ada@saltmere.example', PASSWORD);
  await shows(ada, 'Ask somebody in');
  expect(await text(ada)).toContain('Ada Reed (you)');
  owner = {
    get: async <T>(method: string, path: string, body?: unknown): Promise<T> =>
      (await ada.evaluate(
        async (m, p, b) => {
          const answer = await fetch(p, {
            method: m,
            ...(b !== undefined && { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(b) }),
          });
          if (!answer.ok) throw new Error(`${m} ${p}: ${answer.status} ${await answer.text()}`);
          return answer.json();
        },
        method,
        path,
        body,
      )) as T,
  };
  planId = (await owner.get<{ id: string }[]>('GET', '/api/plans?find=sea'))[0]!.id;
  const other = await somebody(`/plans/${planId}/show`);
  expect(new URL(other.url()).pathname).toBe('/sign-in');
  expect(await faults(other)).toEqual([]);
  await fill(other, 'ada@saltmere.example', 'not the password');
  await shows(other, 'are not right');
  await other.$eval('[name="password"]', (e) => ((e as HTMLInputElement).value = ''));
  await other.type('[name="password"]', PASSWORD);
  await other.keyboard.press('Enter');
  // Back to where they wanted to go.
  await other.waitForFunction((id) => location.pathname === `/plans/${id}/show`, {}, planId);
  await other.browserContext().close();
});

test('somebody is asked in by mail, joins by keys, and is among the people', async () => {
  await ada.type('[name="email"]', 'ben@saltmere.example');
  await ada.keyboard.press('Enter');
  await shows(ada, 'ben@saltmere.example as editor');
  expect(await faults(ada)).toEqual([]);
  await goTo(ada, '/mailbox');
  expect(await faults(ada)).toEqual([]);
  const address = await ada.$eval('main li a', (e) => (e as HTMLAnchorElement).href);
  expect(address.startsWith(`${server.address}/invited/`)).toBe(true);
  ben = await somebody(address);
  expect(await text(ben)).toContain('As editor, with ben@saltmere.example');
  expect(await faults(ben)).toEqual([]);
  await fill(ben, 'Ben Quay', PASSWORD);
  await shows(ben, 'Your plans');
  // The invitation holds no more.
  const again = await somebody(address);
  expect(await text(again)).toContain('holds no more');
  await again.browserContext().close();
  await goTo(ada, '/people');
  expect(await text(ada)).toContain('Ben Quay');
});

describe('a comment beside an activity', () => {
  let ref: string;

  test('names somebody, has a file beside it, and is said by keys', async () => {
    ref = (
      await server.pool.query(
        `select a.ref from activity a join edition e on e.id = a.edition_id
         where e.plan_id = $1 and e.working and a.name = 'Half the wall units set'`,
        [planId],
      )
    ).rows[0].ref;
    await goTo(ben, `/plans/${planId}/structure?ref=${encodeURIComponent(ref)}&margin`);
    const box = (await ben.waitForSelector('textarea[aria-label="Say something"]'))!;
    await box.focus();
    await ben.keyboard.type('Are the cranes booked, @ada');
    await ben.waitForSelector('[role="option"]');
    await ben.keyboard.press('Enter');
    await ben.keyboard.type('? See the sheet.');
    expect(await box.evaluate((e) => (e as HTMLTextAreaElement).value)).toBe(
      'Are the cranes booked, @Ada Reed ? See the sheet.',
    );
    const folder = mkdtempSync(join(tmpdir(), 'clembo-comment-'));
    writeFileSync(join(folder, 'cranes.csv'), 'Crane,From\nNorth,2026-12-01\n');
    const picker = (await ben.$('aside input[type="file"]')) as ElementHandle<HTMLInputElement>;
    await picker.uploadFile(join(folder, 'cranes.csv'));
    await box.focus();
    await ben.keyboard.down('Control');
    await ben.keyboard.press('Enter');
    await ben.keyboard.up('Control');
    await ben.waitForFunction(() => document.querySelector('[data-comment] a[download]') !== null);
    expect(await text(ben, '[data-comment]')).toContain('cranes.csv');
    rmSync(folder, { recursive: true });
  });

  test('is told to whom it names, leads there, is answered and done', async () => {
    await goTo(ada, '/');
    await ada.waitForSelector('[aria-label="Account of Ada Reed, 1 new for you"]');
    await ada.focus('[aria-label^="Account of Ada Reed"]');
    await ada.keyboard.press('Enter');
    await ada.waitForSelector('[role="menuitem"]');
    expect(await faults(ada)).toEqual([]);
    await ada.keyboard.press('Enter');
    await ada.waitForFunction(() => location.pathname.endsWith('/structure'));
    await ada.waitForSelector('aside [data-comment]');
    await press(ada, 'aside [data-comment] button::-p-text(Answer)');
    await ada.waitForSelector('[aria-label="Your answer"]');
    await ada.type('[aria-label="Your answer"]', 'Both, from December on.');
    await press(ada, 'aside [data-comment] button::-p-text(Say it)');
    await shows(ada, 'Both, from December on.');
    await press(ada, 'aside [data-comment] button::-p-text(Done)');
    await shows(ada, 'Done, says Ada Reed');
    // Who asked is told of the answer; the file is there to be taken.
    await goTo(ben, '/');
    await ben.waitForSelector('[aria-label="Account of Ben Quay, 1 new for you"]');
    const { rows } = await server.pool.query('select type, convert_from(content, $1) as content from comment_file', [
      'UTF8',
    ]);
    expect(rows).toEqual([{ type: 'text/plain; charset=utf-8', content: 'Crane,From\nNorth,2026-12-01\n' }]);
  });

  test('is seen with all others of the plan, beside every page', async () => {
    const { rows } = await server.pool.query('select id from exhibit where plan_id = $1 order by position limit 1', [
      planId,
    ]);
    await goTo(ben, `/plans/${planId}/show/${rows[0].id}`);
    await (await byName(ben, 'button', 'Comments: 0 open')).asLocator().click();
    await ben.type('[aria-label="Say something about this page"]', 'For the board on Monday');
    await press(ben, 'aside button::-p-text(Say it)');
    await byName(ben, 'button', 'Comments: 1 open');
    await press(ben, 'button::-p-text(Also what is done)');
    const listed = await text(ben, '[aria-label="Comments of the plan"]');
    expect(listed).toMatch(/The whole works\s+Ben Quay/);
    expect(listed).toMatch(/Half the wall units set\s+Ben Quay/);
    expect(await faults(ben)).toEqual([]);
  });

  test('is not seen by who only looks, unless the workspace says so', async () => {
    const viewer = await joined(server, owner as Asker, 'Cleo Pier', 'viewer');
    const seen = async () =>
      (await viewer.get<{ comments: unknown[] }>('GET', `/api/plans/${planId}/comments`)).comments;
    expect(await seen()).toEqual([]);
    await owner.get('PATCH', '/api/workspace', { commentsForAll: true });
    expect(await seen()).toHaveLength(3);
    await owner.get('PATCH', '/api/workspace', { commentsForAll: false });
    // Who cannot change a plan is told before they try; who can is not.
    const here = async (who: Asker) => (await who.get<{ here: string | null }>('GET', `/api/me?plan=${planId}`)).here;
    expect([await here(viewer), await here(owner as Asker)]).toEqual(['viewer', 'owner']);
    expect(await ada.$('[data-testid="may-here"]')).toBeNull();
    const cleo = await somebody('/sign-in');
    await fill(cleo, 'cleo.pier@saltmere.example', PASSWORD);
    await cleo.waitForFunction(() => location.pathname === '/');
    await cleo.goto(`${server.address}/plans/${planId}/show`, { waitUntil: 'networkidle2' });
    await shows(cleo, 'only to look at');
    expect(await faults(cleo)).toEqual([]);
    await cleo.browserContext().close();
  });
});

/** Ends all comments of the plan that are open. */
async function endAll(): Promise<void> {
  type Found = { comments: { id: string; answers: string | null; doneAt: string | null }[] };
  const { comments } = await owner.get<Found>('GET', `/api/plans/${planId}/comments`);
  for (const c of comments)
    if (c.answers === null && c.doneAt === null) await owner.get('PATCH', `/api/comments/${c.id}`, { done: true });
}

describe('who may not edit a plan', () => {
  /** Somebody who was asked in, with a browser of their own. */
  async function signedIn(name: string): Promise<Page> {
    const page = await somebody('/sign-in');
    await fill(page, `${name.toLowerCase().replace(' ', '.')}@saltmere.example`, PASSWORD);
    await shows(page, 'Saltmere sea wall');
    return page;
  }
  const names = (page: Page, selector: string) =>
    page.$$eval(selector, (list) =>
      list.map((e) => (e.getAttribute('aria-label') ?? e.textContent ?? '').trim()).filter(Boolean),
    );
  let exhibit = '';

  test('is offered what they may do; a page is seen as they like, and nothing of it is kept', async () => {
    const cleo = await signedIn('Cleo Pier');
    await goTo(cleo, `/plans/${planId}/show`);
    await shows(cleo, 'only to look at');
    for (const no of ['New exhibit', 'More for The whole works', 'Move The whole works'])
      expect(await names(cleo, 'button')).not.toContain(no);
    await cleo.click('main a[href*="/show/"]');
    await cleo.waitForSelector('[data-testid="page"] svg');
    exhibit = cleo.url();
    for (const no of ['Put onto the page', 'Comment']) expect(await names(cleo, 'header button')).not.toContain(no);
    const { rows } = await server.pool.query('select version from exhibit where id = $1', [exhibit.split('/').at(-1)]);
    await changePart(cleo, 'rows', 'each: one activity a row');
    await cleo.waitForSelector('[data-testid="alone"]');
    expect(await faults(cleo)).toEqual([]);
    await cleo.reload({ waitUntil: 'networkidle2' });
    await cleo.waitForSelector('[data-testid="page"] svg');
    expect(await cleo.$('[data-testid="alone"]')).toBeNull();
    const after = await server.pool.query('select version from exhibit where id = $1', [exhibit.split('/').at(-1)]);
    expect(after.rows).toEqual(rows);
    // In the ledger a change is refused in words, and nothing moves.
    await goTo(cleo, `/plans/${planId}/structure`);
    await cleo.waitForSelector('[data-cell="1 name"]');
    const name = await text(cleo, '[data-cell="1 name"]');
    await cleo.click('[data-cell="1 name"]');
    await cleo.keyboard.press('F2');
    await shows(cleo, 'You may look at this plan, not change it.');
    expect(await text(cleo, '[data-cell="1 name"]')).toBe(name);
    await goTo(cleo, `/plans/${planId}/share`);
    await shows(cleo, 'Shared pages');
    for (const no of ['A new folio', 'Share a page']) expect(await names(cleo, 'button')).not.toContain(no);
    await cleo.browserContext().close();
  }, 90_000);

  test('says something at a place of the page where they may comment; it is answered and done there', async () => {
    const { rows } = await server.pool.query("select id from person where name = 'Dora Sand'");
    if (rows.length === 0) await joined(server, owner as Asker, 'Dora Sand', 'commenter');
    await endAll();
    const dora = await signedIn('Dora Sand');
    await dora.goto(exhibit, { waitUntil: 'networkidle2' });
    await dora.waitForSelector('[data-testid="page"] svg');
    expect(await names(dora, 'header button')).not.toContain('Put onto the page');
    await press(dora, 'header button::-p-text(Comment)');
    const box = (await (await dora.$('[data-testid="page"] svg'))!.boundingBox())!;
    await dora.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.4);
    await dora.waitForSelector('[aria-label="Say something about this place"]');
    await dora.keyboard.type('Is this agreed?');
    await press(dora, 'aside button::-p-text(Say it)');
    const pin = (await dora.waitForSelector('[data-pin="1"]'))!;
    const at = (await pin.boundingBox())!;
    expect(
      Math.hypot(at.x + at.width / 2 - box.x - box.width * 0.5, at.y + at.height - box.y - box.height * 0.4),
    ).toBeLessThan(6);
    // Whoever owns the plan finds it there, answers and is done with it.
    await ada.goto(exhibit, { waitUntil: 'networkidle2' });
    await press(ada, '[data-pin="1"]');
    await ada.waitForSelector('aside[aria-label="Comment 1"]');
    expect(await text(ada, 'aside[aria-label="Comment 1"]')).toMatch(/Dora Sand[\s\S]*Is this agreed\?/);
    expect(await faults(ada)).toEqual([]);
    await press(ada, 'aside[aria-label="Comment 1"] button::-p-text(Answer)');
    await ada.waitForSelector('[aria-label="Your answer"]');
    await ada.type('[aria-label="Your answer"]', 'With the harbour, yes.');
    await press(ada, 'aside[aria-label="Comment 1"] button::-p-text(Say it)');
    await shows(ada, 'With the harbour, yes.');
    // What is said moves the panel: it is pressed wherever it has come to stand.
    await ada.waitForSelector('aside[aria-label="Comment 1"] textarea', { hidden: true });
    await ada.$$eval('aside[aria-label="Comment 1"] button', (list) =>
      list.find((b) => b.textContent === 'Done')!.click(),
    );
    await ada.waitForFunction(() => document.querySelector('[data-pin]') === null);
    await dora.browserContext().close();
  }, 90_000);
});

describe('a page that is shared', () => {
  const addresses: Record<string, string> = {};

  /** Shares the first page by the form; gives its address. */
  async function share(how: { state?: string; password?: string; site?: string; comments?: boolean }): Promise<string> {
    await goTo(ada, `/plans/${planId}/share`);
    const before = (await ada.$$('[data-testid="shared"] a')).length;
    await press(ada, 'button::-p-text(Share a page)');
    if (how.state) await ada.select('[aria-label="In which state"]', how.state);
    if (how.password) {
      await press(ada, 'label::-p-text(with a password)');
      await ada.type('[aria-label="Password"]', how.password);
    }
    if (how.comments) await press(ada, 'label::-p-text(with its open comments)');
    if (how.site) {
      await press(ada, 'label::-p-text(also within other sites)');
      await ada.type('[aria-label="Sites that may show it"]', how.site);
    }
    expect(await faults(ada)).toEqual([]);
    await press(ada, 'button::-p-text(Share it)');
    await ada.waitForFunction(
      (n) => document.querySelectorAll('[data-testid="shared"] a').length > n,
      { timeout: 60_000 },
      before,
    );
    return ada.$eval('[data-testid="shared"] a', (e) => (e as HTMLAnchorElement).href);
  }

  test('is shown to whoever has its address, and holds nothing that is not to be seen on it', async () => {
    addresses.live = await share({});
    const page = await somebody(addresses.live);
    const seen = await page.evaluate(() => document.body.textContent!);
    expect(seen).toContain('Half the wall units set');
    const html = await (await fetch(addresses.live)).text();
    const { rows } = await server.pool.query<{ ref: string; name: string; notes: string }>(
      'select a.ref, a.name, a.notes from activity a join edition e on e.id = a.edition_id where e.plan_id = $1 and e.working',
      [planId],
    );
    // Words of a few letters stand in other words, in the fonts that the page carries, and in what is drawn.
    const plain = html.replace(/base64,[A-Za-z0-9+/=]+/g, '').replace(/ d="[^"]*"/g, '');
    const texts = rows.flatMap((r) => [r.ref, r.name, r.notes]).filter((t) => t.length > 3 && !seen.includes(t));
    expect(texts.length).toBeGreaterThan(100);
    expect(texts.filter((t) => plain.includes(t))).toEqual([]);
    for (const own of ['Ada Reed', 'Ben Quay', 'For the board', planId, 'The whole works'])
      expect(plain).not.toContain(own);
    await page.browserContext().close();
  }, 60_000);

  test('has what is open among its comments below it, only where that is wanted', async () => {
    const { rows } = await server.pool.query('select id from exhibit where plan_id = $1 order by position limit 1', [
      planId,
    ]);
    await endAll();
    const { rows: there } = await server.pool.query(
      `select a.ref from activity a join edition e on e.id = a.edition_id
       where e.plan_id = $1 and e.working and a.name = 'Half the wall units set'`,
      [planId],
    );
    const say = (text: string, more: object) =>
      owner.get<{ id: string }>('POST', `/api/plans/${planId}/comments`, { text, exhibitId: rows[0].id, ...more });
    const said = await say('Larger for the board', {});
    await say('As large as this?', { answers: said.id });
    await say('Is this <b>still</b> so?', { place: { ref: there[0].ref, at: 'finish', dx: 0, dy: 0 } });
    const done = await say('Long done with', {});
    await owner.get('PATCH', `/api/comments/${done.id}`, { done: true });
    addresses.spoken = await share({ comments: true });
    const page = await somebody(addresses.spoken);
    const list = await page.$$eval('.said li', (items) => items.map((e) => (e as HTMLElement).innerText));
    expect(list.length).toBe(2);
    expect(list[0]).toMatch(
      /^Ada Reed \d+ \w+ \d+\s+Larger for the board\s+Ada Reed \d+ \w+ \d+\s+As large as this\?$/,
    );
    expect(list[1]).toContain('Is this <b>still</b> so?');
    const html = await (await fetch(addresses.spoken)).text();
    for (const other of ['Long done with', 'Are the cranes booked']) expect(html).not.toContain(other);
    // The mark of what is about a place stands above it, at the right end of its bar or beside its marker.
    const { mark, thing } = await page.evaluate((ref) => {
      const box = (e: Element) => e.getBoundingClientRect().toJSON() as DOMRect;
      return {
        mark: box(document.querySelector('.mark')!),
        thing: [...document.querySelectorAll('.sheet svg *')].filter((e) => e.getAttribute('data-ref') === ref).length,
      };
    }, there[0].ref);
    expect(thing).toBe(0); // a shared page says nothing of references
    const name = await page.evaluate(() => {
      const own = [...document.querySelectorAll('.sheet svg text')].find((e) =>
        e.textContent!.includes('Half the wall units set'),
      )!;
      return own.getBoundingClientRect().toJSON() as DOMRect;
    });
    expect(Math.abs(mark.bottom - (name.top + name.bottom) / 2)).toBeLessThan(name.height + 8);
    expect(await faults(page)).toEqual([]);
    const plain = await (await fetch(addresses.live!)).text();
    expect(plain).not.toContain('Larger for the board');
    // What is said later is there when it is opened again; what is done is not.
    await owner.get('PATCH', `/api/comments/${said.id}`, { done: true });
    await page.reload({ waitUntil: 'networkidle2' });
    expect(await page.$$eval('.said li', (items) => items.length)).toBe(1);
    await page.browserContext().close();
  }, 60_000);

  test('is not found by searching, not kept, and not framed by others', async () => {
    const { headers } = await fetch(addresses.live!);
    expect(headers.get('x-robots-tag')).toContain('noindex');
    expect(headers.get('cache-control')).toContain('no-store');
    expect(headers.get('referrer-policy')).toBe('no-referrer');
    expect(headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
  });

  test('follows its plan, or stays as it was', async () => {
    addresses.frozen = await share({ state: 'now' });
    const live = await somebody(addresses.live!);
    const { version } = await owner.get<{ version: number }>('GET', `/api/plans/${planId}`);
    const { rows } = await server.pool.query(
      `select a.ref from activity a join edition e on e.id = a.edition_id
       where e.plan_id = $1 and e.working and a.name = 'Half the wall units set'`,
      [planId],
    );
    await owner.get('PATCH', `/api/plans/${planId}`, {
      version,
      command: { do: 'changeActivity', ref: rows[0].ref, part: { name: 'Half the units placed' } },
    });
    // It says by itself that it has changed.
    await live.waitForFunction(() => document.querySelector<HTMLElement>('.renewed')?.hidden === false, {
      timeout: 40_000,
    });
    await live.click('.renewed');
    await shows(live, 'Half the units placed');
    const frozen = await somebody(addresses.frozen);
    const text = await frozen.evaluate(() => document.body.textContent!);
    expect(text).toContain('Half the wall units set');
    expect(text).not.toContain('units placed');
    await live.browserContext().close();
    await frozen.browserContext().close();
  }, 90_000);

  test('asks for its password, and limits how often it is guessed', async () => {
    addresses.locked = await share({ password: 'low water' });
    const page = await somebody(addresses.locked);
    expect(await faults(page)).toEqual([]);
    expect(await page.evaluate(() => document.body.textContent)).not.toContain('units placed');
    await fill(page, 'high water');
    await shows(page, 'That is not the password');
    await fill(page, 'low water');
    await shows(page, 'Half the units placed');
    await page.reload({ waitUntil: 'networkidle2' });
    await shows(page, 'Half the units placed');
    await page.browserContext().close();
    const guess = (word: string) =>
      fetch(addresses.locked!, {
        method: 'POST',
        redirect: 'manual',
        headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
        body: `password=${encodeURIComponent(word)}`,
      });
    for (let k = 0; k < 9; k++) expect((await guess(`guess ${k}`)).status).toBe(401);
    const right = await guess('low water');
    expect(right.status).toBe(401);
    expect(await right.text()).toContain('tried too often');
    expect((await fetch(`${addresses.locked}/mark`)).status).toBe(401);
  }, 60_000);

  test('is shown within the sites that are named, and no others', async () => {
    const site = async (inside: () => string): Promise<string> => {
      const own = createServer((_, answer) =>
        answer.writeHead(200, { 'Content-Type': 'text/html' }).end(`<iframe src="${inside()}"></iframe>`),
      );
      sites.push(own);
      await new Promise<void>((resolve) => own.listen(0, '127.0.0.1', resolve));
      return `http://127.0.0.1:${(own.address() as AddressInfo).port}`;
    };
    let within = '';
    const named = await site(() => within);
    const other = await site(() => within);
    within = await share({ site: named });
    const framed = async (address: string, wait: number): Promise<string> => {
      const page = await somebody(address);
      const read = async () => {
        const frame = page.frames().find((f) => f !== page.mainFrame());
        return (await frame?.evaluate(() => document.body?.textContent ?? '').catch(() => '')) ?? '';
      };
      let text = '';
      for (const end = Date.now() + wait; Date.now() < end && !text.includes('units placed'); ) {
        await new Promise((r) => setTimeout(r, 300));
        text = await read();
      }
      await page.browserContext().close();
      return text;
    };
    expect(await framed(named, 20_000)).toContain('units placed');
    expect(await framed(other, 3000)).not.toContain('units placed');
  }, 60_000);

  test('leads nowhere at once when it is ended; guessed addresses lead nowhere', async () => {
    await goTo(ada, `/plans/${planId}/share`);
    for (;;) {
      const ends = await ada.$$('[data-testid="shared"] button::-p-text(End it)');
      if (ends.length === 0) break;
      await ends[0]!.click();
      await ada.waitForFunction(
        (n) => document.querySelectorAll('[data-testid="shared"] li').length < n,
        {},
        ends.length,
      );
    }
    for (const address of Object.values(addresses)) expect((await fetch(address)).status).toBe(404);
    const token = addresses.live!.split('/').at(-1)!;
    const changed = `${token[0] === 'A' ? 'B' : 'A'}${token.slice(1)}`;
    for (const guess of [changed, token.slice(0, 22), 'x'.repeat(54), '%00', '..%2f..%2fapi%2fme'])
      expect((await fetch(`${server.address}/s/${guess}`)).status).toBe(404);
    const kept = await server.pool.query('select content from shared_page where content is not null');
    expect(kept.rowCount).toBe(0);
  });
});

test('who did what is written down, can be looked through, and taken along', async () => {
  await goTo(ada, '/history');
  await ada.waitForSelector('[data-testid="deeds"] li');
  expect(await faults(ada)).toEqual([]);
  const all = await text(ada, '[data-testid="deeds"]');
  for (const words of [
    'took over the workspace',
    'asked ben@saltmere.example',
    'Ben Quay joined',
    'shared “The whole works”',
  ])
    expect(all).toContain(words);
  await ada.type('[aria-label="That holds"]', 'joined');
  await ada.waitForFunction(() => !document.querySelector('[data-testid="deeds"]')!.textContent!.includes('took over'));
  const csv = await ada.evaluate(async () => (await fetch('/api/deeds?form=csv')).text());
  expect(csv.split('\r\n')[0]).toBe('When,Who,About,What');
  expect(csv).toContain('Ben Quay');
});

test('somebody who is removed is out at once, and what they said stays', async () => {
  await goTo(ada, '/people');
  const button = await byName(ada, 'button', 'Remove Ben Quay');
  await button.click();
  await (await byName(ada, 'button', 'Really remove Ben Quay')).asLocator().click();
  await ada.waitForFunction(() => !document.querySelector('table')!.textContent!.includes('Ben Quay'));
  await goTo(ben, `/plans/${planId}/show`);
  expect(new URL(ben.url()).pathname).toBe('/sign-in');
  const said = await owner.get<{ comments: { person: string }[] }>('GET', `/api/plans/${planId}/comments`);
  expect(said.comments.some((c) => c.person === 'Ben Quay')).toBe(true);
});

test('health, readiness and metrics are there for whoever runs it', async () => {
  expect(await (await fetch(`${server.address}/api/health`)).json()).toEqual({ alive: true });
  expect(await (await fetch(`${server.address}/api/ready`)).json()).toEqual({ ready: true });
  const metrics = await (await fetch(`${server.address}/api/metrics`)).text();
  expect(metrics).toMatch(/clembo_answer_seconds_count\{route="\/api\/plans\/:id",method="PATCH",status="200"\} 1\n/);
  expect(metrics).toMatch(/clembo_jobs\{kind="composeShared",state="done"\} \d+/);
  expect(metrics).not.toContain(planId);
});

test('everything is written as a backup, lost, read again, and drawn with the same bytes', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'clembo-backup-'));
  const file = join(folder, 'all.backup');
  const run = (command: string, url: string, ...more: string[]): string =>
    execFileSync(process.execPath, [join(root, 'tools/backup.mjs'), command, file, ...more], {
      cwd: root,
      env: { ...process.env, DATABASE_URL: url },
      encoding: 'utf8',
      stdio: 'pipe',
    });
  const refused = (...said: Parameters<typeof run>): string => {
    try {
      return `was not refused: ${run(...said)}`;
    } catch (error) {
      return String((error as { stdout: unknown }).stdout) + String((error as { stderr: unknown }).stderr);
    }
  };
  expect(run('backup', server.url)).toMatch(/what its 13 pages look like/);
  const elsewhere = server.url.replace(/clembo_people$/, 'clembo_restored');
  await server.pool.query('drop database if exists clembo_restored with (force)');
  expect(run('restore', elsewhere)).toContain('All 13 pages are drawn with the same bytes');
  // What is there already is not written over.
  expect(refused('restore', elsewhere)).toContain('holds something already');
  // A page that is drawn otherwise is told.
  const check = JSON.parse(readFileSync(`${file}.check.json`, 'utf8')) as { pages: Record<string, string> };
  check.pages[Object.keys(check.pages)[0]!] = 'other';
  writeFileSync(`${file}.check.json`, JSON.stringify(check));
  expect(refused('restore', elsewhere, '--replace')).toContain('1 of 13 pages are not drawn as they were');
  rmSync(folder, { recursive: true });
}, 120_000);
