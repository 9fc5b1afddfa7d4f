import { CATEGORIES, type Face, INK, KELP, PAPER, SAND, SOFT_INK } from '@clembo/scene';

/** The colours of the theme by their place in it. Whoever lays another theme over the slides changes these. */
const SCHEME: [slot: string, use: string, colour: string][] = [
  ['dk1', 'tx1', INK],
  ['lt1', 'bg1', PAPER],
  ['dk2', 'tx2', SOFT_INK],
  ['lt2', 'bg2', SAND],
  ...CATEGORIES.slice(0, 6).map((colour, k): [string, string, string] => [`accent${k + 1}`, `accent${k + 1}`, colour]),
  ['hlink', 'hlink', KELP],
  ['folHlink', 'folHlink', KELP],
];

const USES = new Map([...SCHEME].reverse().map(([, use, colour]) => [colour.toUpperCase(), use]));

/** The colour scheme of the theme. */
export const schemeXml = (): string =>
  `<a:clrScheme name="Clembo">${SCHEME.map(([slot, , colour]) => `<a:${slot}><a:srgbClr val="${colour.slice(1)}"/></a:${slot}>`).join('')}</a:clrScheme>`;

/** A colour: by its place in the theme where it has one. */
export function colourXml(colour: string, opacity = 1): string {
  const alpha = opacity >= 1 ? '' : `<a:alpha val="${Math.round(opacity * 100_000)}"/>`;
  const use = USES.get(colour.toUpperCase());
  const [tag, value] = use === undefined ? ['srgbClr', colour.slice(1).toUpperCase()] : ['schemeClr', use];
  return `<a:${tag} val="${value}">${alpha}</a:${tag}>`;
}

/** How a face is asked for on a slide: titles and labels by the fonts of the theme. */
export const TYPEFACES: Record<Face, { typeface: string; bold: boolean }> = {
  label: { typeface: '+mn-lt', bold: false },
  labelStrong: { typeface: '+mn-lt', bold: true },
  text: { typeface: 'Sofia Sans', bold: false },
  textStrong: { typeface: 'Sofia Sans', bold: true },
  title: { typeface: '+mj-lt', bold: true },
};
