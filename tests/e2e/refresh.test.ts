import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { openBrowser, openPage } from '../support/browser';
import { address, byName, catchDownloads, putFile, upload } from '../support/desk';

/** Next week's file, the editions, and the way back: as a person does it, read from what the ledger and the API then hold. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
const folder = mkdtempSync(join(tmpdir(), 'clembo-refresh-'));
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
});
afterAll(() => close());

const file = (name: string, lines: string[]): string => {
  const path = join(folder, name);
  writeFileSync(path, `${lines.join('\n')}\n`);
  return path;
};
const press = async (name: string) => {
  const button = await byName(page, 'button', name);
  await page.waitForFunction((b) => !(b as HTMLButtonElement).disabled, {}, button);
  await (button as ElementHandle<HTMLButtonElement>).click();
};
const on = (part: string) =>
  page.waitForFunction((p) => new RegExp(p).test(location.pathname), { timeout: 30_000 }, part);
const says = (words: string) =>
  page.waitForFunction((w) => document.body.innerText.includes(w), { timeout: 30_000 }, words);
const changes = () => page.$$eval('[aria-label="Changes"] h2', (list) => list.map((h) => h.textContent!.trim()));
const tick = async (name: string) => {
  const box = (await page.waitForSelector(`input[aria-label="${name}"]`)) as ElementHandle<HTMLInputElement>;
  // What is said at the foot of the screen may lie over it for a moment.
  await box.evaluate((b) => b.click());
};

interface Answer {
  plan: {
    activities: { ref: string; name: string; finish: number; percent: number | null; notes: string; codes: object }[];
    links: { from: string; to: string; type: string; lag: number }[];
    statusDate: number | null;
  };
  editions: { id: string; name: string; working: boolean; baseline: boolean }[];
  version: number;
  rows: Record<string, [number, number]>;
}
let planId = '';
const planNow = async (edition = ''): Promise<Answer> =>
  (await (await fetch(`${address}/api/plans/${planId}${edition && `?edition=${edition}`}`)).json()) as Answer;
const named = (a: Answer) => Object.fromEntries(a.plan.activities.map((x) => [x.ref, x.name]));
const day = (iso: string) => Date.parse(`${iso}Z`) / 60_000;

const HEADINGS = 'ID,Activity,Start,Finish,Predecessors,% complete,Zone';
const week1 = [
  HEADINGS,
  'A1,Fence,2026-03-02,2026-03-06,,100,North',
  'A2,Dig,2026-03-09,2026-03-20,A1,40,North',
  'A3,Drain,2026-03-23,2026-04-03,A2,0,South',
  'A4,Slab,2026-04-06,2026-04-24,A3,0,South',
  'A5,Walls,2026-04-27,2026-05-29,A4,0,South',
  'A6,Old gate,2026-06-01,2026-06-05,A5,0,North',
  'A7,Handover,2026-06-08,2026-06-08,A6,0,North',
];
/** Moved, renamed, progressed, relinked, recoded, one gone, one new, one under another reference; and the status date. */
const week2 = [
  'Status date,2026-03-20,,,,,',
  HEADINGS,
  'A1,Fence,2026-03-02,2026-03-06,,100,North',
  'A2,Dig and shore,2026-03-09,2026-03-24,A1,70,North',
  'A3,Drain,2026-03-25,2026-04-07,A2,0,South',
  'A4,Slab,2026-04-08,2026-04-28,A3SS+5d,0,West',
  'B5,Walls,2026-04-29,2026-05-29,A4,0,South',
  'A7,Handover,2026-06-08,2026-06-08,B5,0,North',
  'A8,Signs,2026-06-09,2026-06-12,B5,0,North',
];

