import type { Plan } from '@clembo/core';
import { and, asc, count, desc, eq, max, min, sql } from 'drizzle-orm';
import type pg from 'pg';
import { acceptPlan } from './accept';
import { type Access, mayWrite } from './access';
import { type CopyValue, copyRows } from './copy';
import { type Database, inTransaction, type Store } from './database';
import { ACTIVITY_COLUMNS, activityRows, LINK_COLUMNS, linkRows } from './rows';
import { activity, calendar, codeField, codeValue, edition, link, plan } from './schema';

export interface PlanSummary {
  id: string;
  name: string;
  edition: string;
  activities: number;
  start: number | null;
  finish: number | null;
  /** The version of its working edition. */
  version: number;
  updatedAt: Date;
}

/** Where the data of an edition came from, and the row of each activity there. */
export interface Source {
  name: string;
  sheet: string | null;
  /** The column map that it was read by, of whichever reader. */
  map: unknown;
  rowOf: ReadonlyMap<string, number>;
}

export interface EditionSummary {
  id: string;
  name: string;
  working: boolean;
  createdAt: Date;
}

/** A plan as it is read: its data, and which edition that is. */
export interface StoredPlan {
  id: string;
  editionId: string;
  edition: string;
  version: number;
  plan: Plan;
  editions: EditionSummary[];
  /** Where its data came from; null for what was made here. */
  source: { name: string; sheet: string | null } | null;
  /** Rows of the source by reference, where they are known. */
  rows: Record<string, number>;
}

/** Another edition to keep with a plan. */
export interface KeptEdition {
  name: string;
  plan: Plan;
}

/**
 * Keeps a new plan with its working edition, and further editions if there are any.
 *
 * @throws PlanRefused when a plan is not what its schema accepts
 */
export async function createPlan(
  store: Store,
  access: Access,
  data: Plan,
  editionName: string,
  kept: KeptEdition[] = [],
  source: Source | null = null,
): Promise<string> {
  mayWrite(access);
  const accepted = acceptPlan(data);
  const others = kept.map((k) => ({ name: k.name, plan: acceptPlan(k.plan) }));
  return inTransaction(store, async (db, client) => {
    const [row] = await db
      .insert(plan)
      .values({
        workspaceId: access.workspace,
        name: accepted.name,
        source: accepted.source,
        inHours: accepted.inHours,
        criticalFloat: accepted.criticalFloat,
        retainedLogic: accepted.retainedLogic,
        periods: accepted.periods,
        lines: accepted.lines,
        percentShown: accepted.percentShown,
      })
      .returning({ id: plan.id });
    const planId = row!.id;
    await writeCodeFields(db, client, planId, accepted);
    for (const k of others) await writeEdition(db, client, planId, k.name, k.plan, false, null);
    await writeEdition(db, client, planId, editionName, accepted, true, source);
    return planId;
  });
}

async function writeCodeFields(db: Database, client: pg.PoolClient, planId: string, data: Plan): Promise<void> {
  if (data.codeFields.length === 0) return;
  await db
    .insert(codeField)
    .values(data.codeFields.map((f, position) => ({ planId, key: f.id, name: f.name, position })));
  const values = data.codeFields.flatMap((f) =>
    f.values.map((v, position): CopyValue[] => [planId, f.id, position, v.code, v.title, v.colour, v.shape]),
  );
  await copyRows(client, 'code_value', ['plan_id', 'field', 'position', 'code', 'title', 'colour', 'shape'], values);
}

async function writeEdition(
  db: Database,
  client: pg.PoolClient,
  planId: string,
  name: string,
  data: Plan,
  working: boolean,
  source: Source | null,
): Promise<void> {
  const [row] = await db
    .insert(edition)
    .values({
      planId,
      name,
      working,
      statusDate: data.statusDate,
      start: data.start,
      calendar: data.calendar,
      source: source && { name: source.name, sheet: source.sheet, map: source.map },
    })
    .returning({ id: edition.id });
  const editionId = row!.id;
  await db
    .insert(calendar)
    .values(data.calendars.map((spec, position) => ({ editionId, key: spec.id, position, spec })));
  await copyRows(client, 'activity', ACTIVITY_COLUMNS, activityRows(editionId, data.activities, source?.rowOf ?? null));
  await copyRows(client, 'link', LINK_COLUMNS, linkRows(editionId, data.links));
}

