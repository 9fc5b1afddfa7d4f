import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { awaitJob, copyOf, planNamed } from '../support/api';
import { openBrowser, openPage } from '../support/browser';
import { address, run } from '../support/desk';

/** How a plan stands against its promise, read from the page, beside numbers worked out by hand. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let planId = '';
const json = { 'Content-Type': 'application/json' };
const day = (iso: string) => Date.parse(`${iso}T00:00Z`) / 60_000;
const send = async (method: string, path: string, body: unknown) => {
  const answer = await fetch(`${address}/api/plans${path}`, { method, headers: json, body: JSON.stringify(body) });
  expect([path, answer.status]).toEqual([path, 200]);
  return (await answer.json()) as Record<string, string>;
};
const change = async (command: unknown) => {
  const { version } = (await (await fetch(`${address}/api/plans/${planId}`)).json()) as { version: number };
  await send('PATCH', `/${planId}`, { version, command });
};
const statements = () =>
  page.$$eval('[data-testid="statement"]', (list) =>
    list.map((s) => (s as HTMLElement).innerText.replace(/\n+/g, ' | ')),
  );
const measured = () => page.$eval('[data-testid="measured"]', (p) => p.textContent!);
const pressed = async (text: string, within = 'main') => {
  const button = await page.waitForFunction(
    (t, w) => [...document.querySelectorAll<HTMLElement>(`${w} button`)].find((b) => b.textContent!.trim() === t),
    {},
    text,
    within,
  );
  await (button as ElementHandle<HTMLElement>).click();
};
const counts = (words: string) =>
  page.waitForFunction(
    (w) => document.querySelector('[data-testid="measured"]')?.textContent?.startsWith(w),
    {},
    words,
  );

/**
 * Four weeks of 100 each, promised one after the other from Monday 5 January 2026. At the end of the second week the
 * first is done for 120, the second is half done for 60; two days go to the second, a day to the third.
 * By hand, after the definitions of ANSI/EIA-748: PV 200, EV 150, AC 180, BAC 400; SPI 0.75, CPI 0.83, EAC 480.
 */
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
  planId = (await send('POST', '', { name: 'Measured', from: null })).planId!;
  const week = (ref: string, name: string, from: string, to: string, crew: string) => ({
    do: 'addActivity',
    before: null,
    activity: { ref, name, start: day(from), finish: day(to), duration: 2400, cost: 10_000, codes: { crew } },
  });
  await change({
    do: 'all',
    commands: [
      { do: 'setPlan', settings: { source: 'given', statusDate: day('2026-01-17') } },
      { do: 'setCodeField', field: { id: 'crew', name: 'Crew' }, before: null },
      week('A', 'Clear', '2026-01-05', '2026-01-10', 'North'),
      week('B', 'Dig', '2026-01-12', '2026-01-17', 'North'),
      week('C', 'Pour', '2026-01-19', '2026-01-24', 'South'),
      week('D', 'Cure', '2026-01-26', '2026-01-31', 'South'),
    ],
  });
});
afterAll(() => close());

