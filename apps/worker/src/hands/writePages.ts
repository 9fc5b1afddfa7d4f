import { join } from 'node:path';
import { bodyOf, type PackedPlan, schedulePlan, unpackGeometry, unpackPlan } from '@clembo/core';
import { amountWords, localeOfPage } from '@clembo/formats/amounts';
import { archived, fontFolder, holdsSeveral, writePages as write } from '@clembo/render';
import { Brief, composeExhibit, composeSheets, createMeasure, type FontMetrics, type Promised } from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json';
import type { PagesInput, WrittenPage } from './answers';

const fonts = metrics as FontMetrics;
const measure = createMeasure(fonts);
let folder: ReturnType<typeof fontFolder> | null = null;

const pageFonts = () => {
  folder ??= fontFolder(join(process.env.CLEMBO_ROOT ?? process.cwd(), 'packages/render/fonts'), fonts);
  return folder;
};

/** Composes exhibits by the code that composes them on screen, and writes them as one file. */
export async function writePages(
  input: PagesInput,
  report: (step: string, share: number) => void,
): Promise<WrittenPage> {
  const { edition, format, locale, sheet } = input;
  const plan = unpackPlan(input.plan);
  const schedule = schedulePlan(plan);
  const standing = (kept: { plan: PackedPlan; name: string }): Promised => {
    const own = unpackPlan(kept.plan);
    return { plan: own, schedule: schedulePlan(own), name: kept.name };
  };
  const model = input.models && {
    elements: input.models.flatMap((m) => m.elements),
    body: bodyOf(input.models.map((m) => ({ count: m.elements.length, geometry: unpackGeometry(m.geometry) }))),
  };
  const pages = input.pages.flatMap(({ name, ...page }, k) => {
    report(input.pages.length > 1 ? `Composing “${name}”` : 'Composing the page', 0.1 + (0.6 * k) / input.pages.length);
    const brief = Brief.parse(page.brief);
    const wanted = {
      plan,
      schedule,
      model,
      brief,
      measure,
      amounts: amountWords(plan, localeOfPage('language' in brief ? brief.language : undefined, locale)),
      edition,
      promised: page.promised && standing(page.promised),
      editions: page.editions.map(standing),
      play: format === 'html',
    };
    const scenes = sheet === null ? composeSheets(wanted) : [composeExhibit({ ...wanted, sheet })];
    return scenes.map((scene) => ({ scene, name: scenes.length > 1 ? `${name}, ${scene.sheet?.number}` : name }));
  });
  report('Writing the file', 0.7);
  const options = { fonts, folder: pageFonts(), date: new Date(input.date) };
  const bytes =
    holdsSeveral(format) || pages.length === 1
      ? await write(
          format,
          pages.map((p) => p.scene),
          { ...options, names: pages.map((p) => p.name) },
        )
      : await archived(format, pages, options);
  // A copy of its own: what is sent on must not carry the pool that a buffer was cut from.
  return { bytes: new Uint8Array(bytes) };
}
