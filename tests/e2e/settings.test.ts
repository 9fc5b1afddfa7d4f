import { afterAll, afterEach, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { openBrowser, openPage } from '../support/browser';
import { address, byName, planOfTable, until } from '../support/desk';

/** How the house would have its plans and pages: its colours, checked, and its currency. */

interface Told {
  house: { colours: string[]; currency: string | null };
}
const told = async () => ((await (await fetch(`${address}/api/workspace`)).json()) as Told).house;

const keepHouse = async (house: Partial<Told['house']>) => {
  const answer = await fetch(`${address}/api/workspace`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json', origin: address },
    body: JSON.stringify({ house: { ...(await told()), ...house } }),
  });
  expect(answer.status).toBe(200);
};

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let before: Told['house'];
beforeAll(async () => {
  before = await told();
  ({ browser, close } = await openBrowser());
}, 60_000);
beforeEach(async () => {
  await keepHouse({ colours: [], currency: null });
  page = await openPage(browser, `${address}/people`);
}, 60_000);
afterEach(() => page.close());
afterAll(async () => {
  // Other tests are of a house that says nothing.
  await keepHouse(before);
  await close();
});

const faults = (words: string) =>
  page.waitForFunction(
    (w) => new RegExp(w).test(document.querySelector('[data-testid="colour-faults"]')?.textContent ?? ''),
    { timeout: 20_000 },
    words,
  );
/** Chooses a colour as the picker of the browser does. */
const choose = (k: number, colour: string) =>
  page.$eval(
    `[aria-label="Colour ${k} of the house"]`,
    (e, c) => {
      const input = e as HTMLInputElement;
      input.focus();
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(input, c);
      input.dispatchEvent(new Event('input', { bubbles: true }));
      input.blur();
    },
    colour,
  );

test('colours are chosen; what is too pale, or looks alike, is said', async () => {
  await (await byName(page, 'button', 'Colours of the house')).asLocator().click();
  await until(async () => (await told()).colours.length, 1);
  await (await byName(page, 'button', 'Another')).asLocator().click();
  await until(async () => (await told()).colours.length, 2);
  await faults('told apart by everyone');
  await choose(2, '#fff2a8');
  await until(async () => (await told()).colours[1], '#FFF2A8');
  await faults('Colour 2 is too pale on paper');
  await choose(1, '#b3402e');
  await choose(2, '#6b6a1f');
  await until(async () => (await told()).colours, ['#B3402E', '#6B6A1F']);
  await faults('Colours 1 and 2 look alike to who does not see (red|green)');
  await choose(2, '#123456');
  await until(async () => (await told()).colours, ['#B3402E', '#123456']);
  await faults('told apart by everyone');
});

test('a new plan is in the currency of the house, and its first page in its colours', async () => {
  await keepHouse({ colours: ['#B3402E', '#123456'] });
  await page.reload({ waitUntil: 'networkidle2' });
  await page.locator('button::-p-text(no currency)').click();
  await page.locator('[role="option"]::-p-text(EUR)').click();
  await until(async () => (await told()).currency, 'EUR');
  const path = join(mkdtempSync(join(tmpdir(), 'clembo-house-')), 'Pier.csv');
  writeFileSync(
    path,
    'Name,Start,Finish,Team\nPiles,2026-03-02,2026-03-27,Shore\nDeck,2026-03-30,2026-05-08,Deck\nRails,2026-05-11,2026-05-29,Shore\n',
  );
  const id = await planOfTable(page, path);
  const { plan } = (await (await fetch(`${address}/api/plans/${id}`)).json()) as { plan: { currency: string | null } };
  expect(plan.currency).toBe('EUR');
  await page.goto(`${address}/plans/${id}/show`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('main a[href*="/show/"] svg');
  await page.locator('main a[href*="/show/"]').click();
  await page.waitForSelector('[data-testid="page"] svg [data-role="bar"]');
  const inks = await page.$$eval('[data-testid="page"] svg [data-role="bar"]', (list) => [
    ...new Set(list.map((b) => b.getAttribute('stroke')).filter(Boolean)),
  ]);
  expect(inks.sort()).toEqual(['#123456', '#B3402E']);
  expect(await page.$eval('[aria-label="Brief"]', (e) => e.textContent)).toContain('in the colours of the house');
});
