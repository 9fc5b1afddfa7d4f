import {
  type Activity,
  type Applied,
  applyCommand,
  collidesWith,
  type Command,
  commandWords,
  type Link,
  type Plan,
} from '@clembo/core';
import { and, eq, sql } from 'drizzle-orm';
import type pg from 'pg';
import { type Access, mayWrite } from './access';
import { acceptChange } from './accept';
import { copyRows } from './copy';
import { type Database, inTransaction, type Store } from './database';
import { differenceOf } from './difference';
import { addChange } from './history';
import { addStep, stepsBehind, tellPlan } from './steps';
import { orderKeys } from './order';
import { settleRows } from './owed';
import { readEdition } from './readPlan';
import { answerTo, keepAnswer } from './requests';
import { type WorkingEdition, holdWorking } from './workingEdition';
import { writeParts } from './planParts';
import { planValues, writeCodeFields } from './writePlan';
import { ACTIVITY_COLUMNS, activityRow, KEY_STEP, LINK_COLUMNS, linkRow, type SourcePlace } from './rows';
import { activity, calendar, codeField, edition, plan } from './schema';

/** A write that met a newer version than the one that it was made on. */
export class VersionPassed extends Error {
  constructor(readonly version: number) {
    super('The plan has been changed since you opened it. It is shown anew; look at it, then do it again.');
  }
}

/**
 * Applies a command to the working edition of a plan, if it is still at the version that the command was made on, or
 * if all that was done since is about other things.
 * Null when the workspace has no such plan.
 *
 * @throws VersionPassed when someone else was quicker; CommandRefused and PlanRefused when the command does not fit
 */
export const changePlan = (
  store: Store,
  access: Access,
  planId: string,
  version: number,
  command: Command,
  { words = null, request = null }: { words?: string | null; request?: string | null } = {},
): Promise<Written | null> =>
  writeChange(store, access, planId, version, request, async () => ({
    words: words ?? commandWords(command),
    doing: [
      {
        command,
        keep: (db, { inverse, touched }, lineage) =>
          addChange(db, access, planId, {
            words: words ?? commandWords(command),
            command,
            inverse,
            touched,
            lineage,
          }),
      },
    ],
  }));

/** What was written: the new version, what it was in words, the command that was applied, and what takes it back. */
export interface Written {
  version: number;
  words: string;
  command: Command;
  inverse: Command;
}

/** What is to be done to a plan, and how it is remembered once it is done. */
export interface Doing {
  command: Command;
  keep: (db: Database, applied: Applied, lineage: number) => Promise<void>;
}

/**
 * A command that was made on an older version is as good as new where everything that was done since is about other
 * things.
 *
 * @throws VersionPassed where it is not, or where that is not known
 */
async function checkApart(db: Database, planId: string, version: number, now: number, command: Command): Promise<void> {
  const since = version < now ? await stepsBehind(db, planId, version, now) : null;
  const meets = collidesWith(command);
  if (since === null || since.some((step) => meets(step.command))) throw new VersionPassed(now);
}

const together = (commands: Command[]): Command => (commands.length === 1 ? commands[0]! : { do: 'all', commands });

/**
 * Applies what is decided once the working edition is held, one after the other, within one transaction and as one
 * version; null where there is nothing. A request that was answered before is answered the same, and nothing is done.
 */
export async function writeChange(
  store: Store,
  access: Access,
  planId: string,
  version: number,
  request: string | null,
  decide: (db: Database, held: WorkingEdition) => Promise<{ words: string; doing: Doing[] }>,
): Promise<Written | null> {
  mayWrite(access);
  const changed = await inTransaction(store, async (db, client) => {
    const held = await holdWorking(db, access, planId);
    if (!held) return null;
    const known = request === null ? null : await answerTo<Written>(db, planId, request);
    if (known) return { written: known, editionId: held.id, after: null };
    const { words, doing } = await decide(db, held);
    if (doing.length === 0) return null;
    const command = together(doing.map((d) => d.command));
    if (held.version !== version) await checkApart(db, planId, version, held.version, command);
    const before = store.held.get(held.id, held.version) ?? (await readEdition(client, access, planId, held.id))!.plan;
    let made = before;
    const inverses: Command[] = [];
    for (const { command: one, keep } of doing) {
      const applied = applyCommand(made, one);
      made = applied.plan;
      inverses.unshift(applied.inverse);
      await keep(db, applied, held.lineage);
    }
    const after = acceptChange(before, made);
    await writeDifference(db, client, planId, held.id, before, after);
    const next = held.version + 1;
    const counts = { activityCount: after.activities.length, linkCount: after.links.length };
    await db
      .update(edition)
      .set({ version: next, ...counts })
      .where(eq(edition.id, held.id));
    await addStep(db, planId, { version: next, command, request });
    await tellPlan(client, planId, next);
    const written: Written = { version: next, words, command, inverse: together(inverses) };
    if (request !== null) await keepAnswer(db, planId, request, next, written);
    return { written, editionId: held.id, after };
  });
  if (!changed) return null;
  const { editionId, after, written } = changed;
  // Held only now that it is kept.
  if (after) store.held.put(editionId, written.version, after);
  return written;
}

