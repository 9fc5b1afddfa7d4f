import { join } from 'node:path';
import { bodyOf, type PackedPlan, schedulePlan, unpackGeometry, unpackPlan } from '@clembo/core';
import { amountWords, localeOfPage } from '@clembo/formats/amounts';
import { archived, fontFolder, holdsSeveral, writePages as write } from '@clembo/render';
import {
  asShown,
  bindFolio,
  Brief,
  composeExhibit,
  composeSheets,
  createMeasure,
  Folio,
  type FontMetrics,
  frontCount,
  planFacts,
  type Promised,
} from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json';
import type { PagesInput, SentPlanOfPages, WrittenPage } from './answers';
import { saidOn } from './saidOn';

const fonts = metrics as FontMetrics;
const measure = createMeasure(fonts);
let folder: ReturnType<typeof fontFolder> | null = null;

const pageFonts = () => {
  folder ??= fontFolder(join(process.env.CLEMBO_ROOT ?? process.cwd(), 'packages/render/fonts'), fonts);
  return folder;
};

/** A plan with its schedule, and what is built of it. */
function opened({ id, plan: packed, edition, models }: SentPlanOfPages) {
  const plan = unpackPlan(packed);
  const model = models && {
    elements: models.flatMap((m) => m.elements),
    body: bodyOf(models.map((m) => ({ count: m.elements.length, geometry: unpackGeometry(m.geometry) }))),
  };
  return { id, plan, schedule: schedulePlan(plan), edition, model };
}

/** Composes exhibits by the code that composes them on screen, and writes them as one file. */
export async function writePages(
  input: PagesInput,
  report: (step: string, share: number) => void,
): Promise<WrittenPage> {
  const { format, locale, sheet } = input;
  const plans = input.plans.map(opened);
  const folio = input.folio && Folio.parse(input.folio.content);
  const standing = (kept: { plan: PackedPlan; name: string }): Promised => {
    const own = unpackPlan(kept.plan);
    return { plan: own, schedule: schedulePlan(own), name: kept.name };
  };
  const composed = input.pages.map(({ name, of, id, ...page }, k) => {
    report(input.pages.length > 1 ? `Composing “${name}”` : 'Composing the page', 0.1 + (0.6 * k) / input.pages.length);
    const own = folio?.pages.find((p) => p.id === id);
    const kept = Brief.parse(page.brief);
    const brief = own ? asShown(kept, own) : kept;
    const { id: planId, plan, schedule, edition, model } = plans[of]!;
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
    return {
      id: id ?? '',
      name,
      plan: plan.name,
      planId,
      notes: own?.notes ?? '',
      scenes,
      said: saidOn(scenes, page.said ?? []),
    };
  });
  const facts = plans.map(({ id, plan, schedule }, k) => {
    const kept = input.plans[k]!.promised;
    return planFacts(plan, schedule, kept && standing(kept), id);
  });
  const bound = folio && bindFolio(folio, composed, measure, facts);
  const pages = bound
    ? bound.scenes.map((scene, k) => ({ scene, name: bound.names[k]! }))
    : composed.flatMap(({ name, scenes }) =>
        scenes.map((scene) => ({ scene, name: scenes.length > 1 ? `${name}, ${scene.sheet?.number}` : name })),
      );
  report('Writing the file', 0.7);
  // A cover and an overview stand before the pages, and nobody speaks of those.
  const before = folio ? frontCount(folio) : 0;
  const said = [...Array.from({ length: before }, () => []), ...composed.flatMap((p) => p.said)];
  const shared = input.shared && { ...input.shared, said };
  const options = { fonts, folder: pageFonts(), date: new Date(input.date), shared };
  const bytes =
    holdsSeveral(format) || pages.length === 1
      ? await write(
          format,
          pages.map((p) => p.scene),
          {
            ...options,
            names: bound ? bound.names : pages.map((p) => p.name),
            ...(bound ? { notes: bound.notes, present: true } : {}),
          },
        )
      : await archived(format, pages, options);
  // A copy of its own: what is sent on must not carry the pool that a buffer was cut from.
  return { bytes: new Uint8Array(bytes) };
}
