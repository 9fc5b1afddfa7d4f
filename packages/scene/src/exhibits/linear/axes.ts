import { isChainage, isFloors, type Line, placeWords } from '@clembo/core';
import { HAIRLINE, INK, SOFT_INK, tint } from '../../graph/ink';
import { rule, write } from '../../graph/nodes';
import { round, type SceneNode } from '../../graph/scene';
import type { PageFrame } from '../../page/frame';
import { type Tick, ticks, type TimeUnit } from '../../scales/time';
import type { Face } from '../../text/faces';
import type { Measure } from '../../text/measure';
import { pathOf } from './paths';
import { dashes, type Plane, placeAlong, timeAlong, type XY } from './plane';
import type { Named } from './named';

/** Names along an axis. */
export interface Names {
  nodes: SceneNode[];
  /** Names that had no room. */
  left: number;
}

interface Paper {
  frame: PageFrame;
  measure: Measure;
}

/** Steps of 1, 2 and 5 in every power of ten. */
export function niceStep(least: number): number {
  const power = 10 ** Math.floor(Math.log10(least));
  for (const f of [1, 2, 5, 10]) if (f * power >= least - 1e-12) return f * power;
  return 10 * power;
}

/** Places at which the axis is marked, in the unit of the line. */
function placeTicks(plane: Plane, unit: string, room: number): number[] {
  const [low, high] = [Math.min(plane.place0, plane.place1), Math.max(plane.place0, plane.place1)];
  const long = plane.across ? plane.right - plane.left : plane.bottom - plane.top;
  const step = Math.max(niceStep(((high - low) * room) / long), isFloors(unit) ? 1 : 0);
  const list: number[] = [];
  for (let k = Math.ceil(low / step - 1e-9); k * step <= high + 1e-9; k++) list.push(k * step);
  return list;
}

/** Room for the time axis beside a plot whose time runs down: years and units, in sizes of the type. */
export const TIME_GUTTER = 7.2;
/** Room for place numbers above a plot. */
export const PLACE_TIER = 2.2;
/** Room for a tier of names of zones or stations above a plot. */
export const NAME_TIER = 1.7;

/** The place axis: numbers, ticks, and hairlines where nothing else says where it is. */
export function placeAxis(plane: Plane, lineOf: Line | null, { frame, measure }: Paper): SceneNode[] {
  const size = frame.scaleSize;
  const unit = lineOf?.unit ?? '';
  const nodes: SceneNode[] = [];
  const sample = Math.max(
    ...[plane.place0, plane.place1].map((p) => measure.width('label', size, placeWords(Math.round(p * 1000), unit))),
  );
  const room = plane.across ? sample + size * 1.4 : size * 2;
  const found = placeTicks(plane, unit, room);
  nodes.push(
    plane.across
      ? rule(plane.left, plane.top, plane.right, plane.top, INK, 0.8, 'scale')
      : rule(plane.left, plane.top, plane.left, plane.bottom, INK, 0.8, 'scale'),
  );
  if (unit !== '' && !isChainage(unit)) {
    const wide = measure.width('label', size, unit);
    const zero = measure.width('label', size, placeWords(Math.round((found[0] ?? 0) * 1000), unit));
    nodes.push(
      plane.across
        ? write(
            plane.left - zero / 2 - size * 0.9 - wide,
            plane.top - size * 0.65,
            size,
            unit,
            SOFT_INK,
            'scale',
            'label',
          )
        : write(plane.left - size * 0.65 - wide, plane.top - size * 0.75, size, unit, SOFT_INK, 'scale', 'label'),
    );
  }
  for (const place of found) {
    const text = placeWords(Math.round(place * 1000), unit);
    const wide = measure.width('label', size, text);
    const at = placeAlong(plane, place);
    if (plane.across) {
      nodes.push(rule(at, plane.top - size * 0.35, at, plane.top, INK, 0.6, 'scale'));
      nodes.push(write(at - wide / 2, plane.top - size * 0.65, size, text, SOFT_INK, 'scale', 'label'));
    } else {
      nodes.push(rule(plane.left - size * 0.35, at, plane.left, at, INK, 0.6, 'scale'));
      nodes.push(write(plane.left - size * 0.65 - wide, at + size * 0.33, size, text, SOFT_INK, 'scale', 'label'));
    }
  }
  return nodes;
}

