import type { Store } from './database';

/** Where it is told who looks at a plan: `PLAN JSON`. Nothing of it is kept. */
export const HERE_CHANNEL = 'clembo_here';

/** Somebody who looks at a plan, and the activity that is chosen there. */
export interface Looker {
  /** Of one browser window; made there. */
  who: string;
  name: string | null;
  ref: string | null;
  gone: boolean;
}

/** Tells every web process that somebody looks at a plan. */
export async function tellHere({ pool }: Store, planId: string, looker: Looker): Promise<void> {
  await pool.query('select pg_notify($1, $2)', [HERE_CHANNEL, `${planId} ${JSON.stringify(looker)}`]);
}
