import { mkdir, stat, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, extname, join } from 'node:path';
import { NONE, parseIsoDate, type Plan, type Schedule, schedulePlan, startOfDay } from '@clembo/core';
import { amountWords, localeOfPage } from '@clembo/formats/amounts';
import { fileStem, fontFolder, holdsSeveral, PAGE_FORMATS, type PageFormat, writePages } from '@clembo/render';
import {
  type Brief,
  type BuiltModel,
  composeSheets,
  createMeasure,
  EXHIBITS,
  type Fit,
  fitWords,
  type FontMetrics,
  type Promised,
  type Scene,
  shownWords,
} from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json' with { type: 'json' };
import { briefOf, type NamedBrief, readBrief, readBriefs, spokenBrief } from '../briefs';
import { exhibitName } from '../exhibitName';
import { UsageError } from '../fail';
import type { Loaded } from '../load';
import { type ModelOptions, withModels } from '../models';

export const FONT_FOLDER = join(dirname(createRequire(import.meta.url).resolve('@clembo/render')), '../fonts');

export interface ComposeOptions extends ModelOptions {
  brief?: string | undefined;
  /** A folder of briefs, each of which becomes a page. */
  briefs?: string | undefined;
  /** The exhibits that the file itself holds. */
  exhibits?: boolean | undefined;
  /** The kind of exhibit, where no brief says it. */
  kind?: string | undefined;
  /** What is other than in the brief, as a sentence. */
  say?: string | undefined;
  /** Whose notation numbers are written in (BCP 47). */
  locale?: string | undefined;
  out?: string | undefined;
  /** What each page is written as, where `out` is a folder. */
  formats?: string | undefined;
  /** Date that is written into files; the plan's status date by default, so that the same plan gives the same bytes. */
  date?: string | undefined;
}

/** What an exhibit became. */
interface Composed {
  name: string;
  scenes: Scene[];
}

/**
 * Composes pages from a plan: by one brief, by a folder of briefs, or those that the file holds. Written as one file in
 * the format that its name asks for, or each as a file in a folder.
 */
export async function composeCommand(given: Loaded, baseline: Loaded | null, options: ComposeOptions): Promise<string> {
  const target = await targetOf(options);
  const { plan, ...model } = await withModels(given, options);
  const loaded = { ...given, plan };
  const schedule = schedulePlan(loaded.plan);
  const briefs = await briefsFor(loaded, baseline, schedule, options);
  const compose = composer(loaded, baseline, schedule, model, formatsOf(target).includes('html'), options.locale);
  const pages = briefs.map((b): Composed => ({ name: b.name, scenes: compose(b) }));
  const date = dateOf(options.date, loaded.plan);
  const fonts = metrics as FontMetrics;
  const write = (format: PageFormat, scenes: Scene[], names: string[]) =>
    writePages(format, scenes, { fonts, folder: fontFolder(FONT_FOLDER, fonts), date, names });
  const put = async (file: string, bytes: Uint8Array) => {
    try {
      await mkdir(dirname(file), { recursive: true });
      await writeFile(file, bytes);
    } catch (error) {
      throw new UsageError(
        `${file} could not be written (${(error as NodeJS.ErrnoException).code ?? (error as Error).message}).`,
      );
    }
  };
  const lines: string[] = [];
  if ('file' in target) {
    const { file, format } = target;
    const all = pages.flatMap((p) => p.scenes.map((scene, k) => ({ scene, name: sheetName(p, k) })));
    for (const [own, some] of filesOf(file, format, all))
      await put(
        own,
        await write(
          format,
          some.map((s) => s.scene),
          some.map((s) => s.name),
        ),
      );
    lines.push(...pages.flatMap((p) => linesOf(pages.length > 1 ? `${file}, ${p.name}` : file, p)));
  } else
    for (const page of pages) {
      const all = page.scenes.map((scene, k) => ({ scene, name: sheetName(page, k) }));
      for (const format of target.formats)
        for (const [own, some] of filesOf(join(target.folder, `${fileStem(page.name)}.${format}`), format, all)) {
          const names = some.map((s) => s.name);
          await put(
            own,
            await write(
              format,
              some.map((s) => s.scene),
              names,
            ),
          );
        }
      lines.push(...linesOf(join(target.folder, fileStem(page.name)), page));
    }
  return `${lines.join('\n')}\n`;
}

/** Where pages go: one file, or a folder that gets each of them in some formats. */
type Target = { file: string; format: PageFormat } | { folder: string; formats: PageFormat[] };

const formatsOf = (target: Target): PageFormat[] => ('file' in target ? [target.format] : target.formats);

async function targetOf({ out, formats, briefs, exhibits }: ComposeOptions): Promise<Target> {
  const format = PAGE_FORMATS.find((f) => `.${f}` === extname(out ?? '').toLowerCase());
  const endings = PAGE_FORMATS.map((f) => `.${f}`).join(', ');
  if (out !== undefined && formats !== undefined) {
    const wanted = formats.split(',').map((f) => f.trim().toLowerCase());
    const unknown = wanted.filter((f) => !PAGE_FORMATS.some((known) => known === f));
    if (unknown.length > 0)
      throw new UsageError(`--formats: ${unknown.join(', ')} is none of ${PAGE_FORMATS.join(', ')}.`);
    if (
      await stat(out).then(
        (s) => !s.isDirectory(),
        () => false,
      )
    )
      throw new UsageError(`${out} is a file. With --formats, --out names a folder.`);
    return { folder: out, formats: wanted as PageFormat[] };
  }
  if (out === undefined || !format)
    throw new UsageError(
      briefs !== undefined || exhibits
        ? `Say where the pages go with --out PAGES.pdf, or with --out FOLDER --formats pdf,pptx.`
        : `Say where the page goes with --out PAGE.pdf; other endings are ${endings}.`,
    );
  if (!holdsSeveral(format) && (briefs !== undefined || exhibits))
    throw new UsageError(`A file ${extname(out)} holds one page. Use --out FOLDER --formats ${format}.`);
  return { file: out, format };
}

