import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { decode } from 'fast-png';
import PDFDocument from 'pdfkit';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { BRIDGE } from '../../packages/core/tests/helpers';
import { openBrowser, openPage } from '../support/browser';
import { address, byName, catchDownloads, newExhibit, pageText, planOfTable, run, until } from '../support/desk';

/** Work along a line shaped on its page: balanced, dragged, divided, mended, repeated; a picture pinned beside it. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let folder = '';
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
  folder = mkdtempSync(join(tmpdir(), 'clembo-lineWork-'));
}, 60_000);
afterAll(() => close());

interface Stored {
  lines: { zones: object[]; strips?: { pins: { x: number; place: number }[] }[] }[];
  pictures: { data: string; width: number; height: number }[];
  activities: {
    ref: string;
    name: string;
    start: number;
    finish: number;
    from: number;
    to: number;
    rate: number;
  }[];
}
const stored = async (plan: string) =>
  ((await (await fetch(`${address}/api/plans/${plan}`)).json()) as { plan: Stored }).plan;
const press = async (name: string) => (await byName(page, 'button', name)).asLocator().click();
/** Takes what is proposed, once it is the answer to what is asked. */
const takeIt = async () => page.locator('button:not([disabled])::-p-text(Take it)').click();
const type = async (label: string, text: string) => {
  const input = (await page.waitForSelector(`[aria-label="${label}"]`))!;
  await input.click({ count: 3 });
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
};
const table = (name: string, rows: string[]) => {
  const path = join(folder, `${name}.csv`);
  writeFileSync(path, `${rows.join('\n')}\n`);
  return planOfTable(page, path);
};
const describeLine = async (plan: string, name: string, unit: string, last: string) => {
  await page.goto(`${address}/plans/${plan}/structure/lines`, { waitUntil: 'networkidle2' });
  await type('New line', name);
  await page.waitForSelector('[aria-label="Last place"]');
  await page.$eval('input[list="units-of-lines"]', (e) => (e as HTMLInputElement).select());
  await page.keyboard.type(unit);
  await page.keyboard.press('Enter');
  await type('Last place', last);
};
const MONDAY = Date.UTC(2026, 0, 5) / 86_400_000;
const iso = (day: number) => new Date(day * 86_400_000).toISOString().slice(0, 10);
const weeksOf = (plan: Stored) =>
  plan.activities.map((a) => [(a.start / 1440 - MONDAY) / 7, Math.ceil((a.finish / 1440 - MONDAY) / 7)]);
/** The middle of a work's line on the screen, where it is surely hit. */
const middleOf = (ref: string) =>
  page.$eval(`[data-testid="page"] g[data-ref="${ref}"] path[data-role="bar"]`, (e) => {
    const path = e as SVGPathElement;
    const at = path.getPointAtLength(path.getTotalLength() / 2);
    const on = at.matrixTransform(path.getScreenCTM()!);
    return { x: on.x, y: on.y };
  });

let line = '';

