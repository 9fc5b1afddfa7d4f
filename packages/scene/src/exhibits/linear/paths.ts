import { type PathStep, round } from '../../graph/scene';
import type { XY } from './plane';

/** Pieces of straight lines as one path. */
export const pathOf = (pieces: readonly (readonly XY[])[]): PathStep[] =>
  pieces.flatMap((p) => p.map(([x, y], k): PathStep => [k === 0 ? 'M' : 'L', round(x), round(y)]));
