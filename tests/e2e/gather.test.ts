import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Access, createExhibit, createPlan, createWorkspace, openStore, type Store } from '@clembo/store';
import { EXHIBITS } from '@clembo/scene';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import writeXlsx from 'write-excel-file/node';
import { demoPlans } from '../../demo/index';
import { writePlanJson } from '../../packages/formats/src/json/planJson';
import { openBrowser, openPage, pageShown } from '../support/browser';
import { address, byName, choose, listClosed, waitForText, putFile, upload } from '../support/desk';

let browser: Browser;
let close: () => Promise<void>;
const folder = mkdtempSync(join(tmpdir(), 'clembo-gather-'));
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
});
afterAll(() => close());

const file = (name: string, content: string | Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const pick = async (page: Page, label: string, option: string) => {
  await listClosed(page);
  await (await byName(page, 'button', label)).asLocator().click();
  await choose(page, option);
};
/** Chooses in a list whose button is named by its label and by what it stands on. */
const pickAt = async (page: Page, label: string, option: string, shown = option) => {
  await listClosed(page);
  const button = await page.waitForFunction(
    (l) =>
      [...document.querySelectorAll('label')].find((e) => e.textContent === l)?.parentElement?.querySelector('button'),
    {},
    label,
  );
  await (button as unknown as ElementHandle<Element>).click();
  await choose(page, option);
  // The choice goes to the server, and the table is read again.
  await page.waitForFunction(
    (l, o) =>
      [...document.querySelectorAll('label')]
        .find((e) => e.textContent === l)
        ?.parentElement?.querySelector('button')
        ?.textContent?.trim() === o,
    { timeout: 20_000 },
    label,
    shown,
  );
};
const outcome = (page: Page, words: string) =>
  page.waitForFunction((w) => document.querySelector('footer')?.textContent?.includes(w), { timeout: 20_000 }, words);
const meaningOf = (page: Page, column: string) =>
  byName(page, 'button', `Meaning of ${column}`).then((b) => b.evaluate((e) => e.textContent?.trim()));
const toLedger = async (page: Page) => {
  await (await byName(page, 'button', 'Make the plan')).asLocator().click();
  await page.waitForFunction(() => /\/plans\/.*\/show$/.test(location.pathname), { timeout: 20_000 });
  await page.goto(page.url().replace(/show$/, 'structure'), { waitUntil: 'networkidle2' });
  await page.waitForSelector('[role="row"][data-ref]');
};
/** Reference, name, start, finish, days, float, percent and codes of every row. */
const rows = (page: Page) =>
  page.$$eval('[role="row"][data-ref]', (list) =>
    list.map((r) => [
      r.getAttribute('data-ref')!,
      ...[...r.querySelectorAll('[data-cell]')].map((c) => c.textContent?.trim().replace(/^◆/, '')),
    ]),
  );

describe('the column map is corrected in place', () => {
  test('another sheet, another row of headings, durations in weeks', async () => {
    const text = (list: string[]) => list.map((value) => ({ value }));
    const path = join(folder, 'Mole repairs.xlsx');
    await writeXlsx([
      { sheet: 'Contacts', data: Array.from({ length: 30 }, (_, i) => text([`Person ${i}`, `Desk ${i}`])) },
      {
        sheet: 'Works',
        data: [
          text(['Mole repairs', 'Start', 'made up']),
          text(['Ref', 'Work', 'Begin', 'Length']),
          text(['M1', 'Divers’ survey', '2026-03-02', '2']),
          text(['M2', 'Grout the joints', '2026-03-16', '3']),
        ],
      },
    ] as never).toFile(path);
    const page = await openPage(browser, address);
    await upload(page, path);
    // The sheet and its headings are found; the other sheet is a click away.
    expect(await meaningOf(page, 'Work')).toBe('Name');
    await (await byName(page, 'button', 'Contacts 30 rows')).asLocator().click();
    await outcome(page, 'from 30 of 30 rows');
    await (await byName(page, 'button', 'Works 4 rows')).asLocator().click();
    await outcome(page, '2 activities');
    await pickAt(page, 'Headings', 'in row 1: Mole repairs, Start, made up', 'in row 1');
    await pickAt(page, 'Headings', 'in row 2: Ref, Work, Begin', 'in row 2');
    await pickAt(page, 'Durations in', 'weeks');
    await outcome(page, '2 activities');
    await toLedger(page);
    // Two weeks of five days from Monday 2 March end on Friday 13 March.
    const list = await rows(page);
    expect(list[0]!.slice(0, 5)).toEqual(['M1', 'Divers’ survey', '2 Mar 26', '13 Mar 26', '10']);
    expect(list[1]!.slice(0, 5)).toEqual(['M2', 'Grout the joints', '16 Mar 26', '3 Apr 26', '15']);
    await page.close();
  });

  test('a status date is typed key by key, and no half of it is read', async () => {
    const page = await openPage(browser, address);
    await upload(page, file('Status by keys.csv', 'Ref,Name,Start,Finish\nA1,Dig,2026-06-01,2026-06-26\n'));
    const field = (await page.waitForSelector('input[type="date"][aria-label="Status date"]'))!;
    const maps: string[] = [];
    page.on('request', (r) => {
      if (r.method() !== 'GET' && r.url().includes('/api/intakes/')) maps.push(r.postData() ?? '');
    });
    // Chromium's own order: month, day, year.
    await field.type('06162026', { delay: 90 });
    await page.keyboard.press('Tab');
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('input[aria-label="Status date"]')!.value === '2026-06-16',
    );
    await toLedger(page);
    const plan = (await (
      await fetch(`${address}/api${new URL(page.url()).pathname.replace(/\/structure$/, '')}`)
    ).json()) as {
      plan: { statusDate: number };
    };
    expect(plan.plan.statusDate).toBe(Date.parse('2026-06-16T00:00Z') / 60_000);
    expect(maps.filter((m) => m.includes('statusDay')).length).toBe(1);
    await page.close();
  });

  test('a map that was corrected is offered again for the same headings', async () => {
    const table = (name: string) => `Key no.;Was ist zu tun;Von;Bis;Truppe\n1;${name};02.03.2026;13.03.2026;Blue\n`;
    const page = await openPage(browser, address);
    await upload(page, file('first.csv', table('Sandbags')));
    await pick(page, 'Meaning of Was ist zu tun', 'Name');
    await pick(page, 'Meaning of Von', 'Start');
    await pick(page, 'Meaning of Bis', 'Finish');
    await pick(page, 'Meaning of Truppe', 'leave out');
    await outcome(page, '1 activity');
    await toLedger(page);
    await page.goto(address, { waitUntil: 'networkidle2' });
    await upload(page, file('second.csv', table('Pumps')));
    expect([await meaningOf(page, 'Was ist zu tun'), await meaningOf(page, 'Truppe')]).toEqual(['Name', 'leave out']);
    await page.close();
  });

  test('a file is dropped on the page', async () => {
    const page = await openPage(browser, address);
    await page.evaluate(() => {
      const data = new DataTransfer();
      data.items.add(new File(['Name,Start,Finish\nDropped work,2026-03-02,2026-03-06\n'], 'dropped.csv'));
      // Anywhere in the window.
      document
        .querySelector('h1')!
        .dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    });
    await page.waitForFunction(() => location.pathname.startsWith('/intake/'));
    await outcome(page, '1 activity');
    await page.close();
  });
});

