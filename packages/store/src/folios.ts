import { and, desc, eq, isNotNull, isNull, lt } from 'drizzle-orm';
import { type Access, commonOf, mayAdd, mayWrite } from './access';
import { inTransaction, type Store } from './database';
import { noteDeed, noteOften } from './deeds';
import { longAway } from './own';
import { folio } from './schema';

/** A folio as it is kept. What it holds is checked by whoever knows exhibits. */
export interface StoredFolio {
  id: string;
  name: string;
  content: unknown;
  /** Counts its changes. */
  version: number;
  written: { at: string; versions: Record<string, number> } | null;
  updatedAt: Date;
}

/** Someone else has changed the folio meanwhile. */
export class FolioPassed extends Error {
  constructor(readonly now: StoredFolio) {
    super('The folio has been changed since you opened it. It is shown anew; look at it, then do it again.');
  }
}

const FIELDS = {
  id: folio.id,
  name: folio.name,
  content: folio.content,
  version: folio.version,
  written: folio.written,
  updatedAt: folio.updatedAt,
};
const mine = (access: Access, id: string) =>
  and(eq(folio.id, id), eq(folio.workspaceId, commonOf(access)), isNull(folio.deletedAt));

/** The folios of a workspace, the last changed first. */
export async function listFolios({ db }: Store, access: Access): Promise<StoredFolio[]> {
  const rows = await db
    .select(FIELDS)
    .from(folio)
    .where(and(eq(folio.workspaceId, commonOf(access)), isNull(folio.deletedAt)))
    .orderBy(desc(folio.updatedAt));
  return rows as StoredFolio[];
}

/** A folio, or null when the workspace has none by that id. */
export async function readFolio({ db }: Store, access: Access, id: string): Promise<StoredFolio | null> {
  const [row] = await db.select(FIELDS).from(folio).where(mine(access, id));
  return (row as StoredFolio | undefined) ?? null;
}

export async function createFolio({ db }: Store, access: Access, name: string, content: object): Promise<string> {
  mayAdd(access);
  await db.delete(folio).where(and(isNotNull(folio.deletedAt), lt(folio.deletedAt, longAway())));
  const [row] = await db
    .insert(folio)
    .values({ workspaceId: access.workspace, name, content })
    .returning({ id: folio.id });
  await noteDeed(db, access, 'exhibit', `made the folio “${name}”`);
  return row!.id;
}

/**
 * Puts a folio in the place of the one that was read at a version; null when the workspace has none by that id.
 *
 * @throws FolioPassed when someone else was quicker
 */
export async function changeFolio(
  store: Store,
  access: Access,
  id: string,
  version: number,
  name: string,
  content: object,
): Promise<number | null> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    const [held] = await db.select(FIELDS).from(folio).where(mine(access, id)).for('update');
    if (!held) return null;
    if (held.version !== version) throw new FolioPassed(held as StoredFolio);
    await db
      .update(folio)
      .set({ name, content, version: version + 1, updatedAt: new Date() })
      .where(eq(folio.id, id));
    await noteOften(db, access, 'exhibit', `changed the folio “${name}”`);
    return version + 1;
  });
}

/** Remembers that a folio was written out, and at which versions of its plans. */
export async function noteWritten(
  { db }: Store,
  access: Access,
  id: string,
  versions: Record<string, number>,
): Promise<void> {
  await db
    .update(folio)
    .set({ written: { at: new Date().toISOString(), versions } })
    .where(mine(access, id));
}

/** Puts a folio away; it can be brought back for some days. */
export async function deleteFolio({ db }: Store, access: Access, id: string): Promise<boolean> {
  mayWrite(access);
  const gone = await db
    .update(folio)
    .set({ deletedAt: new Date() })
    .where(mine(access, id))
    .returning({ id: folio.id });
  return gone.length > 0;
}

export async function restoreFolio({ db }: Store, access: Access, id: string): Promise<boolean> {
  mayWrite(access);
  const back = await db
    .update(folio)
    .set({ deletedAt: null })
    .where(and(eq(folio.id, id), eq(folio.workspaceId, commonOf(access)), isNotNull(folio.deletedAt)))
    .returning({ id: folio.id });
  return back.length > 0;
}
