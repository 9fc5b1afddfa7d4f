import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { openBrowser, openPage } from '../support/browser';
import { address, byName, catchDownloads, putFile, until, upload } from '../support/desk';

/** Making a plan one's own: code books, clean-up, starters, a sketch, and the whole in one file; done as a person does. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
const folder = mkdtempSync(join(tmpdir(), 'clembo-yours-'));
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
  await button.evaluate((b) => (b as HTMLButtonElement).click());
};
const on = (part: string) =>
  page.waitForFunction((p) => new RegExp(p).test(location.pathname), { timeout: 60_000 }, part);
const says = (words: string) =>
  page.waitForFunction((w) => document.body.innerText.includes(w), { timeout: 30_000 }, words);
const sayNot = (words: string) =>
  page.waitForFunction((w) => !document.body.innerText.includes(w), { timeout: 30_000 }, words);
const type = async (label: string, text: string) => {
  const input = (await page.waitForSelector(`[aria-label="${label}"]`))! as ElementHandle<HTMLInputElement>;
  await input.click({ count: 3 });
  await input.type(text);
};
const choose = async (button: string, option: string) => {
  await page.locator(button).click();
  const found = await page.waitForFunction(
    (text) => [...document.querySelectorAll('[role="option"]')].find((o) => o.textContent!.trim() === text),
    {},
    option,
  );
  await (found as ElementHandle<HTMLElement>).click();
};

interface Stored {
  plan: {
    name: string;
    source: string;
    start: number | null;
    activities: {
      ref: string;
      name: string;
      parent: string | null;
      kind: string;
      start: number | null;
      finish: number | null;
      duration: number | null;
      codes: Record<string, string>;
      responsible: string[];
    }[];
    links: { from: string; to: string }[];
    codeFields: {
      id: string;
      name: string;
      values: {
        code: string;
        title: string;
        colour: string | null;
        shape: string | null;
        parent: string | null;
        height: number | null;
      }[];
    }[];
    resources: { rate: number }[];
  };
  version: number;
}
let planId = '';
const planNow = async (): Promise<Stored> => (await (await fetch(`${address}/api/plans/${planId}`)).json()) as Stored;
const codes = async (field: string) =>
  Object.fromEntries((await planNow()).plan.activities.map((a) => [a.ref, a.codes[field] ?? '']));
const day = (iso: string) => Date.parse(`${iso}T00:00Z`) / 60_000;

const HEADINGS = 'ID,Activity,Start,Finish,Predecessors';
const WEEK1 = [
  HEADINGS,
  'N1-10,Drive test pile,2026-03-02,2026-03-06,',
  'N1-20,Drive piles,2026-03-09,2026-03-20,N1-10',
  'S2-10,Pour slab,2026-03-23,2026-04-03,N1-20',
  'S2-20,Pour slab,2026-03-23,2026-04-03,',
  'S2-30,Paint railings,2026-04-06,2026-04-10,S2-10',
];

describe('code books', () => {
  const open = () => page.goto(`${address}/plans/${planId}/gather/books`, { waitUntil: 'networkidle2' });

  test('a field is added, with values that are typed; title, colour and order are kept', async () => {
    await upload(page, file('quay.csv', WEEK1));
    await press('Make the plan');
    await on('/plans/.*/show$');
    planId = /plans\/([^/]+)/.exec(page.url())![1]!;
    await open();
    await type('New code field', 'Trade');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[aria-label="New value"]');
    for (const value of ['Piling', 'Concrete']) {
      await type('New value', value);
      await page.keyboard.press('Enter');
      await page.waitForSelector(`[data-value="${value}"]`);
    }
    await type('Title of Piling', 'Pile driving');
    await page.keyboard.press('Enter');
    await page.locator('[aria-label^="Colour of Pile driving"]').click();
    await page.locator('[aria-label="Category colour 5"]').click();
    await choose('[aria-label^="Mark of Concrete"]', 'star');
    await choose('[aria-label^="Concrete is a part of"]', 'Pile driving');
    await type('Rows that lanes of Pile driving are high at least', '4');
    await page.keyboard.press('Enter');
    // By keys: the second value goes before the first.
    await (await page.waitForSelector('[aria-label="Move Concrete"]'))!.focus();
    await page.keyboard.press('Space');
    await new Promise((r) => setTimeout(r, 300));
    await page.keyboard.press('ArrowUp');
    await new Promise((r) => setTimeout(r, 300));
    await page.keyboard.press('Space');
    await until(
      async () => (await planNow()).plan.codeFields.find((f) => f.name === 'Trade')!.values,
      [
        { code: 'Concrete', title: 'Concrete', colour: null, shape: 'star', parent: 'Piling', height: null },
        { code: 'Piling', title: 'Pile driving', colour: '#CB5C83', shape: null, parent: null, height: 4 },
      ],
    );
  });

  test('rules fill it in their order, with how many each catches and what none does; they are kept', async () => {
    await choose('#filled-by button', 'rules, in their order');
    await type('Code of rule 1', 'Piling');
    await type('What it is compared with', 'pile');
    await says('2 activities');
    await press('Add a rule');
    await type('Code of rule 2', 'Concrete');
    const inputs = await page.$$('[aria-label="What it is compared with"]');
    await inputs[1]!.type('pour');
    await page.waitForFunction(() => /1 activity is caught by nothing: Paint railings/.test(document.body.innerText));
    await press('Keep and run');
    await until(() => codes('trade'), {
      'N1-10': 'Piling',
      'N1-20': 'Piling',
      'S2-10': 'Concrete',
      'S2-20': 'Concrete',
      'S2-30': '',
    });
    await says('One row without any');
  });

  test('it is taken back and done again, also after a reload', async () => {
    await page.reload({ waitUntil: 'networkidle2' });
    await press('Undo');
    await until(async () => Object.values(await codes('trade')).join(''), '');
    await press('Redo');
    await until(async () => (await codes('trade'))['N1-10'], 'Piling');
  });

  test('the first characters of the reference', async () => {
    await type('New code field', 'Zone');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Name of the field"]') as HTMLInputElement)?.value === 'Zone',
    );
    await choose('#filled-by button', 'the first characters of another field');
    await says('N1 2');
    await press('Keep and run');
    await until(() => codes('zone'), { 'N1-10': 'N1', 'N1-20': 'N1', 'S2-10': 'S2', 'S2-20': 'S2', 'S2-30': 'S2' });
    // What comes of it stands in the book.
    await page.waitForSelector('[data-value="N1"]');
  });

  test('a pasted column, in another order, with the keys behind; what fits nothing is said', async () => {
    await type('New code field', 'Crew');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Name of the field"]') as HTMLInputElement)?.value === 'Crew',
    );
    await page.locator('[aria-label="Pasted codes"]').click();
    await page.evaluate(() => {
      const area = document.querySelector<HTMLTextAreaElement>('[aria-label="Pasted codes"]')!;
      const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!;
      set.call(area, 'Crew\tID\nBlue\tS2-30\nRed\tN1-20\nRed\tX9\nBlue\tn1-10');
      area.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await says('3 activities are found by reference');
    await says('Not in the plan: X9');
    await says('The first row is taken for headings: Crew, ID.');
    await press('Give 3 codes');
    await until(() => codes('crew'), { 'N1-10': 'Blue', 'N1-20': 'Red', 'S2-10': '', 'S2-20': '', 'S2-30': 'Blue' });
  });

  test('a value that is not in the book is shown, and taken in', async () => {
    const { version } = await planNow();
    await fetch(`${address}/api/plans/${planId}`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ version, command: { do: 'recode', field: 'crew', codes: [['S2-10', 'Green']] } }),
    });
    await open();
    await page.$$eval('[aria-label="Code fields"] button', (list) =>
      (list.find((b) => b.textContent!.startsWith('Crew')) as HTMLElement).click(),
    );
    await page.waitForFunction(() => document.querySelector('[data-testid="outside"]')?.textContent?.includes('Green'));
    await press('Take it in');
    await page.waitForSelector('[data-value="Green"]');
    await until(
      async () => (await planNow()).plan.codeFields.find((f) => f.name === 'Crew')!.values.map((v) => v.code),
      ['Blue', 'Red', 'Green'],
    );
  });

  test('the book is kept, and given to another plan', async () => {
    await press('Keep for other plans');
    await says('“Crew” is kept for other plans.');
    const own = planId;
    const plans = (await (await fetch(`${address}/api/plans?find=Museum`)).json()) as { id: string }[];
    planId = plans[0]!.id;
    try {
      await open();
      await page.locator('details summary').click();
      await page.locator('[title="Give Crew to this plan"]').click();
      await page.waitForSelector('[data-value="Green"]');
      await press('Undo');
      await until(async () => (await planNow()).plan.codeFields.some((f) => f.name === 'Crew'), false);
    } finally {
      planId = own;
    }
  });

  test('the rules run again at a refresh: what is new is coded, what was coded by hand stays', async () => {
    const { version } = await planNow();
    await fetch(`${address}/api/plans/${planId}`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ version, command: { do: 'recode', field: 'trade', codes: [['S2-30', 'By hand']] } }),
    });
    await page.goto(`${address}/plans/${planId}/gather`, { waitUntil: 'networkidle2' });
    await putFile(
      page,
      file('quay 2.csv', [
        ...WEEK1,
        'N1-30,Cut pile heads,2026-03-23,2026-03-27,N1-20',
        'S2-40,Pour kerb,2026-04-13,2026-04-17,',
      ]),
    );
    await on('^/intake/');
    await press('See what has changed');
    await on('/changes$');
    await press('Refresh the plan');
    await on('/gather$');
    await until(() => codes('trade'), {
      'N1-10': 'Piling',
      'N1-20': 'Piling',
      'S2-10': 'Concrete',
      'S2-20': 'Concrete',
      'S2-30': 'By hand',
      'N1-30': 'Piling',
      'S2-40': 'Concrete',
    });
    expect((await codes('zone'))['N1-30']).toBe('N1');
  }, 120_000);
});

