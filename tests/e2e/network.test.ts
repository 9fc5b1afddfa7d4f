import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { openBrowser, openPage, pageShown } from '../support/browser';
import {
  address,
  byName,
  catchDownloads,
  changePart,
  keptBrief,
  makeIt,
  newExhibit,
  pageText,
  planOfTable,
  putFile,
  run,
  until,
  upload,
  waitForText,
  toSheet,
} from '../support/desk';

/** Networks: around an activity, from a page and from the ledger; written and read back. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let plan = '';
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
  plan = await toSheet(page, 'Museum move');
}, 120_000);
afterAll(() => close());

const cards = () =>
  page.$$eval('[data-testid="page"] g[data-role="item"]', (list) => list.map((g) => g.getAttribute('data-ref')));

/** What leads to an activity by the links of the plan, worked out plainly. */
const before = (ref: string, steps = Number.POSITIVE_INFINITY): Promise<string[]> =>
  page.evaluate(
    async (id, at, most) => {
      const { plan } = (await (await fetch(`/api/plans/${id}`)).json()) as {
        plan: { links: { from: string; to: string }[] };
      };
      const found = new Set([at]);
      let edge = [at];
      for (let n = 0; edge.length > 0 && n < most; n++) {
        edge = plan.links.filter((l) => edge.includes(l.to) && !found.has(l.from)).map((l) => l.from);
        for (const r of edge) found.add(r);
      }
      return [...found].sort();
    },
    plan,
    ref,
    steps === Number.POSITIVE_INFINITY ? 1e6 : steps,
  );

test('the critical path is offered as a network, its critical links drawn in ink', async () => {
  await newExhibit(page, 'The critical path as a network');
  await waitForText(page, 'Doors open');
  const widths = await page.$$eval('[data-testid="page"] path[data-role="link"][fill="none"]', (list) =>
    list.map((l) => l.getAttribute('stroke')),
  );
  expect(widths.length).toBeGreaterThan(3);
  expect(new Set(widths)).toEqual(new Set(['#1E2A32']));
});

