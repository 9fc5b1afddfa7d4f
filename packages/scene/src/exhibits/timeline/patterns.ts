import { type GroupNode, round, type SceneNode } from '../../graph/scene';

/** Lines of a pattern: their direction, and the distance between them in points. */
type Hatch = { way: 'up' | 'down' | 'level' | 'upright' | 'dots'; step: number };

/** Eight patterns that are told apart in grey; categories beyond them begin again. */
const PATTERNS: Hatch[][] = [
  [{ way: 'up', step: 3.6 }],
  [{ way: 'dots', step: 3.2 }],
  [{ way: 'level', step: 2.6 }],
  [{ way: 'down', step: 3.6 }],
  [
    { way: 'up', step: 4.4 },
    { way: 'down', step: 4.4 },
  ],
  [{ way: 'upright', step: 2.6 }],
  [{ way: 'up', step: 1.9 }],
  [
    { way: 'level', step: 3.2 },
    { way: 'upright', step: 3.2 },
  ],
];

interface Area {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Fills an area with the pattern of a category, clipped to it. Lines lie on a grid of the page, so bars of a kind match. */
export function patternNodes(pattern: number, area: Area, colour: string): GroupNode {
  const children = PATTERNS[(pattern - 1) % PATTERNS.length]!.flatMap((hatch) => hatchNodes(hatch, area, colour));
  return {
    type: 'group',
    role: 'pattern',
    clip: { x: round(area.x), y: round(area.y), width: round(area.width), height: round(area.height) },
    children,
  };
}

function hatchNodes({ way, step }: Hatch, { x, y, width, height }: Area, colour: string): SceneNode[] {
  const nodes: SceneNode[] = [];
  const line = (x1: number, y1: number, x2: number, y2: number) =>
    nodes.push({
      type: 'line',
      x1: round(x1),
      y1: round(y1),
      x2: round(x2),
      y2: round(y2),
      stroke: colour,
      strokeWidth: 0.5,
      role: 'pattern',
    });
  const first = (from: number) => Math.floor(from / step) * step;
  switch (way) {
    case 'level':
      for (let at = y + step / 2; at < y + height; at += step) line(x, at, x + width, at);
      break;
    case 'upright':
      for (let at = first(x); at < x + width; at += step) line(at, y, at, y + height);
      break;
    case 'up':
      for (let at = first(x - height); at < x + width; at += step) line(at, y + height, at + height, y);
      break;
    case 'down':
      for (let at = first(x - height); at < x + width; at += step) line(at, y, at + height, y + height);
      break;
    case 'dots':
      for (let at = first(x); at < x + width; at += step)
        for (let v = y + step / 2; v < y + height; v += step)
          nodes.push({ type: 'circle', x: round(at), y: round(v), radius: 0.55, fill: colour, role: 'pattern' });
  }
  return nodes;
}