describe('clean up', () => {
  const kind = async (title: string) => {
    const button = await page.waitForFunction(
      (t) =>
        [...document.querySelectorAll('nav[aria-label="Kinds of findings"] button')].find((b) =>
          b.textContent!.startsWith(t),
        ),
      { timeout: 30_000 },
      title,
    );
    await (button as ElementHandle<HTMLElement>).click();
    await page.waitForFunction((t) => document.querySelector('#kind')?.textContent === t, {}, title);
  };

  test('duplicates side by side: merged into one, with links and codes of both', async () => {
    await page.goto(`${address}/plans/${planId}/gather/work`, { waitUntil: 'networkidle2' });
    await kind('Perhaps the same twice');
    await says('Merge into S2-20');
    await press('Merge into S2-20');
    await until(async () => (await planNow()).plan.activities.map((a) => a.ref).includes('S2-10'), false);
    const { plan } = await planNow();
    expect(plan.links.map((l) => `${l.from}>${l.to}`).sort()).toEqual([
      'N1-10>N1-20',
      'N1-20>N1-30',
      'N1-20>S2-20',
      'S2-20>S2-30',
    ]);
    expect(plan.activities.find((a) => a.ref === 'S2-20')!.codes.crew).toBe('Green');
  });

  test('a mend in place: what follows is linked, one is left as it is, and both are taken back', async () => {
    await kind('Nothing leads to them');
    const item = '[data-item="S2-40"]';
    await page.waitForSelector(item);
    const input = (await page.$(`${item} input`))!;
    await input.type('S2-30');
    await page.keyboard.press('Enter');
    await page.waitForFunction((i) => document.querySelector(i) === null, {}, item);
    await until(async () => (await planNow()).plan.links.some((l) => l.from === 'S2-30' && l.to === 'S2-40'), true);
    await page.$$eval('[data-item="N1-10"] button', (list) =>
      (list.find((b) => b.textContent === 'Leave it') as HTMLElement).click(),
    );
    await says('1 left as it is: look again');
    await press('Undo');
    await sayNot('1 left as it is');
    await press('Undo');
    await page.waitForSelector(item);
    await until(async () => (await planNow()).plan.links.some((l) => l.to === 'S2-40'), false);
  });

  test('what the plan requires is asked for, and given to all at once', async () => {
    await page.locator('[aria-label="Required cells"] button').click();
    await page.waitForFunction(() =>
      [...document.querySelectorAll('label')].some((l) => l.textContent === 'responsible'),
    );
    await page.$$eval('label', (list) => (list.find((l) => l.textContent === 'responsible') as HTMLElement).click());
    await page.keyboard.press('Escape');
    await kind('No responsible');
    await says('which this plan requires of every activity');
    await (await page.waitForSelector('section[aria-labelledby="kind"] .bg-wash input'))!.type('Harbour crew');
    await page.keyboard.press('Enter');
    await until(
      async () => (await planNow()).plan.activities.every((a) => a.responsible.join() === 'Harbour crew'),
      true,
    );
    await page.waitForFunction(
      () => !document.querySelector('nav[aria-label="Kinds of findings"]')!.textContent!.includes('No responsible'),
    );
  });
});

