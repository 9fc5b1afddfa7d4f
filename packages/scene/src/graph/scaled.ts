import type { SceneNode } from './scene';

/** Part of a page made smaller or larger as a whole, and moved: x becomes x · by + dx. */
export function scaled(n: SceneNode, by: number, dx: number, dy: number): SceneNode {
  const [x, y] = [(v: number) => v * by + dx, (v: number) => v * by + dy];
  const stroke = 'strokeWidth' in n && n.strokeWidth !== undefined ? { strokeWidth: n.strokeWidth * by } : {};
  switch (n.type) {
    case 'group':
      return {
        ...n,
        ...(n.clip && {
          clip: { x: x(n.clip.x), y: y(n.clip.y), width: n.clip.width * by, height: n.clip.height * by },
        }),
        children: n.children.map((c) => scaled(c, by, dx, dy)),
      };
    case 'text':
      return { ...n, x: x(n.x), y: y(n.y), size: n.size * by };
    case 'rect':
      return {
        ...n,
        ...stroke,
        x: x(n.x),
        y: y(n.y),
        width: n.width * by,
        height: n.height * by,
        ...(n.radius !== undefined && { radius: n.radius * by }),
      };
    case 'image':
      return { ...n, x: x(n.x), y: y(n.y), width: n.width * by, height: n.height * by };
    case 'line':
      return { ...n, ...stroke, x1: x(n.x1), y1: y(n.y1), x2: x(n.x2), y2: y(n.y2) };
    case 'circle':
      return { ...n, ...stroke, x: x(n.x), y: y(n.y), radius: n.radius * by };
    case 'path':
      return {
        ...n,
        ...stroke,
        steps: n.steps.map((s) => [s[0], ...s.slice(1).map((v, k) => (k % 2 === 0 ? x : y)(v as number))] as typeof s),
      };
  }
}
