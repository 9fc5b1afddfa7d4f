import { decodeText } from './csv/decode';
import { readCsv } from './csv/read';
import { looksLikeCalendar, readCalendarFile } from './ical/read';
import { looksLikeModel, readModelSchedule } from './ifc/read';
import { withDrawnDates } from './intake/grid';
import { MAX_FILE_BYTES, type Table, UnreadableFile } from './table/table';
import { readXlsx } from './xlsx/read';

/** The sheets of a file, whatever it is: told by its first bytes, not by its name. */
export async function readTables(bytes: Uint8Array, source: string): Promise<Table[]> {
  if (bytes.length === 0) throw new UnreadableFile(`${source} is empty.`);
  if (bytes.length > MAX_FILE_BYTES) {
    throw new UnreadableFile(
      `${source} has ${Math.ceil(bytes.length / 1048576)} MB; at most ${MAX_FILE_BYTES / 1048576} MB can be taken in.`,
    );
  }
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return (await readXlsx(bytes, source)).map(drawn);
  if (bytes[0] === 0xd0 && bytes[1] === 0xcf) {
    throw new UnreadableFile(`${source} is a workbook of the old binary kind. Save it as XLSX or CSV.`);
  }
  const beginning = decodeText(bytes.subarray(0, 2000));
  if (looksLikeCalendar(beginning)) return [readCalendarFile(decodeText(bytes), source)];
  if (looksLikeModel(beginning)) return [await readModelSchedule(bytes, source)];
  const table = readCsv(bytes, source);
  if (table.rows.length === 0) throw new UnreadableFile(`${source} has no rows.`);
  return [drawn(table)];
}

/** A calendar that is drawn in cells gets its dates beside it. */
const drawn = (table: Table): Table => withDrawnDates(table) ?? table;

/** True when a file begins as our own JSON does. */
export const looksLikeJson = (bytes: Uint8Array): boolean => {
  const first = new TextDecoder()
    .decode(bytes.subarray(0, 64))
    .replace(/^\ufeff/, '')
    .trimStart();
  return first.startsWith('{');
};
