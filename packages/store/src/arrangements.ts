import { Arrangement } from '@clembo/core';
import { and, asc, eq } from 'drizzle-orm';
import { type Access, mayWrite } from './access';
import { inTransaction, type Store } from './database';
import { ownPlan } from './own';
import { arrangement, plan } from './schema';

export interface KeptArrangement {
  /** An empty text for how the ledger stood last. */
  name: string;
  arrangement: Arrangement;
}

/** The arrangements of a plan's ledger, by name. */
export async function listArrangements({ db }: Store, access: Access, planId: string): Promise<KeptArrangement[]> {
  const rows = await db
    .select({ name: arrangement.name, arrangement: arrangement.arrangement })
    .from(arrangement)
    .innerJoin(plan, eq(plan.id, arrangement.planId))
    .where(ownPlan(access, planId))
    .orderBy(asc(arrangement.name));
  return rows.flatMap(({ name, arrangement: kept }) => {
    const read = Arrangement.safeParse(kept);
    return read.success ? [{ name, arrangement: read.data }] : [];
  });
}

/** Keeps an arrangement under a name, in the place of the one that had it; null lets go of it. */
export async function keepArrangement(
  store: Store,
  access: Access,
  planId: string,
  name: string,
  kept: Arrangement | null,
): Promise<boolean> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    const [own] = await db.select({ id: plan.id }).from(plan).where(ownPlan(access, planId));
    if (!own) return false;
    await db.delete(arrangement).where(and(eq(arrangement.planId, planId), eq(arrangement.name, name)));
    if (kept) await db.insert(arrangement).values({ planId, name, arrangement: kept });
    return true;
  });
}
