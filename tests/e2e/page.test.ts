import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { openBrowser, openPage } from '../support/browser';
import {
  address,
  byName,
  catchDownloads,
  changeMany,
  changePart,
  listClosed,
  newExhibit,
  pageText,
  run,
  sayPart,
  waitForShown,
  waitForText,
  toSheet,
} from '../support/desk';

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
  await toSheet(page, 'Saltmere');
  await newExhibit(page);
}, 120_000);
afterAll(() => close());

const roles = (role: string) => page.$$eval(`[data-testid="page"] [data-role="${role}"]`, (list) => list.length);
const textsOf = (role: string) =>
  page.$$eval(`[data-testid="page"] text[data-role="${role}"]`, (list) => list.map((t) => t.textContent ?? ''));
const sentence = () => page.$eval('[aria-label="Brief"]', (e) => e.textContent ?? '');
const waitForRole = (role: string, there = true) =>
  page.waitForFunction(
    (r, want) => (document.querySelector(`[data-testid="page"] [data-role="${r}"]`) !== null) === want,
    { timeout: 20_000 },
    role,
    there,
  );
/** Types the sentence in place of the brief. */
async function type(text: string): Promise<void> {
  await listClosed(page);
  await page.locator('[data-testid="type-brief"]').click();
  const field = await page.waitForSelector('[data-testid="typed"] textarea, textarea');
  await field!.click({ count: 3 });
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
  await page.waitForSelector('[aria-label="Brief"]');
}

