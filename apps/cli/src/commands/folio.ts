import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, extname, join } from 'node:path';
import { exhibitOfFile, PLAN_OF_FILE, schedulePlan } from '@clembo/core';
import { archived, fileStem, fontFolder, writePages } from '@clembo/render';
import { asShown, bindFolio, createMeasure, Folio, type FontMetrics, planFacts } from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json' with { type: 'json' };
import { UsageError } from '../fail';
import type { Loaded } from '../load';
import { withModels } from '../models';
import { briefsFor, composer, type ComposeOptions, dateOf, FONT_FOLDER } from './compose';

const FORMATS = ['pdf', 'pptx', 'html', 'png'] as const;

/** A folio that the file itself holds, by its name. */
function keptFolio({ folios }: Loaded, name: string): Folio {
  const own = folios.find((f) => f.name.toLowerCase() === name.trim().toLowerCase());
  if (own) return Folio.parse(own.content);
  const names = folios.map((f) => `“${f.name}”`).join(', ');
  throw new UsageError(
    names === ''
      ? 'The file holds no folios: --folio is for .clembo files with folios of their own.'
      : `The file holds no folio “${name}”; it holds ${names}.`,
  );
}

/**
 * The exhibits of a file (or a folder of briefs) as pages that belong together: a cover with contents that lead to their
 * pages, numbers, an outline; or a folio as the file holds it. In each of some formats under one name.
 */
export async function folioCommand(
  given: Loaded,
  baseline: Loaded | null,
  options: ComposeOptions & { name?: string | undefined; folio?: string | undefined },
): Promise<string> {
  const { out, formats } = options;
  if (out === undefined)
    throw new UsageError('Say where the folio goes with --out FOLIO.pdf, or --out FOLDER --formats pdf,pptx.');
  const own = extname(out).slice(1).toLowerCase();
  const wanted = formats === undefined ? [own] : formats.split(',').map((f) => f.trim().toLowerCase());
  const unknown = wanted.filter((f) => !(FORMATS as readonly string[]).includes(f));
  if (unknown.length > 0)
    throw new UsageError(`A folio is written as ${FORMATS.join(', ')}, not as ${unknown.join(', ') || 'that'}.`);
  const kept = options.folio === undefined ? null : keptFolio(given, options.folio);
  const { plan, ...model } = await withModels(given, options);
  const loaded = { ...given, plan };
  const schedule = schedulePlan(plan);
  const chosen = { ...options, exhibits: options.brief === undefined && options.briefs === undefined };
  const briefs = await briefsFor(loaded, baseline, schedule, chosen);
  const compose = composer(loaded, baseline, schedule, model, wanted.includes('html'), options.locale);
  const folio =
    kept ??
    Folio.parse({
      name: options.name ?? plan.name,
      pages: briefs.map((_, k) => ({ id: `p${k + 1}`, exhibit: exhibitOfFile(k) })),
    });
  const byId = new Map(briefs.map((b, k) => [exhibitOfFile(k), b]));
  const pages = folio.pages.flatMap((page) => {
    const own = byId.get(page.exhibit);
    if (!own) return [];
    const scenes = compose({ ...own, brief: asShown(own.brief, page) });
    return [{ id: page.id, name: own.name, plan: plan.name, planId: PLAN_OF_FILE, notes: page.notes, scenes }];
  });
  const fonts = metrics as FontMetrics;
  const old = baseline?.plan ?? loaded.promised?.plan;
  const promised = old ? { plan: old, schedule: schedulePlan(old) } : null;
  const facts = folio.overview ? [planFacts(plan, schedule, promised, PLAN_OF_FILE)] : [];
  const { scenes, names, notes } = bindFolio(folio, pages, createMeasure(fonts), facts);
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
      formats === undefined
        ? out
        : join(out, `${fileStem(options.name ?? folio.name)}.${format === 'png' ? 'zip' : format}`);
    await mkdir(dirname(file), { recursive: true });
    await writeFile(file, bytes);
    lines.push(`${file}: ${scenes.length} pages`);
  }
  return `${lines.join('\n')}\n`;
}
