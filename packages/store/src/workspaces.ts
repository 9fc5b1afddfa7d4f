import { asc, eq } from 'drizzle-orm';
import { type Access, mayAdd, mayOwn } from './access';
import { inTransaction, type Store } from './database';
import { noteDeed } from './deeds';
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

/** How a workspace is set. */
export interface WorkspaceSettings {
  name: string;
  locale: string;
  /** Whether comments are seen by those who only look. */
  commentsForAll: boolean;
  /** How new pages begin; what it holds is checked by whoever knows exhibits. */
  house: unknown;
}

export async function readSettings({ db }: Store, access: Access): Promise<WorkspaceSettings> {
  const [row] = await db
    .select({
      name: workspace.name,
      locale: workspace.locale,
      commentsForAll: workspace.commentsForAll,
      house: workspace.house,
    })
    .from(workspace)
    .where(eq(workspace.id, access.workspace));
  return row!;
}

/** Sets what a person chose; the name and who sees comments only by an owner. */
export async function changeSettings(
  store: Store,
  access: Access,
  change: { [K in keyof WorkspaceSettings]?: WorkspaceSettings[K] | undefined },
): Promise<void> {
  mayAdd(access);
  if (change.name !== undefined || change.commentsForAll !== undefined) mayOwn(access);
  const set = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
  await inTransaction(store, async (db) => {
    await db.update(workspace).set(set).where(eq(workspace.id, access.workspace));
    await noteDeed(
      db,
      access,
      'settings',
      `set ${Object.keys(set)
        .map((k) => WORDS[k as keyof WorkspaceSettings])
        .join(', ')}`,
    );
  });
}

const WORDS: Record<keyof WorkspaceSettings, string> = {
  name: 'the name of the workspace',
  locale: 'how numbers are written',
  commentsForAll: 'who sees comments',
  house: 'how new pages begin',
};
