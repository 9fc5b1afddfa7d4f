import type { Command } from '@clembo/core';
import { and, desc, eq, lte, sql } from 'drizzle-orm';
import type { Access } from './access';
import type { Database, Store } from './database';
import { ownPlan } from './own';
import { plan, planChange } from './schema';

/** How many changes of a plan are remembered. */
const REMEMBERED = 1000;
/** Of a change to more activities than this, the others are not found by their references. */
const TOUCHED = 5000;

/** Remembers a change, within its transaction. What was taken back before cannot be done again after it. */
export async function addChange(
  db: Database,
  access: Access,
  planId: string,
  { touched, ...change }: { words: string; command: Command; inverse: Command; touched: readonly string[] },
): Promise<void> {
  await db.delete(planChange).where(and(eq(planChange.planId, planId), eq(planChange.undone, true)));
  await db.insert(planChange).values({
    planId,
    ...change,
    words: change.words.slice(0, 300),
    touched: touched.slice(0, TOUCHED),
    person: access.person,
  });
  const [old] = await db
    .select({ id: planChange.id })
    .from(planChange)
    .where(eq(planChange.planId, planId))
    .orderBy(desc(planChange.id))
    .offset(REMEMBERED)
    .limit(1);
  if (old) await db.delete(planChange).where(and(eq(planChange.planId, planId), lte(planChange.id, old.id)));
}

export interface ChangeSummary {
  id: number;
  words: string;
  undone: boolean;
  person: string | null;
  createdAt: Date;
}

/** The last changes of a plan, or of one of its activities, the latest first. */
export async function listPlanChanges(
  { db }: Store,
  access: Access,
  planId: string,
  ref: string | null = null,
  most = 200,
): Promise<ChangeSummary[]> {
  return db
    .select({
      id: planChange.id,
      words: planChange.words,
      undone: planChange.undone,
      person: planChange.person,
      createdAt: planChange.createdAt,
    })
    .from(planChange)
    .innerJoin(plan, eq(plan.id, planChange.planId))
    .where(and(ownPlan(access, planId), ref === null ? undefined : sql`${ref} = any(${planChange.touched})`))
    .orderBy(desc(planChange.id))
    .limit(most);
}

/** What can be taken back next, and what can be done again, in words; null where there is nothing. */
export interface Turns {
  undo: string | null;
  redo: string | null;
}

export async function readTurns({ db }: Store, access: Access, planId: string): Promise<Turns> {
  const next = (undone: boolean) =>
    sql<string | null>`(select c.words from plan_change c where c.plan_id = "plan"."id" and c.undone = ${undone}
      order by case when ${undone} then c.id else -c.id end limit 1)`;
  const [row] = await db
    .select({ undo: next(false), redo: next(true) })
    .from(plan)
    .where(ownPlan(access, planId));
  return row ?? { undo: null, redo: null };
}
