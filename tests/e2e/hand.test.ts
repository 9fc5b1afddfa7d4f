import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { takeIn } from '../support/api';
import { openBrowser, openPage, pageShown } from '../support/browser';
import {
  address,
  byName,
  catchDownloads,
  exhibitNames,
  newExhibit,
  pageText,
  putFile,
  run,
  waitForText,
} from '../support/desk';

/** The work on a page: set by hand, regrouped, kept, refreshed, written. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let planId = '';
const folder = mkdtempSync(join(tmpdir(), 'clembo-hand-'));
const rows = (later: number) =>
  [
    'ID,Activity,Start,Finish,Zone,Team',
    'A1,Fence,2026-03-02,2026-03-13,North,Blue',
    `A2,Dig,2026-03-16,2026-04-${String(3 + later).padStart(2, '0')},North,Red`,
    `A3,Drain,2026-04-${String(6 + later).padStart(2, '0')},2026-05-01,South,Red`,
    'A4,Slab,2026-05-04,2026-05-29,South,Blue',
    'A5,Walls,2026-06-01,2026-07-10,West,Blue',
    ...(later === 0 ? ['A6,Old gate,2026-07-13,2026-07-24,West,Red'] : []),
    'A7,Handover,2026-08-03,2026-08-03,West,Red',
  ].join('\n');

beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  planId = await takeIn('Slipway by hand.csv', rows(0));
  page = await openPage(browser, `${address}/plans/${planId}/show`);
  await page.waitForSelector('main li svg[viewBox]');
}, 120_000);
afterAll(() => close());

const SVG = '[data-testid="page"] svg';
/** The place of a thing on the screen: its mark, or its label. */
const spot = async (ref: string, role: 'bar' | 'label') => {
  const found = (await page.waitForSelector(`${SVG} g[data-ref="${ref}"] [data-role="${role}"]`))!;
  return (await found.boundingBox())!;
};
const drag = async (from: { x: number; y: number }, to: { x: number; y: number }) => {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
};
const lanes = () => page.$$eval(`${SVG} text[data-role="lane"]`, (list) => list.map((t) => t.textContent ?? ''));
const kept = () => page.waitForFunction(() => document.readyState === 'complete').then(() => pause(400));
const pause = (ms: number) => new Promise((r) => setTimeout(r, ms));
const middle = (b: { x: number; y: number; width: number; height: number }) => ({
  x: b.x + b.width / 2,
  y: b.y + b.height / 2,
});
const byHand = () => page.$eval('[data-testid="by-hand"]', (e) => e.textContent ?? '');
/** Takes an entry of the menu that is open. */
const pick = async (title: string) => {
  const entry = await page.waitForSelector(`[role="menuitem"]::-p-text(${title})`);
  await entry!.click();
};
const press = async (name: string) => (await byName(page, 'button', name)).asLocator().click();

describe('pages that are offered', () => {
  test('are drawn of this plan; one of them becomes an exhibit', async () => {
    await press('New exhibit');
    await page.waitForSelector('[data-preview="Summary for executives"] svg');
    const offered = await page.$$eval('[data-preview]', (list) => list.map((e) => e.getAttribute('data-preview')));
    expect(offered).toEqual(expect.arrayContaining(['By team', 'For the public', 'Timeline']));
    // The plan has no links and no editions: what needs them is not offered.
    for (const name of ['The critical path', 'Late against the promise', 'What slipped most'])
      expect(offered).not.toContain(name);
    await page.keyboard.press('Escape');
    await newExhibit(page, 'Timeline');
    await waitForText(page, 'Walls');
  });

  test('a page is regrouped in one move, by a small picture of it', async () => {
    await press('Regroup');
    await page.waitForSelector('[data-preview="By team"] svg');
    await page.locator('[data-preview="By team"]').click();
    await waitForText(page, 'Blue');
    expect((await lanes()).sort()).toEqual(['Blue', 'Red']);
    await press('Regroup');
    await page.waitForSelector('[data-preview="By zone"] svg');
    await page.locator('[data-preview="By zone"]').click();
    await waitForText(page, 'North');
  });
});

