import { applyChanges, type Changes, compareEditions, invertChanges, type Plan, sameValue } from '@clembo/core';
import { and, desc, eq } from 'drizzle-orm';
import type pg from 'pg';
import { acceptChange } from './accept';
import { type Access, mayWrite } from './access';
import { VersionPassed, writeDifference } from './changePlan';
import { inTransaction, type Store } from './database';
import { copyEdition } from './copyEdition';
import { noteLineage } from './history';
import { holdWorking } from './workingEdition';
import { keepColumnMap } from './intakes';
import { endIntake, endWith, IntakeGone } from './keepPlan';
import { noteDeed } from './deeds';
import { ownIntake, ownPlan } from './own';
import { readEdition } from './readPlan';
import type { SourcePlace } from './rows';
import { edition, intake, plan, refresh } from './schema';
import { addSources, type Origin } from './sources';
import { tellPlan } from './steps';

/** What comes of a refresh. */
export interface MadeRefresh {
  /** The version of the working edition that it was made on, and the plan with what was accepted. */
  version: number;
  after: Plan;
  /** Name of the file, or of the paste. */
  name: string;
  counts: { accepted: number; refused: number };
  origin: Origin;
  maps: { headings: readonly string[]; map: object }[];
}

/**
 * Refreshes a plan from an intake, as one step: what was worked on is kept as an edition, the plan becomes what was
 * accepted, and the intake ends; or nothing is changed. Exhibits, code books and what was made by hand stay.
 *
 * @throws VersionPassed when the plan was changed meanwhile; PlanRefused; IntakeGone; JobCancelled
 */
export async function keepRefresh(
  store: Store,
  access: Access,
  intakeId: string,
  made: MadeRefresh,
  jobId: string | null = null,
): Promise<string> {
  mayWrite(access);
  return inTransaction(store, async (db, client) => {
    const [open] = await db
      .select({ planId: intake.planId, target: intake.targetPlan })
      .from(intake)
      .where(ownIntake(access, intakeId))
      .for('update');
    const held = open?.target ? await holdWorking(db, access, open.target) : null;
    if (!open?.target || !held) throw new IntakeGone('This intake is not open any more. Take the file in again.');
    const planId = open.target;
    if (open.planId) return endWith(db, jobId, planId);
    if (held.version !== made.version) throw new VersionPassed(held.version);
    const now = (await readEdition(client, access, planId, held.id))!;
    const after = acceptChange(now.plan, sharing(now.plan, made.after));
    await copyEdition(client, held, { name: held.name });
    await noteLineage(db, access, planId, held.lineage + 1, `Refreshed from ${made.name}`);
    await tellPlan(client, planId, held.version + 1);
    const places = await addSources(db, access, planId, made.origin);
    await writeDifference(db, client, planId, held.id, now.plan, after, places);
    await writePlaces(client, held.id, places);
    await db
      .update(edition)
      .set({
        version: held.version + 1,
        lineage: held.lineage + 1,
        name: made.name,
        createdAt: new Date(),
        activityCount: after.activities.length,
        linkCount: after.links.length,
      })
      .where(eq(edition.id, held.id));
    await db
      .insert(refresh)
      .values({ planId, name: made.name, changes: compareEditions(now.plan, after), counts: made.counts });
    for (const { headings, map } of made.maps) await keepColumnMap(db, access, headings, map);
    await endIntake(db, intakeId, planId);
    await noteDeed(db, access, 'plan', `refreshed “${after.name}” from ${made.name}`, planId);
    return endWith(db, jobId, planId);
  });
}

/** The later plan, in which what is the same is the same object: only what differs is written. */
function sharing(before: Plan, after: Plan): Plan {
  const was = new Map(before.activities.map((a) => [a.ref, a]));
  const links = new Map(before.links.map((l) => [JSON.stringify(l), l]));
  const same = <T>(old: T, next: T): T => (sameValue(old, next) ? old : next);
  return {
    ...after,
    activities: after.activities.map((a) => {
      const old = was.get(a.ref);
      return old ? same(old, a) : a;
    }),
    links: after.links.map((l) => links.get(JSON.stringify(l)) ?? l),
    calendars: same(before.calendars, after.calendars),
    codeFields: same(before.codeFields, after.codeFields),
  };
}

/** Where each activity stands in the source now, also of those that have not changed. */
async function writePlaces(
  client: pg.PoolClient,
  editionId: string,
  places: ReadonlyMap<string, SourcePlace>,
): Promise<void> {
  const list = [...places];
  await client.query(
    `update activity a set source_no = p.no, source_row = p.row
       from unnest($2::text[], $3::int[], $4::int[]) as p(ref, no, row)
      where a.edition_id = $1 and a.ref = p.ref and (a.source_no, a.source_row) is distinct from (p.no, p.row)`,
    [editionId, list.map(([ref]) => ref), list.map(([, [no]]) => no), list.map(([, [, row]]) => row)],
  );
}