describe('a plan and next week’s file', () => {
  test('the first week becomes a plan; something is changed by hand', async () => {
    await upload(page, file('site week 1.csv', week1));
    await press('Make the plan');
    await on('/plans/.*/show$');
    planId = /plans\/([^/]+)/.exec(page.url())![1]!;
    const { version } = await planNow();
    const command = { do: 'changeActivity', ref: 'A6', part: { notes: 'kept by hand' } };
    const answer = await fetch(`${address}/api/plans/${planId}`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ version, command }),
    });
    expect(answer.status).toBe(200);
  });

  test('the second week is compared before anything changes: every kind, the same under another reference asked', async () => {
    await page.goto(`${address}/plans/${planId}/gather`, { waitUntil: 'networkidle2' });
    await putFile(page, file('site week 2.csv', week2));
    await on('^/intake/');
    await press('See what has changed');
    await on('/changes$');
    await says('Walls (A5) is gone; Walls (B5) is new');
    expect(await changes()).toEqual(expect.arrayContaining(['3 moved', '2 new', '2 gone']));
    // Walls is the same; the old gate is not the signs, if that is asked.
    await press('The same');
    await page.waitForFunction(
      () => [...document.querySelectorAll('[aria-label="Changes"] h2')].some((h) => h.textContent === '4 moved'),
      { timeout: 30_000 },
    );
    expect(named(await planNow())).toMatchObject({ A2: 'Dig', A6: 'Old gate' });
    await says('2 working days later');
  });

  test('half of it is accepted, the choice survives a reload, and the plan is refreshed in one step', async () => {
    await tick('Accept: Dig, renamed');
    await tick('Accept: Old gate, removed');
    await tick('Accept: Slab, moved');
    await says('8 of 11 changes accepted');
    // One connection stays: it tells what others change.
    await page.waitForNetworkIdle({ idleTime: 300, concurrency: 1 });
    await page.reload({ waitUntil: 'networkidle2' });
    await says('8 of 11 changes accepted');
    await press('Refresh the plan');
    await on('/gather$');
    await says('8 changes accepted, 3 refused');
    const now = await planNow();
    expect(named(now)).toEqual({
      A1: 'Fence',
      A2: 'Dig',
      A3: 'Drain',
      A4: 'Slab',
      A5: 'Walls',
      A6: 'Old gate',
      A7: 'Handover',
      A8: 'Signs',
    });
    const of = (ref: string) => now.plan.activities.find((a) => a.ref === ref)!;
    expect(of('A2').percent).toBe(70);
    // Accepted: the finish of the 7th is the beginning of the 8th. Refused: the slab stays.
    expect(of('A3').finish).toBe(day('2026-04-08T00:00'));
    expect(of('A4').finish).toBe(day('2026-04-25T00:00'));
    expect(Object.values(of('A4').codes)).toEqual(['West']);
    expect(of('A6').notes).toBe('kept by hand');
    expect(now.plan.statusDate).toBe(day('2026-03-20T00:00'));
    expect(now.plan.links).toEqual(
      expect.arrayContaining([expect.objectContaining({ from: 'A3', to: 'A4', type: 'SS', lag: 2400 })]),
    );
    // The walls came from another row, under another reference.
    expect(now.rows.A5).toEqual([2, 7]);
    expect(now.editions.map((e) => [e.name, e.working])).toEqual([
      ['site week 2.csv', true],
      ['site week 1.csv', false],
    ]);
  });

  test('it is taken back as a whole, and done again', async () => {
    await press('Take it back');
    await says('The refresh is taken back.');
    expect(named(await planNow())).not.toHaveProperty('A8');
    expect((await planNow()).plan.activities.find((a) => a.ref === 'A2')!.percent).toBe(40);
    await press('Do it again');
    await says('The refresh is done again.');
    expect(named(await planNow())).toMatchObject({ A8: 'Signs', A5: 'Walls' });
  });

  test('the third week asks only about what the source has changed since: what was refused is not asked again', async () => {
    const week3 = week2.map((line) => (line.startsWith('A8') ? line.replace('2026-06-12', '2026-06-16') : line));
    await page.goto(`${address}/plans/${planId}/gather`, { waitUntil: 'networkidle2' });
    await putFile(page, file('site week 3.csv', week3));
    await on('^/intake/');
    await press('See what has changed');
    await on('/changes$');
    await page.waitForSelector('[aria-label="Changes"] h2', { timeout: 30_000 });
    expect(await changes()).toEqual(['1 moved']);
    await says('2 working days later');
    await press('Refresh the plan');
    await on('/gather$');
    await says('1 change accepted');
  });

  test('a row leads from the page to where it was read', async () => {
    await page.goto(`${address}/plans/${planId}/show`, { waitUntil: 'networkidle2' });
    await page.locator('main a[href*="/show/"]').click();
    const bar = await page.waitForSelector('[data-testid="page"] [data-ref="A3"]', { timeout: 30_000 });
    await bar!.click();
    await says('From row 5, of site week 3.csv');
    await press('Show the row as it stood');
    const row = await page.waitForSelector('[aria-label="The row as it stood"]');
    expect(await row!.evaluate((e) => (e as HTMLElement).innerText)).toMatch(/Activity\s+Drain\s+Start\s+2026-03-25/);
  });
});

