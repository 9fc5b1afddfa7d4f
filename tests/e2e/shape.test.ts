import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { openBrowser, openPage } from '../support/browser';
import { address, until } from '../support/desk';

/** A plan shaped in the ledger with the pointer, in the margin, by finding and replacing; then what is stored. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let planId = '';
const grid = '[role="treegrid"]';

interface Stored {
  activities: {
    ref: string;
    name: string;
    parent: string | null;
    kind: string;
    start: number | null;
    finish: number | null;
    duration: number | null;
    percent: number | null;
    constraint: { kind: string; moment: number | null } | null;
    stretches: unknown[];
    responsible: string[];
    calendar: string | null;
  }[];
  links: { from: string; to: string; type: string; lag: number }[];
  source: string;
}
const day = (iso: string) => Date.parse(`${iso}T00:00Z`) / 60_000;
const planNow = async (): Promise<Stored> =>
  ((await (await fetch(`${address}/api/plans/${planId}`)).json()) as { plan: Stored }).plan;
const of = async (ref: string) => (await planNow()).activities.find((a) => a.ref === ref)!;
const send = async (command: unknown) => {
  const { version } = (await (await fetch(`${address}/api/plans/${planId}`)).json()) as { version: number };
  const answer = await fetch(`${address}/api/plans/${planId}`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ version, command }),
  });
  expect(answer.status).toBe(200);
};
const says = (pattern: RegExp) =>
  page.waitForFunction(
    (source) => new RegExp(source).test(document.querySelector('[data-testid="consequences"]')?.textContent ?? ''),
    {},
    pattern.source,
  );
const pressed = async (text: string, within = 'body') => {
  const button = await page.waitForFunction(
    (t, w) =>
      [...document.querySelectorAll<HTMLButtonElement>(`${w} button`)].find(
        (b) => b.textContent!.trim() === t && !b.disabled,
      ),
    {},
    text,
    within,
  );
  await (button as ElementHandle<HTMLElement>).click();
};
const boxOf = async (selector: string) => {
  const found = (await page.waitForSelector(selector, { visible: true }))!;
  return (await found.boundingBox())!;
};
const drag = async (from: [number, number], to: [number, number], before?: () => Promise<unknown>) => {
  await page.mouse.move(...from);
  await page.mouse.down();
  await page.mouse.move((from[0] + to[0]) / 2, (from[1] + to[1]) / 2, { steps: 3 });
  await page.mouse.move(...to, { steps: 3 });
  await before?.();
  await page.mouse.up();
};
const held = async (mods: string[], k: string) => {
  for (const m of mods) await page.keyboard.down(m as 'Shift');
  await page.keyboard.press(k as 'Enter');
  for (const m of mods) await page.keyboard.up(m as 'Shift');
};
const undo = () => page.$eval('button[aria-label="Undo"]', (b) => (b as HTMLElement).click());
const names = () =>
  page.$$eval('[role="row"][data-ref]', (list) =>
    list
      .sort((a, b) => Number(a.getAttribute('aria-rowindex')) - Number(b.getAttribute('aria-rowindex')))
      .map((r) => r.querySelector('[role="gridcell"]')!.textContent!.trim()),
  );

/** Four weeks of work in given dates: A, then B, then C, each a week from Monday 2 March 2026; D on its own. */
const WEEK = (ref: string, name: string, monday: string, friday: string) => ({
  do: 'addActivity',
  before: null,
  activity: { ref, name, start: day(monday), finish: day(friday) + 1440, duration: 2400 },
});
beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
  const made = await fetch(`${address}/api/plans`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'Shaped by hand', from: null }),
  });
  planId = ((await made.json()) as { planId: string }).planId;
  await send({
    do: 'all',
    commands: [
      { do: 'setPlan', settings: { source: 'given' } },
      WEEK('A', 'Dig the pit', '2026-03-02', '2026-03-06'),
      WEEK('B', 'Pour the pit', '2026-03-09', '2026-03-13'),
      WEEK('C', 'Fill the pit', '2026-03-16', '2026-03-20'),
      WEEK('D', 'Paint the fence', '2026-03-09', '2026-03-13'),
      { do: 'addLink', link: { from: 'A', to: 'B' } },
      { do: 'addLink', link: { from: 'B', to: 'C' } },
    ],
  });
  await page.goto(`${address}/plans/${planId}/structure`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('[data-ref="D"]');
});
afterAll(() => close());

