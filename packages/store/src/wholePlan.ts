import { exhibitOfFile, packPlan, PLAN_OF_FILE, type WholePlan, withEditionIds, withFolioIds } from '@clembo/core';
import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { acceptPacked } from './accept';
import { type Access, mayAdd } from './access';
import { inSnapshot, inTransaction, type Store } from './database';
import { placesOf } from './editions';
import { endIntake, endWith, holdIntake } from './keepPlan';
import { editionsOf, readEdition } from './readPlan';
import { NO_PARTS, writeParts } from './planParts';
import { planValues, writeCodeFields, writeEdition } from './writePlan';
import { listFolios } from './folios';
import { addModel, listModels, readElements, readGeometry } from './models';
import { ownPlan } from './own';
import { edition, exhibit, folio, plan, source } from './schema';

/** A plan with its editions, exhibits, folios, sources and models; null when the workspace has no such plan. */
export async function readWholePlan(store: Store, access: Access, planId: string): Promise<WholePlan | null> {
  return inSnapshot(store, async (db, client) => {
    const seen: Store = { ...store, db };
    const [head] = await db.select({ baseline: plan.baselineEdition }).from(plan).where(ownPlan(access, planId));
    if (!head) return null;
    const rows = await db.select().from(edition).where(eq(edition.planId, planId)).orderBy(desc(edition.createdAt));
    const editions: WholePlan['editions'] = [];
    for (const { id, name, note, working, baseline, createdAt } of editionsOf(rows, head.baseline)) {
      const read = (await readEdition(client, access, planId, id))!;
      const about = { id, name, note, working, baseline, createdAt: createdAt.getTime() };
      editions.push({ ...about, plan: read.plan, rows: read.rows });
    }
    const exhibits = await db
      .select({ id: exhibit.id, name: exhibit.name, brief: exhibit.brief })
      .from(exhibit)
      .where(and(eq(exhibit.planId, planId), isNull(exhibit.deletedAt)))
      .orderBy(asc(exhibit.position));
    const inFile = new Map(exhibits.map((e, k) => [e.id, exhibitOfFile(k)]));
    const models: WholePlan['models'] = [];
    for (const m of (await listModels(seen, access, planId)) ?? []) {
      if (!m.taken) continue;
      const elements = await readElements(seen, access, m.id);
      const geometry = await readGeometry(seen, access, m.id);
      if (elements && geometry)
        models.push({ key: m.key, file: m.file, elements, geometry, assigned: m.assigned, notes: m.notes });
    }
    const sources = await db.select().from(source).where(eq(source.planId, planId)).orderBy(asc(source.no));
    return {
      models,
      editions,
      exhibits: exhibits.map(({ name, brief }) => ({ name, brief: brief as Record<string, unknown> })),
      folios: (await listFolios(seen, access)).reverse().flatMap(({ name, content }) => {
        const own = withFolioIds(content as Record<string, unknown>, inFile, { from: planId, to: PLAN_OF_FILE });
        return own ? [{ name, content: own }] : [];
      }),
      sources: sources.map(({ planId: _, createdAt, ...s }) => ({
        ...s,
        aliases: s.aliases as Record<string, string>,
        problems: s.problems as unknown[],
        createdAt: createdAt.getTime(),
      })),
    };
  });
}

/**
 * Keeps a plan that came with all that belongs to it, and ends its intake; all of it or nothing.
 *
 * @returns the id of the new plan
 * @throws PlanRefused, IntakeGone, JobCancelled
 */
export async function keepWholePlan(
  store: Store,
  access: Access,
  intakeId: string,
  whole: WholePlan,
  jobId: string | null = null,
): Promise<string> {
  mayAdd(access);
  // What was kept before its parts were looked at comes back as it was; the worklist says what is wrong with it.
  const plans = whole.editions.map((e) => acceptPacked(packPlan(e.plan), false));
  const at = whole.editions.findIndex((e) => e.working);
  return inTransaction(store, async (db, client) => {
    const made = await holdIntake(db, access, intakeId);
    if (made !== null) return endWith(db, jobId, made);
    const [row] = await db
      .insert(plan)
      .values({ workspaceId: access.workspace, ...planValues(plans[at]!) })
      .returning({ id: plan.id });
    const planId = row!.id;
    await writeCodeFields(db, client, planId, plans[at]!);
    await writeParts(client, planId, NO_PARTS, plans[at]!);
    const ids = new Map<string, string>();
    for (const [k, e] of whole.editions.entries()) {
      const { name, note, working } = e;
      const about = { name, note, working, createdAt: new Date(e.createdAt) };
      ids.set(e.id, await writeEdition(db, client, planId, about, plans[k]!, placesOf(e.rows)));
    }
    const baseline = whole.editions.find((e) => e.baseline);
    if (baseline)
      await db
        .update(plan)
        .set({ baselineEdition: ids.get(baseline.id)! })
        .where(eq(plan.id, planId));
    if (whole.sources.length > 0)
      await db.insert(source).values(whole.sources.map((s) => ({ ...s, planId, createdAt: new Date(s.createdAt) })));
    const exhibits = new Map<string, string>();
    if (whole.exhibits.length > 0) {
      const made = await db
        .insert(exhibit)
        .values(
          whole.exhibits.map(({ name, brief }, k) => ({
            planId,
            name,
            brief: withEditionIds(brief, ids),
            position: k + 1,
          })),
        )
        .returning({ id: exhibit.id, position: exhibit.position });
      for (const { id, position } of made) exhibits.set(exhibitOfFile(position - 1), id);
    }
    for (const { name, content } of whole.folios) {
      const own = withFolioIds(content, exhibits, { from: PLAN_OF_FILE, to: planId });
      if (own) await db.insert(folio).values({ workspaceId: access.workspace, name, content: own });
    }
    for (const { key, file, ...read } of whole.models)
      await addModel(db, client, planId, { key, file }, { ...read, changes: null });
    await endIntake(db, intakeId, planId);
    return endWith(db, jobId, planId);
  });
}
