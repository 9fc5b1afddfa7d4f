// `npm run screenshots`: one current picture of each main view, made from the demo data of a running application.
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openBrowser, openPage, pageShown } from '../support/browser';
import { byName } from '../support/byName';

const address = process.env.CLEMBO_ADDRESS ?? 'http://127.0.0.1:3000';
const folder = 'docs/screenshots';
const { browser, close } = await openBrowser();

async function take(name: string, go: (page: Awaited<ReturnType<typeof openPage>>) => Promise<void>): Promise<void> {
  const page = await openPage(browser, address);
  await go(page);
  await new Promise((r) => setTimeout(r, 900));
  await page.screenshot({ path: `${folder}/${name}.png` as `${string}.png` });
  await page.close();
  console.log(`${folder}/${name}.png`);
}

type Page = Awaited<ReturnType<typeof openPage>>;
const row = (page: Page, plan: string, stage: string) =>
  page.evaluate(
    (n, s) => {
      const li = [...document.querySelectorAll('main li')].find((e) => e.textContent?.includes(n))!;
      return [...li.querySelectorAll('a')].find((a) => a.textContent?.trim() === s)!.href;
    },
    plan,
    stage,
  );
const show = async (page: Page, plan: string, exhibit: string) => {
  await page.goto(await row(page, plan, 'Show'), { waitUntil: 'networkidle2' });
  const href = await page.evaluate(
    (e) =>
      [...document.querySelectorAll('main li')].find((li) => li.textContent?.includes(e))!.querySelector('a')!.href,
    exhibit,
  );
  await page.goto(href, { waitUntil: 'networkidle2' });
  await pageShown(page);
};

