import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { stationModel, stationThings } from '../../demo/station';
import { openBrowser, openPage } from '../support/browser';
import { address, byName, catchDownloads, pageText, planOfTable, run, still, until } from '../support/desk';

/** A model taken in, matched to work in every way, looked at on dates, made newer, and put on pages. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let folder = '';
let plan = '';
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
  folder = mkdtempSync(join(tmpdir(), 'clembo-model-'));
}, 60_000);
afterAll(() => close());

interface Match {
  activity: string;
  effect: string;
  elements: string[];
}
interface Stored {
  plan: { matches: Match[]; elementCodes: { field: string; code: string; elements: string[] }[]; activities: object[] };
  version: number;
}
const stored = async () => (await (await fetch(`${address}/api/plans/${plan}`)).json()) as Stored;
const matchedBy = async (ref: string, effect = 'builds') =>
  (await stored()).plan.matches.find((m) => m.activity === ref && m.effect === effect)?.elements.length ?? 0;
const press = async (name: string) => (await byName(page, 'button', name)).asLocator().click();
const says = () => page.$eval('[data-testid="model-says"]', (e) => e.textContent ?? '');
const waitForWords = (words: string) =>
  page.waitForFunction((w) => document.body.innerText.includes(w), { timeout: 20_000 }, words);
/** The middle of something on the screen. */
async function middleOf(selector: string): Promise<{ x: number; y: number }> {
  const box = (await (await page.waitForSelector(selector))!.boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}
async function carry(from: string, to: string): Promise<void> {
  await page.waitForFunction(() => !document.querySelector('[role="dialog"]'));
  await still(page, from);
  await still(page, to);
  const [a, b] = [await middleOf(from), await middleOf(to)];
  await page.mouse.move(a.x, a.y);
  await page.mouse.down();
  await page.mouse.move(a.x + 12, a.y + 6, { steps: 4 });
  await page.mouse.move(b.x, b.y, { steps: 12 });
  // A hand rests on the place before it lets go.
  await page.evaluate(() => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r))));
  await page.mouse.move(b.x + 2, b.y + 1, { steps: 2 });
  await page.evaluate(() => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r))));
  await page.mouse.up();
}
const choose = (selector: string, value: string) => page.select(selector, value);
const put = async (label: string, text: string) => {
  const path = join(folder, 'file.ifc');
  writeFileSync(path, text);
  const input = (await page.waitForSelector(`input[type="file"][aria-label="${label}"]`))!;
  await (input as never as { uploadFile(p: string): Promise<void> }).uploadFile(path);
};

const WORKS = [
  'ID,Name,Start,Finish,Zone',
  'L110,Bored piles,2026-05-27,2026-07-04,Station',
  'L120,Ground beams and slab,2026-07-06,2026-08-04,Station',
  'L140,Steel frame,2026-08-05,2026-09-09,Station',
  'L150,Roof and cladding,2026-09-10,2026-10-28,Station',
  'X1,Roof once more,2026-11-02,2026-11-20,Station',
  'W208,Set units,2027-03-12,2027-04-14,Wall',
  'T1,Planting,2027-04-15,2027-04-30,Wall',
];

/** Types into the finder of a tray until one kind is left: the focus may still be on its way back from elsewhere. */
const findKind = async (tray: string, text: string) => {
  const kinds = () => page.$$eval('[data-kind]', (list) => list.map((e) => e.getAttribute('data-kind')!));
  const finder = `[aria-label="Find in ${tray}"]`;
  await until(async () => {
    const typed = await page.$eval(finder, (e) => (e as HTMLInputElement).value).catch(() => '');
    if (typed !== text) await page.locator(finder).fill(text);
    const [first, ...others] = await kinds();
    return others.length === 0 && first !== undefined && first.includes(text);
  }, true);
};

