import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { openBrowser, openPage } from '../support/browser';
import { address, until } from '../support/desk';

/** Calendars and resources as a person sets them up; what is stored, and what the plan makes of it. */

let browser: Browser;
let close: () => Promise<void>;
let page: Page;
let planId = '';

interface Calendar {
  id: string;
  name: string;
  week: [number, number][][];
  exceptions: { day: number; pattern: unknown[]; name: string }[];
  minutesPerDay: number;
}
interface Stored {
  calendar: string;
  calendars: Calendar[];
  resources: { id: string; name: string; limit: number | null; rate: number | null }[];
  activities: {
    ref: string;
    start: number | null;
    calendar: string | null;
    assignments: { resource: string; effort: number; shape?: string }[];
  }[];
}
const dayNumber = (iso: string) => Date.parse(`${iso}T00:00Z`) / 86_400_000;
const planNow = async (): Promise<Stored> =>
  ((await (await fetch(`${address}/api/plans/${planId}`)).json()) as { plan: Stored }).plan;
const calendarNow = async (name: string) => (await planNow()).calendars.find((c) => c.name === name)!;
const pressed = async (text: string | RegExp) => {
  const button = await page.waitForFunction(
    (t) =>
      [...document.querySelectorAll<HTMLButtonElement>('main button')].find(
        (b) => new RegExp(t).test(b.textContent!.trim()) && !b.disabled,
      ),
    {},
    typeof text === 'string' ? `^${text}` : text.source,
  );
  await (button as ElementHandle<HTMLElement>).click();
};
const retype = async (label: string, text: string) => {
  const input = (await page.waitForSelector(
    `[aria-label="${label}"]:not([disabled])`,
  ))! as ElementHandle<HTMLInputElement>;
  await input.click({ count: 3 });
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
};

beforeAll(async () => {
  ({ browser, close } = await openBrowser());
  page = await openPage(browser, address);
  const made = await fetch(`${address}/api/plans`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'Time and people', from: null }),
  });
  planId = ((await made.json()) as { planId: string }).planId;
  const week = (ref: string, name: string, from: string, to: string) => ({
    do: 'addActivity',
    before: null,
    activity: { ref, name, start: dayNumber(from) * 1440, finish: (dayNumber(to) + 1) * 1440, duration: 2400 },
  });
  const sent = await fetch(`${address}/api/plans/${planId}`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      version: 1,
      command: {
        do: 'all',
        commands: [
          { do: 'setPlan', settings: { source: 'given', statusDate: dayNumber('2026-01-05') * 1440 } },
          week('A', 'Hoist the beams', '2026-01-05', '2026-01-09'),
          week('B', 'Bolt the beams', '2026-01-12', '2026-01-16'),
        ],
      },
    }),
  });
  expect(sent.status).toBe(200);
});
afterAll(() => close());

