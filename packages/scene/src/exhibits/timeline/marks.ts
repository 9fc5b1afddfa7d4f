import { INK, PAPER, SOFT_INK, tint } from '../../graph/ink';
import { polygon, round, type SceneNode } from '../../graph/scene';
import { SUPPORT } from './cells';
import { patternNodes } from './patterns';
import { marker } from './shapes';

/** How a mark looks, on the page and in the legend. */
export interface MarkLook {
  colour: string;
  shape: string;
  /** Pattern for print in grey; 0 for none. */
  pattern: number;
  critical: boolean;
  complete: boolean;
  ref?: string;
  /** What a person has set for the thing by hand. */
  own?: { strong?: boolean | undefined } | null;
}

/** Where a bar stands: its ends and its height, in points. */
export interface BarPlace {
  x0: number;
  x1: number;
  /** The right end of what is done; x0 where nothing is. */
  done: number;
  top: number;
  height: number;
  /** Ends that run on beyond the page. */
  cutLeft: boolean;
  cutRight: boolean;
  group: boolean;
  /** Ends whose day nobody has said. */
  softLeft?: boolean;
  softRight?: boolean;
  /** Ends of the critical work of a group. */
  criticalWork?: [x0: number, x1: number][] | null;
}

/** How light the part of a bar that is still to come is. */
export const TO_COME = 0.3;
/** The share of a bar's height that its progress fills, from below. */
const PROGRESS_DEPTH = 0.26;
/** The least length of the line over what is critical, in points. */
const LEAST_INK = 1.2;

/**
 * A bar: light where it is to come, an edge in its full colour, progress as a band along the lower edge, critical as
 * an ink line along the upper one, over a group only as far as its critical work. The edge of a group is doubled at
 * its left end. Towards an end whose day nobody has said it fades.
 */
export function barMark(place: BarPlace, look: MarkLook): SceneNode[] {
  const edge = edgeWidth(place.height) * heavy(look);
  const p = withinEdge(place, edge);
  const width = round(p.x1 - p.x0);
  const radius = round(Math.min(p.height * 0.22, 3.5, width / 2));
  const about = look.ref === undefined ? {} : { ref: look.ref };
  const soft = p.softLeft ? (p.softRight ? 'both' : 'left') : p.softRight ? 'right' : null;
  const nodes: SceneNode[] = [
    {
      type: 'rect',
      x: round(p.x0),
      y: round(p.top),
      width,
      height: round(p.height),
      radius,
      fill: tint(look.colour, TO_COME),
      // An end that is not known has no edge.
      ...(soft === null ? { stroke: look.colour, strokeWidth: edge } : { fade: soft }),
      ...about,
      role: 'bar',
    },
  ];
  if (look.pattern > 0 && width > 2)
    nodes.push(patternNodes(look.pattern, { x: p.x0, y: p.top, width, height: p.height }, look.colour));
  const depth = round(Math.max(1.2, p.height * PROGRESS_DEPTH));
  const done = round(Math.min(p.done, p.x1) - p.x0);
  if (done > 0.2)
    nodes.push({
      type: 'rect',
      x: round(p.x0),
      y: round(p.top + p.height - depth),
      width: done,
      height: depth,
      radius: round(Math.min(radius, depth / 2, done / 2)),
      fill: look.colour,
      ...about,
      role: 'progress',
    });
  if (p.group && width > 5)
    nodes.push({
      type: 'line',
      x1: round(p.x0 + 2.4),
      y1: round(p.top + edge / 2),
      x2: round(p.x0 + 2.4),
      y2: round(p.top + p.height - edge / 2),
      stroke: look.colour,
      strokeWidth: edge,
      ...about,
      role: 'bar',
    });
  if (look.critical) {
    const inset = Math.min(radius * 0.5, width / 4);
    const [left, right] = [p.x0 + inset, p.x1 - inset];
    for (const [x0, x1] of p.criticalWork ?? [[left, right]]) {
      // A milestone has no length, and is to be seen.
      const from = Math.min(Math.max(x0, left), right - LEAST_INK);
      nodes.push(inkLine(from, Math.max(Math.min(x1, right), from + LEAST_INK), p.top, p.height, about));
    }
  }
  // What runs past the page says so with an open end.
  const notch = (x: number, way: number): SceneNode =>
    polygon(
      [
        [round(x - (way * edge) / 2), round(p.top - edge)],
        [round(x + way * Math.min(p.height * 0.4, 4)), round(p.top + p.height / 2)],
        [round(x - (way * edge) / 2), round(p.top + p.height + edge)],
      ],
      { fill: PAPER, ...about, role: 'bar' },
    );
  if (p.cutLeft) nodes.push(notch(p.x0, 1));
  if (p.cutRight) nodes.push(notch(p.x1, -1));
  return nodes;
}

