import type { TimelineBrief } from '../../brief/timeline';
import type { Plan, Schedule } from '@clembo/core';
import { isComplete } from '@clembo/core';
import { INK, NEUTRAL } from '../../graph/ink';
import { type PathNode, polygon, round, type SceneNode } from '../../graph/scene';
import { Occupancy } from '../../labels/occupancy';
import type { TextBox } from './body';
import { type Geometry, halfHeight, markerHalfOf } from './cells';
import type { FittedPage } from './fitPage';

/** A link between two things on the page. */
export interface DrawnLink {
  from: number;
  to: number;
  /** Whether it leaves from the start, and arrives at the finish. */
  fromStart: boolean;
  toFinish: boolean;
  critical: boolean;
}

/** Links that a brief draws, between things that are on the page as themselves or in groups. */
export function linksOf(plan: Plan, s: Schedule, g: Geometry, brief: TimelineBrief): DrawnLink[] {
  if (brief.links === 'none') return [];
  const at = new Map<number, number>();
  g.items.forEach((item, k) => {
    if (item.form === 'summary') return;
    for (const i of item.members) at.set(i, k);
  });
  const isCritical = (i: number) => s.critical[i] === 1 && !isComplete(plan.activities[i]!);
  const seen = new Map<string, DrawnLink>();
  for (const l of plan.links) {
    const [a, b] = [s.outline.indexOf.get(l.from), s.outline.indexOf.get(l.to)];
    const [from, to] = [a === undefined ? undefined : at.get(a), b === undefined ? undefined : at.get(b)];
    if (from === undefined || to === undefined || from === to) continue;
    // Within one row lines would lie on the bars.
    if (g.items[from]!.folded && g.items[from]!.lane.join('\u0000') === g.items[to]!.lane.join('\u0000')) continue;
    const critical = isCritical(a!) && isCritical(b!);
    if (brief.links === 'critical' && !critical) continue;
    if (brief.links === 'lanes' && g.items[from]!.lane.join('\u0000') === g.items[to]!.lane.join('\u0000')) continue;
    const link = { from, to, fromStart: l.type[0] === 'S', toFinish: l.type[1] === 'F', critical };
    const key = `${from} ${to} ${l.type}`;
    const known = seen.get(key);
    if (known) known.critical ||= critical;
    else seen.set(key, link);
  }
  return [...seen.values()];
}

/** How far a line looks for a free place to run down, in steps of so many points. */
const STEP = 3;
const MOST_STEPS = 40;
const RADIUS = 2.2;

/**
 * Links as lines that leave a bar at its end, run along the gap beside its row, down where nothing stands, and come to
 * the next bar from above or below. Where every way leads over something, the line goes behind it and is left out under
 * texts. Critical ones come last, in ink.
 */
export function linkNodes(
  links: readonly DrawnLink[],
  g: Geometry,
  page: FittedPage,
  boxes: readonly TextBox[],
  height: number,
): SceneNode[] {
  if (links.length === 0) return [];
  const { placed, cells } = page;
  const { size } = cells.style;
  const taken = new Occupancy(g.right + 40, height + 40);
  const half = (i: number) => (g.isPoint[i] ? markerHalfOf(cells.style) : halfHeight(g, cells.style, i));
  for (let i = 0; i < g.items.length; i++) {
    const y = placed.middle[i]!;
    const wide = g.isPoint[i] ? half(i) : 0;
    taken.add(g.x0[i]! - wide, y - half(i), g.x1[i]! + wide, y + half(i));
  }
  for (const b of boxes) taken.add(b.left - 1, b.top, b.right + 1, b.bottom);
  const rows = rowEdges(g, page);
  // Halfway into the room that even the closest rows have between them.
  const gap = Math.min(size * 0.3, 0.85);
  const beside = (i: number, way: number): number => {
    const edge = rows.get(placed.row[i]!)!;
    return way > 0 ? edge.bottom + gap : edge.top - gap;
  };
  const ordered = [...links].sort((a, b) => Number(a.critical) - Number(b.critical));
  return ordered.flatMap((link) => {
    const [y0, y1] = [placed.middle[link.from]!, placed.middle[link.to]!];
    const way = y1 > y0 || (y1 === y0 && link.from < link.to) ? 1 : -1;
    const inset = (i: number) => Math.min(size * 0.35, (g.x1[i]! - g.x0[i]!) / 2);
    const xa = link.fromStart ? g.x0[link.from]! + inset(link.from) : g.x1[link.from]! - inset(link.from);
    const xb = link.toFinish ? g.x1[link.to]! - inset(link.to) : g.x0[link.to]! + inset(link.to);
    const same = placed.row[link.from] === placed.row[link.to];
    // Out of the bar into the gap below (or above) its row, and from the gap beside the other row into the other bar.
    const outOf = beside(link.from, way);
    const into = same ? outOf : beside(link.to, -way);
    const target = same ? y1 + way * half(link.to) : y1 - way * half(link.to);
    const free = (x: number) => taken.isFree(x - 1, Math.min(outOf, into), x + 1, Math.max(outOf, into));
    const x = same ? xb : freeColumn(xa, xb, g, free);
    const points: [number, number][] = same
      ? [
          [xa, y0 + way * half(link.from)],
          [xa, outOf],
          [xb, outOf],
          [xb, target],
        ]
      : [
          [xa, y0 + way * half(link.from)],
          [xa, outOf],
          [x, outOf],
          [x, into],
          [xb, into],
          [xb, target],
        ];
    return drawn(points, boxes, link.critical, g, link, size);
  });
}

