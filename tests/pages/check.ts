// `npx tsx tests/pages/check.ts [FIRST] [COUNT] [variance]`: composes random pages, reads the written SVG in Chromium, lists faults.
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { openBrowser } from '../support/browser';
import { checkPages } from './checkPages';
import { checkVariance } from './checkVariance';

const root = join(dirname(fileURLToPath(import.meta.url)), '../..');
const [first = 1, count = 100] = process.argv.slice(2, 4).map(Number);
const { browser, close } = await openBrowser();
try {
  const check = process.argv[4] === 'variance' ? checkVariance : checkPages;
  const result = await check(await browser.newPage(), root, first, count);
  const kinds = new Map<string, { n: number; examples: string[] }>();
  for (const { seed, faults } of result.wrong)
    for (const fault of faults) {
      const kind = fault.slice(0, fault.indexOf(':'));
      const known = kinds.get(kind) ?? { n: 0, examples: [] };
      known.n++;
      if (known.examples.length < 4 && !known.examples.some((e) => e.startsWith(`${seed} `)))
        known.examples.push(`${seed} ${fault.slice(fault.indexOf(':') + 2).slice(0, 150)}`);
      kinds.set(kind, known);
    }
  for (const [kind, { n, examples }] of [...kinds].sort((a, b) => b[1].n - a[1].n))
    process.stdout.write(`${n} × ${kind}\n${examples.map((e) => `    ${e}\n`).join('')}`);
  process.stdout.write(
    `${result.pages} pages, ${result.wrong.length} with faults; ${result.unreadable} say that they cannot be read, ${result.empty} that they are empty, ${result.keyed} have a key\n`,
  );
} finally {
  await close();
}
