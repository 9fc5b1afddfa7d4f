import type { Measure } from '../../text/measure';
import type { Face } from '../../text/faces';
import { Obstacles, type Shape, shapeOf, turnedBox } from './obstacles';
import type { XY } from './plane';

/** What is to be written of a work: its name, and what follows it in a lighter face. */
export interface Wanted {
  ref: string;
  name: string;
  more: string;
  /** Its line on the page in few points. */
  way: readonly XY[];
  /** Its own line, which a label along it may come near. */
  own: ReadonlySet<Shape>;
}

/** Where a label stands: its left end on the baseline, turned by degrees. */
export interface Put {
  ref: string;
  runs: { text: string; face: Face }[];
  x: number;
  y: number;
  turn: number;
  shape: Shape;
  /** From the label to its line, where it does not lie along it. */
  leader: [XY, XY] | null;
  shortened: boolean;
}

const UP = 0.82;
const DOWN = 0.26;
/** From the line to the baseline of what stands above it, and to the top of what stands below, in sizes of the type. */
const AWAY = 0.75;
/** Where along a piece a label is tried, in shares of the room that is left. */
const ALONG = [0.5, 0.3, 0.7, 0.1, 0.9, 0];
/** How far beside its line a label is tried, in sizes of the type. */
const BESIDE = [0.7, 1.6, 2.6, 4, 6];

/**
 * Places labels so that none lies over a line, another label or the edge: along their line, beside it with a leader,
 * shortened along it.
 *
 * @param all nothing is tried any more once one of them has no room
 */
export function placeLabels(
  list: readonly Wanted[],
  obstacles: Obstacles,
  size: number,
  measure: Measure,
  all = false,
): { put: Put[]; left: number } {
  const put: Put[] = [];
  let left = 0;
  for (const w of list) {
    const found =
      along(w, w.name, w.more, obstacles, size, measure) ??
      (w.more === '' ? null : along(w, w.name, '', obstacles, size, measure)) ??
      beside(w, obstacles, size, measure) ??
      cut(w, obstacles, size, measure);
    if (!found) {
      left++;
      if (all) break;
      continue;
    }
    obstacles.add(found.shape);
    if (found.leader) obstacles.add(shapeOf(found.leader));
    put.push(found);
  }
  return { put, left };
}

const runsOf = (name: string, more: string): Put['runs'] => [
  { text: more === '' ? name : `${name} `, face: 'labelStrong' },
  ...(more === '' ? [] : [{ text: more, face: 'label' as Face }]),
];
const widthOf = (runs: Put['runs'], size: number, measure: Measure): number =>
  runs.reduce((sum, r) => sum + measure.width(r.face, size, r.text), 0);

/** Pieces of a way from the longest to the shortest. */
function piecesOf({ way }: Wanted) {
  return way
    .slice(1)
    .map((b, k) => ({ a: way[k]!, b, long: Math.hypot(b[0] - way[k]![0], b[1] - way[k]![1]) }))
    .sort((p, q) => q.long - p.long);
}

function along(
  w: Wanted,
  name: string,
  more: string,
  obstacles: Obstacles,
  size: number,
  measure: Measure,
): Put | null {
  const runs = runsOf(name, more);
  const wide = widthOf(runs, size, measure);
  for (const { a, b, long } of piecesOf(w)) {
    if (long < wide + size * 0.6) break;
    // Read from the left to the right, and upwards where it is upright.
    const [p, q] = a[0] < b[0] || (a[0] === b[0] && a[1] > b[1]) ? [a, b] : [b, a];
    const angle = Math.atan2(q[1] - p[1], q[0] - p[0]);
    const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
    for (const share of ALONG) {
      const off = size * 0.3 + (long - wide - size * 0.6) * share;
      for (const side of [-1, 1]) {
        const away = side < 0 ? AWAY * size : -(AWAY + UP) * size;
        const at: XY = [p[0] + ux * off + uy * away, p[1] + uy * off - ux * away];
        const shape = turnedBox(at, wide, UP * size, DOWN * size, angle);
        if (!obstacles.isFree(shape, w.own)) continue;
        return {
          ref: w.ref,
          runs,
          x: at[0],
          y: at[1],
          turn: (angle * 180) / Math.PI,
          shape,
          leader: null,
          shortened: name !== w.name,
        };
      }
    }
  }
  return null;
}

function beside(w: Wanted, obstacles: Obstacles, size: number, measure: Measure): Put | null {
  const middle = w.way[w.way.length >> 1]!;
  const holds: XY[] = [w.way[0]!, w.way.at(-1)!, middle];
  for (const runs of [runsOf(w.name, w.more), runsOf(w.name, '')]) {
    const wide = widthOf(runs, size, measure);
    for (const far of BESIDE)
      for (const [x, y] of holds)
        for (const [dx, dy] of [
          [1, 0],
          [-1, 0],
          [1, -1],
          [1, 1],
          [-1, -1],
          [-1, 1],
        ] as const) {
          const left = dx > 0 ? x + far * size : x - far * size - wide;
          const base = y + dy * far * size + size * 0.28;
          const shape = turnedBox([left, base], wide, UP * size, DOWN * size, 0);
          if (!obstacles.isFree(shape)) continue;
          const near: XY = [dx > 0 ? left - size * 0.2 : left + wide + size * 0.2, base - size * 0.28];
          const leader: [XY, XY] | null = far > 1 ? [[x, y], near] : null;
          if (leader && !obstacles.isFree(shapeOf(leader), w.own)) continue;
          return { ref: w.ref, runs, x: left, y: base, turn: 0, shape, leader, shortened: false };
        }
  }
  return null;
}

/** Along the longest piece with a shortened name. */
function cut(w: Wanted, obstacles: Obstacles, size: number, measure: Measure): Put | null {
  const [longest] = piecesOf(w);
  if (!longest) return null;
  for (const share of [0.95, 0.6, 0.35]) {
    const name = measure.shorten('labelStrong', size, w.name, (longest.long - size) * share);
    // Less than half of a name says little.
    if (name.length < Math.max(6, w.name.length * 0.5)) return null;
    const found = along(w, name, '', obstacles, size, measure);
    if (found) return found;
  }
  return null;
}

/** The pieces of a line as obstacles, so thick to both sides. */
export const lineShapes = (way: readonly XY[], half: number): Shape[] =>
  way.slice(1).map((b, k) => {
    const a = way[k]!;
    const far = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (far < 1e-9) return shapeOf([a, b]);
    const [nx, ny] = [(-(b[1] - a[1]) / far) * half, ((b[0] - a[0]) / far) * half];
    return shapeOf([
      [a[0] + nx, a[1] + ny],
      [b[0] + nx, b[1] + ny],
      [b[0] - nx, b[1] - ny],
      [a[0] - nx, a[1] - ny],
    ]);
  });
