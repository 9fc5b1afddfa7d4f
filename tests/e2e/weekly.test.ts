import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { takeIn } from '../support/api';
import { openBrowser, openPage } from '../support/browser';
import { address, byName, run, until } from '../support/desk';

/** A plan that refreshes itself from a folder every week, and writes its folio; done through the page, read from the disk. */

const root = process.env.CLEMBO_FOLDERS!;
const HEAD = 'ID,Activity,Start,Finish,Zone';
const week = (finish: string, more: string[] = []) =>
  [
    HEAD,
    'A1,Fence,2026-03-02,2026-03-13,North',
    `A2,Dig,2026-03-16,${finish},North`,
    'A3,Drain,2026-04-20,2026-05-01,South',
    'A4,Slab,2026-05-04,2026-05-29,South',
    'A5,Walls,2026-06-01,2026-07-10,South',
    'A6,Roof,2026-07-13,2026-07-24,South',
    'A7,Doors,2026-07-27,2026-07-31,South',
    ...more,
  ].join('\n');

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let planId = '';
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  mkdirSync(join(root, 'harbour'), { recursive: true });
  planId = await takeIn('Harbour every week.csv', week('2026-04-03'));
  page = await openPage(browser, `${address}/plans/${planId}/share`);
}, 60_000);
afterAll(() => close());

const press = async (name: string) => (await byName(page, 'button', name)).asLocator().click();
const share = () => page.goto(`${address}/plans/${planId}/share`, { waitUntil: 'networkidle2' });
const leave = (name: string, text: string) => writeFileSync(join(root, 'harbour', name), text);
const finishOf = async (ref: string) => {
  const { plan } = (await (await fetch(`${address}/api/plans/${planId}`)).json()) as {
    plan: { activities: { ref: string; finish: number }[] };
  };
  const found = plan.activities.find((a) => a.ref === ref);
  return found ? new Date((found.finish - 1) * 60_000).toISOString().slice(0, 10) : null;
};
/** Does it now, and gives how it went: the state and the words of the newest report. */
const runNow = async (): Promise<[state: string, words: string]> => {
  const before = await page.$$eval('[aria-label="How it went"] [data-state]', (l) => l.length);
  await press('Run now');
  await page.waitForFunction(
    (n) => document.querySelectorAll('[aria-label="How it went"] [data-state]').length > n,
    { timeout: 60_000 },
    before,
  );
  return page.$eval('[aria-label="How it went"] [data-state]', (e): [string, string] => [
    e.getAttribute('data-state')!,
    e.textContent ?? '',
  ]);
};

test('it is set up in a sentence, with a folio of its own', async () => {
  await press('A new folio');
  await page.waitForFunction(() => location.pathname.startsWith('/folios/'));
  await page.locator('[role="dialog"] section[aria-label="Harbour every week"] label').click();
  await press('Put in 1 page');
  await page.waitForSelector('[data-page] svg');
  await new Promise((r) => setTimeout(r, 1000));
  await share();
  await press('Set up a weekly run');
  await page.select('[aria-label="Day of the week"]', '0');
  await page.$eval('[aria-label="Folder"]', (e) => (e as HTMLInputElement).select());
  await page.type('[aria-label="Folder"]', 'harbour');
  await page.select('[aria-label="What is accepted"]', 'all');
  await page.$eval('[aria-label="Folder for what is written"]', (e) => (e as HTMLInputElement).select());
  await page.type('[aria-label="Folder for what is written"]', 'out/harbour');
  await page.locator('label::-p-text(slides)').click();
  await press('Begin');
  await page.waitForSelector('::-p-text(It has not been done yet.)');
  const next = await page.$eval('section[aria-label="Every week"] [role="status"]', (e) => e.textContent ?? '');
  expect(next).toMatch(/Next on Mon\D+\d+ \w+\D+16:00/);
});

test('an empty folder is told, and that it is tried again', async () => {
  const [state, words] = await runNow();
  expect(state).toBe('failed');
  expect(words).toContain('There is no file in the folder “harbour”.');
});

test('the newest file is taken, and the folio written from it', async () => {
  leave('week 1.csv', week('2026-04-03'));
  leave('week 2.csv', week('2026-04-10'));
  const [state, words] = await runNow();
  expect([state, words.includes('1 change of week 2.csv taken'), words.includes('2 files written')]).toEqual([
    'done',
    true,
    true,
  ]);
  expect(await finishOf('A2')).toBe('2026-04-10');
  const files = readdirSync(join(root, 'out/harbour')).sort();
  expect(files).toEqual([
    expect.stringMatching(/^Folio of Harbour every week \d{4}-\d\d-\d\d\.pdf$/),
    expect.stringMatching(/^Folio of Harbour every week \d{4}-\d\d-\d\d\.pptx$/),
  ]);
  expect(run('pdftotext', join(root, 'out/harbour', files[0]!), '-')).toContain('Dig');
  // The same file again is nothing new.
  expect((await runNow())[0]).toBe('nothing');
});

