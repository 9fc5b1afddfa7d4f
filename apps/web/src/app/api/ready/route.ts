import { isMigrated } from '@clembo/store';
import { logFault } from '@/server/log';
import { store } from '@/server/store';

/** Whether this process can answer people: the database is there, and at the schema of this version. */
export async function GET(): Promise<Response> {
  try {
    if (await isMigrated(store())) return Response.json({ ready: true });
    return Response.json({ ready: false, why: 'The database is not at the schema of this version.' }, { status: 503 });
  } catch (error) {
    logFault('not ready', error);
    return Response.json({ ready: false, why: 'The database does not answer.' }, { status: 503 });
  }
}

export const dynamic = 'force-dynamic';
