import { leavesOf, type Scene, textOf } from '../src/index';
import { measure } from './fixtures';

export interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** The cards of a page: the front of each, by what is drawn. */
export const cardsOf = (scene: Scene): Map<string, Box> =>
  new Map(
    scene.nodes.flatMap((n): [string, Box][] => {
      if (n.type !== 'group' || n.role !== 'item') return [];
      const mark = n.children.filter((c) => c.role === 'bar').at(-1)!;
      if (mark.type === 'rect')
        return [[n.ref!, { left: mark.x, right: mark.x + mark.width, top: mark.y, bottom: mark.y + mark.height }]];
      if (mark.type !== 'path') return [];
      // Of a curve, its ends are enough: the symbols of steps bulge by little.
      const ends = mark.steps.flatMap((step) => (step[0] === 'Z' ? [] : [step.slice(-2) as number[]]));
      const [xs, ys] = [ends.map((e) => e[0]!), ends.map((e) => e[1]!)];
      return [
        [n.ref!, { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) }],
      ];
    }),
  );

/** The straight pieces of all lines, with what each line joins. */
export const piecesOf = (scene: Scene): (Box & { between: readonly string[] })[] =>
  scene.nodes.flatMap((n) => {
    if (n.type !== 'path' || n.role !== 'link' || n.fill) return [];
    let [x, y] = [0, 0];
    return n.steps.flatMap((s): (Box & { between: readonly string[] })[] => {
      if (s[0] === 'Z') return [];
      const at = s.slice(1) as number[];
      const [nx, ny] = [at.at(-2)!, at.at(-1)!];
      const piece = {
        left: Math.min(x, nx),
        right: Math.max(x, nx),
        top: Math.min(y, ny),
        bottom: Math.max(y, ny),
        between: n.between ?? [],
      };
      [x, y] = [nx, ny];
      return s[0] === 'M' ? [] : [piece];
    });
  });

export const meet = (a: Box, b: Box, by = 0.3) =>
  a.left + by < b.right && b.left + by < a.right && a.top + by < b.bottom && b.top + by < a.bottom;
/** A line runs through a box where it is within it by more than its edge. */
export const through = (line: Box, box: Box) =>
  line.right > box.left + 0.6 &&
  line.left < box.right - 0.6 &&
  line.bottom > box.top + 0.6 &&
  line.top < box.bottom - 0.6;

export const textBoxes = (scene: Scene): (Box & { text: string })[] =>
  leavesOf(scene.nodes).flatMap((n) =>
    n.type === 'text' && ['cell', 'mark', 'label'].includes(n.role ?? '')
      ? [
          {
            text: textOf(n),
            left: n.x,
            right: n.x + n.runs.reduce((sum, r) => sum + measure.width(r.face, n.size, r.text), 0),
            top: n.y - n.size * 0.6,
            bottom: n.y + n.size * 0.1,
          },
        ]
      : [],
  );
