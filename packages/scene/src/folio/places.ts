import type { PathStep, Scene, SceneNode } from '../graph/scene';
import type { Measure } from '../text/measure';

/** A rectangle on a page, in points. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Where the things of a page are, by their references: all that is drawn of each. */
export function placesOf(scene: Scene, measure: Measure): Map<string, Box> {
  const bounds = new Map<string, [number, number, number, number]>();
  const grow = (ref: string, x0: number, y0: number, x1: number, y1: number) => {
    const own = bounds.get(ref) ?? [Infinity, Infinity, -Infinity, -Infinity];
    bounds.set(ref, [Math.min(own[0], x0), Math.min(own[1], y0), Math.max(own[2], x1), Math.max(own[3], y1)]);
  };
  const walk = (nodes: readonly SceneNode[], within: string | null) => {
    for (const node of nodes) {
      const ref = ('ref' in node ? node.ref : undefined) ?? within;
      if (node.type === 'group') {
        walk(node.children, ref ?? null);
        continue;
      }
      if (ref === null || ref === undefined) continue;
      const box = extentOf(node, measure);
      if (box) grow(ref, ...box);
    }
  };
  walk(scene.nodes, null);
  return new Map(
    [...bounds].map(([ref, [x0, y0, x1, y1]]) => [ref, { x: x0, y: y0, width: x1 - x0, height: y1 - y0 }]),
  );
}

function extentOf(node: SceneNode, measure: Measure): [number, number, number, number] | null {
  switch (node.type) {
    case 'rect':
    case 'image':
      return [node.x, node.y, node.x + node.width, node.y + node.height];
    case 'circle':
      return [node.x - node.radius, node.y - node.radius, node.x + node.radius, node.y + node.radius];
    case 'line':
      return [
        Math.min(node.x1, node.x2),
        Math.min(node.y1, node.y2),
        Math.max(node.x1, node.x2),
        Math.max(node.y1, node.y2),
      ];
    case 'text': {
      const width = node.runs.reduce((sum, r) => sum + measure.width(r.face, node.size, r.text), 0);
      return node.turn ? null : [node.x, node.y - node.size * 0.75, node.x + width, node.y + node.size * 0.22];
    }
    case 'path':
      return stepsExtent(node.steps);
    default:
      return null;
  }
}

function stepsExtent(steps: readonly PathStep[]): [number, number, number, number] | null {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const step of steps)
    for (let k = 1; k + 1 < step.length; k += 2) {
      const [x, y] = [step[k] as number, step[k + 1] as number];
      [x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)];
    }
  return x0 === Infinity ? null : [x0, y0, x1, y1];
}
