/** The colours of pages: ink on paper, and eight categories. */
export const PAPER = '#FBFAF6';
export const INK = '#1E2A32';
export const SOFT_INK = '#5B6770';
export const HAIRLINE = '#D8D4CA';
export const KELP = '#0F6E6E';
export const MADDER = '#B3402E';
export const SAND = '#F0ECDD';
export const MIST = '#E6EAEC';

/**
 * Eight category colours, told apart by people with any common colour-vision deficiency: the least difference
 * of any two, in normal sight and in the three dichromacies, is 12 CIEDE2000 (measured in the tests).
 */
export const CATEGORIES = [
  '#264A61',
  '#427859',
  '#6F472A',
  '#79519E',
  '#CB5C83',
  '#8F813E',
  '#409995',
  '#8E83C5',
] as const;

/** What carries no category. */
export const NEUTRAL = '#5B6770';

/** The tint that a colour has on paper at an opacity, as a solid colour. */
export function tint(colour: string, opacity: number, paper: string = PAPER): string {
  const part = (hex: string, i: number) => Number.parseInt(hex.slice(1 + 2 * i, 3 + 2 * i), 16);
  const mixed = [0, 1, 2].map((i) => Math.round(part(colour, i) * opacity + part(paper, i) * (1 - opacity)));
  return `#${mixed
    .map((v) => v.toString(16).padStart(2, '0'))
    .join('')
    .toUpperCase()}`;
}
