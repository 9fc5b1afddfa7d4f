import { and, eq, lte } from 'drizzle-orm';
import type { Database } from './database';
import { planRequest } from './schema';

/** How many requests of a plan are remembered: who sends one again does so within moments. */
const REMEMBERED = 1000;

/** What was answered to a request that changed a plan; null for one that is new. */
export async function answerTo<T extends object>(db: Database, planId: string, request: string): Promise<T | null> {
  const [row] = await db
    .select({ answer: planRequest.answer })
    .from(planRequest)
    .where(and(eq(planRequest.planId, planId), eq(planRequest.request, request)));
  return (row?.answer as T | undefined) ?? null;
}

/** Remembers what is answered to a request, within the transaction that does it. */
export async function keepAnswer(
  db: Database,
  planId: string,
  request: string,
  version: number,
  answer: object,
): Promise<void> {
  await db.insert(planRequest).values({ planId, request, version, answer });
  if (version % 50 === 0)
    await db
      .delete(planRequest)
      .where(and(eq(planRequest.planId, planId), lte(planRequest.version, version - REMEMBERED)));
}
