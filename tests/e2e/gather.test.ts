import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createExhibit, createPlan, createWorkspace, openStore, type Store } from '@clembo/store';
import { TimelineBrief } from '@clembo/scene';
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
  await (await byName(page, 'button', label)).click();
  await choose(page, option);
};
/** Chooses in a list whose button is named by its label and by what it stands on. */
const pickAt = async (page: Page, label: string, option: string) => {
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
    option,
  );
};
const outcome = (page: Page, words: string) =>
  page.waitForFunction((w) => document.querySelector('footer')?.textContent?.includes(w), { timeout: 20_000 }, words);
const meaningOf = (page: Page, column: string) =>
  byName(page, 'button', `Meaning of ${column}`).then((b) => b.evaluate((e) => e.textContent?.trim()));
const toLedger = async (page: Page) => {
  await (await byName(page, 'button', 'Make the plan')).click();
  await page.waitForFunction(() => /\/plans\/.*\/show$/.test(location.pathname), { timeout: 20_000 });
  await page.goto(page.url().replace(/show$/, 'structure'), { waitUntil: 'networkidle0' });
  await page.waitForSelector('[role="row"][aria-rowindex="2"]');
};
const rows = (page: Page) =>
  page.$$eval('[role="row"][aria-rowindex]', (list) =>
    list.map((r) => [...r.querySelectorAll('[role="cell"]')].map((c) => c.textContent?.trim())),
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
    await pickAt(page, 'Sheet', 'Works');
    await pickAt(page, 'Headings', 'in row 2');
    await pick(page, 'Meaning of Work', 'Name');
    await pick(page, 'Meaning of Length', 'Duration');
    await pickAt(page, 'Durations in', 'weeks');
    await outcome(page, '2 activities');
    await toLedger(page);
    // Two weeks of five days from Monday 2 March end on Friday 13 March.
    const list = await rows(page);
    expect(list[0]!.slice(0, 5)).toEqual(['M1', 'Divers’ survey', '2 Mar 26', '13 Mar 26', '10']);
    expect(list[1]!.slice(0, 5)).toEqual(['M2', 'Grout the joints', '16 Mar 26', '3 Apr 26', '15']);
    await page.close();
  });

  test('a map that was corrected is offered again for the same headings', async () => {
    const table = (name: string) => `Key no.;Was ist zu tun;Von;Bis;Truppe\n1;${name};02.03.2026;13.03.2026;Blue\n`;
    const page = await openPage(browser, address);
    await upload(page, file('first.csv', table('Sandbags')));
    await pick(page, 'Meaning of Was ist zu tun', 'Name');
    await pick(page, 'Meaning of Truppe', 'leave out');
    await outcome(page, '1 activity');
    await toLedger(page);
    await page.goto(address, { waitUntil: 'networkidle0' });
    await upload(page, file('second.csv', table('Pumps')));
    expect([await meaningOf(page, 'Was ist zu tun'), await meaningOf(page, 'Truppe')]).toEqual(['Name', 'leave out']);
    await page.close();
  });

  test('a file is dropped on the page', async () => {
    const page = await openPage(browser, address);
    await page.evaluate(() => {
      const data = new DataTransfer();
      data.items.add(new File(['Name,Start,Finish\nDropped work,2026-03-02,2026-03-06\n'], 'dropped.csv'));
      const target = [...document.querySelectorAll('p')].find((p) => p.textContent === 'Drop a spreadsheet here')!;
      target.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    });
    await page.waitForFunction(() => location.pathname.startsWith('/intake/'));
    await outcome(page, '1 activity');
    await page.close();
  });
});

