import { BuildElement, identifierOf, type ModelChanges, unpackGeometry } from '@clembo/core';
import { and, asc, eq, isNotNull, sql } from 'drizzle-orm';
import type pg from 'pg';
import { PlanRefused } from './accept';
import { type Access, mayWrite } from './access';
import { type CopyValue, copyRows } from './copy';
import { type Database, inTransaction, type Store } from './database';
import { PlanGone } from './intakes';
import { addJob } from './jobs/jobs';
import { ownPlan, ownPlans } from './own';
import { buildElement, buildModel, plan } from './schema';

/** A model of a plan as a list of them shows it. */
export interface ModelSummary {
  id: string;
  key: string;
  file: string;
  elements: number;
  notes: string[];
  assigned: { activity: string; name: string; elements: string[] }[];
  /** The model that it is to take the place of, and what would change; null for one of its own. */
  replaces: string | null;
  changes: ModelChanges | null;
  taken: boolean;
  createdAt: Date;
}

/** What a model was read to. */
export interface KeptModel {
  elements: BuildElement[];
  /** Packed as `packGeometry` does. */
  geometry: Uint8Array;
  assigned: ModelSummary['assigned'];
  notes: string[];
  changes: ModelChanges | null;
}

/** So many models belong to one plan. */
const MOST_MODELS = 20;

const mine = (access: Access, id: string) =>
  and(
    eq(buildModel.id, id),
    sql`exists (select 1 from ${plan} where ${plan.id} = ${buildModel.planId} and ${ownPlans(access)})`,
  );

/** A key that no other model of the plan has. */
function freeKey(wanted: string, taken: ReadonlySet<string>): string {
  if (!taken.has(wanted)) return wanted;
  let k = 2;
  while (taken.has(`${wanted}-${k}`)) k++;
  return `${wanted}-${k}`;
}

/**
 * Keeps a file of a model, and asks for it to be read.
 *
 * @param replaces the model that it is a newer state of
 * @throws PlanGone when the plan or that model is not there
 */
export async function putModel(
  store: Store,
  access: Access,
  planId: string,
  { file, key, content }: { file: string; key: string; content: Uint8Array },
  replaces: string | null = null,
): Promise<{ model: string; job: string }> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    const [target] = await db.select({ id: plan.id }).from(plan).where(ownPlan(access, planId)).for('update');
    if (!target) throw new PlanGone('There is no such plan (any more).');
    const known = await db
      .select({ id: buildModel.id, key: buildModel.key, taken: buildModel.taken })
      .from(buildModel)
      .where(eq(buildModel.planId, planId));
    const old = known.find((m) => m.id === replaces && m.taken);
    if (replaces !== null && !old) throw new PlanGone('The model that this one is to replace is not there (any more).');
    if (known.length >= MOST_MODELS)
      throw new PlanRefused(`A plan has at most ${MOST_MODELS} models; remove one before another is taken in.`);
    const [row] = await db
      .insert(buildModel)
      .values({ planId, key: old?.key ?? freeKey(key, new Set(known.map((m) => m.key))), file, content, replaces })
      .returning({ id: buildModel.id });
    return { model: row!.id, job: await addJob(db, access, { kind: 'readModel', model: row!.id }) };
  });
}

/** The file of a model that waits to be read, with what it is to replace; null where there is none. */
export async function readModelFile(
  { db }: Store,
  access: Access,
  id: string,
): Promise<{ file: string; key: string; content: Uint8Array; replaces: string | null } | null> {
  const [row] = await db
    .select({
      file: buildModel.file,
      key: buildModel.key,
      content: buildModel.content,
      replaces: buildModel.replaces,
    })
    .from(buildModel)
    .where(mine(access, id));
  return row?.content ? { ...row, content: row.content } : null;
}

const COLUMNS = [
  'model_id',
  'position',
  'identifier',
  'name',
  'class',
  'type',
  'storey',
  'properties',
  'classifications',
  'length',
  'area',
  'volume',
];

function* rows(id: string, elements: readonly BuildElement[]): Generator<CopyValue[]> {
  for (const [position, e] of elements.entries())
    yield [
      id,
      position,
      identifierOf(e.ref),
      e.name,
      e.class,
      e.type,
      e.storey,
      e.properties,
      JSON.stringify(e.classifications),
      e.length,
      e.area,
      e.volume,
    ];
}

/** Checks what was read of a stranger's model: elements by their schema, and bodies that belong to them. */
function accepted({ elements, geometry, ...more }: KeptModel): KeptModel {
  const list = elements.map((e, k) => {
    const read = BuildElement.safeParse(e);
    if (read.success) return read.data;
    const [issue] = read.error.issues;
    throw new PlanRefused(`Element ${k + 1} cannot be kept (${issue!.path.join('.')}: ${issue!.message}).`);
  });
  const { parts } = unpackGeometry(geometry);
  if (parts.some((p) => p.element >= list.length))
    throw new PlanRefused('A body of this model belongs to none of its elements.');
  return { elements: list, geometry, ...more };
}

