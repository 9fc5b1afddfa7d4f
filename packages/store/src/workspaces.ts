import { asc, eq } from 'drizzle-orm';
import { type Access, mayWrite } from './access';
import type { Store } from './database';
import { workspace } from './schema';

/** The first workspace, made when there is none. Until there are accounts, everything is in it. */
export async function firstWorkspace({ db }: Store, name = 'Workspace'): Promise<{ id: string; created: boolean }> {
  const [row] = await db.select({ id: workspace.id }).from(workspace).orderBy(asc(workspace.createdAt)).limit(1);
  if (row) return { id: row.id, created: false };
  const [made] = await db.insert(workspace).values({ name }).returning({ id: workspace.id });
  return { id: made!.id, created: true };
}

/** A further workspace. */
export async function createWorkspace({ db }: Store, name: string): Promise<string> {
  const [made] = await db.insert(workspace).values({ name }).returning({ id: workspace.id });
  return made!.id;
}

/** Whose notation a workspace writes numbers and money in (BCP 47). */
export async function localeOf({ db }: Store, access: Access): Promise<string> {
  const [row] = await db.select({ locale: workspace.locale }).from(workspace).where(eq(workspace.id, access.workspace));
  return row?.locale ?? 'en-GB';
}

export async function chooseLocale({ db }: Store, access: Access, locale: string): Promise<void> {
  mayWrite(access);
  await db.update(workspace).set({ locale }).where(eq(workspace.id, access.workspace));
}
