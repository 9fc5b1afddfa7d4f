import { INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
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

const altOf = (f: Flow): string =>
  [
    `${formatDay(f.start, 'long')} to ${formatDay(f.finish, 'long')}`,
    f.complete ? 'done' : '',
    f.critical ? 'critical' : '',
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
