import type { SceneNode } from '../../graph/scene';

/** What is drawn of a block, and how much of what it should say had no room. */
export interface DrawnBlock {
  nodes: SceneNode[];
  cut: number;
}

/** No type on an overview is smaller, in points. */
export const LEAST_TYPE = 6.5;

/** Draws at the largest size at which it fits, or else at the least. */
export function atBestSize<T extends { fits: boolean }>(size: number, draw: (size: number) => T): T {
  for (let s = size; s > LEAST_TYPE; s -= 0.5) {
    const drawn = draw(s);
    if (drawn.fits) return drawn;
  }
  return draw(LEAST_TYPE);
}
