import { and, count, eq, inArray, isNull, lt, sql } from 'drizzle-orm';
import { type Access, mayWrite } from '../access';
import { type Database, inTransaction, type Store } from '../database';
import { intake, job } from '../schema';
import { JobInput, type JobState, queueOf } from './kinds';

/** A job as those see it who wait for it. */
export interface JobView {
  id: string;
  state: JobState;
  /** Counts its changes, so that a waiting reader can ask for what is newer. */
  revision: number;
  /** What it is at, in words, and how far, from 0 to 1. */
  step: string;
  share: number;
  /** What came of it. */
  result: unknown;
  /** Why it failed, in words. */
  error: string | null;
  /** How many jobs are before it while it waits. */
  before: number;
}

const ENDED: JobState[] = ['done', 'failed', 'cancelled'];
const OPEN: JobState[] = ['waiting', 'running'];

/** What a job left is kept for so long. */
const KEPT_HOURS = 12;
/** After so many beginnings a job that ends its process is not begun again. */
const ATTEMPTS = 3;

/** Those who wait are told of every change over this channel; it carries the id of the job. */
export const JOB_CHANNEL = 'clembo_job';
const tell = (db: Database, id: string): Promise<unknown> => db.execute(sql`select pg_notify(${JOB_CHANNEL}, ${id})`);

/** Jobs that change nothing: whoever may read may ask for them. */
const READS: ReadonlySet<JobInput['kind']> = new Set([
  'writePages',
  'writePlan',
  'writeFolio',
  'listRows',
  'compareIntake',
  'composeShared',
]);

/**
 * Puts a job into the queue of the database, for any process that works on it.
 *
 * @param db a transaction that the job belongs to; it is there when the transaction is
 */
export async function addJob(db: Database, access: Access, input: JobInput): Promise<string> {
  if (!READS.has(input.kind)) mayWrite(access);
  await db.delete(job).where(lt(job.createdAt, new Date(Date.now() - KEPT_HOURS * 3_600_000)));
  const [row] = await db
    .insert(job)
    .values({ workspaceId: access.workspace, kind: input.kind, input, access })
    .returning({ id: job.id });
  const id = row!.id;
  await db.execute(sql`select graphile_worker.add_job('work', json_build_object('id', ${id}::text),
    queue_name => ${queueOf(input)}, max_attempts => ${ATTEMPTS}, job_key => ${id})`);
  return id;
}

/** As {@link addJob}, in a transaction of its own. */
export const askFor = (store: Store, access: Access, input: JobInput): Promise<string> =>
  inTransaction(store, (db) => addJob(db, access, input));

/** A job that this access, or the same person before, has asked for. */
const mine = (access: Access, id: string) =>
  and(
    eq(job.id, id),
    eq(job.workspaceId, access.workspace),
    sql`${job.access}->>'account' is not distinct from ${access.account ?? null}`,
  );

/** How a job stands; null when the workspace has none by that id. */
export async function readJob({ db }: Store, access: Access, id: string): Promise<JobView | null> {
  const [row] = await db
    .select({
      id: job.id,
      state: job.state,
      revision: job.revision,
      step: job.step,
      share: job.share,
      result: job.result,
      error: job.error,
      createdAt: job.createdAt,
    })
    .from(job)
    .where(mine(access, id));
  if (!row) return null;
  const { createdAt, ...view } = row;
  if (view.state !== 'waiting') return { ...view, before: 0 } as JobView;
  const [queue] = await db
    .select({ before: count() })
    .from(job)
    .where(and(inArray(job.state, OPEN), lt(job.createdAt, createdAt)));
  return { ...view, before: queue!.before } as JobView;
}

/** The file that a job has written, or null. */
export async function readJobFile({ db }: Store, access: Access, id: string): Promise<Uint8Array | null> {
  const [row] = await db.select({ file: job.file }).from(job).where(mine(access, id));
  return row?.file ?? null;
}

/**
 * Ends a job before it is done; false when there is nothing to end. What was to be read goes with the job that was
 * to read it.
 */
export async function cancelJob(store: Store, access: Access, id: string): Promise<boolean> {
  return inTransaction(store, async (db) => {
    const [gone] = await db
      .update(job)
      .set({ state: 'cancelled', endedAt: new Date(), revision: sql`${job.revision} + 1` })
      .where(and(mine(access, id), inArray(job.state, OPEN)))
      .returning({ input: job.input });
    if (!gone) return false;
    const input = JobInput.safeParse(gone.input);
    if (input.success && input.data.kind === 'readIntake')
      await db.delete(intake).where(and(eq(intake.id, input.data.intake), isNull(intake.planId)));
    await tell(db, id);
    return true;
  });
}

