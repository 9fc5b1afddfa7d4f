import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, extname, join } from 'node:path';
import { schedulePlan } from '@clembo/core';
import { archived, fileStem, fontFolder, writePages } from '@clembo/render';
import { bindFolio, createMeasure, Folio, type FontMetrics } from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json' with { type: 'json' };
import { UsageError } from '../fail';
import type { Loaded } from '../load';
import { withModels } from '../models';
import { briefsFor, composer, type ComposeOptions, dateOf, FONT_FOLDER } from './compose';

const FORMATS = ['pdf', 'pptx', 'html', 'png'] as const;

/**
 * The exhibits of a file (or a folder of briefs) as pages that belong together: a cover with contents that lead to their
 * pages, numbers, an outline; in each of some formats under one name.
 */
export async function folioCommand(
  given: Loaded,
  baseline: Loaded | null,
  options: ComposeOptions & { name?: string | undefined },
): Promise<string> {
  const { out, formats } = options;
  if (out === undefined)
    throw new UsageError('Say where the folio goes with --out FOLIO.pdf, or --out FOLDER --formats pdf,pptx.');
  const own = extname(out).slice(1).toLowerCase();
  const wanted = formats === undefined ? [own] : formats.split(',').map((f) => f.trim().toLowerCase());
  const unknown = wanted.filter((f) => !(FORMATS as readonly string[]).includes(f));
  if (unknown.length > 0)
    throw new UsageError(`A folio is written as ${FORMATS.join(', ')}, not as ${unknown.join(', ') || 'that'}.`);
  const { plan, ...model } = await withModels(given, options);
  const loaded = { ...given, plan };
  const schedule = schedulePlan(plan);
  const chosen = { ...options, exhibits: options.brief === undefined && options.briefs === undefined };
  const briefs = await briefsFor(loaded, baseline, schedule, chosen);
  const compose = composer(loaded, baseline, schedule, model, wanted.includes('html'), options.locale);
  const pages = briefs.map((b, k) => ({
    id: `p${k + 1}`,
    name: b.name,
    plan: plan.name,
    notes: '',
    scenes: compose(b),
  }));
  const fonts = metrics as FontMetrics;
  const folio = Folio.parse({
    name: options.name ?? plan.name,
    pages: pages.map((p) => ({ id: p.id, exhibit: '00000000-0000-4000-8000-000000000000' })),
  });
  const { scenes, names, notes } = bindFolio(folio, pages, createMeasure(fonts));
  const about = { fonts, folder: fontFolder(FONT_FOLDER, fonts), date: dateOf(options.date, plan) };
  const lines: string[] = [];
  for (const format of wanted as (typeof FORMATS)[number][]) {
    const bytes =
      format === 'png'
        ? await archived(
            format,
            scenes.map((scene, k) => ({ scene, name: names[k]! })),
            about,
          )
        : await writePages(format, scenes, { ...about, names, notes, present: true });
    const file =
      formats === undefined ? out : join(out, `${fileStem(folio.name)}.${format === 'png' ? 'zip' : format}`);
    await mkdir(dirname(file), { recursive: true });
    await writeFile(file, bytes);
    lines.push(`${file}: ${scenes.length} pages`);
  }
  return `${lines.join('\n')}\n`;
}