describe('the standing', () => {
  test('says what is missing as long as nothing was promised', async () => {
    await page.goto(`${address}/plans/${planId}/measure`, { waitUntil: 'networkidle2' });
    await page.waitForSelector('::-p-text(Nothing to measure against yet)');
    await send('POST', `/${planId}/editions`, { name: 'Contract' });
    const part = (ref: string, values: object) => ({ do: 'changeActivity', ref, part: values });
    await change({
      do: 'all',
      commands: [
        part('A', {
          actualStart: day('2026-01-05'),
          actualFinish: day('2026-01-10'),
          percent: 100,
          actualCost: 12_000,
        }),
        part('B', { actualStart: day('2026-01-12'), percent: 50, actualCost: 6_000, finish: day('2026-01-21') }),
        part('C', { start: day('2026-01-22'), finish: day('2026-01-29') }),
        part('D', { start: day('2026-01-29'), finish: day('2026-02-05') }),
      ],
    });
  });

  test('the statements agree with what was worked out by hand', async () => {
    await page.goto(`${address}/plans/${planId}/measure`, { waitUntil: 'networkidle2' });
    await page.locator('[data-brief-part="amount"]').click();
    await page.locator('[role="option"]::-p-text(cost)').click();
    await page.waitForFunction(() => document.querySelectorAll('[data-testid="statement"]').length === 4);
    const [finish, , spi, end] = await statements();
    expect(finish).toBe('3 days late | finish 4 Feb 26, promised 30 Jan 26');
    expect(spi).toBe(
      '0.75 | for each 100 planned, 75 earned (SPI) · for each 100 spent, 83 earned (CPI) · as much as was planned by 14 Jan 26',
    );
    expect(end).toBe('80 over | 480 at completion at this rate, budget 400, by cost');
    expect(await page.$eval('section[aria-label="Snapshot"]', (s) => (s as HTMLElement).innerText)).toMatch(
      /Finish\s+4 Feb 26\s+30 Jan 26\s+–\s+–\s+3 days late[\s\S]*Cost\s+420\s+400\s+180\s+240\s+\+5 %/,
    );
  });

  test('what is on a chart can be read as a table', async () => {
    const rows = await page.$$eval('section[aria-label="Cost: promised, earned, spent"] table tr', (list) =>
      list.map((r) => [...r.querySelectorAll('td')].map((c) => c.textContent)),
    );
    expect(rows.find((r) => r[0] === '17 Jan 26')).toEqual(['17 Jan 26', '200', '150', '180']);
    expect(rows.at(-1)!.slice(1)).toEqual(['400', '', '']);
  });

  test('a click on a value, a bar, a status filters everything; another adds; the same takes it away; one clears', async () => {
    await page.locator('[data-part="South"]').click();
    await counts('2 of 4');
    expect((await statements())[0]).toContain('3 days late');
    await page.locator('[data-part="North"]').click();
    await counts('4 activities');
    await page.locator('[data-part="South"]').click();
    await counts('2 of 4');
    // B alone is late of these: by two days.
    expect((await statements())[0]).toContain('2 days late');
    await page.locator('[data-status="complete"]').click();
    await counts('1 of 4');
    expect((await statements())[0]).toContain('On time');
    await page.locator('[data-status="complete"]').click();
    await counts('2 of 4');
    await pressed('Clear');
    await counts('4 activities');
    await page.locator('[data-slip="B"]').click();
    await counts('1 of 4');
    await page.locator('[data-slip="B"]').click();
    await counts('4 activities');
    await page.locator('[data-brief-part="off"]').click();
    await page.locator('[role="option"]::-p-text(anything late)').click();
    await counts('3 of 4');
    await pressed('Clear');
    expect(await measured()).toContain('4 activities');
  });

  test('a figure opens the rows that it is made of, and a row leads to the ledger', async () => {
    await page.locator('[aria-label="Rows of What slipped most"]').click();
    await page.waitForSelector('aside[aria-label="Rows"] tbody tr');
    const rows = await page.$$eval('aside[aria-label="Rows"] tbody tr', (list) =>
      list.map((r) => [...r.querySelectorAll('td')].map((c) => c.textContent)),
    );
    expect(rows).toEqual([
      ['Pour', '28 Jan 26', '23 Jan 26', '+3', '0'],
      ['Cure', '4 Feb 26', '30 Jan 26', '+3', '0'],
      ['Dig', '20 Jan 26', '16 Jan 26', '+2', '50'],
    ]);
    await (await page.$('aside[aria-label="Rows"] tbody a'))!.click();
    await page.waitForFunction(() =>
      document.querySelector('[role="row"][aria-selected="true"]')?.textContent?.includes('Pour'),
    );
  });
});

