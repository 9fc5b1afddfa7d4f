import { gunzipSync, gzipSync, strFromU8, strToU8 } from 'fflate';
import type { Table } from './table';

/** Tables as text; pressed as gzip, that is {@link packTables}. */
export const tablesText = (tables: readonly Table[]): string => JSON.stringify(tables);

/** Tables that were read, small enough to be kept beside their file: nobody has to read the file twice. */
export const packTables = (tables: readonly Table[]): Uint8Array => gzipSync(strToU8(tablesText(tables)), { level: 1 });

/** The tables of {@link packTables}. */
export const unpackTables = (packed: Uint8Array): Table[] => JSON.parse(strFromU8(gunzipSync(packed))) as Table[];
