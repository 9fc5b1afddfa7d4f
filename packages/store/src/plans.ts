import { and, count, desc, eq, inArray, isNotNull, isNull, lt, max, min, sql } from 'drizzle-orm';
import { type Access, mayWrite } from './access';
import type { Store } from './database';
import { noteDeed } from './deeds';
import { longAway, ownPlans } from './own';
import { activity, edition, plan } from './schema';

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

/** The plans of a workspace, the last changed first. */
export async function listPlans({ db }: Store, access: Access): Promise<PlanSummary[]> {
  const rows = await db
    .select({
      id: plan.id,
      name: plan.name,
      edition: edition.name,
      activities: count(activity.ref),
      start: min(activity.start),
      finish: max(activity.finish),
      owed: edition.owed,
      version: edition.version,
      updatedAt: plan.updatedAt,
    })
    .from(plan)
    .innerJoin(edition, and(eq(edition.planId, plan.id), eq(edition.working, true)))
    .leftJoin(activity, and(eq(activity.editionId, edition.id), sql`${activity.kind} <> 'summary'`))
    .where(ownPlans(access))
    .groupBy(plan.id, edition.id)
    .orderBy(desc(plan.updatedAt));
  return rows.map(({ owed, ...summary }) => ({ ...summary, ...owed }));
}

/** Plans whose name holds a text, the last changed first. */
export async function findPlans(
  { db }: Store,
  access: Access,
  text: string,
  most: number,
): Promise<{ id: string; name: string; updatedAt: Date }[]> {
  return db
    .select({ id: plan.id, name: plan.name, updatedAt: plan.updatedAt })
    .from(plan)
    .where(and(ownPlans(access), sql`position(lower(${text}) in lower(${plan.name})) > 0`))
    .orderBy(desc(plan.updatedAt))
    .limit(most);
}

/** Puts a plan away with all that belongs to it; false when the workspace has none by that id. */
export const deletePlan = (store: Store, access: Access, planId: string): Promise<boolean> =>
  setAway(store, access, planId, true);

/** Brings a plan back that was put away. */
export const restorePlan = (store: Store, access: Access, planId: string): Promise<boolean> =>
  setAway(store, access, planId, false);

async function setAway({ db }: Store, access: Access, planId: string, away: boolean): Promise<boolean> {
  mayWrite(access);
  await db.delete(plan).where(lt(plan.deletedAt, longAway()));
  const rows = await db
    .update(plan)
    .set({ deletedAt: away ? new Date() : null })
    .where(
      and(
        eq(plan.id, planId),
        eq(plan.workspaceId, access.workspace),
        access.only && inArray(plan.id, [...access.only]),
        away ? isNull(plan.deletedAt) : isNotNull(plan.deletedAt),
      ),
    )
    .returning({ name: plan.name });
  for (const { name } of rows)
    await noteDeed(
      db,
      access,
      'plan',
      `${away ? 'put the plan' : 'brought the plan'} “${name}” ${away ? 'away' : 'back'}`,
      planId,
    );
  return rows.length > 0;
}