describe('tolerance and units', () => {
  const write = async (label: string, text: string) => {
    const field = (await page.waitForSelector(`[aria-label="${label}"]`))!;
    await field.click({ count: 3 });
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  };
  const kept = async () =>
    (
      (await (await fetch(`${address}/api/plans/${planId}`)).json()) as {
        plan: { tolerance: { days: object }; currency: string | null; effortDay: number | null };
      }
    ).plan;

  test('bounds that contradict each other stay until they are mended; those that are kept tell rows apart', async () => {
    await page.goto(`${address}/plans/${planId}/measure/tolerance`, { waitUntil: 'networkidle2' });
    await write('The whole plan, days late, normal up to', '30');
    await page.waitForSelector('[aria-label="Tolerance"] [role="alert"]');
    await write('The whole plan, days late, normal up to', '2');
    await write('The whole plan, days late, far off from', '3');
    await page.waitForSelector('button[aria-label="Back to the usual bounds"]');
    for (let k = 0; k < 50 && !JSON.stringify(await kept()).includes('"watch":2,"breach":3'); k++)
      await new Promise((r) => setTimeout(r, 100));
    expect((await kept()).tolerance.days).toEqual({ watch: 2, breach: 3 });
    await page.goto(`${address}/plans/${planId}/structure`, { waitUntil: 'networkidle2' });
    const tone = (ref: string) =>
      page.$eval(`[data-ref="${ref}"] [data-cell$=" finish"]`, (c) => [
        c.textContent,
        c.className.includes('text-madder'),
      ]);
    await page.waitForSelector('[data-ref="C"] [data-cell$=" finish"]');
    // Pour is three days late, far off by these bounds; Dig is two, which is normal.
    expect(await tone('C')).toEqual(['28 Jan 26', true]);
    expect(await tone('B')).toEqual(['20 Jan 26', false]);
  });

  test('the currency and whose numbers they are stand in the statements', async () => {
    await page.goto(`${address}/plans/${planId}/measure/tolerance`, { waitUntil: 'networkidle2' });
    await write('Currency', 'QQQ');
    await page.waitForSelector('[aria-label="Units"] [role="alert"]');
    await write('Currency', 'eur');
    for (let k = 0; k < 50 && (await kept()).currency !== 'EUR'; k++) await new Promise((r) => setTimeout(r, 100));
    expect((await kept()).currency).toBe('EUR');
    await page.goto(`${address}/plans/${planId}/measure`, { waitUntil: 'networkidle2' });
    await page.locator('[data-brief-part="amount"]').click();
    await page.locator('[role="option"]::-p-text(cost)').click();
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[data-testid="statement"]')].some((s) => s.textContent?.startsWith('€80 over')),
    );
  });
});

