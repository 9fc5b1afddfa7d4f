import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { copyOf, planNamed } from '../support/api';
import { openBrowser, openPage } from '../support/browser';
import { address, byName, changePart, newExhibit, pageText } from '../support/desk';

/** The pages that are offered for a plan with all there is: drawn at first sight, and each made, changed and regrouped. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let sheet = '';
const offered: string[] = [];

beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  sheet = `${address}/plans/${await copyOf(await planNamed('Saltmere'), 'Offered')}/show`;
  page = await openPage(browser, sheet);
  await page.waitForSelector('main li svg[viewBox]');
}, 120_000);
afterAll(() => close());

const SVG = '[data-testid="page"] svg';
const viewBox = () => page.$eval(SVG, (e) => e.getAttribute('viewBox'));
const isReadable = () => page.$eval('[data-testid="fit"]', (e) => !/Too much/.test(e.textContent ?? 'Too much'));

test('more than ten are offered', async () => {
  await (await byName(page, 'button', 'New exhibit')).asLocator().click();
  await page.waitForSelector('[data-preview="Summary for executives"]');
  const listed = await page.$$eval('[data-preview]', (list) => list.map((e) => e.getAttribute('data-preview')!));
  for (const name of listed) {
    // What would show nothing goes away when it comes into sight.
    const tile = await page.$(`[data-preview="${name}"]`);
    await tile?.evaluate((e) => e.scrollIntoView({ block: 'center' }));
    await page.waitForFunction(
      (n) => {
        const own = document.querySelector(`[data-preview="${n}"]`);
        return own === null || own.querySelector('svg') !== null;
      },
      {},
      name,
    );
    if (await page.$(`[data-preview="${name}"]`)) offered.push(name);
  }
  await page.keyboard.press('Escape');
  expect(new Set(offered).size).toBe(offered.length);
  expect(offered).toEqual(
    expect.arrayContaining([
      'Summary for executives',
      'Milestones on a string',
      'Lanes within lanes',
      'Next six weeks',
      'Late against the promise',
      'The critical path',
      'Payments and gates',
      'For the public',
    ]),
  );
  expect(offered.length).toBeGreaterThan(10);
});

/** What is offered as a time line: those before the first page of another kind. */
const timelines = () => offered.slice(0, offered.indexOf('The critical path as a network'));

test('each time line, made: another size of page, and other lanes', async () => {
  const regrouped: string[] = [];
  expect(timelines().length).toBeGreaterThanOrEqual(10);
  for (const name of timelines()) {
    await page.goto(sheet, { waitUntil: 'networkidle2' });
    await newExhibit(page, name);
    const words = await pageText(page);
    expect([name, await isReadable(), words.length > 40]).toEqual([name, true, true]);
    const before = await viewBox();
    if ((await page.$('[data-brief-part="page"]')) && !before?.startsWith('0 0 238')) {
      // A page that is larger, whatever it was.
      await changePart(page, 'page', /^0 0 1/.test(before ?? '') ? 'A1 landscape' : 'A3 landscape');
      await page.waitForFunction(
        (was) => document.querySelector('[data-testid="page"] svg')?.getAttribute('viewBox') !== was,
        {},
        before,
      );
      expect([name, await isReadable()]).toEqual([name, true]);
    }
    if (!(await page.$('::-p-aria([name="Regroup"][role="button"])'))) continue;
    const now = await page.$eval(SVG, (e) => e.outerHTML);
    await (await byName(page, 'button', 'Regroup')).asLocator().click();
    await page.waitForSelector('[data-preview] svg');
    await page.locator('[data-preview]').click();
    await page.waitForFunction((was) => document.querySelector('[data-testid="page"] svg')?.outerHTML !== was, {}, now);
    regrouped.push(name);
  }
  expect(regrouped).toEqual(timelines());
}, 180_000);

test('where no grouping can be read on its page, that is said', async () => {
  await page.goto(sheet, { waitUntil: 'networkidle2' });
  await newExhibit(page, 'All of it, on several pages');
  await changePart(page, 'pages', 'on one page');
  await page.waitForFunction(() =>
    document.querySelector('[data-testid="fit"]')?.textContent?.includes('cannot be read'),
  );
  await (await byName(page, 'button', 'Regroup')).asLocator().click();
  await page.waitForSelector('::-p-text(none of its groupings can be read)');
});
