import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { openBrowser, openPage, pageShown } from '../support/browser';
import {
  address,
  byName,
  catchDownloads,
  changeMany,
  changePart,
  choose,
  exhibitNames,
  newExhibit,
  pageText,
  run,
  waitForShown,
  waitForText,
  toSheet,
} from '../support/desk';

let browser: Browser;
let close: () => Promise<void>;
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
});
afterAll(() => close());

const sheetOf = async (plan: string): Promise<Page> => {
  const page = await openPage(browser, address);
  await toSheet(page, plan);
  return page;
};
const names = exhibitNames;
const shown = (page: Page) => page.$eval('[data-testid="shown"]', (e) => e.textContent ?? '');
const roles = (page: Page, role: string) =>
  page.$$eval(`[data-testid="page"] [data-role="${role}"]`, (list) => list.length);

test('a new exhibit is a page that suits the plan; every part of its brief can be changed and lasts', async () => {
  const page = await sheetOf('Museum move');
  const before = await names(page);
  await newExhibit(page);
  expect(await page.$eval('[data-testid="fit"]', (e) => e.textContent)).toMatch(/^Fits.*smallest type/);
  expect(await page.$eval('[data-brief-part="compare"]', (e) => e.textContent)).toMatch(/^Programme agreed/);

  await changePart(page, 'level', 'the last level');
  await changePart(page, 'include', 'milestones only');
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="page"] [data-role="bar"]').length === 0);
  expect(await roles(page, 'milestone')).toBeGreaterThan(5);
  await changePart(page, 'include', 'activities and milestones');
  await waitForShown(page, '74 of 74');
  await changeMany(page, 'lanes', ['outline']);
  await waitForText(page, 'Collection move');
  await changePart(page, 'colour', 'by phase');
  await waitForText(page, 'Prepare');
  await changePart(page, 'level', 'level 2');
  await changePart(page, 'rows', 'each: one activity a row');
  await page.locator('[data-brief-part="labels"]').click();
  await choose(page, 'reference');
  await page.keyboard.press('Escape');
  await page.waitForFunction(() =>
    [...document.querySelectorAll('[data-testid="page"] text')].some((t) => t.textContent?.startsWith('C1 ')),
  );
  await changePart(page, 'page', 'a wide slide');
  await page.waitForFunction(
    () => document.querySelector('[data-testid="page"] svg')?.getAttribute('viewBox') === '0 0 960 540',
  );
  const text = await pageText(page);
  const sentence = await page.$eval('[data-brief-part="page"]', (e) => e.parentElement!.textContent);
  expect(sentence).toContain('in lanes by outline, rows each, coloured by phase');
  expect(sentence).toContain('on a wide slide');

  await page.reload({ waitUntil: 'networkidle2' });
  await pageShown(page);
  expect(await pageText(page)).toBe(text);

  const download = await catchDownloads(page);
  await (await byName(page, 'button', 'Export')).asLocator().click();
  await page.waitForSelector('[role="menuitem"]');
  await (await page.$$('[role="menuitem"]'))[0]!.click();
  const pdf = await download('.pdf');
  expect(run('pdfinfo', pdf)).toMatch(/Page size:\s+960 x 540 pts/);
  // What has a row on the page has its name in the file.
  const words = run('pdftotext', '-layout', pdf, '-');
  for (const line of text
    .split('\n')
    .filter((l) => /^[A-Z]\d \S/.test(l))
    .slice(0, 20))
    expect(words.replace(/ +/g, ' ')).toContain(line);

  await page.goto(page.url().replace(/\/[^/]*$/, ''), { waitUntil: 'networkidle2' });
  expect((await names(page)).length).toBe(before.length + 1);
  await page.close();
});

test('a duplicate begins as its original and goes its own way', async () => {
  const page = await sheetOf('Museum move');
  const [first] = await names(page);
  await (await byName(page, 'button', `More for ${first}`)).asLocator().click();
  await page.waitForSelector('[role="menuitem"]');
  await (await page.$$('[role="menuitem"]'))[0]!.click();
  await page.waitForFunction(() => /\/show\/[0-9a-f-]{36}$/.test(location.pathname));
  await pageShown(page);
  const before = await shown(page);
  await changePart(page, 'level', 'level 1');
  await waitForShown(page, '74 activities in 3 groups');

  await page.goto(page.url().replace(/\/[^/]*$/, ''), { waitUntil: 'networkidle2' });
  expect(await names(page)).toContain(`${first}, copy`);
  await page.locator('main li a').click();
  await page.waitForFunction(() => /\/show\/[0-9a-f-]{36}$/.test(location.pathname));
  await pageShown(page);
  expect(await shown(page)).toBe(before);
  await page.close();
});

test('full width shows the page as wide as the window, and back', async () => {
  const page = await sheetOf('Museum move');
  await page.locator('main li a').click();
  await page.waitForFunction(() => /\/show\/[0-9a-f-]{36}$/.test(location.pathname));
  await pageShown(page);
  const width = () => page.$eval('[data-testid="page"] svg', (e) => e.getBoundingClientRect().width);
  const narrow = await width();
  await (await byName(page, 'button', 'Full width')).asLocator().click();
  await page.waitForFunction(
    (w) => document.querySelector('[data-testid="page"] svg')!.getBoundingClientRect().width > w * 1.2,
    {},
    narrow,
  );
  await page.keyboard.press('w');
  await page.waitForFunction(
    (w) => Math.abs(document.querySelector('[data-testid="page"] svg')!.getBoundingClientRect().width - w) < 2,
    {},
    narrow,
  );
  await page.close();
});
