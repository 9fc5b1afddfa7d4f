/** The colours of pages: ink on paper, and eight categories. */
export const PAPER = '#FBFAF6';
export const INK = '#1E2A32';
export const SOFT_INK = '#5B6770';
export const HAIRLINE = '#D8D4CA';
export const KELP = '#0F6E6E';
/** Late against a promise, and ahead of it. */
export const MADDER = '#B3402E';
export const HAREBELL = '#3F6FB5';
/** The same, and soft ink, where they stand on the tint of a bar. */
export const INK_ON_TINT = '#3A454D';
export const MADDER_ON_TINT = '#842A1B';
export const HAREBELL_ON_TINT = '#24467C';
export const SAND = '#F0ECDD';
/** Slanting lines over what is closed. */
export const SAND_LINE = '#D9CFB0';
/** Marigold, dark enough to be read: the least days between works. */
export const GOLD = '#B57B0F';
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

/** All bars of a page that is made for print in grey. */
export const GREY = '#4A4F53';

/** What carries no category. */
export const NEUTRAL = '#5B6770';

/** The tint that a colour has on paper at an opacity, as a solid colour. */
export function tint(colour: string, opacity: number, paper: string = PAPER): string {
  const [c, p] = [Number.parseInt(colour.slice(1), 16), Number.parseInt(paper.slice(1), 16)];
  const mixed = (shift: number) =>
    Math.round(((c >> shift) & 255) * opacity + ((p >> shift) & 255) * (1 - opacity)) << shift;
  return `#${(mixed(16) | mixed(8) | mixed(0)).toString(16).padStart(6, '0').toUpperCase()}`;
}
