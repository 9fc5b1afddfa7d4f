import { isDeepStrictEqual } from 'node:util';
import { and, inArray, asc, eq, isNotNull, isNull, lt, max } from 'drizzle-orm';
import { type Access, mayWrite } from './access';
import { type Database, inTransaction, type Store } from './database';
import { noteDeed, noteOften } from './deeds';
import { longAway, ownExhibit, ownPlan, ownPlans } from './own';
import { exhibit, plan } from './schema';

export interface StoredExhibit {
  id: string;
  planId: string;
  name: string;
  brief: unknown;
  /** Counts the changes to its name and brief. */
  version: number;
  updatedAt: Date;
}

const FIELDS = {
  id: exhibit.id,
  planId: exhibit.planId,
  name: exhibit.name,
  brief: exhibit.brief,
  version: exhibit.version,
  updatedAt: exhibit.updatedAt,
};

/** The exhibits of a plan in their order. */
export async function listExhibits({ db }: Store, access: Access, planId: string): Promise<StoredExhibit[]> {
  return db
    .select(FIELDS)
    .from(exhibit)
    .innerJoin(plan, eq(plan.id, exhibit.planId))
    .where(and(ownPlan(access, planId), isNull(exhibit.deletedAt)))
    .orderBy(asc(exhibit.position), asc(exhibit.createdAt));
}

export async function readExhibit({ db }: Store, access: Access, id: string): Promise<StoredExhibit | null> {
  const [row] = await db
    .select(FIELDS)
    .from(exhibit)
    .innerJoin(plan, eq(plan.id, exhibit.planId))
    .where(ownExhibit(access, id));
  return row ?? null;
}

/** Adds an exhibit at the end; null when the workspace has no such plan. */
export async function createExhibit(
  store: Store,
  access: Access,
  planId: string,
  name: string,
  brief: object,
): Promise<string | null> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    // Whoever adds to a plan holds it meanwhile: no two exhibits get the same place.
    const [owner] = await db.select({ id: plan.id }).from(plan).where(ownPlan(access, planId)).for('update');
    if (!owner) return null;
    await noteDeed(db, access, 'exhibit', `made the page “${name}”`, planId);
    return addExhibit(db, planId, name, brief);
  });
}

/** Adds an exhibit at the end of a plan that this transaction holds. */
export async function addExhibit(db: Database, planId: string, name: string, brief: object): Promise<string> {
  const [last] = await db
    .select({ position: max(exhibit.position) })
    .from(exhibit)
    .where(eq(exhibit.planId, planId));
  const [row] = await db
    .insert(exhibit)
    .values({ planId, name, brief, position: (last?.position ?? 0) + 1 })
    .returning({ id: exhibit.id });
  return row!.id;
}

/** Puts the exhibits of a plan into an order; those that are not named follow as they stood. False for no such plan. */
export async function orderExhibits(
  store: Store,
  access: Access,
  planId: string,
  ids: readonly string[],
): Promise<boolean> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    const [owner] = await db.select({ id: plan.id }).from(plan).where(ownPlan(access, planId)).for('update');
    if (!owner) return false;
    const rows = await db
      .select({ id: exhibit.id })
      .from(exhibit)
      .where(eq(exhibit.planId, planId))
      .orderBy(asc(exhibit.position), asc(exhibit.createdAt));
    const place = new Map(ids.map((id, k) => [id, k]));
    const order = rows
      .map(({ id }, k) => ({ id, place: place.get(id) ?? ids.length + k }))
      .sort((a, b) => a.place - b.place);
    for (const [k, { id }] of order.entries())
      await db
        .update(exhibit)
        .set({ position: k + 1 })
        .where(eq(exhibit.id, id));
    return true;
  });
}

/** What is to become of an exhibit: its name, and parts of its brief. */
export interface ExhibitChange {
  name?: string;
  brief?: Record<string, unknown>;
}

/** How an exhibit stands after a change. */
export interface ChangedExhibit {
  name: string;
  brief: unknown;
  version: number;
}

