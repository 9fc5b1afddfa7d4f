import { GOLD, MADDER } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { Measure } from '../../text/measure';
import type { Gap } from './gaps';
import { boxShape, type Obstacles, type Shape, shapeOf } from './obstacles';
import { clipLine, type Plane, pointOn, type XY } from './plane';

/** The least days between works, each a gold stroke where they are least, with their number. */
export function gapNodes(
  gaps: readonly Gap[],
  plane: Plane,
  size: number,
  measure: Measure,
  obstacles: Obstacles,
): SceneNode[] {
  const nodes: SceneNode[] = [];
  for (const g of gaps) {
    const line = clipLine(pointOn(plane, g.place, g.from), pointOn(plane, g.place, g.to), plane);
    if (!line || Math.hypot(line[0][0] - line[1][0], line[0][1] - line[1][1]) < 1) continue;
    const [a, b] = line;
    const colour = g.short ? MADDER : GOLD;
    const text = `${Math.round(g.days * 10) / 10} d`;
    const wide = measure.width('labelStrong', size, text);
    const places: XY[] = [
      [Math.max(a[0], b[0]) + size * 0.5, (a[1] + b[1]) / 2 + size * 0.3],
      [Math.min(a[0], b[0]) - size * 0.5 - wide, (a[1] + b[1]) / 2 + size * 0.3],
      [(a[0] + b[0] - wide) / 2, Math.min(a[1], b[1]) - size * 0.4],
      [(a[0] + b[0] - wide) / 2, Math.max(a[1], b[1]) + size * 1.1],
    ];
    const shapeAt = ([x, y]: XY): Shape =>
      boxShape({ left: x - 1, right: x + wide + 1, top: y - size * 0.8, bottom: y + size * 0.25 });
    const at = places.find((p) => obstacles.isFree(shapeAt(p)));
    nodes.push({
      type: 'line',
      x1: round(a[0]),
      y1: round(a[1]),
      x2: round(b[0]),
      y2: round(b[1]),
      stroke: colour,
      strokeWidth: round(size * 0.28),
      role: 'mark',
    });
    obstacles.add(shapeOf([a, b]));
    if (!at) continue;
    obstacles.add(shapeAt(at));
    nodes.push({
      type: 'text',
      x: round(at[0]),
      y: round(at[1]),
      size,
      runs: [{ text, face: 'labelStrong', fill: colour }],
      role: 'mark',
    });
  }
  return nodes;
}