describe('editions', () => {
  test('are kept, named, noted; two are compared', async () => {
    await page.goto(`${address}/plans/${planId}/gather`, { waitUntil: 'networkidle2' });
    await page.type('input[placeholder="Name of the edition"]', 'For the board');
    await press('Keep it');
    await says('The plan as it stands is kept as “For the board”.');
    const note = await page.waitForSelector('input[aria-label="Note on For the board"]');
    await note!.click();
    await note!.type('agreed on Tuesday');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () =>
        document.querySelector<HTMLInputElement>('input[aria-label="Note on For the board"]')?.defaultValue ===
        'agreed on Tuesday',
      { timeout: 20_000 },
    );
    await tick('Choose site week 1.csv to compare');
    await tick('Choose For the board to compare');
    await press('Compare the two chosen');
    await on('/compare$');
    await says('From site week 1.csv to For the board');
    await page.waitForSelector('[aria-label="Changes"] h2');
    expect(await changes()).toEqual(['3 moved', '1 new', '1 progressed', '2 linked otherwise', '1 coded otherwise']);
    expect(await page.$('[aria-label="Changes"] input[type="checkbox"]')).toBeNull();
  });

  test('another is measured against; one is worked on again, and nothing is lost', async () => {
    await page.goBack();
    await on('/gather$');
    const rowOf = async (name: string) =>
      (await page.waitForSelector(
        `::-p-xpath(//li[.//input[@aria-label="Name of the edition ${name}"]])`,
      )) as ElementHandle<Element>;
    const inRow = async (name: string, label: string) => {
      const button = await (await rowOf(name)).waitForSelector(`::-p-xpath(.//button[text()="${label}"])`);
      await (button as ElementHandle<HTMLButtonElement>).click();
    };
    await inRow('For the board', 'Measure against it');
    await page.waitForFunction(
      () =>
        document
          .querySelector('input[aria-label="Name of the edition For the board"]')
          ?.closest('li')
          ?.textContent?.includes('baseline'),
      { timeout: 20_000 },
    );
    expect((await planNow()).editions.find((e) => e.baseline)!.name).toBe('For the board');
    await inRow('site week 1.csv', 'Work on it again');
    await says('is the working edition again');
    const now = await planNow();
    expect(named(now)).toMatchObject({ A2: 'Dig', A6: 'Old gate' });
    expect(named(now)).not.toHaveProperty('A8');
    const aside = now.editions.find((e) => e.name === 'site week 3.csv, set aside')!;
    expect(named(await planNow(aside.id))).toMatchObject({ A8: 'Signs' });
  });
});

