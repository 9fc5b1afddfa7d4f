import { expect } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { address } from './address';
import { byName } from './byName';

export { address, byName };

/** Has downloads of a page go to a new folder; returns a way to wait for the next file there. */
export async function catchDownloads(page: Page): Promise<(ending: string) => Promise<string>> {
  const folder = mkdtempSync(join(tmpdir(), 'clembo-downloads-'));
  const session = await page.createCDPSession();
  await session.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
  return async (ending) => {
    for (let k = 0; k < 600; k++) {
      const found = readdirSync(folder).find((f) => f.endsWith(ending));
      if (found && readFileSync(join(folder, found)).length > 0) return join(folder, found);
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error(`no file ending in ${ending} was downloaded`);
  };
}

export const run = (program: string, ...args: string[]): string => execFileSync(program, args, { encoding: 'utf8' });

/** Waits until something stands where it stands: what moves while it is clicked is missed. */
export async function still(page: Page, selector: string): Promise<void> {
  const place = async () =>
    JSON.stringify(await page.$eval(selector, (e) => e.getBoundingClientRect()).catch(() => null));
  for (let before = '', now = await place(); before !== now || now === 'null'; ) {
    await new Promise((r) => setTimeout(r, 80));
    [before, now] = [now, await place()];
  }
}

/** Has a part of the brief said that is not, since it is at its default. */
export async function sayPart(page: Page, part: string): Promise<void> {
  await page.waitForSelector('[data-brief-part]');
  if (await page.$(`[data-brief-part="${part}"]`)) return;
  await still(page, '[aria-label="Say more"]');
  await page.locator('[aria-label="Say more"]').click();
  await page.locator(`[data-add="${part}"]`).click();
  await page.waitForSelector(`[data-brief-part="${part}"]`);
  await page.waitForFunction(() => document.querySelector('[data-add]') === null);
}

/** Chooses an option of the part of the brief. */
export async function changePart(page: Page, part: string, option: string): Promise<void> {
  await listClosed(page);
  await sayPart(page, part);
  await page.locator(`[data-brief-part="${part}"]`).click();
  await choose(page, option);
}

/** Makes just these options of a part of the brief chosen. */
export async function changeMany(page: Page, part: string, wanted: string[]): Promise<void> {
  await listClosed(page);
  await sayPart(page, part);
  await page.locator(`[data-brief-part="${part}"]`).click();
  await page.waitForSelector('[role="option"]');
  for (const option of await page.$$('[role="option"]')) {
    const [text, chosen] = await option.evaluate((e) => [e.textContent!.trim(), e.ariaSelected === 'true'] as const);
    if (wanted.includes(text) !== chosen) await option.click();
  }
  await page.keyboard.press('Escape');
}

/** Waits until the strip below the page says what is shown in words that hold these. */
export const waitForShown = (page: Page, words: string) =>
  page.waitForFunction((w) => document.querySelector('[data-testid="shown"]')?.textContent?.includes(w), {}, words);

/** Waits until the list that was open before is gone: while it closes it takes the next click. */
export const listClosed = (page: Page) =>
  page.waitForFunction(() => document.querySelector('[role="option"]') === null, { timeout: 30_000 });

/** Clicks the option with exactly this text in the open list. */
export async function choose(page: Page, option: string): Promise<void> {
  await page.waitForSelector('[role="option"]');
  const options = await page.$$('[role="option"]');
  for (const o of options) {
    if ((await o.evaluate((e) => e.textContent?.trim())) === option) {
      await o.click();
      return;
    }
  }
  throw new Error(`the list has no “${option}”`);
}

/** Gives a file to the page as if it were chosen. */
export async function putFile(page: Page, path: string): Promise<void> {
  const input = (await page.waitForSelector('input[type="file"]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
}

/** Takes in a table and waits for its column map. */
export async function upload(page: Page, path: string): Promise<void> {
  await putFile(page, path);
  await page.waitForFunction(() => location.pathname.startsWith('/intake/'));
  await page.waitForSelector('footer[role="status"]');
}

export const pageText = (page: Page): Promise<string> =>
  page.$eval('[data-testid="page"]', (e) => [...e.querySelectorAll('text')].map((t) => t.textContent).join('\n'));

/** Waits until the composed page holds a text (with dates behind it or without), or no longer does. */
export const waitForText = (page: Page, text: string, there = true) =>
  page.waitForFunction(
    (t, want) =>
      [...document.querySelectorAll('[data-testid="page"] text')].some(
        (e) => e.textContent === t || e.textContent?.startsWith(`${t} `),
      ) === want,
    { timeout: 30_000 },
    text,
    there,
  );

/** Waits until what is read is as wanted: what is pressed is written a moment later. */
export async function until<T>(read: () => Promise<T>, wanted: T): Promise<void> {
  for (const end = Date.now() + 20_000; ; ) {
    const now = await read();
    try {
      expect(now).toEqual(wanted);
      return;
    } catch (error) {
      if (Date.now() > end) throw error;
      await new Promise((r) => setTimeout(r, 150));
    }
  }
}

/** Begins a new exhibit of the sheet by one of the pages that are offered. */
export async function newExhibit(page: Page, preview = 'Timeline'): Promise<void> {
  await (await byName(page, 'button', 'New exhibit')).asLocator().click();
  // Pages further down are drawn when they come into sight; they can be chosen before.
  const tile = await page.waitForSelector(`[data-preview="${preview}"]`, { timeout: 20_000 });
  await tile!.evaluate((e) => e.scrollIntoView({ block: 'center' }));
  await page.waitForSelector(`[data-preview="${preview}"] svg`, { timeout: 20_000 });
  await (await page.$(`[data-preview="${preview}"]`))!.click();
  await page.waitForFunction(() => /\/show\/[0-9a-f-]{36}$/.test(location.pathname), { timeout: 20_000 });
  await page.waitForSelector('[data-testid="page"] svg', { timeout: 20_000 });
}

/** What the exhibits of the sheet are called, in their order. */
export const exhibitNames = (page: Page): Promise<string[]> =>
  page.$$eval('main li input[aria-label^="Name of"]', (list) => list.map((e) => (e as HTMLInputElement).value));

/** Where a link of a row of the list leads, by what stands in the row and in the link; the first one if nothing is said. */
export async function linkOf(page: Page, row: string, link = ''): Promise<string> {
  const found = await page.waitForFunction(
    (r, l) => {
      const rows = [...document.querySelectorAll('main li')].find((li) => li.textContent?.includes(r));
      return [...(rows?.querySelectorAll('a') ?? [])].find((a) => l === '' || a.textContent?.trim() === l)?.href;
    },
    {},
    row,
    link,
  );
  return (await found.jsonValue())!;
}

/** Goes from the desk to the sheet of exhibits of a plan, by what it is called; gives the id of the plan. */
export async function toSheet(page: Page, plan: string): Promise<string> {
  return openSheet(page, await linkOf(page, plan, 'Show'));
}

/** Makes a plan of a table, as it is read without a question, and goes to its sheet; gives the id of the plan. */
export async function planOfTable(page: Page, path: string): Promise<string> {
  await page.goto(address, { waitUntil: 'networkidle2' });
  await upload(page, path);
  return makeIt(page);
}

/** Makes the plan of the intake that is open, and goes to its sheet; gives the id of the plan. */
export async function makeIt(page: Page): Promise<string> {
  await (await byName(page, 'button', 'Make the plan')).asLocator().click();
  await page.waitForFunction(() => /\/plans\/.*\/show$/.test(location.pathname), { timeout: 30_000 });
  return openSheet(page, page.url());
}

async function openSheet(page: Page, href: string): Promise<string> {
  await page.goto(href, { waitUntil: 'networkidle2' });
  // Small pages are drawn once the sheet is at work.
  await page.waitForSelector('main li svg[viewBox]');
  return /plans\/([^/]+)/.exec(href)![1]!;
}

/** The brief of the exhibit that is open, as the server has it. */
export const keptBrief = async <Brief>(page: Page): Promise<Brief> => {
  const id = page.url().split('/').at(-1)!;
  const answer = await fetch(`${address}/api/exhibits/${id}`);
  return ((await answer.json()) as { brief: Brief }).brief;
};
