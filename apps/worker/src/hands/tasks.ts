import { promisify } from 'node:util';
import { constants, gzip } from 'node:zlib';
import {
  bodyOf,
  modelChanges,
  packGeometry,
  packPlan,
  schedulePlan,
  unpackGeometry,
  unpackPlan,
  type WholePlan,
} from '@clembo/core';
import {
  beginState,
  changeState,
  ColumnMap,
  type ColumnMeaning,
  fieldById,
  groupProblems,
  hasRows,
  IntakeChange,
  type IntakePart,
  IntakeState,
  type JointIntake,
  looksLikeBundle,
  looksLikeJson,
  orderInTable,
  packTables,
  tablesText,
  PASTED,
  previewIntake,
  readAgain,
  readBundle,
  readModel as readModelFile,
  readParts,
  readPasted,
  readPlanJson,
  readTables,
  type RowsToPick,
  rowsToPick,
  type SourcePlace,
  type Table,
  unpackTables,
  UnreadableFile,
  usedParts,
} from '@clembo/formats';
import { Brief, EXHIBITS, Folio } from '@clembo/scene';
import type { z } from 'zod';
import {
  type AgainInput,
  type ChangeInput,
  type MadeSource,
  type MakeInput,
  packPlaces,
  packWhole,
  type Previewed,
  type ModelInput,
  type ReadInput,
  type RowsInput,
  type SentModel,
  type SentAgain,
  type SentPlan,
  type SentReading,
} from './answers';
import { forget, intakeOf, preparedOf, prepareNext, rememberTables, tablesOf } from './lately';
import { writePages } from './writePages';
import { writePlan, writeWhole } from './writePlan';

const pressed = promisify(gzip) as (data: string, options: object) => Promise<Buffer>;

type Report = (step: string, share: number) => void;

/** Reads files: our own JSON is a plan, anything else tables, by the maps that they had last time, or by a guess. */
async function readFiles({ files, known }: ReadInput, report: Report): Promise<SentReading> {
  const tables: Table[] = [];
  for (const [k, { name, bytes }] of files.entries()) {
    report(`Reading ${name}`, 0.1 + (0.6 * k) / files.length);
    if (looksLikeBundle(bytes)) {
      if (files.length > 1) throw new UnreadableFile(`${name} is a whole plan; take it in by itself.`);
      return { whole: packWhole(wholeOf(bytes, name)) };
    }
    if (name === PASTED) tables.push(readPasted(new TextDecoder().decode(bytes), name));
    else if (!looksLikeJson(bytes)) tables.push(...(await readTables(bytes, name)));
    else if (files.length === 1) return { made: planOfJson(bytes, name) };
    else throw new UnreadableFile(`${name} is a plan of Clembo's own; take it in by itself.`);
  }
  const full = tables.filter(hasRows);
  if (full.length === 0) throw new UnreadableFile(`${files[0]!.name} has no rows below its headings.`);
  // Pressed beside the reading.
  const pressing = pressed(tablesText(full), { level: constants.Z_BEST_SPEED });
  report('Looking through the columns', 0.75);
  const state = beginState(full, knownOf(known));
  const preview = previewOf(full, state);
  const packed = new Uint8Array(await pressing);
  rememberTables(packed, full);
  return { tables: packed, state, preview };
}

function wholeOf(bytes: Uint8Array, source: string): WholePlan {
  const whole = readBundle(bytes, source);
  const checked = <T>(what: string, read: z.ZodSafeParseResult<T>): T => {
    if (read.success) return read.data;
    const [issue] = read.error.issues;
    throw new UnreadableFile(`${source}: ${what} cannot be used (${issue!.path.join('.')}: ${issue!.message}).`);
  };
  return {
    ...whole,
    exhibits: whole.exhibits.map(({ name, brief }) => ({
      name,
      brief: checked(`the brief of “${name}”`, Brief.safeParse(brief)),
    })),
    folios: whole.folios.map(({ name, content }) => ({
      name,
      content: checked(`the folio “${name}”`, Folio.safeParse(content)),
    })),
  };
}