/** Who works on jobs: these calls are for the process that does them, not for those who ask. */
export interface TakenJob {
  id: string;
  input: JobInput;
  access: Access;
}

/** Takes a job up, or null when it has ended already. */
export async function takeJob({ db }: Store, id: string, worker: string): Promise<TakenJob | null> {
  const [row] = await db
    .update(job)
    .set({ state: 'running', worker, seenAt: new Date(), revision: sql`${job.revision} + 1` })
    .where(and(eq(job.id, id), inArray(job.state, OPEN)))
    .returning({ id: job.id, input: job.input, access: job.access });
  if (!row) return null;
  const input = JobInput.safeParse(row.input);
  if (!input.success) {
    // It was asked for before an update, in a way that is no more.
    await endJob(db, id, { error: 'This was asked for before Clembo was updated. Ask for it again.' });
    return null;
  }
  await tell(db, id);
  return { id, input: input.data, access: row.access as Access };
}

/** Says what a job is at. */
export async function reportJob({ db }: Store, id: string, step: string, share: number): Promise<void> {
  await db
    .update(job)
    .set({ step, share, seenAt: new Date(), revision: sql`${job.revision} + 1` })
    .where(and(eq(job.id, id), eq(job.state, 'running')));
  await tell(db, id);
}

/** Ends a job with what came of it; false when it had ended already. */
export async function endJob(
  db: Database,
  id: string,
  end: { result: unknown; file?: Uint8Array } | { error: string },
): Promise<boolean> {
  const values =
    'error' in end
      ? { state: 'failed' as const, error: end.error }
      : { state: 'done' as const, result: end.result, file: end.file ?? null, share: 1 };
  const rows = await db
    .update(job)
    .set({ ...values, endedAt: new Date(), revision: sql`${job.revision} + 1` })
    .where(and(eq(job.id, id), inArray(job.state, OPEN)))
    .returning({ id: job.id });
  await tell(db, id);
  return rows.length > 0;
}

/** True once a job is over. */
export const hasEnded = ({ state }: Pick<JobView, 'state'>): boolean => ENDED.includes(state);

/** Which of these jobs were cancelled. */
export async function cancelledOf({ db }: Store, ids: readonly string[]): Promise<string[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select({ id: job.id })
    .from(job)
    .where(and(inArray(job.id, [...ids]), eq(job.state, 'cancelled')));
  return rows.map((r) => r.id);
}

/** Says that a process is still at work on what it has taken up. */
export async function stillAtWork({ db }: Store, worker: string): Promise<void> {
  await db
    .update(job)
    .set({ seenAt: new Date() })
    .where(and(eq(job.worker, worker), eq(job.state, 'running')));
}

/** A job whose process has not been heard of for so long has lost it. */
const LOST_SECONDS = 20;

/** Gives jobs back to the queue whose process was killed; one that was begun too often fails in words. */
export async function reviveJobs({ db }: Store): Promise<{ revived: number; spent: TakenJob[] }> {
  const ended: TakenJob[] = [];
  const lost = await db.execute<{ id: string; input: unknown; access: Access; locked_by: string; spent: boolean }>(sql`
    select j.id, j.input, j.access, q.locked_by, q.attempts >= q.max_attempts as spent
    from job j join graphile_worker.jobs q on q.key = j.id::text
    where q.locked_at < now() - make_interval(secs => ${LOST_SECONDS})
      and (j.seen_at is null or j.seen_at < now() - make_interval(secs => ${LOST_SECONDS}))`);
  for (const { id, input, access, locked_by, spent } of lost.rows) {
    await db.execute(sql`select graphile_worker.force_unlock_workers(array[${locked_by}]::text[])`);
    if (spent) {
      const isEnded = await endJob(db, id, {
        error: `This was begun ${ATTEMPTS} times, and each time the program that did it ended. Nothing was changed.`,
      });
      const read = JobInput.safeParse(input);
      if (isEnded && read.success) ended.push({ id, input: read.data, access });
    } else
      await db
        .update(job)
        .set({ state: 'waiting' })
        .where(and(eq(job.id, id), eq(job.state, 'running')));
  }
  return { revived: lost.rows.length - ended.length, spent: ended };
}

/** How many jobs of each kind there are in each state, of those that are remembered. */
export async function countJobs({ db }: Store): Promise<{ kind: string; state: JobState; jobs: number }[]> {
  return db.select({ kind: job.kind, state: job.state, jobs: count() }).from(job).groupBy(job.kind, job.state);
}
