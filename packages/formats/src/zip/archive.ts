import CRC32 from 'crc-32';
import { Inflate } from 'fflate';

/** An archive that is not whole, or not what it says; the message is for developers. */
export class ArchiveDamaged extends Error {}

/** An entry of an archive's directory. */
export interface ArchiveEntry {
  name: string;
  method: number;
  crc: number;
  packedSize: number;
  size: number;
  /** Where its own header begins. */
  at: number;
}

const END = 0x06054b50;
const ENTRY = 0x02014b50;
const LOCAL = 0x04034b50;
const UNSAID = 0xffffffff;
/** Length of the record at the end, and the most that a comment after it can have. */
const END_SIZE = 22;
const MAX_COMMENT = 65_535;

/**
 * The directory of an archive, as PKWARE's APPNOTE 6.3 describes it (4.3.12 entries, 4.3.16 end, 4.5.3 long sizes).
 * Nothing is unpacked.
 *
 * @throws ArchiveDamaged
 */
export function readDirectory(bytes: Uint8Array): ArchiveEntry[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const end = findEnd(view);
  const count = view.getUint16(end + 10, true);
  let at = view.getUint32(end + 16, true);
  const entries: ArchiveEntry[] = [];
  try {
    for (let k = 0; k < count; k++) {
      if (view.getUint32(at, true) !== ENTRY) throw new ArchiveDamaged('an entry of the directory is no entry');
      const [nameLength, extraLength, commentLength] = [28, 30, 32].map((o) => view.getUint16(at + o, true)) as [
        number,
        number,
        number,
      ];
      const extra = at + 46 + nameLength;
      const long = longValues(view, extra, extraLength);
      const value = (offset: number): number => {
        const short = view.getUint32(at + offset, true);
        return short === UNSAID ? (long.shift() ?? short) : short;
      };
      // In the order in which long values stand: size, packed size, place.
      const size = value(24);
      const packedSize = value(20);
      entries.push({
        name: new TextDecoder().decode(bytes.subarray(at + 46, extra)),
        method: view.getUint16(at + 10, true),
        crc: view.getInt32(at + 16, true),
        packedSize,
        size,
        at: value(42),
      });
      at = extra + extraLength + commentLength;
    }
  } catch (error) {
    if (error instanceof RangeError) throw new ArchiveDamaged('the directory ends too early');
    throw error;
  }
  return entries;
}

function findEnd(view: DataView): number {
  for (let at = view.byteLength - END_SIZE; at >= Math.max(0, view.byteLength - END_SIZE - MAX_COMMENT); at--)
    if (view.getUint32(at, true) === END) return at;
  throw new ArchiveDamaged('there is no end of the directory');
}

function longValues(view: DataView, extra: number, length: number): number[] {
  for (let at = extra; at + 4 <= extra + length; ) {
    const size = view.getUint16(at + 2, true);
    if (view.getUint16(at, true) === 1)
      return Array.from({ length: size >> 3 }, (_, k) => Number(view.getBigUint64(at + 4 + k * 8, true)));
    at += 4 + size;
  }
  return [];
}

/** What is pushed into the decompressor at a time, in bytes: the size is looked at after each. */
const CHUNK = 65_536;

/**
 * Unpacks an entry. What comes out is counted, whatever the directory declares, and compared with its checksum.
 *
 * @param most ends it with null as soon as more than so many bytes have come out
 * @throws ArchiveDamaged
 */
export function unpackEntry(bytes: Uint8Array, entry: ArchiveEntry, most: number): Uint8Array | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (entry.at + 30 > bytes.length || view.getUint32(entry.at, true) !== LOCAL)
    throw new ArchiveDamaged(`${entry.name} is not where the directory says`);
  const begin = entry.at + 30 + view.getUint16(entry.at + 26, true) + view.getUint16(entry.at + 28, true);
  const packed = bytes.subarray(begin, begin + entry.packedSize);
  if (packed.length < entry.packedSize) throw new ArchiveDamaged(`${entry.name} ends too early`);
  const data = entry.method === 0 ? packed : entry.method === 8 ? inflate(packed, most) : undefined;
  if (data === undefined) throw new ArchiveDamaged(`${entry.name} is packed in a way that is not known`);
  if (data === null || data.length > most) return null;
  if (data.length !== entry.size || CRC32.buf(data) !== entry.crc)
    throw new ArchiveDamaged(`${entry.name} is not what was packed`);
  return data;
}

function inflate(packed: Uint8Array, most: number): Uint8Array | null {
  const chunks: Uint8Array[] = [];
  let size = 0;
  let ended = false;
  const inflater = new Inflate((chunk, final) => {
    size += chunk.length;
    chunks.push(chunk);
    ended = final;
  });
  try {
    for (let at = 0; at < packed.length && size <= most; at += CHUNK)
      inflater.push(packed.subarray(at, at + CHUNK), at + CHUNK >= packed.length);
  } catch {
    throw new ArchiveDamaged('it cannot be unpacked');
  }
  if (size > most) return null;
  if (!ended) throw new ArchiveDamaged('it ends too early');
  const whole = new Uint8Array(size);
  let at = 0;
  for (const chunk of chunks) {
    whole.set(chunk, at);
    at += chunk.length;
  }
  return whole;
}
