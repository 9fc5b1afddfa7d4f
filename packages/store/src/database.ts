import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { Logger, runMigrations } from 'graphile-worker';
import pg from 'pg';
import { HeldEditions } from './held';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;

/** A connected store: the pool, Drizzle over it, and the working editions that were last used. */
export interface Store {
  pool: pg.Pool;
  db: Database;
  held: HeldEditions;
}

/** Opens a store; nothing is connected until the first question. */
export function openStore(url: string): Store {
  const pool = new pg.Pool({ connectionString: url, max: 8, connectionTimeoutMillis: 10_000 });
  // A server that goes away while a connection lies idle must not end the process.
  pool.on('error', () => {});
  pool.on('connect', (client) => client.on('error', () => {}));
  return { pool, db: drizzle(pool, { schema }), held: new HeldEditions() };
}

/** Brings the database to the schema of this version. */
export async function migrateStore(store: Store, folder = migrationsFolder()): Promise<void> {
  // Several processes may start at once: one of them does it, the others wait and find it done.
  const client = await store.pool.connect();
  try {
    await client.query('select pg_advisory_lock(712004)');
    await migrate(drizzle(client), { migrationsFolder: folder });
  } finally {
    await client.query('select pg_advisory_unlock(712004)').catch(() => {});
    client.release();
  }
  // The queue of jobs has a schema of its own.
  await runMigrations({ pgPool: store.pool, logger: new Logger(() => () => {}) });
}

/** Whether the database answers, and is at the schema of this version. */
export async function isMigrated(store: Store, folder = migrationsFolder()): Promise<boolean> {
  const wanted = readMigrationFiles({ migrationsFolder: folder }).length;
  const { rows } = await store.pool.query<{ done: number }>(
    'select count(*)::int as done from drizzle.__drizzle_migrations',
  );
  return rows[0]!.done >= wanted;
}

export const migrationsFolder = (): string => join(dirname(fileURLToPath(import.meta.url)), '../drizzle');

/**
 * Answers several questions from one state of the database, however much is written meanwhile.
 * What is asked has to go through the connection that is given.
 */
export const inSnapshot = <T>(
  store: Pick<Store, 'pool'>,
  work: (db: Database, client: pg.PoolClient) => Promise<T>,
): Promise<T> => within(store, 'begin isolation level repeatable read read only', work);

/** Runs work in one transaction, with the connection for COPY and Drizzle over the same one. */
export const inTransaction = <T>(store: Store, work: (db: Database, client: pg.PoolClient) => Promise<T>): Promise<T> =>
  within(store, 'begin', work);

async function within<T>(
  { pool }: Pick<Store, 'pool'>,
  begin: string,
  work: (db: Database, client: pg.PoolClient) => Promise<T>,
): Promise<T> {
  const client = await pool.connect();
  try {
    await client.query(begin);
    const result = await work(drizzle(client, { schema }), client);
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback').catch(() => {});
    throw error;
  } finally {
    client.release();
  }
}