/** A bar cut off at the border of the plot, with its own edge inside that border; too short a bar shows no cut. */
function withinEdge(p: BarPlace, edge: number): BarPlace {
  const shown = p.x1 - p.x0 > 8;
  const [cutLeft, cutRight] = [p.cutLeft && shown, p.cutRight && shown];
  return { ...p, cutLeft, cutRight, x0: p.x0 + (cutLeft ? edge / 2 : 0), x1: p.x1 - (cutRight ? edge / 2 : 0) };
}

/** What is pointed out has a heavy edge. */
const heavy = (look: MarkLook): number => (look.own?.strong ? 2.2 : 1);

const edgeWidth = (height: number): number => round(Math.min(0.9, Math.max(0.5, height * 0.07)));

const inkLine = (x1: number, x2: number, y: number, height: number, about: { ref?: string }): SceneNode => ({
  type: 'line',
  x1: round(x1),
  y1: round(y),
  x2: round(x2),
  y2: round(y),
  stroke: INK,
  strokeWidth: round(Math.min(2, Math.max(1, height * 0.16))),
  ...about,
  role: 'critical',
});

/** Interrupted work: a bar for each stretch, held together by a thin line. */
export function stretchedMark(parts: [x0: number, x1: number][], place: BarPlace, look: MarkLook): SceneNode[] {
  const y = round(place.top + place.height / 2);
  const about = look.ref === undefined ? {} : { ref: look.ref };
  return [
    {
      type: 'line',
      x1: round(parts[0]![0]),
      y1: y,
      x2: round(parts.at(-1)![1]),
      y2: y,
      stroke: look.colour,
      strokeWidth: edgeWidth(place.height),
      ...about,
      role: 'bar',
    },
    ...parts.flatMap(([x0, x1], k) =>
      barMark(
        {
          ...place,
          x0,
          x1,
          done: Math.max(x0, Math.min(x1, place.done)),
          cutLeft: place.cutLeft && k === 0,
          cutRight: place.cutRight && k === parts.length - 1,
        },
        look,
      ),
    ),
  ];
}

/** A point in time: filled when it is reached, hollow until then, with ink along its upper edges when it is critical. */
export function milestoneMark(x: number, y: number, half: number, look: MarkLook): SceneNode[] {
  const about = look.ref === undefined ? {} : { ref: look.ref };
  const strokeWidth = round(Math.min(1.4, Math.max(0.7, half * 0.24)) * heavy(look));
  const nodes: SceneNode[] = [
    marker(look.shape, x, y, half, {
      fill: look.complete ? look.colour : PAPER,
      stroke: look.colour,
      strokeWidth,
      ...about,
      role: 'milestone',
    }),
  ];
  if (!look.critical || look.complete) return nodes;
  if (look.shape !== 'diamond') nodes.push(inkLine(x - half * 0.7, x + half * 0.7, y - half, half * 2, about));
  else
    nodes.push({
      type: 'path',
      steps: [
        ['M', round(x - half), round(y)],
        ['L', round(x), round(y - half)],
        ['L', round(x + half), round(y)],
      ],
      stroke: INK,
      strokeWidth: round(strokeWidth * 1.25),
      ...about,
      role: 'critical',
    });
  return nodes;
}

/** Supporting work fades at both ends. */
export const supportMark = (p: BarPlace, look: MarkLook): SceneNode[] => [
  {
    type: 'rect',
    x: round(p.x0),
    y: round(p.top + (p.height * (1 - SUPPORT)) / 2),
    width: round(p.x1 - p.x0),
    height: round(p.height * SUPPORT),
    fill: look.colour,
    opacity: 0.55,
    fade: 'both',
    ...(look.ref === undefined ? {} : { ref: look.ref }),
    role: 'bar',
  },
];