test('an order of day and month that a file did not need is not remembered for the next one', async () => {
  const table = (start: string, finish: string) => `What to do,Start,Finish,Gang\nSweep,${start},${finish},Red\n`;
  const page = await openPage(browser, address);
  await upload(page, file('clear.csv', table('2026-03-02', '2026-03-06')));
  await pick(page, 'Meaning of What to do', 'Name');
  await toLedger(page);
  await page.goto(address, { waitUntil: 'networkidle0' });
  await upload(page, file('unclear.csv', table('02/03/2026', '06/03/2026')));
  await page.waitForSelector('main p[role="alert"]');
  await pickAt(page, 'Dates', 'day before month');
  await outcome(page, '1 activity');
  await toLedger(page);
  expect((await rows(page))[0]).toEqual(expect.arrayContaining(['Sweep', '2 Mar 26', '6 Mar 26']));
  // This order was chosen for these headings: it holds the next time.
  await page.goto(address, { waitUntil: 'networkidle0' });
  await upload(page, file('again.csv', table('04/05/2026', '07/05/2026')));
  await outcome(page, '1 activity');
  expect(await page.$('main p[role="alert"]')).toBeNull();
  await page.close();
});

describe('our own JSON', () => {
  const museum = { ...demoPlans()[1]!.current, name: 'Museum by JSON' };

  test('becomes a plan at once, with everything in it', async () => {
    const page = await openPage(browser, address);
    await putFile(page, file('museum.json', writePlanJson(museum)));
    await page.waitForFunction(() => /\/plans\/.*\/show$/.test(location.pathname), { timeout: 20_000 });
    await page.waitForSelector('main li a');
    await page.click('main li a');
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
  await page.goto(address, { waitUntil: 'networkidle0' });
  const menu = async (name: string, item: number) => {
    await (await byName(page, 'button', `More for ${name}`)).click();
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
  await page.reload({ waitUntil: 'networkidle0' });
  await menu('Ferry landing', 1);
  const names = () => page.$$eval('main li a.block', (list) => list.map((a) => a.textContent));
  await page.waitForFunction(
    () => ![...document.querySelectorAll('main li')].some((l) => l.textContent?.includes('Ferry landing')),
  );
  await (await byName(page, 'button', 'Undo')).click();
  await page.waitForFunction(() =>
    [...document.querySelectorAll('main li')].some((l) => l.textContent?.includes('Ferry landing')),
  );
  await page.reload({ waitUntil: 'networkidle0' });
  expect(await names()).toContain('Ferry landing');
  await page.close();
});

describe('what belongs to another workspace is not there', () => {
  let store: Store;
  let theirs: { plan: string; exhibit: string };
  beforeAll(async () => {
    store = openStore(process.env.DATABASE_URL!);
    const workspace = await createWorkspace(store, 'Somebody else');
    const plan = await createPlan(store, workspace, { ...demoPlans()[1]!.current, name: 'Not yours' }, 'First');
    const brief = TimelineBrief.parse({ kind: 'timeline' });
    const exhibit = await createExhibit(store, workspace, plan, 'Not yours either', brief);
    theirs = { plan, exhibit: exhibit! };
  });
  afterAll(() => store.pool.end());

  test.each<[string, (ids: typeof theirs) => [string, string, unknown?]]>([
    ['its data', ({ plan }) => ['GET', `/api/plans/${plan}`]],
    ['its name', ({ plan }) => ['PATCH', `/api/plans/${plan}`, { name: 'Mine' }]],
    ['the plan', ({ plan }) => ['DELETE', `/api/plans/${plan}`]],
    [
      'a new exhibit',
      ({ plan }) => ['POST', `/api/plans/${plan}/exhibits`, { name: 'x', brief: { kind: 'timeline' } }],
    ],
    ['an exhibit', ({ exhibit }) => ['PATCH', `/api/exhibits/${exhibit}`, { name: 'Mine' }]],
    ['a page', ({ exhibit }) => ['GET', `/api/exhibits/${exhibit}/page?format=svg`]],
    ['its ledger', ({ plan }) => ['GET', `/plans/${plan}/structure`]],
    ['its contact sheet', ({ plan }) => ['GET', `/plans/${plan}/show`]],
  ])('%s', async (_, request) => {
    const [method, path, json] = request(theirs);
    const response = await fetch(address + path, {
      method,
      ...(json !== undefined && { body: JSON.stringify(json), headers: { 'Content-Type': 'application/json' } }),
    });
    expect(response.status).toBe(404);
    expect(await response.text()).not.toContain('Not yours');
  });

  test('and it is not in the list', async () => {
    expect(await (await fetch(address)).text()).not.toContain('Not yours');
  });
});
