import type { Command } from '@clembo/core';
import { and, asc, desc, eq } from 'drizzle-orm';
import type { Access } from './access';
import { writeChange } from './changePlan';
import type { Store } from './database';
import { planChange } from './schema';

/**
 * Takes the last change back, or does the one again that was taken back last.
 *
 * @returns the new version, what it was, and the command that was applied; null when there is nothing to turn, or no such plan
 * @throws VersionPassed, CommandRefused as {@link changePlan}
 */
export async function turnChange(
  store: Store,
  access: Access,
  planId: string,
  version: number,
  undo: boolean,
): Promise<{ version: number; words: string; command: Command } | null> {
  let turned: { words: string; command: Command } | null = null;
  const done = await writeChange(store, access, planId, version, async (db) => {
    const [row] = await db
      .select()
      .from(planChange)
      .where(and(eq(planChange.planId, planId), eq(planChange.undone, !undo)))
      .orderBy(undo ? desc(planChange.id) : asc(planChange.id))
      .limit(1);
    if (!row) return null;
    const command = (undo ? row.inverse : row.command) as Command;
    turned = { words: row.words, command };
    return {
      command,
      keep: async (inverse) => {
        await db
          .update(planChange)
          .set({ undone: undo, ...(undo ? { command: inverse } : { inverse }) })
          .where(eq(planChange.id, row.id));
      },
    };
  });
  return done && { version: done.version, ...turned! };
}