function planOfJson(bytes: Uint8Array, source: string): SentPlan {
  const { plan, problems, rowOf } = readPlanJson(new TextDecoder().decode(bytes), source);
  // Where nobody can look at what would be left out, nothing is.
  if (problems.length > 0)
    throw new UnreadableFile(
      problems
        .slice(0, 5)
        .map((p) => `${p.source}: “${p.value}” cannot be used (${p.detail}).`)
        .join(' '),
    );
  const brief = EXHIBITS.timeline.suggest(plan, schedulePlan(plan), 0);
  const placeOf = packPlaces(new Map([...rowOf].map(([ref, row]): [string, SourcePlace] => [ref, [0, row]])));
  const own = { name: source, sheet: null, map: null, content: null, aliases: {}, problems: [] };
  return { plan: packPlan(plan), promised: null, placeOf, sources: [own], maps: [], brief };
}

const knownOf = (known: readonly unknown[]): ColumnMap[] =>
  known.map((k) => ColumnMap.safeParse(k)).flatMap((k) => (k.success ? [k.data] : []));

/** An intake after a change that a person made. */
function changeIntake({ tables, state, change, known }: ChangeInput, report: Report): Previewed {
  report('Reading the rows', 0.5);
  const all = tablesOf(tables);
  const next = changeState(all, IntakeState.parse(state), IntakeChange.parse(change), knownOf(known));
  return { state: next, preview: previewOf(all, next) };
}

const previewOf = (tables: readonly Table[], state: IntakeState) =>
  previewIntake(tables, state, (parts, name) => intakeOf(tables, parts, name));

/** The rows that a person may choose from. */
function listRows({ tables, state }: RowsInput): RowsToPick {
  const all = tablesOf(tables);
  return rowsToPick(all, IntakeState.parse(state), (parts, name) => intakeOf(all, parts, name));
}

/** What the sources of a plan are kept as. */
function sourcesFor(
  packed: Uint8Array,
  tables: readonly Table[],
  parts: readonly IntakePart[],
  joint: JointIntake,
  aliases: Record<string, string> = {},
): MadeSource[] {
  return parts.map((part, k) => {
    const table = tables[part.table]!;
    return {
      name: table.source,
      sheet: table.sheet,
      map: part.map,
      // A single table is packed already.
      content: tables.length === 1 ? packed : packTables([table]),
      aliases: k === 0 ? aliases : {},
      problems: groupProblems(joint.intakes[k]!.problems),
    };
  });
}

/** Maps that a person corrected or confirmed are known the next time. */
const mapsFor = (tables: readonly Table[], parts: readonly IntakePart[]): ColumnMap[] =>
  parts
    .filter((p) => p.from !== 'guess')
    // An order that this file did not need was never chosen: the next file may have to be asked about.
    .map(({ map, table }) => (orderInTable(tables[table]!, map) === 'irrelevant' ? { ...map, dateOrder: null } : map));

/** Refuses what a person has not yet settled. */
function checkSettled(tables: readonly Table[], parts: readonly IntakePart[]): void {
  const open = parts.find((p) => p.map.dateOrder === null && p.map.columns.some((m) => isDateColumn(m)));
  if (open)
    throw new UnreadableFile(
      `Say first whether day or month comes first in the dates of ${tables[open.table]!.sheet ?? tables[open.table]!.source}.`,
    );
}

const isDateColumn = (m: ColumnMeaning): boolean => m.as === 'field' && fieldById(m.field)?.type === 'date';

