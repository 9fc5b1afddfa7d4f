import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import writeXlsx from 'write-excel-file/node';
import { openBrowser, openPage, pageShown } from '../support/browser';
import {
  address,
  byName,
  catchDownloads,
  changeMany,
  changePart,
  choose,
  pageText,
  run,
  waitForText,
  upload,
} from '../support/desk';

let browser: Browser;
let close: () => Promise<void>;
const folder = mkdtempSync(join(tmpdir(), 'clembo-e2e-'));
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
});
afterAll(() => close());

const makePlan = async (page: Page) => {
  await (await byName(page, 'button', 'Make the plan')).asLocator().click();
  await page.waitForFunction(() => /\/plans\/.*\/show$/.test(location.pathname), { timeout: 20_000 });
  await page.waitForSelector('main li a');
  await page.locator('main li a').click();
  await pageShown(page);
};
const outcome = (page: Page) => page.$eval('footer[role="status"]', (e) => e.textContent);

const ROWS = [
  ['Code', 'What is done', 'Begins', 'Ends', 'Trade', 'Zone', 'Needs', 'Headline'],
  ['Q1', 'Clear the quay', '05/01/2026', '23/01/2026', 'Civil', 'North', '', 'no'],
  ['Q2', 'Drive the piles', '26/01/2026', '27/03/2026', 'Marine', 'North', 'Q1', 'no'],
  ['Q3', 'Cast the capping', '30/03/2026', '15/05/2026', 'Civil', 'South', 'Q2', 'no'],
  ['Q4', 'Quay open', '18/05/2026', '', 'Civil', 'South', 'Q3', 'no'],
];

describe('what the checks say', () => {
  test('of a file with a loop, a lead, and dates that its logic does not lead to; a reference leads to its row', async () => {
    const csv = join(folder, 'Checked.csv');
    const lines = [
      'ID,Name,Start,Finish,Duration,Predecessors',
      'A1,Survey,2026-01-05,2026-01-09,5,',
      'A2,Design,2026-01-12,2026-01-23,10,A1',
      'A3,Build,2026-01-19,2026-01-30,10,A2',
      'B1,Paint,2026-02-02,2026-02-06,5,B2',
      'B2,Dry,2026-02-09,2026-02-13,5,B1',
    ];
    writeFileSync(csv, lines.join('\n'));
    const page = await openPage(browser, address);
    await upload(page, csv);
    await makePlan(page);
    await page.goto(page.url().replace(/show.*/, 'structure'), { waitUntil: 'networkidle2' });
    await page.waitForFunction(() =>
      [...document.querySelectorAll('main button')].some((b) => b.textContent!.startsWith('Checks')),
    );
    await page.$$eval('main button', (list) =>
      (list.find((b) => b.textContent!.startsWith('Checks')) as HTMLElement).click(),
    );
    const panel = await page.waitForSelector('aside[aria-label="Checks"]');
    const text = await panel!.evaluate((e) => (e as HTMLElement).innerText);
    expect(text).toContain('The links run in a circle: B2 → B1 → B2');
    expect(text).toContain('A3: the given dates differ from the computed ones by a working day or more (up to 5)');
    await (await panel!.$('::-p-text(B2)'))!.click();
    const row = await page.waitForSelector('[role="row"][aria-selected="true"][data-ref="B2"]');
    expect(await row!.evaluate((e) => e.textContent)).toContain('Dry');
    await page.locator('[data-brief-part="columns"]').click();
    await choose(page, 'computed against given');
    await page.keyboard.press('Escape');
    await page.waitForSelector('[data-cell$=" off"]');
    // Build is given from 19 January; after Design it can end on 6 February, five working days later.
    const build = await page.$$eval(
      '[role="row"]',
      (rows) => rows.find((r) => r.textContent?.includes('Build'))!.textContent,
    );
    expect(build).toContain('30 Jan 26');
    expect(build).toContain('+5');
    await page.close();
  });
});

