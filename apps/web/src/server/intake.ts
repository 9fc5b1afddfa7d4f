import 'server-only';
import { Plan, schedulePlan } from '@clembo/core';
import {
  type ColumnMap,
  ColumnMap as ColumnMapSchema,
  guessColumnMap,
  orderInTable,
  settledOrder,
  type Intake,
  looksLikeJson,
  problemPlace,
  problemWords,
  readDate,
  readDelimited,
  readPlan,
  readPlanJson,
  readTables,
  type Table,
  UnreadableFile,
} from '@clembo/formats';
import { formatDay, suggestTimelineBrief } from '@clembo/scene';
import {
  createExhibit,
  createIntake,
  createPlan,
  deleteIntake,
  findColumnMap,
  keepColumnMap,
  readIntake,
  type StoredIntake,
  updateIntake,
} from '@clembo/store';
import { fieldById } from '@clembo/formats';
import { notFound } from './answer';
import { currentWorkspace, store } from './store';

/** What the person sees of an intake while correcting its column map. */
export interface IntakeView {
  id: string;
  source: string;
  name: string;
  sheets: string[];
  sheet: string | null;
  map: ColumnMap;
  /** Rows below the headings, as written, and as they are read where that differs. */
  samples: { row: number; cells: { text: string; read: string | null }[] }[];
  rowsRead: number;
  rowsTaken: number;
  counts: { activities: number; milestones: number; summaries: number; links: number; baseline: number };
  calendar: string;
  dated: boolean;
  problems: { place: string; words: string }[];
  problemCount: number;
}

const SHOWN_PROBLEMS = 200;
const SAMPLE_ROWS = 8;

/** Takes in a file: our own JSON becomes a plan at once, a table an intake whose columns can be corrected. */
export async function takeIn(bytes: Uint8Array, source: string): Promise<{ planId: string } | { intakeId: string }> {
  if (looksLikeJson(bytes)) {
    const { plan, problems } = readPlanJson(new TextDecoder().decode(bytes), source);
    // Where nobody can look at what would be left out, nothing is.
    if (problems.length > 0)
      throw new UnreadableFile(
        problems
          .slice(0, 5)
          .map((p) => `${p.source}: “${p.value}” cannot be used (${p.detail}).`)
          .join(' '),
      );
    return { planId: await keepPlan(plan, `From ${source}`, []) };
  }
  return { intakeId: await keepTables(await readTables(bytes, source), bytes, source) };
}

/** Takes in a pasted table. */
export async function takeInText(text: string): Promise<{ intakeId: string }> {
  const table = readDelimited(text, 'pasted table');
  if (table.rows.length === 0) throw new UnreadableFile('The pasted table has no rows.');
  return { intakeId: await keepTables([table], new TextEncoder().encode(text), 'pasted table') };
}

async function keepTables(tables: Table[], content: Uint8Array, source: string): Promise<string> {
  const workspace = await currentWorkspace();
  const table = tables.reduce((best, t) => (t.rows.length > best.rows.length * 3 ? t : best), tables[0]!);
  const map = await mapFor(table, workspace);
  return createIntake(store(), workspace, { source, content, sheet: table.sheet, map });
}

/** The map that was corrected for these headings before, else a guess. */
async function mapFor(table: Table, workspace: string): Promise<ColumnMap> {
  const guess = guessColumnMap(table);
  const known = ColumnMapSchema.safeParse(await findColumnMap(store(), workspace, guess.headings));
  if (!known.success || known.data.columns.length !== guess.columns.length) return guess;
  const map = { ...known.data, headerRow: guess.headerRow, headings: guess.headings };
  return { ...map, dateOrder: settledOrder(orderInTable(table, map)) ?? known.data.dateOrder };
}

async function openIntake(
  id: string,
): Promise<{ stored: StoredIntake; tables: Table[]; table: Table; map: ColumnMap }> {
  const stored = await readIntake(store(), await currentWorkspace(), id);
  if (!stored) throw notFound('intake');
  const tables =
    stored.source === 'pasted table'
      ? [readDelimited(new TextDecoder().decode(stored.content), stored.source)]
      : await readTables(stored.content, stored.source);
  const table = tables.find((t) => t.sheet === stored.sheet) ?? tables[0]!;
  return { stored, tables, table, map: ColumnMapSchema.parse(stored.map) };
}

export async function viewIntake(id: string): Promise<IntakeView> {
  const { stored, tables, table, map } = await openIntake(id);
  const intake = readPlan(table, map, { name: planName(stored.source) });
  return view(stored, tables, table, map, intake);
}

/** Changes sheet or column map, and shows what comes of it. Another sheet gets a map of its own. */
export async function correctIntake(id: string, change: { sheet?: string; map?: ColumnMap }): Promise<IntakeView> {
  const { stored, tables, table, map } = await openIntake(id);
  const chosen = change.sheet === undefined ? table : (tables.find((t) => t.sheet === change.sheet) ?? table);
  const workspace = await currentWorkspace();
  const next = chosen !== table ? await mapFor(chosen, workspace) : change.map ? withHeadings(chosen, change.map) : map;
  await updateIntake(store(), workspace, id, { sheet: chosen.sheet, map: next });
  const intake = readPlan(chosen, next, { name: planName(stored.source) });
  return view({ ...stored, sheet: chosen.sheet }, tables, chosen, next, intake);
}

