import { converter, differenceCiede2000, type Lrgb, wcagContrast } from 'culori';
import { z } from 'zod';
import { CATEGORIES, PAPER } from '../graph/ink';

/** Colours of categories, in the order of a code book, where they are not those of Clembo: at most eight. */
export const Palette = z
  .array(z.string().regex(/^#[0-9A-F]{6}$/))
  .max(CATEGORIES.length)
  .default([]);

/** The colours of the categories of a page. */
export const categoriesOf = (palette: readonly string[]): readonly string[] =>
  palette.length > 0 ? palette : CATEGORIES;

/** Less contrast with paper than this is not seen by all (WCAG 2.2, 1.4.11). */
export const LEAST_CONTRAST = 3;
/** Colours that differ by less are taken for each other, in CIEDE2000: the least difference of our own. */
const LEAST_DIFFERENCE = 12;

/** Who takes two colours for one. */
type Sight = 'everyone' | 'who does not see red' | 'who does not see green' | 'who does not see blue';

/** What is wrong with colours: one is too pale on paper, or two are alike; by their places. */
export type PaletteFault =
  | { kind: 'pale'; at: number; contrast: number }
  | { kind: 'alike'; at: readonly [number, number]; to: Sight; difference: number };

/** What cones that are missing leave of red, green and blue in linear light (Machado, Oliveira & Fernandes 2009). */
const SIGHTS: [Sight, readonly number[]][] = [
  ['everyone', [1, 0, 0, 0, 1, 0, 0, 0, 1]],
  [
    'who does not see red',
    [0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998],
  ],
  [
    'who does not see green',
    [0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881],
  ],
  [
    'who does not see blue',
    [1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.3039],
  ],
];

const linear = converter('lrgb');

/** A colour as somebody sees it. */
function seenBy(sight: readonly number[], colour: string): Lrgb {
  const { r, g, b } = linear(colour)!;
  const [red, green, blue] = [0, 3, 6].map((k) =>
    Math.min(1, Math.max(0, sight[k]! * r + sight[k + 1]! * g + sight[k + 2]! * b)),
  ) as [number, number, number];
  return { mode: 'lrgb', r: red, g: green, b: blue };
}

/**
 * Whether colours can be seen on paper, and be told apart by people with any common colour-vision deficiency; two
 * that are alike are told once, for who sees them most alike.
 */
export function paletteFaults(colours: readonly string[]): PaletteFault[] {
  const apart = differenceCiede2000();
  const pale = colours.flatMap((c, at): PaletteFault[] => {
    const contrast = wcagContrast(c, PAPER);
    return contrast < LEAST_CONTRAST ? [{ kind: 'pale', at, contrast }] : [];
  });
  const seen = SIGHTS.map(([to, sight]) => ({ to, as: colours.map((c) => seenBy(sight, c)) }));
  const alike = colours.flatMap((_, j) =>
    colours.slice(0, j).flatMap((_, i): PaletteFault[] => {
      const [least] = seen
        .map(({ to, as }) => ({ to, difference: apart(as[i]!, as[j]!) }))
        .sort((a, b) => a.difference - b.difference);
      return least!.difference < LEAST_DIFFERENCE ? [{ kind: 'alike', at: [i, j], ...least! }] : [];
    }),
  );
  return [...pale, ...alike];
}
