import type { GroupNode, SceneNode } from '@clembo/scene';

type Clip = NonNullable<GroupNode['clip']>;

/**
 * What of a node lies within a rectangle, for outputs that cannot clip: lines are cut (Liang and Barsky 1984), other
 * shapes are there if their middle is.
 */
export function clipped(node: SceneNode, clip: Clip): SceneNode[] {
  switch (node.type) {
    case 'line': {
      let [from, to] = [0, 1];
      const [dx, dy] = [node.x2 - node.x1, node.y2 - node.y1];
      const edges: [number, number][] = [
        [-dx, node.x1 - clip.x],
        [dx, clip.x + clip.width - node.x1],
        [-dy, node.y1 - clip.y],
        [dy, clip.y + clip.height - node.y1],
      ];
      for (const [p, q] of edges) {
        if (p === 0) {
          if (q < 0) return [];
        } else if (p < 0) from = Math.max(from, q / p);
        else to = Math.min(to, q / p);
      }
      if (from >= to) return [];
      return [
        {
          ...node,
          x1: node.x1 + from * dx,
          y1: node.y1 + from * dy,
          x2: node.x1 + to * dx,
          y2: node.y1 + to * dy,
        },
      ];
    }
    case 'group':
      return [{ ...node, children: node.children.flatMap((n) => clipped(n, clip)) }];
    case 'circle':
    case 'text':
      return within(node.x, node.y, clip) ? [node] : [];
    case 'rect':
    case 'image':
      return within(node.x + node.width / 2, node.y + node.height / 2, clip) ? [node] : [];
    case 'path':
      return [node];
  }
}

const within = (x: number, y: number, c: Clip): boolean =>
  x >= c.x && x <= c.x + c.width && y >= c.y && y <= c.y + c.height;
