import { type Activity, type Link, packActivities, packLinks, unpackActivities, unpackLinks } from '@clembo/core';
import type pg from 'pg';
import { promisify } from 'node:util';
import { constants, gunzip, gzip } from 'node:zlib';
import type { SourcePlace } from './rows';

// Rows are what an edition is; of a large one they are kept once more as columns in one piece, since they are read
// that way in a fraction of the time. Whatever is not of the very version of the edition is not used.

/** From so many activities on. */
export const LARGE = 2000;

/** What stands in the rows of an edition. */
export interface EditionRows {
  activities: Activity[];
  links: Link[];
  /** The rows of the source that activities were read from. */
  rows: Record<string, SourcePlace>;
}

const packed = promisify(gzip) as (data: string, options: object) => Promise<Buffer>;
const unpacked = promisify(gunzip) as (data: Uint8Array) => Promise<Buffer>;

/** What stands in the rows as the text of a JSON object with columns. */
export const columnsText = ({ activities, links, rows }: EditionRows): string =>
  JSON.stringify({ activities: packActivities(activities), links: packLinks(links), rows });

export function rowsOfColumns(text: string): EditionRows {
  const { activities, links, rows } = JSON.parse(text);
  return { activities: unpackActivities(activities), links: unpackLinks(links), rows };
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
