import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { openBrowser, openPage } from '../support/browser';
import {
  address,
  byName,
  catchDownloads,
  changePart,
  newExhibit,
  pageText,
  planOfTable,
  run,
  sayPart,
  until,
} from '../support/desk';

/** A line described, places pasted, work taken in and typed, its page read back from the file. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let plan = '';
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
}, 60_000);
afterAll(() => close());

interface Stored {
  plan: {
    lines: {
      name: string;
      unit: string;
      from: number;
      to: number;
      stations: object[];
      zones: object[];
      windows: object[];
    }[];
    activities: { ref: string; from: number | null; to: number | null; crews: number | null }[];
  };
}
const stored = async () => ((await (await fetch(`${address}/api/plans/${plan}`)).json()) as Stored).plan;
const press = async (name: string) => (await byName(page, 'button', name)).asLocator().click();
const field = async (label: string, text: string) => {
  const input = (await page.waitForSelector(`[aria-label="${label}"]`))!;
  await input.click({ count: 3 });
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
};
const inSection = (title: string, text: string) =>
  page.waitForSelector(`section[aria-label="${title}"] ::-p-text(${text})`) as Promise<ElementHandle<HTMLElement>>;

/** Three trades of a pipe: each faster than the one before, so that each runs into it. */
const TABLE = [
  'ID,Activity,Start,Finish,Chainage from,Chainage to',
  'P1,Trench,2026-03-02,2026-04-10,0,2400',
  'P2,Lay the pipe,2026-03-09,2026-03-27,0,2400',
  'P3,Backfill,2026-04-20,2026-05-15,0,2400',
];