/** Someone else has changed the same parts meanwhile. */
export class ExhibitPassed extends Error {
  constructor(
    /** How the exhibit stands now, with the changes of the other. */
    readonly now: ChangedExhibit,
    /** The parts that both have changed. */
    readonly parts: string[],
  ) {
    super(
      `Someone else has changed the ${parts.join(' and the ')} of this exhibit meanwhile. What they chose is shown; yours is not kept.`,
    );
  }
}

/**
 * Changes the name or parts of the brief of an exhibit, as seen at a version. What others have changed since stays
 * where it is about other parts. Null when the workspace has no such exhibit.
 *
 * @param accept checks a whole brief before it is kept
 * @throws ExhibitPassed when a part was changed by someone else since that version, to something else
 */
export async function changeExhibit(
  store: Store,
  access: Access,
  id: string,
  version: number,
  change: ExhibitChange,
  accept: (brief: unknown) => object,
): Promise<ChangedExhibit | null> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    const [held] = await db
      .select({
        name: exhibit.name,
        brief: exhibit.brief,
        version: exhibit.version,
        parts: exhibit.partVersions,
        planId: exhibit.planId,
      })
      .from(exhibit)
      .innerJoin(plan, eq(plan.id, exhibit.planId))
      .where(ownExhibit(access, id))
      .for('update', { of: exhibit });
    if (!held) return null;
    const before: Record<string, unknown> = { ...(held.brief as object), name: held.name };
    const brief = accept({ ...(held.brief as object), ...change.brief }) as Record<string, unknown>;
    // Only parts that a brief has are remembered, whatever was sent.
    const parts = Object.keys(change.brief ?? {}).filter((part) => Object.hasOwn(brief, part));
    const wanted: Record<string, unknown> = {
      ...Object.fromEntries(parts.map((part) => [part, brief[part]])),
      ...(change.name !== undefined && { name: change.name }),
    };
    const changed = Object.keys(wanted).filter((part) => !isDeepStrictEqual(before[part], wanted[part]));
    const now = { name: held.name, brief: held.brief, version: held.version };
    if (changed.length === 0) return now;
    const changedAt = new Map(Object.entries(held.parts as Record<string, number>));
    const passed = changed.filter((part) => (changedAt.get(part) ?? 0) > version);
    if (passed.length > 0) throw new ExhibitPassed(now, passed);
    const next = {
      name: change.name ?? held.name,
      brief,
      version: held.version + 1,
    };
    for (const part of changed) changedAt.set(part, next.version);
    await db
      .update(exhibit)
      .set({ ...next, partVersions: Object.fromEntries(changedAt), updatedAt: new Date() })
      .where(eq(exhibit.id, id));
    await noteOften(db, access, 'exhibit', `changed the page “${next.name}”`, held.planId);
    return next;
  });
}

/** Puts an exhibit away; false when the workspace has no such one. */
export const deleteExhibit = (store: Store, access: Access, id: string): Promise<boolean> =>
  setAway(store, access, id, true);

/** Brings an exhibit back that was put away. */
export const restoreExhibit = (store: Store, access: Access, id: string): Promise<boolean> =>
  setAway(store, access, id, false);

async function setAway({ db }: Store, access: Access, id: string, away: boolean): Promise<boolean> {
  mayWrite(access);
  await db.delete(exhibit).where(lt(exhibit.deletedAt, longAway()));
  const own = inArray(exhibit.planId, db.select({ id: plan.id }).from(plan).where(ownPlans(access)));
  const rows = await db
    .update(exhibit)
    .set({ deletedAt: away ? new Date() : null })
    .where(and(eq(exhibit.id, id), away ? isNull(exhibit.deletedAt) : isNotNull(exhibit.deletedAt), own))
    .returning({ planId: exhibit.planId, name: exhibit.name });
  for (const { planId, name } of rows)
    await noteDeed(
      db,
      access,
      'exhibit',
      `${away ? 'put the page' : 'brought the page'} “${name}” ${away ? 'away' : 'back'}`,
      planId,
    );
  return rows.length > 0;
}