// Common practice: a line of 300 km, six trades of 9, 20, 15, 30, 43 and 20 weeks, four weeks between them.
test('300 km: six trades balanced on the page with four weeks between them, and read back from the file', async () => {
  const weeks = [9, 20, 15, 30, 43, 20];
  line = await table('Long line', [
    'ID,Name,Start,Finish,From place,To place',
    ...weeks.map((w, k) => `T${k},Trade ${k + 1},${iso(MONDAY)},${iso(MONDAY + 7 * w - 3)},0,300`),
  ]);
  await describeLine(line, 'Main', 'km', '300');
  await until(async () => (await stored(line)).lines.length, 1);
  await page.goto(`${address}/plans/${line}/show`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('main li svg[viewBox]');
  await newExhibit(page, 'Main, the whole line');
  await press('Balance');
  const days = (await page.waitForSelector('[aria-label="Days between works"]'))!;
  await days.click({ count: 3 });
  await page.keyboard.type('28');
  await page.waitForSelector('[aria-label="What moves"] li::-p-text(Trade 6)');
  await takeIt();
  await until(
    async () => weeksOf(await stored(line)),
    [
      [0, 9],
      [4, 24],
      [13, 28],
      [17, 47],
      [21, 64],
      [48, 68],
    ],
  );
  // The last Friday of week 68.
  const last = new Date((MONDAY + 68 * 7 - 3) * 86_400_000);
  const words = `runs to ${last.getUTCDate()} ${last.toLocaleString('en-GB', { month: 'long' })} ${last.getUTCFullYear()}`;
  await page.waitForFunction(
    (w) => document.querySelector('[data-testid="page"]')!.textContent!.includes(w),
    {},
    words,
  );
  const download = await catchDownloads(page);
  await press('Export');
  await page.locator('[role="menuitem"]::-p-text(PDF)').click();
  expect(run('pdftotext', await download('.pdf'), '-').replace(/\s+/g, ' ')).toContain(words);
}, 90_000);

test('a work is dragged in time: what comes of it is seen, taken, taken back', async () => {
  const before = weeksOf(await stored(line))[2]!;
  const from = await middleOf('T2');
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  // Time runs down: the third trade is carried up towards the second.
  for (let k = 1; k <= 12; k++) {
    await page.mouse.move(from.x, from.y - 4 * k);
    await new Promise((r) => setTimeout(r, 20));
  }
  await page.waitForFunction(() =>
    /1 clash$/.test(document.querySelector('[data-testid="ghost-words"]')?.textContent ?? ''),
  );
  await page.mouse.up();
  await page.waitForSelector('[aria-label="What comes of it"]');
  expect(await page.$eval('[aria-label="What comes of it"]', (t) => t.textContent)).toMatch(/Clashes01/);
  await page.waitForSelector('[data-testid="was"]');
  expect(weeksOf(await stored(line))[2]).toEqual(before);
  await press('Leave it');
  await page.waitForFunction(() => document.querySelector('[aria-label="What comes of it"]') === null);
  // The other way it keeps clear, and is taken.
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (let k = 1; k <= 6; k++) await page.mouse.move(from.x, from.y + 3 * k);
  await page.waitForSelector('[data-testid="ghost"]');
  await page.mouse.up();
  await page.waitForSelector('[aria-label="What comes of it"]');
  await takeIt();
  await until(async () => weeksOf(await stored(line))[2]![0]! > before[0]!, true);
  await page.goto(`${address}/plans/${line}/structure`, { waitUntil: 'networkidle2' });
  await press('Undo');
  await until(async () => weeksOf(await stored(line))[2], before);
  await page.goBack({ waitUntil: 'networkidle2' });
  await page.waitForSelector('[data-testid="page"] svg');
}, 90_000);

test('without dragging: divided at a place, two works are there, linked', async () => {
  const at = await middleOf('T1');
  await page.mouse.click(at.x, at.y);
  const place = (await page.waitForSelector('#divide-at'))!;
  await place.type('120');
  await page.keyboard.press('Enter');
  await page.waitForSelector('[aria-label="Proposal"] ::-p-text(Two works of one)');
  await takeIt();
  await until(
    async () => (await stored(line)).activities.slice(1, 3).map((a) => [a.name, a.from, a.to]),
    [
      ['Trade 2', 0, 120_000],
      ['Trade 2, from 120 km', 120_000, 300_000],
    ],
  );
  const [, a, b] = weeksOf(await stored(line));
  // 120 of 300 km of 20 weeks are eight.
  expect([a, b]).toEqual([
    [4, 12],
    [12, 24],
  ]);
}, 60_000);

test('a clash is one of the checks, and is mended there with what it gives', async () => {
  const plan = await table('Clash', [
    'ID,Name,Start,Finish,From place,To place,Rate per day',
    `A,Slow,${iso(MONDAY)},${iso(MONDAY + 25)},0,1000,50`,
    `B,Quick,${iso(MONDAY + 7)},${iso(MONDAY + 18)},0,1000,100`,
  ]);
  await describeLine(plan, 'Bank', 'm', '1000');
  await until(async () => (await stored(plan)).lines.length, 1);
  await page.goto(`${address}/plans/${plan}/gather/work`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('::-p-text(B runs into A on “Bank”)');
  // At 50 and 100 m a day they end together when B starts ten working days behind A: a week later than it does.
  await page.locator('button::-p-text(B 7 days later)').click();
  await until(async () => (await stored(plan)).activities[1]!.start / 1440 - MONDAY, 14);
  await page.waitForFunction(() => !document.body.textContent!.includes('B runs into A'));
}, 60_000);

test('a picture is pinned at two places, and a third stands where it belongs, in the drawing and cut to a stretch', async () => {
  const picture = join(folder, 'map.svg');
  writeFileSync(
    picture,
    '<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="100"><script>window.broken = true</script><rect width="1000" height="100" fill="#cde"/><path d="M250 0V100M500 0V100M750 0V100" stroke="#b33"/></svg>',
  );
  await page.goto(`${address}/plans/${line}/structure/lines`, { waitUntil: 'networkidle2' });
  const input = (await page.waitForSelector('[aria-label="Picture for the line"]')) as unknown as {
    uploadFile(path: string): Promise<void>;
  };
  await input.uploadFile(picture);
  await page.waitForSelector('[data-testid="strip-board"] img');
  await page.waitForSelector('[data-testid="strip-reach"]::-p-text(Set two pins)');
  const pin = async (share: number, place: string) => {
    await page.$eval('[data-testid="strip-board"]', (e) => e.scrollIntoView({ block: 'center' }));
    const box = (await (await page.$('[data-testid="strip-board"]'))!.boundingBox())!;
    await page.mouse.click(box.x + box.width * share, box.y + box.height / 3);
    await page.waitForFunction(() =>
      document.activeElement?.getAttribute('aria-label')?.startsWith('Place of the new'),
    );
    await page.keyboard.type(place);
    await page.keyboard.press('Enter');
  };
  // A quarter of the picture is at 50 km, three quarters at 250 km: its middle is at 150 km.
  await pin(0.25, '50');
  await until(async () => (await stored(line)).lines[0]!.strips?.[0]?.pins.length, 1);
  await pin(0.75, '250');
  await until(async () => (await stored(line)).lines[0]!.strips?.[0]?.pins.length, 2);
  await page.waitForSelector('[data-testid="strip-reach"]::-p-text(It reaches from)');
  const { pictures, lines } = await stored(line);
  expect(pictures[0]!.data).toMatch(/^data:image\/png;base64,/);
  expect(await page.evaluate(() => 'broken' in window)).toBe(false);
  const [a, b] = lines[0]!.strips![0]!.pins;
  await page.goto(`${address}/plans/${line}/show`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('main li svg[viewBox]');
  await newExhibit(page, 'Main, the whole line');
  /** Where the middle of the picture is painted, and where 150 km stands on the scale, in points of the file. */
  const middle = async () => {
    const download = await catchDownloads(page);
    await press('Export');
    await page.locator('[role="menuitem"]::-p-text(SVG)').click();
    const svg = readFileSync(await download('.svg'), 'utf8');
    const strips = [
      ...svg.matchAll(
        /<svg x="([\d.-]+)" y="[\d.-]+" width="([\d.]+)" height="[\d.]+" viewBox="([\d.]+) [\d.]+ ([\d.]+)/g,
      ),
    ];
    const painted = strips.flatMap(([, x, width, from, wide]) => {
      const share = (500 - Number(from)) / Number(wide);
      return share >= 0 && share <= 1 ? [Number(x) + share * Number(width)] : [];
    });
    const scale = [...svg.matchAll(/<text x="([\d.]+)"[^>]*font-size="([\d.]+)"[^>]*>(\d+)<\/text>/g)].map((m) => ({
      x: Number(m[1]),
      place: Number(m[3]),
    }));
    return { painted, scale };
  };
  const { painted } = await middle();
  // Both borders of the plot, from the ends of the first work, which goes from 0 to 300 km.
  const ends = await page.$eval('[data-testid="page"] svg', (svg) =>
    [...svg.querySelectorAll('g[data-ref="T0"] circle')].map((c) => Number(c.getAttribute('cx'))),
  );
  const wanted = (place: number) => ends[0]! + ((ends[1]! - ends[0]!) * place) / 300;
  const place = a!.place + ((0.5 - a!.x) / (b!.x - a!.x)) * (b!.place - a!.place);
  expect(painted).toHaveLength(1);
  expect(Math.abs(painted[0]! - wanted(place / 1000))).toBeLessThan(0.5);
}, 90_000);

test('of a PDF the first page is taken, as pixels; one that is locked, or none at all, says so', async () => {
  const pdf = (options: object) =>
    new Promise<Buffer>((done) => {
      const parts: Buffer[] = [];
      const file = new PDFDocument({ size: [800, 100], margin: 0, ...options });
      file.on('data', (b: Buffer) => parts.push(b)).on('end', () => done(Buffer.concat(parts)));
      file.rect(0, 0, 400, 100).fill('#1f7a4d').addPage().rect(0, 0, 800, 100).fill('#aa0000').end();
    });
  const put = async (name: string, bytes: Buffer | string) => {
    writeFileSync(join(folder, name), bytes);
    const input = (await page.waitForSelector('[aria-label="Picture for the line"]')) as unknown as {
      uploadFile(path: string): Promise<void>;
    };
    await input.uploadFile(join(folder, name));
  };
  const bank = await table('Bank works', [
    'ID,Name,Start,Finish,From place,To place',
    `A,Work,${iso(MONDAY)},${iso(MONDAY + 4)},0,300`,
  ]);
  await describeLine(bank, 'Bank', 'm', '300');
  await put('locked.pdf', await pdf({ userPassword: 'tide' }));
  await page.waitForSelector('::-p-text(“locked.pdf” is locked with a password)');
  await put('words.pdf', 'these are words');
  await page.waitForSelector('::-p-text(“words.pdf” is no PDF that can be read)');
  await put('elevation.pdf', await pdf({}));
  await until(async () => (await stored(bank)).pictures.length, 1);
  const { data, width, height } = (await stored(bank)).pictures[0]!;
  expect(width / height).toBeCloseTo(8, 1);
  const { data: pixels, channels } = decode(Buffer.from(data.split(',')[1]!, 'base64'));
  const at = (share: number) => {
    const k = (Math.floor(height / 2) * width + Math.floor(share * width)) * channels;
    return [...pixels.slice(k, k + 3)];
  };
  // The left half is painted green on the first page; the second page is red all over.
  expect([at(0.25), at(0.75)]).toEqual([
    [0x1f, 0x7a, 0x4d],
    [255, 255, 255],
  ]);
}, 90_000);

// By hand and by linear programme: three trades, one crew each, 3, 5 and 2 days in each of six units.
test('a set of work is made for six floors, and the trades balanced without rest: B on day 3, C on 23, done on 35', async () => {
  const plan = await table('Floors', [
    'ID,Name,Start,Finish',
    `A,Walls,${iso(MONDAY)},${iso(MONDAY + 2)}`,
    `B,Services,${iso(MONDAY)},${iso(MONDAY + 4)}`,
    `C,Paint,${iso(MONDAY)},${iso(MONDAY + 1)}`,
  ]);
  await page.goto(`${address}/plans/${plan}/structure`, { waitUntil: 'networkidle2' });
  await page.locator('[data-ref="A"] ::-p-text(Walls)').click();
  await page.keyboard.down('Shift');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.up('Shift');
  await press('Repeat');
  const units = (await page.waitForSelector('textarea[aria-label="Units"]'))!;
  await units.click({ count: 3 });
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type('One\nTwo\nThree\nFour\nFive\nSix');
  await page.locator('button::-p-text(Make 18 activities)').click();
  await until(async () => (await stored(plan)).lines[0]?.zones.length, 6);
  await page.goto(`${address}/plans/${plan}/show`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('main li svg[viewBox]');
  await newExhibit(page, 'Floors, floor by floor');
  for (const words of ['Walls', 'Services', 'Paint', 'Six']) expect(await pageText(page)).toContain(words);
  await press('Balance');
  await page.waitForSelector('[aria-label="Order of trades"] li::-p-text(Paint)');
  await page.waitForSelector('[aria-label="What moves"] li');
  await takeIt();
  /** Working days of a five-day week from the first Monday on. */
  const workday = (day: number) => {
    const [weeks, rest] = [Math.floor((day - MONDAY) / 7), (day - MONDAY) % 7];
    return weeks * 5 + Math.min(5, rest);
  };
  const ends = async () => {
    const works = (await stored(plan)).activities;
    const of = (name: string) => works.filter((w) => w.name === name);
    return [
      ...['Walls', 'Services', 'Paint'].map((n) => workday(Math.min(...of(n).map((w) => w.start)) / 1440)),
      workday(Math.max(...of('Paint').map((w) => w.finish)) / 1440),
    ];
  };
  await until(ends, [0, 3, 23, 35]);
}, 90_000);

test('a bridge of four sections, in hours: balanced without rest it takes 117.80 working days, on the page too', async () => {
  const plan = await table('Bridge', [
    'ID,Name,Start,From place,To place,Quantity,Daily output',
    ...BRIDGE.flatMap(({ name, output, quantities }, t) =>
      quantities.flatMap((q, k) =>
        q === 0 ? [] : `${t}${k},${name},${iso(MONDAY)} ${t === 0 ? '08:00' : '13:00'},${k},${k + 1},${q},${output}`,
      ),
    ),
  ]);
  await describeLine(plan, 'Bridge', 'section', '4');
  await until(async () => (await stored(plan)).lines.length, 1);
  await page.goto(`${address}/plans/${plan}/show`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('main li svg[viewBox]');
  await newExhibit(page, 'Bridge, the whole line');
  await press('Balance');
  await page.select('[aria-label="What goes together"]', 'name');
  for (const words of ['without a rest', 'a stretch is left']) {
    const tick = (await page.waitForSelector(`aside label ::-p-text(${words})`))!;
    if (!(await tick.evaluate((e) => e.closest('label')!.querySelector('input')!.checked))) await tick.click();
  }
  const days = (await page.waitForSelector('[aria-label="Days between works"]'))!;
  await days.click({ count: 3 });
  await page.keyboard.type('0');
  await page.waitForSelector('aside ::-p-text(From first to last 117.8)');
  await takeIt();
  const begin = MONDAY * 1440 + 480;
  const ended = async () => Math.max(...(await stored(plan)).activities.map((a) => a.finish));
  await until(async () => (await ended()) > begin, true);
  /** Working days of eight hours, 8 to 12 and 13 to 17 o'clock, from the first Monday on. */
  const workdays = (minutes: number) => {
    const day = Math.floor(minutes / 1440) - MONDAY;
    const at = minutes - (MONDAY + day) * 1440;
    const gone = Math.min(240, Math.max(0, at - 480)) + Math.min(240, Math.max(0, at - 780));
    return Math.floor(day / 7) * 5 + Math.min(5, day % 7) + gone / 480;
  };
  expect(workdays(await ended())).toBeCloseTo(117.8, 1);
  const download = await catchDownloads(page);
  await press('Export');
  await page.locator('[role="menuitem"]::-p-text(SVG)').click();
  const svg = readFileSync(await download('.svg'), 'utf8');
  // Time runs down: every line begins and ends with a dot, at the height that its dates give.
  const dots = [...svg.matchAll(/<circle cx="[\d.]+" cy="([\d.]+)"/g)].map((m) => Number(m[1])).sort((a, b) => a - b);
  // The first work did not move, and its end is not stated.
  const times = (await stored(plan)).activities.flatMap((a) => [a.start, ...(a.finish ? [a.finish] : [])]);
  expect([dots.length, times.length]).toEqual([38, 37]);
  const perMinute = (dots.at(-1)! - dots[0]!) / (Math.max(...times) - begin);
  for (const t of times) {
    const y = dots[0]! + (t - begin) * perMinute;
    expect([t, dots.some((d) => Math.abs(d - y) < 0.3)]).toEqual([t, true]);
  }
}, 90_000);
