import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Browser, Page } from 'puppeteer-core';
import { createMeasure, type FontMetrics } from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json' with { type: 'json' };
import { openBrowser, openPage, pageShown } from '../support/browser';
import {
  address,
  byName,
  catchDownloads,
  changePart,
  exhibitNames,
  linkOf,
  pageText,
  sayPart,
  waitForShown,
  waitForText,
} from '../support/desk';

const require = createRequire(import.meta.url);
let browser: Browser;
let close: () => Promise<void>;
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
});
afterAll(() => close());

/** Opens a demo plan by its name and the stage; for Show, an exhibit of it. */
async function openDemo(name: string, stage: 'Structure' | 'Show', exhibit?: string): Promise<Page> {
  const page = await openPage(browser, address);
  await page.goto(await linkOf(page, name, stage), { waitUntil: 'networkidle2' });
  if (exhibit === undefined) return page;
  await page.goto(await linkOf(page, exhibit), { waitUntil: 'networkidle2' });
  await pageShown(page);
  return page;
}
const shown = (page: Page) => page.$eval('[data-testid="shown"]', (e) => e.textContent ?? '');

/** By then the last change of a brief is on the server. */
const kept = () => new Promise((r) => setTimeout(r, 700));

describe('an exhibit', () => {
  test('the brief’s changes can be undone and redone, and last', async () => {
    const page = await openDemo('Saltmere sea wall', 'Show', 'The whole works');
    const before = await shown(page);
    expect(before).toMatch(/^\d+ of 142 activities shown, \d+ more in \d+ groups/);
    await changePart(page, 'level', 'level 1');
    await waitForShown(page, '142 activities in 7 groups');
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await waitForShown(page, before);
    await (await byName(page, 'button', 'Redo')).asLocator().click();
    await waitForShown(page, '142 activities in 7 groups');
    await kept();
    await page.reload({ waitUntil: 'networkidle2' });
    await pageShown(page);
    expect(await shown(page)).toContain('in 7 groups');
    await changePart(page, 'level', 'level 2');
    await waitForShown(page, before);
    await page.close();
  });

  test('leaving out a value takes it off the page, and the sentence says so', async () => {
    const page = await openDemo('Saltmere sea wall', 'Show', 'The whole works');
    await sayPart(page, 'where');
    await page.locator('[data-brief-part="where"]').click();
    await (await page.waitForSelector('[aria-label="What it is compared with"]'))!.type('pile');
    await (await byName(page, 'button', 'Show only these')).asLocator().click();
    await waitForText(page, 'Promenade', false);
    expect(await page.$eval('[aria-label="Brief"]', (e) => e.textContent)).toContain('where name contains pile');
    await page.locator('[data-brief-part="where"]').click();
    await (await byName(page, 'button', 'Show everything')).asLocator().click();
    await waitForText(page, 'Promenade');
    await kept();
    await page.close();
  });

  test('what the page hides opens, leads to its facts, and is shown by a click; it can be said on the page', async () => {
    const page = await openDemo('Saltmere sea wall', 'Show', 'The whole works');
    await page.waitForSelector('[data-testid="blind"]');
    expect(await page.$eval('[data-testid="blind"]', (b) => b.textContent)).toMatch(/hides \d+ late activities/);
    await page.keyboard.press('b');
    await page.locator('section[aria-label="Late"] ::-p-text(Weathertight)').click();
    await page.waitForFunction(
      () => document.querySelector('[aria-label="Margin"] h2')?.textContent === 'Weathertight',
    );
    await page.locator('[data-testid="blind"]').click();
    await (await byName(page, 'button', 'say it on the page')).asLocator().click();
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[data-testid="page"] text')].some((t) =>
        t.textContent?.includes('not seen here: '),
      ),
    );
    await page.waitForSelector('[data-brief-part="blind"]');
    await page.locator('[data-testid="blind"]').click();
    await (await byName(page, 'button', 'show every level')).asLocator().click();
    await page.waitForFunction(() => document.querySelector('[data-testid="blind"]') === null);
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await page.waitForSelector('[data-testid="blind"]');
    await kept();
    await page.close();
  });

  test('advice for a crowded page shows what it would give, and is taken by a click', async () => {
    const page = await openDemo('Saltmere sea wall', 'Show', 'The whole works');
    await changePart(page, 'level', 'the last level');
    await changePart(page, 'page', 'A4 landscape');
    await page.waitForFunction(() =>
      document.querySelector('[data-testid="fit"]')?.textContent?.match(/Tight|Too much/),
    );
    await page.locator('[data-testid="fit"]').click();
    const advice = (await page.waitForSelector('[data-advice="use A3 landscape"]'))!;
    await page.waitForFunction(() => document.querySelectorAll('[data-advice] svg').length > 1);
    expect(await advice.evaluate((a) => a.textContent)).toMatch(/smallest type [\d.]+ pt|still cannot/);
    await advice.click();
    await page.waitForFunction(
      () => document.querySelector('[data-brief-part="page"]')?.textContent === 'A3 landscape',
    );
    await changePart(page, 'level', 'level 2');
    await kept();
    await page.close();
  });

  test('the sentence is typed, in any order; what is not understood is said', async () => {
    const page = await openDemo('Saltmere sea wall', 'Show', 'Gates and payments');
    const said = () => page.$eval('[aria-label="Brief"]', (e) => e.textContent!);
    const before = await said();
    await page.keyboard.press('t');
    const field = (await page.waitForSelector('[aria-label="The brief as a sentence"]'))!;
    expect(await field.evaluate((f) => (f as HTMLTextAreaElement).value)).toBe(before);
    await page.keyboard.type('on A3 portrait, with sparkles, in lanes by contractor');
    await page.waitForFunction(() =>
      document.querySelector('[data-testid="typed"]')?.textContent?.includes('sparkles'),
    );
    await page.keyboard.down('Control');
    await page.keyboard.press('a');
    await page.keyboard.up('Control');
    await page.keyboard.type('on A3 portrait, in lanes by contractor');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-brief-part="lanes"]');
    expect(await said()).toContain('milestones only, in lanes by contractor');
    expect(await said()).toContain('on A3 portrait');
    await page.waitForFunction(
      () => document.querySelector('[data-testid="page"] svg')?.getAttribute('viewBox') === '0 0 841.89 1190.55',
    );
    await page.keyboard.press('t');
    await page.waitForSelector('[aria-label="The brief as a sentence"]');
    await page.keyboard.type(before);
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-brief-part="lanes"]');
    expect(await said()).toBe(before);
    await kept();
    await page.close();
  });

  test('a date for the start cuts the page there', async () => {
    const page = await openDemo('Saltmere sea wall', 'Show', 'The whole works');
    await sayPart(page, 'from');
    await page.locator('[data-brief-part="from"]').click();
    await (await page.waitForSelector('input[type="date"]'))!.type('01012027'); // Chromium's own order: month, day, year
    await page.keyboard.press('Enter');
    await waitForText(page, 'Funding agreed', false);
    expect(await page.$eval('[data-brief-part="from"]', (e) => e.textContent)).toBe('1 January 2027');
    await page.locator('[data-brief-part="from"]').click();
    await (await byName(page, 'button', 'the start')).asLocator().click();
    await waitForText(page, 'Funding agreed');
    await page.close();
  });

  test('a click opens the margin with the facts; its links lead on', async () => {
    const page = await openDemo('Saltmere sea wall', 'Show', 'Every activity');
    await page.locator('[data-ref="D110"][data-role="bar"]').click();
    const margin = await page.waitForSelector('aside[aria-label="Margin"]');
    expect(await margin!.evaluate((e) => e.textContent)).toMatch(/Marine licence application.*10 working days/s);
    await (await byName(page, 'button', 'Public consultation')).asLocator().click();
    await page.waitForFunction(() => document.querySelector('aside h2')?.textContent === 'Public consultation');
    await page.keyboard.press('Escape');
    await page.waitForSelector('aside', { hidden: true });
    await page.close();
  });

  test('a double click on the title renames the page; an empty one goes back to what the dates say', async () => {
    const page = await openDemo('Museum move', 'Show', 'By project');
    const retitle = async (text: string) => {
      await page.locator('[data-role="title"]').click({ count: 2 });
      const field = await page.waitForSelector('input[aria-label="Title of the page"]');
      await field!.evaluate((e) => (e as HTMLInputElement).select());
      if (text === '') await page.keyboard.press('Backspace');
      else await page.keyboard.type(text);
      await page.keyboard.press('Enter');
    };
    const before = (await pageText(page)).split('\n').find((t) => t.startsWith('Museum move runs'))!;
    await retitle('We open in May');
    await waitForText(page, 'We open in May');
    await retitle('');
    await waitForText(page, before);
    await page.close();
  });

  test('PNG comes at twice the size of the page', async () => {
    const page = await openDemo('Saltmere sea wall', 'Show', 'Gates and payments');
    const download = await catchDownloads(page);
    await (await byName(page, 'button', 'Export')).asLocator().click();
    await page.waitForSelector('[role="menuitem"]');
    await page.locator('[role="menuitem"]::-p-text(PNG)').click();
    const png = readFileSync(await download('.png'));
    expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([1684, 1191]);
    await page.close();
  });

  test('text is as wide in Chromium as it was measured', async () => {
    const page = await openDemo('Saltmere sea wall', 'Show', 'The whole works');
    const measure = createMeasure(metrics as FontMetrics);
    const texts = await page.$$eval('[data-testid="page"] text', (list) =>
      list.map((t) => ({
        size: Number(t.getAttribute('font-size')),
        runs: (t.children.length > 0 ? [...t.children] : [t]).map((r) => ({
          face: r.getAttribute('class')!,
          text: r.textContent ?? '',
        })),
        width: (t as SVGTextElement).getComputedTextLength(),
      })),
    );
    expect(texts.length).toBeGreaterThan(60);
    const measured = (t: (typeof texts)[number]) =>
      t.runs.reduce((sum, r) => sum + measure.width(r.face as 'label', t.size, r.text), 0);
    const worst = Math.max(...texts.map((t) => Math.abs(measured(t) - t.width)));
    expect(worst).toBeLessThan(0.1);
    await page.close();
  });

  test('keys: brackets go to the next exhibit, figures to the stages', async () => {
    const page = await openDemo('Saltmere sea wall', 'Show', 'The whole works');
    const first = page.url();
    await page.keyboard.press(']');
    await page.waitForFunction((u) => location.href !== u && /show\/./.test(location.pathname), {}, first);
    await page.keyboard.press('2');
    await page.waitForFunction(() => location.pathname.endsWith('/structure'));
    await page.keyboard.press('1');
    await page.waitForFunction(() => location.pathname.endsWith('/gather'));
    await page.close();
  });
});

