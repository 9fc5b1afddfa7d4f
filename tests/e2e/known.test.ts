import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { openBrowser, openPage } from '../support/browser';
import {
  address,
  byName,
  catchDownloads,
  choose,
  listClosed,
  makeIt,
  newExhibit,
  run,
  until,
  upload,
} from '../support/desk';

/** A table with a promise and what happened, and no forecast: what is known of it is told, and nothing else. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let plan = '';
// Worked out by hand on a week of five days. The status date is Friday 17 April 2026.
const DEPOT = [
  'ID;Phase;Works;Baseline start;Baseline finish;Actual start;Actual finish;% complete',
  'D1;Strip-out;Close the depot;02.03.2026;02.03.2026;02.03.2026;02.03.2026;100',
  'D2;Strip-out;Remove old pits;03.03.2026;20.03.2026;04.03.2026;27.03.2026;100',
  'D3;Pits;New pits, east;23.03.2026;24.04.2026;30.03.2026;;60',
  'D4;Pits;Drainage;06.04.2026;30.04.2026;;;',
  'D5;Track;Rails in the hall;04.05.2026;29.05.2026;;;',
  'D6;Opening;Depot opens;01.06.2026;01.06.2026;;;',
];
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
});
afterAll(() => close());

interface Stored {
  plan: {
    source: string;
    asPromised: boolean;
    activities: { ref: string; duration: number | null; kind: string; start: number | null; finish: number | null }[];
  };
}
const stored = async () => ((await (await fetch(`${address}/api/plans/${plan}`)).json()) as Stored).plan;
const press = async (name: string) => (await byName(page, 'button', name)).asLocator().click();
const go = async (part: string) => {
  await page.goto(`${address}/plans/${plan}/${part}`, { waitUntil: 'networkidle2' });
};
const words = (text: string) =>
  page.waitForFunction((t) => document.body.innerText.includes(t), { timeout: 20_000 }, text);
const cellOf = (ref: string, field: string) =>
  page.evaluate(
    (r, f) => {
      const row = [...document.querySelectorAll('[role="row"][data-ref]')].find(
        (e) => e.getAttribute('data-ref') === r,
      );
      return row?.querySelector(`[data-cell$=" ${f}"]`)?.textContent?.trim() ?? null;
    },
    ref,
    field,
  );
const titleOfPage = () =>
  page.$$eval('[data-testid="page"] text[data-role="title"]', (list) => list.map((t) => t.textContent).join(' '));
/** The page that is open, as it is exported, in words. */
async function exported(): Promise<string> {
  const download = await catchDownloads(page);
  await press('Export');
  await page.locator('[role="menuitem"]::-p-text(PDF)').click();
  return run('pdftotext', '-layout', await download('.pdf'), '-').replace(/\s+/g, ' ');
}

test('the column map asks once what counts, and shows meanwhile what is known', async () => {
  const path = join(mkdtempSync(join(tmpdir(), 'clembo-known-')), 'depot.csv');
  writeFileSync(path, `${DEPOT.join('\n')}\n`);
  await upload(page, path);
  await words('3 rows have only promised dates.');
  await words('1 row is under way without a finish: it ends when its promised length is over.');
  expect(await page.evaluate(() => document.body.innerText)).not.toContain('Nothing with a date yet');
  await press('Leave them without dates');
  await page.waitForSelector('button[aria-pressed="true"]::-p-text(Leave them without dates)');
  plan = await makeIt(page);
  expect(await stored()).toMatchObject({ source: 'given', asPromised: false });
});

test('nothing is said of the end while it is not known', async () => {
  await newExhibit(page);
  await until(titleOfPage, 'depot is known to 1 May 2026; 3 of 6 have no dates');
  const text = await exported();
  // 25 promised days from Monday 30 March.
  expect(text).toContain('depot is known to 1 May 2026; 3 of 6 have no dates');
  expect(text).toMatch(/3 without dates/);
  expect(text).not.toMatch(/earlier than promised|later than promised/);
});

test('nor is it in Measure, and what is done is a share of all of it', async () => {
  await go('measure');
  const status = (await page.waitForSelector('main input[type="date"]'))!;
  await status.evaluate((e) => {
    const input = e as HTMLInputElement;
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(input, '2026-04-17');
    input.dispatchEvent(new Event('input', { bubbles: true }));
  });
  await press('Set it');
  await words('Known to 1 May 26');
  const statements = await page.$$eval('[data-testid="statement"]', (list) => list.map((e) => e.textContent ?? ''));
  expect(statements[0]).toContain('3 of 6 have no dates; promised 1 Jun 26');
  // Done are 1 and 18 days and fifteen of 25; 19, 20 and one promised day are to come.
  expect(statements[1]).toMatch(/^40 %/);
});

