import { writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, extname, join } from 'node:path';
import { schedulePlan } from '@clembo/core';
import { fontFolder, writePdf, writePng, writeSvg } from '@clembo/render';
import {
  composeTimeline,
  createMeasure,
  type FontMetrics,
  type Scene,
  suggestTimelineBrief,
  TimelineBrief,
} from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json' with { type: 'json' };
import { UsageError } from '../fail';
import { type Loaded, readJson } from '../load';

const FONT_FOLDER = join(dirname(createRequire(import.meta.url).resolve('@clembo/render')), '../fonts');
const FORMATS = ['.svg', '.pdf', '.png'] as const;

/** Composes a page from a plan and a brief and writes it in the format that the file's name asks for. */
export async function composeCommand(
  { plan }: Loaded,
  briefFile: string | undefined,
  out: string | undefined,
): Promise<string> {
  const format = FORMATS.find((f) => f === extname(out ?? '').toLowerCase());
  if (out === undefined || !format)
    throw new UsageError('Say where the page goes with --out PAGE.svg, PAGE.pdf or PAGE.png.');
  const schedule = schedulePlan(plan);
  const brief = briefFile === undefined ? suggestTimelineBrief(plan, schedule) : await readBrief(briefFile);
  const fonts = metrics as FontMetrics;
  const scene = composeTimeline({ plan, schedule, brief, measure: createMeasure(fonts), edition: '' });
  try {
    await writeFile(out, await pageBytes(scene, fonts, format));
  } catch (error) {
    throw new UsageError(
      `${out} could not be written (${(error as NodeJS.ErrnoException).code ?? (error as Error).message}).`,
    );
  }
  const { shown, of, smallestType } = scene.fit;
  return `${out}: ${shown} of ${of} activities, smallest type ${smallestType} pt\n`;
}

async function pageBytes(
  scene: Scene,
  fonts: FontMetrics,
  format: (typeof FORMATS)[number],
): Promise<Uint8Array | string> {
  const folder = fontFolder(FONT_FOLDER, fonts);
  switch (format) {
    case '.svg':
      return writeSvg(scene, { fonts, embed: folder.embedded() });
    case '.pdf':
      return writePdf([scene], { fonts, fontPath: folder.path, date: new Date() });
    case '.png':
      return writePng(scene, { fonts, fontPath: folder.path });
  }
}

async function readBrief(file: string): Promise<TimelineBrief> {
  const result = TimelineBrief.safeParse(await readJson(file));
  if (result.success) return result.data;
  const places = result.error.issues.slice(0, 5).map((i) => `${i.path.join('.') || 'the brief'}: ${i.message}`);
  throw new UsageError(
    `${file}: not a brief: ${places.join('; ')}. \`clembo brief --kind timeline\` prints one to change.`,
  );
}
