import { type Activity, type Link, Plan } from '@clembo/core';
import { and, asc, count, desc, eq, max, min, sql } from 'drizzle-orm';
import type pg from 'pg';
import { type CopyValue, copyRows } from './copy';
import { type Database, inTransaction, type Store } from './database';
import { activity, calendar, codeField, codeValue, edition, link, plan } from './schema';

export interface PlanSummary {
  id: string;
  name: string;
  edition: string;
  activities: number;
  start: number | null;
  finish: number | null;
  updatedAt: Date;
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
}

/** Keeps a new plan with its working edition, and further editions if there are any. */
export async function createPlan(
  store: Store,
  workspaceId: string,
  data: Plan,
  editionName: string,
  kept: { name: string; plan: Plan }[] = [],
): Promise<string> {
  return inTransaction(store, async (db, client) => {
    const [row] = await db
      .insert(plan)
      .values({
        workspaceId,
        name: data.name,
        source: data.source,
        inHours: data.inHours,
        criticalFloat: data.criticalFloat,
        retainedLogic: data.retainedLogic,
        periods: data.periods,
        lines: data.lines,
        percentShown: data.percentShown,
      })
      .returning({ id: plan.id });
    const planId = row!.id;
    await writeCodeFields(db, client, planId, data);
    for (const k of kept) await writeEdition(db, client, planId, k.name, k.plan, false);
    await writeEdition(db, client, planId, editionName, data, true);
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

const ACTIVITY_COLUMNS = [
  'edition_id',
  'position',
  'ref',
  'name',
  'kind',
  'parent',
  'calendar',
  'duration',
  'start',
  'finish',
  'actual_start',
  'actual_finish',
  'percent',
  'remaining',
  'constraint',
  'deadline',
  'stretches',
  'on_hold',
  'codes',
  'responsible',
  'effort',
  'actual_effort',
  'cost',
  'actual_cost',
  'from_place',
  'to_place',
  'quantity',
  'rate',
  'crews',
  'line',
  'occupies',
  'rates',
  'notes',
];

function* activityRows(editionId: string, activities: Activity[]): Generator<CopyValue[]> {
  for (let i = 0; i < activities.length; i++) {
    const a = activities[i]!;
    yield [
      editionId,
      i,
      a.ref,
      a.name,
      a.kind,
      a.parent,
      a.calendar,
      a.duration,
      a.start,
      a.finish,
      a.actualStart,
      a.actualFinish,
      a.percent,
      a.remaining,
      a.constraint,
      a.deadline,
      a.stretches.length > 0 ? a.stretches : null,
      a.onHold,
      a.codes,
      a.responsible.length > 0 ? a.responsible : null,
      a.effort,
      a.actualEffort,
      a.cost,
      a.actualCost,
      a.from,
      a.to,
      a.quantity,
      a.rate,
      a.crews,
      a.line,
      a.occupies,
      a.rates.length > 0 ? a.rates : null,
      a.notes,
    ];
  }
}

function* linkRows(editionId: string, links: Link[]): Generator<CopyValue[]> {
  for (let i = 0; i < links.length; i++) {
    const l = links[i]!;
    yield [editionId, i, l.from, l.to, l.type, l.lag, l.lagCalendar];
  }
}

async function writeEdition(
  db: Database,
  client: pg.PoolClient,
  planId: string,
  name: string,
  data: Plan,
  working: boolean,
): Promise<void> {
  const [row] = await db
    .insert(edition)
    .values({ planId, name, working, statusDate: data.statusDate, start: data.start, calendar: data.calendar })
    .returning({ id: edition.id });
  const editionId = row!.id;
  await db
    .insert(calendar)
    .values(data.calendars.map((spec, position) => ({ editionId, key: spec.id, position, spec })));
  await copyRows(client, 'activity', ACTIVITY_COLUMNS, activityRows(editionId, data.activities));
  await copyRows(
    client,
    'link',
    ['edition_id', 'position', 'from_ref', 'to_ref', 'type', 'lag', 'lag_calendar'],
    linkRows(editionId, data.links),
  );
}

/** The plans of a workspace, the last changed first. */
export async function listPlans({ db }: Store, workspaceId: string): Promise<PlanSummary[]> {
  return db
    .select({
      id: plan.id,
      name: plan.name,
      edition: edition.name,
      activities: count(activity.ref),
      start: min(activity.start),
      finish: max(activity.finish),
      updatedAt: plan.updatedAt,
    })
    .from(plan)
    .innerJoin(edition, and(eq(edition.planId, plan.id), eq(edition.working, true)))
    .leftJoin(activity, and(eq(activity.editionId, edition.id), sql`${activity.kind} <> 'summary'`))
    .where(eq(plan.workspaceId, workspaceId))
    .groupBy(plan.id, edition.id)
    .orderBy(desc(plan.updatedAt));
}

/** Reads the working edition of a plan (or the one named), or null when the workspace has no such plan. */
export async function readPlan(
  store: Store,
  workspaceId: string,
  planId: string,
  editionId?: string,
): Promise<StoredPlan | null> {
  const { db } = store;
  const [head] = await db
    .select()
    .from(plan)
    .where(and(eq(plan.id, planId), eq(plan.workspaceId, workspaceId)));
  if (!head) return null;
  const editions = await db.select().from(edition).where(eq(edition.planId, planId)).orderBy(desc(edition.createdAt));
  const chosen = editions.find((e) => (editionId === undefined ? e.working : e.id === editionId));
  if (!chosen) return null;
  const [activities, links, calendars, fields, values] = await Promise.all([
    db.select().from(activity).where(eq(activity.editionId, chosen.id)).orderBy(asc(activity.position)),
    db.select().from(link).where(eq(link.editionId, chosen.id)).orderBy(asc(link.position)),
    db.select().from(calendar).where(eq(calendar.editionId, chosen.id)).orderBy(asc(calendar.position)),
    db.select().from(codeField).where(eq(codeField.planId, planId)).orderBy(asc(codeField.position)),
    db.select().from(codeValue).where(eq(codeValue.planId, planId)).orderBy(asc(codeValue.position)),
  ]);
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
      const { editionId: _, position: __, fromPlace, toPlace, stretches, responsible, rates, ...rest } = a;
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
  };
}

/** Renames a plan; false when the workspace has none by that id. */
export async function renamePlan({ db }: Store, workspaceId: string, planId: string, name: string): Promise<boolean> {
  const changed = await db
    .update(plan)
    .set({ name, updatedAt: new Date() })
    .where(and(eq(plan.id, planId), eq(plan.workspaceId, workspaceId)))
    .returning({ id: plan.id });
  return changed.length > 0;
}

export async function deletePlan({ db }: Store, workspaceId: string, planId: string): Promise<boolean> {
  const gone = await db
    .delete(plan)
    .where(and(eq(plan.id, planId), eq(plan.workspaceId, workspaceId)))
    .returning({ id: plan.id });
  return gone.length > 0;
}

/** Name, edition, version and status date of a plan, without its activities. */
export async function readPlanHead(
  { db }: Store,
  workspaceId: string,
  planId: string,
): Promise<{ name: string; edition: string; version: number; statusDate: number | null } | null> {
  const [row] = await db
    .select({ name: plan.name, edition: edition.name, version: edition.version, statusDate: edition.statusDate })
    .from(plan)
    .innerJoin(edition, and(eq(edition.planId, plan.id), eq(edition.working, true)))
    .where(and(eq(plan.id, planId), eq(plan.workspaceId, workspaceId)));
  return row ?? null;
}