/** The briefs that are wanted, with what a sentence says otherwise. */
export async function briefsFor(
  loaded: Loaded,
  baseline: Loaded | null,
  schedule: Schedule,
  { brief: file, briefs: folder, exhibits, kind, say }: ComposeOptions,
): Promise<NamedBrief[]> {
  const { plan, promised } = loaded;
  const kept = baseline?.plan ?? promised?.plan ?? null;
  if ([file, folder, exhibits || undefined].filter((x) => x !== undefined).length > 1)
    throw new UsageError('Of --brief, --briefs and --exhibits only one says what the pages are.');
  if (exhibits && loaded.exhibits.length === 0)
    throw new UsageError('The file holds no exhibits: --exhibits is for .clembo files with pages of their own.');
  const list: NamedBrief[] = exhibits
    ? loaded.exhibits.map(({ name, brief }) => ({ name, brief: briefOf(brief, `the exhibit “${name}”`) }))
    : folder !== undefined
      ? await readBriefs(folder)
      : [
          {
            name: plan.name || 'Page',
            brief:
              file === undefined
                ? EXHIBITS[exhibitName(kind ?? 'timeline')].suggest(plan, schedule, kept ? 1 : 0)
                : await readBrief(file),
          },
        ];
  if (say === undefined) return list;
  return list.map((b) => ({ ...b, brief: spokenBrief(say, b.brief, plan, schedule, kept !== null) }));
}

/** Composes exhibits of a plan that has something to draw. */
export function composer(
  { plan, edition, promised: stated, editions: held }: Loaded,
  baseline: Loaded | null,
  schedule: Schedule,
  model: BuiltModel,
  play: boolean,
  locale?: string,
): (brief: NamedBrief) => Scene[] {
  if (schedule.findings.some((f) => f.code === 'noStart'))
    throw new UsageError('Nothing in the file says when it begins. Say the start of the plan with --start 2026-01-05.');
  if (plan.activities.length > 0 && schedule.start.every((m) => m === NONE))
    throw new UsageError('The file has no dates, so there is nothing to draw on a time axis.');
  const kept = baseline ? { name: baseline.plan.name, plan: baseline.plan } : stated;
  const promised: Promised | null = kept && { ...kept, schedule: schedulePlan(kept.plan) };
  /** The edition that a brief names: the promise, or one that the file holds. */
  const editionOf = (brief: Brief): Promised | null => {
    const own = held.find((e) => e.id !== undefined && e.id === brief.compare);
    return own ? { ...own, schedule: schedulePlan(own.plan) } : promised;
  };
  return ({ name, brief }) => {
    const then = brief.compare === null ? null : editionOf(brief);
    if (brief.compare !== null && !then)
      throw new UsageError(
        `The page ${name === '' ? '' : `“${name}” `}compares with an edition. Say which file holds it with --baseline FILE.`,
      );
    return composeSheets({
      plan,
      schedule,
      brief,
      measure: createMeasure(metrics as FontMetrics),
      amounts: amountWords(plan, locale ?? localeOfPage('language' in brief ? brief.language : undefined)),
      edition,
      model,
      play,
      promised: then,
      editions: EXHIBITS[brief.kind].allEditions
        ? held.map((e): Promised => (e.plan === kept?.plan ? promised! : { ...e, schedule: schedulePlan(e.plan) }))
        : [],
    });
  };
}

export function dateOf(date: string | undefined, plan: Plan): Date {
  const day = date === undefined ? null : parseIsoDate(date);
  if (date !== undefined && day === null)
    throw new UsageError(`--date takes a date such as 2026-09-14, not “${date}”.`);
  const moment = day === null ? plan.statusDate : startOfDay(day);
  // A plan without a status date gives nothing to date the document by but its writing.
  return moment === null ? new Date() : new Date(moment * 60_000);
}

const sheetName = ({ name, scenes }: Composed, k: number): string => (scenes.length > 1 ? `${name}, ${k + 1}` : name);

/** What a page shows, how it fits, and what would make it fit better. */
function linesOf(where: string, { scenes }: Composed): string[] {
  const [{ fit }] = scenes as [Scene];
  const pages = scenes.length > 1 ? `, ${scenes.length} pages` : '';
  return [`${where}: ${shownWords(fit.counts)}${pages}`, ...fitLines(fit).map((line) => `  ${line}`)];
}

function fitLines(fit: Fit): string[] {
  const trouble = fitWords(fit);
  return [
    fit.readable
      ? `smallest type ${Math.round(10 * fit.smallestType) / 10} pt${trouble.length > 0 ? `; ${trouble.join('; ')}` : ''}`
      : 'too much to be read on this page: it says so instead',
    ...(fit.advice.length > 0 ? [`fit advice: ${fit.advice.map((a) => a.words).join(', or ')}`] : []),
  ];
}

/** Drawings and pictures of several pages are files of their own, with their number. */
function filesOf<T>(out: string, format: PageFormat, pages: T[]): [file: string, pages: T[]][] {
  if (holdsSeveral(format) || pages.length === 1) return [[out, pages]];
  const stem = out.slice(0, -format.length - 1);
  return pages.map((page, k) => [`${stem}-${k + 1}.${format}`, [page]]);
}
