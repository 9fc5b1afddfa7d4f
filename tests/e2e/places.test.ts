import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { decode } from 'fast-png';
import type { Browser, Page } from 'puppeteer-core';
import { schedulePlan } from '../../packages/core/src/index';
import { fontFolder, type PageFormat, writePages, writeSvg } from '../../packages/render/src/index';
import { composeExhibit, type Scene, TimelineBrief } from '../../packages/scene/src/index';
import { amountWords } from '../../packages/formats/src/amounts/amountWords';
import { createMeasure } from '../../packages/scene/src/index';
import { demoPlans } from '../../demo/index';
import { fonts } from '../pages/checkPages';
import { openReader, type PageText, readPage } from '../pages/readPage';
import { openBrowser } from '../support/browser';
import { run } from '../support/desk';

/** A page in every format, each read by a program that is not ours: the same words at the same places, within a point. */

const root = join(dirname(fileURLToPath(import.meta.url)), '../..');
const folder = fontFolder(join(root, 'packages/render/fonts'), fonts);
const measure = createMeasure(fonts);
const [wall] = demoPlans();
const pageOf = (part: object): Scene =>
  composeExhibit({
    plan: wall!.current,
    schedule: schedulePlan(wall!.current),
    brief: TimelineBrief.parse({ kind: 'timeline', page: 'A3 landscape', ...part }),
    measure,
    amounts: amountWords(wall!.current),
    edition: 'Edition of the day',
    editions: [],
    promised: null,
  });
const PAGES: [name: string, part: object][] = [
  ['lanes of bars', { lanes: ['phase'], colour: 'contractor', level: 2 }],
  ['milestones on a string', { include: 'milestones', rows: 'strand', page: 'wide slide' }],
  ['rows with columns', { rows: 'each', level: 2, columns: ['start', 'finish', 'days'] }],
];

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let out = '';
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await browser.newPage();
  out = mkdtempSync(join(tmpdir(), 'clembo-places-'));
});
afterAll(() => close());

async function written(scene: Scene, format: PageFormat): Promise<string> {
  const path = join(out, `page.${format}`);
  writeFileSync(path, await writePages(format, [scene], { fonts, folder, date: new Date(0) }));
  return path;
}

/** Level texts of the page as a browser reads them from its drawing. */
async function texts(scene: Scene): Promise<PageText[]> {
  await openReader(page, fonts, folder.embedded());
  const read = await readPage(page, writeSvg(scene, { fonts, references: true, sized: false }));
  return read.texts.filter((t) => t.text.trim() !== '' && t.right - t.left > t.size);
}

const firstWord = (text: string) => text.trim().split(/\s+/)[0]!;

describe.each(PAGES)('%s', (_, part) => {
  const scene = pageOf(part);

  test('in the PDF, by Poppler', async () => {
    const own = await texts(scene);
    const words = [
      ...run('pdftotext', '-bbox', await written(scene, 'pdf'), '-').matchAll(
        /<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]*)</g,
      ),
    ].map(([, x, top, , bottom, word]) => ({ x: Number(x), y: (Number(top) + Number(bottom)) / 2, word: word! }));
    expect(own.length).toBeGreaterThan(20);
    // The box that Poppler has for a line of the serif is not the middle of its letters.
    const near = (t: PageText) => (t.role === 'title' ? t.size / 4 : 1);
    const off = own.filter(
      (t) =>
        !words.some(
          (w) =>
            w.word.replaceAll('&amp;', '&') === firstWord(t.text) &&
            Math.abs(w.x - t.left) < 1 &&
            Math.abs(w.y - (t.top + t.bottom) / 2) < near(t),
        ),
    );
    expect(off.map((t) => [t.text, t.left, t.top])).toEqual([]);
  });

  test('in the web page, by a browser that opens the file', async () => {
    const own = await texts(scene);
    const opened = await browser.newPage();
    await opened.goto(pathToFileURL(await written(scene, 'html')).href);
    await opened.evaluate(() => document.fonts.ready.then(() => {}));
    const seen = await opened.$$eval('svg text', (list) =>
      list.map((t) => {
        const at = (t as SVGTextElement).getStartPositionOfChar(0);
        return { text: t.textContent ?? '', x: at.x, y: at.y };
      }),
    );
    await opened.close();
    const off = own.filter(
      (t) =>
        !seen.some((o) => o.text === t.text && Math.abs(o.x - t.left) < 1 && Math.abs(o.y - t.top - t.size * 0.74) < 1),
    );
    expect(off.map((t) => t.text)).toEqual([]);
  });
});

describe.each(PAGES.slice(1, 2))('%s', (_, part) => {
  test('in the picture: ink begins where the browser has it, and there is as much of it', async () => {
    const scene = pageOf(part);
    const own = await texts(scene);
    const picture = decode(await writePages('png', [scene], { fonts, folder, date: new Date(0) }));
    const scale = picture.width / scene.width;
    await page.setViewport({
      width: Math.ceil(scene.width),
      height: Math.ceil(scene.height),
      deviceScaleFactor: scale,
    });
    const shot = decode(await page.screenshot({ type: 'png' }));
    /** The darkest columns of a box, from its left: where the first letter begins, and how much ink there is. */
    const inkOf = ({ data, width, channels }: typeof picture, t: PageText) => {
      let [first, ink] = [Number.NaN, 0];
      for (let x = Math.floor((t.left - 1) * scale); x < Math.ceil((t.right + 1) * scale); x++)
        for (let y = Math.floor(t.top * scale); y < Math.ceil(t.bottom * scale); y++) {
          const k = (y * width + x) * channels;
          if (data[k]! + data[k + 1]! + data[k + 2]! > 450) continue;
          ink++;
          if (Number.isNaN(first)) first = x;
        }
      return { first: first / scale, ink };
    };
    const pairs = own
      .filter((t) => t.bottom < scene.height && t.fills.every((f) => /^#(1E2A32|5B6770)$/i.test(f)))
      .map((t) => ({ text: t.text, a: inkOf(picture, t), b: inkOf(shot, t) }))
      .filter(({ b }) => b.ink > 20);
    expect(pairs.length).toBeGreaterThan(10);
    const off = pairs.filter(
      ({ a, b }) => !(Math.abs(a.first - b.first) < 1) || a.ink < b.ink * 0.6 || a.ink > b.ink * 1.7,
    );
    expect(off).toEqual([]);
  });
});
