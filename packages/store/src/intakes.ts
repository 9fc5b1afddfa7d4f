import { and, eq, lt } from 'drizzle-orm';
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

export async function createIntake(store: Store, workspaceId: string, what: Omit<StoredIntake, 'id'>): Promise<string> {
  const { db } = store;
  await db
    .delete(intake)
    .where(
      and(eq(intake.workspaceId, workspaceId), lt(intake.createdAt, new Date(Date.now() - KEPT_DAYS * 86_400_000))),
    );
  const [row] = await db
    .insert(intake)
    .values({ workspaceId, ...what, map: what.map as object })
    .returning({ id: intake.id });
  return row!.id;
}

export async function readIntake({ db }: Store, workspaceId: string, id: string): Promise<StoredIntake | null> {
  const [row] = await db
    .select({ id: intake.id, source: intake.source, content: intake.content, sheet: intake.sheet, map: intake.map })
    .from(intake)
    .where(and(eq(intake.id, id), eq(intake.workspaceId, workspaceId)));
  return row ?? null;
}

export async function updateIntake(
  { db }: Store,
  workspaceId: string,
  id: string,
  change: { sheet: string | null; map: object },
): Promise<void> {
  await db
    .update(intake)
    .set(change)
    .where(and(eq(intake.id, id), eq(intake.workspaceId, workspaceId)));
}

export async function deleteIntake({ db }: Store, workspaceId: string, id: string): Promise<void> {
  await db.delete(intake).where(and(eq(intake.id, id), eq(intake.workspaceId, workspaceId)));
}

const headingsKey = (headings: string[]): string => JSON.stringify(headings.map((h) => h.trim().toLowerCase()));

/** The column map that was last used for a table with these headings, or null. */
export async function findColumnMap({ db }: Store, workspaceId: string, headings: string[]): Promise<unknown> {
  const [row] = await db
    .select({ map: columnMap.map })
    .from(columnMap)
    .where(and(eq(columnMap.workspaceId, workspaceId), eq(columnMap.headings, headingsKey(headings))));
  return row?.map ?? null;
}

export async function keepColumnMap(
  { db }: Store,
  workspaceId: string,
  headings: string[],
  map: object,
): Promise<void> {
  await db
    .insert(columnMap)
    .values({ workspaceId, headings: headingsKey(headings), map })
    .onConflictDoUpdate({ target: [columnMap.workspaceId, columnMap.headings], set: { map, updatedAt: new Date() } });
}