test('the tray of the ledger offers the promise; every row has dates then, and says where they come from', async () => {
  await go('structure');
  await page.waitForSelector('[data-testid="dates-offer"]');
  await press('Take the promised dates of 3 as they stand');
  await until(async () => (await stored()).asPromised, true);
  await until(() => cellOf('D4', 'finish'), '30 Apr 26');
  expect(await Promise.all(['start', 'finish', 'days'].map((f) => cellOf('D3', f)))).toEqual([
    '30 Mar 26',
    expect.stringMatching(/ 26$/),
    expect.stringMatching(/^\d+$/),
  ]);
  expect(await page.$('[data-testid="dates-offer"]')).toBeNull();
  // The line of the status date is called by its day.
  const flags = await page.$$eval('[role="columnheader"] span, header span', (list) => list.map((e) => e.textContent));
  expect(flags).toContain('17 Apr');
  expect(flags).not.toContain('18 Apr');
});

test('on the page soft ends are explained and counted, and the end is expected', async () => {
  await go('show');
  await page.waitForSelector('main li svg[viewBox]');
  await page.locator('main li a').click();
  await page.waitForSelector('[data-testid="page"] svg');
  await until(
    async () => (await titleOfPage()).startsWith('depot is expected to run to 1 June 2026, as promised'),
    true,
  );
  const text = await exported();
  expect(text).toContain('6 of 6 activities shown');
  expect(text).toMatch(/1 date worked out/);
  // Start and finish of two works, and the day of the opening.
  expect(text).toMatch(/\d dates as promised/);
  expect(text).toContain('Worked out, not stated');
  expect(text).toContain('As promised, not stated since');
});

test('a page of a part tells of that part', async () => {
  await page.locator('[data-testid="type-brief"]').click();
  const field = (await page.waitForSelector('[data-testid="typed"] textarea, textarea'))!;
  await field.click({ count: 3 });
  await page.keyboard.type('only Phase is Pits, in lanes by Phase');
  await page.keyboard.press('Enter');
  await until(async () => (await titleOfPage()).startsWith('Pits (2 of 6 activities)'), true);
  await listClosed(page);
  // A field alone belongs to nothing; it is said, and labels stay as they were.
  await page.locator('[data-testid="type-brief"]').click();
  const again = (await page.waitForSelector('[data-testid="typed"] textarea, textarea'))!;
  await again.click({ count: 3 });
  await page.keyboard.type('only critical, responsible');
  await page.keyboard.press('Enter');
  await words('responsible');
  expect(await page.$eval('body', (b) => (b as HTMLElement).innerText)).not.toContain('labelled with responsible');
});

test('taken out as a table, dates have their origin, and are read back', async () => {
  await go('gather');
  const download = await catchDownloads(page);
  await press('Table CSV');
  const text = readFileSync(await download('.csv'), 'utf8');
  const [head, ...rows] = text.trim().split(/\r?\n/);
  expect(head).toMatch(/Origin of start,Origin of finish$/);
  const of = (ref: string) => rows.find((r) => r.startsWith(`${ref},`))!;
  expect(of('D2')).toContain('2026-03-04,2026-03-27');
  expect(of('D3')).toMatch(/,expected$/);
  expect(of('D5')).toMatch(/2026-05-04,2026-05-29.*,as promised,as promised$/);
});

test('days that are typed are those that are meant: of the calendar, or of work', async () => {
  await go('structure');
  await page.waitForSelector('[role="treegrid"]');
  const typeDays = async (ref: string, text: string) => {
    const row = await page.$$eval(
      '[role="row"][data-ref]',
      (list, r) => list.findIndex((e) => e.getAttribute('data-ref') === r),
      ref,
    );
    await page.locator(`[data-cell="${row} days"]`).click();
    await page.keyboard.type(text, { delay: 40 });
    await page.keyboard.press('Enter');
  };
  // From Monday 4 May ten days of the calendar, from Monday 6 April ten of work.
  await typeDays('D5', '10 calendar days');
  await until(() => cellOf('D5', 'finish'), '13 May 26');
  await typeDays('D4', '10');
  await until(() => cellOf('D4', 'finish'), '17 Apr 26');
});

test('which dates are shown can be changed in the sentence, and taken back', async () => {
  const shown = () => page.$eval('[data-brief-part="source"]', (e) => e.textContent?.trim());
  expect(await shown()).toBe('as drawn');
  await page.locator('[data-brief-part="source"]').click();
  await choose(page, 'as computed: from lengths and links');
  await until(async () => (await stored()).source, 'computed');
  await until(shown, 'as computed');
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await until(async () => (await stored()).source, 'given');
  await until(() => cellOf('D5', 'finish'), '13 May 26');
});

test('a plan with nothing in it begins its time strip near today', async () => {
  const made = await fetch(`${address}/api/plans`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'Empty', from: null }),
  });
  const { planId } = (await made.json()) as { planId: string };
  await page.goto(`${address}/plans/${planId}/structure`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('[role="treegrid"]');
  const text = await page.evaluate(() => document.body.innerText);
  expect(text).toContain(String(new Date().getUTCFullYear()));
  expect(text).not.toMatch(/19(?:69|70)/);
});