/** The finest unit of time whose names have room along the axis. */
function timeUnit(plane: Plane, size: number): TimeUnit {
  const long = plane.across ? plane.bottom - plane.top : plane.right - plane.left;
  const perDay = long / (plane.day1 - plane.day0);
  const need = (across: number, up: number) => (plane.across ? across : up) * size;
  if (perDay * 7 >= need(1.7, 3.4) && plane.day1 - plane.day0 <= 120) return 'week';
  if (perDay * 30.4 >= need(1.35, 2.4)) return 'month';
  if (perDay * 91.3 >= need(1.35, 2)) return 'quarter';
  return 'year';
}

/** The time axis: units with hairlines through the plot, and the years once each. */
export function timeAxis(plane: Plane, { frame, measure }: Paper): SceneNode[] {
  const size = frame.scaleSize;
  const nodes: SceneNode[] = [];
  const unit = timeUnit(plane, size);
  const [from, to] = [plane.day0 * 1440, plane.day1 * 1440];
  const at = (moment: number) => timeAlong(plane, moment / 1440);
  const fine = ticks(from, to, unit);
  // The year stands beside its months.
  const name = (t: Tick, room: number, face: Face) =>
    t.names.find(
      (n) => (face === 'textStrong' || unit === 'year' || !/\d{4}/.test(n)) && measure.width(face, size, n) <= room,
    ) ?? null;
  for (const t of fine) {
    const [a, b] = [at(t.from), at(t.to)];
    if (t.from > from)
      nodes.push(
        plane.across
          ? rule(plane.left, a, plane.right, a, HAIRLINE, 0.5, 'grid')
          : rule(a, plane.top, a, plane.bottom, HAIRLINE, 0.5, 'grid'),
      );
    if (unit === 'year') continue;
    const text = name(t, plane.across ? size * 4 : b - a - 2, 'label');
    if (text === null || Math.abs(b - a) < size * (plane.across ? 1.05 : 0.5)) continue;
    const wide = measure.width('label', size, text);
    nodes.push(
      plane.across
        ? write(plane.left - size * 0.8 - wide, a + size * 1.0, size, text, SOFT_INK, 'scale', 'label')
        : write(a + 2, plane.top - size * 0.6, size, text, SOFT_INK, 'scale', 'label'),
    );
  }
  for (const t of ticks(from, to, 'year')) {
    const [a, b] = [at(t.from), at(t.to)];
    const text = name(t, plane.across ? size * 4 : b - a - 3, 'textStrong');
    if (text === null || b - a < size * 1.1) continue;
    nodes.push(
      plane.across
        ? write(plane.left - size * TIME_GUTTER, a + size * 1.0, size, text, INK, 'scale', 'textStrong')
        : write(a + 2, plane.top - size * 2.1, size, text, INK, 'scale', 'textStrong'),
    );
  }
  return nodes;
}

/** Names that stand along the place axis in as few tiers as keep them apart; those without room are cut, then left out. */
export function placeNames(
  list: readonly { name: string; at: number }[],
  plane: Plane,
  tops: readonly number[],
  furthest: number,
  { frame, measure }: Paper,
): Names {
  const size = frame.scaleSize;
  const taken = tops.map(() => Number.NEGATIVE_INFINITY);
  const nodes: SceneNode[] = [];
  let left = 0;
  const sorted = list
    .map((s) => ({ ...s, x: placeAlong(plane, s.at) }))
    .filter((s) => s.x >= plane.left - 0.1 && s.x <= plane.right + 0.1)
    .sort((a, b) => a.x - b.x);
  sorted.forEach((s, k) => {
    const full = measure.clean(s.name);
    const next = sorted[k + tops.length]?.x ?? Number.POSITIVE_INFINITY;
    const most = Math.max(size * 4, Math.min(measure.width('label', size, full), next - s.x - size));
    const text = measure.shorten('label', size, full, most);
    const wide = measure.width('label', size, text);
    const x = Math.min(Math.max(s.x - wide / 2, plane.left - size * 2), furthest - wide);
    const tier = taken.findIndex((end) => end + size * 0.8 <= x);
    if (tier < 0) {
      left++;
      return;
    }
    taken[tier] = x + wide;
    nodes.push(write(x, tops[tier]!, size, text, INK, 'scale', 'label'));
  });
  return { nodes, left };
}

