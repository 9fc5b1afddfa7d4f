import { collidesWith, type Command } from '@clembo/core';
import { and, asc, desc, eq, gt, isNotNull, lte } from 'drizzle-orm';
import type { Access } from './access';
import { type Doing, type Written, writeChange } from './changePlan';
import type { Database, Store } from './database';
import { ownChanges } from './history';
import { planChange } from './schema';
import type { WorkingEdition } from './workingEdition';

type Row = typeof planChange.$inferSelect;

/** Something cannot be taken back, or done again: somebody else has changed the same since. The message says what. */
export class TurnRefused extends Error {}

/** The row taken back, or done again, and remembered as such. */
const turning = (row: Row, undo: boolean): Doing => ({
  command: (undo ? row.inverse : row.command) as Command,
  keep: async (db, { inverse }) => {
    await db
      .update(planChange)
      .set({ undone: undo, ...(undo ? { command: inverse } : { inverse }) })
      .where(eq(planChange.id, row.id));
  },
});

async function turn(
  store: Store,
  access: Access,
  planId: string,
  version: number,
  request: string | null,
  choose: (db: Database, held: WorkingEdition) => Promise<{ rows: Row[]; undo: boolean }>,
): Promise<Written | null> {
  return writeChange(store, access, planId, version, request, async (db, held) => {
    const { rows, undo } = await choose(db, held);
    return {
      words: rows.length === 1 ? rows[0]!.words : `${rows.length} changes`,
      doing: rows.map((row) => turning(row, undo)),
    };
  });
}

/** Changes of the plan that is worked on now, without the marks where something else was put in its place. */
const ofNow = (planId: string, { lineage }: WorkingEdition) =>
  and(eq(planChange.planId, planId), eq(planChange.lineage, lineage), isNotNull(planChange.inverse));

/**
 * Takes back what the person who asks did last, or does again what they took back last. What others did stays.
 *
 * @param request chosen by who asks: sent again it is not done again
 * @returns null when there is nothing to turn, or no such plan
 * @throws TurnRefused where somebody else has changed the same since; VersionPassed, CommandRefused as changePlan
 */
export const turnChange = (
  store: Store,
  access: Access,
  planId: string,
  version: number,
  undo: boolean,
  request: string | null = null,
): Promise<Written | null> =>
  turn(store, access, planId, version, request, async (db, held) => {
    const own = ofNow(planId, held);
    const rows = await db
      .select()
      .from(planChange)
      .where(and(own, eq(planChange.undone, !undo), ownChanges(access)))
      .orderBy(undo ? desc(planChange.id) : asc(planChange.id))
      .limit(1);
    if (rows[0]) await checkAlone(db, own, rows[0], undo);
    return { rows, undo };
  });

/** Refuses where a change that still holds, and was made after this one, is about the same. */
async function checkAlone(db: Database, own: ReturnType<typeof ofNow>, row: Row, undo: boolean): Promise<void> {
  const command = (undo ? row.inverse : row.command) as Command;
  const later = await db
    .select({ words: planChange.words, person: planChange.person, command: planChange.command })
    .from(planChange)
    .where(and(own, eq(planChange.undone, false), gt(planChange.id, row.id)))
    .orderBy(desc(planChange.id));
  const meets = collidesWith(command);
  const found = later.find((l) => meets(l.command as Command));
  if (found)
    throw new TurnRefused(
      `“${row.words}” cannot be ${undo ? 'taken back' : 'done again'}: ${found.person ?? 'somebody'} has changed the same since (“${found.words}”). Change it by hand, or go to a point of the history.`,
    );
}

/**
 * Goes to a point of the history: everything behind the change is taken back, whoever did it; where it was taken back
 * itself, it and all before it is done again. Number 0 is the point before everything that is remembered.
 *
 * @returns null when the plan stands there already, or when there is no such plan
 * @throws VersionPassed, CommandRefused as changePlan
 */
export const turnTo = (
  store: Store,
  access: Access,
  planId: string,
  version: number,
  to: number,
  request: string | null = null,
): Promise<Written | null> =>
  turn(store, access, planId, version, request, async (db, held) => {
    const own = ofNow(planId, held);
    const back = await db
      .select()
      .from(planChange)
      .where(and(own, eq(planChange.undone, false), gt(planChange.id, to)))
      .orderBy(desc(planChange.id));
    if (back.length > 0) return { rows: back, undo: true };
    const again = await db
      .select()
      .from(planChange)
      .where(and(own, eq(planChange.undone, true), lte(planChange.id, to)))
      .orderBy(asc(planChange.id));
    return { rows: again, undo: false };
  });
