import { packPlan } from '@clembo/core';
import { type PlanFormat, readPlan } from '@clembo/store';
import { WrittenPage } from '../hands/answers';
import { JobRefused, type Outcome, type Room } from '../room';

const TYPES: Record<PlanFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  ics: 'text/calendar; charset=utf-8',
  ifc: 'application/x-step',
  json: 'application/json',
};

/** Writes the working edition of a plan as a file that other programs read. */
export async function writePlanJob({ store, access, hand }: Room, id: string, format: PlanFormat): Promise<Outcome> {
  const stored = await readPlan(store, access, id);
  if (!stored) throw new JobRefused('There is no such plan (any more).');
  const { plan } = stored;
  const written = stored.editions.find((e) => e.working)?.createdAt ?? new Date(0);
  const input = { plan: packPlan(plan), format, date: written.getTime() };
  const { bytes } = await hand('writePlan', input, WrittenPage, `Writing “${plan.name}”`);
  const file = `${plan.name.replace(/[^\p{L}\p{N} ._-]+/gu, '').trim() || 'plan'}.${format}`;
  return { result: { file, type: TYPES[format] }, file: bytes };
}
