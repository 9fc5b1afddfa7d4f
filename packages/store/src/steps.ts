import type { Command } from '@clembo/core';
import { and, asc, eq, gt, lte } from 'drizzle-orm';
import type pg from 'pg';
import type { Access } from './access';
import type { Database, Store } from './database';
import { ownPlan } from './own';
import { edition, plan, planStep } from './schema';

/** Where it is told that a plan has another version: `PLAN VERSION`. */
export const PLAN_CHANNEL = 'clembo_plan';
/** How many steps of a plan are kept: who was away for longer opens it anew. */
const KEPT = 500;

/** What made a version of a plan. */
export interface PlanStep {
  version: number;
  command: Command;
  /** The id of the request that asked for it; null where it gave none. */
  request: string | null;
}

/** Keeps the step that made a version, within its transaction. */
export async function addStep(db: Database, planId: string, { version, command, request }: PlanStep): Promise<void> {
  await db.insert(planStep).values({ planId, version, command, request });
  if (version % 50 === 0)
    await db.delete(planStep).where(and(eq(planStep.planId, planId), lte(planStep.version, version - KEPT)));
}

/** Tells everybody, when the transaction is kept, that a plan has another version. */
export async function tellPlan(client: pg.PoolClient, planId: string, version: number): Promise<void> {
  await client.query('select pg_notify($1, $2)', [PLAN_CHANNEL, `${planId} ${version}`]);
}

/** Steps of the held plan behind a version; null where they are not all there. */
export async function stepsBehind(
  db: Database,
  planId: string,
  version: number,
  now: number,
): Promise<PlanStep[] | null> {
  const rows = await db
    .select({ version: planStep.version, command: planStep.command, request: planStep.request })
    .from(planStep)
    .where(and(eq(planStep.planId, planId), gt(planStep.version, version), lte(planStep.version, now)))
    .orderBy(asc(planStep.version));
  return rows.length === now - version ? (rows as PlanStep[]) : null;
}

/**
 * What was done to a plan since a version. Without steps where they are not all there: the plan is opened anew then.
 * Null when the workspace has no such plan.
 */
export async function readSteps(
  { db }: Store,
  access: Access,
  planId: string,
  version: number,
): Promise<{ version: number; steps: PlanStep[] | null } | null> {
  const [held] = await db
    .select({ version: edition.version })
    .from(edition)
    .innerJoin(plan, eq(plan.id, edition.planId))
    .where(and(ownPlan(access, planId), eq(edition.planId, planId), eq(edition.working, true)));
  if (!held) return null;
  return {
    version: held.version,
    steps: held.version < version ? null : await stepsBehind(db, planId, version, held.version),
  };
}
