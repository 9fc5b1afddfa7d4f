import { extname } from 'node:path';
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
import { UsageError } from '../fail';
import type { Loaded } from '../load';
import { planWords } from '../planWords';
import { writeOut } from '../writeOut';
import { wholeOf } from '../whole';

/** Writes a plan in another form: a table, a workbook, a calendar, a model schedule, our own JSON, or one file for all. */
export async function convertCommand(
  { plan, edition, problems, promised }: Loaded,
  out: string | undefined,
): Promise<string> {
  const written = Date.now();
  const writers: Record<string, () => string | Uint8Array | Promise<Uint8Array>> = {
    '.csv': () => writePlanCsv(plan),
    '.xlsx': () => writePlanXlsx(plan),
    '.ics': () => writePlanCalendar(plan, written),
    '.ifc': () => writePlanModel(plan, written),
    '.json': () => writePlanJson(plan),
    '.graphml': () => writePlanGraphml(plan),
    '.dot': () => writePlanDot(plan),
    '.clembo': () => writeBundle(wholeOf(plan, promised, edition || 'Converted', written)),
  };
  const write = writers[extname(out ?? '').toLowerCase()];
  if (out === undefined || !write)
    throw new UsageError(
      'Say where the plan goes with --out PLAN.csv, .xlsx, .ics, .ifc, .json, .clembo, or its network with .graphml or .dot.',
    );
  await writeOut(out, await write());
  const unread =
    problems.length === 0 ? '' : `, ${problems.length} cells could not be read (\`clembo check\` lists them)`;
  return `${out}: ${planWords(plan)}${unread}\n`;
}
