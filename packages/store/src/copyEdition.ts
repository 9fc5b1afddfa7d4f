import { getTableColumns } from 'drizzle-orm';
import type pg from 'pg';
import { checkCount, StoreDamaged } from './damaged';
import { activity, calendar, link } from './schema';
import type { WorkingEdition } from './workingEdition';

// What is kept never changes, and everybody is measured against it. So it is copied where it lies, within the
// transaction that holds it, and compared with what it was copied from.

const TABLES = [
  { table: 'activity', columns: getTableColumns(activity), order: 'order_key' },
  { table: 'link', columns: getTableColumns(link), order: 'id' },
  { table: 'calendar', columns: getTableColumns(calendar), order: 'position' },
].map(({ columns, ...t }) => ({
  ...t,
  // Whatever a table has beside the edition and a number of the row.
  own: Object.values(columns)
    .filter(({ name }) => name !== 'edition_id' && name !== 'id')
    .map(({ name }) => `"${name}"`)
    .join(', '),
}));

/**
 * Keeps the working edition, which is held, as it stands as an edition of its own; gives the id of that.
 *
 * @throws StoreDamaged where the copy is not what it was copied from, or that is not what was written
 */
export async function copyEdition(
  client: pg.PoolClient,
  held: WorkingEdition,
  { name, note = '' }: { name: string; note?: string },
): Promise<string> {
  const { rows } = await client.query<{ id: string; activities: number | null; links: number | null; owed: unknown }>(
    `insert into edition (plan_id, name, note, working, lineage, of_version, source, as_promised, status_date, start,
       calendar, activity_count, link_count, owed)
     select e.plan_id, $2, $3, false, e.lineage, e.version, coalesce(e.source, p.source),
       coalesce(e.as_promised, p.as_promised), e.status_date, e.start, e.calendar, e.activity_count, e.link_count, e.owed
     from edition e join plan p on p.id = e.plan_id where e.id = $1
     returning id, activity_count as activities, link_count as links, owed`,
    [held.id, name, note],
  );
  const { id, owed, ...written } = rows[0]!;
  for (const { table, own, order } of TABLES)
    await client.query(
      `insert into "${table}" (edition_id, ${own}) select $1, ${own} from "${table}" where edition_id = $2 order by ${order}`,
      [id, held.id],
    );
  await client.query(
    `insert into edition_columns (edition_id, version, content)
     select $1, 1, content from edition_columns where edition_id = $2 and version = $3`,
    [id, held.id, held.version],
  );
  for (const { table, own } of TABLES) {
    const [copy, from] = [await sumOf(client, table, own, id), await sumOf(client, table, own, held.id)];
    if (copy.sum !== from.sum || copy.count !== from.count)
      throw new StoreDamaged(`“${name}” could not be kept: its copy is not what it was copied from. Keep it again.`);
    if (!owed && table === 'activity') checkCount(held.name, 'activities', written.activities, copy.count);
    if (!owed && table === 'link') checkCount(held.name, 'links', written.links, copy.count);
  }
  return id;
}

/** How many rows of an edition a table has, and a sum over all that stands in them. */
async function sumOf(
  client: pg.PoolClient,
  table: string,
  own: string,
  editionId: string,
): Promise<{ count: number; sum: string }> {
  const { rows } = await client.query<{ count: number; sum: string }>(
    `select count(*)::int as count, coalesce(sum(hash_record_extended(row(${own}), 0)), 0)::text as sum
     from "${table}" where edition_id = $1`,
    [editionId],
  );
  return rows[0]!;
}