test('rows of a long table are picked by hand, by a word or one by one, and kept for the next file', async () => {
  const many = (n: number) =>
    `ID,Name,Start,Finish\n${Array.from({ length: n }, (_, k) => `R${k},${k % 10 === 0 ? 'Gate' : 'Wall'} ${k},2026-03-02,2026-03-06\n`).join('')}`;
  const page = await openPage(browser, address);
  await upload(page, file('Locks.csv', many(6000)));
  await (await byName(page, 'button', 'Choose rows')).asLocator().click();
  const says = (words: string) =>
    page.waitForFunction(
      (w) => document.querySelector('[role="dialog"]')?.textContent?.includes(w),
      { timeout: 20_000 },
      words,
    );
  await says('6000 of 6000 rows are taken');
  const word = page.locator('input[aria-label="Rows that hold"]');
  await word.fill('gate');
  await (await byName(page, 'button', 'Leave these out')).asLocator().click();
  await says('5400 of 6000 rows are taken');
  // One that stands far down the table.
  await word.fill('gate 5990');
  await page.waitForFunction(() => document.querySelectorAll('ul[aria-label="Rows"] li').length === 1);
  await page.locator('ul[aria-label="Rows"] input').click();
  await says('5401 of 6000 rows are taken');
  await (await byName(page, 'button', 'Keep it')).asLocator().click();
  await outcome(page, '5401 activities');
  await (await byName(page, 'button', '599 rows left out by hand')).asLocator().click();
  await says('5401 of 6000 rows are taken');
  await page.keyboard.press('Escape');
  await toLedger(page);
  await page.goto(address, { waitUntil: 'networkidle2' });
  await upload(page, file('Locks again.csv', many(6001)));
  await outcome(page, '5402 activities');
  await page.close();
}, 120_000);