describe('starters', () => {
  test('a plan is made from one, with a name and a day', async () => {
    await page.goto(address, { waitUntil: 'networkidle2' });
    await (await byName(page, 'link', 'From a starter'))!.click();
    await on('^/starters$');
    await page.waitForSelector('button[aria-pressed]');
    await page.$$eval('button[aria-pressed]', (list) =>
      (list.find((b) => b.textContent!.startsWith('A relocation')) as HTMLElement).click(),
    );
    await type('Name of the plan', 'To the lighthouse');
    await page.$eval('[aria-label="First day"]', (input) => {
      const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!;
      set.call(input, '2027-03-01');
      input.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await press('Make the plan');
    await on('/plans/.*/show$');
    planId = /plans\/([^/]+)/.exec(page.url())![1]!;
    const { plan } = await planNow();
    expect([plan.name, plan.source, plan.start]).toEqual(['To the lighthouse', 'computed', day('2027-03-01')]);
    expect([plan.activities.length > 25, plan.links.length > 25, plan.resources.every((r) => r.rate > 0)]).toEqual([
      true,
      true,
      true,
    ]);
    await page.waitForFunction(() => document.querySelectorAll('svg').length > 0);
  });

  test('and a plan becomes one, from which another is made', async () => {
    await page.goto(`${address}/plans/${planId}/gather`, { waitUntil: 'networkidle2' });
    const input = (await page.waitForSelector('input[placeholder="Name of the starter"]'))!;
    await input.type('Our way to move');
    await page.keyboard.press('Enter');
    await says('“Our way to move” is kept among the starters.');
    await page.goto(`${address}/starters`, { waitUntil: 'networkidle2' });
    await page.$$eval('button[aria-pressed]', (list) =>
      (list.find((b) => b.textContent!.startsWith('Our way to move')) as HTMLElement).click(),
    );
    await type('Name of the plan', 'Again');
    await page.$eval('[aria-label="First day"]', (el) => {
      const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!;
      set.call(el, '2028-01-10');
      el.dispatchEvent(new Event('input', { bubbles: true }));
    });
    const before = (await planNow()).plan.activities.map((a) => a.ref);
    await press('Make the plan');
    await on('/plans/.*/show$');
    planId = /plans\/([^/]+)/.exec(page.url())![1]!;
    const { plan } = await planNow();
    expect([plan.name, plan.start, plan.activities.map((a) => a.ref)]).toEqual(['Again', day('2028-01-10'), before]);
    // Let go, it is gone for others; what was made of it stays.
    await page.goto(`${address}/starters`, { waitUntil: 'networkidle2' });
    await page.locator('[aria-label="Let go of the starter Our way to move"]').click();
    await sayNot('Our way to move');
    expect((await planNow()).plan.name).toBe('Again');
  });
});

describe('a sketch', () => {
  const ROW = 38;
  let ground: { x: number; y: number };
  /** Drags on the line, by pixels from its left edge, in a row. */
  const drag = async (from: number, to: number, row: number) => {
    const y = ground.y + row * ROW + ROW / 2;
    await page.mouse.move(ground.x + from, y);
    await page.mouse.down();
    await page.mouse.move(ground.x + (from + to) / 2, y);
    await page.mouse.move(ground.x + to, y);
    await page.mouse.up();
  };
  const name = async (text: string) => {
    await page.waitForSelector('[aria-label="Name"]');
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      (t) => [...document.querySelectorAll('[data-row]')].some((r) => r.textContent!.startsWith(t)),
      {},
      text,
    );
  };
  const rows = async () =>
    (await planNow()).plan.activities.map((a) => `${a.name}${a.parent ? ` in ${a.parent}` : ''}`);
  const of = async (wanted: string) => (await planNow()).plan.activities.find((a) => a.name === wanted)!;

  test('phases and milestones are drawn and named', async () => {
    await page.goto(address, { waitUntil: 'networkidle2' });
    await press('Sketch one');
    await on('/sketch$');
    planId = /plans\/([^/]+)/.exec(page.url())![1]!;
    await page.waitForSelector('[data-testid="ground"]');
    await says('Draw here');
    const box = (await (await page.$('[data-testid="ground"]'))!.boundingBox())!;
    ground = { x: Math.max(box.x, 340), y: box.y };
    await drag(100, 300, 0);
    await name('Design');
    await drag(310, 500, 1);
    await name('Build');
    // A click is a milestone.
    await drag(505, 505, 2);
    await name('Open');
    await until(rows, ['Design', 'Build', 'Open']);
    const design = await of('Design');
    const [first, last] = [design.start! / 1440, design.finish! / 1440 - 1];
    // Both ends lie on working days, and the length is what lies between.
    for (const d of [first, last]) expect((d + 3) % 7 < 5).toBe(true);
    const weekdays = Array.from({ length: last - first + 1 }, (_, k) => (first + k + 3) % 7).filter(
      (w) => w < 5,
    ).length;
    expect(design.duration).toBe(weekdays * 480);
    const open = await of('Open');
    expect([open.kind, open.start, open.duration]).toEqual(['finishMilestone', null, 0]);
  }, 60_000);

  test('what is dragged moves or gets another length; Escape leaves it', async () => {
    const before = await of('Build');
    const bar = async () => (await (await page.$(`[data-bar="${before.ref}"]`))!.boundingBox())!;
    const b = await bar();
    const grab = async (x: number, to: number, escape = false) => {
      await page.mouse.move(x, b.y + b.height / 2);
      await page.mouse.down();
      await page.mouse.move((x + to) / 2, b.y + b.height / 2);
      await page.mouse.move(to, b.y + b.height / 2);
      if (escape) await page.keyboard.press('Escape');
      await page.mouse.up();
    };
    await grab(b.x + b.width / 2, b.x + b.width / 2 + 90, true);
    await new Promise((r) => setTimeout(r, 500));
    expect((await of('Build')).start).toBe(before.start);
    await grab(b.x + b.width / 2, b.x + b.width / 2 + 84);
    await until(async () => (await of('Build')).start! > before.start!, true);
    const movedTo = await of('Build');
    expect(movedTo.duration).toBe(before.duration);
    const after = await bar();
    await page.mouse.move(after.x + after.width, after.y + 9);
    await page.mouse.down();
    await page.mouse.move(after.x + after.width + 40, after.y + 9);
    await page.mouse.move(after.x + after.width + 60, after.y + 9);
    await page.mouse.up();
    await until(async () => (await of('Build')).finish! > movedTo.finish!, true);
    expect((await of('Build')).start).toBe(movedTo.start);
  });

  test('names are typed before their rows are there: no key is lost, or taken as one of the sketch', async () => {
    await (await page.waitForSelector('[aria-label="Time line to draw on"]'))!.focus();
    const before = (await rows()).length;
    const gates = ['Gate am', 'Gate + a', 'Mama'];
    for (const [k, gate] of gates.entries()) {
      await page.keyboard.press('m');
      await page.keyboard.type(gate, { delay: [0, 30, 90][k]! });
      await page.keyboard.press('Enter');
      await until(async () => (await rows()).filter((r) => gates.includes(r)).length, k + 1);
    }
    expect((await rows()).length).toBe(before + 3);
    for (let k = 0; k < 6; k++) await press('Undo');
    await until(rows, ['Design', 'Build', 'Open']);
  }, 60_000);

  test('by keys: made, named, put into one another, moved by a working day, removed and brought back', async () => {
    const board = (await page.waitForSelector('[aria-label="Time line to draw on"]'))!;
    await board.focus();
    const chosen = () => page.$eval('[data-row][aria-current]', (r) => r.textContent);
    // From the last chosen row to the first.
    for (let k = 0; k < 4; k++) await page.keyboard.press('ArrowUp');
    expect(await chosen()).toContain('Design');
    await page.keyboard.press('a');
    await name('Survey');
    await page.keyboard.press('Tab');
    const parent = (await of('Design')).ref;
    await until(rows, ['Design', `Survey in ${parent}`, 'Build', 'Open']);
    const before = (await of('Survey')).start!;
    await page.keyboard.down('Shift');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.up('Shift');
    await until(async () => [1440, 3 * 1440].includes((await of('Survey')).start! - before), true);
    await page.keyboard.press('m');
    await name('Plans agreed');
    await until(rows, ['Design', `Survey in ${parent}`, `Plans agreed in ${parent}`, 'Build', 'Open']);
    await page.keyboard.press('Delete');
    await until(async () => (await rows()).length, 4);
    await press('Undo');
    await until(async () => (await rows()).length, 5);
    // Out again, behind its group.
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[data-row]')].some((r) => r.textContent!.startsWith('Plans agreed')),
    );
    await board.focus();
    for (let k = 0; k < 6; k++) await page.keyboard.press('ArrowUp');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    expect(await chosen()).toContain('Plans agreed');
    await page.keyboard.down('Shift');
    await page.keyboard.press('Tab');
    await page.keyboard.up('Shift');
    await until(rows, ['Design', `Survey in ${parent}`, 'Plans agreed', 'Build', 'Open']);
  }, 60_000);

  test('it is a plan like any other: taken out as a table, and read back', async () => {
    const download = await catchDownloads(page);
    await page.goto(`${address}/plans/${planId}/gather`, { waitUntil: 'networkidle2' });
    const before = (await planNow()).plan.activities;
    await press('Table CSV');
    const taken = await download('.csv');
    await page.goto(address, { waitUntil: 'networkidle2' });
    await upload(page, taken);
    await press('Make the plan');
    await on('/plans/.*/show$');
    planId = /plans\/([^/]+)/.exec(page.url())![1]!;
    const { plan } = await planNow();
    const short = (list: Stored['plan']['activities']) => list.map((a) => [a.ref, a.name, a.parent, a.finish]);
    expect(short(plan.activities).map(([ref, n]) => [ref, n])).toEqual(short(before).map(([ref, n]) => [ref, n]));
    expect(plan.activities.find((a) => a.name === 'Survey')!.parent).toBe(before.find((a) => a.name === 'Design')!.ref);
    expect(plan.activities.find((a) => a.name === 'Build')!.finish).toBe(
      before.find((a) => a.name === 'Build')!.finish,
    );
  }, 60_000);
});