test('a model is taken in, and what is no model is refused in words', async () => {
  const path = join(folder, 'Works.csv');
  writeFileSync(path, `${WORKS.join('\n')}\n`);
  plan = await planOfTable(page, path);
  await page.goto(`${address}/plans/${plan}/structure/model`, { waitUntil: 'networkidle2' });
  await put('Take in a model', stationModel().slice(0, 20_000));
  await waitForWords('ends before it is complete');
  await put('Take in a model', stationModel());
  await page.waitForSelector('[data-testid="model-view"] canvas', { timeout: 60_000 });
  await waitForWords('453 of 453 wait');
  await waitForWords('0 of 453 matched, 0 of 7 activities.');
});

test('filtered by two conditions, only those are on the desk', async () => {
  await press('Only: everything');
  const boxes = () => page.$$('.panel button[aria-haspopup="listbox"]');
  const pick = async (at: number, option: string) => {
    await (await boxes())[at]!.click();
    await page.locator(`[role="option"]::-p-text(${option})`).click();
    await page.waitForFunction(() => !document.querySelector('[role="option"]'));
  };
  await page.waitForSelector('.panel button[aria-haspopup="listbox"]');
  await pick(0, 'storey');
  const typed = () => page.$$('[aria-label="What it is compared with"]');
  await (await typed())[0]!.type('Upper floor');
  await page.locator('button::-p-text(one more test)').click();
  await pick(2, 'class');
  await (await typed())[1]!.type('wall');
  await page.locator('button:not([disabled])::-p-text(Show only these)').click();
  await page.waitForSelector('[aria-label="Only: storey contains Upper floor and class contains wall"]');
  await press('See the list');
  // Counted in the model's own text: claddings and walls of the upper floor.
  const upper = stationThings().filter((t) => t.kind === 'IFCWALL' && t.storey === 'Upper floor').length;
  await waitForWords(`${upper} elements · 0 chosen`);
  await choose('select[aria-label="Another column"]', 'property.Work: Code');
  await page.waitForFunction(() =>
    [...document.querySelectorAll('[role="gridcell"]')].some((c) => c.textContent === 'L150'),
  );
  await press('Only: storey contains Upper floor and class contains wall');
  await press('Show everything');
  await waitForWords('453 elements · 0 chosen');
  await press('See the model');
});

test('matched by carrying a kind onto work, and work onto a kind', async () => {
  await findKind('elements without work', 'Bored pile 600');
  await carry('[data-kind="Bored pile 600"]', '[data-work="L110"]');
  await until(() => matchedBy('L110'), 35);
  await waitForWords('35 elements are built by Bored piles.');
  await findKind('elements without work', 'Bored pile 450');
  await press('all');
  await page.waitForSelector('[data-work="L110"]');
  await carry('[data-work="L110"]', '[data-kind="Bored pile 450"]');
  await until(() => matchedBy('L110'), 47);
  // Taken back and done again, as everything is.
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await until(() => matchedBy('L110'), 35);
  await page.$eval('[aria-label="Find in elements without work"]', (e) => (e as HTMLInputElement).select());
  await page.keyboard.press('Backspace');
});

test('the same value on both sides is offered in words, and taken at a click', async () => {
  await waitForWords('Same value: code of elements');
  await page.locator('button::-p-text(Pair )').click();
  await until(() => matchedBy('W208'), 20);
  await until(() => matchedBy('L150'), 80);
  expect(await matchedBy('L110')).toBe(47);
  await waitForWords('5 of 7 activities');
});

test('a rule says what it would catch before it is added, and matches when it is run', async () => {
  await page.locator('button::-p-text(Match rules)').click();
  await page.waitForSelector('section[aria-label="A new rule"]');
  await page.locator('section[aria-label="A new rule"] [data-brief-part="where"]').click();
  await page.waitForSelector('[aria-label="Value"], input[placeholder]');
  const input = (await page.$$('.panel input')).at(-1)!;
  await input.type('Bench');
  await page.locator('button:not([disabled])::-p-text(Catch only these)').click();
  await choose('select[aria-label="Effect"]', 'stands');
  await page.type('input[aria-label="Activity"]', 'T1');
  await waitForWords('It would catch 7, 7 of them without such work');
  await press('Add the rule');
  await page.waitForSelector('[data-rule]');
  await page.locator('button:not([disabled])::-p-text(Match 7 elements by these rules)').click();
  await until(() => matchedBy('T1', 'stands'), 7);
  await page.keyboard.press('Escape');
});

