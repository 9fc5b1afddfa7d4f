import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { schedulePlan } from '../../packages/core/src/index';
import { amountWords } from '../../packages/formats/src/amounts/amountWords';
import { fontFolder, writeSvg } from '../../packages/render/src/index';
import { composeExhibit, createMeasure, type Promised } from '../../packages/scene/src/index';
import { type Checked, fonts } from './checkPages';
import { openReader, readPage } from './readPage';
import { varianceFaults } from './varianceFaults';
import { variancePage } from './variancePages';

const measure = createMeasure(fonts);

/** Composes random pages that say how plans stand, writes them, and reads what was written in a browser. */
export async function checkVariance(page: Page, root: string, first: number, count: number): Promise<Checked> {
  await openReader(page, fonts, fontFolder(join(root, 'packages/render/fonts'), fonts).embedded());
  const checked: Checked = { pages: 0, wrong: [], unreadable: 0, empty: 0, keyed: 0 };
  for (let seed = first; seed < first + count; seed++) {
    const given = variancePage(seed);
    const keep = (plan: typeof given.plan, name: string): Promised => ({ plan, schedule: schedulePlan(plan), name });
    const promised = keep(given.promised, 'What was promised');
    const scene = composeExhibit({
      plan: given.plan,
      schedule: schedulePlan(given.plan),
      brief: given.brief,
      measure,
      amounts: amountWords(given.plan),
      edition: 'Edition of the day',
      promised,
      editions: [promised, ...given.between.map((p, k) => keep(p, `Edition ${k + 2}`))],
    });
    const read = await readPage(page, writeSvg(scene, { fonts, references: true, sized: false }));
    const faults = varianceFaults(read, given).map((f) => `${f} [${given.brief.kind}]`);
    checked.pages++;
    if (faults.length > 0) checked.wrong.push({ seed, faults });
    if (read.texts.some((t) => t.role === 'notice')) {
      if (scene.fit.readable) checked.empty++;
      else checked.unreadable++;
    }
  }
  return checked;
}
