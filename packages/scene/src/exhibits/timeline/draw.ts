import { INK, MIST, PAPER, SAND, SOFT_INK, tint } from '../../graph/ink';
import { round, type SceneNode } from '../../graph/scene';
import type { TimeScale } from '../../scales/time';
import type { Measure } from '../../text/measure';
import type { PageFrame } from './frame';
import type { Item } from './items';
import { labelFace } from './geometry';
import { halfMarker, type Placed } from './rows';
import { marker } from './shapes';

/** The part of a page that time runs over. */
export interface Plot {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** The box that a text takes, so that lines can be kept out of it. */
export interface TextBox {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** A label: the name in ink and what follows in soft ink. */
export function labelNodes(
  item: Item,
  label: string,
  detail: string,
  x: number,
  y: number,
  size: number,
  measure: Measure,
): SceneNode[] {
  const face = labelFace(item);
  const nodes: SceneNode[] = [
    { type: 'text', x: round(x), y: round(y), text: label, face, size, fill: INK, ref: item.ref, role: 'label' },
  ];
  if (detail !== '') {
    const after = x + measure.width(face, size, label) + measure.width('label', size, ' ');
    nodes.push({
      type: 'text',
      x: round(after),
      y: round(y),
      text: detail,
      face: 'label',
      size,
      fill: SOFT_INK,
      ref: item.ref,
      role: 'label',
    });
  }
  return nodes;
}

/** An item at the vertical centre `y`. */
export function itemNodes(p: Placed, y: number, barHeight: number): SceneNode[] {
  const { item, x0, x1 } = p;
  const { ref } = item;
  const width = round(x1 - x0);
  const top = round(y - barHeight / 2);
  const radius = round(Math.min(barHeight * 0.28, width / 2));
  switch (item.form) {
    case 'milestone': {
      const half = halfMarker(barHeight);
      return [
        marker(item.shape, (x0 + x1) / 2, y, half, {
          fill: item.complete ? item.colour : PAPER,
          stroke: item.critical && !item.complete ? INK : item.colour,
          strokeWidth: round(Math.max(0.7, barHeight * 0.17)),
          ref,
          role: 'milestone',
        }),
      ];
    }
    case 'summary': {
      const line = round(Math.max(0.8, barHeight * 0.22));
      const end = round(line * 0.95);
      const base = round(y + barHeight * 0.66);
      return [
        {
          type: 'line',
          x1: round(x0),
          y1: base,
          x2: round(x1),
          y2: base,
          stroke: SOFT_INK,
          strokeWidth: line,
          ref,
          role: 'summary',
        },
        { type: 'circle', x: round(x0), y: base, radius: end, fill: SOFT_INK, ref, role: 'summary' },
        { type: 'circle', x: round(x1), y: base, radius: end, fill: SOFT_INK, ref, role: 'summary' },
      ];
    }
    case 'support':
      return [
        {
          type: 'rect',
          x: round(x0),
          y: round(y - barHeight * 0.28),
          width,
          height: round(barHeight * 0.56),
          fill: item.colour,
          opacity: 0.55,
          fade: true,
          ref,
          role: 'bar',
        },
      ];
    default:
      return p.parts && p.parts.length > 1
        ? stretchNodes(p, p.parts, y, barHeight)
        : workNodes(p, top, radius, barHeight);
  }
}

function workNodes(p: Placed, top: number, radius: number, barHeight: number): SceneNode[] {
  const { item, x0 } = p;
  const width = round(p.x1 - x0);
  const { ref, colour } = item;
  const group = item.form === 'group';
  const corner = group ? round(Math.min(barHeight / 2, width / 2)) : radius;
  const nodes: SceneNode[] = [
    {
      type: 'rect',
      x: round(x0),
      y: top,
      width,
      height: round(barHeight),
      radius: corner,
      fill: tint(colour, 0.36),
      ref,
      role: 'bar',
    },
  ];
  const done = round(Math.min(width, width * item.progress));
  if (done > 0.2) {
    const depth = round(barHeight * 0.46);
    nodes.push({
      type: 'rect',
      x: round(x0),
      y: round(top + barHeight - depth),
      width: done,
      height: depth,
      radius: round(Math.min(radius, depth / 2, done / 2)),
      fill: colour,
      ref,
      role: 'progress',
    });
  }
  if (item.critical) {
    const inset = Math.min(corner * 0.5, width / 4);
    nodes.push({
      type: 'line',
      x1: round(x0 + inset),
      y1: top,
      x2: round(x0 + width - inset),
      y2: top,
      stroke: INK,
      strokeWidth: round(Math.max(0.9, barHeight * 0.19)),
      ref,
      role: 'critical',
    });
  }
  if (group && barHeight > 3) {
    const y = round(top + barHeight + barHeight * 0.22);
    nodes.push({
      type: 'line',
      x1: round(x0 + barHeight * 0.4),
      y1: y,
      x2: round(Math.max(x0 + barHeight * 0.4, x0 + width - barHeight * 0.4)),
      y2: y,
      stroke: tint(colour, 0.55),
      strokeWidth: round(Math.max(0.6, barHeight * 0.12)),
      ref,
      role: 'bar',
    });
  }
  // What runs past the page says so with an open end.
  const cut = (x: number, way: number): SceneNode => ({
    type: 'polygon',
    points: [
      [round(x), top],
      [round(x + way * barHeight * 0.5), round(top + barHeight / 2)],
      [round(x), round(top + barHeight)],
    ],
    fill: PAPER,
    ref,
    role: 'bar',
  });
  if (p.cutLeft && width > barHeight) nodes.push(cut(x0, 1));
  if (p.cutRight && width > barHeight) nodes.push(cut(x0 + width, -1));
  return nodes;
}

/** Interrupted work: a bar for each stretch, held together by a thin line; progress fills one after the other. */
function stretchNodes(p: Placed, parts: [number, number][], y: number, barHeight: number): SceneNode[] {
  const { item } = p;
  const worked = parts.reduce((sum, [a, b]) => sum + b - a, 0);
  let left = worked * item.progress;
  const thread: SceneNode = {
    type: 'line',
    x1: round(parts[0]![0]),
    y1: round(y),
    x2: round(parts.at(-1)![1]),
    y2: round(y),
    stroke: tint(item.colour, 0.55),
    strokeWidth: round(Math.max(0.6, barHeight * 0.12)),
    ref: item.ref,
    role: 'bar',
  };
  const bars = parts.flatMap(([x0, x1], k): SceneNode[] => {
    const done = Math.min(left, x1 - x0);
    left -= done;
    const piece = {
      ...p,
      x0,
      x1,
      cutLeft: p.cutLeft && k === 0,
      cutRight: p.cutRight && k === parts.length - 1,
      item: { ...item, progress: x1 > x0 ? done / (x1 - x0) : 0 },
    };
    return workNodes(piece, round(y - barHeight / 2), round(Math.min(barHeight * 0.28, (x1 - x0) / 2)), barHeight);
  });
  return [thread, ...bars];
}

/** A vertical line over the plot that leaves out the boxes of texts. */
export function brokenLine(
  x: number,
  top: number,
  bottom: number,
  boxes: TextBox[],
  stroke: string,
  strokeWidth: number,
  role: SceneNode['role'],
): SceneNode[] {
  const gaps: TextBox[] = [];
  for (const b of boxes) if (b.left - 1.2 < x && b.right + 1.2 > x && b.bottom > top && b.top < bottom) gaps.push(b);
  gaps.sort((a, b) => a.top - b.top);
  const nodes: SceneNode[] = [];
  let from = top;
  const piece = (to: number) => {
    if (to - from > 0.5)
      nodes.push({
        type: 'line',
        x1: round(x),
        y1: round(from),
        x2: round(x),
        y2: round(to),
        stroke,
        strokeWidth,
        role,
      });
  };
  for (const gap of gaps) {
    piece(gap.top - 0.6);
    from = Math.max(from, gap.bottom + 0.6);
  }
  piece(bottom);
  return nodes;
}

/** Shaded periods with their names along the bottom; each name of a period has one shade. */
export function periodNodes(
  periods: { name: string; start: number; finish: number }[],
  scale: TimeScale,
  plot: Plot,
  frame: PageFrame,
  measure: Measure,
): { nodes: SceneNode[]; boxes: TextBox[] } {
  const nodes: SceneNode[] = [];
  const boxes: TextBox[] = [];
  const names = [...new Set(periods.map((p) => p.name))];
  for (const p of periods) {
    const x0 = Math.max(plot.left, scale.x(p.start));
    const x1 = Math.min(plot.right, scale.x(p.finish));
    if (x1 <= x0) continue;
    nodes.push({
      type: 'rect',
      x: round(x0),
      y: round(plot.top),
      width: round(x1 - x0),
      height: round(plot.bottom - plot.top),
      fill: names.indexOf(p.name) % 2 === 0 ? SAND : MIST,
      role: 'period',
    });
    const text = measure.shorten('label', frame.smallSize, p.name, x1 - x0 - 4);
    if (text.length < 4) continue;
    const width = measure.width('label', frame.smallSize, text);
    const x = (x0 + x1 - width) / 2;
    const y = plot.bottom - 3;
    nodes.push({
      type: 'text',
      x: round(x),
      y: round(y),
      text,
      face: 'label',
      size: frame.smallSize,
      fill: SOFT_INK,
      role: 'period',
    });
    boxes.push({ left: x, right: x + width, top: y - frame.smallSize, bottom: y + 2 });
  }
  return { nodes, boxes };
}
