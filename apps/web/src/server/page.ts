import 'server-only';
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { schedulePlan } from '@clembo/core';
import { fontFolder, writePdf, writePng, writeSvg } from '@clembo/render';
import {
  Brief,
  composeExhibit,
  createMeasure,
  type FontMetrics,
  PROMISED,
  type Promised,
  type Scene,
} from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json';
import { type Access, readExhibit, readPlan, type StoredPlan } from '@clembo/store';
import { notFound } from './answer';
import { store } from './store';

export const PAGE_FORMATS = ['pdf', 'svg', 'png'] as const;
export type PageFormat = (typeof PAGE_FORMATS)[number];

const fonts = metrics as FontMetrics;
const measure = createMeasure(fonts);
let folder: ReturnType<typeof fontFolder> | null = null;

/** The font files, wherever the process was started. */
function pageFonts() {
  if (folder) return folder;
  for (let at = process.cwd(); ; at = dirname(at)) {
    const path = join(at, 'packages/render/fonts');
    if (existsSync(path)) {
      folder = fontFolder(path, fonts);
      return folder;
    }
    if (at === dirname(at)) throw new Error('the fonts of pages are missing; run `node tools/make-fonts.mjs`');
  }
}

/** Composes a kept exhibit anew, from the plan as it is now, by the code that composes it on screen. */
async function composeStored(access: Access, id: string): Promise<{ scene: Scene; name: string; date: Date }> {
  const exhibit = await readExhibit(store(), access, id);
  if (!exhibit) throw notFound('exhibit');
  const stored = await readPlan(store(), access, exhibit.planId);
  if (!stored) throw notFound('plan');
  const { plan, edition } = stored;
  const brief = Brief.parse(exhibit.brief);
  const promised = await keptEdition(access, stored, brief.compare);
  const scene = composeExhibit({ plan, schedule: schedulePlan(plan), brief, measure, edition, promised });
  return { scene, name: `${plan.name} - ${exhibit.name}`, date: editionDate(stored) };
}

/** A PDF carries the date of its edition: the same page gives the same bytes, whenever it is exported. */
const editionDate = ({ editions, editionId }: StoredPlan): Date =>
  editions.find((e) => e.id === editionId)?.createdAt ?? new Date(0);

/** The edition that a brief compares with, or null where there is none by that name. */
async function keptEdition(access: Access, stored: StoredPlan, compare: string | null): Promise<Promised | null> {
  const kept = stored.editions.filter((e) => !e.working);
  const edition = compare === PROMISED ? kept.at(-1) : kept.find((e) => e.id === compare);
  const body = edition && (await readPlan(store(), access, stored.id, edition.id));
  return body ? { plan: body.plan, schedule: schedulePlan(body.plan), name: body.edition } : null;
}

const TYPES: Record<PageFormat, string> = { pdf: 'application/pdf', svg: 'image/svg+xml', png: 'image/png' };

export async function writeExhibit(
  access: Access,
  id: string,
  format: PageFormat,
): Promise<{ bytes: Uint8Array; type: string; file: string }> {
  const { scene, name, date } = await composeStored(access, id);
  const { path, embedded } = pageFonts();
  const bytes =
    format === 'pdf'
      ? await writePdf([scene], { fonts, fontPath: path, date })
      : format === 'png'
        ? writePng(scene, { fonts, fontPath: path })
        : new TextEncoder().encode(writeSvg(scene, { fonts, embed: embedded() }));
  return { bytes, type: TYPES[format], file: `${name.replace(/[^\p{L}\p{N} ._-]+/gu, '')}.${format}` };
}
