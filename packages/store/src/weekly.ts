import { and, asc, desc, eq, exists, isNull, lte, sql } from 'drizzle-orm';
import { DateTime, IANAZone } from 'luxon';
import { z } from 'zod';
import { type Access, mayWrite } from './access';
import { type Database, inTransaction, type Store } from './database';
import { addJob, askFor } from './jobs/jobs';
import { FOLIO_FORMATS } from './jobs/kinds';
import { addMail } from './mail';
import { ownPlan } from './own';
import { member, person, plan, weeklyReport, weeklyRun } from './schema';

/** Kinds of change that may be taken without a person. */
export const WEEKLY_KINDS = [
  'moved',
  'progressed',
  'resized',
  'added',
  'removed',
  'renamed',
  'relinked',
  'recoded',
  'outlined',
  'other',
] as const;

/** What a plan does by itself every week. */
export const WeeklySaid = z.object({
  /** Rests while false. */
  on: z.boolean().default(true),
  /** 0 is Monday. */
  weekday: z.int().min(0).max(6),
  /** Minutes since midnight, in the zone. */
  minute: z.int().min(0).max(1439),
  zone: z.string().refine((zone) => IANAZone.isValidZone(zone), 'is no time zone, such as Europe/Lisbon'),
  /** Where the newest file is looked for, below the folder of all runs; only files whose name holds these words. */
  folder: z.string().trim().min(1).max(300),
  words: z.string().trim().max(200).default(''),
  /** What is taken without asking: all changes, some kinds, or none, so that a person decides. */
  accept: z.union([z.literal('all'), z.literal('wait'), z.array(z.enum(WEEKLY_KINDS)).min(1)]),
  /** What is written then, as which files, and where to. */
  folio: z.uuid().nullable().default(null),
  formats: z.array(z.enum(FOLIO_FORMATS)).max(FOLIO_FORMATS.length).default(['pdf']),
  out: z.string().trim().min(1).max(300).default('out'),
});
export type WeeklySaid = z.infer<typeof WeeklySaid>;

/** How a run went: all done, nothing new to take, waiting for a person, or failed. */
export type WeeklyState = 'done' | 'nothing' | 'waiting' | 'failed';

export interface WeeklyReport {
  id: string;
  at: Date;
  state: WeeklyState;
  file: string | null;
  words: string;
  intakeId: string | null;
  written: string[];
}

export interface Weekly {
  said: WeeklySaid;
  nextAt: Date | null;
  tries: number;
  lastFile: string | null;
  reports: WeeklyReport[];
}

/** So many reports of a plan are kept. */
const KEPT = 60;
/** What fails is tried again after so many minutes, so often, before it waits for the next week. */
const AGAIN = 15;
const TRIES = 3;

/**
 * The next time at which a weekly run is due, after a moment: the weekday and the time of day as clocks in the zone show
 * them, also across the change to summer time (a time that a day leaves out is an hour later then, as clocks are).
 */
export function nextTime(
  { weekday, minute, zone }: Pick<WeeklySaid, 'weekday' | 'minute' | 'zone'>,
  after: Date,
): Date {
  const now = DateTime.fromJSDate(after, { zone });
  const day = now.startOf('week').plus({ days: weekday });
  const on = (d: DateTime) => d.set({ hour: Math.floor(minute / 60), minute: minute % 60 });
  const this_ = on(day);
  return (this_ > now ? this_ : on(day.plus({ weeks: 1 }))).toJSDate();
}

/** The date and the time of day that clocks in a zone show. */
export const dateIn = (zone: string, at: Date): string => DateTime.fromJSDate(at, { zone }).toFormat('yyyy-MM-dd');
export const timeIn = (zone: string, at: Date): string => DateTime.fromJSDate(at, { zone }).toFormat('HH:mm');

/** The weekly run of a plan, with how it went; null where the plan has none, or the workspace no such plan. */
export async function readWeekly({ db }: Store, access: Access, planId: string): Promise<Weekly | null> {
  const [row] = await db
    .select({ run: weeklyRun })
    .from(weeklyRun)
    .innerJoin(plan, eq(plan.id, weeklyRun.planId))
    .where(and(ownPlan(access, planId), eq(weeklyRun.planId, planId)));
  if (!row) return null;
  const reports = await db
    .select()
    .from(weeklyReport)
    .where(eq(weeklyReport.planId, planId))
    .orderBy(desc(weeklyReport.at))
    .limit(KEPT);
  const { said, nextAt, tries, lastFile } = row.run;
  return {
    said: WeeklySaid.parse(said),
    nextAt,
    tries,
    lastFile,
    reports: reports.map(({ planId: _, ...r }) => r as WeeklyReport),
  };
}

