import 'server-only';
import {
  type ColumnMap,
  fieldById,
  type Intake,
  problemPlace,
  problemWords,
  readDate,
  readPlan,
  type Table,
} from '@clembo/formats';
import { formatDay } from '@clembo/scene';
import { type Access, type StoredIntake, updateIntake } from '@clembo/store';
import { store } from '../store';
import { openIntake, planName } from './openIntake';
import { mapFor } from './takeIn';

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
  /** What can be drawn: given dates, dates to be computed from a start, or nothing. */
  dates: Intake['dates'];
  problems: { place: string; words: string }[];
  problemCount: number;
}

const SHOWN_PROBLEMS = 200;
const SAMPLE_ROWS = 8;

export async function viewIntake(access: Access, id: string): Promise<IntakeView> {
  const { stored, tables, table, map } = await openIntake(access, id);
  const intake = readPlan(table, map, { name: planName(stored.source) });
  return view(stored, tables, table, map, intake);
}

/** Changes sheet or column map, and shows what comes of it. Another sheet gets a map of its own. */
export async function correctIntake(
  access: Access,
  id: string,
  change: { sheet?: string; map?: ColumnMap },
): Promise<IntakeView> {
  const { stored, tables, table, map } = await openIntake(access, id);
  const chosen = change.sheet === undefined ? table : (tables.find((t) => t.sheet === change.sheet) ?? table);
  const next = chosen !== table ? await mapFor(access, chosen) : change.map ? withHeadings(chosen, change.map) : map;
  await updateIntake(store(), access, id, { sheet: chosen.sheet, map: next });
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
    dates: intake.dates,
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
