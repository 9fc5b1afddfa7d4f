import { fileURLToPath } from 'node:url';
import { schedulePlan } from '@clembo/core';
import { fontFolder, writePages, writeSvg } from '@clembo/render';
import {
  bindFolio,
  composeExhibit,
  createMeasure,
  defaultBrief,
  Folio,
  type FontMetrics,
  planFacts,
  type Scene,
} from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json' with { type: 'json' };
import { demoPlans } from '../../demo/index';
import { amountWords } from '../../packages/formats/src/amounts/amountWords';
import { report, sideBySide } from './sideBySide';

const PAGES = 40;
const fonts = metrics as FontMetrics;

/** A folio of 40 pages of two plans, against the same pages alone: what the binding, the overview and the files cost. */
export async function benchFolio(): Promise<void> {
  const measure = createMeasure(fonts);
  const plans = demoPlans()
    .slice(0, 2)
    .map(({ current: plan, baseline }) => ({ plan, schedule: schedulePlan(plan), old: baseline }));
  const facts = plans.map(({ plan, schedule, old }, k) =>
    planFacts(plan, schedule, { plan: old, schedule: schedulePlan(old) }, String(k)),
  );
  const brief = { ...defaultBrief('timeline'), lanes: ['outline'] };
  const composed = (): Scene[] =>
    Array.from({ length: PAGES }, (_, k) => {
      const { plan, schedule } = plans[k % 2]!;
      return composeExhibit({
        plan,
        schedule,
        brief,
        measure,
        amounts: amountWords(plan, 'en'),
        edition: '',
        promised: null,
        editions: [],
      });
    });
  const scenes = composed();
  const folio = Folio.parse({
    name: 'Forty pages',
    overview: true,
    pages: scenes.map((_, k) => ({ id: `p${k}`, exhibit: '6f1d3f6e-2f52-4c53-9d0e-0f8a3a5f2c11' })),
  });
  const pages = scenes.map((scene, k) => {
    const { plan } = plans[k % 2]!;
    return { id: `p${k}`, name: `Page ${k}`, plan: plan.name, planId: String(k % 2), notes: '', scenes: [scene] };
  });
  const bound = bindFolio(folio, pages, measure, facts);
  const base = `composing ${PAGES} pages (1 ×)`;
  report(
    `A folio of ${PAGES} pages of two plans`,
    sideBySide(
      {
        [base]: composed,
        'binding them: cover, overview, links': () => bindFolio(folio, pages, measure, facts),
        'all as pictures for the screen': () => bound.scenes.map((s) => writeSvg(s, { fonts })),
      },
      5,
    ),
    base,
  );
  const folder = fontFolder(fileURLToPath(new URL('../../../packages/render/fonts', import.meta.url)), fonts);
  const options = { fonts, folder, date: new Date(0), names: bound.names, notes: bound.notes, present: true };
  const files: Record<string, number> = {};
  for (const format of ['pdf', 'pptx', 'html'] as const) {
    const times: number[] = [];
    for (let r = 0; r < 3; r++) {
      const begin = performance.now();
      await writePages(format, bound.scenes, options);
      times.push(performance.now() - begin);
    }
    files[format] = times.sort((a, b) => a - b)[1]!;
  }
  report('Writing it, 42 pages', files, 'html');
}
