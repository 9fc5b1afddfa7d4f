import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { takeIn } from '../support/api';
import { openBrowser, openPage, pageShown } from '../support/browser';
import { address, byName, changePart, choose, listClosed, putFile, upload } from '../support/desk';

let browser: Browser;
let close: () => Promise<void>;
let planId: string;
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  const rows = [
    'Name,Start,Finish,Phase',
    ...Array.from(
      { length: 12 },
      (_, i) =>
        `Step ${i},2026-03-${String(i + 2).padStart(2, '0')},2026-04-${String(i + 2).padStart(2, '0')},Phase ${i % 3}`,
    ),
  ];
  planId = await takeIn('Together.csv', `${rows.join('\n')}\n`);
});
afterAll(() => close());

const openExhibit = async (): Promise<Page> => {
  const page = await openPage(browser, `${address}/plans/${planId}/show`);
  const href = await page.$eval('main li a', (a) => (a as HTMLAnchorElement).href);
  await page.goto(href, { waitUntil: 'networkidle2' });
  await pageShown(page);
  return page;
};
const partOf = (page: Page, part: string) => page.$eval(`[data-brief-part="${part}"]`, (e) => e.textContent);
const waitForPart = (page: Page, part: string, text: string) =>
  page.waitForFunction(
    (p, t) => document.querySelector(`[data-brief-part="${p}"]`)?.textContent?.includes(t),
    { timeout: 20_000 },
    part,
    text,
  );
const kept = (page: Page) =>
  page.waitForResponse((r) => r.request().method() === 'PATCH' && r.url().includes('/api/exhibits/'));

test('two people on one exhibit: different parts are both kept, the same part is said, and can be put back', async () => {
  const mine = await openExhibit();
  const theirs = await openExhibit();
  // A page in the background stands still.
  await theirs.bringToFront();
  let saved = kept(theirs);
  await changePart(theirs, 'rows', 'each: one activity a row');
  expect((await saved).status()).toBe(200);
  await mine.bringToFront();
  saved = kept(mine);
  await changePart(mine, 'page', 'A3 landscape');
  expect((await saved).status()).toBe(200);
  // What they chose comes with the answer.
  await waitForPart(mine, 'rows', 'each');

  await theirs.bringToFront();
  saved = kept(theirs);
  await changePart(theirs, 'page', 'A1 landscape');
  expect((await saved).status()).toBe(409);
  await waitForPart(theirs, 'page', 'A3 landscape');
  const said = await theirs.waitForSelector('::-p-text(Someone else has changed the page of this exhibit)');
  expect(await said!.evaluate((e) => e.textContent)).toContain('yours is not kept');
  saved = kept(theirs);
  await (await byName(theirs, 'button', 'Put mine back')).asLocator().click();
  expect((await saved).status()).toBe(200);
  await waitForPart(theirs, 'page', 'A1 landscape');
  await mine.bringToFront();
  await mine.reload({ waitUntil: 'networkidle2' });
  await waitForPart(mine, 'page', 'A1 landscape');
  expect(await partOf(mine, 'rows')).toContain('each');
  await mine.close();
  await theirs.close();
});

test('what cannot be kept is said, is not exported, and is kept as soon as it can be', async () => {
  const page = await openExhibit();
  await page.setRequestInterception(true);
  let broken = true;
  let exported = 0;
  page.on('request', (r) => {
    if (r.method() === 'POST' && r.url().endsWith('/page')) exported++;
    if (broken && r.method() === 'PATCH') void r.abort();
    else void r.continue();
  });
  await changePart(page, 'page', 'A4 portrait');
  await page.waitForSelector('::-p-text(Not kept yet)');
  expect(await partOf(page, 'page')).toContain('A4 portrait');
  await listClosed(page);
  await (await byName(page, 'button', 'Export')).asLocator().click();
  await page.waitForSelector('[role="menuitem"]');
  await (await page.$('[role="menuitem"]'))!.click();
  await page.waitForSelector('::-p-text(does not answer)');
  expect(exported).toBe(0);
  broken = false;
  await page.waitForFunction(() => !document.body.textContent?.includes('Not kept yet'), { timeout: 20_000 });
  await page.close();
  const again = await openExhibit();
  expect(await partOf(again, 'page')).toContain('A4 portrait');
  await again.close();
});

