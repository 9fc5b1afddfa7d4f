import { isChainage } from '@clembo/core';
import type { LinearBrief } from '../../brief/linear';
import { INK, KELP, MADDER, NEUTRAL, PAPER, SAND, SOFT_INK } from '../../graph/ink';
import { polygon, round, type SceneNode } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { Measure } from '../../text/measure';
import { marker } from '../timeline/shapes';
import { flowNodes, strokeOf } from './flowMark';
import { gapNodes } from './gapMark';
import type { Gap } from './gaps';
import { heldNodes } from './heldMark';
import { lineShapes, placeLabels, type Put, type Wanted } from './labels';
import { boxShape, Obstacles, shapeOf } from './obstacles';
import { pathOf } from './paths';
import { type Box, boxOn, clipPath, dashes, isOn, type Plane, pointOn, simplified, timeAlong, type XY } from './plane';
import type { Flow, LineSelection } from './select';

/** Everything that stands on the plot, with what it must not be written over. */
export interface Plotted {
  nodes: SceneNode[];
  shortened: number;
  /** Names that have no room. */
  left: number;
}

export function plotNodes(
  selection: LineSelection,
  brief: LinearBrief,
  plane: Plane,
  names: readonly Box[],
  gaps: readonly Gap[],
  status: number | null,
  size: number,
  measure: Measure,
  all: boolean,
): Plotted {
  const obstacles = new Obstacles(plane);
  for (const box of names) obstacles.add(boxShape(box));
  const nodes: SceneNode[] = [];
  const stroke = strokeOf(size);
  const most = Math.max(1, ...selection.flows.map((f) => f.crews));
  const widthOf = (f: Flow) => (brief.wide ? 0.6 + (1.6 * f.crews) / most : 1);

  if (status !== null && status > plane.day0 && status < plane.day1) {
    const at = timeAlong(plane, status);
    const [a, b]: [XY, XY] = plane.across
      ? [
          [plane.left, at],
          [plane.right, at],
        ]
      : [
          [at, plane.top],
          [at, plane.bottom],
        ];
    obstacles.add(shapeOf([a, b]));
    nodes.push({
      type: 'line',
      x1: round(a[0]),
      y1: round(a[1]),
      x2: round(b[0]),
      y2: round(b[1]),
      stroke: KELP,
      strokeWidth: 1.1,
      role: 'status',
    });
  }
  for (const f of selection.flows) {
    if (!f.promised) continue;
    const way = clipPath(
      f.promised.map((p) => pointOn(plane, p.place, p.time)),
      plane,
    );
    const list = way.flatMap((piece) => dashes(piece, size * 0.7, size * 0.5));
    if (list.length > 0)
      nodes.push({
        type: 'path',
        steps: pathOf(list),
        stroke: SOFT_INK,
        strokeWidth: 0.7,
        ref: f.ref,
        role: 'promised',
      });
  }
  const wanted: Wanted[] = [];
  // Blocks may lie over each other; their names must not.
  const within = new Obstacles(plane);
  for (const held of selection.blocks) nodes.push(...heldNodes(held, plane, size, measure, obstacles, within, wanted));
  for (const f of selection.flows) {
    const all = f.points.map((p) => pointOn(plane, p.place, p.time));
    const pieces = clipPath(all, plane);
    if (pieces.length === 0) continue;
    const few = pieces.map((p) => simplified(p, size * 0.12));
    const half = (stroke.done * widthOf(f)) / 2 + size * 0.08;
    const shapes = few.flatMap((piece) => lineShapes(piece, half));
    for (const shape of shapes) obstacles.add(shape);
    const longest = few.reduce((a, b) => (lengthOf(b) > lengthOf(a) ? b : a));
    wanted.push({
      ref: f.ref,
      name: measure.clean(f.name),
      more:
        brief.rates && f.rate !== null && selection.line ? `${rateWords(f.rate)} ${rateUnit(selection.line.unit)}` : '',
      // Names run along a line over its days off.
      way: simplified(longest, size * 0.4),
      own: new Set(shapes),
    });
    nodes.push(flowNodes(f, pieces, all, plane, stroke, widthOf(f)));
  }
  for (const p of selection.points) {
    if (p.time < plane.day0 || p.time > plane.day1) continue;
    const [x, y] = pointOn(plane, p.place, p.time);
    if (!isOn(plane, x, y)) continue;
    const half = size * 0.55;
    const shape = boxShape({ left: x - half, right: x + half, top: y - half, bottom: y + half });
    obstacles.add(shape);
    nodes.push({
      type: 'group',
      role: 'item',
      ref: p.ref,
      name: p.name,
      alt: formatDay(p.finish, 'long'),
      children: [
        marker(p.shape, x, y, half, {
          fill: p.complete ? p.colour : PAPER,
          stroke: p.colour,
          strokeWidth: round(size * 0.13),
          ref: p.ref,
          role: 'milestone',
        }),
      ],
    });
    wanted.push({
      ref: p.ref,
      name: measure.clean(p.name),
      more: formatDay(p.finish, 'short'),
      way: [
        [x, y],
        [x, y],
      ],
      own: new Set([shape]),
    });
  }
  const rings: SceneNode[] = [];
  selection.clashes.forEach((c, k) => {
    const [x, y] = pointOn(plane, c.place, c.time);
    if (!isOn(plane, x, y)) return;
    const radius = size * 0.8;
    const text = String(k + 1);
    const wide = measure.width('labelStrong', size, text);
    obstacles.add(boxShape({ left: x - radius, right: x + radius, top: y - radius, bottom: y + radius }));
    rings.push(
      {
        type: 'circle',
        x: round(x),
        y: round(y),
        radius: round(radius),
        fill: PAPER,
        stroke: MADDER,
        strokeWidth: round(size * 0.13),
        role: 'mark',
      },
      {
        type: 'text',
        x: round(x - wide / 2),
        y: round(y + size * 0.3),
        size,
        runs: [{ text, face: 'labelStrong', fill: MADDER }],
        role: 'mark',
      },
    );
  });
  const drawnGaps = gapNodes(gaps, plane, size, measure, obstacles);
  const labels = labelsOf(selection, brief, wanted, obstacles, size, measure, all);
  return {
    nodes: [...nodes, ...drawnGaps, ...rings, ...labels.put.flatMap((p) => labelNodes(p, selection, plane, size))],
    shortened: labels.put.filter((p) => p.shortened).length,
    left: labels.left,
  };
}

