import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import type { Browser, Page } from 'puppeteer-core';
import { openBrowser, openPage } from '../support/browser';
import {
  address,
  byName,
  catchDownloads,
  changePart,
  keptBrief,
  newExhibit,
  pageText,
  run,
  until,
  waitForText,
  toSheet,
} from '../support/desk';

/** Handoffs: a process typed from nothing by keys, taken out; one made from a plan. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
  await toSheet(page, 'Museum move');
}, 120_000);
afterAll(() => close());

interface TypedStep {
  id: string;
  name: string;
  kind: string;
  by: string[];
  phase: string;
}
interface Process {
  steps: TypedStep[];
  arrows: { from: string; to: string; words: string }[];
  placed: { ref: string; later: number }[];
}
const brief = () => keptBrief<Process>(page);
const names = async () => (await brief()).steps.map((s) => s.name);
/** Arrows by the names of their ends. */
const arrows = async () => {
  const { steps, arrows: list } = await brief();
  const name = (id: string) => steps.find((s) => s.id === id)!.name;
  return list.map((a) => [name(a.from), name(a.to), a.words].filter(Boolean).join(' > ')).sort();
};
const items = () =>
  page.$$eval('[data-testid="page"] g[data-role="item"] title', (l) => l.map((t) => t.textContent!.split(':')[0]!));
/** The step whose name has the focus, until it is this one. */
const focused = (at: number) =>
  page.waitForFunction((n) => document.activeElement?.getAttribute('aria-label') === `Name of step ${n}`, {}, at);
const type = (text: string) => page.keyboard.type(text);
const press = (key: Parameters<Page['keyboard']['press']>[0]) => page.keyboard.press(key);

test('steps, hands and ways are typed by keys alone', async () => {
  await newExhibit(page, 'Handoffs');
  await changePart(page, 'of', 'the steps typed here');
  await waitForText(page, 'There are no steps yet.');
  await (await byName(page, 'button', 'Type the first step')).focus();
  await press('Enter');
  await focused(1);
  await type('Request comes in');
  // Who does it: the next step is by the same until somebody else is named.
  await press('Tab');
  await type('Registrar');
  await press('Enter');
  await until(async () => (await brief()).steps[0]?.by, ['Registrar']);
  // Enter keeps it, and the keys stay where they were.
  expect(await page.evaluate(() => (document.activeElement as HTMLInputElement).value)).toBe('Registrar');
  await (await byName(page, 'textbox', 'Name of step 1')).focus();
  await press('Enter');
  await focused(2);
  await type('Check the object');
  await press('Tab');
  await page.keyboard.down('Control');
  await press('a');
  await page.keyboard.up('Control');
  await type('Conservator');
  await press('Enter');
  await until(async () => (await brief()).steps[1]?.by, ['Conservator']);
  await (await byName(page, 'textbox', 'Name of step 2')).focus();
  await press('Enter');
  await focused(3);
  // A question is a decision.
  await type('Fit to travel?');
  await press('Enter');
  await focused(4);
  await type('Pack it');
  await until(async () => (await brief()).steps[2]?.kind, 'decision');
  // From the decision a second way, made by keys in its field.
  await press('ArrowUp');
  await focused(3);
  const more = (await page.waitForSelector('[aria-label="Leads to one more"]'))!;
  await more.focus();
  await page.select('[aria-label="Leads to one more"]', 'new step');
  await focused(4);
  await type('Say no');
  await press('Enter');
  await focused(5);
  await press('Backspace');
  await until(names, ['Request comes in', 'Check the object', 'Fit to travel?', 'Say no', 'Pack it']);
  await until(arrows, [
    'Check the object > Fit to travel?',
    'Fit to travel? > Pack it',
    'Fit to travel? > Say no',
    'Request comes in > Check the object',
  ]);
}, 90_000);