/** Makes the plan of an intake, with what it promised and a first page. */
function makePlan({ tables, state, wish }: MakeInput, report: Report): SentPlan {
  report('Reading the rows', 0.2);
  const all = tablesOf(tables);
  const parts = usedParts(IntakeState.parse(state));
  const { name, strict, start } = wish;
  checkSettled(all, parts);
  const intake = start === null ? intakeOf(all, parts, name) : readParts(all, parts, { name, start });
  if (intake.rowsTaken === 0)
    throw new UnreadableFile(
      'No row of this table could be taken in. Check which columns hold the names and the dates.',
    );
  if (intake.dates === 'none') throw new UnreadableFile(NOTHING_TO_DRAW);
  if (intake.dates === 'computed' && start === null)
    throw new UnreadableFile('The table has lengths or links, but no dates. Say on which day the plan starts.');
  if (strict && intake.problems.length > 0)
    throw new UnreadableFile(
      `${intake.problems.length} cells cannot be read, and you asked to hold everything back until they can.`,
    );
  report('Working out the dates', 0.5);
  const { promised, schedule, packed } = preparedOf(intake);
  const brief = EXHIBITS.timeline.suggest(intake.plan, schedule, promised ? 1 : 0);
  forget();
  return {
    plan: packed,
    promised: promised && packPlan(promised),
    placeOf: packPlaces(intake.placeOf),
    sources: sourcesFor(tables, all, parts, intake),
    maps: mapsFor(all, parts),
    brief,
  };
}

/** Reads the source of a plan again: what it says now, beside what it said when it was read last. */
function readSourceAgain({ current, last, tables, state, same }: AgainInput, report: Report): SentAgain {
  report('Reading the rows', 0.2);
  const all = unpackTables(tables);
  const parts = usedParts(IntakeState.parse(state));
  checkSettled(all, parts);
  const before = last.flatMap((s) => {
    const map = ColumnMap.safeParse(s.map);
    const table = s.content && unpackTables(s.content)[0];
    return map.success && table ? [{ table, map: map.data, aliases: s.aliases }] : [];
  });
  const reading =
    before.length === 0
      ? null
      : {
          tables: before.map((b) => b.table),
          parts: before.map(({ map }, table): IntakePart => ({ table, map, from: 'said', reasons: [] })),
          aliases: new Map(before.flatMap((b) => Object.entries(b.aliases))),
        };
  const { base, incoming, joint, placeOf, aliases, alike, doubtful } = readAgain(
    unpackPlan(current),
    reading,
    { tables: all, parts },
    same,
  );
  if (joint.rowsTaken === 0) throw new UnreadableFile('No row of this table could be taken in. Check its column map.');
  return {
    base: packPlan(base),
    incoming: packPlan(incoming),
    placeOf: packPlaces(placeOf),
    alike,
    doubtful,
    sources: sourcesFor(tables, all, parts, joint, Object.fromEntries(aliases)),
    maps: mapsFor(all, parts),
  };
}

/** Reads a model, and says what is different from the one that it is to replace. */
async function readModel({ file, key, bytes, before }: ModelInput, report: Report): Promise<SentModel> {
  report(`Reading ${file}`, 0.1);
  const { elements, geometry, assigned, notes } = await readModelFile(bytes, file, key);
  report('Comparing', 0.8);
  const changes =
    before &&
    modelChanges(
      {
        elements: before.elements,
        body: bodyOf([{ count: before.elements.length, geometry: unpackGeometry(before.geometry) }]),
      },
      { elements, body: bodyOf([{ count: elements.length, geometry }]) },
    );
  return { elements, geometry: packGeometry(geometry), assigned, notes, changes };
}

const NOTHING_TO_DRAW =
  'No column of this table holds dates, durations or links, so there is nothing to draw. Say which column holds the dates.';

/** What is done between two tasks. */
export const between = prepareNext;

/** Everything that a hand can do. */
export const TASKS = {
  readFiles,
  changeIntake,
  listRows,
  makePlan,
  readSourceAgain,
  readModel,
  writePages,
  writePlan,
  writeWhole,
};