export interface RefreshSummary {
  id: string;
  name: string;
  counts: { accepted: number; refused: number };
  undone: boolean;
  createdAt: Date;
}

/** The refreshes of a plan, the last first. */
export async function listRefreshes({ db }: Store, access: Access, planId: string): Promise<RefreshSummary[]> {
  const rows = await db
    .select({
      id: refresh.id,
      name: refresh.name,
      counts: refresh.counts,
      undone: refresh.undone,
      createdAt: refresh.createdAt,
    })
    .from(refresh)
    .innerJoin(plan, eq(plan.id, refresh.planId))
    .where(ownPlan(access, planId))
    .orderBy(desc(refresh.createdAt));
  return rows as RefreshSummary[];
}

/** A refresh cannot be taken back or done again as it stands: what it is about has been changed since. */
export class RefreshConflict extends Error {}

/**
 * Takes a refresh back, or does it again, as one step. What was changed since on the same fields stays as it is.
 *
 * @returns the new version and how many fields were left as they are; null when there is no such refresh
 * @throws RefreshConflict when activities that it is about are not there any more
 */
export async function turnRefresh(
  store: Store,
  access: Access,
  planId: string,
  refreshId: string,
  undo: boolean,
): Promise<{ version: number; left: number } | null> {
  mayWrite(access);
  return inTransaction(store, async (db, client) => {
    const held = await holdWorking(db, access, planId);
    const [row] = await db
      .select()
      .from(refresh)
      .where(and(eq(refresh.planId, planId), eq(refresh.id, refreshId)));
    if (!held || !row) return null;
    if (row.undone === undo) return { version: held.version, left: 0 };
    const now = (await readEdition(client, access, planId, held.id))!;
    const changes = row.changes as Changes;
    const { plan: after, left } = turned(now.plan, undo ? invertChanges(changes) : changes);
    const accepted = acceptChange(now.plan, after);
    await writeDifference(db, client, planId, held.id, now.plan, accepted);
    const version = held.version + 1;
    const lineage = held.lineage + 1;
    await noteLineage(db, access, planId, lineage, `Refresh from ${row.name} ${undo ? 'taken back' : 'done again'}`);
    await tellPlan(client, planId, version);
    await db
      .update(edition)
      .set({ version, lineage, activityCount: accepted.activities.length, linkCount: accepted.links.length })
      .where(eq(edition.id, held.id));
    await db.update(refresh).set({ undone: undo }).where(eq(refresh.id, refreshId));
    return { version, left };
  });
}

/** A plan with changes applied as far as what they start from is still there. */
function turned(plan: Plan, changes: Changes): { plan: Plan; left: number } {
  let left = 0;
  const there = new Map(plan.activities.map((a) => [a.ref, a]));
  const fits = changes.changed.flatMap((c) => {
    const a = there.get(c.ref);
    const fields = a ? c.fields.filter((f) => sameValue(a[f.field], f.from)) : [];
    left += c.fields.length - fields.length;
    return fields.length > 0 ? [{ ...c, fields }] : [];
  });
  const removed = changes.removed.filter((r) => there.has(r.activity.ref));
  const added = changes.added.filter((x) => !there.has(x.activity.ref));
  left += changes.removed.length - removed.length + changes.added.length - added.length;
  const planFields = changes.plan.filter((p) => sameValue(plan[p.field], p.from));
  try {
    const next = applyChanges(plan, {
      ...changes,
      changed: fits,
      removed,
      added,
      // Positions hold only while nothing else has come or gone.
      order: null,
      linksAdded: [],
      linksRemoved: [],
      plan: planFields,
    });
    return { plan: withLinks(next, changes), left };
  } catch (error) {
    if (error instanceof RangeError)
      throw new RefreshConflict(
        `The refresh cannot be taken back or done again as a whole: ${error.message}. Make the edition before it the working one instead.`,
      );
    throw error;
  }
}

function withLinks(plan: Plan, { linksAdded, linksRemoved }: Changes): Plan {
  const key = (l: Plan['links'][number]) => JSON.stringify([l.from, l.to, l.type, l.lag, l.lagCalendar]);
  const there = new Set(plan.activities.map((a) => a.ref));
  const gone = new Set(linksRemoved.map((l) => key(l.link)));
  const stays = plan.links.filter((l) => !gone.has(key(l)) && there.has(l.from) && there.has(l.to));
  const known = new Set(stays.map(key));
  const come = linksAdded.map((l) => l.link).filter((l) => !known.has(key(l)) && there.has(l.from) && there.has(l.to));
  const links = come.length === 0 && stays.length === plan.links.length ? plan.links : [...stays, ...come];
  const activities = plan.activities.map((a) =>
    a.parent === null || there.has(a.parent) ? a : { ...a, parent: null },
  );
  return {
    ...plan,
    links,
    activities: activities.every((a, i) => a === plan.activities[i]) ? plan.activities : activities,
  };
}
