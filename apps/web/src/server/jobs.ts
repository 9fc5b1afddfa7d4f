import 'server-only';
import { type Access, hasEnded, JobWatch, type JobView, readJob } from '@clembo/store';
import { notFound } from './answer';
import { hearHere } from './here';
import { store } from './store';

const kept = globalThis as { clemboWatch?: JobWatch };

/** Hears of changes of jobs and plans. */
export function watch(): JobWatch {
  kept.clemboWatch ??= new JobWatch(process.env.DATABASE_URL!, hearHere);
  return kept.clemboWatch;
}

/** How long an answer is held back while nothing changes, in milliseconds. */
const HELD = 15_000;

/** How a job stands, as soon as it differs from what the asker knows, or has ended. */
export async function jobAfter(access: Access, id: string, revision: number, signal: AbortSignal): Promise<JobView> {
  const until = Date.now() + HELD;
  for (;;) {
    // Listening begins before looking, so that nothing is missed between.
    const changed = watch().changed(id, Math.max(0, until - Date.now()));
    const job = await readJob(store(), access, id);
    if (!job) throw notFound('job');
    if (hasEnded(job) || job.revision > revision || signal.aborted || Date.now() >= until) return job;
    await changed;
  }
}
