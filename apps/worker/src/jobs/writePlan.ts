import { packPlan } from '@clembo/core';
import { BUNDLE, type PlanFormat, readPlan, readWholePlan } from '@clembo/store';
import { packWhole, WrittenPage } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';

const TYPES: Record<PlanFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  ics: 'text/calendar; charset=utf-8',
  ifc: 'application/x-step',
  json: 'application/json',
  graphml: 'application/xml',
  dot: 'text/vnd.graphviz; charset=utf-8',
};

/** Writes the working edition of a plan as a file that other programs read. */
export async function writePlanJob(room: Room, id: string, format: PlanFormat | typeof BUNDLE): Promise<Outcome> {
  const { store, access, hand } = room;
  if (format === BUNDLE) return writeWholeJob(room, id);
  const stored = await readPlan(store, access, id);
  if (!stored) throw new JobRefused('There is no such plan (any more).');
  const { plan } = stored;
  const written = stored.editions.find((e) => e.working)?.createdAt ?? new Date(0);
  const input = { plan: packPlan(plan), format, date: written.getTime() };
  const { bytes } = await hand('writePlan', input, WrittenPage, `Writing “${plan.name}”`);
  return { result: { file: fileName(plan.name, format), type: TYPES[format] }, file: bytes };
}

/** Writes a plan with its exhibits, books, editions and sources as one file. */
async function writeWholeJob({ store, access, hand }: Room, id: string): Promise<Outcome> {
  const whole = await readWholePlan(store, access, id);
  if (!whole) throw new JobRefused('There is no such plan (any more).');
  const { name } = whole.editions.find((e) => e.working)!.plan;
  const { bytes } = await hand('writeWhole', packWhole(whole), WrittenPage, `Writing “${name}”`);
  return { result: { file: fileName(name, BUNDLE), type: 'application/zip' }, file: bytes };
}

const fileName = (name: string, ending: string): string =>
  `${name.replace(/[^\p{L}\p{N} ._-]+/gu, '').trim() || 'plan'}.${ending}`;