/** How far everything in each row reaches. */
function rowEdges(g: Geometry, { placed, cells }: FittedPage): Map<number, { top: number; bottom: number }> {
  const rows = new Map<number, { top: number; bottom: number }>();
  for (let i = 0; i < g.items.length; i++) {
    const known = rows.get(placed.row[i]!) ?? { top: Number.POSITIVE_INFINITY, bottom: Number.NEGATIVE_INFINITY };
    known.top = Math.min(known.top, placed.middle[i]! - cells.up[i]!);
    known.bottom = Math.max(known.bottom, placed.middle[i]! + cells.down[i]!);
    rows.set(placed.row[i]!, known);
  }
  return rows;
}

/** Where a line between two rows runs down: at one of its ends, or as near to them as something is free. */
function freeColumn(xa: number, xb: number, g: Geometry, free: (x: number) => boolean): number {
  if (free(xb)) return xb;
  if (free(xa)) return xa;
  for (let k = 1; k <= MOST_STEPS; k++)
    for (const x of [xb - k * STEP, xa + k * STEP, xb + k * STEP, xa - k * STEP])
      if (x > g.left + 1 && x < g.right - 1 && free(x)) return x;
  return xb;
}

function drawn(
  points: [number, number][],
  boxes: readonly TextBox[],
  critical: boolean,
  g: Geometry,
  link: DrawnLink,
  size: number,
): SceneNode[] {
  const paint = critical ? { stroke: INK, strokeWidth: 1.1 } : { stroke: NEUTRAL, strokeWidth: 0.6 };
  const { ref } = g.items[link.to]!;
  const nodes: SceneNode[] = [];
  const corners = points.filter(
    ([x, y], k) => k === 0 || Math.abs(x - points[k - 1]![0]) > 0.05 || Math.abs(y - points[k - 1]![1]) > 0.05,
  );
  for (let k = 1; k < corners.length; k++) {
    for (const [[xa, ya], [xb, yb]] of pieces(corners[k - 1]!, corners[k]!, boxes))
      nodes.push({
        type: 'line',
        x1: round(xa),
        y1: round(ya),
        x2: round(xb),
        y2: round(yb),
        ...paint,
        ref,
        role: 'link',
      });
  }
  const [x, y] = corners.at(-1)!;
  const way = Math.sign(y - corners.at(-2)![1]) || 1;
  const head = Math.max(1.6, Math.min(RADIUS, size * 0.3));
  const arrow: PathNode = polygon(
    [
      [round(x), round(y)],
      [round(x - head * 0.7), round(y - way * head)],
      [round(x + head * 0.7), round(y - way * head)],
    ],
    { fill: paint.stroke, ref, role: 'link' },
  );
  return [...nodes, arrow];
}

/** A straight line without what of it would run through a text. */
function pieces(
  [xa, ya]: [number, number],
  [xb, yb]: [number, number],
  boxes: readonly TextBox[],
): [[number, number], [number, number]][] {
  const down = Math.abs(xa - xb) < 0.05;
  const at = down ? xa : ya;
  const [from, to] = down ? [Math.min(ya, yb), Math.max(ya, yb)] : [Math.min(xa, xb), Math.max(xa, xb)];
  const gaps = boxes
    .filter((b) =>
      down
        ? b.left - 1 < at && b.right + 1 > at && b.bottom > from && b.top < to
        : b.top - 0.6 < at && b.bottom + 0.6 > at && b.right > from && b.left < to,
    )
    .map((b): [number, number] => (down ? [b.top - 0.6, b.bottom + 0.6] : [b.left - 1, b.right + 1]))
    .sort((p, q) => p[0] - q[0]);
  const list: [[number, number], [number, number]][] = [];
  let start = from;
  const add = (end: number) => {
    if (end - start > 0.4)
      list.push(
        down
          ? [
              [at, start],
              [at, end],
            ]
          : [
              [start, at],
              [end, at],
            ],
      );
  };
  for (const [low, high] of gaps) {
    add(Math.min(low, to));
    start = Math.max(start, high);
  }
  add(to);
  return list;
}
