import { and, asc, eq } from 'drizzle-orm';
import { type Access, commonOf, mayAdd, mayWrite } from './access';
import type { Store } from './database';
import { keptBrief } from './schema';

/** A brief that is kept under a name, to be laid over other plans. */
export interface KeptBrief {
  id: string;
  name: string;
  brief: unknown;
  /** Names of the code fields of the plan that it was kept from, by their ids. */
  fields: Record<string, string>;
}

/** Keeps a brief under a name, in the place of the one that had it. */
export async function keepBrief(
  { db }: Store,
  access: Access,
  { name, brief, fields }: Omit<KeptBrief, 'id'>,
): Promise<void> {
  mayAdd(access);
  const values = { workspaceId: access.workspace, name, brief, fields, createdAt: new Date() };
  await db
    .insert(keptBrief)
    .values(values)
    .onConflictDoUpdate({ target: [keptBrief.workspaceId, keptBrief.name], set: values });
}

/** The briefs that the workspace keeps, by name. */
export async function listKeptBriefs({ db }: Store, access: Access): Promise<KeptBrief[]> {
  const rows = await db
    .select({ id: keptBrief.id, name: keptBrief.name, brief: keptBrief.brief, fields: keptBrief.fields })
    .from(keptBrief)
    .where(eq(keptBrief.workspaceId, commonOf(access)))
    .orderBy(asc(keptBrief.name));
  return rows.map((r) => ({ ...r, fields: r.fields as Record<string, string> }));
}

/** Lets go of a kept brief; exhibits that were made by it stay. */
export async function dropBrief({ db }: Store, access: Access, id: string): Promise<boolean> {
  mayWrite(access);
  const rows = await db
    .delete(keptBrief)
    .where(and(eq(keptBrief.id, id), eq(keptBrief.workspaceId, commonOf(access))))
    .returning({ id: keptBrief.id });
  return rows.length > 0;
}
