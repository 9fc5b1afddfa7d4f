import { INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { Measure } from '../../text/measure';
import { TO_COME } from '../timeline/marks';
import type { Wanted } from './labels';
import { boxShape, type Obstacles, type Shape } from './obstacles';
import { type Box, boxOn, type Plane, timeAlong } from './plane';
import type { Held } from './select';

/** A stretch that is held: a block, filled from its beginning by what is done, its name within it where it has room. */
export function heldNodes(
  held: Held,
  plane: Plane,
  size: number,
  measure: Measure,
  obstacles: Obstacles,
  within: Obstacles,
  wanted: Wanted[],
): SceneNode[] {
  const { block } = held;
  const box = boxOn(plane, block.from, block.to, block.start, block.finish);
  if (!box) return [];
  const about = { ref: held.ref };
  const [width, height] = [box.right - box.left, box.bottom - box.top];
  const rect = (b: Box, fill: string, role: 'bar' | 'progress', edge: boolean): SceneNode => ({
    type: 'rect',
    x: round(b.left),
    y: round(b.top),
    width: round(b.right - b.left),
    height: round(b.bottom - b.top),
    ...(edge ? { radius: Math.min(2, width / 2, height / 2) } : {}),
    fill,
    ...(edge ? { stroke: held.critical ? INK : held.colour, strokeWidth: held.critical ? 1.2 : 0.7 } : {}),
    ...about,
    role,
  });
  const children: SceneNode[] = [rect(box, tint(held.colour, TO_COME * 0.8), 'bar', true)];
  if (held.progress > 0.005) {
    const done = plane.across
      ? {
          ...box,
          bottom: Math.min(box.bottom, timeAlong(plane, block.start + held.progress * (block.finish - block.start))),
        }
      : {
          ...box,
          right: Math.min(box.right, timeAlong(plane, block.start + held.progress * (block.finish - block.start))),
        };
    if (done.bottom > done.top && done.right > done.left)
      children.push(rect(done, tint(held.colour, 0.55), 'progress', false));
  }
  const name = measure.clean(held.name);
  const wide = measure.width('labelStrong', size, name);
  const [x, y] = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
  const say = (turn: number): SceneNode => ({
    type: 'text',
    x: round(turn === 0 ? x - wide / 2 : x + size * 0.3),
    y: round(turn === 0 ? y + size * 0.3 : y + wide / 2),
    size,
    runs: [{ text: name, face: 'labelStrong', fill: INK }],
    ...(turn === 0 ? {} : { turn }),
    ...about,
    role: 'label',
  });
  const shape = boxShape(box);
  obstacles.add(shape);
  const taken = (turn: number): Shape =>
    turn === 0
      ? boxShape({ left: x - wide / 2, right: x + wide / 2, top: y - size * 0.7, bottom: y + size * 0.7 })
      : boxShape({ left: x - size * 0.7, right: x + size * 0.7, top: y - wide / 2, bottom: y + wide / 2 });
  const turn =
    wide + size < width && height > size * 1.3 && within.isFree(taken(0))
      ? 0
      : wide + size < height && width > size * 1.3 && within.isFree(taken(-90))
        ? -90
        : null;
  if (turn !== null) {
    within.add(taken(turn));
    obstacles.add(taken(turn));
    children.push(say(turn));
  } else
    wanted.push({
      ref: held.ref,
      name,
      more: '',
      way: [
        [box.left, y],
        [box.right, y],
      ],
      own: new Set([shape]),
    });
  return [{ type: 'group', role: 'item', name: held.name, alt: formatDay(held.start, 'long'), children, ...about }];
}
