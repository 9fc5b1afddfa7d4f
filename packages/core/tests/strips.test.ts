import { describe, expect, test } from '@jest/globals';
import { bareBits, pinTrouble, placeInStrip, stripPieces } from '../src/index';
import { seeded } from './helpers';

const pin = (x: number, place: number) => ({ x, y: 0.5, place });

describe('a picture along a line', () => {
  // By hand: a quarter of the picture is 100 m, the next half 400 m, so the last quarter goes on with 200 m.
  test('between pins it is stretched evenly, outside them it goes on', () => {
    const pins = [pin(0.75, 500_000), pin(0, 0), pin(0.25, 100_000)];
    expect([0, 0.125, 0.25, 0.5, 0.75, 1].map((x) => placeInStrip(pins, x))).toEqual([
      0, 50_000, 100_000, 300_000, 500_000, 700_000,
    ]);
    expect(stripPieces(pins).map((p) => [p.x0, p.x1])).toEqual([
      [0, 0.25],
      [0.25, 0.75],
      [0.75, 1],
    ]);
  });

  test('against the line as well', () => {
    const pins = [pin(0.2, 800), pin(0.7, 300)];
    expect([0, 0.2, 0.45, 1].map((x) => Math.round(placeInStrip(pins, x)!) + 0)).toEqual([1000, 800, 550, 0]);
  });

  test('pieces lie end to end, and every pin keeps its place (random pins)', () => {
    const random = seeded(3);
    for (let k = 0; k < 200; k++) {
      const count = 2 + Math.floor(random() * 6);
      const way = random() < 0.5 ? 1 : -1;
      let [x, place] = [random() * 0.2, Math.floor(random() * 5000) - 2000];
      const pins = Array.from({ length: count }, () => {
        x += 0.01 + (random() * 0.7) / count;
        place += way * (1 + Math.floor(random() * 900));
        return pin(Math.min(1, x), place);
      });
      const pieces = stripPieces(pins);
      expect([pieces[0]!.x0, pieces.at(-1)!.x1]).toEqual([0, 1]);
      pieces.slice(1).forEach((p, j) => {
        expect(p.x0).toBe(pieces[j]!.x1);
        expect(p.place0).toBeCloseTo(pieces[j]!.place1, 6);
      });
      for (const p of pins) expect(placeInStrip(pins, p.x)).toBeCloseTo(p.place, 6);
    }
  });

  test('what the pins cannot say is said', () => {
    expect(pinTrouble([])).toContain('two pins');
    expect(pinTrouble([pin(0.1, 5)])).toContain('one more');
    expect(pinTrouble([pin(0.1, 5), pin(0.1, 9)])).toContain('above each other');
    expect(pinTrouble([pin(0.1, 5), pin(0.5, 9), pin(0.8, 7)])).toContain('rise or fall');
    expect(pinTrouble([pin(0.1, 5), pin(0.5, 5)])).toContain('rise or fall');
    expect(stripPieces([pin(0.1, 5)])).toEqual([]);
    expect(pinTrouble([pin(0.8, 7), pin(0.1, 5)])).toBeNull();
  });
});

describe('a picture has nothing in it but pixels', () => {
  const bytes = (...parts: (number[] | string)[]): Uint8Array =>
    Uint8Array.from(parts.flatMap((p) => (typeof p === 'string' ? [...p].map((c) => c.charCodeAt(0)) : p)));
  const url = (kind: string, b: Uint8Array) => `data:image/${kind};base64,${Buffer.from(b).toString('base64')}`;
  const chunk = (type: string, body: number[]) => bytes([0, 0, 0, body.length], type, body, [1, 2, 3, 4]);
  const png = (...chunks: Uint8Array[]) =>
    Uint8Array.from([137, 80, 78, 71, 13, 10, 26, 10, ...chunks.flatMap((c) => [...c])]);

  // Chunk names: Portable Network Graphics (PNG) Specification, third edition, W3C 2025, clause 11.
  test('texts, times and camera data of a PNG are gone, all else is as it was', () => {
    const [head, data, end] = [chunk('IHDR', [1, 2]), chunk('IDAT', [9, 9]), chunk('IEND', [])];
    const told = png(head, chunk('tEXt', [65]), chunk('eXIf', [7]), data, chunk('tIME', [1]), end);
    expect(bareBits(url('png', told))).toBe(url('png', png(head, data, end)));
  });

  // Markers: ITU-T T.81, annex B; Exif stands in APP1.
  test('camera data and comments of a JPEG are gone', () => {
    const segment = (marker: number, text: string) => bytes([0xff, marker, 0, text.length + 2], text);
    const parts = (...s: Uint8Array[]) =>
      bytes([0xff, 0xd8], ...s.map((x) => [...x]), [0xff, 0xda, 0, 2, 5, 6, 0xff, 0xd9]);
    const [jfif, table] = [segment(0xe0, 'JFIF'), segment(0xdb, 'qq')];
    const told = parts(jfif, segment(0xe1, 'Exif: where'), segment(0xfe, 'who'), table);
    expect(bareBits(url('jpeg', told))).toBe(url('jpeg', parts(jfif, table)));
    expect(bareBits(url('jpeg', Uint8Array.from([...told, 1, 2, 3])))).toBe(url('jpeg', parts(jfif, table)));
  });

  test('what is no picture, or not whole, is refused', () => {
    expect(() => bareBits(url('png', bytes('<svg onload="x">')))).toThrow('neither');
    expect(() => bareBits(url('jpeg', png(chunk('IEND', []))))).toThrow('something else');
    expect(() => bareBits(url('png', png(chunk('IHDR', [1]))))).toThrow('not whole');
    expect(() => bareBits(url('png', png(chunk('IHDR', [1])).subarray(0, 15)))).toThrow('not whole');
    expect(() => bareBits(url('jpeg', bytes([0xff, 0xd8, 0xff, 0xe0, 0, 99])))).toThrow('not whole');
  });
});