describe('from a file to a page and back', () => {
  test('CSV: upload, map, three parts of the brief, PDF and SVG with the names and dates in them', async () => {
    const csv = join(folder, 'Quay works.csv');
    writeFileSync(csv, `\ufeff${ROWS.map((r) => r.join(';')).join('\r\n')}\r\n`);
    const page = await openPage(browser, address);
    const download = await catchDownloads(page);
    await upload(page, csv);

    // “Begins” and “Ends” are known words, “What is done” is not: the rest is corrected by hand.
    await (await byName(page, 'button', 'Meaning of What is done')).asLocator().click();
    await choose(page, 'Name');
    await (await byName(page, 'button', 'Meaning of Needs')).asLocator().click();
    await choose(page, 'Predecessors');
    await (await byName(page, 'button', 'Meaning of Headline')).asLocator().click();
    await choose(page, 'leave out');
    await page.waitForFunction(() => document.querySelector('footer')?.textContent?.includes('3 links'));
    expect(await outcome(page)).toContain('3 activities, 1 milestone, 3 links');
    await makePlan(page);

    await changeMany(page, 'lanes', ['zone']);
    await changePart(page, 'colour', 'by trade');
    await changePart(page, 'page', 'A3 landscape');
    await waitForText(page, 'North');
    const text = await pageText(page);
    for (const t of ['Clear the quay', '23 Jan', 'Drive the piles', '27 Mar', 'Quay open 18 May', 'South', 'Marine'])
      expect(text).toContain(t);

    await (await byName(page, 'button', 'Export')).asLocator().click();
    await page.waitForSelector('[role="menuitem"]');
    await (await page.$$('[role="menuitem"]'))[0]!.click();
    const pdf = await download('.pdf');
    const words = run('pdftotext', '-layout', pdf, '-');
    for (const t of ['Clear the quay', '23 Jan', 'Drive the piles', '27 Mar', 'Quay open 18 May', 'North', 'Marine'])
      expect(words.replace(/ +/g, ' ')).toContain(t);
    const info = run('pdfinfo', pdf);
    expect(info).toMatch(/Title:\s+Quay works runs to 18 May 2026/);
    expect(info).toMatch(/Page size:\s+1190\.55 x 841\.89 pts \(A3\)/);
    expect(
      run('pdffonts', pdf)
        .split('\n')
        .slice(2)
        .filter(Boolean)
        .every((line) => / yes yes yes /.test(line)),
    ).toBe(true);
    expect(run('qpdf', '--check', pdf)).toContain('No syntax or stream encoding errors');

    await (await byName(page, 'button', 'Export')).asLocator().click();
    await page.waitForSelector('[role="menuitem"]');
    await page.locator('[role="menuitem"]::-p-text(SVG)').click();
    const svg = readFileSync(await download('.svg'), 'utf8');
    const parsed = await page.evaluate((source) => {
      const document = new DOMParser().parseFromString(source, 'image/svg+xml');
      return {
        wrong: document.querySelector('parsererror')?.textContent ?? null,
        texts: [...document.querySelectorAll('text')].map((t) => t.textContent),
      };
    }, svg);
    expect(parsed.wrong).toBeNull();
    expect(parsed.texts.join('\n')).toBe(await pageText(page));
    await page.close();
  });

  test('XLSX: a later sheet, headings below a title, dates as dates', async () => {
    const path = join(folder, 'museum.xlsx');
    const date = (text: string) => ({ value: new Date(`${text}T00:00:00Z`), type: Date, format: 'yyyy-mm-dd' });
    const cell = (value: string) => ({ value });
    await writeXlsx([
      { data: [[cell('Nothing here')]], sheet: 'Cover' },
      {
        data: [
          [cell('Museum move, made up')],
          ['Task ID', 'Name', 'Start', 'Finish', 'Team'].map(cell),
          [cell('M1'), cell('Pack the clocks'), date('2026-03-02'), date('2026-03-20'), cell('Conservation')],
          [cell('M2'), cell('Move the clocks'), date('2026-03-23'), date('2026-04-02'), cell('Transport')],
          [cell('M3'), cell('Pack the toys'), date('2026-03-23'), date('2026-04-17'), cell('Conservation')],
        ],
        sheet: 'Programme',
      },
    ] as never).toFile(path);
    const page = await openPage(browser, address);
    await upload(page, path);
    expect(await outcome(page)).toContain('3 activities');
    await makePlan(page);
    await waitForText(page, 'Pack the clocks');
    await changePart(page, 'rows', 'each: one activity a row');
    await changePart(page, 'labels', 'start');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() =>
      document.querySelector('[data-testid="page"]')?.textContent?.includes('2 Mar–20 Mar'),
    );
    await page.close();
  });

  test('a pasted table, pasted by keyboard', async () => {
    const page = await openPage(browser, address);
    const text = ROWS.map((r) => r.join('\t')).join('\n');
    await page.focus('#paste');
    await page.evaluate(async (t) => {
      const data = new DataTransfer();
      data.setData('text/plain', t);
      document.activeElement!.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
      // A scripted paste event does not type: the browser's own insertion does.
      document.execCommand('insertText', false, t);
    }, text);
    await (await byName(page, 'button', 'Take in the paste')).asLocator().click();
    await page.waitForFunction(() => location.pathname.startsWith('/intake/'));
    await (await byName(page, 'button', 'Meaning of What is done')).asLocator().click();
    await choose(page, 'Name');
    await page.waitForFunction(() =>
      document.querySelector('footer')?.textContent?.includes('3 activities, 1 milestone'),
    );
    await makePlan(page);
    await waitForText(page, 'Drive the piles');
    await page.close();
  });
});