test('a file that lost most of its rows waits for a person, and changes nothing', async () => {
  leave('week 3.csv', [HEAD, 'A1,Fence,2026-03-02,2026-03-20,North'].join('\n'));
  const [state, words] = await runNow();
  expect(state).toBe('waiting');
  expect(words).toContain('6 of 7 activities are gone: is it the right file?');
  expect(await finishOf('A1')).toBe('2026-03-13');
});

test('a broken file, and a folder that vanished, are told; nothing is lost, and the next run works', async () => {
  leave('week 4.xlsx', 'PK this is no workbook');
  expect((await runNow())[0]).toBe('failed');
  expect(await finishOf('A2')).toBe('2026-04-10');
  const kept = readFileSync(join(root, 'harbour/week 2.csv'), 'utf8');
  rmSync(join(root, 'harbour'), { recursive: true });
  const [gone, words] = await runNow();
  expect([gone, words.includes('The folder “harbour” is not there')]).toEqual(['failed', true]);
  mkdirSync(join(root, 'harbour'));
  leave('week 5.csv', kept.replace('2026-04-10', '2026-04-17'));
  expect((await runNow())[0]).toBe('done');
  expect(await finishOf('A2')).toBe('2026-04-17');
});

test('where the folio cannot be written, what was taken stands, and is not taken twice', async () => {
  rmSync(join(root, 'out/harbour'), { recursive: true });
  writeFileSync(join(root, 'out/harbour'), 'in the way');
  leave('week 5b.csv', week('2026-04-18'));
  const [state, words] = await runNow();
  expect([state, words.includes('1 change of week 5b.csv taken.')]).toEqual(['failed', true]);
  expect(await finishOf('A2')).toBe('2026-04-18');
  rmSync(join(root, 'out/harbour'));
  const [again, said] = await runNow();
  expect([again, said.includes('2 files written')]).toEqual(['nothing', true]);
});

// A disk of our own, so that it can be full; whoever runs the tests has to be allowed to mount one.
const disk = join(root, 'out/harbour');
const mount = (...args: string[]): boolean => spawnSync('mount', args, { stdio: 'ignore' }).status === 0;
const mayMount = (() => {
  const probe = mkdtempSync(join(tmpdir(), 'clembo-disk-'));
  const may = mount('-t', 'tmpfs', '-o', 'size=8k', 'tmpfs', probe);
  if (may) spawnSync('umount', [probe]);
  rmSync(probe, { recursive: true });
  return may;
})();
(mayMount ? test : test.skip)(
  'a disk that is full is told; nothing half-written is left, and the next run works',
  async () => {
    rmSync(disk, { recursive: true });
    mkdirSync(disk);
    expect(mount('-t', 'tmpfs', '-o', 'size=8k', 'tmpfs', disk)).toBe(true);
    try {
      leave('week 5c.csv', week('2026-04-19'));
      const [state, words] = await runNow();
      expect(state).toBe('failed');
      expect(words).toContain('1 change of week 5c.csv taken.');
      expect(words).toContain('has no room left: its disk is full');
      expect(readdirSync(disk)).toEqual([]);
      expect(await finishOf('A2')).toBe('2026-04-19');
      expect(mount('-o', 'remount,size=16m', disk)).toBe(true);
      const [again, said] = await runNow();
      expect([again, said.includes('2 files written')]).toEqual(['nothing', true]);
      expect(readdirSync(disk)).toHaveLength(2);
    } finally {
      spawnSync('umount', [disk]);
    }
  },
);

test('where a person is asked, the run waits, and goes on once it is decided', async () => {
  await page.select('[aria-label="What is accepted"]', 'wait');
  await press('Keep it');
  await page.waitForFunction(() =>
    [...document.querySelectorAll('button')].some((b) => b.textContent === 'Keep it' && b.disabled),
  );
  leave('week 6.csv', week('2026-04-24'));
  const [state, words] = await runNow();
  expect([state, words.includes('1 change in week 6.csv to be looked at')]).toEqual(['waiting', true]);
  expect(await finishOf('A2')).toBe(mayMount ? '2026-04-19' : '2026-04-18');
  const link = await page.$eval('[aria-label="How it went"] a', (a) => a.getAttribute('href')!);
  await page.goto(`${address}${link}/changes`, { waitUntil: 'networkidle2' });
  await press('Refresh the plan');
  await until(() => finishOf('A2'), '2026-04-24');
  await share();
  await until(async () => {
    await page.reload({ waitUntil: 'networkidle2' });
    return page.$eval('[aria-label="How it went"] [data-state]', (e) => e.getAttribute('data-state'));
  }, 'nothing');
});

test('it is removed, and can be set up again as it was', async () => {
  await press('Remove it');
  await page.waitForSelector('button::-p-text(Set up a weekly run)');
  await press('Set it up again');
  await page.waitForSelector('::-p-text(It has not been done yet.)');
  expect(await page.$eval('[aria-label="Folder"]', (e) => (e as HTMLInputElement).value)).toBe('harbour');
});
