import { writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, extname, join } from 'node:path';
import { isMilestone, NONE, parseIsoDate, type Plan, type Schedule, schedulePlan, startOfDay } from '@clembo/core';
import { amountWords, localeOfPage } from '@clembo/formats/amounts';
import { fontFolder, writePdf, writePng, writeSvg } from '@clembo/render';
import {
  Brief,
  composeSheets,
  createMeasure,
  EXHIBITS,
  type Fit,
  fitWords,
  type FontMetrics,
  PROMISED,
  type Promised,
  readBriefSentence,
  type Scene,
  sentenceOf,
  shownWords,
} from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json' with { type: 'json' };
import { exhibitName } from '../exhibitName';
import { UsageError } from '../fail';
import { type Loaded, readJson } from '../load';

const FONT_FOLDER = join(dirname(createRequire(import.meta.url).resolve('@clembo/render')), '../fonts');
const FORMATS = ['.svg', '.pdf', '.png'] as const;

interface ComposeOptions {
  brief?: string | undefined;
  /** The kind of exhibit, where no brief says it. */
  kind?: string | undefined;
  /** What is other than in the brief, as a sentence. */
  say?: string | undefined;
  /** Whose notation numbers are written in (BCP 47). */
  locale?: string | undefined;
  out?: string | undefined;
  /** Date that is written into a PDF; the plan's status date by default, so that the same plan gives the same bytes. */
  date?: string | undefined;
}

/** Composes a page from a plan and a brief and writes it in the format that the file's name asks for. */
export async function composeCommand(
  { plan, promised: stated, editions: held }: Loaded,
  baseline: Loaded | null,
  { brief: briefFile, kind, say, locale, out, date }: ComposeOptions,
): Promise<string> {
  const format = FORMATS.find((f) => f === extname(out ?? '').toLowerCase());
  if (out === undefined || !format)
    throw new UsageError('Say where the page goes with --out PAGE.svg, PAGE.pdf or PAGE.png.');
  const schedule = schedulePlan(plan);
  const kept = baseline?.plan ?? stated;
  const given: Brief =
    briefFile === undefined
      ? EXHIBITS[exhibitName(kind ?? 'timeline')].suggest(plan, schedule, kept ? 1 : 0)
      : await readBrief(briefFile);
  const brief = say === undefined ? given : spokenBrief(say, given, plan, schedule, kept !== null);
  if (schedule.findings.some((f) => f.code === 'noStart'))
    throw new UsageError('Nothing in the file says when it begins. Say the start of the plan with --start 2026-01-05.');
  if (plan.activities.length > 0 && schedule.start.every((m) => m === NONE))
    throw new UsageError('The file has no dates, so there is nothing to draw on a time axis.');
  const promised: Promised | null = kept && {
    plan: kept,
    schedule: schedulePlan(kept),
    name: baseline ? kept.name : 'Baseline in the source',
  };
  if (brief.compare !== null && !promised)
    throw new UsageError('The page compares with an edition. Say which file holds it with --baseline FILE.');
  const editions = EXHIBITS[brief.kind].allEditions
    ? held.map((e): Promised => (e.plan === kept ? promised! : { ...e, schedule: schedulePlan(e.plan) }))
    : [];
  const fonts = metrics as FontMetrics;
  const scenes = composeSheets({
    plan,
    schedule,
    brief,
    measure: createMeasure(fonts),
    amounts: amountWords(plan, locale ?? localeOfPage('language' in brief ? brief.language : undefined)),
    edition: '',
    promised: brief.compare === null ? null : promised,
    editions,
  });
  const day = date === undefined ? null : parseIsoDate(date);
  if (date !== undefined && day === null)
    throw new UsageError(`--date takes a date such as 2026-09-14, not “${date}”.`);
  const moment = day === null ? plan.statusDate : startOfDay(day);
  // A plan without a status date gives nothing to date the document by but its writing.
  const written = moment === null ? new Date() : new Date(moment * 60_000);
  try {
    for (const [file, pages] of filesOf(out, format, scenes))
      await writeFile(file, await pageBytes(pages, fonts, format, written));
  } catch (error) {
    throw new UsageError(
      `${out} could not be written (${(error as NodeJS.ErrnoException).code ?? (error as Error).message}).`,
    );
  }
  const [{ fit }] = scenes as [Scene];
  const pages = scenes.length > 1 ? `, ${scenes.length} pages` : '';
  return `${[`${out}: ${shownWords(fit.counts)}${pages}`, ...fitLines(fit)].join('\n  ')}\n`;
}

/** How the page fits, and what would make it fit better. */
function fitLines(fit: Fit): string[] {
  const trouble = fitWords(fit);
  return [
    fit.readable
      ? `smallest type ${fit.smallestType} pt${trouble.length > 0 ? `; ${trouble.join('; ')}` : ''}`
      : 'too much to be read on this page: it says so instead',
    ...(fit.advice.length > 0 ? [`fit advice: ${fit.advice.map((a) => a.words).join(', or ')}`] : []),
  ];
}

/** A PDF holds all pages; drawings and pictures of several are files of their own, with their number. */
function filesOf(out: string, format: (typeof FORMATS)[number], scenes: Scene[]): [file: string, pages: Scene[]][] {
  if (format === '.pdf' || scenes.length === 1) return [[out, scenes]];
  const stem = out.slice(0, -format.length);
  return scenes.map((scene, k) => [`${stem}-${k + 1}${format}`, [scene]]);
}

async function pageBytes(
  pages: Scene[],
  fonts: FontMetrics,
  format: (typeof FORMATS)[number],
  date: Date,
): Promise<Uint8Array | string> {
  const folder = fontFolder(FONT_FOLDER, fonts);
  const [scene] = pages as [Scene];
  switch (format) {
    case '.svg':
      return writeSvg(scene, { fonts, embed: folder.embedded() });
    case '.pdf':
      return writePdf(pages, { fonts, fontPath: folder.path, date });
    case '.png':
      return writePng(scene, { fonts, fontPath: folder.path });
  }
}

async function readBrief(file: string): Promise<Brief> {
  const result = Brief.safeParse(await readJson(file));
  if (result.success) return result.data;
  const places = result.error.issues.slice(0, 5).map((i) => `${i.path.join('.') || 'the brief'}: ${i.message}`);
  throw new UsageError(
    `${file}: not a brief: ${places.join('; ')}. \`clembo brief --kind timeline\` prints one to change.`,
  );
}

/** A brief with what a sentence says otherwise. */
function spokenBrief(say: string, brief: Brief, plan: Plan, schedule: Schedule, promised: boolean): Brief {
  const words = {
    ...plan,
    editions: promised ? [{ id: PROMISED, name: 'the promise' }] : [],
    levels: schedule.outline.level.reduce((a, b) => Math.max(a, b), 1),
    milestones: plan.activities.filter((a) => isMilestone(a.kind)).map((a) => ({ ref: a.ref, name: a.name || a.ref })),
  };
  const { brief: said, unknown } = readBriefSentence(say, brief, words);
  if (unknown.length > 0)
    throw new UsageError(
      `--say: “${unknown.map((u) => u.text).join('”, “')}” is not understood. The brief says: ${sentenceOf(brief, words)
        .map((s) => s.text)
        .join('')}`,
    );
  return said;
}
