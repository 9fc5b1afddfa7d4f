import type { Command } from '@clembo/core';
import { and, asc, desc, eq, isNotNull, isNull, lte, or, sql } from 'drizzle-orm';
import type { Access } from './access';
import type { Database, Store } from './database';
import { ownPlan } from './own';
import { edition, plan, planChange } from './schema';

/** How many changes of a plan are remembered. */
const REMEMBERED = 1000;
/** Of a change to more activities than this, the others are not found by their references. */
const TOUCHED = 5000;

/** Changes of the person who asks; where nobody is told apart, of everybody. */
export const ownChanges = ({ account, person }: Access) =>
  account === undefined
    ? undefined
    : or(
        eq(planChange.account, account),
        and(isNull(planChange.account), person === null ? isNull(planChange.person) : eq(planChange.person, person)),
      );

/** Remembers a change, within its transaction. What the same person took back before cannot be done again after it. */
export async function addChange(
  db: Database,
  access: Access,
  planId: string,
  {
    touched,
    ...change
  }: { words: string; command: Command; inverse: Command; touched: readonly string[]; lineage: number },
): Promise<void> {
  await db
    .delete(planChange)
    .where(and(eq(planChange.planId, planId), eq(planChange.undone, true), ownChanges(access)));
  await remember(db, access, planId, { ...change, touched: touched.slice(0, TOUCHED) });
}

/** Remembers that something else was put in the place of the working edition: of what was before nothing is taken back. */
export const noteLineage = (
  db: Database,
  access: Access,
  planId: string,
  lineage: number,
  words: string,
): Promise<void> => remember(db, access, planId, { words, lineage });

async function remember(
  db: Database,
  access: Access,
  planId: string,
  change: Omit<typeof planChange.$inferInsert, 'planId'>,
): Promise<void> {
  await db.insert(planChange).values({
    ...change,
    planId,
    words: change.words.slice(0, 300),
    person: access.person,
    account: access.account ?? null,
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
  /** Whether one can go back to it: it is of what is worked on now. */
  reachable: boolean;
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
      reachable: sql<boolean>`${planChange.lineage} = ${edition.lineage}`,
      person: planChange.person,
      createdAt: planChange.createdAt,
    })
    .from(planChange)
    .innerJoin(plan, eq(plan.id, planChange.planId))
    .innerJoin(edition, and(eq(edition.planId, plan.id), eq(edition.working, true)))
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
  const next = async (undone: boolean): Promise<string | null> => {
    const [row] = await db
      .select({ words: planChange.words })
      .from(planChange)
      .innerJoin(plan, eq(plan.id, planChange.planId))
      .innerJoin(edition, and(eq(edition.planId, plan.id), eq(edition.working, true)))
      .where(
        and(
          ownPlan(access, planId),
          eq(planChange.lineage, edition.lineage),
          eq(planChange.undone, undone),
          isNotNull(planChange.inverse),
          ownChanges(access),
        ),
      )
      .orderBy(undone ? asc(planChange.id) : desc(planChange.id))
      .limit(1);
    return row?.words ?? null;
  };
  return { undo: await next(false), redo: await next(true) };
}
