import { type PlanPicture, stripPieces } from '@clembo/core';
import { HAIRLINE } from '../../graph/ink';
import { type ImageNode, round, type SceneNode } from '../../graph/scene';
import { type Plane, placeAlong } from './plane';

/** A picture that lies along the line of a page. */
export interface Strip {
  name: string;
  picture: PlanPicture;
  pins: readonly { x: number; y: number; place: number }[];
}

/** A strip is at least and at most so high, in sizes of the type; between them as its picture is. */
const LEAST = 3;
const MOST = 9;
/** Between strips, and between them and what is above and below. */
export const STRIP_GAP = 0.5;

/** How high a strip is drawn, in sizes of the type, where its axis is so long in them. */
export function stripHeight({ picture, pins }: Strip, long: number, places: number): number {
  const pieces = stripPieces(pins);
  const covered = Math.abs(pieces.at(-1)!.place1 - pieces[0]!.place0) / 1000;
  const natural = (long * (covered / places) * picture.height) / picture.width;
  return Math.min(MOST, Math.max(LEAST, natural));
}

/**
 * A strip over the plot, or upright beside it, from one edge of its band to the other: each piece of it between two pins
 * is stretched by itself, so that every place of the picture stands where the axis has it. What lies outside the plot
 * is cut off.
 *
 * @param from the edge of the band that is further from the plot, `to` the nearer one
 */
export function stripNodes({ name, picture, pins }: Strip, plane: Plane, from: number, to: number): SceneNode[] {
  const [low, high] = plane.across ? [plane.left, plane.right] : [plane.top, plane.bottom];
  const images = stripPieces(pins).flatMap((piece): ImageNode[] => {
    const [a, b] = [placeAlong(plane, piece.place0 / 1000), placeAlong(plane, piece.place1 / 1000)];
    const [first, last] = [Math.max(low, Math.min(a, b)), Math.min(high, Math.max(a, b))];
    if (last - first < 0.05) return [];
    const xAt = (along: number) => piece.x0 + ((along - a) / (b - a)) * (piece.x1 - piece.x0);
    const [x0, x1] = [xAt(first), xAt(last)].sort((p, q) => p - q) as [number, number];
    // To the right or down the page the picture goes on, or it stands on its head or side.
    const rises = b > a;
    const turn = plane.across ? (rises ? undefined : 180) : rises ? 90 : 270;
    const box = plane.across
      ? { x: first, y: from, width: last - first, height: to - from }
      : { x: from, y: first, width: to - from, height: last - first };
    return [
      {
        type: 'image',
        x: round(box.x),
        y: round(box.y),
        width: round(box.width),
        height: round(box.height),
        data: picture.data,
        alt: name,
        part: { x: x0, y: 0, width: x1 - x0, height: 1 },
        ...(turn && { turn }),
        role: 'strip',
      },
    ];
  });
  if (images.length === 0) return [];
  const frame = plane.across
    ? { x: low, y: from, width: high - low, height: to - from }
    : { x: from, y: low, width: to - from, height: high - low };
  return [
    ...images,
    {
      type: 'rect',
      x: round(frame.x),
      y: round(frame.y),
      width: round(frame.width),
      height: round(frame.height),
      stroke: HAIRLINE,
      strokeWidth: 0.5,
      role: 'strip',
    },
  ];
}
