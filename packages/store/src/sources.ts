import { and, asc, desc, eq, max, sql } from 'drizzle-orm';
import type { Access } from './access';
import type { Database, Store } from './database';
import { ownPlan } from './own';
import type { SourcePlace } from './rows';
import { plan, source } from './schema';

/** A table that a plan is read from. */
export interface NewSource {
  name: string;
  sheet: string | null;
  /** The column map that it was read by, of whichever reader. */
  map: unknown;
  /** The table, packed; null for what was no table. */
  content: Uint8Array | null;
  /** References of the plan by those of the source, where they differ. */
  aliases: Record<string, string>;
  /** What could not be read of it. */
  problems: unknown[];
}

/** Where the data of a plan came from, and the place of each activity there: which of the sources, and its row. */
export interface Origin {
  sources: readonly NewSource[];
  placeOf: ReadonlyMap<string, readonly [position: number, row: number]>;
}

export interface SourceSummary {
  no: number;
  name: string;
  sheet: string | null;
}

/** Keeps the sources of a reading, within a transaction; returns where every activity stands in them. */
export async function addSources(
  db: Database,
  access: Access,
  planId: string,
  origin: Origin,
): Promise<Map<string, SourcePlace>> {
  const [last] = await db
    .select({ no: max(source.no), reading: max(source.reading) })
    .from(source)
    .where(eq(source.planId, planId));
  const first = (last?.no ?? 0) + 1;
  const reading = (last?.reading ?? 0) + 1;
  if (origin.sources.length > 0)
    await db
      .insert(source)
      .values(origin.sources.map((s, k) => ({ planId, no: first + k, reading, person: access.person, ...s })));
  return new Map([...origin.placeOf].map(([ref, [position, row]]) => [ref, [first + position, row]]));
}

/** What the sources of a plan are called, the last read first. */
export const sourcesOf = (db: Database, planId: string): Promise<SourceSummary[]> =>
  db
    .select({ no: source.no, name: source.name, sheet: source.sheet })
    .from(source)
    .where(eq(source.planId, planId))
    .orderBy(desc(source.no));

/** A source as it is listed, with what could not be read of it. */
export interface ListedSource extends SourceSummary {
  reading: number;
  problems: unknown[];
  hasTable: boolean;
  /** Who took it in; null where nobody is told apart. */
  person: string | null;
  createdAt: Date;
}

/** The sources of a plan without their tables, the last read first, with what could not be read of each. */
export async function listSources({ db }: Store, access: Access, planId: string): Promise<ListedSource[]> {
  const rows = await db
    .select({
      no: source.no,
      reading: source.reading,
      name: source.name,
      sheet: source.sheet,
      problems: source.problems,
      person: source.person,
      createdAt: source.createdAt,
      hasTable: sql<boolean>`${source.content} is not null`,
    })
    .from(source)
    .innerJoin(plan, eq(plan.id, source.planId))
    .where(and(ownPlan(access, planId), eq(source.planId, planId)))
    .orderBy(desc(source.no));
  return rows.map((r) => ({ ...r, problems: r.problems as unknown[] }));
}

export interface StoredSource extends NewSource {
  no: number;
}

const fields = {
  no: source.no,
  name: source.name,
  sheet: source.sheet,
  map: source.map,
  content: source.content,
  aliases: source.aliases,
  problems: source.problems,
};

/** A source of a plan with its table, or null when there is none by that number. */
export async function readSource(
  { db }: Store,
  access: Access,
  planId: string,
  no: number,
): Promise<StoredSource | null> {
  const [row] = await db
    .select(fields)
    .from(source)
    .innerJoin(plan, eq(plan.id, source.planId))
    .where(and(ownPlan(access, planId), eq(source.planId, planId), eq(source.no, no)));
  return (row as StoredSource | undefined) ?? null;
}

/** The sources that a plan was read from last, in their order. */
export async function lastSources({ db }: Store, access: Access, planId: string): Promise<StoredSource[]> {
  const rows = await db
    .select({ ...fields, reading: source.reading })
    .from(source)
    .innerJoin(plan, eq(plan.id, source.planId))
    .where(and(ownPlan(access, planId), eq(source.planId, planId)))
    .orderBy(desc(source.reading), asc(source.no));
  const last = rows[0]?.reading;
  return rows.filter((r) => r.reading === last).map(({ reading: _, ...row }) => row as StoredSource);
}
