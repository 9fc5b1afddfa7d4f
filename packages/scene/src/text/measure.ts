import { type Face, FACES, type FontMetrics } from './faces';

/** Measures text by adding up advance widths; right because every output draws it without kerning or ligatures. */
export interface Measure {
  /** Width in points at a size in points. */
  width(face: Face, size: number, text: string): number;
  /** True when the face has every character of the text. */
  has(face: Face, text: string): boolean;
  /** The text cut with an ellipsis so that it is at most so wide; empty when not even a letter would be left. */
  shorten(face: Face, size: number, text: string, width: number): string;
  /** Lines of at most that width, broken between words; the last one is cut when there are more than `lines`. */
  wrap(face: Face, size: number, text: string, width: number, lines: number): string[];
}

const ELLIPSIS = '…';

/** A measure for the given fonts. Widths are looked up in a typed table, and sums of texts are remembered. */
export function createMeasure(fonts: FontMetrics): Measure {
  const tables = new Map(FACES.map((face) => [face, widthTable(fonts[face].widths, fonts[face].unitsPerEm)]));
  const known = new Map(FACES.map((face) => [face, new Map<string, number>()]));

  const units = (face: Face, text: string): number => {
    const sums = known.get(face)!;
    let sum = sums.get(text);
    if (sum === undefined) {
      const table = tables.get(face)!;
      sum = 0;
      for (let i = 0; i < text.length; i++) {
        const code = text.charCodeAt(i);
        // The second half of a pair and combining marks take no room of their own.
        if ((code >= 0xdc00 && code <= 0xdfff) || (code >= 0x300 && code <= 0x36f)) continue;
        const width = table[code]!;
        sum += width >= 0 ? width : 0.62;
      }
      if (sums.size > 50_000) sums.clear();
      sums.set(text, sum);
    }
    return sum;
  };

  const measure: Measure = {
    width: (face, size, text) => units(face, text) * size,
    has: (face, text) => {
      const table = tables.get(face)!;
      for (let i = 0; i < text.length; i++) if (table[text.charCodeAt(i)]! < 0) return false;
      return true;
    },
    shorten: (face, size, text, width) => {
      if (units(face, text) * size <= width) return text;
      const letters = [...text];
      let low = 0;
      let high = letters.length - 1;
      const cut = (n: number) => letters.slice(0, n).join('').trimEnd() + ELLIPSIS;
      while (low < high) {
        const middle = (low + high + 1) >> 1;
        if (units(face, cut(middle)) * size <= width) low = middle;
        else high = middle - 1;
      }
      return low < 1 ? '' : cut(low);
    },
    wrap: (face, size, text, width, lines) => {
      const out: string[] = [];
      let line = '';
      const words = text.split(/\s+/).filter((w) => w !== '');
      words.forEach((word, i) => {
        const longer = line === '' ? word : `${line} ${word}`;
        if (line === '' || units(face, longer) * size <= width) {
          line = longer;
          return;
        }
        out.push(line);
        line = out.length === lines - 1 ? words.slice(i).join(' ') : word;
        if (out.length === lines - 1) words.length = i;
      });
      if (line !== '') out.push(line);
      return out.slice(0, lines).map((l) => measure.shorten(face, size, l, width));
    },
  };
  return measure;
}

function widthTable(widths: Record<string, number>, unitsPerEm: number): Float32Array {
  const table = new Float32Array(65_536).fill(-1);
  for (const [code, width] of Object.entries(widths))
    if (Number(code) < 65_536) table[Number(code)] = width / unitsPerEm;
  return table;
}