describe('by hand', () => {
  test('a label is dragged, and lies where it was let go', async () => {
    const before = await spot('A4', 'label');
    const to = { x: before.x + 60, y: before.y - 80 };
    await drag({ x: before.x + 4, y: before.y + before.height / 2 }, { x: to.x + 4, y: to.y + before.height / 2 });
    await page.waitForSelector(`${SVG} g[data-ref="A4"] [data-role="stem"]`);
    const after = await spot('A4', 'label');
    expect(after.x).toBeCloseTo(to.x, -0.5);
    expect(Math.abs(after.y - to.y)).toBeLessThan(2);
    expect(await byHand()).toBe('1 set by hand');
  });

  test('a lane is dragged to the top', async () => {
    const [first] = await lanes();
    expect(first).toBe('North');
    const title = (await page.waitForSelector(`${SVG} text[data-role="lane"]::-p-text(West)`))!;
    const from = middle((await title.boundingBox())!);
    const top = middle((await (await page.$(`${SVG} text[data-role="lane"]`))!.boundingBox())!);
    await drag(from, { x: from.x, y: top.y - 6 });
    await page.waitForFunction(
      (s) => document.querySelector(`${s} text[data-role="lane"]`)?.textContent === 'West',
      {},
      SVG,
    );
    expect((await lanes())[0]).toBe('West');
  });

  test('a note is put on and held by its activity; its words are typed in the margin', async () => {
    await press('Put onto the page');
    await pick('Words');
    const bar = await spot('A2', 'bar');
    await page.mouse.click(bar.x + bar.width - 2, bar.y + bar.height / 2);
    const field = (await page.waitForSelector('textarea[aria-label="Words of the note"]'))!;
    await field.evaluate((e) => (e as HTMLTextAreaElement).select());
    await page.keyboard.type('Waits for the crane');
    await page.keyboard.down('Control');
    await page.keyboard.press('Enter');
    await page.keyboard.up('Control');
    await waitForText(page, 'Waits for the crane');
    expect(await page.$eval('[aria-label="Margin"]', (e) => e.textContent)).toContain('the finish of Dig');
  });

  test('a comment is said at a place, and stands there as a number that no file has', async () => {
    await press('Put onto the page');
    await pick('Comment');
    const bar = await spot('A3', 'bar');
    await page.mouse.click(bar.x + 2, bar.y + bar.height / 2);
    await page.waitForSelector('textarea[aria-label="Say something about this place"]:focus');
    await page.keyboard.type('Who owns the ditch?');
    await page.keyboard.down('Control');
    await page.keyboard.press('Enter');
    await page.keyboard.up('Control');
    const mark = (await page.waitForSelector('[data-pin="1"]'))!;
    const at = middle((await mark.boundingBox())!);
    // Its lower edge stands three pixels above the place.
    expect([Math.abs(at.x - bar.x - 2) < 2, Math.abs(at.y + 14 - bar.y - bar.height / 2) < 2]).toEqual([true, true]);
    await mark.click();
    await page.waitForSelector('aside[aria-label="Comment 1"] ::-p-text(Who owns the ditch?)');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => document.querySelector('aside[aria-label="Comment 1"]') === null);
    expect(await pageText(page)).not.toContain('ditch');
    const download = await catchDownloads(page);
    await press('Export');
    await pick('SVG');
    expect(readFileSync(await download('.svg'), 'utf8')).not.toContain('ditch');
  });

  test('looks are set, copied to several others, and undone', async () => {
    const bar = await spot('A4', 'bar');
    await page.mouse.click(bar.x + 5, bar.y + bar.height / 2);
    await press('Colour 5');
    const edge = (ref: string) =>
      page.$eval(`${SVG} g[data-ref="${ref}"] [data-role="bar"]`, (e) => e.getAttribute('stroke'));
    await page.waitForFunction(
      (s) => document.querySelector(`${s} g[data-ref="A4"] [data-role="bar"]`)?.getAttribute('stroke') === '#CB5C83',
      {},
      SVG,
    );
    await press('Copy looks');
    for (const [ref, more] of [
      ['A1', false],
      ['A3', true],
    ] as const) {
      const b = await spot(ref, 'bar');
      if (more) await page.keyboard.down('Shift');
      await page.mouse.click(b.x + 5, b.y + b.height / 2);
      if (more) await page.keyboard.up('Shift');
    }
    await page.waitForFunction(() =>
      document.querySelector('[aria-label="Margin"]')?.textContent?.includes('2 things'),
    );
    await press('Paste looks');
    await page.waitForFunction(
      (s) => document.querySelector(`${s} g[data-ref="A3"] [data-role="bar"]`)?.getAttribute('stroke') === '#CB5C83',
      {},
      SVG,
    );
    expect(await edge('A1')).toBe('#CB5C83');
    await press('Undo');
    await page.waitForFunction(
      (s) => document.querySelector(`${s} g[data-ref="A3"] [data-role="bar"]`)?.getAttribute('stroke') !== '#CB5C83',
      {},
      SVG,
    );
    expect(await edge('A4')).toBe('#CB5C83');
    await press('Redo');
  });

  test('a lane is folded into one row, by keys', async () => {
    await page.keyboard.press('Escape');
    await page.keyboard.press('/');
    await page.waitForSelector('[role="combobox"]');
    await page.keyboard.type('West');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[role="option"]')].some((o) => o.textContent?.includes('West')),
    );
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await press('Fold it into one row');
    await waitForText(page, 'West (3)');
    // A note on what will be gone next week.
    await press('Unfold it');
    await press('Put onto the page');
    await pick('Words');
    const bar = await spot('A6', 'bar');
    await page.mouse.click(bar.x + 3, bar.y + bar.height / 2);
    await page.waitForSelector('textarea[aria-label="Words of the note"]');
    await page.keyboard.type('Is it needed?');
    await page.locator('[data-testid="page"]').click({ offset: { x: 3, y: 3 } });
    await waitForText(page, 'Is it needed?');
    await kept();
  });
});

