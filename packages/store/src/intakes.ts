import { and, eq, lt } from 'drizzle-orm';
import { type Access, mayWrite } from './access';
import type { Store } from './database';
import { columnMap, intake } from './schema';

export interface StoredIntake {
  id: string;
  source: string;
  content: Uint8Array;
  sheet: string | null;
  map: unknown;
}

/** What is not made a plan within a week is let go. */
const KEPT_DAYS = 7;

export async function createIntake(store: Store, access: Access, what: Omit<StoredIntake, 'id'>): Promise<string> {
  mayWrite(access);
  const { db } = store;
  await db
    .delete(intake)
    .where(
      and(
        eq(intake.workspaceId, access.workspace),
        lt(intake.createdAt, new Date(Date.now() - KEPT_DAYS * 86_400_000)),
      ),
    );
  const [row] = await db
    .insert(intake)
    .values({ workspaceId: access.workspace, ...what, map: what.map as object })
    .returning({ id: intake.id });
  return row!.id;
}

export async function readIntake({ db }: Store, access: Access, id: string): Promise<StoredIntake | null> {
  const [row] = await db
    .select({ id: intake.id, source: intake.source, content: intake.content, sheet: intake.sheet, map: intake.map })
    .from(intake)
    .where(and(eq(intake.id, id), eq(intake.workspaceId, access.workspace)));
  return row ?? null;
}

export async function updateIntake(
  { db }: Store,
  access: Access,
  id: string,
  change: { sheet: string | null; map: object },
): Promise<void> {
  mayWrite(access);
  await db
    .update(intake)
    .set(change)
    .where(and(eq(intake.id, id), eq(intake.workspaceId, access.workspace)));
}

export async function deleteIntake({ db }: Store, access: Access, id: string): Promise<void> {
  mayWrite(access);
  await db.delete(intake).where(and(eq(intake.id, id), eq(intake.workspaceId, access.workspace)));
}

const headingsKey = (headings: string[]): string => JSON.stringify(headings.map((h) => h.trim().toLowerCase()));

/** The column map that was last used for a table with these headings, or null. */
export async function findColumnMap({ db }: Store, access: Access, headings: string[]): Promise<unknown> {
  const [row] = await db
    .select({ map: columnMap.map })
    .from(columnMap)
    .where(and(eq(columnMap.workspaceId, access.workspace), eq(columnMap.headings, headingsKey(headings))));
  return row?.map ?? null;
}

export async function keepColumnMap({ db }: Store, access: Access, headings: string[], map: object): Promise<void> {
  mayWrite(access);
  await db
    .insert(columnMap)
    .values({ workspaceId: access.workspace, headings: headingsKey(headings), map })
    .onConflictDoUpdate({ target: [columnMap.workspaceId, columnMap.headings], set: { map, updatedAt: new Date() } });
}