describe('with the pointer, on the strips', () => {
  test('a bar is moved, and what follows goes along as far as the links ask', async () => {
    const bar = await boxOf('[data-bar="A"]');
    const strip = await boxOf('[data-ref="A"] [data-strip]');
    const perDay = bar.width / 5;
    const y = bar.y + bar.height / 2;
    await drag([bar.x + bar.width / 3, y], [bar.x + bar.width / 3 + 3 * perDay, y], async () => {
      await says(/Thu 5 Mar 2026\. Moves 3 activities; the end goes from 20 Mar 26 to 25 Mar 26/);
    });
    await until(async () => {
      const { activities } = await planNow();
      return activities.map((a) => a.start! / 1440 - day('2026-03-01') / 1440);
    }, [4, 11, 18, 8]);
    expect(strip.width).toBeGreaterThan(300);
    await undo();
    await until(async () => (await of('C')).start, day('2026-03-16'));
  });

  test('the progress is drawn to', async () => {
    const bar = await boxOf('[data-bar="B"]');
    await page.mouse.move(bar.x + bar.width / 2, bar.y + bar.height / 2);
    const grip = await boxOf('[data-bar="B"] [data-grip="progress"]');
    const [x, y] = [grip.x + grip.width / 2, grip.y + grip.height / 2];
    await drag([x, y], [bar.x + bar.width * 0.6, y], () => says(/60 % complete/));
    await until(async () => (await of('B')).percent, 60);
    await undo();
    await until(async () => (await of('B')).percent, null);
  });

  test('a link is drawn from bar to bar: the halves of the bar say which ends it joins', async () => {
    const link = async (to: string, share: number) => {
      const bar = await boxOf('[data-bar="C"]');
      await page.mouse.move(bar.x + bar.width / 2, bar.y + bar.height / 2);
      const grip = await boxOf('[data-bar="C"] [data-grip="link"]');
      const target = await boxOf(`[data-bar="${to}"]`);
      await drag(
        [grip.x + grip.width / 2, grip.y + grip.height / 2],
        [target.x + target.width * share, target.y + target.height / 2],
        () => says(new RegExp(`C → ${to}`)),
      );
    };
    const before = await boxOf('[data-bar="D"]');
    await link('D', 0.9);
    await until(async () => (await planNow()).links.find((l) => l.from === 'C')?.type, 'FF');
    await undo();
    // It is aimed at where the bar stands again.
    await until(async () => (await planNow()).links.length, 2);
    await until(() => boxOf('[data-bar="D"]'), before);
    await link('D', 0.1);
    await until(async () => (await planNow()).links.find((l) => l.from === 'C')?.type, 'FS');
    // What comes after went along: D now begins behind C.
    await until(async () => (await of('D')).start, day('2026-03-23'));
    await undo();
    await until(async () => [(await planNow()).links.length, (await of('D')).start], [2, day('2026-03-09')]);
  });

  test('the time is made finer by the wheel, days off of the calendar are shaded, and all of it comes back', async () => {
    const strip = await boxOf('[data-ref="A"] [data-strip]');
    const ground = () => page.$eval('[data-ref="A"] [data-strip]', (el) => getComputedStyle(el).backgroundImage);
    const head = () => page.$eval('[data-strip-head]', (el) => (el as HTMLElement).innerText);
    await page.mouse.move(strip.x + strip.width / 2, strip.y + 10);
    await page.keyboard.down('Control');
    await page.mouse.wheel({ deltaY: -400 });
    await page.keyboard.up('Control');
    await page.waitForFunction(() =>
      /(^|\n)1[0-9](\n|$)/.test(document.querySelector<HTMLElement>('[data-strip-head]')!.innerText),
    );
    expect(await ground()).toContain('linear-gradient');
    for (let k = 0; k < 8; k++) {
      await page.keyboard.down('Control');
      await page.mouse.wheel({ deltaY: -600 });
      await page.keyboard.up('Control');
    }
    await page.waitForFunction(() =>
      /\d\d:00|\n\d\d\n/.test(document.querySelector<HTMLElement>('[data-strip-head]')!.innerText),
    );
    for (let k = 0; k < 30; k++) {
      await page.keyboard.down('Control');
      await page.mouse.wheel({ deltaY: 900 });
      await page.keyboard.up('Control');
    }
    await page.waitForFunction(() => /0s/.test(document.querySelector<HTMLElement>('[data-strip-head]')!.innerText));
    await page.locator('[aria-label="All of it"]').click();
    await page.waitForFunction(() =>
      /March 2026|Mar/.test(document.querySelector<HTMLElement>('[data-strip-head]')!.innerText),
    );
    expect(await head()).not.toContain('0s');
  });

  test('a row is dragged into another, and back by Undo', async () => {
    const row = await boxOf('[data-ref="D"]');
    await page.mouse.move(row.x + 60, row.y + row.height / 2);
    const grip = await boxOf('[data-ref="D"] [data-carry]');
    const target = await boxOf('[data-ref="A"]');
    await drag([grip.x + 5, grip.y + grip.height / 2], [target.x + 60, target.y + 3]);
    await until(async () => (await planNow()).activities.map((a) => a.ref).join(''), 'DABC');
    await page.waitForFunction(
      () => document.querySelector('[data-cell="0 name"]')!.textContent!.trim() === 'Paint the fence',
    );
    await undo();
    await until(async () => (await planNow()).activities.map((a) => a.ref).join(''), 'ABCD');
  });
});

