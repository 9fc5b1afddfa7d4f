import { type Face, FACES, type FontMetrics } from './faces';

/** Measures text by adding up advance widths; right because every output draws it without kerning or ligatures. */
export interface Measure {
  /** Width in points at a size in points. */
  width(face: Face, size: number, text: string): number;
  /**
   * The text as a page can show it: line breaks and control characters are spaces, and every character that any of
   * the faces lacks is an empty box, so that all outputs show the same.
   */
  clean(text: string): string;
  /** The text cut with an ellipsis so that it is at most so wide; empty when not even a letter would be left. */
  shorten(face: Face, size: number, text: string, width: number): string;
  /** Lines of at most that width, broken between words; the last one is cut when there are more than `lines`. */
  wrap(face: Face, size: number, text: string, width: number, lines: number): string[];
}

const ELLIPSIS = '…';
/** What stands for a character that the fonts lack; tools/make-fonts.mjs draws it into every face. */
export const MISSING = '□';

/** A measure for the given fonts. Widths are looked up in a typed table, and sums of texts are remembered. */
export function createMeasure(fonts: FontMetrics): Measure {
  const tables = new Map(FACES.map((face) => [face, widthTable(fonts[face].widths, fonts[face].unitsPerEm)]));
  const shared = sharedCharacters([...tables.values()]);
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

  const isClean = (text: string): boolean => {
    for (let i = 0; i < text.length; i++) if (shared[text.charCodeAt(i)] === 0) return false;
    return true;
  };

  const measure: Measure = {
    width: (face, size, text) => units(face, text) * size,
    clean: (text) => {
      if (isClean(text)) return text;
      let out = '';
      // biome-ignore lint: control characters are what is looked for
      for (const c of text.replace(/[\u0000-\u0020\u007f-\u009f\u2028\u2029]+/g, ' ')) out += isClean(c) ? c : MISSING;
      return out;
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
      const words = text.split(' ').filter((w) => w !== '');
      let line = '';
      while (words.length > 0) {
        const word = words.shift()!;
        const longer = line === '' ? word : `${line} ${word}`;
        if (units(face, longer) * size <= width) {
          line = longer;
          continue;
        }
        if (out.length === lines - 1) {
          line = measure.shorten(face, size, [longer, ...words].join(' '), width);
          break;
        }
        if (line === '') {
          // A word wider than the line is broken where it has to be.
          const part = headThatFits(word, (head) => units(face, head) * size <= width);
          words.unshift(word.slice(part.length));
          out.push(part);
        } else {
          out.push(line);
          line = '';
          words.unshift(word);
        }
      }
      if (line !== '') out.push(line);
      return out;
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

/** 1 for every character that all faces have and that is no control character. */
function sharedCharacters(tables: Float32Array[]): Uint8Array {
  const shared = new Uint8Array(65_536);
  for (let c = 0x20; c < 65_536; c++) {
    if (c >= 0x7f && c <= 0x9f) continue;
    if (tables.every((t) => t[c]! >= 0)) shared[c] = 1;
  }
  return shared;
}

/** The longest beginning of a word that fits; at least its first letter. */
function headThatFits(word: string, fits: (head: string) => boolean): string {
  const letters = [...word];
  let n = 1;
  while (n < letters.length && fits(letters.slice(0, n + 1).join(''))) n++;
  return letters.slice(0, n).join('');
}