describe('next week’s file', () => {
  test('moves nothing that is set by hand, takes notes along, and says what has lost its activity', async () => {
    const offset = async () => {
      const [bar, label] = [await spot('A4', 'bar'), await spot('A4', 'label')];
      // From either end of its bar, whose length on the page may be another, in sizes of its type.
      const size = await page.$eval(`${SVG} g[data-ref="A4"] [data-role="label"]`, (e) => {
        const svg = e.closest('svg')!;
        return (Number(e.getAttribute('font-size')) * svg.getBoundingClientRect().width) / svg.viewBox.baseVal.width;
      });
      return {
        start: (label.x - bar.x) / size,
        finish: (label.x - bar.x - bar.width) / size,
        y: (label.y + label.height / 2 - bar.y - bar.height / 2) / size,
      };
    };
    const placed = await offset();
    const url = page.url();
    const path = join(folder, 'Slipway by hand.csv');
    writeFileSync(path, `${rows(7)}\n`);
    await page.goto(`${address}/plans/${planId}/gather`, { waitUntil: 'networkidle2' });
    await putFile(page, path);
    await page.waitForFunction(() => location.pathname.startsWith('/intake/'), { timeout: 30_000 });
    const see = (await byName(page, 'button', 'See what has changed')) as ElementHandle<HTMLButtonElement>;
    await page.waitForFunction((b) => !b.disabled, {}, see);
    await see.click();
    await page.waitForFunction(() => location.pathname.endsWith('/changes'), { timeout: 30_000 });
    const take = (await byName(page, 'button', 'Refresh the plan')) as ElementHandle<HTMLButtonElement>;
    await page.waitForFunction((b) => !b.disabled, {}, take);
    await take.click();
    await page.waitForFunction(() => location.pathname.endsWith('/gather'), { timeout: 30_000 });

    await page.goto(url, { waitUntil: 'networkidle2' });
    await pageShown(page);
    expect(await byHand()).toContain('1 without its activity');
    expect(await lanes()).toContain('West');
    expect((await lanes())[0]).toBe('West');
    // The label is where it was from its bar, in sizes of the type; the page has other rows now.
    const now = await offset();
    const off = [now.start - placed.start, now.finish - placed.finish].map(Math.abs);
    expect(Math.min(...off)).toBeLessThan(0.15);
    expect(Math.abs(now.y - placed.y)).toBeLessThan(0.15);
    // The note begins at the finish of Dig, a week later than before.
    const ends = await page.evaluate((s) => {
      const dot = document.querySelector(`${s} [data-role="note"] circle`)!;
      const bar = document.querySelector(`${s} g[data-ref="A2"] [data-role="bar"]`)!;
      return [Number(dot.getAttribute('cx')), Number(bar.getAttribute('x')) + Number(bar.getAttribute('width'))];
    }, SVG);
    expect(ends[0]).toBeCloseTo(ends[1]!, 0);
    // What was said at the start of Drain is there still, a week later.
    const pin = middle((await (await page.waitForSelector('[data-pin="1"]'))!.boundingBox())!);
    const drain = await spot('A3', 'bar');
    expect([Math.abs(pin.x - drain.x - 2) < 4, Math.abs(pin.y + 14 - drain.y - drain.height / 2) < 4]).toEqual([
      true,
      true,
    ]);
    await page.locator('[data-pin="1"]').click();
    await page.locator('aside[aria-label="Comment 1"] button::-p-text(Done)').click();
    await page.waitForFunction(() => document.querySelector('[data-pin]') === null);
    const text = await pageText(page);
    expect(text).toContain('Waits for the crane');
    expect(text).not.toContain('Is it needed?');
    await page.locator('[data-testid="by-hand"]').click();
    await page.waitForSelector('ul[aria-label="Set by hand"]');
    const list = await page.$eval('ul[aria-label="Set by hand"]', (e) => e.textContent ?? '');
    expect(list).toContain('“Is it needed?”its activity is gone');
    await press('Take back: “Is it needed?”');
    await page.waitForFunction(
      () => !document.querySelector('[data-testid="by-hand"]')?.textContent?.includes('without'),
    );
    await page.keyboard.press('Escape');
  });
});

