import { join } from 'node:path';
import { schedulePlan, unpackPlan } from '@clembo/core';
import { amountWords, localeOfPage } from '@clembo/formats/amounts';
import { fontFolder, writePdf, writePng, writeSvg } from '@clembo/render';
import { Brief, composeExhibit, composeSheets, createMeasure, type FontMetrics, type Promised } from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json';
import type { PageInput, WrittenPage } from './answers';

const fonts = metrics as FontMetrics;
const measure = createMeasure(fonts);
let folder: ReturnType<typeof fontFolder> | null = null;

const pageFonts = () => {
  folder ??= fontFolder(join(process.env.CLEMBO_ROOT ?? process.cwd(), 'packages/render/fonts'), fonts);
  return folder;
};

/** Composes an exhibit by the code that composes it on screen, and writes it. */
export async function writePage(input: PageInput, report: (step: string, share: number) => void): Promise<WrittenPage> {
  const { edition, format, date } = input;
  const plan = unpackPlan(input.plan);
  const kept = input.promised && { ...input.promised, plan: unpackPlan(input.promised.plan) };
  report('Composing the page', 0.3);
  const promised: Promised | null = kept && { ...kept, schedule: schedulePlan(kept.plan) };
  const brief = Brief.parse(input.brief);
  const editions = input.editions.map((e): Promised => {
    const own = unpackPlan(e.plan);
    return { plan: own, schedule: schedulePlan(own), name: e.name };
  });
  const wanted = {
    plan,
    schedule: schedulePlan(plan),
    brief,
    measure,
    amounts: amountWords(plan, localeOfPage('language' in brief ? brief.language : undefined, input.locale)),
    edition,
    promised,
    editions,
  };
  report('Writing the page', 0.7);
  const { path, embedded } = pageFonts();
  const bytes =
    format === 'pdf'
      ? await writePdf(composeSheets(wanted), { fonts, fontPath: path, date: new Date(date) })
      : format === 'png'
        ? writePng(composeExhibit({ ...wanted, sheet: input.sheet }), { fonts, fontPath: path })
        : new TextEncoder().encode(
            writeSvg(composeExhibit({ ...wanted, sheet: input.sheet }), { fonts, embed: embedded() }),
          );
  // A copy of its own: what is sent on must not carry the pool that a buffer was cut from.
  return { bytes: new Uint8Array(bytes) };
}
