import type { Box, XY } from './plane';

/** A convex shape on the page, by its corners in order; a line has two. */
export interface Shape extends Box {
  corners: readonly XY[];
}

export function shapeOf(corners: readonly XY[]): Shape {
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const [x, y] of corners) {
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < top) top = y;
    if (y > bottom) bottom = y;
  }
  return { corners, left, right, top, bottom };
}

export const boxShape = ({ left, top, right, bottom }: Box): Shape => ({
  left,
  top,
  right,
  bottom,
  corners: [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ],
});

/** A box of a width and a height whose left lower corner is a point, turned about it by an angle. */
export function turnedBox(at: XY, width: number, up: number, down: number, angle: number): Shape {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const corner = (x: number, y: number): XY => [at[0] + x * c - y * s, at[1] + x * s + y * c];
  return shapeOf([corner(0, -up), corner(width, -up), corner(width, down), corner(0, down)]);
}

/** Whether two convex shapes meet: no line along one of their sides parts them (separating axis). */
export function meets(a: Shape, b: Shape): boolean {
  if (a.left >= b.right || b.left >= a.right || a.top >= b.bottom || b.top >= a.bottom) {
    // A level or an upright line has no breadth.
    if (a.left > b.right || b.left > a.right || a.top > b.bottom || b.top > a.bottom) return false;
  }
  return !parted(a.corners, b.corners) && !parted(b.corners, a.corners);
}

function parted(a: readonly XY[], b: readonly XY[]): boolean {
  for (let k = 0; k < a.length; k++) {
    const [p, q] = [a[k]!, a[(k + 1) % a.length]!];
    const [nx, ny] = [q[1] - p[1], p[0] - q[0]];
    if (nx === 0 && ny === 0) continue;
    let [lowA, highA, lowB, highB] = [Infinity, -Infinity, Infinity, -Infinity];
    for (const [x, y] of a) {
      const d = x * nx + y * ny;
      if (d < lowA) lowA = d;
      if (d > highA) highA = d;
    }
    for (const [x, y] of b) {
      const d = x * nx + y * ny;
      if (d < lowB) lowB = d;
      if (d > highB) highB = d;
    }
    if (highA <= lowB || highB <= lowA) return true;
  }
  return false;
}

/** What labels must not lie over. */
export class Obstacles {
  private readonly cells = new Map<number, Shape[]>();
  constructor(
    private readonly within: Box,
    private readonly cell = 24,
  ) {}

  add(shape: Shape): void {
    for (const key of this.cellsOf(shape)) {
      const list = this.cells.get(key);
      if (list) list.push(shape);
      else this.cells.set(key, [shape]);
    }
  }

  /** Whether a shape lies within the page and over nothing, but for what is passed over. */
  isFree(shape: Shape, but: ReadonlySet<Shape> = NONE): boolean {
    const { within: w } = this;
    if (shape.left < w.left || shape.right > w.right || shape.top < w.top || shape.bottom > w.bottom) return false;
    for (const key of this.cellsOf(shape))
      for (const other of this.cells.get(key) ?? []) if (meets(shape, other) && !but.has(other)) return false;
    return true;
  }

  private cellsOf({ left, right, top, bottom }: Box): number[] {
    const at = (v: number) => Math.floor(v / this.cell);
    const keys: number[] = [];
    for (let x = at(left); x <= at(right); x++) for (let y = at(top); y <= at(bottom); y++) keys.push(x * 100_003 + y);
    return keys;
  }
}

const NONE: ReadonlySet<Shape> = new Set();
