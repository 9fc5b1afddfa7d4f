import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { schedulePlan } from '../../packages/core/src/index';
import { fontFolder, writeSvg } from '../../packages/render/src/index';
import { composeSheets, createMeasure, type FontMetrics, type Scene } from '../../packages/scene/src/index';
import { amountWords } from '../../packages/formats/src/amounts/amountWords';
import metrics from '../../packages/scene/fonts/metrics.json' with { type: 'json' };
import { faultsOf } from './faults';
import { type RandomPage, randomPage } from './randomPages';
import { openReader, type ReadPage, readPage } from './readPage';

export const fonts = metrics as FontMetrics;
const measure = createMeasure(fonts);

/** Composes the pages of an exhibit as the application does. */
function composePages({ plan, promised, brief }: RandomPage): Scene[] {
  return composeSheets({
    plan,
    schedule: schedulePlan(plan),
    brief,
    measure,
    amounts: amountWords(plan),
    edition: 'Edition of the day',
    editions: [],
    promised: promised && { plan: promised, schedule: schedulePlan(promised), name: 'What was promised' },
  });
}

export interface Checked {
  pages: number;
  wrong: { seed: number; faults: string[] }[];
  unreadable: number;
  empty: number;
  keyed: number;
}

/** Composes random pages, writes them, and reads what was written in a browser. */
export async function checkPages(page: Page, root: string, first: number, count: number): Promise<Checked> {
  await openReader(page, fonts, fontFolder(join(root, 'packages/render/fonts'), fonts).embedded());
  const checked: Checked = { pages: 0, wrong: [], unreadable: 0, empty: 0, keyed: 0 };
  for (let seed = first; seed < first + count; seed++) {
    const given = randomPage(seed);
    const scenes = composePages(given);
    const [scene] = scenes as [Scene];
    const reads: ReadPage[] = [];
    for (const s of scenes) reads.push(await readPage(page, writeSvg(s, { fonts, references: true, sized: false })));
    const [read] = reads as [ReadPage];
    const faults = reads.flatMap((r) => faultsOf(r, given, reads));
    checked.pages++;
    if (faults.length > 0) checked.wrong.push({ seed, faults });
    const notice = read.texts.find((t) => t.role === 'notice');
    if (notice && !scene.fit.readable) checked.unreadable++;
    else if (notice) checked.empty++;
    if (read.texts.some((t) => t.role === 'key')) checked.keyed++;
  }
  return checked;
}