test('an order of day and month that a file did not need is not remembered for the next one', async () => {
  const table = (start: string, finish: string) => `What to do,Start,Finish,Gang\nSweep,${start},${finish},Red\n`;
  const page = await openPage(browser, address);
  await upload(page, file('clear.csv', table('2026-03-02', '2026-03-06')));
  await pick(page, 'Meaning of What to do', 'Name');
  await toLedger(page);
  await page.goto(address, { waitUntil: 'networkidle2' });
  await upload(page, file('unclear.csv', table('02/03/2026', '06/03/2026')));
  await page.waitForSelector('main [role="alert"]');
  await pickAt(page, 'Dates', 'day before month');
  await outcome(page, '1 activity');
  await toLedger(page);
  expect((await rows(page))[0]).toEqual(expect.arrayContaining(['Sweep', '2 Mar 26', '6 Mar 26']));
  // This order was chosen for these headings: it holds the next time.
  await page.goto(address, { waitUntil: 'networkidle2' });
  await upload(page, file('again.csv', table('04/05/2026', '07/05/2026')));
  await outcome(page, '1 activity');
  expect(await page.$('main [role="alert"]')).toBeNull();
  await page.close();
});

describe('our own JSON', () => {
  const museum = { ...demoPlans()[1]!.current, name: 'Museum by JSON' };

  test('becomes a plan at once, with everything in it', async () => {
    const page = await openPage(browser, address);
    await putFile(page, file('museum.json', writePlanJson(museum)));
    await page.waitForFunction(() => /\/plans\/.*\/show$/.test(location.pathname), { timeout: 20_000 });
    await page.waitForSelector('main li a');
    await page.locator('main li a').click();
    await pageShown(page);
    await waitForText(page, 'New building');
    const kept = await page.evaluate(async () => {
      const id = location.pathname.split('/')[2];
      return (await (await fetch(`/api/plans/${id}`)).json()).plan;
    });
    expect(kept).toEqual(JSON.parse(JSON.stringify(museum)));
    await page.close();
  });

  test('with a value that cannot be used is refused with its place', async () => {
    const page = await openPage(browser, address);
    const wrong = JSON.parse(writePlanJson(museum));
    wrong.plan.activities[4].percent = 300;
    await putFile(page, file('wrong.json', JSON.stringify(wrong)));
    const said = await page.waitForSelector('::-p-text(plan.activities.4.percent)', { timeout: 20_000 });
    expect(await said!.evaluate((e) => e.textContent)).toContain('“300” cannot be used');
    expect(new URL(page.url()).pathname).toBe('/');
    await page.close();
  });
});

