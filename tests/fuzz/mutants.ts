import { unzipSync, zipSync } from 'fflate';

/** Words and values on which readers stumble: names that objects answer to, numbers out of range, halves of characters. */
const NASTY = [
  'constructor',
  '__proto__',
  'toString',
  'hasOwnProperty',
  '\u0000',
  '\\u0000',
  '\ud800',
  '1e308',
  '-1e308',
  '99999999999999999999',
  '4294967296',
  '-1',
  'NaN',
  'Infinity',
  '31/02/2026',
  '2026-13-45',
  '9999-12-31',
  '0001-01-01',
  '100000 years',
  '9e15 d',
  ' '.repeat(3000),
  'a,'.repeat(2000),
  '"',
  '""""',
  '\r\n\r\n',
  ';',
  '\t',
  '=1+1',
  '٣',
  '１２',
  'é'.normalize('NFD'),
  'x'.repeat(40_000),
  '1.'.repeat(900),
  'A1 FS+99999999999d',
  '+'.repeat(500),
];

type Random = () => number;
const below = (random: Random, n: number): number => Math.floor(random() * n);
const pick = <T>(random: Random, list: readonly T[]): T => list[below(random, list.length)]!;

/** A text with one to eight places changed: a nasty value put in, a piece taken out, doubled, or moved. */
export function mutateText(text: string, random: Random): string {
  let out = text;
  for (let k = 1 + below(random, 8); k > 0; k--) {
    const at = below(random, out.length + 1);
    const length = 1 + below(random, random() < 0.1 ? 2000 : 12);
    const piece = out.slice(at, at + length);
    switch (below(random, 6)) {
      case 0:
        out = out.slice(0, at) + pick(random, NASTY) + out.slice(at);
        break;
      case 1:
        out = out.slice(0, at) + pick(random, NASTY) + out.slice(at + length);
        break;
      case 2:
        out = out.slice(0, at) + out.slice(at + length);
        break;
      case 3:
        out = out.slice(0, at) + piece.repeat(1 + below(random, 40)) + out.slice(at);
        break;
      case 4: {
        const to = below(random, out.length + 1);
        out = out.slice(0, to) + piece + out.slice(to);
        break;
      }
      default:
        out = out.slice(0, at) + String.fromCharCode(below(random, 0x3000)) + out.slice(at + 1);
    }
  }
  return out;
}

/** Bytes with some turned over, cut off, or doubled. */
export function mutateBytes(bytes: Uint8Array, random: Random): Uint8Array {
  const out = bytes.slice(0, random() < 0.1 ? below(random, bytes.length) : bytes.length);
  for (let k = 1 + below(random, 20); k > 0 && out.length > 0; k--) out[below(random, out.length)] = below(random, 256);
  return out;
}

/** A workbook of which a part is changed as text and packed again, or whose archive itself is damaged. */
export function mutateWorkbook(bytes: Uint8Array, random: Random): Uint8Array {
  if (random() < 0.2) return mutateBytes(bytes, random);
  const parts = unzipSync(bytes);
  const name = pick(
    random,
    Object.keys(parts).filter((n) => n.endsWith('.xml') || n.endsWith('.rels')),
  );
  const text = mutateText(new TextDecoder().decode(parts[name]!), random);
  return zipSync({ ...parts, [name]: new TextEncoder().encode(text) });
}

/** A JSON text with one or two of its values changed for others, of any kind, or its text changed. */
export function mutateJson(text: string, random: Random): string {
  if (random() < 0.25) return mutateText(text, random);
  const document = JSON.parse(text) as { plan: unknown };
  // Mostly within the plan: a wrong header is refused before anything else is looked at.
  for (let k = 1 + below(random, 2); k > 0; k--) changeOne(random() < 0.95 ? document.plan : document, random);
  return JSON.stringify(document);
}

function changeOne(value: unknown, random: Random): void {
  if (typeof value !== 'object' || value === null) return;
  const keys = Object.keys(value);
  if (keys.length === 0) return;
  const holder = value as Record<string, unknown>;
  const key = pick(random, keys);
  const inner = holder[key];
  if (typeof inner === 'object' && inner !== null && Object.keys(inner).length > 0 && random() < 0.93) {
    changeOne(inner, random);
    return;
  }
  let deep: unknown = 1;
  for (let k = 0; k < 40; k++) deep = [deep];
  const values: unknown[] = [
    pick(random, NASTY),
    'x',
    0,
    30,
    480,
    1e300,
    -1,
    2 ** 53,
    -(2 ** 31) - 1,
    2 ** 31,
    0.5,
    null,
    true,
    [],
    {},
    deep,
    { constructor: { prototype: 1 } },
    pick(
      random,
      keys.map((k) => holder[k]),
    ),
  ];
  if (random() < 0.15) delete holder[key];
  else holder[key] = pick(random, values);
}
