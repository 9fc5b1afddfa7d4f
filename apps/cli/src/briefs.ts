import { readdir } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import { isMilestone, type Plan, type Schedule } from '@clembo/core';
import { Brief, PROMISED, readBriefSentence, sentenceOf } from '@clembo/scene';
import { UsageError } from './fail';
import { readJson } from './load';

/** A brief with the name that its page has. */
export interface NamedBrief {
  name: string;
  brief: Brief;
}

/** Reads a brief from a file. */
export async function readBrief(file: string): Promise<Brief> {
  return briefOf(await readJson(file), file);
}

/** A brief that somebody wrote. */
export function briefOf(said: unknown, where: string): Brief {
  const result = Brief.safeParse(said);
  if (result.success) return result.data;
  const places = result.error.issues.slice(0, 5).map((i) => `${i.path.join('.') || 'the brief'}: ${i.message}`);
  throw new UsageError(
    `${where}: not a brief: ${places.join('; ')}. \`clembo brief --kind timeline\` prints one to change.`,
  );
}

/** All briefs of a folder, in the order of their files. */
export async function readBriefs(folder: string): Promise<NamedBrief[]> {
  let files: string[];
  try {
    files = (await readdir(folder)).filter((f) => extname(f).toLowerCase() === '.json').sort();
  } catch (error) {
    throw new UsageError(`${folder} could not be read (${(error as NodeJS.ErrnoException).code}).`);
  }
  if (files.length === 0)
    throw new UsageError(`${folder} holds no briefs: files such as 01-summary.json. \`clembo brief\` prints one.`);
  return Promise.all(
    files.map(async (file) => ({ name: basename(file, extname(file)), brief: await readBrief(join(folder, file)) })),
  );
}

/** A brief with what a sentence says otherwise. */
export function spokenBrief(say: string, brief: Brief, plan: Plan, schedule: Schedule, promised: boolean): Brief {
  const words = {
    ...plan,
    editions: promised ? [{ id: PROMISED, name: 'the promise' }] : [],
    levels: schedule.outline.level.reduce((a, b) => Math.max(a, b), 1),
    lines: plan.lines.map(({ id, name, unit }) => ({ id, name, unit })),
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
