import { basename, extname } from 'node:path';
import { groupProblems, PROMISED_IN_SOURCE, promisedEdition, writeBundle, writePlanJson } from '@clembo/formats';
import { UsageError } from '../fail';
import { json } from '../findings';
import { planWords } from '../planWords';
import { loadMappedTable, type LoadOptions, readCalendar, takeIn, withOptions } from '../load';
import { sourceOf, wholeOf } from '../whole';
import { writeOut } from '../writeOut';

/**
 * Takes a table in: says what every column was read as, how much of it, and what could not be read; and makes a plan of
 * it that can be refreshed by the next file.
 */
export async function intakeCommand(
  file: string,
  options: LoadOptions & { strict?: boolean; out?: string },
  asJson: boolean,
): Promise<string> {
  const { out } = options;
  const ending = out === undefined ? null : extname(out).toLowerCase();
  if (ending !== null && ending !== '.clembo' && ending !== '.json')
    throw new UsageError('An intake makes a plan: say --out PLAN.clembo, which can be refreshed, or PLAN.json.');
  const { table, map } = await loadMappedTable(file, options);
  const calendar = await readCalendar(options.calendar);
  const intake = takeIn(table, map, file, calendar);
  const plan = await withOptions(intake.plan, options, calendar);
  const groups = groupProblems(intake.problems);
  if (options.strict && intake.problems.length > 0)
    throw new UsageError(
      `${intake.problems.length} cells cannot be read; with --strict nothing is taken in. ${groups[0]!.words}`,
    );
  if (intake.rowsTaken === 0)
    throw new UsageError(`No row of ${file} could be taken in. Check its columns with --map.`);
  const now = Date.now();
  if (out !== undefined && ending === '.json') await writeOut(out, writePlanJson(plan));
  else if (out !== undefined) {
    const promised = promisedEdition(plan, intake.baseline);
    const whole = wholeOf(plan, promised && { name: PROMISED_IN_SOURCE, plan: promised }, basename(file), now);
    whole.editions[0]!.rows = Object.fromEntries([...intake.rowOf].map(([ref, row]) => [ref, [1, row] as const]));
    whole.sources.push(sourceOf(table, map, intake.problems, { no: 1, reading: 1, createdAt: now }));
    await writeOut(out, writeBundle(whole));
  }
  const columns = map.columns.map((meaning, c) => ({
    heading: map.headings[c] ?? '',
    as: meaning.as === 'field' ? meaning.field : meaning.as === 'skip' ? 'left out' : `${meaning.as} ${meaning.name}`,
    ...intake.tallies[c]!,
  }));
  const result = {
    sheet: table.sheet,
    rowsRead: intake.rowsRead,
    rowsTaken: intake.rowsTaken,
    activities: plan.activities.length,
    links: plan.links.length,
    columns: columns.map(({ examples: _, ...c }) => c),
    problems: groups.map(({ words, count, heading }) => ({ heading, count, words })),
  };
  if (asJson) return json(result);
  const lines = [
    `${result.rowsTaken} of ${result.rowsRead} rows${table.sheet ? ` of sheet ${table.sheet}` : ''}: ${planWords(plan)}`,
    ...columns.map((c) =>
      `${(c.heading || '(no heading)').padEnd(24)} ${c.as.padEnd(20)} ${c.as === 'left out' ? '' : `${c.read} read${c.changed > 0 ? `, ${c.changed} changed` : ''}${c.unread > 0 ? `, ${c.unread} not read` : ''}`}`.trimEnd(),
    ),
    ...groups.map((g) => `not read  ${g.count}  ${g.words}`),
    ...(out === undefined ? [] : [`written to ${out}`]),
  ];
  return `${lines.join('\n')}\n`;
}