test('a plan is renamed, deleted, and taken back', async () => {
  const page = await openPage(browser, address);
  await upload(page, file('Ferry steps.csv', 'Name,Start,Finish\nSteps,2026-03-02,2026-03-06\n'));
  await toLedger(page);
  await page.goto(address, { waitUntil: 'networkidle2' });
  const menu = async (name: string, item: number) => {
    await (await byName(page, 'button', `More for ${name}`)).asLocator().click();
    await page.waitForSelector('[role="menuitem"]');
    await (await page.$$('[role="menuitem"]'))[item]!.click();
  };
  await menu('Ferry steps', 0);
  const input = (await page.waitForSelector('input[aria-label="Name of the plan"]'))!;
  await input.click({ count: 3 });
  await page.keyboard.type('Ferry landing');
  const renamed = page.waitForResponse((r) => r.request().method() === 'PATCH');
  await page.keyboard.press('Enter');
  expect((await renamed).ok()).toBe(true);
  await page.reload({ waitUntil: 'networkidle2' });
  await menu('Ferry landing', 1);
  const names = () => page.$$eval('main li a.block', (list) => list.map((a) => a.textContent));
  await page.waitForFunction(
    () => ![...document.querySelectorAll('main li')].some((l) => l.textContent?.includes('Ferry landing')),
  );
  await (await byName(page, 'button', 'Undo')).asLocator().click();
  await page.waitForFunction(() =>
    [...document.querySelectorAll('main li')].some((l) => l.textContent?.includes('Ferry landing')),
  );
  await page.reload({ waitUntil: 'networkidle2' });
  expect(await names()).toContain('Ferry landing');
  await page.close();
});

describe('what belongs to another workspace is not there', () => {
  let store: Store;
  let theirs: { plan: string; exhibit: string };
  beforeAll(async () => {
    store = openStore(process.env.DATABASE_URL!);
    const workspace = await createWorkspace(store, 'Somebody else');
    const access: Access = { workspace, person: null, role: 'owner' };
    const plan = await createPlan(store, access, { ...demoPlans()[1]!.current, name: 'Not yours' }, 'First');
    const brief = EXHIBITS.timeline.defaults();
    const exhibit = await createExhibit(store, access, plan, 'Not yours either', brief);
    theirs = { plan, exhibit: exhibit! };
  });
  afterAll(() => store.pool.end());

  test.each<[string, (ids: typeof theirs) => [string, string, unknown?]]>([
    ['its data', ({ plan }) => ['GET', `/api/plans/${plan}`]],
    [
      'its name',
      ({ plan }) => [
        'PATCH',
        `/api/plans/${plan}`,
        { version: 1, command: { do: 'setPlan', settings: { name: 'Mine' } } },
      ],
    ],
    ['the plan', ({ plan }) => ['DELETE', `/api/plans/${plan}`]],
    [
      'a new exhibit',
      ({ plan }) => ['POST', `/api/plans/${plan}/exhibits`, { name: 'x', brief: { kind: 'timeline' } }],
    ],
    ['what an exhibit shows', ({ exhibit }) => ['GET', `/api/exhibits/${exhibit}`]],
    ['an exhibit', ({ exhibit }) => ['PATCH', `/api/exhibits/${exhibit}`, { name: 'Mine' }]],
    ['a page', ({ exhibit }) => ['POST', `/api/exhibits/${exhibit}/page`, { format: 'svg' }]],
    [
      'pages in one file',
      ({ plan, exhibit }) => ['POST', `/api/plans/${plan}/pages`, { format: 'svg', exhibits: [exhibit] }],
    ],
    ['the order of its exhibits', ({ plan, exhibit }) => ['PUT', `/api/plans/${plan}/exhibits`, { order: [exhibit] }]],
    ['a kept brief', ({ exhibit }) => ['DELETE', `/api/briefs/${exhibit}`]],
    ['its ledger', ({ plan }) => ['GET', `/plans/${plan}/structure`]],
    ['its contact sheet', ({ plan }) => ['GET', `/plans/${plan}/show`]],
  ])('%s', async (_, request) => {
    const [method, path, json] = request(theirs);
    const response = await fetch(address + path, {
      method,
      ...(json !== undefined && { body: JSON.stringify(json) }),
      headers: { 'If-Match': '"1"', ...(json !== undefined && { 'Content-Type': 'application/json' }) },
    });
    expect(response.status).toBe(404);
    expect(await response.text()).not.toContain('Not yours');
  });

  test('and it is not in the list', async () => {
    expect(await (await fetch(address)).text()).not.toContain('Not yours');
  });
});

