import { and, eq } from 'drizzle-orm';
import type { Access } from './access';
import type { Database } from './database';
import { ownPlan } from './own';
import { edition, plan } from './schema';

/** The working edition as it is held. */
export interface WorkingEdition {
  id: string;
  name: string;
  version: number;
  lineage: number;
}

/**
 * Holds the working edition of a plan until the transaction ends; null when the workspace has no such plan. Whoever
 * writes any of what a plan is holds it, so what is read of it behind this is of one state.
 */
export async function holdWorking(db: Database, access: Access, planId: string): Promise<WorkingEdition | null> {
  const [held] = await db
    .select({ id: edition.id, name: edition.name, version: edition.version, lineage: edition.lineage })
    .from(edition)
    .innerJoin(plan, eq(plan.id, edition.planId))
    .where(and(ownPlan(access, planId), eq(edition.planId, planId), eq(edition.working, true)))
    .for('update');
  return held ?? null;
}
