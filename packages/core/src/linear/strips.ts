import type { Pin } from '../plan/schema';

/** A stretch of a picture, as fractions of its width, and the places at its two ends in thousandths. */
export interface StripPiece {
  x0: number;
  x1: number;
  place0: number;
  place1: number;
}

/** Why a picture cannot be laid along a line; null where it can. */
export function pinTrouble(pins: readonly Pin[]): string | null {
  if (pins.length < 2)
    return pins.length === 0
      ? 'Set two pins: click the picture where you know the place.'
      : 'Set one more pin: two known places say how the picture lies.';
  const sorted = [...pins].sort((a, b) => a.x - b.x);
  const way = Math.sign(sorted[1]!.place - sorted[0]!.place);
  for (let k = 1; k < sorted.length; k++) {
    if (sorted[k]!.x - sorted[k - 1]!.x < 1e-6)
      return 'Two pins stand above each other: put one of them further along.';
    if (Math.sign(sorted[k]!.place - sorted[k - 1]!.place) !== way || way === 0)
      return 'The places of the pins have to rise or fall from one side of the picture to the other.';
  }
  return null;
}

/**
 * How a picture lies along a line: stretched evenly between one pin and the next, and outside them as between the two
 * that are nearest. From its left edge to its right one; none where its pins do not say it.
 */
export function stripPieces(pins: readonly Pin[]): StripPiece[] {
  if (pinTrouble(pins) !== null) return [];
  const sorted = [...pins].sort((a, b) => a.x - b.x);
  const pieces = sorted.slice(1).map((b, k): StripPiece => {
    const a = sorted[k]!;
    return { x0: a.x, x1: b.x, place0: a.place, place1: b.place };
  });
  const slope = (p: StripPiece) => (p.place1 - p.place0) / (p.x1 - p.x0);
  const [first, last] = [pieces[0]!, pieces.at(-1)!];
  const head = { x0: 0, x1: first.x0, place0: first.place0 - first.x0 * slope(first), place1: first.place0 };
  const tail = { x0: last.x1, x1: 1, place0: last.place1, place1: last.place1 + (1 - last.x1) * slope(last) };
  return [head, ...pieces, tail].filter((p) => p.x1 - p.x0 > 1e-9);
}

/** The place, in thousandths, of a point of a picture that is so far along it; null where its pins do not say it. */
export function placeInStrip(pins: readonly Pin[], x: number): number | null {
  const pieces = stripPieces(pins);
  const piece = pieces.find((p) => x <= p.x1) ?? pieces.at(-1);
  if (!piece) return null;
  return piece.place0 + ((x - piece.x0) / (piece.x1 - piece.x0)) * (piece.place1 - piece.place0);
}