/** What the edition compared with promised: a hollow outline, or for a point in time a hollow diamond. */
export function promisedMark(
  x0: number,
  x1: number,
  top: number,
  height: number,
  point: boolean,
  ref?: string,
): SceneNode {
  const paint = {
    fill: PAPER,
    stroke: SOFT_INK,
    strokeWidth: 0.7,
    ...(ref === undefined ? {} : { ref }),
    role: 'promised' as const,
  };
  if (point) return marker('diamond', x0, top + height / 2, height * 0.62, paint);
  return {
    type: 'rect',
    x: round(x0),
    y: round(top),
    width: round(x1 - x0),
    height: round(height),
    radius: round(Math.min(height / 2, (x1 - x0) / 2)),
    ...paint,
  };
}

/** From the promised to the current finish: an arrow that points at where it is now. */
export function slipMark(x0: number, x1: number, y: number, height: number, colour: string, ref?: string): SceneNode[] {
  const way = x1 >= x0 ? 1 : -1;
  const head = Math.min(height * 1.1, Math.abs(x1 - x0));
  const about = { ...(ref === undefined ? {} : { ref }), role: 'promised' as const };
  return [
    {
      type: 'line',
      x1: round(x0),
      y1: round(y),
      x2: round(x1 - way * head),
      y2: round(y),
      stroke: colour,
      strokeWidth: round(Math.max(0.9, height * 0.3)),
      ...about,
    },
    {
      type: 'line',
      x1: round(x0),
      y1: round(y - height * 0.45),
      x2: round(x0),
      y2: round(y + height * 0.45),
      stroke: colour,
      strokeWidth: round(Math.max(0.9, height * 0.3)),
      ...about,
    },
    polygon(
      [
        [round(x1), round(y)],
        [round(x1 - way * head), round(y - height * 0.5)],
        [round(x1 - way * head), round(y + height * 0.5)],
      ],
      { fill: colour, ...about },
    ),
  ];
}

/** A deadline: an upright with a wedge that points down on it. */
export function deadlineMark(x: number, y: number, half: number, ref?: string): SceneNode[] {
  const about = { ...(ref === undefined ? {} : { ref }), role: 'deadline' as const };
  const wide = half * 0.5;
  return [
    {
      type: 'line',
      x1: round(x),
      y1: round(y - half * 0.4),
      x2: round(x),
      y2: round(y + half),
      stroke: INK,
      strokeWidth: 0.9,
      ...about,
    },
    polygon(
      [
        [round(x - wide), round(y - half)],
        [round(x + wide), round(y - half)],
        [round(x), round(y - half * 0.2)],
      ],
      { fill: INK, ...about },
    ),
  ];
}

/** What is gone: an empty outline where it was to be. */
export function goneMark(
  x0: number,
  x1: number,
  y: number,
  height: number,
  half: number,
  point: boolean,
  ref?: string,
): SceneNode {
  const about = { ...(ref === undefined ? {} : { ref }) };
  const paint = { fill: PAPER, stroke: SOFT_INK, strokeWidth: 0.6 };
  if (point) return marker('diamond', x0, y, half, { ...paint, ...about, role: 'milestone' });
  return {
    type: 'rect',
    x: round(x0),
    y: round(y - height / 2),
    width: round(x1 - x0),
    height: round(height),
    radius: round(Math.min(height * 0.22, 3.5, (x1 - x0) / 2)),
    ...paint,
    ...about,
    role: 'bar',
  };
}

/** A summary: a thin line with soft ends. */
export function summaryMark(x0: number, x1: number, y: number, thickness: number, ref?: string): SceneNode[] {
  const about = { ...(ref === undefined ? {} : { ref }), role: 'summary' as const };
  const end = round(thickness * 0.95);
  const dot = (x: number): SceneNode => ({
    type: 'circle',
    x: round(x),
    y: round(y),
    radius: end,
    fill: SOFT_INK,
    ...about,
  });
  return [
    {
      type: 'line',
      x1: round(x0),
      y1: round(y),
      x2: round(x1),
      y2: round(y),
      stroke: SOFT_INK,
      strokeWidth: round(thickness),
      ...about,
    },
    dot(x0 + end),
    dot(Math.max(x0 + end, x1 - end)),
  ];
}
