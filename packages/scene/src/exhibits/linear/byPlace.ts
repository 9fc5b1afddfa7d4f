import { isChainage, isFloors, timesAt } from '@clembo/core';
import { GOLD, HAIRLINE, KELP, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { AmountWords } from '../../text/amounts';
import type { Measure } from '../../text/measure';
import type { LinearBrief } from '../../brief/linear';
import { type Plane, placeAlong } from './plane';
import type { LineSelection } from './select';

/** The breadth of a strip along the place axis, in sizes of the type. */
export const PLACE_STRIP = 4;
/** Between one strip and the next, in sizes of the type: the words of the first stand there. */
export const BETWEEN = 1.6;

/** A stretch of the line, and what is told of it: days, or a quantity. */
export interface OfStretch {
  from: number;
  to: number;
  value: number;
}

/** What is told of places along their axis. */
export type ByPlace = 'days' | 'quantity';

/** What a brief has told of places; nothing where there is no work. */
export const byPlaceOf = (brief: LinearBrief, { flows, blocks }: LineSelection): ByPlace[] =>
  flows.length + blocks.length === 0
    ? []
    : [...(brief.workedDays ? (['days'] as const) : []), ...(brief.quantities ? (['quantity'] as const) : [])];

const stretchesOf = (low: number, high: number, count: number): [from: number, to: number][] => {
  const wide = (high - low) / count;
  return Array.from({ length: count }, (_, k) => [low + k * wide, low + (k + 1) * wide]);
};

/** The days on which each of so many equal stretches of the line is worked on, by flowlines and by what holds it. */
export function workedByPlace(
  { flows, blocks }: Pick<LineSelection, 'flows' | 'blocks'>,
  low: number,
  high: number,
  stretches: number,
): OfStretch[] {
  return stretchesOf(low, high, stretches).map(([from, to]) => {
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
    return { from, to, value: days.size };
  });
}

/**
 * How much is done for each unit of the line in so many equal stretches: the quantities of all works, each spread
 * evenly over its own way or stretch.
 */
export function quantityByPlace(
  { flows, blocks }: Pick<LineSelection, 'flows' | 'blocks'>,
  low: number,
  high: number,
  stretches: number,
): OfStretch[] {
  const works = [
    ...flows.map((f) => ({ of: f.quantity, ends: [f.points[0]!.place, f.points.at(-1)!.place] })),
    ...blocks.map((b) => ({ of: b.quantity, ends: [b.block.from, b.block.to] })),
  ];
  return stretchesOf(low, high, stretches).map(([from, to]) => {
    const value = works.reduce((sum, { of, ends }) => {
      const [a, b] = [Math.min(...ends), Math.max(...ends)];
      const shared = Math.min(to, b) - Math.max(from, a);
      return of === null || shared <= 1e-9 || b - a <= 1e-9 ? sum : sum + (of * shared) / (b - a);
    }, 0);
    return { from, to, value: value / (to - from) };
  });
}

/** Three digits are enough for the most of them. */
const threeDigits = (value: number): number => (value === 0 ? 0 : Number(value.toPrecision(3)));

function wordsOf(kind: ByPlace, most: number, unit: string, amounts: AmountWords): string {
  if (kind === 'days') return `up to ${most} ${most === 1 ? 'day' : 'days'} at a place`;
  const each = isChainage(unit) ? 'm' : isFloors(unit) ? 'floor' : unit || 'unit of the line';
  return `quantity, up to ${amounts.number(threeDigits(most))} a ${each}`;
}

/** Days or quantities along the place axis: a bar for each stretch, and the most of them as a number. */
export function placeStrip(
  kind: ByPlace,
  selection: LineSelection,
  plane: Plane,
  [from, to]: readonly [number, number],
  size: number,
  { measure, amounts }: { measure: Measure; amounts: AmountWords },
): SceneNode[] {
  const [low, high] = [Math.min(plane.place0, plane.place1), Math.max(plane.place0, plane.place1)];
  const long = plane.across ? plane.right - plane.left : plane.bottom - plane.top;
  const stretches = Math.max(1, Math.min(60, Math.floor(long / (size * 1.5))));
  const list = (kind === 'days' ? workedByPlace : quantityByPlace)(selection, low, high, stretches);
  const most = Math.max(...list.map((w) => w.value));
  const deep = to - from;
  const bars = list.flatMap(({ from: a, to: b, value }): SceneNode[] => {
    if (value === 0) return [];
    const [p, q] = [placeAlong(plane, a), placeAlong(plane, b)].sort((x, y) => x - y) as [number, number];
    const reach = (deep * value) / most;
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
        fill: tint(kind === 'days' ? GOLD : KELP, 0.45),
        role: 'strip',
      },
    ];
  });
  const words = wordsOf(kind, most, selection.line?.unit ?? '', amounts);
  const text = measure.shorten('label', size, words, long);
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
      // The words run along the strip, on its outer side.
      x: round(plane.across ? plane.right - wide : to + size * 0.3),
      y: round(plane.across ? to + size * 0.9 : plane.top),
      size,
      runs: [{ text, face: 'label', fill: SOFT_INK }],
      ...(plane.across ? {} : { turn: 90 }),
      role: 'strip',
    },
  ];
}