test('a table with places is taken in; its line is described, stations and closed windows are pasted', async () => {
  const path = join(mkdtempSync(join(tmpdir(), 'clembo-line-')), 'pipe.csv');
  writeFileSync(path, `${TABLE.join('\n')}\n`);
  plan = await planOfTable(page, path);
  await page.goto(`${address}/plans/${plan}/structure/lines`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('[aria-label="New line"]');
  await field('New line', 'Pipe');
  await until(async () => (await stored()).lines.map((l) => [l.name, l.unit, l.to]), [['Pipe', 'm', 1_000_000]]);
  await field('Last place', '2400');
  await until(async () => (await stored()).lines[0]!.to, 2_400_000);
  await (await inSection('Stations', 'Paste many')).click();
  await page.type('[aria-label^="Names and places"]', 'x');
  await page.$eval('[aria-label^="Names and places"]', (e) => {
    const area = e as HTMLTextAreaElement;
    Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!.call(
      area,
      'Place\tName\n0\tPump house\n1,200\tRoad\n2400\tReservoir\nfar\tNowhere',
    );
    area.dispatchEvent(new Event('input', { bubbles: true }));
  });
  // What is not read is said, with its row.
  await page.waitForSelector('li::-p-text(Row 5: “far” is no place.)');
  await press('Take 3');
  await until(async () => (await stored()).lines[0]!.stations.length, 3);
  await (await inSection('Closed windows', 'Paste many')).click();
  await page.type('[aria-label^="Names, from, to, first day"]', 'Road closed; 2026-05-04; 2026-05-08; 1000; 1400');
  await page.waitForSelector('[aria-label="What was read"] ::-p-text(2026-05-04 to 2026-05-08)');
  await press('Take 1');
  await until(async () => (await stored()).lines[0]!.windows.length, 1);
  await (await inSection('Zones', 'Add a zone')).click();
  await field('Name of zone 1', 'All of it');
  await until(async () => (await stored()).lines[0]!.zones, [{ name: 'All of it', from: 0, to: 2_400_000 }]);
}, 90_000);

test('the page says who works where and when, and where they clash', async () => {
  await page.goto(`${address}/plans/${plan}/show`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('main li svg[viewBox]');
  await newExhibit(page, 'Pipe, the whole line');
  const text = await pageText(page);
  for (const words of [
    'Trench',
    'Lay the pipe',
    'Backfill',
    'Pump house',
    'Road',
    'Reservoir',
    'All of it',
    'Road closed',
  ])
    expect(text).toContain(words);
  expect(text).toContain('Work along Pipe runs to 15 May 2026; 1 clash on the way');
  expect(text).toMatch(/Lay the pipe runs into Trench at \d/);
  // 2,400 m in 30 working days.
  expect(text).toContain('80 m a day');
  // Pointing at the plot says where and when.
  const ends = await page.$$eval('[data-testid="page"] g[data-ref="P1"] circle', (l) =>
    l.map((c) => ({
      x: c.getBoundingClientRect().x + c.getBoundingClientRect().width / 2,
      y: c.getBoundingClientRect().y + c.getBoundingClientRect().height / 2,
    })),
  );
  await page.mouse.move(ends[0]!.x + 1, ends[0]!.y + 1);
  await page.waitForFunction(() =>
    /2 March 2026|3 March 2026/.test(document.querySelector('[data-testid="readout"]')?.textContent ?? ''),
  );
  await changePart(page, 'axes', 'places upwards and time across');
  await page.waitForFunction(
    (x) =>
      Math.abs(document.querySelector('[data-testid="page"] g[data-ref="P3"] circle')!.getBoundingClientRect().x - x) >
      20,
    {},
    ends[0]!.x,
  );
});

test('balanced: what would move is seen on the page, taken, taken back', async () => {
  const start = async () =>
    Object.fromEntries(
      (
        (await (await fetch(`${address}/api/plans/${plan}`)).json()) as {
          plan: { activities: { ref: string; start: number }[] };
        }
      ).plan.activities.map((a) => [a.ref, a.start]),
    );
  const before = await start();
  await press('Balance');
  const days = (await page.waitForSelector('[aria-label="Days between works"]'))!;
  await days.click({ count: 3 });
  await page.keyboard.type('3');
  await page.waitForSelector('[aria-label="What moves"] li::-p-text(Lay the pipe)');
  // The page as it would be has no clash; the plan is as it was.
  await page.waitForFunction(
    () => !document.querySelector('[data-testid="page"]')!.textContent!.includes('clash on the way'),
  );
  expect(await start()).toEqual(before);
  // Laying, at 160 m a day, ends three days behind the trench, which is done on Friday 10 April.
  await page.locator('button:not([disabled])::-p-text(Take it)').click();
  await until(async () => (await start()).P2! > before.P2!, true);
  await page.waitForFunction(() =>
    document.querySelector('[aria-label="Brief"]')!.textContent!.includes('at least 3 days between works'),
  );
  const after = await start();
  expect([after.P1, after.P3]).toEqual([before.P1, before.P3]);
  expect(await pageText(page)).not.toContain('clash on the way');
  await page.goto(`${address}/plans/${plan}/structure`, { waitUntil: 'networkidle2' });
  await press('Undo');
  await until(start, before);
  await page.goBack({ waitUntil: 'networkidle2' });
  await page.waitForSelector('[data-testid="page"] svg');
}, 60_000);

test('only a stretch of it, typed as a place; the file says the same', async () => {
  await sayPart(page, 'fromPlace');
  await page.locator('[data-brief-part="fromPlace"]').click();
  const input = (await page.waitForSelector('input[aria-label="From place"]'))!;
  await input.type('nowhere');
  await page.keyboard.press('Enter');
  await page.waitForSelector('input[aria-label="From place"][aria-invalid="true"]');
  await input.click({ count: 3 });
  await page.keyboard.type('600');
  await page.keyboard.press('Enter');
  await page.waitForFunction(() =>
    document.querySelector('[aria-label="Brief"]')!.textContent!.includes('from place 600 m'),
  );
  await page.waitForFunction(() => {
    const texts = [...document.querySelectorAll('[data-testid="page"] text')].map((t) => t.textContent);
    return texts.includes('600') && !texts.includes('200');
  });
  const download = await catchDownloads(page);
  await press('Export');
  await page.locator('[role="menuitem"]::-p-text(PDF)').click();
  const words = run('pdftotext', await download('.pdf'), '-').replace(/\s+/g, ' ');
  // What stands along its line is turned, and comes out of the PDF letter by letter: the drawing says it whole.
  for (const word of ['Reservoir', '2300', '1 clash', 'Lay the pipe runs into Trench']) expect(words).toContain(word);
  expect(words).not.toContain('Pump house');
  await press('Export');
  await page.locator('[role="menuitem"]::-p-text(SVG)').click();
  const svg = readFileSync(await download('.svg'), 'utf8');
  for (const word of ['Trench', 'Lay the pipe', 'Backfill', '80 m a day']) expect(svg).toContain(word);
});

test('places and crews are typed in the margin of the ledger, and say why where they are none', async () => {
  await page.goto(`${address}/plans/${plan}/structure?ref=P2`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('[role="row"][aria-selected="true"]');
  await press('Facts');
  const type = async (label: string, text: string) => {
    await page.locator(`aside button[aria-label^="${label}:"]`).click();
    await page.waitForFunction(() => document.activeElement?.tagName === 'INPUT');
    await page.keyboard.down('Control');
    await page.keyboard.press('a');
    await page.keyboard.up('Control');
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  };
  const own = async () => {
    const { from, to, crews } = (await stored()).activities.find((a) => a.ref === 'P2')!;
    return [from, to, crews];
  };
  await type('crews', '2');
  await until(own, [0, 2_400_000, 2]);
  await type('from place', '0+300');
  await until(own, [300_000, 2_400_000, 2]);
  await type('to place', 'yonder');
  await page.waitForSelector('::-p-text(“yonder” is no place.)');
  expect(await own()).toEqual([300_000, 2_400_000, 2]);
});