describe('files', () => {
  test('slides, web page, workbook and PDF say the same as the page', async () => {
    const labels = await page.$$eval(`${SVG} text[data-role="label"]`, (list) =>
      list.map((t) => (t.textContent ?? '').trim()),
    );
    expect(labels.length).toBeGreaterThan(4);
    const files: Record<string, string> = {};
    for (const [format, title] of [
      ['pptx', 'PPTX'],
      ['html', 'HTML'],
      ['xlsx', 'XLSX'],
      ['pdf', 'PDF'],
    ] as const) {
      const download = await catchDownloads(page);
      await press('Export');
      await pick(title);
      files[format] = await download(`.${format}`);
    }
    const slide = strFromU8(unzipSync(readFileSync(files.pptx!))['ppt/slides/slide1.xml']!);
    const shapes = [...slide.matchAll(/<p:sp>.*?<\/p:sp>/gs)].map((m) =>
      [...m[0].matchAll(/<a:t>([^<]*)<\/a:t>/g)].map((t) => t[1]).join(''),
    );
    const html = readFileSync(files.html!, 'utf8');
    const plain = html.replace(/<\/?tspan[^>]*>/g, '');
    const pdf = run('pdftotext', '-layout', files.pdf!, '-').replace(/\s+/g, ' ');
    for (const label of [...labels, 'Waits for the crane']) {
      expect(shapes.map((s) => s.trim())).toContain(label);
      expect(plain).toContain(`>${label}<`);
      expect(pdf).toContain(label.split(' ').slice(0, 2).join(' '));
    }
    const sheet = unzipSync(readFileSync(files.xlsx!));
    expect(strFromU8(sheet['xl/sharedStrings.xml']!)).toContain('Walls');
    expect(slide).toContain('name="Note"');
  }, 120_000);

  test('the table of a page goes into the clipboard', async () => {
    await browser
      .defaultBrowserContext()
      .overridePermissions(address, ['clipboard-read', 'clipboard-write', 'clipboard-sanitized-write']);
    await page.bringToFront();
    await press('Export');
    await pick('Copy the table');
    await page.waitForSelector('::-p-text(The table is in the clipboard)');
    const text = await page.evaluate(() => navigator.clipboard.readText());
    expect(text.split('\n')[0]!.split('\t')).toContain('Finish');
    expect(text).toContain('Walls');
  });
});

