import {
  type Activity,
  type Columns,
  type Link,
  type PackedPlan,
  packActivities,
  packLinks,
  unpackActivities,
  unpackLinks,
} from '@clembo/core';
import type pg from 'pg';
import { promisify } from 'node:util';
import { constants, gunzip, gzip } from 'node:zlib';
import type { SourcePlace } from './rows';

// Rows are what an edition is. Of a large one they are kept as columns in one piece as well, since they are read and
// written that way in a fraction of the time; whatever is not of the very version of the edition is not used.

/** From so many activities on. */
export const LARGE = 2000;

/** What stands in the rows of an edition. */
export interface EditionRows {
  activities: Activity[];
  links: Link[];
  /** The rows of the source that activities were read from. */
  rows: Record<string, SourcePlace>;
}

/** The same as columns: where an activity comes from stands in its place, or null where that is known of none. */
export interface EditionColumns {
  activities: Columns;
  links: Columns;
  places: { sources: (number | null)[]; rows: (number | null)[] } | null;
}

const packed = promisify(gzip) as (data: string, options: object) => Promise<Buffer>;
const unpacked = promisify(gunzip) as (data: Uint8Array) => Promise<Buffer>;

/** The columns of a plan, with where its activities come from. */
export function editionColumns(
  { activities, links }: Pick<PackedPlan, 'activities' | 'links'>,
  places: ReadonlyMap<string, SourcePlace> | null,
): EditionColumns {
  if (!places || places.size === 0) return { activities, links, places: null };
  const refs = (activities.each.ref ?? [activities.same.ref]) as string[];
  const found = refs.map((ref) => places.get(ref));
  return {
    activities,
    links,
    places: { sources: found.map((p) => p?.[0] ?? null), rows: found.map((p) => p?.[1] ?? null) },
  };
}

/** What stands in rows as the text of a JSON object with columns. */
export const columnsText = ({ activities, links, rows }: EditionRows): string =>
  JSON.stringify(
    editionColumns({ activities: packActivities(activities), links: packLinks(links) }, new Map(Object.entries(rows))),
  );

export function rowsOfColumns(text: string): EditionRows {
  const { activities: packedActivities, links, places } = JSON.parse(text) as EditionColumns;
  const activities = unpackActivities(packedActivities);
  const rows = activities.flatMap(({ ref }, k): [string, SourcePlace][] => {
    const row = places?.rows[k] ?? null;
    return row === null ? [] : [[ref, [places?.sources[k] ?? 1, row]]];
  });
  // Made at once: a reference may be a word that every object answers to.
  return { activities, links: unpackLinks(links), rows: Object.fromEntries(rows) };
}

/** Columns as they are kept; pressed a little, beside whatever else is done. */
export const pressColumns = (text: string): Promise<Buffer> => packed(text, { level: constants.Z_BEST_SPEED });

/** Keeps the columns of an edition at a version, where none are kept of a later one. */
export async function keepColumns(
  client: pg.Pool | pg.PoolClient,
  editionId: string,
  version: number,
  content: Buffer,
): Promise<void> {
  await client.query(
    `insert into edition_columns (edition_id, version, content) values ($1, $2, $3)
     on conflict (edition_id) do update set version = excluded.version, content = excluded.content
     where edition_columns.version < excluded.version`,
    [editionId, version, content],
  );
}

/** The columns of an edition at a version as text; null where there are none, or where they cannot be read. */
export async function readColumns(
  client: pg.Pool | pg.PoolClient,
  editionId: string,
  version: number,
): Promise<string | null> {
  const { rows } = await client.query<{ content: Buffer }>(
    'select content from edition_columns where edition_id = $1 and version = $2',
    [editionId, version],
  );
  if (!rows[0]) return null;
  try {
    return (await unpacked(rows[0].content)).toString('utf8');
  } catch {
    return null;
  }
}

/** How many activities and links there are in the rows of an edition. */
export async function countRows(
  client: pg.Pool | pg.PoolClient,
  editionId: string,
): Promise<{ activities: number; links: number }> {
  const { rows } = await client.query<{ activities: number; links: number }>(
    `select (select count(*)::int from activity where edition_id = $1) as activities,
            (select count(*)::int from link where edition_id = $1) as links`,
    [editionId],
  );
  return rows[0]!;
}