describe('calendars', () => {
  test('a year at a glance: days are given off, several at once, and one gets hours of its own', async () => {
    await page.goto(`${address}/plans/${planId}/structure/calendars`, { waitUntil: 'networkidle2' });
    await page.waitForSelector(`[data-day="${dayNumber('2026-04-07')}"]`);
    const reckoned = () => page.$eval('[data-testid="reckoned"]', (p) => p.textContent);
    // Common practice: two five-day weeks, one weekend between them.
    expect(await reckoned()).toBe('10 working days from Mon 5 Jan 2026: Fri 16 Jan 2026, 12 calendar days');
    const at = async (iso: string) => {
      const day = (await page.$(`[data-day="${dayNumber(iso)}"]`))!;
      const box = (await day.boundingBox())!;
      return [box.x + box.width / 2, box.y + box.height / 2] as const;
    };
    await page.mouse.move(...(await at('2026-01-07')));
    await page.mouse.down();
    await page.mouse.move(...(await at('2026-01-08')), { steps: 3 });
    await page.mouse.up();
    await page.waitForFunction(() => document.body.innerText.includes('Wed 7 Jan 2026 to Thu 8 Jan 2026'));
    await (await page.$('[aria-label="Called"]'))!.type('Stocktaking');
    await pressed('Give off');
    await until(
      async () => (await calendarNow('Five-day week')).exceptions,
      [
        { day: dayNumber('2026-01-07'), pattern: [], name: 'Stocktaking' },
        { day: dayNumber('2026-01-08'), pattern: [], name: 'Stocktaking' },
      ],
    );
    await page.waitForFunction(() =>
      document.querySelector('[data-testid="reckoned"]')!.textContent!.includes('Tue 20 Jan 2026, 16 calendar days'),
    );
    // Saturday 10 January is worked in the morning.
    await page.mouse.click(...(await at('2026-01-10')));
    await retype('Hours of these days', '8-12');
    await until(async () => (await calendarNow('Five-day week')).exceptions.at(-1)?.pattern, [[480, 720]]);
    await page.waitForFunction(() =>
      document.querySelector('[data-testid="reckoned"]')!.textContent!.includes('Mon 19 Jan 2026'),
    );
  });

  test('the hours of a weekday, with what cannot be read left in its place; a day of length follows', async () => {
    const hours = (await page.$('[aria-label="Hours of Fri"]'))! as ElementHandle<HTMLInputElement>;
    await hours.click({ count: 3 });
    await page.keyboard.type('8 till noon');
    await page.keyboard.press('Enter');
    expect(await hours.evaluate((h) => [h.value, h.getAttribute('aria-invalid')])).toEqual(['8 till noon', 'true']);
    await retype('Hours of Fri', '8-12');
    await until(async () => {
      const c = await calendarNow('Five-day week');
      return [c.week[4], c.minutesPerDay];
    }, [[[480, 720]], 480]);
  });

  test('public holidays of a country are looked at, then taken in', async () => {
    await page.focus('[aria-label="Country or part of it"]');
    await page.waitForFunction(
      () => document.querySelectorAll('[aria-label="Country or part of it"] option').length > 100,
    );
    await page.select('[aria-label="Country or part of it"]', 'DE-BE');
    await page.waitForFunction(
      () => document.body.innerText.includes('Sun 8 Mar 2026') || document.body.innerText.includes('Good Friday'),
    );
    await pressed(/^Give \d+ days off/);
    // Good Friday 2026 is 3 April, 2028 is 14 April (the astronomical tables of Easter; from memory).
    await until(async () => {
      const { exceptions } = await calendarNow('Five-day week');
      return ['2026-04-03', '2027-03-26', '2028-04-14'].map((d) => exceptions.some((e) => e.day === dayNumber(d)));
    }, [true, true, true]);
  });

  test('a calendar is copied, named, used, made the plan’s own, and removed', async () => {
    await pressed('A copy of this one');
    await page.waitForFunction(
      () =>
        document.querySelector<HTMLInputElement>('[aria-label="Name of the calendar"]')?.value ===
        'Five-day week, another',
    );
    await retype('Name of the calendar', 'Night shift');
    await until(async () => (await planNow()).calendars.map((c) => c.name).includes('Night shift'), true);
    await pressed('Make it the plan’s own');
    await until(async () => (await planNow()).calendar === (await calendarNow('Night shift')).id, true);
    await pressed('Five-day week');
    await pressed('Make it the plan’s own');
    await until(async () => (await planNow()).calendar === (await calendarNow('Five-day week')).id, true);
    await pressed('Night shift');
    await pressed('Remove');
    await until(async () => (await planNow()).calendars.some((c) => c.name === 'Night shift'), false);
  });

  test('a start is picked from a month in its cell', async () => {
    await page.goto(`${address}/plans/${planId}/structure`, { waitUntil: 'networkidle2' });
    await page.waitForSelector('[data-ref="B"]');
    // A length that is typed is said in both kinds of days.
    await page.locator('[data-ref="A"] [data-cell$=" days"]').click();
    await page.keyboard.type('3');
    await page.waitForFunction(() =>
      document.body.innerText.includes('3 working days from Mon 5 Jan 2026: Fri 9 Jan 2026, 5 calendar days'),
    );
    await page.keyboard.press('Escape');
    await page.locator('[data-ref="B"] [data-cell$=" start"]').click();
    await page.keyboard.press('F2');
    await page.waitForSelector(`.panel [data-day="${dayNumber('2026-01-22')}"]`);
    await page.locator(`.panel [data-day="${dayNumber('2026-01-22')}"]`).click();
    await until(
      async () => (await planNow()).activities.find((a) => a.ref === 'B')!.start,
      dayNumber('2026-01-22') * 1440,
    );
  });
});

describe('resources', () => {
  test('are added, limited and set to work; what is too much is seen', async () => {
    await page.goto(`${address}/plans/${planId}/structure/resources`, { waitUntil: 'networkidle2' });
    await retype('New resource', 'Crane crew');
    await until(async () => (await planNow()).resources.map((r) => r.name), ['Crane crew']);
    await retype('How many of Crane crew at a time', '1');
    await retype('Rate of Crane crew', '62.5');
    await until(async () => {
      const [r] = (await planNow()).resources;
      return [r!.limit, r!.rate];
    }, [1, 6250]);
    const works = (await page.waitForSelector('[aria-label="Works on another activity"]'))!;
    await works.type('Hoist');
    await pressed('Hoist the beams');
    const effort = async () => (await planNow()).activities.find((a) => a.ref === 'A')!.assignments;
    // The whole length, 40 hours, until somebody says otherwise.
    await until(effort, [{ resource: 'Crane crew', effort: 2400 }]);
    await retype('Hours on Hoist the beams', '400');
    await until(effort, [{ resource: 'Crane crew', effort: 24_000 }]);
    await page.waitForFunction(() => document.body.innerText.includes('too much in 1 month'));
    await page.waitForSelector('[role="img"][aria-label*="400 hours in all, too much in 1 of them"] svg');
    await page.select('[aria-label="How they lie on Hoist the beams"]', 'back');
    await until(effort, [{ resource: 'Crane crew', effort: 24_000, shape: 'back' }]);
    await pressed('take off');
    await until(effort, []);
  });
});