describe('what is not clear is asked, what is wrong is shown', () => {
  test('day and month: asked while the whole column leaves it open', async () => {
    const csv = join(folder, 'open.csv');
    writeFileSync(csv, 'Name,Start,Finish\nLay the rails,02/03/2026,05/04/2026\n');
    const page = await openPage(browser, address);
    await upload(page, csv);
    const alert = (await page.waitForSelector('main [role="alert"]'))!;
    expect(await alert.evaluate((e) => e.textContent)).toContain('leave open whether day or month comes first');
    expect(
      await (await byName(page, 'button', 'Make the plan')).evaluate((b) => (b as HTMLButtonElement).disabled),
    ).toBe(true);
    await (await byName(page, 'button', 'Dates day or month first?')).asLocator().click();
    await choose(page, 'month before day');
    await page.waitForFunction(() => document.querySelector('tbody')?.textContent?.includes('Tue 3 Feb 2026'));
    await makePlan(page);
    await waitForText(page, 'Lay the rails');
    await page.close();
  });

  test('wrong cells are listed with their place; holding everything back is the person’s choice', async () => {
    const csv = join(folder, 'wrong.csv');
    writeFileSync(
      csv,
      'ID,Name,Start,Finish\nA,Lay the rails,2026-03-02,soon\nB,Test the rails,2026-04-06,2026-04-10\n',
    );
    const page = await openPage(browser, address);
    await upload(page, csv);
    const listed = await page.$eval('section[aria-labelledby="problems"]', (e) => e.textContent);
    expect(listed).toContain('1 cell in Finish (row 2)');
    expect(listed).toContain('“soon” is not a date');
    await page.locator('section[aria-labelledby="problems"] input[type="checkbox"]').click();
    expect(
      await (await byName(page, 'button', 'Make the plan')).evaluate((b) => (b as HTMLButtonElement).disabled),
    ).toBe(true);
    await page.locator('section[aria-labelledby="problems"] input[type="checkbox"]').click();
    await makePlan(page);
    await waitForText(page, 'Test the rails');
    await page.close();
  });

  test('a file that is none is refused with the reason', async () => {
    const path = join(folder, 'broken.xlsx');
    writeFileSync(path, Buffer.from([0x50, 0x4b, 3, 4, 0, 1, 2, 3]));
    const page = await openPage(browser, address);
    const input = (await page.waitForSelector('input[type="file"]')) as unknown as {
      uploadFile(path: string): Promise<void>;
    };
    await input.uploadFile(path);
    const alert = await page.waitForSelector('[role="alert"]');
    expect(await alert!.evaluate((e) => e.textContent)).toContain('broken.xlsx is not a workbook, or it is damaged');
    expect(new URL(page.url()).pathname).toBe('/');
    await page.close();
  });
});
