// Does the jobs that wait in the database. Any number of these may run, here or on other machines.
import { randomUUID } from 'node:crypto';
import { availableParallelism, constants, setPriority } from 'node:os';
import { fileURLToPath } from 'node:url';
import {
  askDueRuns,
  cancelledOf,
  causesOf,
  endJob,
  faultLines,
  forgetInvitations,
  IntakeGone,
  JobCancelled,
  JobWatch,
  mailNotices,
  openStore,
  PlanRefused,
  reportJob,
  reviveJobs,
  settleOwed,
  stillAtWork,
  takeJob,
} from '@clembo/store';
import { Logger, run } from 'graphile-worker';
import pino from 'pino';
import { z } from 'zod';
import { Hands, HandStopped } from './hands/hands';
import { doJob, tellFault } from './jobs/jobs';
import { mailer } from './mail';
import { JobRefused, makeRoom } from './room';

/** How often it is said that this process is at work, in milliseconds. */
const BEAT = 5000;
/** Memory that the engine of a hand may use for its own objects. */
const HEAP_MEGABYTES = 1400;

const url = process.env.DATABASE_URL;
if (!url) {
  process.stderr.write('DATABASE_URL is not set; start the application with `npm start`.\n');
  process.exit(1);
}
try {
  // Whoever waits for a screen goes before what is done beside it.
  setPriority(constants.priority.PRIORITY_BELOW_NORMAL);
} catch {}
const me = randomUUID();
const store = openStore(url);
const hands = new Hands(fileURLToPath(new URL('./hand.mjs', import.meta.url)), HEAP_MEGABYTES);
/** What this process is at, each with a way to stop it. */
const atWork = new Map<string, AbortController>();
const watch = new JobWatch(url, (id) => void stopIfCancelled(id));
watch.connect();

async function stopIfCancelled(id: string): Promise<void> {
  if (!atWork.has(id)) return;
  for (const cancelled of await cancelledOf(store, [id]).catch(() => [])) atWork.get(cancelled)?.abort();
}

/** Does one job. What is refused in words ends it; any other fault is tried again, and told when it was the last time. */
async function work(id: string, isLast: boolean): Promise<void> {
  const job = await takeJob(store, id, me);
  if (!job) return;
  const stop = new AbortController();
  atWork.set(id, stop);
  try {
    const room = makeRoom(id, store, job.access, hands, stop.signal, (words, share) => {
      void reportJob(store, id, words, share).catch(() => {});
    });
    await endJob(store.db, id, await doJob(room, job.input));
  } catch (error) {
    if (error instanceof JobRefused || error instanceof PlanRefused || error instanceof IntakeGone)
      await endJob(store.db, id, { error: error.message });
    else if (error instanceof HandStopped || error instanceof JobCancelled) {
      // Cancelled by the person, or this process is being stopped: then another one begins it anew.
      if (error instanceof HandStopped && !stop.signal.aborted) throw error;
    } else {
      log(`job ${id} (${job.input.kind}) failed`, error);
      if (isLast) {
        await endJob(store.db, id, { error: 'Something went wrong at it; nothing was changed. Try again.' });
        await tellFault({ store, access: job.access }, job.input);
      }
      throw error;
    }
  } finally {
    atWork.delete(id);
  }
}

const logger = pino({ base: { part: 'worker', pid: process.pid } }, pino.destination({ dest: 2, sync: true }));
function log(what: string, error: unknown): void {
  if (process.env.CLEMBO_LOG === 'json') logger.error({ what, causes: causesOf(error) });
  else process.stderr.write(`${faultLines(what, error)}\n`);
}

/** How often is looked whether a weekly run is due, in milliseconds. */
const DUE = 15_000;
const due = setInterval(() => {
  void askDueRuns(store, new Date()).catch((error) => log('looking for weekly runs failed', error));
}, DUE);

const sendAll = mailer(store);
let sending = false;
/** How often is looked whether mail waits, in milliseconds. */
const POST = 5000;
const post = setInterval(() => {
  if (!sendAll || sending) return;
  sending = true;
  sendAll()
    .then(({ failed }) => failed !== null && log('mail could not be sent', new Error(failed)))
    .catch((error) => log('sending mail failed', error))
    .finally(() => {
      sending = false;
    });
}, POST);
const tidy = setInterval(() => void forgetInvitations(store, new Date()).catch(() => {}), 3_600_000);
/** How often is looked whether somebody is to be told by mail, in milliseconds. */
const TELL = 60_000;
const address = (process.env.BASE_URL ?? `http://127.0.0.1:${process.env.CLEMBO_PORT ?? 3000}`).replace(/\/+$/, '');
const telling = setInterval(() => {
  void mailNotices(store, address, new Date()).catch((error) => log('telling by mail failed', error));
}, TELL);

/** How often is looked whether rows are owed, in milliseconds. */
const SETTLE = 2500;
let settling = false;
let unsettled = '';
const settle = setInterval(() => {
  if (settling) return;
  settling = true;
  settleOwed(store, new Date())
    .catch((error) => {
      // It is tried again soon, and told once.
      if (String(error) !== unsettled) log('writing rows that are owed failed', error);
      unsettled = String(error);
    })
    .finally(() => {
      settling = false;
    });
}, SETTLE);

/** What another process left is begun again, or told where it was begun too often. */
async function revive(): Promise<void> {
  const { spent } = await reviveJobs(store);
  for (const { access, input } of spent) await tellFault({ store, access }, input);
}
const beat = setInterval(() => {
  void Promise.all([stillAtWork(store, me), revive()]).catch(() => {});
}, BEAT);

const Payload = z.object({ id: z.uuid() });
const runner = await run({
  pgPool: store.pool,
  // One hand less than there are processors, so that one stays for those who wait for a screen; two at least.
  concurrency: Math.max(2, availableParallelism() - 1),
  pollInterval: 1000,
  noHandleSignals: true,
  // What goes wrong is told above, without what stood in the files.
  logger: new Logger(() => () => {}),
  taskList: {
    work: (payload, { job }) => work(Payload.parse(payload).id, job.attempts >= job.max_attempts),
  },
});

let stopping = false;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  clearInterval(beat);
  clearInterval(due);
  clearInterval(post);
  clearInterval(tidy);
  clearInterval(telling);
  clearInterval(settle);
  // What is at work goes back to the queue: another process, or the next start, does it from its beginning.
  hands.end();
  await runner.stop().catch(() => {});
  await watch.end();
  await store.pool.end();
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop().then(() => process.exit(0)));
process.stdout.write('ready\n');
await runner.promise;
