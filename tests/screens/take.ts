// `npm run screenshots`: one current picture of each main view, made from the demo data of a running application.
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openBrowser, openPage, pageShown } from '../support/browser';

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
  await page.goto(await row(page, plan, 'Show'), { waitUntil: 'networkidle0' });
  const href = await page.evaluate(
    (e) =>
      [...document.querySelectorAll('main li')].find((li) => li.textContent?.includes(e))!.querySelector('a')!.href,
    exhibit,
  );
  await page.goto(href, { waitUntil: 'networkidle0' });
  await pageShown(page);
};

await take('gather', async () => {});
await take('intake', async (page) => {
  const csv = join(tmpdir(), 'Quay works.csv');
  writeFileSync(
    csv,
    'Activity ID;Activity;Begin;End;Days;Trade;Preds\nA10;Site set-up;05/01/2026;16/01/2026;10;Civil;\nA20;Piling, north;19/01/2026;13/02/2026;20;Marine;A10\nA30;Piling, south;02/02/2026;soon;20;Marine;A20 SS+10d\nA40;Capping beam;16/02/2026;13/03/2026;20;Civil;A20, A99\nA50;Handover;13/03/2026;13/03/2026;0;Civil;A40\n',
  );
  const input = (await page.$('input[type="file"]')) as unknown as { uploadFile(path: string): Promise<void> };
  await input.uploadFile(csv);
  await page.waitForFunction(() => location.pathname.startsWith('/intake/'));
});
await take('structure', async (page) => {
  await page.goto(await row(page, 'Saltmere', 'Structure'), { waitUntil: 'networkidle0' });
  await page.waitForSelector('[role="row"][aria-rowindex="3"]');
});
await take('checks', async (page) => {
  await page.goto(await row(page, 'Saltmere', 'Structure'), { waitUntil: 'networkidle0' });
  await page.waitForSelector('[role="row"][aria-rowindex="3"]');
  await page.click('main [aria-pressed]');
  await page.waitForSelector('aside[aria-label="Checks"]');
});
await take('contact-sheet', async (page) => {
  await page.goto(await row(page, 'Saltmere', 'Show'), { waitUntil: 'networkidle0' });
});
await take('exhibit', (page) => show(page, 'Saltmere', 'The whole works'));
await take('margin', async (page) => {
  await show(page, 'Museum', 'By project');
  await page.click('[data-role="bar"]');
});
await close();