describe('the weekly round on the demo plan', () => {
  let copy = '';
  const shownWhen = (selector: string, words: string) =>
    page.waitForFunction(
      (q, w) => document.querySelector(q)?.textContent?.includes(w),
      { timeout: 20_000 },
      selector,
      words,
    );
  const planOf = async () =>
    (await (await fetch(`${address}/api/plans/${copy}`)).json()) as {
      plan: {
        statusDate: number;
        activities: {
          ref: string;
          name: string;
          actualFinish: number | null;
          percent: number | null;
          onHold: boolean;
          notes: string;
        }[];
      };
      editions: { id: string; name: string; working: boolean }[];
    };
  const activity = async (name: string) => (await planOf()).plan.activities.find((a) => a.name === name)!;
  const until = async (holds: () => Promise<boolean>) => {
    for (let k = 0; k < 100; k++) {
      if (await holds()) return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('it did not come to be');
  };

  beforeAll(async () => {
    copy = await copyOf(await planNamed('Saltmere'), 'Round');
  }, 60_000);

  test('asks what should have finished, started, what goes on and what is due; a week on it asks more', async () => {
    await page.goto(`${address}/plans/${copy}/measure/week`, { waitUntil: 'networkidle2' });
    await shownWhen('nav[aria-label="What is asked"]', 'Due soon');
    expect(await page.$eval('[aria-label="Round"]', (p) => p.textContent)).toContain(
      'beside what Edition of 7 September 2026 said',
    );
    await pressed('A week on: 21 Sep 26');
    await shownWhen('[aria-label="Round"]', '21 September 2026');
    const asked = await page.$$eval('nav[aria-label="What is asked"] li', (list) => list.map((l) => l.textContent!));
    expect(asked.some((a) => a.startsWith('Toe beam, section 4') && a.includes('16 Sep'))).toBe(true);
  });

  test('is answered by keys: what cannot be read stays until it is mended, what it would bring is said', async () => {
    await page.locator('nav[aria-label="What is asked"] ::-p-text(Toe beam, section 4)').click();
    await page.waitForSelector('section[aria-label="Toe beam, section 4"]');
    await page.focus('[data-field="actualFinish"]');
    await page.keyboard.type('some day');
    await page.keyboard.press('Enter');
    await shownWhen('section[aria-label="Toe beam, section 4"] [role="alert"]', 'is no day');
    await page.keyboard.down('Control');
    await page.keyboard.press('a');
    await page.keyboard.up('Control');
    await page.keyboard.type('23 sep 2026');
    await page.waitForFunction(() =>
      document.querySelector('[data-testid="would"]')?.textContent?.includes('It ends 23 Sep 26'),
    );
    await page.keyboard.press('Enter');
    // Enter goes on to the next field.
    await page.waitForFunction(() => {
      const field = document.activeElement as HTMLInputElement;
      // What has ended is done.
      return field.dataset.field === 'percent' && field.value === '100';
    });
    await until(async () => (await activity('Toe beam, section 4')).actualFinish === day('2026-09-24'));
    // The next one, by keys alone: on hold, with a comment.
    await page.keyboard.down('Alt');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.up('Alt');
    await page.waitForSelector('section[aria-label="Toe beam, section 5"]');
    await page.keyboard.down('Alt');
    await page.keyboard.press('h');
    await page.keyboard.up('Alt');
    await until(async () => (await activity('Toe beam, section 5')).onHold);
    await page.focus('[data-field="notes"]');
    await page.keyboard.type('Waits for the tide');
    await page.keyboard.press('Enter');
    await until(async () => (await activity('Toe beam, section 5')).notes === 'Waits for the tide');
    await page.locator('nav[aria-label="What is asked"] ::-p-text(Toe beam, section 5)').click();
    await page.waitForSelector('section[aria-label="Toe beam, section 5"] select');
    expect(await page.$eval('[aria-label="Status"]', (x) => (x as HTMLSelectElement).value)).toBe('on hold');
    await page.select('[aria-label="Status"]', 'in progress');
    await until(async () => !(await activity('Toe beam, section 5')).onHold);
  }, 60_000);

  test('as a list, Enter goes down', async () => {
    await page.locator('[data-brief-part="as"]').click();
    await page.locator('[role="option"]::-p-text(as a list)').click();
    const field = (await page.waitForSelector('[aria-label="Percent done, Sheet piles, section 3"]'))!;
    await field.click({ count: 3 });
    await page.keyboard.type('80');
    const before = await page.$$eval('[data-field="percent"]', (l) => l.indexOf(document.activeElement!));
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      (k) => [...document.querySelectorAll('[data-field="percent"]')].indexOf(document.activeElement!) === k + 1,
      {},
      before,
    );
    await until(async () => (await activity('Sheet piles, section 3')).percent === 80);
  });

  test('ends in an edition under the status date, and the standing is another', async () => {
    await pressed('End the round');
    await page.waitForSelector('input[aria-label="Name of the edition"]');
    expect(await page.$eval('input[aria-label="Name of the edition"]', (i) => (i as HTMLInputElement).value)).toBe(
      'Status 21 September 2026',
    );
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => location.pathname.endsWith('/measure'));
    await shownWhen('[aria-label="Measuring"]', '21 September 2026');
    const { editions, plan } = await planOf();
    expect(editions.filter((e) => !e.working).map((e) => e.name)).toContain('Status 21 September 2026');
    const complete = plan.activities.filter((a) => a.actualFinish !== null).length;
    await shownWhen('[data-status="complete"]', String(complete));
    await page.goto(`${address}/plans/${copy}/measure/editions`, { waitUntil: 'networkidle2' });
    await shownWhen('main', 'Status 21 September 2026');
  });

  test('a chart of what is chosen becomes a page, which is exported and read back', async () => {
    await page.goto(`${address}/plans/${copy}/measure`, { waitUntil: 'networkidle2' });
    const station = (await page.waitForSelector('[data-part="Lifeboat station"]'))!;
    await station.click();
    await counts('19 of 142');
    expect((await statements())[0]).toMatch(/15 days late.*whole plan: on time/);
    await page.locator('[aria-label="Make an exhibit of What slipped most"]').click();
    await page.waitForSelector('[data-testid="page"] svg', { timeout: 30_000 });
    expect(await page.$eval('[aria-label="Brief"]', (p) => p.textContent)).toContain('Phase is Lifeboat station');
    const exhibit = page.url().split('/').at(-1)!;
    const asked = await fetch(`${address}/api/exhibits/${exhibit}/page`, {
      method: 'POST',
      headers: json,
      body: JSON.stringify({ format: 'pdf' }),
    });
    const { job } = (await asked.json()) as { job: string };
    expect((await awaitJob(job)).state).toBe('done');
    const file = join(mkdtempSync(join(tmpdir(), 'clembo-slips-')), 'slips.pdf');
    writeFileSync(file, new Uint8Array(await (await fetch(`${address}/api/jobs/${job}/file`)).arrayBuffer()));
    const text = run('pdftotext', '-layout', file, '-');
    expect(text).toMatch(/Round: \d+ of \d+ activities are behind the promise, Bored piles most: 19 working\s+days/);
    expect(text).toMatch(/Bored piles\s+12 Jun 26\s+4 Jul 26\s+19 d late/);
    expect(text).not.toContain('Marine licence');
  }, 60_000);
});
