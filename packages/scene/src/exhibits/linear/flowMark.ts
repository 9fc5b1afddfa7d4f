import { INK, MADDER, tint } from '../../graph/ink';
import { round, type SceneNode, type PathStep } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import { TO_COME } from '../timeline/marks';
import { pathOf } from './paths';
import { clipPath, isOn, type Plane, pointOn, type XY } from './plane';
import type { Flow } from './select';

/** Strokes of a page of linear work, in points for a size of its type. */
export const strokeOf = (size: number) => ({ toCome: size * 0.2, done: size * 0.34, edge: size * 0.16 });

/** A flowline: its part that is done thick and full, what is to come lighter; critical with an edge of ink. */
export function flowNodes(
  f: Flow,
  pieces: readonly XY[][],
  all: readonly XY[],
  plane: Plane,
  stroke: ReturnType<typeof strokeOf>,
  wide: number,
): SceneNode {
  const about = { ref: f.ref };
  const children: SceneNode[] = [];
  const steps = pathOf(pieces);
  if (f.critical)
    children.push({
      type: 'path',
      steps,
      stroke: INK,
      strokeWidth: round(stroke.toCome * wide + stroke.edge * 2),
      ...about,
      role: 'critical',
    });
  children.push({
    type: 'path',
    steps,
    stroke: f.complete ? f.colour : tint(f.colour, 0.5 + TO_COME * 0.5),
    strokeWidth: round(stroke.toCome * wide),
    ...about,
    role: 'bar',
  });
  if (f.doneTo !== null) {
    const done = clipPath(upTo(f, all, f.doneTo), plane);
    if (done.length > 0)
      children.push({
        type: 'path',
        steps: pathOf(done),
        stroke: f.colour,
        strokeWidth: round(stroke.done * wide),
        ...about,
        role: 'progress',
      });
  }
  for (const piece of f.closed)
    for (const way of clipPath(
      piece.map((p) => pointOn(plane, p.place, p.time)),
      plane,
    ))
      children.push({
        type: 'path',
        steps: hatchAlong(way, stroke.toCome * wide, (x, y) => isOn(plane, x, y)),
        stroke: MADDER,
        strokeWidth: round(Math.max(0.7, stroke.toCome * 0.45)),
        ...about,
        role: 'mark',
      });
  for (const at of [0, -1] as const) {
    const point = f.points.at(at)!;
    const [x, y] = pointOn(plane, point.place, point.time);
    if (isOn(plane, x, y))
      children.push({
        type: 'circle',
        x: round(x),
        y: round(y),
        radius: round(stroke.toCome * 0.95 * wide),
        fill: f.colour,
        ...about,
        role: 'bar',
      });
  }
  return { type: 'group', role: 'item', name: f.name, alt: altOf(f), children, ...about };
}

/** Short strokes across a way, close to each other. */
export function hatchAlong(
  way: readonly XY[],
  wide: number,
  isIn: (x: number, y: number) => boolean = () => true,
): PathStep[] {
  const [step, half] = [Math.max(2.2, wide * 1.6), Math.max(2.4, wide * 1.5)];
  const steps: PathStep[] = [];
  let left = step / 2;
  for (let k = 1; k < way.length; k++) {
    const [[x0, y0], [x1, y1]] = [way[k - 1]!, way[k]!];
    const length = Math.hypot(x1 - x0, y1 - y0);
    if (length === 0) continue;
    const [ux, uy] = [(x1 - x0) / length, (y1 - y0) / length];
    for (; left <= length; left += step) {
      const [x, y] = [x0 + ux * left, y0 + uy * left];
      // Leaning against the way, so that a hatched line is not taken for ticks of a scale.
      const [dx, dy] = [(ux - uy) * half * 0.7, (uy + ux) * half * 0.7];
      if (isIn(x - dx, y - dy) && isIn(x + dx, y + dy))
        steps.push(['M', round(x - dx), round(y - dy)], ['L', round(x + dx), round(y + dy)]);
    }
    left -= length;
  }
  return steps;
}

const altOf = (f: Flow): string =>
  [
    `${formatDay(f.start, 'long')} to ${formatDay(f.finish, 'long')}`,
    f.complete ? 'done' : '',
    f.critical ? 'critical' : '',
    f.closed.length > 0 ? 'planned in a closed window' : '',
  ]
    .filter(Boolean)
    .join(', ');

/** The line up to a place. */
function upTo(f: Flow, all: readonly XY[], place: number): XY[] {
  const way = Math.sign(f.points.at(-1)!.place - f.points[0]!.place) || 1;
  const list: XY[] = [];
  for (let k = 0; k < f.points.length; k++) {
    const p = f.points[k]!;
    if ((place - p.place) * way >= -1e-9) {
      list.push(all[k]!);
      continue;
    }
    const before = f.points[k - 1];
    if (!before) break;
    const share = (place - before.place) / (p.place - before.place);
    const [a, b] = [all[k - 1]!, all[k]!];
    list.push([a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])]);
    break;
  }
  return list;
}
