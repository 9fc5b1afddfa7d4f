import type { Page } from 'puppeteer-core';
import { still } from './desk';

/** Fills the fields of a form from the one that has the focus on, by keys alone, and sends it. */
export async function fill(page: Page, ...values: string[]): Promise<void> {
  while (!(await page.evaluate(() => document.activeElement?.tagName === 'INPUT').catch(() => false)))
    await new Promise((r) => setTimeout(r, 100));
  for (const [k, value] of values.entries()) {
    if (k > 0) await page.keyboard.press('Tab');
    await page.keyboard.type(value);
  }
  await page.keyboard.press('Enter');
}

/** Waits until a page says something; looked at from outside, since shared pages let nothing run in them. */
export async function shows(page: Page, words: string): Promise<void> {
  for (let k = 0; k < 100; k++) {
    const said = await page.evaluate(() => document.body?.textContent ?? '').catch(() => '');
    if (said.includes(words)) return;
    await new Promise((r) => setTimeout(r, 200));
  }
  throw new Error(`the page does not say “${words}”`);
}

/** Presses what stands still: while a page is still coming, what is below moves. */
export async function press(page: Page, selector: string): Promise<void> {
  await page.waitForSelector(selector);
  await still(page, selector);
  await page.locator(selector).click();
}
