/** A file that is no PNG and no JPEG, or a damaged one; the message says so. */
export class PictureRefused extends Error {}

const PNG = [137, 80, 78, 71, 13, 10, 26, 10];
/** Chunks of a PNG that say how it looks; all others say something about it. */
const PNG_KEPT = new Set(['IHDR', 'PLTE', 'tRNS', 'IDAT', 'IEND', 'gAMA', 'cHRM', 'sRGB', 'iCCP']);

const startsWith = (bytes: Uint8Array, mark: readonly number[]): boolean => mark.every((b, k) => bytes[k] === b);
const broken = () => new PictureRefused('it is not whole');

function cleanPng(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [bytes.subarray(0, 8)];
  let ended = false;
  for (let at = 8; at < bytes.length && !ended; ) {
    if (at + 12 > bytes.length) throw broken();
    const size = view.getUint32(at) + 12;
    if (at + size > bytes.length) throw broken();
    const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (PNG_KEPT.has(type)) kept.push(bytes.subarray(at, at + size));
    ended = type === 'IEND';
    at += size;
  }
  if (!ended) throw broken();
  return joined(kept);
}

/** Markers of a JPEG that say something about it: all application data but that of its colours (APP0, APP2, APP14), comments. */
const isAbout = (marker: number): boolean =>
  (marker >= 0xe1 && marker <= 0xef && marker !== 0xe2 && marker !== 0xee) || marker === 0xfe;

function cleanJpeg(bytes: Uint8Array): Uint8Array {
  const kept: Uint8Array[] = [bytes.subarray(0, 2)];
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) throw broken();
    const marker = bytes[at + 1]!;
    // From the scan on there are only pixels, up to the end mark.
    if (marker === 0xda) {
      let end = bytes.length - 1;
      while (end > at && !(bytes[end] === 0xd9 && bytes[end - 1] === 0xff)) end--;
      if (end === at) throw broken();
      kept.push(bytes.subarray(at, end + 1));
      return joined(kept);
    }
    const size = 2 + bytes[at + 2]! * 256 + bytes[at + 3]!;
    if (at + size > bytes.length) throw broken();
    if (!isAbout(marker)) kept.push(bytes.subarray(at, at + size));
    at += size;
  }
  throw broken();
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
}

function bytesOf(base64: string): Uint8Array {
  try {
    return Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
  } catch {
    throw broken();
  }
}

function base64Of(bytes: Uint8Array): string {
  let text = '';
  for (let k = 0; k < bytes.length; k += 0x8000) text += String.fromCharCode(...bytes.subarray(k, k + 0x8000));
  return btoa(text);
}

/**
 * A picture as a data URL with nothing in it but pixels and their colours: no place, camera, author or comment.
 *
 * @throws PictureRefused where it is not what it says, or not whole
 */
export function bareBits(data: string): string {
  const [head, body = ''] = data.split(',');
  const bytes = bytesOf(body);
  if (startsWith(bytes, PNG)) {
    if (head !== 'data:image/png;base64') throw new PictureRefused('it is a PNG and says that it is something else');
    return `${head},${base64Of(cleanPng(bytes))}`;
  }
  if (startsWith(bytes, [0xff, 0xd8, 0xff])) {
    if (head !== 'data:image/jpeg;base64') throw new PictureRefused('it is a JPEG and says that it is something else');
    return `${head},${base64Of(cleanJpeg(bytes))}`;
  }
  throw new PictureRefused('it is neither a PNG nor a JPEG');
}
