import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type Page } from 'puppeteer-core';

/** Debian's Chromium with a profile of its own, gone when it is closed; names that are given lead to this machine. */
export async function openBrowser(...names: string[]): Promise<{ browser: Browser; close: () => Promise<void> }> {
  const profile = mkdtempSync(join(tmpdir(), 'clembo-browser-'));
  const browser = await puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    userDataDir: profile,
    args: [
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--hide-scrollbars',
      '--font-render-hinting=none',
      ...(names.length > 0 ? [`--host-resolver-rules=${names.map((n) => `MAP ${n} 127.0.0.1`).join(',')}`] : []),
    ],
  });
  return {
    browser,
    close: async () => {
      await browser.close();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

export async function openPage(browser: Browser, url: string): Promise<Page> {
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(url, { waitUntil: 'networkidle2' });
  return page;
}

/** Waits until the composed page is on screen. */
export const pageShown = (page: Page) => page.waitForSelector('[data-testid="page"] svg', { timeout: 20_000 });
