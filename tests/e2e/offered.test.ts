import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { copyOf, planNamed } from '../support/api';
import { openBrowser, openPage } from '../support/browser';
import { address, byName, changePart, newExhibit, pageText } from '../support/desk';

/** Every page that is offered for a plan with all there is: made, changed in its sentence, and regrouped. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let sheet = '';
let offered: string[] = [];

beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  sheet = `${address}/plans/${await copyOf(await planNamed('Saltmere'), 'Offered')}/show`;
  page = await openPage(browser, sheet);
  await page.waitForSelector('main li svg[viewBox]');
}, 120_000);
afterAll(() => close());

const SVG = '[data-testid="page"] svg';
const viewBox = () => page.$eval(SVG, (e) => e.getAttribute('viewBox'));
const isReadable = () => page.$eval('[data-testid="fit"]', (e) => /^Fits/.test(e.textContent ?? ''));

test('more than ten are offered', async () => {
  await (await byName(page, 'button', 'New exhibit')).click();
  await page.waitForSelector('[data-preview="Summary for executives"]');
  offered = await page.$$eval('[data-preview]', (list) => list.map((e) => e.getAttribute('data-preview')!));
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

test('each is readable at first sight, takes another size of page, and is regrouped where it has lanes', async () => {
  const regrouped: string[] = [];
  for (const name of offered) {
    await page.goto(sheet, { waitUntil: 'networkidle2' });
    await newExhibit(page, name);
    const words = await pageText(page);
    expect([name, await isReadable(), words.length > 40]).toEqual([name, true, true]);
    const before = await viewBox();
    if (await page.$('[data-brief-part="page"]')) {
      await changePart(page, 'page', before === '0 0 960 540' ? 'A3 landscape' : 'a wide slide');
      await page.waitForFunction(
        (was) => document.querySelector('[data-testid="page"] svg')?.getAttribute('viewBox') !== was,
        {},
        before,
      );
    }
    if (!(await page.$('::-p-aria([name="Regroup"][role="button"])'))) continue;
    const now = await page.$eval(SVG, (e) => e.outerHTML);
    await (await byName(page, 'button', 'Regroup')).click();
    await page.waitForSelector('[data-preview] svg').catch(() => {
      throw new Error(`“${name}” has no other grouping`);
    });
    await page.click('[data-preview]');
    await page.waitForFunction((was) => document.querySelector('[data-testid="page"] svg')?.outerHTML !== was, {}, now);
    regrouped.push(name);
  }
  expect(regrouped).toContain('Summary for executives');
  expect(regrouped.length).toBeGreaterThan(8);
}, 300_000);
