import { writeFile } from 'node:fs/promises';
import { extname } from 'node:path';
import { writePlanCalendar, writePlanCsv, writePlanJson, writePlanModel, writePlanXlsx } from '@clembo/formats';
import { UsageError } from '../fail';
import type { Loaded } from '../load';

/** Writes a plan in another form: a table, a workbook, a calendar, a model schedule, or our own JSON. */
export async function convertCommand({ plan, problems }: Loaded, out: string | undefined): Promise<string> {
  const written = Date.now();
  const writers: Record<string, () => string | Promise<Uint8Array>> = {
    '.csv': () => writePlanCsv(plan),
    '.xlsx': () => writePlanXlsx(plan),
    '.ics': () => writePlanCalendar(plan, written),
    '.ifc': () => writePlanModel(plan, written),
    '.json': () => writePlanJson(plan),
  };
  const write = writers[extname(out ?? '').toLowerCase()];
  if (out === undefined || !write)
    throw new UsageError('Say where the plan goes with --out PLAN.csv, .xlsx, .ics, .ifc or .json.');
  try {
    await writeFile(out, await write());
  } catch (error) {
    throw new UsageError(
      `${out} could not be written (${(error as NodeJS.ErrnoException).code ?? (error as Error).message}).`,
    );
  }
  const unread =
    problems.length === 0 ? '' : `, ${problems.length} cells could not be read (\`clembo check\` lists them)`;
  return `${out}: ${plan.activities.length} activities, ${plan.links.length} links${unread}\n`;
}
