import { DEFAULT_TOLERANCE, type Plan } from '@clembo/core';
import { and, asc, desc, eq, sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import type pg from 'pg';
import type { Access } from './access';
import {
  columnsText,
  countRows,
  type EditionRows,
  keepColumns,
  LARGE,
  pressColumns,
  readColumns,
  rowsOfColumns,
} from './columns';
import { checkCount, StoreDamaged } from './damaged';
import { type Database, inSnapshot, type Store } from './database';
import { lostColumns } from './owed';
import { ownPlan } from './own';
import { readParts } from './planParts';
import { readActivities, readLinks, type SourcePlace } from './rows';
import { calendar, codeField, codeValue, edition, plan } from './schema';
import { sourcesOf, type SourceSummary } from './sources';

export interface EditionSummary {
  id: string;
  name: string;
  note: string;
  working: boolean;
  /** What is measured against. */
  baseline: boolean;
  statusDate: number | null;
  activities: number | null;
  createdAt: Date;
}

/** A plan as it is read: its data, and which edition that is. */
export interface StoredPlan {
  id: string;
  editionId: string;
  edition: string;
  version: number;
  /** As of {@link readPlanMark}. */
  mark: string;
  plan: Plan;
  editions: EditionSummary[];
  /** Where its data came from. */
  sources: SourceSummary[];
  /** Source and row by reference, where they are known. */
  rows: Record<string, SourcePlace>;
}

/** Reads the working edition of a plan (or the one named) as it is at one moment; null when the workspace has no such plan. */
export const readPlan = (
  store: Store,
  access: Access,
  planId: string,
  editionId?: string,
): Promise<StoredPlan | null> => inSnapshot(store, (_, client) => readEdition(client, access, planId, editionId));

/** A plan whose activities, links and rows of sources are the text of a JSON object: as columns, for who sends them on. */
export type PlanAsColumns = Omit<StoredPlan, 'plan' | 'rows'> & {
  plan: Omit<Plan, 'activities' | 'links'>;
  columns: string;
};

/** As {@link readPlan}, with its rows as columns. */
export async function readPlanAsColumns(
  store: Store,
  access: Access,
  planId: string,
  editionId?: string,
): Promise<PlanAsColumns | null> {
  const found = await inSnapshot(store, async (_, client) => {
    const found = await readWithout(client, access, planId, editionId);
    if (!found) return null;
    const { chosen, head } = found;
    const kept = await readKeptColumns(client, chosen);
    return { chosen, head, kept, rows: kept === null ? await readRows(client, chosen) : null };
  });
  if (!found) return null;
  const { chosen, head, kept, rows } = found;
  if (rows === null) return { ...head, columns: kept! };
  const columns = columnsText(rows);
  // For the next one who asks. Where that fails, it is read from the rows again.
  if ((chosen.activityCount ?? 0) >= LARGE)
    pressColumns(columns)
      .then((content) => keepColumns(store.pool, chosen.id, chosen.version, content))
      .catch(() => {});
  return { ...head, columns };
}

/** As {@link readPlan}, within a transaction that is a snapshot, or that holds the working edition. */
export async function readEdition(
  client: pg.PoolClient,
  access: Access,
  planId: string,
  editionId?: string,
): Promise<StoredPlan | null> {
  const found = await readWithout(client, access, planId, editionId);
  if (!found) return null;
  const { chosen, head } = found;
  const kept = await readKeptColumns(client, chosen);
  const { rows, ...own } = kept === null ? await readRows(client, chosen) : rowsOfColumns(kept);
  return { ...head, plan: { ...head.plan, ...own }, rows };
}

/** What is kept as columns of an edition as it is now, once it is seen that its rows are all there, or owed. */
async function readKeptColumns(client: pg.PoolClient, chosen: EditionRow): Promise<string | null> {
  if ((chosen.activityCount ?? 0) < LARGE) return null;
  const kept = await readColumns(client, chosen.id, chosen.version);
  if (chosen.owed) {
    if (kept === null) throw new StoreDamaged(lostColumns(chosen.name));
    return kept;
  }
  if (kept === null) return null;
  const { activities, links } = await countRows(client, chosen.id);
  checkWhole(chosen, activities, links);
  return kept;
}

async function readRows(client: pg.PoolClient, chosen: EditionRow): Promise<EditionRows> {
  // One after the other: within a transaction there is one connection.
  const { activities, rows } = await readActivities(client, chosen.id);
  const links = await readLinks(client, chosen.id);
  checkWhole(chosen, activities.length, links.length);
  return { activities, links, rows };
}

/** All of a plan but what stands in the rows of the edition that is wanted. */
async function readWithout(
  client: pg.PoolClient,
  access: Access,
  planId: string,
  editionId: string | undefined,
): Promise<{ chosen: EditionRow; head: Omit<PlanAsColumns, 'columns'> } | null> {
  const db = drizzle(client);
  const [head] = await db.select().from(plan).where(ownPlan(access, planId));
  if (!head) return null;
  const editions = await db.select().from(edition).where(eq(edition.planId, planId)).orderBy(desc(edition.createdAt));
  const chosen = editions.find((e) => (editionId === undefined ? e.working : e.id === editionId));
  if (!chosen) return null;
  const calendars = await db
    .select()
    .from(calendar)
    .where(eq(calendar.editionId, chosen.id))
    .orderBy(asc(calendar.position));
  const fields = await db.select().from(codeField).where(eq(codeField.planId, planId)).orderBy(asc(codeField.position));
  const values = await db.select().from(codeValue).where(eq(codeValue.planId, planId)).orderBy(asc(codeValue.position));
  const data = {
    name: head.name,
    statusDate: chosen.statusDate,
    start: chosen.start,
    // What was kept stays as it was, whichever dates the plan shows since.
    source: chosen.source ?? head.source,
    asPromised: chosen.asPromised ?? head.asPromised,
    inHours: head.inHours,
    criticalFloat: head.criticalFloat,
    retainedLogic: head.retainedLogic,
    calendars: calendars.map((c) => c.spec),
    calendar: chosen.calendar,
    codeFields: fields.map((f) => ({
      id: f.key,
      name: f.name,
      fill: f.fill,
      values: values
        .filter((v) => v.field === f.key)
        .map(({ code, title, colour, shape, parent, height }) => ({ code, title, colour, shape, parent, height })),
    })),
    periods: head.periods,
    lines: head.lines,
    ...(await readParts(db as unknown as Database, planId)),
    matchRules: head.matchRules,
    buildViews: head.buildViews,
    percentShown: head.percentShown,
    resources: head.resources,
    required: head.required,
    aside: head.aside,
    tolerance: head.tolerance ?? DEFAULT_TOLERANCE,
    tolerances: head.tolerances,
    currency: head.currency,
    effortDay: head.effortDay,
  };
  return {
    chosen,
    head: {
      id: planId,
      editionId: chosen.id,
      edition: chosen.name,
      version: chosen.version,
      mark: markOf(chosen, head.updatedAt, editions.length),
      // What is stored was checked when it was written.
      plan: data as PlanAsColumns['plan'],
      editions: editionsOf(editions, head.baselineEdition),
      sources: await sourcesOf(db as unknown as Database, planId),
    },
  };
}

/** The editions of a plan, the latest first; null when the workspace has no such plan. */
export const listEditions = (store: Store, access: Access, planId: string): Promise<EditionSummary[] | null> =>
  inSnapshot(store, async (db) => {
    const [head] = await db.select({ baseline: plan.baselineEdition }).from(plan).where(ownPlan(access, planId));
    if (!head) return null;
    const editions = await db.select().from(edition).where(eq(edition.planId, planId)).orderBy(desc(edition.createdAt));
    return editionsOf(editions, head.baseline);
  });

type EditionRow = typeof edition.$inferSelect;

/** Editions as they are shown: the first that was kept is what was promised, unless another is said to be. */
export function editionsOf(editions: readonly EditionRow[], baseline: string | null): EditionSummary[] {
  const kept = editions.filter((e) => !e.working);
  const promised = kept.find((e) => e.id === baseline) ?? kept.at(-1);
  return editions.map(({ id, name, note, working, statusDate, activityCount, createdAt }) => ({
    id,
    name,
    note,
    working,
    baseline: id === promised?.id,
    statusDate,
    activities: activityCount,
    createdAt,
  }));
}

/** A mark of the state of an edition, which changes with everything that {@link readPlan} gives; null when there is none. */
export async function readPlanMark(
  { db }: Store,
  access: Access,
  planId: string,
  editionId?: string,
): Promise<string | null> {
  const [row] = await db
    .select({
      id: edition.id,
      version: edition.version,
      updatedAt: plan.updatedAt,
      editions: sql<number>`(select count(*)::int from edition e where e.plan_id = ${plan.id})`,
    })
    .from(plan)
    .innerJoin(edition, eq(edition.planId, plan.id))
    .where(
      and(ownPlan(access, planId), editionId === undefined ? eq(edition.working, true) : eq(edition.id, editionId)),
    );
  return row ? markOf(row, row.updatedAt, row.editions) : null;
}

const markOf = ({ id, version }: { id: string; version: number }, updatedAt: Date, editions: number): string =>
  `${id}-${version}-${updatedAt.getTime().toString(36)}-${editions}`;

/** Name, edition, version and status date of a plan, without its activities. */
export async function readPlanHead(
  { db }: Store,
  access: Access,
  planId: string,
): Promise<{ name: string; edition: string; version: number; statusDate: number | null } | null> {
  const [row] = await db
    .select({ name: plan.name, edition: edition.name, version: edition.version, statusDate: edition.statusDate })
    .from(plan)
    .innerJoin(edition, and(eq(edition.planId, plan.id), eq(edition.working, true)))
    .where(ownPlan(access, planId));
  return row ?? null;
}

function checkWhole(
  { name, activityCount, linkCount }: { name: string; activityCount: number | null; linkCount: number | null },
  activities: number,
  links: number,
): void {
  checkCount(name, 'activities', activityCount, activities);
  checkCount(name, 'links', linkCount, links);
}