describe('what has no dates', () => {
  test('lengths and links are computed from a start that the person says', async () => {
    const page = await openPage(browser, address);
    await upload(page, file('Jetty.csv', 'ID,Task,Days,Predecessors\nJ1,Survey,5,\nJ2,Piles,10,J1\n'));
    const make = await byName(page, 'button', 'Make the plan');
    expect(await make.evaluate((e) => (e as HTMLButtonElement).disabled)).toBe(true);
    await (await page.waitForSelector('input[aria-label="Start of the plan"]'))!.type('03022026');
    await page.waitForFunction(
      () => ![...document.querySelectorAll('button')].find((b) => b.textContent === 'Make the plan')!.disabled,
    );
    await toLedger(page);
    const [first, second] = await rows(page);
    expect([first![2], second![2], second![3]]).toEqual(['2 Mar 26', '9 Mar 26', '20 Mar 26']);
    await page.close();
  });

  test('a table without dates, lengths and links makes no page, and says why', async () => {
    const page = await openPage(browser, address);
    await upload(page, file('List.csv', 'ID,Task,Owner\nA,Survey,One\nB,Piles,Two\n'));
    await page.waitForSelector('::-p-text(there is nothing to draw)');
    const make = await byName(page, 'button', 'Make the plan');
    expect(await make.evaluate((e) => (e as HTMLButtonElement).disabled)).toBe(true);
    await page.close();
  });

  test('in a plan with dates it is undated: beside the page, in the foot, in the ledger, which offers to compute', async () => {
    const page = await openPage(browser, address);
    await upload(
      page,
      file('Slip.csv', 'ID,Task,Start,Finish,Days,Predecessors\nS1,Survey,2026-03-02,2026-03-06,5,\nS2,Rails,,,10,\n'),
    );
    await (await byName(page, 'button', 'Make the plan')).asLocator().click();
    await page.waitForFunction(() => /\/plans\/.*\/show$/.test(location.pathname), { timeout: 20_000 });
    await page.waitForSelector('main li a');
    await page.locator('main li a').click();
    await pageShown(page);
    await waitForText(page, '1 of 2 activities shown · not shown: 1 without dates');
    await waitForText(page, 'Rails', false);
    await page.locator('[data-testid="undated"]').click();
    await (await byName(page, 'button', 'Rails S2')).asLocator().click();
    await page.waitForFunction(() => document.querySelector('aside h2')?.textContent === 'Rails');
    expect(await page.$eval('aside', (e) => e.textContent)).toContain('From row 3, of Slip.csv');

    await page.goto(page.url().replace(/show\/.*$/, 'structure'), { waitUntil: 'networkidle2' });
    await page.waitForSelector('[data-testid="dates-offer"]');
    expect((await rows(page)).find((r) => r[0] === 'S2')!.slice(2, 4)).toEqual(['', '']);
    await (await byName(page, 'button', 'Compute all dates from lengths and links')).asLocator().click();
    await page.waitForFunction(
      () => [...document.querySelectorAll('[data-cell]')].some((c) => c.textContent === '13 Mar 26'),
      { timeout: 20_000 },
    );
    // It can be taken back once it is kept.
    await page.locator('button[aria-label="Undo"]:not(:disabled)').click();
    await page.waitForFunction(
      () => ![...document.querySelectorAll('[data-cell]')].some((c) => c.textContent === '13 Mar 26'),
      { timeout: 20_000 },
    );
    await page.close();
  });
});

test('a change that was made on an older state is refused, and says so', async () => {
  const page = await openPage(browser, address);
  const id = await page.$eval(
    'main a[href^="/plans/"]',
    (a) => /plans\/([^/]+)/.exec((a as HTMLAnchorElement).href)![1]!,
  );
  const change = (version: number, name: string) =>
    fetch(`${address}/api/plans/${id}`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ version, command: { do: 'setPlan', settings: { name } } }),
    });
  const { version, plan } = (await (await fetch(`${address}/api/plans/${id}`)).json()) as {
    version: number;
    plan: { name: string };
  };
  expect((await change(version, 'For now')).status).toBe(200);
  const refused = await change(version, 'Too late');
  expect(refused.status).toBe(409);
  expect(((await refused.json()) as { error: string }).error).toContain('has been changed since you opened it');
  expect((await change(version + 1, plan.name)).status).toBe(200);
  expect((await change(version + 2, '')).status).toBe(400);
  await page.close();
});
