import { readFile } from 'node:fs/promises';
import { basename, extname } from 'node:path';
import {
  CalendarSpec,
  civilFromDay,
  dayOf,
  FIVE_DAY,
  type Plan,
  parseIsoDate,
  SEVEN_DAY,
  SIX_DAY,
  startOfDay,
  type WholePlan,
} from '@clembo/core';
import {
  beginState,
  type ColumnMap,
  type ColumnMeaning,
  fieldById,
  fitted,
  hasRows,
  type Intake,
  looksLikeBundle,
  looksLikeJson,
  mainTable,
  type Problem,
  PROMISED_IN_SOURCE,
  promisedEdition,
  readBundle,
  readPlan,
  readPlanJson,
  readTables,
  type Table,
} from '@clembo/formats';
import { UsageError } from './fail';

/** The options that say how a plan file is read. */
export interface LoadOptions {
  map?: string;
  sheet?: string;
  'date-order'?: string;
  year?: string;
  calendar?: string;
  holidays?: string;
  start?: string;
  source?: string;
  'status-date'?: string;
  'as-promised'?: boolean;
  retained?: boolean;
  override?: boolean;
}

export interface Loaded {
  plan: Plan;
  problems: Problem[];
  /** Row of the file of every reference. */
  rowOf: Map<string, number>;
  /** Name of the edition that was read: of a table its file; empty where nothing names it. */
  edition: string;
  /** What the file itself promised, in an edition or in baseline columns; null where it has none. */
  promised: { name: string; plan: Plan } | null;
  /** Editions that the file holds beside the working one, the oldest first. */
  editions: { id: string; name: string; plan: Plan }[];
  /** The exhibits that the file holds. */
  exhibits: WholePlan['exhibits'];
  /** The folios that the file holds. */
  folios: WholePlan['folios'];
  /** The models that the file holds. */
  models: WholePlan['models'];
}

/** Reads a plan from a table, a calendar, a model or our JSON, and lays the options over it. */
export async function loadPlan(file: string, options: LoadOptions): Promise<Loaded> {
  const bytes = await readBytes(file);
  const calendar = await readCalendar(options.calendar);
  const loaded = looksLikeBundle(bytes)
    ? loadBundle(readBundle(bytes, basename(file)))
    : looksLikeJson(bytes)
      ? {
          ...readPlanJson(new TextDecoder().decode(bytes), basename(file)),
          edition: '',
          promised: null,
          editions: [],
          exhibits: [],
          folios: [],
          models: [],
        }
      : await loadTable(bytes, file, options, calendar);
  return { ...loaded, plan: await withOptions(loaded.plan, options, calendar) };
}

/** Of a plan with all that belongs to it, the working edition and what it is measured against. */
function loadBundle({ editions, exhibits, folios, models }: WholePlan): Loaded {
  const { plan, name: edition } = editions.find((e) => e.working)!;
  return {
    plan,
    edition,
    problems: [],
    rowOf: new Map(plan.activities.map((a, k) => [a.ref, k + 1])),
    promised: editions.find((e) => e.baseline) ?? null,
    editions: editions
      .filter((e) => !e.working)
      .map(({ id, name, plan: kept }) => ({ id, name, plan: kept }))
      .toReversed(),
    exhibits,
    folios,
    models,
  };
}

/** A table of a file with the map by which it is read. */
export interface LoadedTable {
  table: Table;
  map: ColumnMap;
  /** Whether a person said any of it. */
  said: boolean;
}

/**
 * Reads the table of a file and settles what its columns mean: as said, as it was read before where that fits, or as
 * guessed.
 *
 * @param known maps by which the source was read before
 */
export async function loadMappedTable(
  file: string,
  options: LoadOptions,
  known: readonly ColumnMap[] = [],
): Promise<LoadedTable> {
  return mapTable(await readBytes(file), file, options, known);
}