test('what is built twice is found with its elements, and mended', async () => {
  // The roof is matched to another activity as well.
  await press('all');
  await findKind('elements', 'Roof panel');
  await carry('[data-kind="Roof panel, zinc"]', '[data-work="X1"]');
  await until(() => matchedBy('X1'), 12);
  await waitForWords('12 elements are built by Roof and cladding and Roof once more');
  await press('Choose them');
  await page.waitForFunction(
    () => document.querySelector('[data-testid="chosen-title"]')?.textContent === '12 elements',
  );
  await press('Take these from Roof once more');
  await until(() => matchedBy('X1'), 0);
  await press('Choose nothing');
});

test('codes are pasted against the identifier, and what is of no element is said', async () => {
  const ref = (await stored()).plan.matches.find((m) => m.activity === 'W208')!.elements[0]!;
  const identifier = ref.slice(ref.indexOf('/') + 1);
  await press('See the list');
  await press('Give codes');
  await page.type('textarea[aria-label="Codes to paste"]', `Identifier\tZone\n${identifier}\tWall\nnobody\tStation`);
  await page.locator('button::-p-text(Code by 3 rows)').click();
  await until(async () => (await stored()).plan.elementCodes.map((c) => [c.code, c.elements.length]), [['Wall', 1]]);
  await waitForWords('1 key is of no element: nobody');
  // And from what elements say themselves: the first characters of their classification.
  await press('Give codes');
  await page.type('[aria-label="How many characters"]', '3');
  await press('Take it from there');
  await until(
    async () => (await stored()).plan.elementCodes.some((c) => c.code === 'B20' && c.elements.length > 50),
    true,
  );
  await press('See the model');
});

test('time runs: what stands on a date is said, and points of the model say what they are', async () => {
  const range = (await page.waitForSelector('input[aria-label="Day"]'))!;
  await range.focus();
  await page.keyboard.press('End');
  await page.waitForFunction(() =>
    / 2027: \d+ stand/.test(document.querySelector('[data-testid="model-says"]')?.textContent ?? ''),
  );
  await page.keyboard.press('Home');
  await page.waitForFunction(() =>
    / 2026: 0 stand/.test(document.querySelector('[data-testid="model-says"]')?.textContent ?? ''),
  );
  await page.keyboard.press('End');
  await page.waitForFunction(() =>
    / 2027: /.test(document.querySelector('[data-testid="model-says"]')?.textContent ?? ''),
  );
  const view = (await (await page.waitForSelector('[data-testid="model-view"]'))!.boundingBox())!;
  // Somewhere in the middle there is an element, whichever it is.
  let title = '';
  for (const [x, y] of [
    [0.68, 0.45],
    [0.72, 0.5],
    [0.6, 0.5],
    [0.65, 0.4],
  ] as const) {
    await page.mouse.click(view.x + view.width * x, view.y + view.height * y);
    await new Promise((r) => setTimeout(r, 400));
    title = await page.$eval('[data-testid="chosen-title"]', (e) => e.textContent ?? '').catch(() => '');
    if (title !== '') break;
  }
  expect(title).not.toBe('');
  await press('Others see-through');
  await page.waitForSelector('button::-p-text(show all again)');
  await press('Choose nothing');
  await page.locator('button::-p-text(show all again)').click();
});

