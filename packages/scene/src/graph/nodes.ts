import type { Face } from '../text/faces';
import { type Role, round, type SceneNode } from './scene';

/** A text on a baseline. */
export const write = (
  x: number,
  y: number,
  size: number,
  text: string,
  fill: string,
  role: Role,
  face: Face = 'label',
  ref?: string,
): SceneNode => ({
  type: 'text',
  x: round(x),
  y: round(y),
  size,
  runs: [{ text, face, fill }],
  ...(ref === undefined ? {} : { ref }),
  role,
});

/** A straight line. */
export const rule = (
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  stroke: string,
  strokeWidth: number,
  role: Role,
): SceneNode => ({
  type: 'line',
  x1: round(x1),
  y1: round(y1),
  x2: round(x2),
  y2: round(y2),
  stroke,
  strokeWidth,
  role,
});

/** How far below the middle of a line its baseline is, in shares of the type size. */
export const BASE = 0.27;
