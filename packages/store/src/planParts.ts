import type { Plan, PlanPicture } from '@clembo/core';
import { asc, eq } from 'drizzle-orm';
import type pg from 'pg';
import { copyRows } from './copy';
import type { Database } from './database';
import { elementCode, elementMatch, planPicture } from './schema';

/** What of a plan is large and mostly stays as it is: each thing of it has a row of its own. */
export type PlanParts = Pick<Plan, 'pictures' | 'matches' | 'elementCodes'>;

/** A plan that has none. */
export const NO_PARTS: PlanParts = { pictures: [], matches: [], elementCodes: [] };

/** Reads them, each in its order. */
export async function readParts(db: Database, planId: string): Promise<PlanParts> {
  const pictures = await db
    .select()
    .from(planPicture)
    .where(eq(planPicture.planId, planId))
    .orderBy(asc(planPicture.position));
  const matches = await db.select().from(elementMatch).where(eq(elementMatch.planId, planId));
  const codes = await db.select().from(elementCode).where(eq(elementCode.planId, planId));
  return {
    pictures: pictures.map(({ key, name, data, width, height }) => ({ id: key, name, data, width, height })),
    matches: matches
      .map(({ activity, effect, elements }) => ({ activity, effect, elements }))
      .sort(by((m) => `${m.activity}\n${m.effect}`)),
    elementCodes: codes
      .map(({ field, code, elements }) => ({ field, code, elements }))
      .sort(by((c) => `${c.field}\n${c.code}`)),
  };
}

const by =
  <T>(key: (x: T) => string) =>
  (a: T, b: T): number =>
    key(a) < key(b) ? -1 : 1;

/** Writes what differs between two states; what is the same object is left as it is. */
export async function writeParts(
  client: pg.PoolClient,
  planId: string,
  before: PlanParts,
  after: PlanParts,
): Promise<void> {
  await writePictures(client, planId, before.pictures, after.pictures);
  await writeGroups(client, planId, 'element_match', ['activity', 'effect'], before.matches, after.matches);
  await writeGroups(client, planId, 'element_code', ['field', 'code'], before.elementCodes, after.elementCodes);
}

function differing<T>(before: readonly T[], after: readonly T[]): { gone: T[]; come: T[] } {
  if (before === after) return { gone: [], come: [] };
  const [was, is] = [new Set(before), new Set(after)];
  return { gone: before.filter((x) => !is.has(x)), come: after.filter((x) => !was.has(x)) };
}

async function writePictures(
  client: pg.PoolClient,
  planId: string,
  before: readonly PlanPicture[],
  after: readonly PlanPicture[],
): Promise<void> {
  if (before === after) return;
  const { gone, come } = differing(before, after);
  await client.query('delete from plan_picture where plan_id = $1 and key = any($2)', [planId, gone.map((p) => p.id)]);
  const columns = ['plan_id', 'key', 'position', 'name', 'data', 'width', 'height'];
  await copyRows(
    client,
    'plan_picture',
    columns,
    come.map((p) => [planId, p.id, 0, p.name, p.data, p.width, p.height]),
  );
  await client.query(
    `update plan_picture p set position = x.position from unnest($2::text[]) with ordinality x(key, position)
     where p.plan_id = $1 and p.key = x.key and p.position is distinct from x.position`,
    [planId, after.map((p) => p.id)],
  );
}

/** Writes groups of building elements, each known by two texts. */
async function writeGroups<K extends string>(
  client: pg.PoolClient,
  planId: string,
  table: string,
  keys: [K, K],
  before: readonly (Record<K, string> & { elements: string[] })[],
  after: readonly (Record<K, string> & { elements: string[] })[],
): Promise<void> {
  const { gone, come } = differing(before, after);
  if (gone.length > 0)
    await client.query(
      `delete from "${table}" where plan_id = $1 and (${keys.join(', ')}) in (select * from unnest($2::text[], $3::text[]))`,
      [planId, gone.map((g) => g[keys[0]]), gone.map((g) => g[keys[1]])],
    );
  if (come.length > 0)
    await copyRows(
      client,
      table,
      ['plan_id', ...keys, 'elements'],
      come.map((g) => [planId, g[keys[0]], g[keys[1]], g.elements]),
    );
}