async function mapTable(
  bytes: Uint8Array,
  file: string,
  options: LoadOptions,
  known: readonly ColumnMap[],
): Promise<LoadedTable> {
  const tables = await readTables(bytes, basename(file));
  const table = options.sheet === undefined ? mainTable(tables) : tables.find((t) => t.sheet === options.sheet);
  if (!table)
    throw new UsageError(`${file} has no sheet “${options.sheet}”. It has: ${tables.map((t) => t.sheet).join(', ')}.`);
  if (!hasRows(table)) throw new UsageError(`${file} has no rows below its headings.`);
  const [part] = beginState([table], known).parts;
  let { map } = part!;
  if (options.map !== undefined) {
    applyMap(map, await readJson(options.map), options.map);
    // How a column is written depends on what it means.
    map = fitted(table, map);
  }
  const order = options['date-order'];
  if (order !== undefined) {
    if (order !== 'dmy' && order !== 'mdy' && order !== 'ymd')
      throw new UsageError(`--date-order takes dmy, mdy or ymd, not “${order}”.`);
    map.dateOrder = order;
  }
  if (map.dateOrder === null) {
    throw new UsageError(
      `${file}: the dates leave open whether day or month comes first. Say which with --date-order dmy, mdy or ymd.`,
    );
  }
  if (options.year !== undefined) {
    if (!/^(19|2[012])\d\d$/.test(options.year))
      throw new UsageError(`--year takes a year such as 2026, not “${options.year}”.`);
    map.year = Number(options.year);
  }
  return { table, map, said: part!.from !== 'guess' || options.map !== undefined || order !== undefined };
}

async function loadTable(
  bytes: Uint8Array,
  file: string,
  options: LoadOptions,
  calendar: CalendarSpec | null,
): Promise<Loaded> {
  const { table, map } = await mapTable(bytes, file, options, []);
  const intake = takeIn(table, map, file, calendar);
  const { plan, problems, rowOf, baseline } = intake;
  const promised = promisedEdition(plan, baseline);
  return {
    plan,
    edition: basename(file),
    problems,
    rowOf,
    promised: promised && { name: PROMISED_IN_SOURCE, plan: promised },
    editions: [],
    exhibits: [],
    folios: [],
    models: [],
  };
}

/** Reads a table by its map; with a calendar of the person's own it is the plan's. */
export const takeIn = (table: Table, map: ColumnMap, file: string, calendar: CalendarSpec | null): Intake =>
  readPlan(table, map, {
    name: basename(file, extname(file)),
    ...(calendar && {
      calendars: [calendar, FIVE_DAY, SIX_DAY, SEVEN_DAY].filter(
        (c, i, all) => all.findIndex((x) => x.id === c.id) === i,
      ),
      calendar: calendar.id,
    }),
  });

/** Lays a map of the person's own over the guessed one: headings to field ids, `code:NAME` or `skip`. */
function applyMap(map: ColumnMap, said: unknown, file: string): void {
  if (typeof said !== 'object' || said === null || Array.isArray(said))
    throw new UsageError(`${file}: expected an object of headings and fields.`);
  for (const [heading, meaning] of Object.entries(said)) {
    const column = map.headings.indexOf(heading);
    if (column < 0)
      throw new UsageError(
        `${file}: there is no column “${heading}”. The columns are: ${map.headings.filter(Boolean).join(', ')}.`,
      );
    map.columns[column] = readMeaning(heading, meaning, file);
    const now = map.columns[column]!;
    map.columns.forEach((m, c) => {
      if (
        c !== column &&
        now.as === 'field' &&
        m.as === 'field' &&
        m.field === now.field &&
        !(map.headings[c]! in said)
      )
        map.columns[c] = { as: 'skip' };
    });
  }
}

