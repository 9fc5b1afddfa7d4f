import { type PackedPlan, packPlan, type Plan, unpackPlan } from '@clembo/core';
import type pg from 'pg';
import { acceptPacked } from './accept';
import { type Access, mayAdd } from './access';
import { editionColumns, keepColumns, LARGE, pressColumns } from './columns';
import { type CopyValue, copyRows } from './copy';
import { type Database, inTransaction, type Store } from './database';
import { noteDeed } from './deeds';
import { addExhibit } from './exhibits';
import { owedOf } from './owed';
import { NO_PARTS, writeParts } from './planParts';
import { ACTIVITY_COLUMNS, activityRows, LINK_COLUMNS, linkRows, type SourcePlace } from './rows';
import { calendar, codeField, edition, plan } from './schema';
import { addSources, type Origin } from './sources';

/** Another edition to keep with a plan. */
export interface KeptEdition<P = PackedPlan> {
  name: string;
  plan: P;
}

/**
 * Keeps a new plan with its working edition, and further editions and a first exhibit if there are any.
 *
 * @throws PlanRefused when a plan is not what its schema accepts
 */
export async function createPlan(
  store: Store,
  access: Access,
  data: Plan,
  editionName: string,
  kept: KeptEdition<Plan>[] = [],
  origin: Origin | null = null,
  exhibit: { name: string; brief: object } | null = null,
): Promise<string> {
  mayAdd(access);
  const accepted = acceptPacked(packPlan(data));
  const others = kept.map((k) => ({ name: k.name, plan: acceptPacked(packPlan(k.plan)) }));
  return inTransaction(store, async (db, client) => {
    const id = await writePlan(db, client, access, accepted, editionName, others, origin);
    if (exhibit) await addExhibit(db, id, exhibit.name, exhibit.brief);
    await noteDeed(db, access, 'plan', `made the plan “${accepted.name}”`, id);
    return id;
  });
}

/** What of a plan belongs to it in all its editions and stands in its row. */
export const planValues = (accepted: Omit<Plan, 'activities' | 'links'>) => ({
  name: accepted.name,
  source: accepted.source,
  asPromised: accepted.asPromised,
  inHours: accepted.inHours,
  criticalFloat: accepted.criticalFloat,
  retainedLogic: accepted.retainedLogic,
  periods: accepted.periods,
  lines: accepted.lines,
  matchRules: accepted.matchRules,
  buildViews: accepted.buildViews,
  percentShown: accepted.percentShown,
  resources: accepted.resources,
  required: accepted.required,
  aside: accepted.aside,
  tolerance: accepted.tolerance,
  tolerances: accepted.tolerances,
  currency: accepted.currency,
  effortDay: accepted.effortDay,
});

/** Writes a plan that was accepted, within a transaction. */
export async function writePlan(
  db: Database,
  client: pg.PoolClient,
  access: Access,
  accepted: PackedPlan,
  editionName: string,
  kept: readonly KeptEdition[],
  origin: Origin | null,
): Promise<string> {
  const [row] = await db
    .insert(plan)
    .values({
      workspaceId: access.workspace,
      ...planValues(accepted),
    })
    .returning({ id: plan.id });
  const planId = row!.id;
  await writeCodeFields(db, client, planId, accepted);
  await writeParts(client, planId, NO_PARTS, accepted);
  // In one transaction all would have the same time, and no order.
  const now = Date.now();
  for (const [k, { name, plan: data }] of kept.entries())
    await writeEdition(
      db,
      client,
      planId,
      { name, working: false, createdAt: new Date(now - kept.length + k) },
      data,
      null,
    );
  const places = origin && (await addSources(db, access, planId, origin));
  await writeEdition(
    db,
    client,
    planId,
    { name: editionName, working: true, createdAt: new Date(now) },
    accepted,
    places,
  );
  return planId;
}

/** Writes the code fields of a plan with their books. */
export async function writeCodeFields(
  db: Database,
  client: pg.PoolClient,
  planId: string,
  data: Pick<Plan, 'codeFields'>,
): Promise<void> {
  if (data.codeFields.length === 0) return;
  await db
    .insert(codeField)
    .values(data.codeFields.map((f, position) => ({ planId, key: f.id, name: f.name, position, fill: f.fill })));
  const values = data.codeFields.flatMap((f) =>
    f.values.map((v, position): CopyValue[] => [
      planId,
      f.id,
      position,
      v.code,
      v.title,
      v.colour,
      v.shape,
      v.parent,
      v.height,
    ]),
  );
  await copyRows(
    client,
    'code_value',
    ['plan_id', 'field', 'position', 'code', 'title', 'colour', 'shape', 'parent', 'height'],
    values,
  );
}

/** Writes an edition with all that belongs to it, or as one that owes its rows; returns its id. */
export async function writeEdition(
  db: Database,
  client: pg.PoolClient,
  planId: string,
  { name, working, note = '', createdAt }: { name: string; working: boolean; note?: string; createdAt?: Date },
  data: PackedPlan,
  places: ReadonlyMap<string, SourcePlace> | null,
): Promise<string> {
  const isLarge = data.activities.count >= LARGE;
  const pressed = isLarge ? pressColumns(JSON.stringify(editionColumns(data, places))) : null;
  pressed?.catch(() => {});
  const [row] = await db
    .insert(edition)
    .values({
      planId,
      name,
      note,
      working,
      statusDate: data.statusDate,
      ...(!working && { source: data.source, asPromised: data.asPromised }),
      start: data.start,
      calendar: data.calendar,
      activityCount: data.activities.count,
      linkCount: data.links.count,
      owed: isLarge ? owedOf(data.activities) : null,
      ...(createdAt && { createdAt }),
    })
    .returning({ id: edition.id });
  const editionId = row!.id;
  await db
    .insert(calendar)
    .values(data.calendars.map((spec, position) => ({ editionId, key: spec.id, position, spec })));
  if (isLarge) await keepColumns(client, editionId, 1, await pressed!);
  else {
    const { activities, links } = unpackPlan(data);
    await copyRows(client, 'activity', ACTIVITY_COLUMNS, activityRows(editionId, activities, places));
    await copyRows(client, 'link', LINK_COLUMNS, linkRows(editionId, links));
  }
  return editionId;
}
