import pg from 'pg';
import { migrateStore, openStore, type Store } from '../src/index';

/** A store in a database of its own, made anew. */
export async function freshStore(name: string): Promise<Store> {
  const client = new pg.Client({ connectionString: process.env.CLEMBO_TEST_ADMIN! });
  await client.connect();
  await client.query(`drop database if exists ${name} with (force)`);
  await client.query(`create database ${name}`);
  await client.end();
  const store = openStore(storeUrl(name));
  await migrateStore(store);
  return store;
}

/** Where such a database is reached. */
export function storeUrl(name: string): string {
  const url = new URL(process.env.CLEMBO_TEST_DATABASE!);
  url.pathname = `/${name}`;
  return url.href;
}