describe('the contact sheet', () => {
  test('is put in order, renamed, and written as one file', async () => {
    await page.goto(`${address}/plans/${planId}/show`, { waitUntil: 'networkidle2' });
    await page.waitForSelector('main li svg[viewBox]');
    const before = await exhibitNames(page);
    expect(before).toHaveLength(2);
    const handle = await byName(page, 'button', `Move ${before[1]}`);
    await handle.focus();
    const arranged = page.waitForResponse((r) => r.request().method() === 'PUT');
    for (const key of ['Space', 'ArrowLeft', 'Space'] as const) {
      await page.keyboard.press(key);
      await pause(300);
    }
    expect((await arranged).ok()).toBe(true);
    expect(await exhibitNames(page)).toEqual([before[1], before[0]]);
    const name = (await page.$('main li input[aria-label^="Name of"]'))!;
    await name.click({ count: 3 });
    await page.keyboard.type('Lanes by zone');
    const renamed = page.waitForResponse((r) => r.request().method() === 'PATCH');
    await page.keyboard.press('Enter');
    expect((await renamed).ok()).toBe(true);
    await page.reload({ waitUntil: 'networkidle2' });
    await page.waitForSelector('main li svg[viewBox]');
    expect(await exhibitNames(page)).toEqual(['Lanes by zone', before[0]]);
    const download = await catchDownloads(page);
    await press('Export all');
    await pick('PDF');
    const pdf = await download('.pdf');
    expect(run('pdfinfo', pdf)).toMatch(/Pages:\s+2/);
  });

  test('a brief is kept, and laid over another plan; what that does not have is said', async () => {
    await page.locator('main li a').click();
    await page.waitForFunction(() => /\/show\/[0-9a-f-]{36}$/.test(location.pathname));
    await pageShown(page);
    await press('Keep this brief');
    const field = (await page.waitForSelector('form input'))!;
    await field.click({ count: 3 });
    await page.keyboard.type('Zones for the board');
    await press('Keep it');
    await page.waitForSelector('::-p-text(is kept)');
    const other = await takeIn(
      'Another slipway.csv',
      'ID,Activity,Start,Finish,Phase\nB1,Steps,2026-03-02,2026-03-06,One\n',
    );
    await page.goto(`${address}/plans/${other}/show`, { waitUntil: 'networkidle2' });
    await page.waitForSelector('main li svg[viewBox]');
    await newExhibit(page, 'Zones for the board');
    await waitForText(page, 'Steps');
    // Nothing that was set by hand came along.
    expect(await page.$('[data-testid="by-hand"]')).toBeNull();
    expect(await pageText(page)).not.toContain('Waits for the crane');
    await page.goto(`${address}/plans/${other}/show`, { waitUntil: 'networkidle2' });
    await page.waitForSelector('main li svg[viewBox]');
    await press('New exhibit');
    await press('Let go of the kept brief Zones for the board');
    await page.waitForFunction(() => document.querySelector('[data-preview="Zones for the board"]') === null);
  });
});