test('what leads to a milestone becomes a network of its own, from the margin of a page', async () => {
  const doors = (await page.$('[data-testid="page"] g[data-role="item"] [data-role="milestone"]'))!;
  const ref = (await doors.evaluate((e) => e.closest('[data-ref]')!.getAttribute('data-ref')))!;
  const box = (await doors.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  const url = page.url();
  await (await byName(page, 'button', 'What leads here, as a network')).asLocator().click();
  await page.waitForFunction((u) => location.href !== u && /\/show\//.test(location.pathname), {}, url);
  await pageShown(page);
  expect((await cards()).sort()).toEqual(await before(ref, 4));
  const said = `${(await cards()).length - 1} activities lead to Doors open within 4 links`;
  expect(await pageText(page)).toContain(said);
  await changePart(page, 'steps', 'within 2 links');
  const near = await before(ref, 2);
  await page.waitForFunction(
    (n) => document.querySelectorAll('[data-testid="page"] g[data-role="item"]').length === n,
    {},
    near.length,
  );
  expect((await cards()).sort()).toEqual(near);
});

test('its sentence is typed: three links around it; the file says the same', async () => {
  await page.keyboard.press('t');
  await page.waitForSelector('[aria-label="The brief as a sentence"]');
  await page.keyboard.type('within 3 links, as cards with their dates, on A3 landscape');
  await page.keyboard.press('Enter');
  await page.waitForSelector('[aria-label="Brief"]');
  await page.waitForFunction(() =>
    document.querySelector('[aria-label="Brief"]')!.textContent!.includes('within 3 links'),
  );
  const around = await page.evaluate(() => document.querySelector('[data-brief-part="around"]')!.textContent);
  expect(around).toBe('“Doors open”');
  const names = await page.$$eval('[data-testid="page"] g[data-role="item"] title', (list) =>
    list.map((t) => t.textContent!.split(':')[0]!),
  );
  const download = await catchDownloads(page);
  await (await byName(page, 'button', 'Export')).asLocator().click();
  await page.locator('[role="menuitem"]::-p-text(PDF)').click();
  const words = run('pdftotext', await download('.pdf'), '-').replace(/\s+/g, ' ');
  for (const name of names) expect(words).toContain(name.split(' ')[0]);
});

test('from the ledger, and as GraphML', async () => {
  const ref = await page.evaluate(async (id) => {
    const { plan: p } = (await (await fetch(`/api/plans/${id}`)).json()) as { plan: { links: { to: string }[] } };
    return p.links.at(-1)!.to;
  }, plan);
  await page.goto(`${address}/plans/${plan}/structure?ref=${ref}`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('[role="row"][aria-selected="true"]');
  await (await byName(page, 'button', 'Facts')).asLocator().click();
  await (await byName(page, 'button', 'As a network')).asLocator().click();
  await page.waitForFunction(() => /\/show\/[0-9a-f-]{36}$/.test(location.pathname), { timeout: 20_000 });
  await pageShown(page);
  expect((await cards()).sort()).toEqual(await before(ref, 4));
  await page.goto(`${address}/plans/${plan}/gather`, { waitUntil: 'networkidle2' });
  const download = await catchDownloads(page);
  await (await byName(page, 'button', 'GraphML')).asLocator().click();
  const graph = readFileSync(await download('.graphml'), 'utf8');
  const links = await page.evaluate(async (id) => {
    const { plan: p } = (await (await fetch(`/api/plans/${id}`)).json()) as { plan: { links: unknown[] } };
    return p.links.length;
  }, plan);
  expect(graph.match(/<edge /g)).toHaveLength(links);
});

describe('a network set by hand', () => {
  const folder = mkdtempSync(join(tmpdir(), 'clembo-network-'));
  const table = (name: string, rows: string[]) => {
    const path = join(folder, name);
    writeFileSync(path, `${['ID,Activity,Start,Finish,Predecessors,Crew', ...rows].join('\n')}\n`);
    return path;
  };
  const first = [
    'S1,Survey,2026-03-02,2026-03-06,,North',
    'S2,Design,2026-03-09,2026-03-20,S1,North',
    'S3,Permit,2026-03-09,2026-03-13,S1,South',
    'S4,Order steel,2026-03-23,2026-04-03,S2,South',
    'S5,Build,2026-04-06,2026-05-29,"S3,S4",South',
    'S6,Open,2026-05-29,2026-05-29,S5,North',
  ];
  /** The week after: everything later, one more at the beginning. */
  const second = [
    'S0,Money agreed,2026-03-02,2026-03-04,,North',
    'S1,Survey,2026-03-05,2026-03-11,S0,North',
    ...first.slice(1).map((row) => row.replaceAll('2026-03-2', '2026-04-2')),
  ];
  const press = async (name: string) => (await byName(page, 'button', name)).asLocator().click();
  const placed = async () =>
    (await keptBrief<{ placed: { ref: string; later: number }[] }>(page)).placed.map((p) => [p.ref, p.later]);
  /** The left edges of cards, by reference. */
  const lefts = () =>
    page.$$eval('[data-testid="page"] g[data-role="item"]', (list) =>
      Object.fromEntries(
        list.map((g) => [
          g.getAttribute('data-ref')!,
          Math.round(g.querySelector('[data-role="bar"]')!.getBoundingClientRect().x),
        ]),
      ),
    );
  let own = '';

  test('pointing at a card lights what leads to it and what it leads to', async () => {
    own = await planOfTable(page, table('steel week 1.csv', first));
    await newExhibit(page, 'Network');
    const card = (await page.waitForSelector('[data-testid="page"] g[data-ref="S4"] [data-role="bar"]'))!;
    await card.hover();
    const lit = () =>
      page.$$eval('[data-testid="page"] g[data-role="item"].on', (l) =>
        l.map((g) => g.getAttribute('data-ref')).sort(),
      );
    await until(lit, ['S1', 'S2', 'S4', 'S5', 'S6']);
    const dim = await page.$eval('[data-testid="page"] g[data-ref="S3"]', (g) => getComputedStyle(g).opacity);
    expect(Number(dim)).toBeLessThan(0.5);
    await page.mouse.move(2, 2);
    await until(lit, []);
  }, 90_000);

  test('a card that is carried stays there when the plan is refreshed', async () => {
    const box = (await (await page.$('[data-testid="page"] g[data-ref="S3"] [data-role="bar"]'))!.boundingBox())!;
    const there = await lefts();
    // Into the column of what is ordered.
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 30, y + 10);
    await page.mouse.move(x + there.S4! - there.S3!, y + 20);
    await page.mouse.up();
    await until(placed, [['S3', 1]]);
    await until(async () => {
      const now = await lefts();
      return now.S3 === now.S4;
    }, true);
    const url = page.url();
    await page.goto(`${address}/plans/${own}/gather`, { waitUntil: 'networkidle2' });
    await putFile(page, table('steel week 2.csv', second));
    await page.waitForFunction(() => location.pathname.startsWith('/intake/'));
    await press('See what has changed');
    await page.waitForFunction(() => location.pathname.endsWith('/changes'));
    const refresh = await byName(page, 'button', 'Refresh the plan');
    await page.waitForFunction((b) => !(b as HTMLButtonElement).disabled, {}, refresh);
    await (refresh as import('puppeteer-core').ElementHandle<HTMLButtonElement>).click();
    await page.waitForFunction(() => location.pathname.endsWith('/gather'), { timeout: 30_000 });
    await page.goto(url, { waitUntil: 'networkidle2' });
    await waitForText(page, 'Money agreed');
    const now = await lefts();
    expect(now.S3).toBe(now.S4);
    expect(now.S0).toBeLessThan(now.S1!);
    expect(await pageText(page)).toContain('Permit');
  }, 90_000);

  test('a note is put onto a card, and goes with it', async () => {
    await press('Put onto the page');
    await page.locator('[role="menuitem"]::-p-text(Words)').click();
    await page.waitForFunction(() => document.querySelector('[role="menuitem"]') === null);
    const box = (await (await page.$('[data-testid="page"] g[data-ref="S5"] [data-role="bar"]'))!.boundingBox())!;
    await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
    const field = (await page.waitForSelector('[aria-label="Margin"] textarea'))!;
    await field.click({ count: 3 });
    await page.keyboard.type('The crane comes by sea');
    await page.keyboard.press('Tab');
    await waitForText(page, 'The crane comes by');
    const note = () => page.$eval('[data-testid="page"] [data-note] rect', (r) => r.getBoundingClientRect().x);
    const before = await note();
    await changePart(page, 'card', 'dots with their names');
    await until(async () => (await note()) !== before, true);
    // Both what was carried and what was put there can be taken back in one list.
    await page.locator('[data-testid="by-hand"]').click();
    await until(() => page.$$eval('[aria-label="Set by hand"] li', (l) => l.length), 2);
    await press('Take all of it back');
    await until(() => page.$$eval('[data-testid="page"] [data-note]', (l) => l.length), 0);
    await until(placed, []);
  }, 60_000);
});

type Published = [ref: string, name: string, days: number, after: string, float: number][];
const NAMES = 'Alpha Bravo Charlie Delta Echo Foxtrot Golf Hotel India Juliett Kilo Lima Mike November'.split(' ');
/** `A2 B4<A C10<B`: durations, and behind < what leads there; total floats of those that have some. */
const published = (text: string, floats: Record<string, number>): Published =>
  text.split(' ').map((word) => {
    const [, ref, days, after = ''] = /^([A-Z])(\d+)(?:<([A-Z]+))?$/.exec(word)!;
    return [ref!, NAMES[ref!.charCodeAt(0) - 65]!, Number(days), [...after].join(','), floats[ref!] ?? 0];
  });

/** Networks of textbooks, with their total floats; from memory. */
const PUBLISHED: [source: string, network: Published][] = [
  [
    'Hillier & Lieberman, Introduction to Operations Research, Reliable Construction',
    published('A2 B4<A C10<B D6<C E4<C F5<E G7<D H9<EG I7<C J8<FI K4<J L5<J M2<H N6<KL', {
      D: 4,
      G: 4,
      H: 4,
      M: 4,
      I: 2,
      K: 1,
    }),
  ],
  [
    'Render & Heizer, Operations Management, General Foundry',
    published('A2 B3 C2<A D4<B E4<C F3<C G5<DE H2<FG', { B: 1, D: 1, F: 6 }),
  ],
  [
    'Taha, Operations Research, the arrow example',
    published('A5 B6 C3<A D8<A E2<BC F11<BC G1<D H12<DE', { B: 5, C: 3, E: 3, F: 6, G: 11 }),
  ],
];

test.each(PUBLISHED)(
  '%s: its dates and floats stand on the cards of the PDF',
  async (_, network) => {
    const path = join(mkdtempSync(join(tmpdir(), 'clembo-published-')), 'published.csv');
    const rows = network.map(([ref, name, days, after]) => `${ref},${name},${days},"${after}"`);
    writeFileSync(path, `${['ID,Activity,Days,Predecessors', ...rows].join('\n')}\n`);
    await page.goto(address, { waitUntil: 'networkidle2' });
    await upload(page, path);
    const begin = (await page.waitForSelector('[aria-label="Start of the plan"]'))!;
    await begin.evaluate((e) => {
      const input = e as HTMLInputElement;
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(input, '2026-01-05');
      input.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await makeIt(page);
    await newExhibit(page, 'Network');
    await changePart(page, 'card', 'cards with early and late dates');
    await page.waitForFunction(() => document.querySelector('[data-testid="page"]')?.textContent?.includes('Hotel'));
    const download = await catchDownloads(page);
    await (await byName(page, 'button', 'Export')).asLocator().click();
    await page.locator('[role="menuitem"]::-p-text(PDF)').click();
    const html = run('pdftotext', '-bbox', await download('.pdf'), '-');
    const words = [
      ...html.matchAll(/<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]*)/g),
    ].map(([, x, y, right, bottom, text]) => ({
      x: Number(x),
      y: Number(y),
      right: Number(right),
      bottom: Number(bottom),
      text: text!,
    }));
    // Worked out plainly: the earliest days by the longest way, on a five-day week from a Monday on.
    const start = new Map<string, number>();
    for (const [ref, , , after] of network) {
      const ends = after
        .split(',')
        .filter(Boolean)
        .map((r) => start.get(r)! + network.find(([other]) => other === r)![2]);
      start.set(ref, Math.max(0, ...ends));
    }
    const date = (n: number) => {
      const d = new Date(Date.UTC(2026, 0, 5 + Math.floor(n / 5) * 7 + (n % 5)));
      return `${d.getUTCDate()} ${d.toLocaleString('en-GB', { month: 'short', timeZone: 'UTC' })} ${d.getUTCFullYear() % 100}`;
    };
    for (const [ref, name, days, , float] of network) {
      const own = words.find((w) => w.text === name)!;
      const size = (own.bottom - own.y) / 1.2;
      const near = words
        .filter((w) => w.x > own.x - 2 && w.right < own.x + size * 12.8 && Math.abs(w.y - own.y) < size * 2.6)
        .sort((a, b) => a.y - b.y || a.x - b.x);
      const line = (above: boolean) =>
        near
          .filter((w) => (above ? w.bottom < own.y + size * 0.6 : w.y > own.bottom - size * 0.6))
          .map((w) => w.text)
          .join(' ');
      const early = start.get(ref)!;
      expect([ref, line(true)]).toEqual([ref, `${date(early)} ${days} d ${date(early + days - 1)}`]);
      expect([ref, line(false)]).toEqual([ref, `${date(early + float)} ${float} d ${date(early + float + days - 1)}`]);
    }
  },
  90_000,
);
