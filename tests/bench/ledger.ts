// `npm run bench:ledger`: how quick the ledger of 50,000 activities is in a real browser, beside one of 100, in one run
// against a running application (CLEMBO_ADDRESS).
import { address } from '../support/address';
import { takeIn } from '../support/api';
import { openBrowser, openPage } from '../support/browser';
import type { Page } from 'puppeteer-core';

const LARGE = 50_000;
const SMALL = 100;
/** Rows whose edit moves a fifth of all activities: every fifth follows the one before. */
const ROWS = [2, 3, 4, 5, 6];

const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

async function planOf(count: number): Promise<string> {
  const day = (k: number) => new Date(Date.UTC(2025, 0, 6) + k * 86_400_000).toISOString().slice(0, 10);
  const rows = Array.from({ length: count }, (_, k) =>
    [`A${k}`, `Step ${k}`, day(k % 300), day((k % 300) + 6), '5', k > 4 ? `A${k - 5}` : ''].join(','),
  );
  const id = await takeIn(`bench ${count}.csv`, `ID,Name,Start,Finish,Days,Predecessors\n${rows.join('\n')}\n`);
  const { version } = (await (await fetch(`${address}/api/plans/${id}/steps?after=0`)).json()) as { version: number };
  await fetch(`${address}/api/plans/${id}`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ version, command: { do: 'setPlan', settings: { source: 'computed' } } }),
  });
  return id;
}

async function openLedger(page: Page, id: string): Promise<number> {
  const begun = Date.now();
  await page.goto(`${address}/plans/${id}/structure`);
  await page.waitForSelector('[role="row"][data-ref]', { timeout: 120_000 });
  const took = Date.now() - begun;
  // The checks come a moment later, in the same worker.
  await new Promise((r) => setTimeout(r, 6000));
  return took;
}

/** Milliseconds from Enter in a length to the new finish of what follows; the successors are a fifth of the plan. */
async function edit(page: Page, row: number): Promise<number> {
  const next = `[data-cell="${row + 5} finish"]`;
  const before = await page.$eval(next, (c) => c.textContent);
  await page.click(`[data-cell="${row} days"]`);
  await page.keyboard.type(String(20 + row + Math.floor(Math.random() * 500)));
  const took = await page.evaluate(
    async (cell, other, was) => {
      const input = document.querySelector(`${cell} input`)!;
      const begun = performance.now();
      const shown = new Promise<number>((done) => {
        const look = () => {
          if (document.querySelector(other)!.textContent !== was) done(performance.now() - begun);
          else requestAnimationFrame(look);
        };
        requestAnimationFrame(look);
      });
      input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
      return shown;
    },
    `[data-cell="${row} days"]`,
    next,
    before,
  );
  await page.waitForFunction(() => !document.querySelector('[data-testid="keeping"]'), { timeout: 60_000 });
  await new Promise((r) => setTimeout(r, 2500));
  return took;
}

/** The longest frames while the list is scrolled by so many pixels a frame. */
const scroll = (page: Page, step: number): Promise<number[]> =>
  page.evaluate(async (by) => {
    const list = document.querySelector('[role="treegrid"]')!;
    const frames: number[] = [];
    let last = performance.now();
    for (let k = 0; k < 120; k++) {
      list.scrollTop += by;
      await new Promise((r) => requestAnimationFrame(r));
      frames.push(performance.now() - last);
      last = performance.now();
    }
    return frames;
  }, step);

const { browser, close } = await openBrowser();
const page = await openPage(browser, address);
// Loaders name functions by a helper that pages do not have.
await page.evaluateOnNewDocument('globalThis.__name = (f) => f');
const [small, large] = [await planOf(SMALL), await planOf(LARGE)];
const edits: Record<'small' | 'large', number[]> = { small: [], large: [] };
await openLedger(page, small);
for (const row of ROWS) edits.small.push(await edit(page, row));
const opened = await openLedger(page, large);
console.log(`opened, ${LARGE} activities: ${opened} ms`);
for (const row of ROWS) edits.large.push(await edit(page, row));
const [a, b] = [median(edits.small), median(edits.large)];
console.log(
  `an edit that moves ${SMALL / 5} and ${LARGE / 5} successors: ${a.toFixed(0)} and ${b.toFixed(0)} ms, ratio ${(b / a).toFixed(1)}`,
);
for (const step of [120, 900, 9000]) {
  const frames = await scroll(page, step);
  console.log(
    `scrolled by ${step} px a frame: longest ${Math.max(...frames).toFixed(0)} ms, median ${median(frames).toFixed(0)} ms`,
  );
}
for (const id of [small, large]) await fetch(`${address}/api/plans/${id}`, { method: 'DELETE' });
await close();
