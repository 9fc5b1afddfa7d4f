import { type Activity, applyCommand, type Command, compareEditions, type Link, type Plan } from '@clembo/core';
import { and, eq, sql } from 'drizzle-orm';
import type pg from 'pg';
import { type Access, mayWrite } from './access';
import { acceptPlan } from './accept';
import { copyRows } from './copy';
import { type Database, inTransaction, type Store } from './database';
import { displaced, orderKeys } from './order';
import { readEdition } from './plans';
import { ACTIVITY_COLUMNS, activityRow, KEY_STEP, LINK_COLUMNS, linkRow } from './rows';
import { activity, edition, plan } from './schema';

/** A write that met a newer version than the one that it was made on. */
export class VersionPassed extends Error {
  constructor(readonly version: number) {
    super('The plan has been changed since you opened it. It is shown anew; look at it, then do it again.');
  }
}

/**
 * Applies a command to the working edition of a plan, if it is still at the version that the command was made on.
 * Null when the workspace has no such plan.
 *
 * @throws VersionPassed when someone else was quicker; CommandRefused and PlanRefused when the command does not fit
 */
export async function changePlan(
  store: Store,
  access: Access,
  planId: string,
  version: number,
  command: Command,
): Promise<{ version: number; inverse: Command } | null> {
  mayWrite(access);
  return inTransaction(store, async (db, client) => {
    const [held] = await db
      .select({ id: edition.id, version: edition.version })
      .from(edition)
      .innerJoin(plan, eq(plan.id, edition.planId))
      .where(and(eq(plan.id, planId), eq(plan.workspaceId, access.workspace), eq(edition.working, true)))
      .for('update');
    if (!held) return null;
    if (held.version !== version) throw new VersionPassed(held.version);
    const before = (await readEdition(db, access, planId, held.id))!.plan;
    const { plan: after, inverse } = applyCommand(before, command);
    await writeDifference(db, client, planId, held.id, before, acceptPlan(after));
    const next = version + 1;
    await db.update(edition).set({ version: next }).where(eq(edition.id, held.id));
    return { version: next, inverse };
  });
}

/** Writes what differs between two states of the working edition. */
async function writeDifference(
  db: Database,
  client: pg.PoolClient,
  planId: string,
  editionId: string,
  before: Plan,
  after: Plan,
): Promise<void> {
  await db
    .update(plan)
    .set({
      name: after.name,
      source: after.source,
      criticalFloat: after.criticalFloat,
      retainedLogic: after.retainedLogic,
      percentShown: after.percentShown,
      periods: after.periods,
      updatedAt: new Date(),
    })
    .where(eq(plan.id, planId));
  await db.update(edition).set({ statusDate: after.statusDate, start: after.start }).where(eq(edition.id, editionId));
  if (before.activities === after.activities && before.links === after.links) return;
  const changes = compareEditions(before, after);
  const moved = changes.order === null ? [] : displaced(changes.order.from, changes.order.to);
  const rewritten = new Set([
    ...changes.changed.map((c) => c.ref),
    ...changes.removed.map((r) => r.activity.ref),
    ...changes.added.map((x) => x.activity.ref),
    ...moved,
  ]);
  if (rewritten.size > 0) await rewriteActivities(db, client, editionId, after.activities, rewritten);
  for (const { link } of changes.linksRemoved) await removeLink(client, editionId, link);
  await copyRows(
    client,
    'link',
    LINK_COLUMNS,
    changes.linksAdded.map(({ link }) => linkRow(editionId, link)),
  );
}

/** Writes some activities anew, each with a key between those of its neighbours; where there is no room, all get new keys. */
async function rewriteActivities(
  db: Database,
  client: pg.PoolClient,
  editionId: string,
  activities: readonly Activity[],
  refs: ReadonlySet<string>,
): Promise<void> {
  const held = await db
    .select({ ref: activity.ref, orderKey: activity.orderKey, sourceRow: activity.sourceRow })
    .from(activity)
    .where(eq(activity.editionId, editionId));
  const known = new Map(held.map((h) => [h.ref, h]));
  const keys = orderKeys(activities.map((a) => (refs.has(a.ref) ? null : known.get(a.ref)!.orderKey)));
  const all = keys === null;
  const list = activities.map((a, i) => ({ a, key: keys?.[i] ?? (i + 1) * KEY_STEP }));
  const gone = all ? held.map((h) => h.ref) : [...refs];
  await db
    .delete(activity)
    .where(and(eq(activity.editionId, editionId), sql`${activity.ref} = any(${sql.param(gone)})`));
  await copyRows(
    client,
    'activity',
    ACTIVITY_COLUMNS,
    list
      .filter(({ a }) => all || refs.has(a.ref))
      .map(({ a, key }) => activityRow(editionId, key, known.get(a.ref)?.sourceRow ?? null, a)),
  );
}

/** Of a link that stands several times, one goes. */
async function removeLink(client: pg.PoolClient, editionId: string, l: Link): Promise<void> {
  await client.query(
    `delete from link where id = (select id from link where edition_id = $1 and from_ref = $2 and to_ref = $3
       and type = $4 and lag = $5 and lag_calendar = $6 order by id limit 1)`,
    [editionId, l.from, l.to, l.type, l.lag, l.lagCalendar],
  );
}
