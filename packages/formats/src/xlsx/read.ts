import { unzipSync } from 'fflate';
import readWorkbook from 'read-excel-file/universal';
import { MAX_UNPACKED_BYTES, type Table, trimTable, UnreadableFile } from '../table/table';

/** Reads all sheets of a workbook that hold anything, in their order. */
export async function readXlsx(bytes: Uint8Array, source: string): Promise<Table[]> {
  checkUnpackedSize(bytes, source);
  const copy = new Uint8Array(bytes).buffer;
  let sheets: { sheet: string; data: unknown[][] }[];
  try {
    sheets = (await readWorkbook(copy)) as unknown as { sheet: string; data: unknown[][] }[];
  } catch (error) {
    throw new UnreadableFile(
      `${source} could not be read as a workbook (${error instanceof Error ? error.message : 'unknown reason'}). Save it again as XLSX, or as CSV.`,
    );
  }
  const tables = sheets
    .map(({ sheet, data }) => trimTable({ source, sheet, rows: data.map((row) => row.map(cellText)), firstRow: 1 }))
    .filter((t) => t.rows.length > 0);
  if (tables.length === 0) throw new UnreadableFile(`${source} has no sheet with anything in it.`);
  return tables;
}

/** Sizes are declared in the archive's directory; what inflates beyond its declaration fails in the reader. */
function checkUnpackedSize(bytes: Uint8Array, source: string): void {
  let total = 0;
  try {
    unzipSync(bytes, {
      filter: (file) => {
        total += file.originalSize;
        return false;
      },
    });
  } catch {
    throw new UnreadableFile(`${source} is not a workbook, or it is damaged. Save it again as XLSX, or as CSV.`);
  }
  if (total > MAX_UNPACKED_BYTES) {
    throw new UnreadableFile(
      `${source} unpacks to ${Math.round(total / 1048576)} MB; at most ${MAX_UNPACKED_BYTES / 1048576} MB can be taken in.`,
    );
  }
}

function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  if (cell instanceof Date) {
    const text = cell.toISOString();
    return text.slice(11, 16) === '00:00' ? text.slice(0, 10) : text.slice(0, 16);
  }
  return String(cell);
}
