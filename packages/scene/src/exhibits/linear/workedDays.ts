import { timesAt } from '@clembo/core';
import { GOLD, HAIRLINE, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { Measure } from '../../text/measure';
import { type Plane, placeAlong } from './plane';
import type { LineSelection } from './select';

/** The breadth of the strip along the place axis, in sizes of the type. */
export const WORKED = 4;

/** A stretch of the line, and on how many days somebody is at work within it. */
export interface Worked {
  from: number;
  to: number;
  days: number;
}

/** The days on which each of so many equal stretches of the line is worked on, by flowlines and by what holds it. */
export function workedByPlace(
  { flows, blocks }: Pick<LineSelection, 'flows' | 'blocks'>,
  low: number,
  high: number,
  stretches: number,
): Worked[] {
  const wide = (high - low) / stretches;
  return Array.from({ length: stretches }, (_, k) => {
    const [from, to] = [low + k * wide, low + (k + 1) * wide];
    const days = new Set<number>();
    const take = (start: number, finish: number) => {
      for (let d = Math.floor(start + 1e-9); d < finish - 1e-9; d++) days.add(d);
    };
    for (const { points } of flows)
      for (let i = 1; i < points.length; i++) {
        const [a, b] = [points[i - 1]!, points[i]!];
        // Standing still is no work.
        if (Math.abs(a.place - b.place) < 1e-9) continue;
        const [p, q] = [Math.max(from, Math.min(a.place, b.place)), Math.min(to, Math.max(a.place, b.place))];
        if (q - p < 1e-9) continue;
        const [s, t] = [timesAt([a, b], p)!.first, timesAt([a, b], q)!.first].sort((x, y) => x - y) as [number, number];
        take(s, t);
      }
    for (const { block } of blocks)
      if (Math.min(to, block.to) - Math.max(from, block.from) > 1e-9) take(block.start, block.finish);
    return { from, to, days: days.size };
  });
}

/** The days that places are worked on, along the place axis: a bar for each stretch, and the most of them as a number. */
export function workedDays(
  selection: LineSelection,
  plane: Plane,
  [from, to]: readonly [number, number],
  size: number,
  measure: Measure,
): SceneNode[] {
  const [low, high] = [Math.min(plane.place0, plane.place1), Math.max(plane.place0, plane.place1)];
  const long = plane.across ? plane.right - plane.left : plane.bottom - plane.top;
  const list = workedByPlace(selection, low, high, Math.max(1, Math.min(60, Math.floor(long / (size * 1.5)))));
  const most = Math.max(1, ...list.map((w) => w.days));
  const deep = to - from;
  const bars = list.flatMap(({ from: a, to: b, days }): SceneNode[] => {
    if (days === 0) return [];
    const [p, q] = [placeAlong(plane, a), placeAlong(plane, b)].sort((x, y) => x - y) as [number, number];
    const reach = (deep * days) / most;
    const box = plane.across
      ? { x: p, y: from, width: q - p, height: reach }
      : { x: from, y: p, width: reach, height: q - p };
    return [
      {
        type: 'rect',
        x: round(box.x),
        y: round(box.y),
        width: round(box.width),
        height: round(box.height),
        fill: tint(GOLD, 0.45),
        role: 'strip',
      },
    ];
  });
  const text = `up to ${most} ${most === 1 ? 'day' : 'days'} at a place`;
  const wide = measure.width('label', size, text);
  const rule: SceneNode = plane.across
    ? {
        type: 'line',
        x1: round(plane.left),
        x2: round(plane.right),
        y1: round(from),
        y2: round(from),
        stroke: HAIRLINE,
        strokeWidth: 0.5,
        role: 'strip',
      }
    : {
        type: 'line',
        x1: round(from),
        x2: round(from),
        y1: round(plane.top),
        y2: round(plane.bottom),
        stroke: HAIRLINE,
        strokeWidth: 0.5,
        role: 'strip',
      };
  return [
    rule,
    ...bars,
    {
      type: 'text',
      x: round(plane.across ? plane.right - wide : from),
      y: round(plane.across ? to + size * 0.9 : plane.top - size * 0.4),
      size,
      runs: [{ text, face: 'label', fill: SOFT_INK }],
      role: 'strip',
    },
  ];
}
