import type { Columns } from '@clembo/core';
import { and, eq, isNotNull, isNull, lt } from 'drizzle-orm';
import type pg from 'pg';
import { valueAt } from './acceptColumns';
import { readColumns, rowsOfColumns } from './columns';
import { copyRows } from './copy';
import { type Database, inTransaction, type Store } from './database';
import { StoreDamaged } from './damaged';
import { ACTIVITY_COLUMNS, activityRows, LINK_COLUMNS, linkRows } from './rows';
import { edition, plan } from './schema';

// A large edition is there as soon as its columns are kept. Its rows, which take many times as long, are owed until
// they are written: by and by, or by the first who needs them. Nothing hangs on who that is, or on when.

type Owed = NonNullable<typeof edition.$inferSelect.owed>;

/** What is said of an edition while it owes its rows. */
export function owedOf(activities: Columns): Owed {
  const owed: Owed = { activities: 0, start: null, finish: null };
  for (let i = 0; i < activities.count; i++) {
    if (valueAt(activities, 'kind', i) === 'summary') continue;
    owed.activities++;
    const start = valueAt(activities, 'start', i) as number | null;
    const finish = valueAt(activities, 'finish', i) as number | null;
    if (start !== null && (owed.start === null || start < owed.start)) owed.start = start;
    if (finish !== null && (owed.finish === null || finish > owed.finish)) owed.finish = finish;
  }
  return owed;
}

/** Writes the rows that an edition owes, within a transaction; whoever does the same waits, and finds them there. */
export async function settleRows(db: Database, client: pg.PoolClient, editionId: string): Promise<void> {
  const [held] = await db
    .select({ owed: edition.owed, name: edition.name, version: edition.version })
    .from(edition)
    .where(eq(edition.id, editionId))
    .for('no key update');
  if (!held?.owed) return;
  const text = await readColumns(client, editionId, held.version);
  if (text === null) throw new StoreDamaged(lostColumns(held.name));
  const { activities, links, rows } = rowsOfColumns(text);
  const places = new Map(Object.entries(rows));
  await copyRows(client, 'activity', ACTIVITY_COLUMNS, activityRows(editionId, activities, places));
  await copyRows(client, 'link', LINK_COLUMNS, linkRows(editionId, links));
  await db.update(edition).set({ owed: null }).where(eq(edition.id, editionId));
}

/** As {@link settleRows}, for all editions of a plan. */
export async function settlePlan(db: Database, client: pg.PoolClient, planId: string): Promise<void> {
  const owing = await db
    .select({ id: edition.id })
    .from(edition)
    .where(and(eq(edition.planId, planId), isNotNull(edition.owed)))
    .orderBy(edition.id);
  for (const { id } of owing) await settleRows(db, client, id);
}

/** So long what was just made is left alone, in milliseconds: somebody is waiting for its page. */
const LEFT_ALONE = 5000;

/**
 * Writes rows that have been owed for a while, of plans that are not put away; gives how many editions there were.
 *
 * @throws whatever kept it from writing those of one, once all others are written
 */
export async function settleOwed(store: Store, now: Date): Promise<number> {
  const owing = await store.db
    .select({ id: edition.id })
    .from(edition)
    .innerJoin(plan, eq(plan.id, edition.planId))
    .where(
      and(isNotNull(edition.owed), isNull(plan.deletedAt), lt(edition.createdAt, new Date(now.getTime() - LEFT_ALONE))),
    )
    .limit(10);
  const faults: unknown[] = [];
  for (const { id } of owing)
    await inTransaction(store, (db, client) => settleRows(db, client, id)).catch((error) => faults.push(error));
  if (faults.length > 0) throw faults[0];
  return owing.length;
}

export const lostColumns = (name: string): string =>
  `What was kept of the edition “${name}” cannot be read. Restore the database from a backup, or take the file in again.`;
