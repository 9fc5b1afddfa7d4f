import { MAX_UNPACKED_BYTES, UnreadableFile } from '../table/table';
import { ArchiveDamaged, readDirectory, unpackEntry } from '../zip/archive';

/** The parts of a workbook that its cells may be read from (ISO/IEC 29500); pictures and the like are passed over. */
const NEEDED = /\.(?:xml|rels)$/i;
const PASSED_OVER =
  /(?:^|\/)(?:drawings|charts|theme|media|externalLinks|pivotCache|pivotTables|printerSettings|customXml|docProps|persons)\//i;
const MAX_PARTS = 1000;

/**
 * The needed parts of a workbook by name. What is inflated is counted, whatever the archive declares.
 *
 * @throws UnreadableFile
 */
export function unpackWorkbook(bytes: Uint8Array, source: string): Map<string, Uint8Array> {
  const parts = new Map<string, Uint8Array>();
  let left = MAX_UNPACKED_BYTES;
  try {
    const entries = readDirectory(bytes);
    if (entries.length > MAX_PARTS)
      throw new UnreadableFile(`${source} consists of ${entries.length} parts; at most ${MAX_PARTS} make a workbook.`);
    for (const entry of entries) {
      if (!NEEDED.test(entry.name) || PASSED_OVER.test(entry.name)) continue;
      const data = unpackEntry(bytes, entry, left);
      if (data === null)
        throw new UnreadableFile(
          `${source} unpacks to more than ${MAX_UNPACKED_BYTES / 1048576} MB; no more can be taken in. Split it.`,
        );
      left -= data.length;
      parts.set(entry.name.replace(/^\//, ''), data);
    }
  } catch (error) {
    if (error instanceof ArchiveDamaged) throw notAWorkbook(source);
    throw error;
  }
  return parts;
}

export const notAWorkbook = (source: string): UnreadableFile =>
  new UnreadableFile(`${source} is not a workbook, or it is damaged. Save it again as XLSX, or as CSV.`);