describe('several tables make one plan', () => {
  test('several files at once, each a project; a reference that both use is told apart', async () => {
    await page.goto(address, { waitUntil: 'networkidle2' });
    const input = (await page.waitForSelector('input[type="file"]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(
      file('east quay.csv', [
        'ID,Activity,Start,Finish',
        '1,Piles,2026-03-02,2026-03-13',
        '2,Cap,2026-03-16,2026-03-27',
      ]),
      file('west quay.csv', ['ID,Activity,Start,Finish', '1,Dredge,2026-04-06,2026-04-17']),
    );
    await on('^/intake/');
    await says('2 projects in one plan');
    await says('3 activities');
    await press('Make the plan');
    await on('/plans/.*/show$');
    planId = /plans\/([^/]+)/.exec(page.url())![1]!;
    const now = await planNow();
    expect(now.plan.activities.map((a) => [a.ref, a.name, (a.codes as Record<string, string>).project])).toEqual([
      ['1', 'Piles', 'east quay'],
      ['2', 'Cap', 'east quay'],
      ['west quay: 1', 'Dredge', 'west quay'],
    ]);
    expect(now.rows['west quay: 1']).toEqual([2, 2]);
  });

  test('a table from a page on the web is pasted with its joined cells', async () => {
    await page.goto(address, { waitUntil: 'networkidle2' });
    await page.evaluate(() => {
      const data = new DataTransfer();
      data.setData(
        'text/html',
        '<table><tr><th>Phase</th><th>Work</th><th>Start</th><th>Finish</th></tr><tr><td rowspan="2">One</td><td>Fence<br>and gate</td><td>2 Mar 2026</td><td>6 Mar 2026</td></tr><tr><td>&nbsp;&nbsp;Dig</td><td>9 Mar 2026</td><td>20 Mar 2026</td></tr></table>',
      );
      data.setData('text/plain', 'nothing of use');
      document.body.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    });
    await press('Take in the paste');
    await on('^/intake/');
    await says('2 activities');
    await press('Make the plan');
    await on('/plans/.*/show$');
    planId = /plans\/([^/]+)/.exec(page.url())![1]!;
    expect((await planNow()).plan.activities.map((a) => [a.name, Object.values(a.codes)[0]])).toEqual([
      ['Fence\nand gate', 'One'],
      ['Dig', 'One'],
    ]);
  });
});

describe('what a table leaves open is mended in place', () => {
  test('a percentage that may be a share, a cell that is no date, a year that is not written', async () => {
    await page.goto(address, { waitUntil: 'networkidle2' });
    await upload(
      page,
      file('open.csv', [
        'ID,Activity,Start,Finish,% complete',
        '1,Rig,2 March,6 March,0.45',
        '2,Paint,9 March,soonish,45 %',
        '3,Sail,16 March,20 March,1',
      ]),
    );
    await page.waitForSelector('input[aria-label="Year of the dates"]');
    await page.type('input[aria-label="Year of the dates"]', '2026');
    await press('All of them');
    // The list moves up once the year is known.
    await page.waitForFunction(() => document.querySelector('input[aria-label="Year of the dates"]') === null, {
      timeout: 20_000,
    });
    await press('They are shares of one: 0.45 is 45 %');
    await page.waitForSelector('input[aria-label="What soonish means"]', { timeout: 20_000 });
    await says('1 cell cannot be read as it stands');
    await page.type('input[aria-label="What soonish means"]', '13 March');
    await press('Read it so');
    await page.waitForFunction(() => !document.body.innerText.includes('cannot be read'), { timeout: 20_000 });
    // Every change can be undone, and done again.
    await press('Undo');
    await says('1 cell cannot be read as it stands');
    await press('Redo');
    await page.waitForFunction(() => !document.body.innerText.includes('cannot be read'), { timeout: 20_000 });
    await press('Make the plan');
    await on('/plans/.*/show$');
    planId = /plans\/([^/]+)/.exec(page.url())![1]!;
    expect((await planNow()).plan.activities.map((a) => [a.finish, a.percent])).toEqual([
      [day('2026-03-07T00:00'), 45],
      [day('2026-03-14T00:00'), 45],
      [day('2026-03-21T00:00'), 100],
    ]);
  });
});

describe('a plan is taken out again', () => {
  test('as a workbook and as a calendar, which are taken in again', async () => {
    await page.goto(`${address}/plans/${planId}/gather`, { waitUntil: 'networkidle2' });
    const waitFor = await catchDownloads(page);
    const take = async (name: string, ending: string) => {
      await (await page.waitForSelector(`::-p-xpath(//button[starts-with(., "${name}")])`))!.evaluate((b) =>
        (b as HTMLButtonElement).click(),
      );
      return waitFor(ending);
    };
    const workbook = await take('Workbook', '.xlsx');
    const calendar = await take('Calendar', '.ics');
    expect(readFileSync(calendar, 'utf8')).toContain('SUMMARY:Paint');
    await page.goto(address, { waitUntil: 'networkidle2' });
    await upload(page, workbook);
    await says('3 activities');
    await press('Make the plan');
    await on('/plans/.*/show$');
    const before = (await planNow()).plan;
    planId = /plans\/([^/]+)/.exec(page.url())![1]!;
    const after = (await planNow()).plan;
    expect(after.activities.map((a) => [a.ref, a.name, a.finish, a.percent])).toEqual(
      before.activities.map((a) => [a.ref, a.name, a.finish, a.percent]),
    );
  });
});