/** Keeps what a plan does every week, and when it does it next; false when the workspace has no such plan. */
export async function keepWeekly(
  store: Store,
  access: Access,
  planId: string,
  said: WeeklySaid,
  now: Date,
): Promise<boolean> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    const [own] = await db.select({ id: plan.id }).from(plan).where(ownPlan(access, planId));
    if (!own) return false;
    const what = { said, nextAt: said.on ? nextTime(said, now) : null, tries: 0, updatedAt: now };
    await db
      .insert(weeklyRun)
      .values({ planId, workspaceId: access.workspace, ...what })
      .onConflictDoUpdate({ target: weeklyRun.planId, set: what });
    return true;
  });
}

/** Ends the weekly run of a plan, with its reports. */
export async function dropWeekly(store: Store, access: Access, planId: string): Promise<boolean> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    const [own] = await db.select({ id: plan.id }).from(plan).where(ownPlan(access, planId));
    if (!own) return false;
    const gone = await db.delete(weeklyRun).where(eq(weeklyRun.planId, planId)).returning({ id: weeklyRun.planId });
    return gone.length > 0;
  });
}

/** Does it now; gives the job. */
export const askWeekly = (store: Store, access: Access, planId: string): Promise<string> =>
  askFor(store, access, { kind: 'weeklyRun', plan: planId });

/**
 * Asks for all runs that are due, each once however many processes look, and sets when each is due next.
 *
 * @returns how many were asked for
 */
export async function askDueRuns(store: Store, now: Date): Promise<number> {
  return inTransaction(store, async (db) => {
    const due = await db
      .select()
      .from(weeklyRun)
      .where(
        and(
          lte(weeklyRun.nextAt, now),
          exists(
            db
              .select({ id: plan.id })
              .from(plan)
              .where(and(eq(plan.id, weeklyRun.planId), isNull(plan.deletedAt))),
          ),
        ),
      )
      .orderBy(asc(weeklyRun.nextAt))
      .limit(50)
      .for('update', { skipLocked: true });
    for (const { planId, workspaceId, said } of due) {
      await db
        .update(weeklyRun)
        .set({ nextAt: nextTime(WeeklySaid.parse(said), now) })
        .where(eq(weeklyRun.planId, planId));
      await addJob(db, { workspace: workspaceId, person: null, role: 'owner' }, { kind: 'weeklyRun', plan: planId });
    }
    return due.length;
  });
}

/** Writes to the owners of the workspace that a run needs somebody. */
async function tellOwners(
  db: Database,
  access: Access,
  planId: string,
  { state, words }: Omit<WeeklyReport, 'id'>,
): Promise<void> {
  const [about] = await db.select({ name: plan.name }).from(plan).where(eq(plan.id, planId));
  const owners = await db
    .select({ email: person.email })
    .from(member)
    .innerJoin(person, eq(person.id, member.personId))
    .where(and(eq(member.workspaceId, access.workspace), eq(member.role, 'owner')));
  const how = state === 'waiting' ? 'waits for you' : 'failed';
  for (const { email } of owners)
    await addMail(db, {
      to: email,
      subject: `The weekly run of “${about!.name}” ${how}`,
      text: `${words}\n\nIt is looked at in Share of the plan, below “Every week”.\n`,
    });
}

/**
 * Remembers how a run went. One that failed is tried again soon, some times, before it waits for its next week.
 *
 * @returns when it is tried again; null where it waits for its week
 */
export async function reportWeekly(
  store: Store,
  access: Access,
  planId: string,
  report: Omit<WeeklyReport, 'id'>,
  taken: string | null,
): Promise<Date | null> {
  mayWrite(access);
  return inTransaction(store, async (db) => {
    const [held] = await db
      .select()
      .from(weeklyRun)
      .where(and(eq(weeklyRun.planId, planId), eq(weeklyRun.workspaceId, access.workspace)))
      .for('update');
    if (!held) return null;
    const { on } = WeeklySaid.parse(held.said);
    const failed = report.state === 'failed';
    const again = failed && on && held.tries < TRIES ? new Date(report.at.getTime() + AGAIN * 60_000) : null;
    const isSooner = again !== null && held.nextAt !== null && again < held.nextAt;
    await db.insert(weeklyReport).values({ planId, ...report });
    await db
      .update(weeklyRun)
      .set({
        tries: !failed || !isSooner ? 0 : held.tries + 1,
        ...(isSooner ? { nextAt: again } : {}),
        ...(taken === null ? {} : { lastFile: taken }),
      })
      .where(eq(weeklyRun.planId, planId));
    await db.execute(sql`delete from ${weeklyReport} where ${weeklyReport.planId} = ${planId} and ${weeklyReport.id} not in
      (select ${weeklyReport.id} from ${weeklyReport} where ${weeklyReport.planId} = ${planId}
        order by ${weeklyReport.at} desc limit ${KEPT})`);
    // Once when it begins to fail, and once when it is given up for the week.
    const isTold = report.state === 'waiting' || (failed && (held.tries === 0 || !isSooner));
    if (isTold) await tellOwners(db, access, planId, report);
    return isSooner ? again : null;
  });
}