test('a plan that was deleted stays deleted over a reload, and comes back by key before', async () => {
  await takeIn('Passing.csv', 'Name,Start,Finish\nA,2026-03-02,2026-03-06\n');
  const page = await openPage(browser, address);
  const isThere = () =>
    page.evaluate(() => [...document.querySelectorAll('main li')].some((l) => l.textContent?.includes('Passing')));
  const deleted = () => page.waitForResponse((r) => r.request().method() === 'DELETE' && r.ok());
  const remove = async () => {
    await (await byName(page, 'button', 'More for Passing')).asLocator().click();
    await page.waitForSelector('[role="menuitem"]');
    const gone = deleted();
    await (await page.$$('[role="menuitem"]'))[1]!.click();
    await gone;
    await page.waitForSelector('::-p-text(is deleted)');
  };
  await remove();
  expect(await isThere()).toBe(false);
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await page.waitForFunction(() =>
    [...document.querySelectorAll('main li')].some((l) => l.textContent?.includes('Passing')),
  );
  await page.waitForFunction(() => document.querySelector('[role="menu"]') === null);
  await remove();
  await page.reload({ waitUntil: 'networkidle2' });
  expect(await isThere()).toBe(false);
  await page.close();
});

test('an intake can be found again, its map undone, and be let go', async () => {
  const page = await openPage(browser, address);
  const file = join(mkdtempSync(join(tmpdir(), 'clembo-together-')), 'Left lying.csv');
  writeFileSync(file, 'Name,Start,Finish,Crew\nA,2026-03-02,2026-03-06,North\nB,2026-03-02,2026-03-06,North\n');
  await upload(page, file);
  // This one, whatever else is lying there.
  const own = `section[aria-labelledby="begun"] a[href="${new URL(page.url()).pathname}"]`;
  await (await byName(page, 'button', 'Meaning of Crew')).asLocator().click();
  await choose(page, 'Notes');
  const meaning = (text: string) =>
    page.waitForFunction(
      (t) => document.querySelector('[aria-label="Meaning of Crew"]')?.textContent?.includes(t),
      {},
      text,
    );
  await meaning('Notes');
  await page.goto(address, { waitUntil: 'networkidle2' });
  await page.waitForSelector(own);
  await Promise.all([page.waitForNavigation(), page.locator(own).click()]);
  await meaning('Notes');
  await (await byName(page, 'button', 'Meaning of Crew')).asLocator().click();
  await choose(page, 'leave out');
  await meaning('leave out');
  await listClosed(page);
  // While a change is being kept, nothing can be taken back.
  const press = async (name: string) => {
    const button = await byName(page, 'button', name);
    await page.waitForFunction((b) => !(b as HTMLButtonElement).disabled, {}, button);
    await button.click();
  };
  await press('Undo');
  await meaning('Notes');
  await press('Redo');
  await meaning('leave out');
  await (await byName(page, 'button', 'Let go of it')).asLocator().click();
  await page.waitForFunction(() => location.pathname === '/');
  await page.reload({ waitUntil: 'networkidle2' });
  expect(await page.$(own)).toBeNull();
  await page.close();
});

test('a file that is refused leaves the desk as it was, and says why', async () => {
  const page = await openPage(browser, address);
  await putFile(page, 'tests/fuzz/hostile/row-number-4e9.xlsx');
  const said = await page.waitForSelector('::-p-text(lies outside any sheet)', { timeout: 20_000 });
  expect(await said!.evaluate((e) => e.textContent)).toContain('4000000000');
  expect(new URL(page.url()).pathname).toBe('/');
  await page.close();
});

test('a table of headings only is refused, and lists open by Enter', async () => {
  const page = await openPage(browser, address);
  const file = join(mkdtempSync(join(tmpdir(), 'clembo-together-')), 'Headings.csv');
  writeFileSync(file, 'Name,Start,Finish\n');
  await putFile(page, file);
  await page.waitForSelector('::-p-text(Headings.csv has no rows below its headings)', { timeout: 20_000 });
  await page.close();

  const exhibit = await openExhibit();
  await exhibit.focus('[data-brief-part="rows"]');
  await exhibit.keyboard.press('Enter');
  await exhibit.waitForSelector('[role="option"]');
  await exhibit.keyboard.press('ArrowDown');
  await exhibit.keyboard.press('Enter');
  await listClosed(exhibit);
  await exhibit.close();
});
