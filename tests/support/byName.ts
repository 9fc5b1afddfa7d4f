import type { ElementHandle, Page } from 'puppeteer-core';

/**
 * The first element whose role and name are these, as an assistive program would find it. Asked again and again:
 * `waitForSelector` looks again only after a later change of the page, and misses what comes while it looks first.
 */
export async function byName(page: Page, role: string, name: string): Promise<ElementHandle<Element>> {
  for (const end = Date.now() + 30_000; Date.now() < end; ) {
    const found = await page.$(`::-p-aria([name="${name}"][role="${role}"])`);
    if (found) return found as ElementHandle<Element>;
    await new Promise((r) => setTimeout(r, 60));
  }
  throw new Error(`there is no ${role} named ${name}`);
}
