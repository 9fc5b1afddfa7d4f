import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Browser } from 'puppeteer-core';
import { checkPages } from '../pages/checkPages';
import { checkVariance } from '../pages/checkVariance';
import { openBrowser } from '../support/browser';

const root = join(dirname(fileURLToPath(import.meta.url)), '../..');
let browser: Browser;
let close: () => Promise<void>;
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
});
afterAll(() => close());

// `npx tsx tests/pages/check.ts 1 1000` checks more of them, and sorts what it finds.
describe('random pages of 1 to 5,000 activities, read from the written SVG by a browser', () => {
  test.each([1, 141, 191])('30 pages from seed %i on have no fault', async (first) => {
    const page = await browser.newPage();
    const { pages, wrong, unreadable, empty } = await checkPages(page, root, first, 30);
    await page.close();
    expect(wrong).toEqual([]);
    expect(pages).toBe(30);
    // Most of them are real pages, not sentences that say why there is none.
    expect((pages - unreadable - empty) / pages).toBeGreaterThan(0.5);
  });
});

// `npx tsx tests/pages/check.ts 1 1000 variance` checks more of them.
test('80 pages about how random plans stand have no fault, and say what was counted once more', async () => {
  const page = await browser.newPage();
  const { pages, wrong, unreadable, empty } = await checkVariance(page, root, 1, 80);
  await page.close();
  expect(wrong).toEqual([]);
  expect(pages - unreadable - empty).toBeGreaterThan(46);
});