const lengthOf = (way: readonly XY[]): number =>
  way.slice(1).reduce((sum, b, k) => sum + Math.hypot(b[0] - way[k]![0], b[1] - way[k]![1]), 0);

/** Labels one by one, or one for each group where one of its members has room for it. */
function labelsOf(
  { flows }: LineSelection,
  { names }: LinearBrief,
  wanted: readonly Wanted[],
  obstacles: Obstacles,
  size: number,
  measure: Measure,
  all: boolean,
): { put: Put[]; left: number } {
  if (names === 'none') return { put: [], left: 0 };
  // Long lines have most places to choose from: the others come first.
  const sorted = [...wanted].sort((a, b) => lengthOf(a.way) - lengthOf(b.way));
  if (names === 'each') return placeLabels(sorted, obstacles, size, measure, all);
  const titleOf = (f: Flow) => (names === 'alike' ? f.name : f.group);
  const groups = new Map(flows.filter((f) => titleOf(f) !== '').map((f) => [f.ref, measure.clean(titleOf(f))]));
  const put: Put[] = [];
  let left = 0;
  const named = new Map<string, Wanted[]>();
  for (const w of sorted.reverse()) {
    const group = groups.get(w.ref);
    if (group !== undefined) named.set(group, [...(named.get(group) ?? []), { ...w, name: group, more: '' }]);
  }
  const rest = sorted.filter((w) => !groups.has(w.ref));
  for (const members of named.values()) {
    const found = members.map((w) => () => placeLabels([w], obstacles, size, measure));
    let done = false;
    for (const attempt of found) {
      const one = attempt();
      if (one.put.length === 0) continue;
      put.push(...one.put);
      done = true;
      break;
    }
    if (!done) left++;
    if (all && left > 0) return { put, left };
  }
  const others = placeLabels(rest, obstacles, size, measure, all);
  return { put: [...put, ...others.put], left: left + others.left };
}

/** A label on a patch, so that no line of the grid runs through it. */
function labelNodes(put: Put, { line, flows, blocks, points }: LineSelection, plane: Plane, size: number): SceneNode[] {
  const [x, y] = put.shape.corners.reduce<[number, number]>((sum, c) => [sum[0] + c[0] / 4, sum[1] + c[1] / 4], [0, 0]);
  const closed = (line?.windows ?? []).some((w) => {
    const box = boxOn(plane, w.from / 1000, w.to / 1000, w.start / 1440, w.finish / 1440);
    return box !== null && x > box.left && x < box.right && y > box.top && y < box.bottom;
  });
  const own = [...flows, ...blocks, ...points].find((o) => o.ref === put.ref);
  return [
    polygon(
      put.shape.corners.map(([a, b]): [number, number] => [round(a), round(b)]),
      { fill: closed ? SAND : PAPER, role: 'pattern' },
    ),
    ...(put.leader
      ? [
          {
            type: 'line' as const,
            x1: round(put.leader[0][0]),
            y1: round(put.leader[0][1]),
            x2: round(put.leader[1][0]),
            y2: round(put.leader[1][1]),
            stroke: own?.colour ?? NEUTRAL,
            strokeWidth: 0.5,
            ref: put.ref,
            role: 'stem' as const,
          },
        ]
      : []),
    {
      type: 'text',
      x: round(put.x),
      y: round(put.y),
      size,
      runs: put.runs.map((r) => ({ ...r, fill: r.face === 'labelStrong' ? INK : SOFT_INK })),
      ...(Math.abs(put.turn) < 0.01 ? {} : { turn: round(put.turn) }),
      ref: put.ref,
      role: 'label',
    },
  ];
}

const rateWords = (rate: number): string =>
  String(rate >= 100 ? Math.round(rate) : rate >= 10 ? Math.round(rate * 10) / 10 : Math.round(rate * 100) / 100);
/** Chainage is counted in metres. */
const rateUnit = (unit: string): string => (isChainage(unit) ? 'm a day' : unit === '' ? 'a day' : `${unit} a day`);