await take('gather', async () => {});
await take('intake', async (page) => {
  const csv = join(tmpdir(), 'Quay works.csv');
  writeFileSync(
    csv,
    'Activity ID;Activity;Begin;End;Days;Trade;Preds\nA10;Site set-up;05/01/2026;16/01/2026;10;Civil;\nA20;Piling, north;19/01/2026;13/02/2026;20;Marine;A10\nA30;Piling, south;02/02/2026;soon;20;Marine;A20 SS+10d\nA40;Capping beam;16/02/2026;13/03/2026;20;Civil;A20, A99\nA50;Handover;13/03/2026;13/03/2026;0;Civil;A40\n',
  );
  const input = (await page.waitForSelector('input[type="file"]')) as unknown as {
    uploadFile(path: string): Promise<void>;
  };
  await input.uploadFile(csv);
  await page.waitForFunction(() => location.pathname.startsWith('/intake/'));
});
/** A plan with next week's file beside it. */
const weeks = (first: boolean): string => {
  const path = join(tmpdir(), first ? 'Ferry berth, week 12.csv' : 'Ferry berth, week 13.csv');
  const head = 'ID,Activity,Start,Finish,Predecessors,% complete,Zone';
  const rows = first
    ? 'F10,Dredge,2026-03-02,2026-03-13,,100,Berth\nF20,Dolphins,2026-03-16,2026-04-10,F10,30,Berth\nF30,Fenders,2026-04-13,2026-04-24,F20,0,Berth\nF40,Ramp,2026-04-13,2026-05-22,F20,0,Shore\nF50,Old shelter,2026-05-25,2026-05-29,F40,0,Shore\nF60,First ferry,2026-06-01,2026-06-01,F30;F40,0,Berth'
    : 'F10,Dredge,2026-03-02,2026-03-13,,100,Berth\nF20,Dolphins and piles,2026-03-16,2026-04-16,F10,55,Berth\nF30,Fenders,2026-04-17,2026-04-30,F20,0,Berth\nF45,Ramp,2026-04-13,2026-05-22,F20,0,Shore\nF60,First ferry,2026-06-03,2026-06-03,F30;F45,0,Berth\nF70,Signs,2026-05-25,2026-05-28,F45,0,Shore';
  writeFileSync(path, `${head}\n${rows}\n`);
  return path;
};
const give = async (page: Page, path: string) => {
  const input = (await page.waitForSelector('input[type="file"]')) as unknown as {
    uploadFile(path: string): Promise<void>;
  };
  await input.uploadFile(path);
  await page.waitForFunction(() => location.pathname.startsWith('/intake/'));
  await page.waitForSelector('footer[role="status"]');
};
const press = async (page: Page, name: string) => (await byName(page, 'button', name)).asLocator().click();
await take('changes', async (page) => {
  await give(page, weeks(true));
  await press(page, 'Make the plan');
  await page.waitForFunction(() => location.pathname.endsWith('/show'));
  await page.goto(page.url().replace(/show$/, 'gather'), { waitUntil: 'networkidle2' });
  await give(page, weeks(false));
  await press(page, 'See what has changed');
  await page.waitForSelector('[aria-label="Changes"] h2');
});
/** Goes to another part of Gather of a plan. */
const gather = async (page: Page, plan: string, part: string) => {
  const href = (await row(page, plan, 'Structure')).replace(/structure$/, part);
  await page.goto(href, { waitUntil: 'networkidle2' });
};
const list = async (page: Page, text: string) => {
  const found = await page.waitForFunction(
    (t) =>
      [...document.querySelectorAll('nav button, [role="option"]')].find((b) => b.textContent!.trim().startsWith(t)),
    {},
    text,
  );
  await (found as unknown as { click(): Promise<void> }).click();
};
await take('books', async (page) => {
  await gather(page, 'Saltmere', 'gather/books');
  await list(page, 'Discipline');
  await page.locator('#filled-by button').click();
  await list(page, 'rules');
  await page.type('[aria-label="Code of rule 1"]', 'Marine');
  await page.type('[aria-label="What it is compared with"]', 'pil');
  await page.keyboard.press('Escape');
});
await take('worklist', async (page) => {
  await gather(page, 'Saltmere', 'gather/work');
  await list(page, 'Nobody responsible');
});
await take('structure', async (page) => {
  await page.goto(`${await row(page, 'Saltmere', 'Structure')}?ref=G60`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('[data-ref="G60"] [data-cell]');
  await page.locator('[data-ref="G60"] [data-cell]').click();
  await page.keyboard.press('Enter');
  await page.waitForSelector('[data-testid="neighbours"]');
});
await take('measure', async (page) => {
  const href = await row(page, 'Saltmere', 'Structure');
  await page.goto(href.replace(/structure$/, 'measure'), { waitUntil: 'networkidle2' });
  await page.waitForSelector('[data-testid="statement"]');
});
const measuring = (part: string, ready: string) => async (page: Page) => {
  const href = await row(page, 'Saltmere', 'Structure');
  await page.goto(href.replace(/structure$/, `measure/${part}`), { waitUntil: 'networkidle2' });
  await page.waitForSelector(ready);
};
await take('week', measuring('week', 'nav[aria-label="What is asked"] li'));
await take('model', async (page) => {
  const href = await row(page, 'Saltmere', 'Structure');
  await page.goto(`${href}/model`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('[data-testid="model-view"] canvas');
  const box = (await (await page.$('[data-testid="model-view"]'))!.boundingBox())!;
  await new Promise((r) => setTimeout(r, 2500));
  await page.mouse.click(box.x + box.width * 0.7, box.y + box.height * 0.42);
});
await take('resources', async (page) => {
  const href = await row(page, 'Saltmere', 'Structure');
  await page.goto(`${href}/resources`, { waitUntil: 'networkidle2' });
  await page.waitForSelector('[role="img"] svg');
});
await take('contact-sheet', async (page) => {
  await page.goto(await row(page, 'Saltmere', 'Show'), { waitUntil: 'networkidle2' });
  // The model is read before its pages are drawn.
  await new Promise((r) => setTimeout(r, 9000));
});
await take('folio', async (page) => {
  const href = await row(page, 'Saltmere', 'Structure');
  await page.goto(href.replace(/structure$/, 'share'), { waitUntil: 'networkidle2' });
  await page.locator('section[aria-label="Ready-made folios"] button').click();
  await page.waitForSelector('[data-page] svg');
  await page.locator('label::-p-text(and an overview)').click();
  await page.waitForSelector('[data-front="Overview"]', { timeout: 60_000 });
  await new Promise((r) => setTimeout(r, 15_000));
  await press(page, 'Arrange the overview');
  await page.waitForSelector('[data-block]');
  await new Promise((r) => setTimeout(r, 1500));
});
await take('exhibit', (page) => show(page, 'Saltmere', 'The whole works'));
await take('new-exhibit', async (page) => {
  await page.goto(await row(page, 'Saltmere', 'Show'), { waitUntil: 'networkidle2' });
  await page.waitForSelector('main li svg[viewBox]');
  await press(page, 'New exhibit');
  await new Promise((r) => setTimeout(r, 3000));
});
/** Makes an exhibit from one of the pages that are offered. */
const offered = (plan: string, name: string) => async (page: Page) => {
  await page.goto(await row(page, plan, 'Show'), { waitUntil: 'networkidle2' });
  await page.waitForSelector('main li svg[viewBox]');
  await press(page, 'New exhibit');
  const tile = (await page.waitForSelector(`[data-preview="${name}"]`))!;
  await tile.evaluate((e) => e.scrollIntoView({ block: 'center' }));
  await page.waitForSelector(`[data-preview="${name}"] svg`);
  await (await page.$(`[data-preview="${name}"]`))!.click();
  await page.waitForFunction(() => /\/show\/[0-9a-f-]{36}$/.test(location.pathname));
  await pageShown(page);
};
await take('network', offered('Saltmere', 'The network by contractor'));
await take('handoffs', offered('Museum', 'Who hands over to whom'));
await take('line', offered('Saltmere', 'Beach, the whole line'));
await take('storyboard', (page) => show(page, 'Saltmere', 'The station from start to finish'));
// Last, since it leaves the page as it was set by hand.
await take('margin', async (page) => {
  await show(page, 'Museum', 'By project');
  await press(page, 'Put onto the page');
  await page.locator('[role="menuitem"]::-p-text(Words)').click();
  const bar = (await (await page.$('g[data-ref="C40"] [data-role="bar"], [data-role="bar"]'))!.boundingBox())!;
  await page.mouse.click(bar.x + bar.width - 2, bar.y + bar.height / 2);
  await page.waitForSelector('textarea[aria-label="Words of the note"]');
  await page.keyboard.type('Waits for the lifts');
  // The page has made room for the margin.
  const now = (await (await page.$('[data-role="bar"]'))!.boundingBox())!;
  await page.mouse.click(now.x + 4, now.y + now.height / 2);
});
await close();
