import type { Command } from '@clembo/core';
import { and, asc, desc, eq, gt, lte } from 'drizzle-orm';
import type { Access } from './access';
import { type Doing, writeChange } from './changePlan';
import type { Database, Store } from './database';
import { planChange } from './schema';

/** What was turned: the new version, what it was in words, and the command that was applied. */
export interface Turned {
  version: number;
  words: string;
  command: Command;
}

type Row = typeof planChange.$inferSelect;

/** The row taken back, or done again, and remembered as such. */
function turning(db: Database, row: Row, undo: boolean): Doing {
  return {
    command: (undo ? row.inverse : row.command) as Command,
    keep: async ({ inverse }) => {
      await db
        .update(planChange)
        .set({ undone: undo, ...(undo ? { command: inverse } : { inverse }) })
        .where(eq(planChange.id, row.id));
    },
  };
}

async function turn(
  store: Store,
  access: Access,
  planId: string,
  version: number,
  choose: (db: Database) => Promise<{ rows: Row[]; undo: boolean }>,
): Promise<Turned | null> {
  let words = '';
  let commands: Command[] = [];
  const done = await writeChange(store, access, planId, version, async (db) => {
    const { rows, undo } = await choose(db);
    const doing = rows.map((row) => turning(db, row, undo));
    commands = doing.map((d) => d.command);
    words = rows.length === 1 ? rows[0]!.words : `${rows.length} changes`;
    return doing;
  });
  const command: Command = commands.length === 1 ? commands[0]! : { do: 'all', commands };
  return done && { version: done.version, words, command };
}

/**
 * Takes the last change back, or does the one again that was taken back last.
 *
 * @returns null when there is nothing to turn, or no such plan
 * @throws VersionPassed, CommandRefused as {@link changePlan}
 */
export const turnChange = (
  store: Store,
  access: Access,
  planId: string,
  version: number,
  undo: boolean,
): Promise<Turned | null> =>
  turn(store, access, planId, version, async (db) => ({
    undo,
    rows: await db
      .select()
      .from(planChange)
      .where(and(eq(planChange.planId, planId), eq(planChange.undone, !undo)))
      .orderBy(undo ? desc(planChange.id) : asc(planChange.id))
      .limit(1),
  }));

/**
 * Goes to a point of the history: everything behind the change is taken back; where it was taken back itself, it and
 * all before it is done again. Number 0 is the point before everything that is remembered.
 *
 * @returns null when the plan stands there already, or there is no such plan
 * @throws VersionPassed, CommandRefused as {@link changePlan}
 */
export const turnTo = (
  store: Store,
  access: Access,
  planId: string,
  version: number,
  to: number,
): Promise<Turned | null> =>
  turn(store, access, planId, version, async (db) => {
    const own = eq(planChange.planId, planId);
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
