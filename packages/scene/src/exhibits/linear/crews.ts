import { KELP, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { Measure } from '../../text/measure';
import type { Room } from '../sheet';
import { type Plane, timeAlong } from './plane';
import type { Flow } from './select';

/** The breadth of the strip beside the time axis, in sizes of the type. */
export const STRIP = 7;

/** How many crews work on a day at most, week by week. */
export function crewsByWeek(
  flows: readonly Flow[],
  day0: number,
  day1: number,
): { from: number; to: number; crews: number }[] {
  const weeks: { from: number; to: number; crews: number }[] = [];
  // Weeks begin on Mondays; day 4 was one.
  const first = day0 - ((((day0 - 4) % 7) + 7) % 7);
  for (let from = first; from < day1; from += 7) {
    let most = 0;
    for (let d = Math.max(from, day0); d < Math.min(from + 7, day1); d++) {
      const crews = flows.reduce(
        (sum, f) => sum + (f.points[0]!.time < d + 1 && f.points.at(-1)!.time > d ? f.crews : 0),
        0,
      );
      most = Math.max(most, crews);
    }
    weeks.push({ from: Math.max(from, day0), to: Math.min(from + 7, day1), crews: most });
  }
  return weeks;
}

/** Crews over time, beside the time axis: a bar for every week, and the most of them as a number. */
export function crewStrip(
  flows: readonly Flow[],
  plane: Plane,
  size: number,
  measure: Measure,
  room: Room,
): SceneNode[] {
  const weeks = crewsByWeek(flows, plane.day0, plane.day1);
  const most = Math.max(1, ...weeks.map((w) => w.crews));
  const long = STRIP * size - size * 2;
  const base = plane.across ? room.right - STRIP * size + size * 0.8 : plane.bottom + STRIP * size;
  const nodes: SceneNode[] = weeks.flatMap((w): SceneNode[] => {
    if (w.crews === 0) return [];
    const [a, b] = [timeAlong(plane, w.from), timeAlong(plane, w.to)];
    const bar = (w.crews / most) * long;
    const thick = Math.max(0.4, b - a - 0.5);
    return [
      {
        type: 'rect',
        x: round(plane.across ? base : a),
        y: round(plane.across ? a : base - bar),
        width: round(plane.across ? bar : thick),
        height: round(plane.across ? thick : bar),
        fill: tint(KELP, 0.45),
        role: 'curve',
      },
    ];
  });
  const words = `Crews, ${most} at most`;
  const text = measure.shorten('label', size, words, plane.across ? STRIP * size : size * 20);
  nodes.push({
    type: 'text',
    x: round(plane.across ? base : plane.left),
    y: round(plane.across ? plane.top - size * 0.65 : plane.bottom + size * 1.3),
    size,
    runs: [{ text, face: 'label', fill: SOFT_INK }],
    role: 'scale',
  });
  return nodes;
}
