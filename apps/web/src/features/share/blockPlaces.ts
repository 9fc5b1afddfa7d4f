import type { PageBox } from '@clembo/scene/folio';

/** Blocks lie on a grid of so many steps, unless an edge of another block or of the paper is near. */
export const STEPS = { x: 48, y: 32 };
const LEAST = { width: 3 / STEPS.x, height: 2 / STEPS.y };
/** An edge that is as near as this takes hold, in shares. */
const NEAR = 0.008;

const nearest = (v: number, edges: readonly number[], steps: number): number => {
  const edge = edges.reduce((a, e) => (Math.abs(e - v) < Math.abs(a - v) ? e : a), Number.POSITIVE_INFINITY);
  return Math.abs(edge - v) <= NEAR ? edge : Math.round(v * steps) / steps;
};
const clamp = (v: number, least: number, most: number): number => Math.min(most, Math.max(least, v));
const edgesOf = (others: readonly PageBox[], at: 'x' | 'y', size: 'width' | 'height'): number[] => [
  0,
  1,
  ...others.flatMap((o) => [o[at], o[at] + o[size]]),
];

/** A block carried by some shares of the paper: it keeps its size, stays on the paper and takes hold of edges. */
export function carried(place: PageBox, dx: number, dy: number, others: readonly PageBox[]): PageBox {
  const { width, height } = place;
  return {
    x: clamp(nearest(place.x + dx, edgesOf(others, 'x', 'width'), STEPS.x), 0, 1 - width),
    y: clamp(nearest(place.y + dy, edgesOf(others, 'y', 'height'), STEPS.y), 0, 1 - height),
    width,
    height,
  };
}

/** A block drawn larger or smaller by its lower right corner. */
export function resized(place: PageBox, dx: number, dy: number, others: readonly PageBox[]): PageBox {
  const { x, y } = place;
  const right = nearest(x + place.width + dx, edgesOf(others, 'x', 'width'), STEPS.x);
  const bottom = nearest(y + place.height + dy, edgesOf(others, 'y', 'height'), STEPS.y);
  return {
    x,
    y,
    width: clamp(right - x, Math.min(LEAST.width, 1 - x), 1 - x),
    height: clamp(bottom - y, Math.min(LEAST.height, 1 - y), 1 - y),
  };
}

const overlap = (a: PageBox, b: PageBox): boolean =>
  a.x < b.x + b.width - 1e-9 &&
  b.x < a.x + a.width - 1e-9 &&
  a.y < b.y + b.height - 1e-9 &&
  b.y < a.y + a.height - 1e-9;

/** A place for a new block: the first that is free, in smaller sizes where none is; else the lower right corner. */
export function freePlace(others: readonly PageBox[], wanted: { width: number; height: number }): PageBox {
  for (const by of [1, 0.75, 0.5]) {
    const [width, height] = [wanted.width * by, wanted.height * by];
    for (let row = 0; row / STEPS.y <= 1 - height + 1e-9; row++)
      for (let column = 0; column / STEPS.x <= 1 - width + 1e-9; column++) {
        const place = { x: column / STEPS.x, y: row / STEPS.y, width, height };
        if (!others.some((o) => overlap(o, place))) return place;
      }
  }
  const [width, height] = [wanted.width / 2, wanted.height / 2];
  return { x: 1 - width, y: 1 - height, width, height };
}
