import { GOING, GONE, LOOSE, NOT_YET, THERE, UNDATED, UNDER_WAY } from '@clembo/core';
import { HAIRLINE, HAREBELL, INK, MADDER, NEUTRAL, PAPER, SOFT_INK, tint } from '../../graph/ink';

/** How an element is drawn. Colours are `#RRGGBB`; null draws none. */
export interface ElementLook {
  /** Its faces up to its fill, and above it. */
  face: string | null;
  above: string | null;
  /** Up to which share of its height its faces are `face`. */
  fill: number;
  /** Its faces are stripes. */
  hatched: boolean;
  edge: string | null;
  /** Lines of two strengths. */
  strong: boolean;
  dashed: boolean;
}

/** Faces of what stands: a quiet shade of paper. */
const STANDS = '#DAD5CA';
const NOTHING: ElementLook = {
  face: null,
  above: null,
  fill: 1,
  hatched: false,
  edge: null,
  strong: false,
  dashed: false,
};

/** What is drawn of what is not there. */
export interface Shown {
  /** What is not yet there as faint edges. */
  toCome: boolean;
  /** What has no work, or work without dates, as a pale body. */
  loose: boolean;
}

/**
 * How an element is drawn that stands so: what is there in quiet shade with ink edges, what is under way filled from
 * below in the colour of its code, what is to come as faint edges. What is behind its promise has madder edges and
 * stripes, what is ahead of it harebell edges; both are told apart without colours, by stripes and by strength.
 *
 * @param share how much of it is built, 0 to 1
 * @param against −1 behind its promise, 1 ahead of it
 */
export function elementLook(
  stage: number,
  share: number,
  against: number,
  colour: string,
  { toCome, loose }: Shown,
): ElementLook {
  const line = against < 0 ? MADDER : against > 0 ? HAREBELL : INK;
  const strong = against !== 0;
  switch (stage) {
    case THERE:
      return { ...NOTHING, face: STANDS, above: STANDS, edge: line, strong };
    case UNDER_WAY:
      return {
        ...NOTHING,
        face: tint(colour, 0.62),
        above: against < 0 ? tint(MADDER, 0.3) : null,
        fill: share,
        hatched: false,
        edge: against === 0 ? colour : line,
        strong: true,
      };
    case GOING:
      return { ...NOTHING, face: tint(NEUTRAL, 0.25), fill: share, edge: SOFT_INK, dashed: true, strong };
    case NOT_YET:
      return against < 0
        ? { ...NOTHING, face: tint(MADDER, 0.45), above: tint(MADDER, 0.45), hatched: true, edge: MADDER, strong }
        : toCome
          ? { ...NOTHING, edge: TO_COME }
          : NOTHING;
    case LOOSE:
    case UNDATED:
      return loose ? { ...NOTHING, face: PALE, above: PALE, edge: HAIRLINE, dashed: stage === UNDATED } : NOTHING;
    case GONE:
    default:
      return NOTHING;
  }
}

/** Edges of what is to come, and faces of what has no work. */
export const TO_COME = '#C3C6C4';
export const PALE = tint(NEUTRAL, 0.06, PAPER);
export { STANDS };