test('the ways of the decision are named, and one leads back', async () => {
  await (await byName(page, 'textbox', 'Name of step 3')).focus();
  await (await page.waitForSelector('[aria-label="Name of the way to Pack it"]'))!.focus();
  await type('yes');
  await press('Enter');
  await until(async () => (await arrows())[1], 'Fit to travel? > Pack it > yes');
  await page.select('[aria-label="Leads to one more"]', (await brief()).steps[1]!.id);
  await (await page.waitForSelector('[aria-label="Name of the way to Check the object"]'))!.focus();
  await type('again');
  await press('Tab');
  await until(async () => (await arrows()).includes('Fit to travel? > Check the object > again'), true);
  await waitForText(page, 'again');
  expect((await items()).sort()).toEqual((await names()).sort());
  const { steps } = await brief();
  const pack = steps.find((s) => s.name === 'Pack it')!.id;
  await page.locator(`[data-ref="${pack}"] [data-role="label"]`).click();
  const field = (await page.waitForSelector(`[data-step="${pack}"] input[list]`))!;
  await field.click({ count: 3 });
  await type('Carrier, Conservator');
  await press('Enter');
  await until(async () => (await brief()).steps.find((s) => s.id === pack)!.by, ['Carrier', 'Conservator']);
  // Undone and done again like anything else.
  await (await byName(page, 'button', 'Undo')).asLocator().click();
  await until(async () => (await brief()).steps.find((s) => s.id === pack)!.by, ['Conservator']);
  await (await byName(page, 'button', 'Redo')).asLocator().click();
  await until(async () => (await brief()).steps.find((s) => s.id === pack)!.by, ['Carrier', 'Conservator']);
  expect(await pageText(page)).toContain('1 handoff among 3 hands');
});

test('it is taken out as BPMN with its diagram, and as PDF; the files say the same', async () => {
  const download = await catchDownloads(page);
  await (await byName(page, 'button', 'Export')).asLocator().click();
  await page.locator('[role="menuitem"]::-p-text(BPMN 2.0)').click();
  const xml = readFileSync(await download('.bpmn'), 'utf8');
  for (const name of await names()) expect(xml).toContain(`name="${name}"`);
  expect(xml.match(/<sequenceFlow /g)).toHaveLength(5);
  expect(xml.match(/<bpmndi:BPMNEdge /g)).toHaveLength(5);
  expect(xml.match(/<lane /g)).toHaveLength(3);
  await (await byName(page, 'button', 'Export')).asLocator().click();
  await page.locator('[role="menuitem"]::-p-text(PDF)').click();
  const words = run('pdftotext', await download('.pdf'), '-').replace(/\s+/g, ' ');
  for (const word of ['Fit to travel?', 'Say no', 'again', 'Conservator', '5 steps']) expect(words).toContain(word);
});

test('a step that is carried stays where it was put, and is put back', async () => {
  const last = (await brief()).steps.find((s) => s.name === 'Say no')!.id;
  const boxOf = async () => (await (await page.$(`[data-ref="${last}"] [data-role="bar"]`))!.boundingBox())!;
  const before = await boxOf();
  const [x, y] = [before.x + before.width / 2, before.y + before.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 40, y);
  await page.mouse.move(x + before.width * 1.6, y);
  await page.mouse.up();
  const placed = async () => (await brief()).placed.map((p) => [p.ref, p.later]);
  await until(placed, [[last, 1]]);
  // A column of its own, behind the one that it shared.
  const pack = (await brief()).steps.find((s) => s.name === 'Pack it')!.id;
  await page.waitForFunction(
    (ref, other) => {
      const box = (r: string) => document.querySelector(`[data-ref="${r}"] [data-role="bar"]`)!.getBoundingClientRect();
      return box(ref).left > box(other).right;
    },
    {},
    last,
    pack,
  );
  await page.locator('[data-testid="by-hand"]').click();
  await (await byName(page, 'button', 'Take back: Say no')).asLocator().click();
  await until(placed, []);
});

test('of a plan: activities become steps, and can be typed on', async () => {
  await page.goto(page.url().replace(/\/[^/]+$/, ''), { waitUntil: 'networkidle2' });
  await page.waitForSelector('main li svg[viewBox]');
  await newExhibit(page, 'Who hands over to whom');
  const before = await items();
  expect(before.length).toBeGreaterThan(5);
  expect(await pageText(page)).toMatch(/\d+ handoffs? among \d+ hands/);
  await changePart(page, 'of', 'the steps typed here');
  await (await byName(page, 'button', 'Begin with the activities of the plan')).asLocator().click();
  await page.waitForFunction(
    (n) => document.querySelectorAll('[data-testid="page"] g[data-role="item"]').length === n,
    {},
    before.length,
  );
  expect((await items()).sort()).toEqual(before.sort());
});
