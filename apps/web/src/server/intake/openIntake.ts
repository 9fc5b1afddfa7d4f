import 'server-only';
import { ColumnMap, readDelimited, readTables, type Table } from '@clembo/formats';
import { type Access, readIntake, type StoredIntake } from '@clembo/store';
import { notFound } from '../answer';
import { store } from '../store';
import { PASTED } from './takeIn';

/** An intake with its tables read again, the one that is chosen, and its column map. */
export interface OpenIntake {
  stored: StoredIntake;
  tables: Table[];
  table: Table;
  map: ColumnMap;
}

export async function openIntake(access: Access, id: string): Promise<OpenIntake> {
  const stored = await readIntake(store(), access, id);
  if (!stored) throw notFound('intake');
  const tables =
    stored.source === PASTED
      ? [readDelimited(new TextDecoder().decode(stored.content), stored.source)]
      : await readTables(stored.content, stored.source);
  const table = tables.find((t) => t.sheet === stored.sheet) ?? tables[0]!;
  return { stored, tables, table, map: ColumnMap.parse(stored.map) };
}

/** What a plan is called after the file that it comes from. */
export const planName = (source: string): string =>
  source === PASTED ? 'Pasted plan' : source.replace(/\.[^.]+$/, '').replace(/[_-]+/g, ' ');