describe('a page is shaped by its sentence', () => {
  test('lanes nest three deep, with the titles of each level', async () => {
    await changePart(page, 'level', 'the last level');
    await changePart(page, 'page', 'A1 landscape');
    await changeMany(page, 'lanes', ['phase', 'area', 'contractor']);
    await waitForText(page, 'Gates');
    const xs = await page.$$eval('[data-testid="page"] text[data-role="lane"]', (list) => [
      ...new Set(list.map((t) => t.getAttribute('x'))),
    ]);
    expect(xs).toHaveLength(3);
    expect(await sentence()).toMatch(/in lanes by \w+, then \w+, then \w+/);
  });

  test('milestones are strung on one line, their labels on stems', async () => {
    await changeMany(page, 'lanes', ['phase']);
    await changePart(page, 'page', 'A3 landscape');
    await changePart(page, 'include', 'milestones only');
    await changePart(page, 'rows', 'strand: milestones strung on one line');
    await waitForRole('strand');
    const points = await roles('milestone');
    expect(points).toBeGreaterThan(10);
    expect(await roles('stem')).toBe((await textsOf('label')).length);
    await changePart(page, 'compare', 'nothing');
    await changePart(page, 'stems', 'labels all above');
    await page.waitForFunction(() => {
      const y = (e: Element, a: string) => Number(e.getAttribute(a));
      const lines = [...document.querySelectorAll('[data-testid="page"] [data-role="strand"]')].map((l) => y(l, 'y1'));
      const last = Math.max(...lines);
      return [...document.querySelectorAll('[data-testid="page"] text[data-role="label"]')].every(
        (t) => y(t, 'y') < last,
      );
    });
  });

  test('milestones have the shapes of another field, which the legend explains', async () => {
    await changePart(page, 'colour', 'by contractor');
    await changePart(page, 'shape', 'milestones shaped by area');
    const book = await page.evaluate(async () => {
      const id = location.pathname.split('/')[2];
      const { plan } = (await (await fetch(`/api/plans/${id}`)).json()) as {
        plan: { codeFields: { name: string; values: { title: string }[] }[] };
      };
      return plan.codeFields.find((f) => f.name.toLowerCase() === 'area')!.values.map((v) => v.title);
    });
    await page.waitForFunction(
      (titles) => {
        const legend = [...document.querySelectorAll('[data-testid="page"] text[data-role="legend"]')];
        return legend.filter((t) => titles.includes(t.textContent ?? '')).length > 1;
      },
      { timeout: 20_000 },
      book,
    );
    const forms = await page.$$eval('[data-testid="page"] [data-role="milestone"]', (list) => [
      ...new Set(
        list.map(
          (m) => `${m.tagName} ${(m.getAttribute('d') ?? m.getAttribute('points') ?? '').split(/[ML ]/).length}`,
        ),
      ),
    ]);
    expect([forms, forms.length > 1]).toEqual([forms, true]);
    await changePart(page, 'shape', 'milestones shaped as their colour says');
  });

  test('columns stand beside the rows, with totals by lane', async () => {
    await changePart(page, 'include', 'activities and milestones');
    await changePart(page, 'level', 'level 2');
    await changePart(page, 'rows', 'each: one activity a row');
    await changeMany(page, 'columns', ['start', 'finish', 'cost']);
    await waitForRole('cell');
    expect(await textsOf('head')).toEqual(['start', 'finish', 'cost']);
    const before = await roles('cell');
    await changePart(page, 'totals', 'with totals by lane');
    await page.waitForFunction(
      (n) => document.querySelectorAll('[data-testid="page"] [data-role="cell"]').length > n,
      {},
      before,
    );
    expect((await textsOf('cell')).some((t) => t.startsWith('£'))).toBe(true);
  });

  test('compared with the promise, by outlines and by arrows', async () => {
    await changePart(page, 'compare', 'Contract baseline of 12 January 2026');
    await waitForRole('promised');
    await changePart(page, 'compareBy', 'arrows');
    await waitForText(page, 'From the promised to a later finish');
    expect(await textsOf('legend')).toContain('From the promised to an earlier finish');
  });

  test('a date of its own is typed into the list of named dates', async () => {
    await sayPart(page, 'dates');
    await page.locator('[data-brief-part="dates"]').click();
    const name = await page.waitForSelector('[aria-label="Name of date 1"]');
    await name!.type('Council decides');
    await page.$eval('[aria-label="Day of date 1"]', (e) => {
      const field = e as HTMLInputElement;
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(field, '2026-11-16');
      field.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await page.keyboard.press('Escape');
    await waitForText(page, 'Council decides 16 Nov 26');
    expect(await sentence()).toContain('marking “Council decides” on 16 November 2026');
  });

  test('notes are written, and stand at the foot', async () => {
    await sayPart(page, 'notes');
    await page.locator('[data-brief-part="notes"]').click();
    await (await page.waitForSelector('textarea[aria-label="Notes"]'))!.type('Tides are those of the harbour office.');
    await (await byName(page, 'button', 'Write it')).asLocator().click();
    await waitForText(page, 'Tides are those of the harbour office.');
  });

  test('a logo is chosen as a file, and stands at the head', async () => {
    await sayPart(page, 'logo');
    await page.locator('[data-brief-part="logo"]').click();
    const input = (await page.waitForSelector('input[aria-label="Picture file"]'))! as ElementHandle<HTMLInputElement>;
    const folder = await mkdtemp(join(tmpdir(), 'clembo-'));
    const file = join(folder, 'sign.svg');
    await writeFile(
      file,
      '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="100"><rect width="300" height="100" rx="20" fill="#0F6E6E"/></svg>',
    );
    await input.uploadFile(file);
    await page.waitForSelector('[data-testid="page"] image');
    const [w, h] = await page.$eval('[data-testid="page"] image', (e) =>
      ['width', 'height'].map((a) => Number(e.getAttribute(a))),
    );
    expect(w! / h!).toBeCloseTo(3, 1);
    expect(await sentence()).toContain('with a picture');
  });

  test('the sentence is typed: any order, parts of all kinds', async () => {
    await type(
      'on A3 landscape, milestones only, rows strand, written in German, a scale of years, quarters and months',
    );
    await waitForText(page, 'Stichtag');
    expect(await sentence()).toMatch(/Show milestones only .*rows strand.*written in German/);
    expect(await textsOf('scale')).toContain('Q3');
    expect((await textsOf('title')).join(' ')).toMatch(/9 von 14 Meilensteinen noch offen/);
    // What was not spoken of is as it was.
    expect(await sentence()).toContain('Council decides');
  });

  test('links are drawn, and explained', async () => {
    await type(
      'activities and milestones, down to level 2, rows packed, written in English, with all links drawn, without columns',
    );
    await waitForRole('link');
    expect(await textsOf('legend')).toContain('Link');
  });

  test('a page of its own size, in millimetres', async () => {
    await sayPart(page, 'size');
    await page.locator('[data-brief-part="size"]').click();
    await (await page.waitForSelector('[aria-label="Width in mm"]'))!.type('508');
    await (await page.waitForSelector('[aria-label="Height in mm"]'))!.type('254');
    await (await byName(page, 'button', 'Use it')).asLocator().click();
    await page.waitForFunction(
      () => document.querySelector('[data-testid="page"] svg')?.getAttribute('viewBox') === '0 0 1440 720',
    );
    await page.locator('[data-brief-part="size"]').click();
    await (await byName(page, 'button', 'A usual page')).asLocator().click();
    await page.waitForFunction(
      () => document.querySelector('[data-testid="page"] svg')?.getAttribute('viewBox') !== '0 0 1440 720',
    );
  });
});

describe('what a page hides, and how it fits', () => {
  test('a blind spot opens to what it is, and is mended', async () => {
    const blind = await page.waitForSelector('[data-testid="blind"]');
    expect(await blind!.evaluate((e) => e.textContent)).toMatch(/critical/);
    await blind!.click();
    const mend = await byName(page, 'button', 'show every level');
    await mend.click();
    await waitForShown(page, '142 of 142');
    expect(await page.$('[data-testid="blind"]')).toBeNull();
  });

  test('fit advice is taken at a click: an exhibit that is too much for a page runs over several', async () => {
    await type('rows each, on A4 landscape, without links');
    await page.waitForFunction(() => document.querySelector('[data-testid="fit"]')?.textContent?.includes('Too much'));
    await page.locator('[data-testid="fit"]').click();
    const advice = await page.waitForSelector('::-p-text(use several pages)');
    await advice!.click();
    await page.waitForSelector('[data-testid="pager"]');
    expect(await page.$eval('[data-testid="pager"]', (e) => e.textContent)).toMatch(/Page 1 of [3-9]/);
    const first = await pageText(page);
    await (await byName(page, 'button', 'Next page')).asLocator().click();
    await page.waitForFunction(() => document.querySelector('[data-testid="pager"]')?.textContent?.includes('Page 2'));
    await waitForText(page, await textsOf('source').then((s) => s.find((t) => t.startsWith('Page 2'))!));
    expect(await pageText(page)).not.toBe(first);
  });

  test('its PDF holds all pages, each with its number', async () => {
    const of = Number(/of (\d+)/.exec((await page.$eval('[data-testid="pager"]', (e) => e.textContent)) ?? '')![1]);
    const download = await catchDownloads(page);
    await (await byName(page, 'button', 'Export')).asLocator().click();
    await page.waitForSelector('[role="menuitem"]');
    await (await page.$$('[role="menuitem"]'))[0]!.click();
    const pdf = await download('.pdf');
    expect(run('pdfinfo', pdf)).toMatch(new RegExp(`Pages:\\s+${of}\\b`));
    const words = run('pdftotext', '-layout', pdf, '-');
    for (let k = 1; k <= of; k++) expect(words).toContain(`Page ${k} of ${of}`);
    expect(words).toMatch(/\(continued\)/);
    // The picture is on every page.
    expect(run('pdfimages', '-list', pdf).trim().split('\n').length - 2).toBeGreaterThanOrEqual(of);
  });
});
