import { readXml } from './xml';

/** How a number of a cell is meant to be read. */
export type NumberFormat =
  | { as: 'plain' }
  | { as: 'date' | 'time' | 'elapsed' }
  /** With so many digits behind the decimal point. */
  | { as: 'fixed' | 'percent'; digits: number };

/** What the style of a cell says that matters to its reader. */
export interface CellStyle {
  format: NumberFormat;
  /** Steps by which its text is set in. */
  indent: number;
  /** Painted in a colour that is not white. */
  filled: boolean;
}

const PLAIN: NumberFormat = { as: 'plain' };
export const NO_STYLE: CellStyle = { format: PLAIN, indent: 0, filled: false };

/** Formats that are known by number alone (ISO/IEC 29500-1, 18.8.30). */
function builtIn(id: number): NumberFormat {
  if ((id >= 14 && id <= 17) || id === 22 || (id >= 27 && id <= 36) || (id >= 50 && id <= 58)) return { as: 'date' };
  if (id >= 18 && id <= 21) return { as: 'time' };
  if (id >= 45 && id <= 47) return { as: id === 46 ? 'elapsed' : 'time' };
  if (id === 9 || id === 10) return { as: 'percent', digits: id === 9 ? 0 : 2 };
  if (id === 2) return { as: 'fixed', digits: 2 };
  return PLAIN;
}

/** What a format code says: its first section, without what is quoted, escaped or in brackets. */
function readFormatCode(code: string): NumberFormat {
  const section = code.slice(0, 300).split(';')[0]!;
  if (/\[(?:h+|m+|s+)\]/i.test(section)) return { as: 'elapsed' };
  const bare = section
    .replace(/\[[^\]]*\]/g, '')
    .replace(/"[^"]*"/g, '')
    .replace(/[\\_*]./g, '');
  if (/general|standard|^@/i.test(bare)) return PLAIN;
  if (/[dyj]|mmm/i.test(bare)) return { as: 'date' };
  if (/[hs]/i.test(bare)) return { as: 'time' };
  if (/m/i.test(bare)) return { as: 'date' };
  const digits = /[.,](0+)/.exec(bare.replace(/,(?=[0#]{3})/g, ''))?.[1]?.length ?? 0;
  if (bare.includes('%')) return { as: 'percent', digits };
  return /E[+-]/i.test(bare) || digits === 0 ? PLAIN : { as: 'fixed', digits };
}

/** The styles of a workbook in the order in which cells name them. */
export function readStyles(bytes: Uint8Array | undefined): CellStyle[] {
  if (!bytes) return [];
  const styles: CellStyle[] = [];
  const codes = new Map<number, NumberFormat>();
  const fills: boolean[] = [];
  let within = '';
  let solid = false;
  readXml(bytes, {
    open(name, a) {
      if (name === 'numFmt') codes.set(Number(a.numFmtId), readFormatCode(a.formatCode ?? ''));
      else if (name === 'cellXfs' || name === 'cellStyleXfs' || name === 'dxfs') within = name;
      else if (name === 'fill') {
        fills.push(false);
        solid = false;
      } else if (name === 'patternFill') solid = a.patternType !== undefined && !/^(none|gray125)$/.test(a.patternType);
      else if (name === 'fgColor' && solid && within !== 'dxfs') fills[fills.length - 1] = !isWhite(a);
      else if (name === 'xf' && within === 'cellXfs') {
        const id = Number(a.numFmtId ?? 0);
        styles.push({ format: codes.get(id) ?? builtIn(id), indent: 0, filled: fills[Number(a.fillId ?? 0)] ?? false });
      } else if (name === 'alignment' && within === 'cellXfs' && styles.length > 0)
        styles[styles.length - 1]!.indent = Math.min(50, Math.max(0, Number(a.indent ?? 0) || 0));
    },
    close(name) {
      if (name === within) within = '';
    },
  });
  return styles;
}

const isWhite = (a: Record<string, string>): boolean =>
  a.theme === '0' ? !a.tint || Number(a.tint) === 0 : a.indexed === '9' || /^(?:FF|00)?FFFFFF$/i.test(a.rgb ?? '');
