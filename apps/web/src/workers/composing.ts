import { amountWords, localeOfPage } from '@clembo/formats/amounts';
import { writeSvg } from '@clembo/render/svg';
import {
  type BlindSpots,
  blindWords,
  type Brief,
  type CardHandles,
  composeExhibit,
  type ContentTable,
  createMeasure,
  EXHIBITS,
  type Fit,
  type FontMetrics,
  type Handles,
  type PlaneShape,
  type Scene,
} from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json';
import type { Held } from './answers/held';
import type { OpenPlan } from './openPlan';

/** A page as screens show it, with what they say beside it. */
export interface ComposedPage {
  svg: string;
  title: string;
  fit: Fit;
  /** What the page hides, with that in words; null where it hides nothing. */
  blind: (BlindSpots & { words: string }) | null;
  content: ContentTable;
  undated: { ref: string; name: string }[];
  width: number;
  height: number;
  /** Which page it is of how many. */
  sheet: { number: number; of: number };
  /** Where its things, lanes and dates are, on pages that can be set by hand. */
  handles: Handles | null;
  /** Its cards and links, on pages made of those. */
  cards: CardHandles | null;
  /** Where places and days lie on it, on pages of linear work. */
  plane: PlaneShape | null;
}

export const measure = createMeasure(metrics as FontMetrics);

export const asSvg = (scene: Scene): string =>
  writeSvg(scene, { fonts: metrics as FontMetrics, references: true, sized: false });

/** A page of a plan as it is, or as it would be (`held`). */
export async function composed(open: OpenPlan, held: Held, brief: Brief, sheet = 1): Promise<ComposedPage> {
  const promised = await open.keptEdition(brief.compare);
  const editions = EXHIBITS[brief.kind].allEditions ? await open.latestEditions() : [];
  const model = EXHIBITS[brief.kind].needsModel ? await open.modelBook() : null;
  const scene = composeExhibit({
    ...held,
    model,
    brief,
    sheet,
    measure,
    amounts: amountWords(held.plan, localeOfPage('language' in brief ? brief.language : undefined, open.locale)),
    edition: open.edition,
    promised,
    editions,
  });
  const { title, fit, content, undated, width, height } = scene;
  const words = scene.blind === null ? '' : blindWords(scene.blind);
  return {
    svg: asSvg(scene),
    title,
    fit,
    blind: scene.blind === null || words === '' ? null : { ...scene.blind, words },
    content,
    undated,
    width,
    height,
    sheet: scene.sheet ?? { number: 1, of: 1 },
    handles: scene.handles ?? null,
    cards: scene.cards ?? null,
    plane: scene.plane ?? null,
  };
}
