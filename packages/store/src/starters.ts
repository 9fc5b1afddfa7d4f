import { type PackedPlan, packPlan, type Plan, unpackPlan } from '@clembo/core';
import { and, asc, eq } from 'drizzle-orm';
import { acceptPacked } from './accept';
import { type Access, commonOf, mayAdd, mayWrite } from './access';
import type { Store } from './database';
import { starter } from './schema';

export interface StarterSummary {
  id: string;
  name: string;
  note: string;
  activities: number;
  createdAt: Date;
}

/** Keeps a plan as a starter for others; returns its id. */
export async function keepStarter(
  { db }: Store,
  access: Access,
  { name, note, plan }: { name: string; note: string; plan: Plan },
): Promise<string> {
  mayAdd(access);
  const accepted = acceptPacked(packPlan(plan));
  const [row] = await db
    .insert(starter)
    .values({ workspaceId: access.workspace, name, note, plan: accepted, activities: plan.activities.length })
    .returning({ id: starter.id });
  return row!.id;
}

/** The starters of the workspace, by name. */
export const listStarters = ({ db }: Store, access: Access): Promise<StarterSummary[]> =>
  db
    .select({
      id: starter.id,
      name: starter.name,
      note: starter.note,
      activities: starter.activities,
      createdAt: starter.createdAt,
    })
    .from(starter)
    .where(eq(starter.workspaceId, commonOf(access)))
    .orderBy(asc(starter.name));

/** The plan of a starter, or null when the workspace has none by that id. */
export async function readStarter({ db }: Store, access: Access, id: string): Promise<Plan | null> {
  const [row] = await db
    .select({ plan: starter.plan })
    .from(starter)
    .where(and(eq(starter.id, id), eq(starter.workspaceId, commonOf(access))));
  return row ? unpackPlan(acceptPacked(row.plan as PackedPlan, false)) : null;
}

/** Lets go of a starter; plans that were made from it stay. */
export async function dropStarter({ db }: Store, access: Access, id: string): Promise<boolean> {
  mayWrite(access);
  const rows = await db
    .delete(starter)
    .where(and(eq(starter.id, id), eq(starter.workspaceId, commonOf(access))))
    .returning({ id: starter.id });
  return rows.length > 0;
}