/** Headings follow the row that is said to hold them. */
function withHeadings(table: Table, map: ColumnMap): ColumnMap {
  const width = Math.max(map.columns.length, ...table.rows.slice(0, 50).map((r) => r.length));
  const row = map.headerRow === null ? [] : (table.rows[map.headerRow] ?? []);
  return {
    ...map,
    headings: Array.from({ length: width }, (_, c) => (row[c] ?? '').trim()),
    columns: Array.from({ length: width }, (_, c) => map.columns[c] ?? { as: 'skip' as const }),
  };
}

/** Makes the plan. With `strict`, nothing is taken in while any cell cannot be read. */
export async function makePlan(id: string, name: string, strict: boolean): Promise<string> {
  const { stored, table, map } = await openIntake(id);
  if (map.dateOrder === null) throw new UnreadableFile('Say first whether day or month comes first in the dates.');
  const intake = readPlan(table, map, { name });
  if (intake.rowsTaken === 0)
    throw new UnreadableFile(
      'No row of this table could be taken in. Check which columns hold the names and the dates.',
    );
  if (strict && intake.problems.length > 0) {
    throw new UnreadableFile(
      `${intake.problems.length} cells cannot be read, and you asked to hold everything back until they can.`,
    );
  }
  const planId = await keepPlan(
    intake.plan,
    stored.source === 'pasted table' ? 'Pasted table' : `From ${stored.source}`,
    intake.baseline,
  );
  const workspace = await currentWorkspace();
  // An order that this file did not need was never chosen: the next file may have to be asked about.
  const dateOrder = orderInTable(table, map) === 'irrelevant' ? null : map.dateOrder;
  await keepColumnMap(store(), workspace, map.headings, { ...map, dateOrder });
  await deleteIntake(store(), workspace, id);
  return planId;
}

async function keepPlan(plan: Plan, edition: string, baseline: Intake['baseline']): Promise<string> {
  const workspace = await currentWorkspace();
  const dates = new Map(baseline.map((b) => [b.ref, b]));
  const promised: Plan | null =
    baseline.length === 0
      ? null
      : {
          ...plan,
          activities: plan.activities.map((a) => {
            const b = dates.get(a.ref);
            return {
              ...a,
              start: b?.start ?? null,
              finish: b?.finish ?? null,
              actualStart: null,
              actualFinish: null,
              percent: null,
              remaining: null,
            };
          }),
        };
  const planId = await createPlan(
    store(),
    workspace,
    plan,
    edition,
    promised ? [{ name: 'Baseline in the source', plan: promised }] : [],
  );
  await createExhibit(store(), workspace, planId, 'Overview', suggestTimelineBrief(plan, schedulePlan(plan)));
  return planId;
}

const planName = (source: string): string =>
  source === 'pasted table' ? 'Pasted plan' : source.replace(/\.[^.]+$/, '').replace(/[_-]+/g, ' ');

function view(stored: StoredIntake, tables: Table[], table: Table, map: ColumnMap, intake: Intake): IntakeView {
  const kinds = intake.plan.activities.map((a) => a.kind);
  const body = table.rows
    .map((cells, r) => ({ cells, row: table.firstRow + r }))
    .slice(map.headerRow === null ? 0 : map.headerRow + 1);
  return {
    id: stored.id,
    source: stored.source,
    name: planName(stored.source),
    sheets: tables.flatMap((t) => (t.sheet === null ? [] : [t.sheet])),
    sheet: table.sheet,
    map,
    samples: body
      .filter(({ cells }) => cells.some((c) => c.trim() !== ''))
      .slice(0, SAMPLE_ROWS)
      .map(({ cells, row }) => ({
        row,
        cells: map.columns.map((_, c) => sampleCell((cells[c] ?? '').trim(), map, c)),
      })),
    rowsRead: intake.rowsRead,
    rowsTaken: intake.rowsTaken,
    counts: {
      activities: kinds.filter((k) => k === 'activity' || k === 'levelOfEffort').length,
      milestones: kinds.filter((k) => k === 'startMilestone' || k === 'finishMilestone').length,
      summaries: kinds.filter((k) => k === 'summary').length,
      links: intake.plan.links.length,
      baseline: intake.baseline.length,
    },
    calendar: intake.plan.calendars.find((c) => c.id === intake.plan.calendar)?.name ?? '',
    dated: intake.plan.activities.some((a) => a.start !== null || a.finish !== null),
    problems: intake.problems.slice(0, SHOWN_PROBLEMS).map((p) => ({ place: problemPlace(p), words: problemWords(p) })),
    problemCount: intake.problems.length,
  };
}

/** A cell as written, and for dates what it is read as. */
function sampleCell(text: string, map: ColumnMap, column: number): { text: string; read: string | null } {
  const meaning = map.columns[column]!;
  if (text === '' || meaning.as !== 'field' || fieldById(meaning.field)?.type !== 'date' || map.dateOrder === null)
    return { text, read: null };
  const date = readDate(text, map.dateOrder);
  return { text, read: date ? formatDay(date.day, 'weekday') : 'not a date' };
}