test('a newer model says what it would bring; matches are kept', async () => {
  const before = (await stored()).plan.matches;
  // One unit of the wall is gone, one is renamed, and one is new.
  const text = stationModel();
  const gone = /#\d+=IFCWALL\('[^']+',\$,'Wall unit 20'.*\n/.exec(text)![0];
  const id = gone.slice(0, gone.indexOf('='));
  const newer = text
    .replace(
      gone,
      gone.replace(/\('[^']{22}'/, "('NEW0000000000000000000'").replace('Wall unit 20', 'Wall unit 20, wider'),
    )
    .replace("'Wall unit 19'", "'Wall unit nineteen'");
  expect(id).toMatch(/^#\d+$/);
  await page.locator('button::-p-text(Models \\()').click();
  await put('Newer state of file', newer);
  const note = (await page.waitForSelector('[data-testid="newer-model"]', { timeout: 60_000 }))!;
  const words = await note.evaluate((e) => e.textContent ?? '');
  expect(words).toContain('would bring 1 new, 1 changed, 1 gone; 451 stay as they are');
  expect(words).toContain('name: Wall unit 19 → Wall unit nineteen');
  await press('Take it');
  await page.waitForFunction(() => !document.querySelector('[data-testid="newer-model"]'));
  await page.keyboard.press('Escape');
  expect((await stored()).plan.matches).toEqual(before);
  // The element that went gives its place back to the tray; nothing else moved.
  const matched = before.reduce((n, m) => n + m.elements.length, 0) - 1;
  await waitForWords(`${matched} of 453 matched`);
});

test('an activity that goes gives its elements back, and has them again when it comes back', async () => {
  // Read before: the page may follow sooner than the answer comes.
  const before = Number(/ (\d+) of 453 matched/.exec(await says())![1]);
  const { version } = await stored();
  const changed = await fetch(`${address}/api/plans/${plan}`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ version, command: { do: 'removeActivity', ref: 'L140' } }),
  });
  expect(changed.status).toBe(200);
  await page.waitForFunction(
    (n) =>
      Number(
        / (\d+) of 453 matched/.exec(document.querySelector('[data-testid="model-says"]')?.textContent ?? '')?.[1] ?? n,
      ) < n,
    { timeout: 20_000 },
    before,
  );
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await waitForWords(`${before} of 453 matched`);
});

test('the day becomes a page; a storyboard is exported and read back', async () => {
  if (!page.url().endsWith('/structure/model'))
    await page.goto(`${address}/plans/${plan}/structure/model`, { waitUntil: 'networkidle2' });
  await press('Make exhibit');
  await page.waitForSelector('[data-testid="page"] svg', { timeout: 30_000 });
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="page"] svg image').length === 1);
  expect(await pageText(page)).toContain('stand');
  const own = page.url().split('/').at(-1)!;
  await page.locator('[data-brief-part="when"]').click();
  await page.locator('[role="option"]::-p-text(on four dates)').click();
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="page"] svg image').length === 4, {
    timeout: 20_000,
  });
  await until(async () => (await pageText(page)).includes('227 stand'), true);
  const words = await pageText(page);
  const download = await catchDownloads(page);
  await press('Export');
  await page.locator('[role="menuitem"]::-p-text(PDF)').click();
  const file = await download('.pdf');
  const text = run('pdftotext', '-layout', file, '-').replace(/\s+/g, ' ');
  for (const said of ['New: Steel frame, Roof and cladding', '227 stand']) {
    expect(words.replace(/\s+/g, ' ')).toContain(said);
    expect(text).toContain(said);
  }
  const images = run('pdfimages', '-list', file).trim().split('\n').slice(2);
  expect(images).toHaveLength(4);
  expect(images.every((l) => / rgb +3 +8 /.test(l))).toBe(true);
  await press('Export');
  await page.locator('[role="menuitem"]::-p-text(HTML)').click();
  const html = readFileSync(await download('.html'), 'utf8');
  expect(html.match(/<img src="data:image\/png/g)!.length).toBeGreaterThan(20);
  // It plays by itself, under the one script that it allows.
  const other = await browser.newPage();
  await other.setContent(html);
  const shown = () => other.$eval('.play p', (e) => e.textContent ?? '');
  const first = await shown();
  await (await other.$('.play button'))!.click();
  await other.waitForFunction((f) => document.querySelector('.play p')!.textContent !== f, { timeout: 10_000 }, first);
  await other.close();
  expect(own).toMatch(/^[0-9a-f-]{36}$/);
});