function readMeaning(heading: string, meaning: unknown, file: string): ColumnMeaning {
  if (meaning === 'skip') return { as: 'skip' };
  if (typeof meaning === 'string' && meaning.startsWith('code:'))
    return { as: 'code', name: meaning.slice(5) || heading };
  if (typeof meaning === 'string' && fieldById(meaning))
    return { as: 'field', field: meaning as Extract<ColumnMeaning, { as: 'field' }>['field'] };
  throw new UsageError(
    `${file}: “${String(meaning)}” for “${heading}” is not a field. Use a field such as name, start or finish, code:NAME, or skip.`,
  );
}

export async function withOptions(plan: Plan, options: LoadOptions, calendar: CalendarSpec | null): Promise<Plan> {
  const changed = { ...plan };
  if (calendar) {
    changed.calendars = [calendar, ...plan.calendars.filter((c) => c.id !== calendar.id)];
    changed.calendar = calendar.id;
  }
  if (options.holidays !== undefined) changed.calendars = await withRegion(changed, options.holidays);
  if (options.start !== undefined) changed.start = readDay(options.start, '--start');
  if (options['status-date'] !== undefined) changed.statusDate = readDay(options['status-date'], '--status-date');
  if (options.source !== undefined) {
    const source = options.source === 'drawn' ? 'given' : options.source;
    if (source !== 'given' && source !== 'computed')
      throw new UsageError(`--source takes drawn or computed, not “${options.source}”.`);
    changed.source = source;
  }
  if (options['as-promised']) changed.asPromised = true;
  if (options.override && options.retained) throw new UsageError('--retained and --override exclude each other.');
  if (options.override) changed.retainedLogic = false;
  if (options.retained) changed.retainedLogic = true;
  return changed;
}

/** Every calendar of the plan without the public holidays of a region, for the years around its dates. */
async function withRegion(plan: Plan, region: string): Promise<CalendarSpec[]> {
  // A large library: loaded only when it is asked for.
  const { isHolidayRegion, publicHolidays, withHolidays } = await import('@clembo/formats/holidays');
  if (!isHolidayRegion(region))
    throw new UsageError(`--holidays takes a country such as GB, or a part of one such as DE-BE, not “${region}”.`);
  const years = plan.activities
    .flatMap((a) => [a.start, a.finish, a.actualStart, a.actualFinish])
    .concat(plan.start, plan.statusDate)
    .filter((m) => m !== null)
    .map((m) => civilFromDay(dayOf(m)).year);
  const first = years.reduce((a, b) => Math.min(a, b), years[0] ?? 2026);
  const last = years.reduce((a, b) => Math.max(a, b), first);
  const holidays = publicHolidays(region, first - 1, last + 10);
  return plan.calendars.map((c) => withHolidays(c, holidays));
}

function readDay(text: string, option: string): number {
  const day = parseIsoDate(text);
  if (day === null) throw new UsageError(`${option} takes a date such as 2026-09-14, not “${text}”.`);
  return startOfDay(day);
}

export async function readCalendar(said: string | undefined): Promise<CalendarSpec | null> {
  if (said === undefined) return null;
  const standard = [FIVE_DAY, SIX_DAY, SEVEN_DAY].find((c) => c.id === said);
  if (standard) return standard;
  const result = CalendarSpec.safeParse(await readJson(said));
  if (result.success) return result.data;
  const issue = result.error.issues[0]!;
  throw new UsageError(
    `${said}: not a calendar: ${issue.path.join('.') || 'the document'}: ${issue.message}. Use five-day, six-day, seven-day or a JSON file.`,
  );
}

export async function readBytes(file: string): Promise<Uint8Array> {
  try {
    return await readFile(file);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    throw new UsageError(
      code === 'ENOENT' ? `There is no file ${file}.` : `${file} could not be read (${code ?? 'unknown reason'}).`,
    );
  }
}

/** Reads a JSON file, with the place in it when it is not JSON. */
export async function readJson(file: string): Promise<unknown> {
  const text = new TextDecoder().decode(await readBytes(file));
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new UsageError(`${file} is not JSON: ${(error as Error).message}.`);
  }
}
