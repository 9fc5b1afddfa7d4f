import { and, asc, eq, max, sql } from 'drizzle-orm';
import { type Access, mayWrite } from './access';
import type { Store } from './database';
import { exhibit, plan } from './schema';

export interface StoredExhibit {
  id: string;
  planId: string;
  name: string;
  brief: unknown;
  updatedAt: Date;
}

const FIELDS = {
  id: exhibit.id,
  planId: exhibit.planId,
  name: exhibit.name,
  brief: exhibit.brief,
  updatedAt: exhibit.updatedAt,
};

/** The exhibits of a plan in their order. */
export async function listExhibits({ db }: Store, access: Access, planId: string): Promise<StoredExhibit[]> {
  return db
    .select(FIELDS)
    .from(exhibit)
    .innerJoin(plan, eq(plan.id, exhibit.planId))
    .where(and(eq(exhibit.planId, planId), eq(plan.workspaceId, access.workspace)))
    .orderBy(asc(exhibit.position), asc(exhibit.createdAt));
}

export async function readExhibit({ db }: Store, access: Access, id: string): Promise<StoredExhibit | null> {
  const [row] = await db
    .select(FIELDS)
    .from(exhibit)
    .innerJoin(plan, eq(plan.id, exhibit.planId))
    .where(and(eq(exhibit.id, id), eq(plan.workspaceId, access.workspace)));
  return row ?? null;
}

/** Adds an exhibit at the end; null when the workspace has no such plan. */
export async function createExhibit(
  { db }: Store,
  access: Access,
  planId: string,
  name: string,
  brief: object,
): Promise<string | null> {
  mayWrite(access);
  const [owner] = await db
    .select({ id: plan.id })
    .from(plan)
    .where(and(eq(plan.id, planId), eq(plan.workspaceId, access.workspace)));
  if (!owner) return null;
  const [last] = await db
    .select({ position: max(exhibit.position) })
    .from(exhibit)
    .where(eq(exhibit.planId, planId));
  const [row] = await db
    .insert(exhibit)
    .values({ planId, name, brief, position: (last?.position ?? 0) + 1 })
    .returning({ id: exhibit.id });
  return row!.id;
}

/** Changes name or brief; false when the workspace has no such exhibit. */
export async function updateExhibit(
  { db }: Store,
  access: Access,
  id: string,
  change: { name?: string; brief?: object },
): Promise<boolean> {
  mayWrite(access);
  const rows = await db
    .update(exhibit)
    .set({ ...change, updatedAt: new Date() })
    .where(
      and(eq(exhibit.id, id), sql`${exhibit.planId} in (select id from plan where workspace_id = ${access.workspace})`),
    )
    .returning({ id: exhibit.id });
  return rows.length > 0;
}

export async function deleteExhibit({ db }: Store, access: Access, id: string): Promise<boolean> {
  mayWrite(access);
  const rows = await db
    .delete(exhibit)
    .where(
      and(eq(exhibit.id, id), sql`${exhibit.planId} in (select id from plan where workspace_id = ${access.workspace})`),
    )
    .returning({ id: exhibit.id });
  return rows.length > 0;
}