/** Keeps what a model was read to. One that replaces none belongs to the plan from then on. */
export async function keepModel(store: Store, access: Access, id: string, read: KeptModel): Promise<void> {
  mayWrite(access);
  const { elements, geometry, assigned, notes, changes } = accepted(read);
  await inTransaction(store, async (db, client) => {
    const [held] = await db
      .select({ replaces: buildModel.replaces, planId: buildModel.planId })
      .from(buildModel)
      .where(mine(access, id))
      .for('update');
    if (!held) throw new PlanGone('The model is not there any more. Take it in again.');
    await writeElements(client, id, elements);
    await db
      .update(buildModel)
      .set({
        content: null,
        geometry,
        elementCount: elements.length,
        assigned,
        notes,
        changes,
        taken: held.replaces === null,
      })
      .where(eq(buildModel.id, id));
    await touch(db, held.planId);
  });
}

/** Keeps a model that is read already with a plan, as one of its own; within a transaction. */
export async function addModel(
  db: Database,
  client: pg.PoolClient,
  planId: string,
  { file, key }: { file: string; key: string },
  read: KeptModel,
): Promise<void> {
  const { elements, geometry, assigned, notes } = accepted(read);
  const [row] = await db
    .insert(buildModel)
    .values({ planId, key, file, geometry, elementCount: elements.length, assigned, notes, taken: true })
    .returning({ id: buildModel.id });
  await writeElements(client, row!.id, elements);
}

/** As {@link addModel}, in a transaction of its own. */
export async function putReadModel(
  store: Store,
  access: Access,
  planId: string,
  about: { file: string; key: string },
  read: KeptModel,
): Promise<void> {
  mayWrite(access);
  await inTransaction(store, async (db, client) => {
    const [target] = await db.select({ id: plan.id }).from(plan).where(ownPlan(access, planId));
    if (!target) throw new PlanGone('There is no such plan (any more).');
    await addModel(db, client, planId, about, read);
  });
}

const writeElements = (client: pg.PoolClient, id: string, elements: readonly BuildElement[]): Promise<void> =>
  copyRows(client, 'build_element', COLUMNS, rows(id, elements));

const touch = (db: Database, planId: string) =>
  db.update(plan).set({ updatedAt: new Date() }).where(eq(plan.id, planId));

/** Lets a newer model take the place of the one that it replaces. */
export async function takeModel(store: Store, access: Access, id: string): Promise<void> {
  mayWrite(access);
  await inTransaction(store, async (db) => {
    const [held] = await db
      .select({ replaces: buildModel.replaces, planId: buildModel.planId, taken: buildModel.taken })
      .from(buildModel)
      .where(and(mine(access, id), isNotNull(buildModel.geometry)))
      .for('update');
    if (!held) throw new PlanGone('There is no such model (any more).');
    if (held.taken) return;
    if (held.replaces) await db.delete(buildModel).where(eq(buildModel.id, held.replaces));
    await db.update(buildModel).set({ taken: true, replaces: null, changes: null }).where(eq(buildModel.id, id));
    await touch(db, held.planId);
  });
}

/** Removes a model; what was matched and coded in it is there again when it is. */
export async function deleteModel({ db }: Store, access: Access, id: string): Promise<boolean> {
  mayWrite(access);
  const gone = await db.delete(buildModel).where(mine(access, id)).returning({ id: buildModel.id });
  return gone.length > 0;
}

/** Lets go of a model that could not be read. */
export async function refuseModel({ db }: Store, access: Access, id: string): Promise<void> {
  await db.delete(buildModel).where(and(mine(access, id), isNotNull(buildModel.content)));
}

/** The models of a plan that are read, in the order in which they came; null when the workspace has no such plan. */
export async function listModels({ db }: Store, access: Access, planId: string): Promise<ModelSummary[] | null> {
  const [target] = await db.select({ id: plan.id }).from(plan).where(ownPlan(access, planId));
  if (!target) return null;
  const rows = await db
    .select({
      id: buildModel.id,
      key: buildModel.key,
      file: buildModel.file,
      elements: buildModel.elementCount,
      notes: buildModel.notes,
      assigned: buildModel.assigned,
      replaces: buildModel.replaces,
      changes: buildModel.changes,
      taken: buildModel.taken,
      createdAt: buildModel.createdAt,
    })
    .from(buildModel)
    .where(and(eq(buildModel.planId, planId), isNotNull(buildModel.geometry)))
    .orderBy(asc(buildModel.createdAt));
  return rows as ModelSummary[];
}

/** The elements of a model, in its order; null when the workspace has no such model. */
export async function readElements({ db }: Store, access: Access, id: string): Promise<BuildElement[] | null> {
  const [model] = await db.select({ key: buildModel.key }).from(buildModel).where(mine(access, id));
  if (!model) return null;
  const rows = await db
    .select()
    .from(buildElement)
    .where(eq(buildElement.modelId, id))
    .orderBy(asc(buildElement.position));
  return rows.map(({ modelId: _, position: __, identifier, ...e }) => ({
    ref: `${model.key}/${identifier}`,
    ...e,
  })) as BuildElement[];
}

/** The bodies of a model, packed; null when the workspace has no such model, or it is not read. */
export async function readGeometry({ db }: Store, access: Access, id: string): Promise<Uint8Array | null> {
  const [row] = await db.select({ geometry: buildModel.geometry }).from(buildModel).where(mine(access, id));
  return row?.geometry ?? null;
}