describe('the ledger', () => {
  test('shows rows with dates, float and codes, and closes groups', async () => {
    const page = await openDemo('Saltmere sea wall', 'Structure');
    await page.waitForSelector('[role="row"][data-ref]');
    const row = await page.$$eval(
      '[role="row"]',
      (rows) => rows.find((r) => r.textContent?.includes('Station opens'))!.textContent,
    );
    expect(row).toContain('1 Apr 27');
    expect(row).toContain('Harbour office');
    await (await byName(page, 'button', 'Close Gates and payments')).asLocator().click();
    await page.waitForFunction(
      () => ![...document.querySelectorAll('[role="row"]')].some((r) => r.textContent?.includes('Station opens')),
    );
    await page.close();
  });

  test('the assessment measures against the edition that was promised', async () => {
    const page = await openDemo('Saltmere sea wall', 'Structure');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('main button')].some((b) => b.textContent!.startsWith('Checks')),
    );
    await page.$$eval('main button', (list) =>
      (list.find((b) => b.textContent!.startsWith('Checks')) as HTMLElement).click(),
    );
    const panel = await page.waitForSelector('aside[aria-label="Checks"]');
    const text = await panel!.evaluate((e) => (e as HTMLElement).innerText);
    expect(text).toContain('against Contract baseline of 12 January 2026');
    expect(text).toMatch(/Baseline execution index\s+[01]\.\d\d\s+≥ 0\.95/);
    await page.close();
  });

  test('searching an activity goes to its row', async () => {
    const page = await openDemo('Saltmere sea wall', 'Structure');
    await page.waitForSelector('[role="row"][data-ref]');
    await page.keyboard.press('/');
    await page.waitForSelector('[role="dialog"] input');
    await page.keyboard.type('winch fabrication');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[role="option"]')].some((o) => o.textContent?.includes('Winch fabrication')),
    );
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() =>
      document.querySelector('[role="row"][aria-selected="true"]')?.textContent?.includes('Winch fabrication'),
    );
    await page.close();
  });
});