describe('among neighbours', () => {
  test('a bar is dragged there; the change is kept by Enter and left by Escape', async () => {
    await page.locator('[data-ref="B"] [data-cell]').click();
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-testid="neighbours"]');
    const pull = async () => {
      const bar = await boxOf('[data-testid="neighbours"] [data-bar="B"]');
      const y = bar.y + bar.height / 2;
      await drag([bar.x + bar.width / 2, y], [bar.x + bar.width / 2 + (2 * bar.width) / 5, y]);
      await says(/Move B\. Moves 2 activities/);
    };
    await pull();
    expect((await of('B')).start).toBe(day('2026-03-09'));
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => document.querySelector('[data-testid="consequences"]')!.textContent === '');
    expect((await of('B')).start).toBe(day('2026-03-09'));
    await pull();
    await page.keyboard.press('Enter');
    await until(async () => [(await of('B')).start, (await of('C')).start], [day('2026-03-11'), day('2026-03-18')]);
    await undo();
    await until(async () => (await of('C')).start, day('2026-03-16'));
    await page.focus(grid);
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('[data-testid="neighbours"]'));
  });
});

describe('rows', () => {
  test('a copy stands behind its row and is named at once; a milestone comes when its row ends', async () => {
    await page.locator('[data-ref="A"] [data-cell]').click();
    await held(['Control', 'Shift'], 'd');
    await page.waitForSelector('[data-cell="1 name"] input');
    await page.keyboard.type('Dig the trench');
    await page.keyboard.press('Enter');
    await until(async () => (await planNow()).activities[1]!.name, 'Dig the trench');
    await page.waitForFunction(() => document.querySelector('[role="treegrid"]')!.getAttribute('aria-busy') !== 'true');
    await page.locator('[data-ref="A"] [data-cell]').click();
    await pressed('Milestone');
    await page.waitForSelector('[data-cell="1 name"] input');
    await page.keyboard.type('Pit dug');
    await page.keyboard.press('Enter');
    await until(async () => {
      const { activities, links } = await planNow();
      const made = activities.find((a) => a.name === 'Pit dug');
      return made ? [made.kind, made.finish, links.find((l) => l.to === made.ref)?.from] : null;
    }, ['finishMilestone', day('2026-03-07'), 'A']);
  });

  test('a text is found, shown and replaced, as one change', async () => {
    await page.focus(grid);
    await held(['Control'], 'f');
    const find = (await page.waitForSelector('[aria-label="Find"]'))!;
    await find.type('the pit');
    await page.waitForFunction(() => document.querySelector('search [role="status"]')!.textContent === '3 cells');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.querySelector('search [role="status"]')!.textContent === '1 of 3 cells');
    await (await page.$('[aria-label="Replace by"]'))!.type('the shaft');
    await pressed('All 3', 'search');
    await until(async () => (await planNow()).activities.filter((a) => a.name.endsWith('the shaft')).length, 3);
    await page.locator('search [aria-label="Close"]').click();
    await undo();
    await until(async () => (await planNow()).activities.filter((a) => a.name.endsWith('the pit')).length, 3);
  });

  test('a click with Alt lists what is like the cell, a second one adds to it, and all come back', async () => {
    await page.waitForFunction(() => document.querySelectorAll('[role="row"][data-ref]').length === 6);
    const alt = async (cell: string) => {
      await page.keyboard.down('Alt');
      await page.locator(cell).click();
      await page.keyboard.up('Alt');
    };
    await alt('[data-ref="D"] [data-cell$=" finish"]');
    await page.waitForFunction(() => document.querySelectorAll('[role="row"][data-ref]').length === 2);
    expect((await names()).sort()).toEqual(['Paint the fence', 'Pour the pit']);
    await alt('[data-ref="D"] [data-cell$=" name"]');
    await page.waitForFunction(() => document.querySelectorAll('[role="row"][data-ref]').length === 1);
    expect(await page.$eval('[data-brief-part="where"]', (b) => b.textContent)).toMatch(/finish is .*name is “?Paint/i);
    await page.focus(grid);
    await held(['Alt'], 'Backspace');
    await page.waitForFunction(() => document.querySelectorAll('[role="row"][data-ref]').length === 6);
  });
});

