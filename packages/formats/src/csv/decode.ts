/**
 * Text from bytes of an unknown encoding: a byte-order mark decides; without one, UTF-16 is told by its zero
 * bytes, UTF-8 by being valid, and what is left is read as Windows-1252, in which every byte means something.
 */
export function decodeText(bytes: Uint8Array): string {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return decode('utf-8', bytes.subarray(3));
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return decode('utf-16le', bytes.subarray(2));
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return decode('utf-16be', bytes.subarray(2));
  const sample = bytes.subarray(0, 2000);
  let [even, odd] = [0, 0];
  sample.forEach((b, i) => {
    if (b === 0) i % 2 === 0 ? even++ : odd++;
  });
  if (odd > sample.length / 5 && even < odd / 4) return decode('utf-16le', bytes);
  if (even > sample.length / 5 && odd < even / 4) return decode('utf-16be', bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return decodeWindows1252(bytes);
  }
}

const decode = (encoding: string, bytes: Uint8Array): string => new TextDecoder(encoding).decode(bytes);

/** 0x80 to 0x9f of Windows-1252 as the WHATWG Encoding Standard lists them; Node's decoder takes them for Latin-1. */
const WINDOWS_1252 =
  '\u20ac\u0081\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u008d\u017d\u008f' +
  '\u0090\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u009d\u017e\u0178';

const decodeWindows1252 = (bytes: Uint8Array): string =>
  decode('latin1', bytes).replace(/[\x80-\x9f]/g, (c) => WINDOWS_1252[c.charCodeAt(0) - 0x80]!);