/** The plans of a workspace, the last changed first. */
export async function listPlans({ db }: Store, access: Access): Promise<PlanSummary[]> {
  return db
    .select({
      id: plan.id,
      name: plan.name,
      edition: edition.name,
      activities: count(activity.ref),
      start: min(activity.start),
      finish: max(activity.finish),
      version: edition.version,
      updatedAt: plan.updatedAt,
    })
    .from(plan)
    .innerJoin(edition, and(eq(edition.planId, plan.id), eq(edition.working, true)))
    .leftJoin(activity, and(eq(activity.editionId, edition.id), sql`${activity.kind} <> 'summary'`))
    .where(eq(plan.workspaceId, access.workspace))
    .groupBy(plan.id, edition.id)
    .orderBy(desc(plan.updatedAt));
}

/** Reads the working edition of a plan (or the one named), or null when the workspace has no such plan. */
export const readPlan = (
  store: Store,
  access: Access,
  planId: string,
  editionId?: string,
): Promise<StoredPlan | null> => readEdition(store.db, access, planId, editionId);

/** As {@link readPlan}, within a transaction. */
export async function readEdition(
  db: Database,
  access: Access,
  planId: string,
  editionId?: string,
): Promise<StoredPlan | null> {
  const [head] = await db
    .select()
    .from(plan)
    .where(and(eq(plan.id, planId), eq(plan.workspaceId, access.workspace)));
  if (!head) return null;
  const editions = await db.select().from(edition).where(eq(edition.planId, planId)).orderBy(desc(edition.createdAt));
  const chosen = editions.find((e) => (editionId === undefined ? e.working : e.id === editionId));
  if (!chosen) return null;
  // One after the other: within a transaction there is one connection.
  const activities = await db
    .select()
    .from(activity)
    .where(eq(activity.editionId, chosen.id))
    .orderBy(asc(activity.orderKey));
  const links = await db.select().from(link).where(eq(link.editionId, chosen.id)).orderBy(asc(link.id));
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
    source: head.source,
    inHours: head.inHours,
    criticalFloat: head.criticalFloat,
    retainedLogic: head.retainedLogic,
    calendars: calendars.map((c) => c.spec),
    calendar: chosen.calendar,
    activities: activities.map((a) => {
      const {
        editionId: _,
        orderKey: __,
        sourceRow: ___,
        fromPlace,
        toPlace,
        stretches,
        responsible,
        rates,
        ...rest
      } = a;
      return {
        ...rest,
        from: fromPlace,
        to: toPlace,
        stretches: stretches ?? [],
        responsible: responsible ?? [],
        rates: rates ?? [],
      };
    }),
    links: links.map((l) => ({ from: l.fromRef, to: l.toRef, type: l.type, lag: l.lag, lagCalendar: l.lagCalendar })),
    codeFields: fields.map((f) => ({
      id: f.key,
      name: f.name,
      values: values
        .filter((v) => v.field === f.key)
        .map(({ code, title, colour, shape }) => ({ code, title, colour, shape })),
    })),
    periods: head.periods,
    lines: head.lines,
    percentShown: head.percentShown,
  };
  return {
    id: planId,
    editionId: chosen.id,
    edition: chosen.name,
    version: chosen.version,
    // What is stored was checked when it was written.
    plan: data as Plan,
    editions: editions.map(({ id, name, working, createdAt }) => ({ id, name, working, createdAt })),
    source: chosen.source as StoredPlan['source'],
    rows: Object.fromEntries(activities.flatMap((a) => (a.sourceRow === null ? [] : [[a.ref, a.sourceRow]]))),
  };
}

/** Deletes a plan with all that belongs to it; false when the workspace has none by that id. */
export async function deletePlan({ db }: Store, access: Access, planId: string): Promise<boolean> {
  mayWrite(access);
  const gone = await db
    .delete(plan)
    .where(and(eq(plan.id, planId), eq(plan.workspaceId, access.workspace)))
    .returning({ id: plan.id });
  return gone.length > 0;
}

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
    .where(and(eq(plan.id, planId), eq(plan.workspaceId, access.workspace)));
  return row ?? null;
}