/** Zones as bands: a tint on every second one through the plot, and their names on the axis where they have room. */
export function zoneBands(
  zones: Named['zones'],
  plane: Plane,
  at: number,
  { frame, measure }: Paper,
): { bands: SceneNode[]; names: SceneNode[]; left: number } {
  const size = frame.scaleSize;
  const bands: SceneNode[] = [];
  const names: SceneNode[] = [];
  let left = 0;
  [...zones]
    .sort((a, b) => a.from - b.from)
    .forEach((z, k) => {
      const ends = [placeAlong(plane, z.from), placeAlong(plane, z.to)];
      const [axis0, axis1] = plane.across ? [plane.left, plane.right] : [plane.top, plane.bottom];
      const [a, b] = [Math.max(axis0, Math.min(...ends)), Math.min(axis1, Math.max(...ends))];
      if (b - a < 0.5) return;
      if (z.style === 'solid' || z.style === 'dashed') bands.push(...zoneEdges(plane, a, b, z.colour, z.style, size));
      const fill = z.colour ? tint(z.colour, 0.14) : k % 2 === 1 ? tint(INK, 0.025) : null;
      if (fill !== null && z.style !== 'dashed' && z.style !== 'scale')
        bands.push({
          type: 'rect',
          x: round(plane.across ? a : plane.left),
          y: round(plane.across ? plane.top : a),
          width: round(plane.across ? b - a : plane.right - plane.left),
          height: round(plane.across ? plane.bottom - plane.top : b - a),
          fill,
          role: 'period',
        });
      const full = measure.clean(z.name);
      if (plane.across) {
        const text = measure.shorten('textStrong', size, full, b - a - size * 0.5);
        if (text === '' || text === '…') {
          left++;
          return;
        }
        const wide = measure.width('textStrong', size, text);
        names.push(write((a + b - wide) / 2, at, size, text, INK, 'scale', 'textStrong'));
      } else if (b - a >= size * 1.15) {
        const text = measure.shorten('textStrong', size, full, at - frame.margin - size * 0.5);
        names.push(write(frame.margin, (a + b) / 2 + size * 0.33, size, text, INK, 'scale', 'textStrong'));
      } else left++;
    });
  return { bands, names, left };
}

/** The two ends of a zone through the plot. */
function zoneEdges(
  plane: Plane,
  a: number,
  b: number,
  colour: string | undefined,
  style: 'solid' | 'dashed',
  size: number,
): SceneNode[] {
  const across = (at: number): [XY, XY] =>
    plane.across
      ? [
          [at, plane.top],
          [at, plane.bottom],
        ]
      : [
          [plane.left, at],
          [plane.right, at],
        ];
  const stroke = colour ?? SOFT_INK;
  const ends = [across(a), across(b)];
  const lines = style === 'solid' ? ends : ends.flatMap((e) => dashes(e, size * 0.5, size * 0.4));
  return [{ type: 'path', steps: pathOf(lines), stroke, strokeWidth: 0.7, role: 'period' }];
}

/** Stations of a page whose places run upwards: names at the right, those without room left out. */
export function stationsAside(
  stations: readonly { name: string; at: number }[],
  plane: Plane,
  size: number,
  measure: Measure,
): Names {
  const nodes: SceneNode[] = [];
  let [last, left] = [Number.POSITIVE_INFINITY, 0];
  for (const s of [...stations].sort((p, q) => placeAlong(plane, q.at) - placeAlong(plane, p.at))) {
    const y = placeAlong(plane, s.at);
    if (y < plane.top - 0.1 || y > plane.bottom + 0.1) continue;
    if (last - y < size * 1.2) {
      left++;
      continue;
    }
    last = y;
    nodes.push({
      type: 'text',
      x: round(plane.right + size * 0.6),
      y: round(y + size * 0.33),
      size,
      runs: [{ text: measure.shorten('label', size, measure.clean(s.name), size * 10), face: 'label', fill: INK }],
      role: 'scale',
    });
  }
  return { nodes, left };
}