test('pages of other stages are found by their names and by what they are about; the stage leads to its first page', async () => {
  const page = await openDemo('Saltmere sea wall', 'Structure');
  for (const [words, title, path] of [
    ['lines', 'Lines', /structure\/lines$/],
    ['status date', 'Standing', /measure$/],
    ['code b', 'Code books', /gather\/books$/],
  ] as const) {
    await page.waitForSelector('nav[aria-label="Stages"]');
    await page.locator('[aria-label="Search and act"]').click();
    await page.waitForSelector('[role="dialog"] input');
    await page.keyboard.type(words);
    const option = await page.waitForSelector(`[role="option"]::-p-text(${title})`);
    await option!.asLocator().click();
    await page.waitForFunction((p) => new RegExp(p).test(location.pathname), {}, path.source);
  }
  await page.locator('nav[aria-label="Stages"] [aria-current="step"]').click();
  await page.waitForFunction(() => /\/gather$/.test(location.pathname));
  await page.close();
});

describe('the desk', () => {
  test('deleting an exhibit can be taken back', async () => {
    const page = await openDemo('Museum move', 'Show');
    const names = () => exhibitNames(page);
    const before = await names();
    await (await byName(page, 'button', `More for ${before[0]}`)).asLocator().click();
    await page.waitForSelector('[role="menuitem"]');
    await (await page.$$('[role="menuitem"]'))[1]!.click();
    await page.waitForFunction((n) => document.querySelectorAll('main li').length === n, {}, before.length - 1);
    await (await byName(page, 'button', 'Undo')).asLocator().click();
    await page.waitForFunction((n) => document.querySelectorAll('main li').length === n, {}, before.length);
    expect(await names()).toEqual(before);
    await page.close();
  });

  test('every stage leads somewhere', async () => {
    const page = await openDemo('Museum move', 'Show');
    expect(await page.$$eval('nav[aria-label="Stages"] [role="tooltip"]', (list) => list.length)).toBe(0);
    expect(await page.$$eval('nav[aria-label="Stages"] a', (list) => list.map((a) => a.textContent))).toEqual([
      '1Gather',
      '2Structure',
      '3Measure',
      '4Show',
      '5Share',
    ]);
    await page.close();
  });

  test.each([
    ['the plans', () => openPage(browser, address)],
    ['the contact sheet', () => openDemo('Saltmere sea wall', 'Show')],
    ['an exhibit', () => openDemo('Saltmere sea wall', 'Show', 'The whole works')],
    ['the ledger', () => openDemo('Saltmere sea wall', 'Structure')],
    [
      'the sources and editions',
      async () => {
        const page = await openDemo('Saltmere sea wall', 'Show');
        await page.goto(page.url().replace(/show.*$/, 'gather'), { waitUntil: 'networkidle2' });
        return page;
      },
    ],
    ...(['gather/books', 'gather/work', 'sketch'] as const).map(
      (part) =>
        [
          part,
          async () => {
            const page = await openDemo('Saltmere sea wall', 'Show');
            await page.goto(page.url().replace(/show.*$/, part), { waitUntil: 'domcontentloaded' });
            await page.waitForSelector(part === 'sketch' ? '[data-row]' : 'main nav button, [data-item]');
            return page;
          },
        ] as [string, () => Promise<Page>],
    ),
    ...[1280, 1920].flatMap((width) => {
      const ledger = async (): Promise<Page> => {
        const page = await openDemo('Saltmere sea wall', 'Structure');
        await page.setViewport({ width, height: width === 1280 ? 800 : 1080 });
        await page.waitForSelector('[role="row"][data-ref]');
        return page;
      };
      const beside = async (part: string, there: string): Promise<Page> => {
        const page = await ledger();
        await page.goto(page.url().replace(/structure.*$/, `structure/${part}`), { waitUntil: 'domcontentloaded' });
        await page.waitForSelector(there);
        return page;
      };
      const list: [string, () => Promise<Page>][] = [
        [
          `the ledger with neighbours, find and the margin, ${width} wide`,
          async () => {
            const page = await ledger();
            await page.locator('[data-ref="G60"] [data-cell]').click();
            await page.keyboard.press('Enter');
            await page.waitForSelector('[data-testid="neighbours"]');
            await (await byName(page, 'button', 'Facts')).asLocator().click();
            await page.waitForSelector('aside[aria-label="Margin"] dd');
            await (await byName(page, 'button', 'Find')).asLocator().click();
            await page.waitForSelector('[aria-label="Find"]');
            return page;
          },
        ],
        [
          `the history, ${width} wide`,
          async () => {
            const page = await ledger();
            await (await byName(page, 'button', 'History')).asLocator().click();
            await page.waitForSelector('aside[aria-label="History"] li, aside[aria-label="History"] p');
            return page;
          },
        ],
        [
          `the standing, ${width} wide`,
          async () => {
            const page = await ledger();
            await page.goto(page.url().replace(/structure.*$/, 'measure'), { waitUntil: 'networkidle2' });
            await page.waitForSelector('[data-testid="statement"]');
            await page.locator('[aria-label="Rows of What slipped most"]').click();
            await page.waitForSelector('aside[aria-label="Rows"] tbody tr');
            return page;
          },
        ],
        [`calendars, ${width} wide`, () => beside('calendars', '[data-day]')],
        [`resources, ${width} wide`, () => beside('resources', '[aria-label="New resource"]')],
      ];
      return list;
    }),
    [
      'the starters',
      async () => {
        const page = await openPage(browser, address);
        await page.goto(`${address}/starters`, { waitUntil: 'domcontentloaded' });
        await page.locator('button[aria-pressed]').click();
        return page;
      },
    ],
    [
      'the column map',
      async () => {
        const page = await openPage(browser, address);
        await page.type('#paste', 'Work,Start,Finish,% complete\nDig,2 March,soon,0.5\nPour,9 March,13 March,50 %\n');
        await (await byName(page, 'button', 'Take in the paste')).asLocator().click();
        await page.waitForSelector('section[aria-labelledby="problems"]');
        return page;
      },
    ],
  ])('%s has no faults of access that axe finds', async (_, open) => {
    const page = await open();
    // Not as a script of the page, which would not run it.
    await page.evaluate(readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8'));
    const faults = await page.evaluate(async () => {
      const axe = (
        window as unknown as {
          axe: {
            run(options: object): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>;
          };
        }
      ).axe;
      const { violations } = await axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa'] });
      return violations.map((v) => `${v.id}: ${v.nodes[0]?.html.slice(0, 160)}`);
    });
    expect(faults).toEqual([]);
    await page.close();
  });
});

describe('every entry of the server checks what it is given', () => {
  const send = async (method: string, path: string, body?: string) => {
    const response = await fetch(address + path, {
      method,
      ...(body !== undefined && { body }),
      headers: { 'If-Match': '"1"', ...(body !== undefined && { 'Content-Type': 'application/json' }) },
    });
    return { status: response.status, error: ((await response.json()) as { error?: string }).error };
  };
  const nobody = '00000000-0000-4000-8000-000000000000';

  test.each([
    ['GET', '/api/plans/nonsense', undefined, 404],
    ['GET', `/api/plans/${nobody}`, undefined, 404],
    ['PATCH', `/api/plans/${nobody}`, '{"version":1,"command":{"do":"setPlan","settings":{"name":"x"}}}', 404],
    ['PATCH', `/api/plans/${nobody}`, '{"name":"x"}', 400],
    ['PATCH', `/api/plans/${nobody}`, '{"name":""}', 400],
    ['DELETE', `/api/plans/${nobody}`, undefined, 404],
    ['GET', `/api/exhibits/${nobody}`, undefined, 404],
    ['PATCH', `/api/exhibits/${nobody}`, '{"name":7}', 400],
    ['PATCH', `/api/exhibits/${nobody}`, '{"name":"x"}', 404],
    ['POST', `/api/exhibits/${nobody}/page`, '{"format":"pdf"}', 404],
    ['POST', `/api/exhibits/${nobody}/page`, '{"format":"exe"}', 400],
    ['GET', `/api/jobs/${nobody}`, undefined, 404],
    ['GET', `/api/jobs/${nobody}?after=x`, undefined, 400],
    ['GET', `/api/jobs/${nobody}/file`, undefined, 404],
    ['DELETE', `/api/intakes/${nobody}`, undefined, 404],
    ['POST', `/api/plans/${nobody}/restore`, undefined, 404],
    ['POST', `/api/exhibits/${nobody}/restore`, undefined, 404],
    ['POST', '/api/intakes', '{"text":""}', 400],
    ['POST', '/api/intakes', 'not json', 400],
    ['PATCH', `/api/intakes/${nobody}`, '{}', 400],
    ['PATCH', `/api/intakes/${nobody}`, '{"show":0}', 404],
    ['PUT', `/api/intakes/${nobody}/choices`, '{}', 404],
    ['POST', `/api/intakes/${nobody}/changes`, '{}', 404],
    ['POST', `/api/intakes/${nobody}/refresh`, '{"version":1}', 404],
    ['POST', `/api/intakes/${nobody}/refresh`, '{}', 400],
    ['POST', `/api/plans/${nobody}/editions`, '{"name":"x"}', 404],
    ['POST', `/api/plans/${nobody}/editions`, '{"name":" "}', 400],
    ['PATCH', `/api/plans/${nobody}/editions/${nobody}`, '{"note":"x"}', 404],
    ['POST', `/api/plans/${nobody}/editions/${nobody}/work`, '{"keepAs":"x"}', 404],
    ['GET', `/api/plans/${nobody}/compare?from=${nobody}&to=${nobody}`, undefined, 404],
    ['POST', `/api/plans/${nobody}/refreshes/${nobody}`, '{"undo":true}', 404],
    ['POST', `/api/plans/${nobody}/sources/open`, '{}', 404],
    ['GET', `/api/plans/${nobody}/sources/1/rows/1`, undefined, 404],
    ['GET', `/api/plans/${nobody}/sources/x/rows/1`, undefined, 400],
    ['POST', `/api/intakes/${nobody}/plan`, '{"name":"x"}', 404],
    ['POST', `/api/plans/${nobody}/exhibits`, '{"name":"x","brief":{"kind":"timeline"}}', 404],
  ])('%s %s %s gives %i', async (method, path, body, status) => {
    const result = await send(method, path, body);
    expect(result.status).toBe(status);
    expect(result.error).toMatch(/\w+ \w+/);
  });
});
