import { and, eq } from 'drizzle-orm';
import { type Access, mayWrite } from './access';
import { writeDifference } from './changePlan';
import { inTransaction, type Store } from './database';
import { ownPlan } from './own';
import { readEdition } from './readPlan';
import { copyEdition } from './copyEdition';
import { noteLineage } from './history';
import { holdWorking } from './workingEdition';
import { edition, plan } from './schema';
import { tellPlan } from './steps';

/** Changes what an edition is called, what is noted of it, or that it is what is measured against. */
export async function describeEdition(
  store: Store,
  access: Access,
  planId: string,
  editionId: string,
  change: { name?: string; note?: string; baseline?: true },
): Promise<boolean> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    const [held] = await db
      .select({ working: edition.working })
      .from(edition)
      .innerJoin(plan, eq(plan.id, edition.planId))
      .where(and(ownPlan(access, planId), eq(edition.planId, planId), eq(edition.id, editionId)));
    if (!held) return false;
    const { name, note, baseline } = change;
    if (name !== undefined || note !== undefined)
      await db
        .update(edition)
        .set({ ...(name !== undefined && { name }), ...(note !== undefined && { note }) })
        .where(eq(edition.id, editionId));
    await db
      .update(plan)
      .set({ updatedAt: new Date(), ...(baseline && !held.working && { baselineEdition: editionId }) })
      .where(eq(plan.id, planId));
    return true;
  });
}

/**
 * Keeps the working edition as it stands as an edition of its own, which never changes.
 *
 * @returns its id, or null when the workspace has no such plan
 */
export async function keepEdition(
  store: Store,
  access: Access,
  planId: string,
  name: string,
  note = '',
): Promise<string | null> {
  mayWrite(access);
  return inTransaction(store, async (db, client) => {
    const held = await holdWorking(db, access, planId);
    if (!held) return null;
    const id = await copyEdition(client, held, { name, note });
    await db.update(plan).set({ updatedAt: new Date() }).where(eq(plan.id, planId));
    return id;
  });
}

export const placesOf = (rows: Record<string, readonly [number, number]>): Map<string, readonly [number, number]> =>
  new Map(Object.entries(rows));

/**
 * Makes an edition the working one again. What was worked on before is kept as an edition, so nothing is lost; the
 * history begins anew, since it is about what stood there before.
 *
 * @returns the new version of the working edition, or null when there is no such plan or edition
 */
export async function workOnEdition(
  store: Store,
  access: Access,
  planId: string,
  editionId: string,
  keptAs: string,
): Promise<{ version: number } | null> {
  mayWrite(access);
  return inTransaction(store, async (db, client) => {
    const held = await holdWorking(db, access, planId);
    const wanted = held && held.id !== editionId ? await readEdition(client, access, planId, editionId) : null;
    if (!held || !wanted) return null;
    const now = (await readEdition(client, access, planId, held.id))!;
    await copyEdition(client, held, { name: keptAs });
    // Settings and books belong to the plan, not to an edition.
    const { activities, links, calendars, calendar, statusDate, start, source, asPromised } = wanted.plan;
    const after = { ...now.plan, activities, links, calendars, calendar, statusDate, start, source, asPromised };
    await writeDifference(db, client, planId, held.id, now.plan, after, placesOf(wanted.rows));
    const version = held.version + 1;
    await noteLineage(db, access, planId, held.lineage + 1, `Work goes on from “${wanted.edition}”`);
    await tellPlan(client, planId, version);
    await db
      .update(edition)
      .set({
        version,
        lineage: held.lineage + 1,
        name: wanted.edition,
        activityCount: activities.length,
        linkCount: links.length,
        calendar,
      })
      .where(eq(edition.id, held.id));
    return { version };
  });
}