describe('in the margin', () => {
  const margin = 'aside[aria-label="Margin"]';
  const fill = async (field: string, text: string) => {
    await page.locator(`${margin} button[aria-label^="${field}:"]`).click();
    const input = (await page.waitForSelector(`${margin} input`))! as ElementHandle<HTMLInputElement>;
    await input.click({ count: 3 });
    await input.type(text);
    await page.keyboard.press('Enter');
  };
  test('several rows are changed at once; what differs is said', async () => {
    await page.locator('[data-ref="B"] [data-cell]').click();
    await page.keyboard.down('Shift');
    await page.locator('[data-ref="D"] [data-cell]').click();
    await page.keyboard.up('Shift');
    await pressed('Facts');
    await page.waitForSelector(`${margin} button[aria-label^="start: several values"]`);
    expect(await page.$eval(`${margin} h2`, (h) => h.textContent)).toBe('3 activities');
    await fill('responsible', 'Mara, Jon');
    await until(
      async () => (await planNow()).activities.filter((a) => a.responsible.join() === 'Mara,Jon').map((a) => a.ref),
      ['B', 'C', 'D'],
    );
    await page.waitForSelector(`${margin} button[aria-label^="responsible: Mara, Jon"]`);
  });

  test('work is interrupted by a pause, and goes on after it', async () => {
    await page.locator('[data-ref="D"] [data-cell]').click();
    await page.waitForFunction((m) => document.querySelector(`${m} h2`)?.textContent === 'Paint the fence', {}, margin);
    await fill('stretches', 'pause 11 Mar to 12 Mar');
    await until(async () => {
      const d = await of('D');
      return [d.stretches.length, d.finish, d.duration];
    }, [2, day('2026-03-18'), 2400]);
    await page.waitForSelector(
      `${margin} button[aria-label^="stretches: 9 Mar 26 to 10 Mar 26; 13 Mar 26 to 17 Mar 26"]`,
    );
    await undo();
    await until(async () => (await of('D')).stretches.length, 0);
  });

  test('a fixed date that the links do not reach: its size, what is needed by when, and a way out', async () => {
    await send({ do: 'setPlan', settings: { source: 'computed', start: day('2026-03-02') } });
    await page.waitForFunction(() => document.body.innerText.includes('as computed'));
    await page.locator('[data-ref="C"] [data-cell]').click();
    await page.waitForFunction((m) => document.querySelector(`${m} h2`)?.textContent === 'Fill the pit', {}, margin);
    // C begins on Monday 16 March at the earliest; it is to begin on Thursday 12.
    await fill('constraint', 'starts on 12 Mar 2026');
    await page.waitForFunction(
      (m) => document.querySelector(`${m} [role="note"]`)?.textContent?.includes('arrives 2 working days too late'),
      {},
      margin,
    );
    await page.waitForFunction(
      (m) =>
        document
          .querySelector<HTMLElement>(m)!
          .innerText.includes('needed by Wed 11 Mar 2026, 2 working days too late'),
      {},
      margin,
    );
    await pressed('Shorten Dig the pit by 2 working days', margin);
    await until(async () => (await of('A')).duration, 3 * 480);
    await page.waitForFunction((m) => !document.querySelector(`${m} [role="note"]`), {}, margin);
  });

  test('its last changes stand there; any point of the history is gone back to', async () => {
    await page.waitForFunction(
      (m) => document.querySelector<HTMLElement>(m)!.innerText.includes('Changed last'),
      {},
      margin,
    );
    await pressed('History');
    await page.waitForSelector('aside[aria-label="History"] li');
    const before = await planNow();
    await pressed('As the plan was taken in', 'aside[aria-label="History"]');
    await until(async () => (await planNow()).activities.length, 0);
    const last = await page.waitForSelector('aside[aria-label="History"] li:first-child button:not([disabled])');
    await last!.click();
    await until(async () => (await planNow()).activities.length, before.activities.length);
    expect(await planNow()).toEqual(before);
  });
});
