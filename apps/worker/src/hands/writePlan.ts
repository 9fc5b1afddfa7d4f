import { type PackedPlan, type Plan, unpackPlan } from '@clembo/core';
import {
  writeBundle,
  writePlanCalendar,
  writePlanCsv,
  writePlanDot,
  writePlanGraphml,
  writePlanJson,
  writePlanModel,
  writePlanXlsx,
} from '@clembo/formats';
import type { PlanFormat } from '@clembo/store';
import { type SentWhole, unpackWhole, type WrittenPage } from './answers';

export interface PlanFileInput {
  plan: PackedPlan;
  format: PlanFormat;
  /** Milliseconds since 1970: when the file is said to be written. */
  date: number;
}

const WRITERS: Record<PlanFormat, (plan: Plan, date: number) => string | Promise<Uint8Array>> = {
  csv: writePlanCsv,
  xlsx: writePlanXlsx,
  ics: writePlanCalendar,
  ifc: writePlanModel,
  json: writePlanJson,
  graphml: writePlanGraphml,
  dot: writePlanDot,
};

/** Writes a plan as a file that other programs read. */
export async function writePlan(
  { plan, format, date }: PlanFileInput,
  report: (step: string, share: number) => void,
): Promise<WrittenPage> {
  report('Writing the file', 0.3);
  const made = await WRITERS[format](unpackPlan(plan), date);
  return { bytes: new Uint8Array(typeof made === 'string' ? new TextEncoder().encode(made) : made) };
}

/** Writes a plan with all that belongs to it as one file. */
export function writeWhole(whole: SentWhole, report: (step: string, share: number) => void): WrittenPage {
  report('Writing the file', 0.3);
  return { bytes: writeBundle(unpackWhole(whole)) };
}