/** Writes what differs between two states of the working edition; `places` says where activities come from now. */
export async function writeDifference(
  db: Database,
  client: pg.PoolClient,
  planId: string,
  editionId: string,
  before: Plan,
  after: Plan,
  places: ReadonlyMap<string, SourcePlace> | null = null,
): Promise<void> {
  await settleRows(db, client, editionId);
  await db
    .update(plan)
    .set({ ...changed(planValues(before), planValues(after)), updatedAt: new Date() })
    .where(eq(plan.id, planId));
  const { statusDate, start, calendar: own } = after;
  if (statusDate !== before.statusDate || start !== before.start || own !== before.calendar)
    await db.update(edition).set({ statusDate, start, calendar: own }).where(eq(edition.id, editionId));
  await writeParts(client, planId, before, after);
  if (after.calendars !== before.calendars) {
    await db.delete(calendar).where(eq(calendar.editionId, editionId));
    await db
      .insert(calendar)
      .values(after.calendars.map((spec, position) => ({ editionId, key: spec.id, position, spec })));
  }
  if (after.codeFields !== before.codeFields) {
    await db.delete(codeField).where(eq(codeField.planId, planId));
    await writeCodeFields(db, client, planId, after);
  }
  const { rewritten, reordered, linksRemoved, linksAdded } = differenceOf(before, after);
  if (rewritten.size > 0)
    await rewriteActivities(db, client, editionId, after.activities, rewritten, reordered, places);
  if (linksRemoved.length > 0) await removeLinks(client, editionId, linksRemoved);
  await copyRows(
    client,
    'link',
    LINK_COLUMNS,
    linksAdded.map((l) => linkRow(editionId, l)),
  );
}

/** The values that are others than before. */
function changed<T extends object>(before: T, after: T): Partial<T> {
  const keys = (Object.keys(after) as (keyof T)[]).filter((key) => before[key] !== after[key]);
  return Object.fromEntries(keys.map((key) => [key, after[key]])) as Partial<T>;
}

/**
 * Writes some activities anew. Where some have come or moved, each gets a key between those of its neighbours; where
 * there is no room, all get new keys.
 */
async function rewriteActivities(
  db: Database,
  client: pg.PoolClient,
  editionId: string,
  activities: readonly Activity[],
  refs: ReadonlySet<string>,
  reordered: boolean,
  places: ReadonlyMap<string, SourcePlace> | null,
): Promise<void> {
  const own = eq(activity.editionId, editionId);
  const these = (list: readonly string[]) => and(own, sql`${activity.ref} = any(${sql.param(list)})`);
  const held = await db
    .select({
      ref: activity.ref,
      orderKey: activity.orderKey,
      sourceNo: activity.sourceNo,
      sourceRow: activity.sourceRow,
    })
    .from(activity)
    .where(reordered ? own : these([...refs]));
  const known = new Map(held.map((h) => [h.ref, h]));
  const placeAt = (ref: string): SourcePlace | null => {
    const place = places?.get(ref);
    if (place) return place;
    const row = known.get(ref);
    return !row || row.sourceRow === null ? null : [row.sourceNo ?? 1, row.sourceRow];
  };
  const keys = reordered
    ? orderKeys(activities.map((a) => (refs.has(a.ref) ? null : known.get(a.ref)!.orderKey)))
    : activities.map((a) => known.get(a.ref)?.orderKey ?? 0);
  const all = keys === null;
  const list = activities.map((a, i) => ({ a, key: keys?.[i] ?? (i + 1) * KEY_STEP }));
  await db.delete(activity).where(these(all ? held.map((h) => h.ref) : [...refs]));
  await copyRows(
    client,
    'activity',
    ACTIVITY_COLUMNS,
    list.filter(({ a }) => all || refs.has(a.ref)).map(({ a, key }) => activityRow(editionId, key, placeAt(a.ref), a)),
  );
}

/** Of a link that stands several times, as many go as are named. */
async function removeLinks(client: pg.PoolClient, editionId: string, links: readonly Link[]): Promise<void> {
  const all = <K extends keyof Link>(key: K) => links.map((l) => l[key]);
  await client.query(
    `with gone as (
       select from_ref, to_ref, type, lag, lag_calendar, count(*) as times
       from unnest($2::text[], $3::text[], $4::text[], $5::int[], $6::text[]) g(from_ref, to_ref, type, lag, lag_calendar)
       group by 1, 2, 3, 4, 5
     ), found as (
       select id, times, row_number() over (partition by from_ref, to_ref, type, lag, lag_calendar order by id desc) as nth
       from link join gone using (from_ref, to_ref, type, lag, lag_calendar)
       where edition_id = $1
     )
     delete from link where id in (select id from found where nth <= times)`,
    [editionId, all('from'), all('to'), all('type'), all('lag'), all('lagCalendar')],
  );
}
