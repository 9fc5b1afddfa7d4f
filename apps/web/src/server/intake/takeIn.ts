import 'server-only';
import {
  type ColumnMap,
  ColumnMap as ColumnMapSchema,
  guessColumnMap,
  looksLikeJson,
  orderInTable,
  readDelimited,
  readPlanJson,
  readTables,
  settledOrder,
  type Table,
  UnreadableFile,
} from '@clembo/formats';
import { type Access, createIntake, findColumnMap } from '@clembo/store';
import { store } from '../store';
import { keepPlan } from './keepPlan';

/** What a pasted table is called. */
export const PASTED = 'pasted table';

/** Takes in a file: our own JSON becomes a plan at once, a table an intake whose columns can be corrected. */
export async function takeIn(
  access: Access,
  bytes: Uint8Array,
  source: string,
): Promise<{ planId: string } | { intakeId: string }> {
  if (!looksLikeJson(bytes))
    return { intakeId: await keepTables(access, await readTables(bytes, source), bytes, source) };
  const { plan, problems, rowOf } = readPlanJson(new TextDecoder().decode(bytes), source);
  // Where nobody can look at what would be left out, nothing is.
  if (problems.length > 0)
    throw new UnreadableFile(
      problems
        .slice(0, 5)
        .map((p) => `${p.source}: “${p.value}” cannot be used (${p.detail}).`)
        .join(' '),
    );
  return { planId: await keepPlan(access, plan, [], { name: source, sheet: null, map: null, rowOf }) };
}

/** Takes in a pasted table. */
export async function takeInText(access: Access, text: string): Promise<{ intakeId: string }> {
  const table = readDelimited(text, PASTED);
  if (table.rows.length === 0) throw new UnreadableFile('The pasted table has no rows.');
  return { intakeId: await keepTables(access, [table], new TextEncoder().encode(text), PASTED) };
}

async function keepTables(access: Access, tables: Table[], content: Uint8Array, source: string): Promise<string> {
  const table = tables.reduce((best, t) => (t.rows.length > best.rows.length * 3 ? t : best), tables[0]!);
  const map = await mapFor(access, table);
  return createIntake(store(), access, { source, content, sheet: table.sheet, map });
}

/** The map that was corrected for these headings before, else a guess. */
export async function mapFor(access: Access, table: Table): Promise<ColumnMap> {
  const guess = guessColumnMap(table);
  const known = ColumnMapSchema.safeParse(await findColumnMap(store(), access, guess.headings));
  if (!known.success || known.data.columns.length !== guess.columns.length) return guess;
  const map = { ...known.data, headerRow: guess.headerRow, headings: guess.headings };
  return { ...map, dateOrder: settledOrder(orderInTable(table, map)) ?? known.data.dateOrder };
}