describe('everything in one file', () => {
  test('taken out and taken in, the plan has the same pages, to the byte', async () => {
    const plans = (await (await fetch(`${address}/api/plans?find=Saltmere`)).json()) as { id: string }[];
    planId = plans[0]!.id;
    await page.goto(`${address}/plans/${planId}/gather`, { waitUntil: 'networkidle2' });
    const download = await catchDownloads(page);
    await press('Everything in one file');
    const bundle = await download('.clembo');
    expect(bundle).toMatch(/Saltmere sea wall\.clembo$/);
    const before = (await planNow()).plan;
    const pages = await pdfs(planId);
    await page.goto(address, { waitUntil: 'networkidle2' });
    await putFile(page, bundle);
    await on('/plans/.*/show$');
    const copy = /plans\/([^/]+)/.exec(page.url())![1]!;
    expect(copy).not.toBe(planId);
    const copied = await pdfs(copy);
    expect(copied.length).toBe(pages.length);
    expect(pages.length).toBeGreaterThan(1);
    copied.forEach((bytes, k) => expect(Buffer.compare(bytes, pages[k]!)).toBe(0));
    planId = copy;
    expect((await planNow()).plan).toEqual(before);
    // What another program sees in it: a whole archive.
    expect(execFileSync('python3', ['-m', 'zipfile', '-l', bundle]).toString()).toContain('clembo.json');
  }, 180_000);

  /** All pages of a plan as PDF, in their order. */
  async function pdfs(id: string): Promise<Buffer[]> {
    await page.goto(`${address}/plans/${id}/show`, { waitUntil: 'networkidle2' });
    const links = await page.$$eval('a[href*="/show/"]', (list) => [
      ...new Set(list.map((a) => (a as HTMLAnchorElement).pathname)),
    ]);
    const files: Buffer[] = [];
    for (const link of links) {
      const exhibit = link.split('/').at(-1)!;
      const asked = await fetch(`${address}/api/exhibits/${exhibit}/page`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ format: 'pdf' }),
      });
      const { job } = (await asked.json()) as { job: string };
      for (;;) {
        const { state } = (await (await fetch(`${address}/api/jobs/${job}?after=0`)).json()) as { state: string };
        if (state === 'done') break;
        if (state === 'failed') throw new Error('the page was not written');
        await new Promise((r) => setTimeout(r, 200));
      }
      files.push(Buffer.from(await (await fetch(`${address}/api/jobs/${job}/file`)).arrayBuffer()));
    }
    return files;
  }
});
