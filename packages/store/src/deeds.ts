import { and, desc, eq, gt, ilike, inArray, isNull, lt, or, sql } from 'drizzle-orm';
import { type Access, commonOf } from './access';
import type { Database, Store } from './database';
import { ownPlans } from './own';
import { deed, plan } from './schema';

/** What a deed is about. */
export const DEED_KINDS = ['people', 'share', 'plan', 'exhibit', 'comment', 'settings'] as const;
export type DeedKind = (typeof DEED_KINDS)[number];

export interface Deed {
  id: number;
  planId: string | null;
  about: DeedKind;
  words: string;
  person: string | null;
  at: Date;
}

/** Writes down who did what. Nobody can change or remove it afterwards. */
export async function noteDeed(
  db: Database,
  access: Access,
  about: DeedKind,
  words: string,
  planId: string | null = null,
): Promise<void> {
  await db
    .insert(deed)
    .values({ workspaceId: access.workspace, planId, about, words: words.slice(0, 500), person: access.person });
}

/** As {@link noteDeed}, but what somebody does again and again is written down once in a while. */
export async function noteOften(
  db: Database,
  access: Access,
  about: DeedKind,
  words: string,
  planId: string | null = null,
): Promise<void> {
  const [lately] = await db
    .select({ id: deed.id })
    .from(deed)
    .where(
      and(
        eq(deed.workspaceId, access.workspace),
        eq(deed.words, words.slice(0, 500)),
        access.person === null ? isNull(deed.person) : eq(deed.person, access.person),
        gt(deed.at, sql`now() - interval '10 minutes'`),
      ),
    )
    .limit(1);
  if (!lately) await noteDeed(db, access, about, words, planId);
}

/** What was done in a workspace, the latest first; of a guest's workspace only what is about their plans. */
export async function listDeeds(
  { db }: Store,
  access: Access,
  wanted: { about?: DeedKind; words?: string; before?: number; most?: number } = {},
): Promise<Deed[]> {
  const { about, words, before, most = 200 } = wanted;
  const holds = words ? `%${words.replace(/[\\%_]/g, '\\$&')}%` : null;
  const rows = await db
    .select({
      id: deed.id,
      planId: deed.planId,
      about: deed.about,
      words: deed.words,
      person: deed.person,
      at: deed.at,
    })
    .from(deed)
    .where(
      and(
        or(
          eq(deed.workspaceId, access.only ? commonOf({ ...access, guest: true }) : commonOf(access)),
          and(
            eq(deed.workspaceId, access.workspace),
            inArray(deed.planId, db.select({ id: plan.id }).from(plan).where(ownPlans(access))),
          ),
        ),
        about && eq(deed.about, about),
        holds ? or(ilike(deed.words, holds), ilike(deed.person, holds)) : undefined,
        before === undefined ? undefined : lt(deed.id, before),
      ),
    )
    .orderBy(desc(deed.id))
    .limit(most);
  return rows as Deed[];
}
