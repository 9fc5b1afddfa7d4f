import { INK, NEUTRAL } from '../../graph/ink';
import { type PathStep, polygon, round, type SceneNode } from '../../graph/scene';
import type { RoutePoint } from '../../layered/layout';
import type { Placer } from './placer';

/** In sizes of the type: round corners, and the tip of an arrow. */
const CORNER = 0.45;
const TIP = 0.5;

/**
 * A line with round corners and a tip.
 *
 * @param inset how far it goes on at its beginning and at its end, in points, where an edge curves away from it
 */
export function lineNodes(
  route: readonly RoutePoint[],
  look: { strong: boolean; colour?: string },
  between: readonly [from: string, to: string],
  p: Placer,
  inset: readonly [begin: number, end: number] = [0, 0],
): SceneNode[] {
  const at = route.map((point) => p.at(point));
  at[0] = further(at[1]!, at[0]!, inset[0]);
  at[at.length - 1] = further(at.at(-2)!, at.at(-1)!, inset[1]);
  const stroke = look.colour ?? (look.strong ? INK : NEUTRAL);
  const strokeWidth = round(p.size * (look.strong ? 0.15 : 0.08));
  const tip = p.size * TIP;
  const [end, before] = [at.at(-1)!, at.at(-2)!];
  const far = Math.hypot(end[0] - before[0], end[1] - before[1]) || 1;
  const [ux, uy] = [(end[0] - before[0]) / far, (end[1] - before[1]) / far];
  at[at.length - 1] = [end[0] - ux * tip * 0.8, end[1] - uy * tip * 0.8];
  const base: [number, number] = [end[0] - ux * tip, end[1] - uy * tip];
  const half = tip * 0.45;
  return [
    { type: 'path', steps: rounded(at, p.size * CORNER), stroke, strokeWidth, between, role: 'link' },
    polygon(
      [
        [round(end[0]), round(end[1])],
        [round(base[0] - uy * half), round(base[1] - ux * half)],
        [round(base[0] + uy * half), round(base[1] + ux * half)],
      ],
      { fill: stroke, between, role: 'link' },
    ),
  ];
}

/** The end of a line that goes on by so much. */
function further([x0, y0]: [number, number], [x1, y1]: [number, number], by: number): [number, number] {
  const far = Math.hypot(x1 - x0, y1 - y0);
  return far < 1e-6 ? [x1, y1] : [x1 + ((x1 - x0) / far) * by, y1 + ((y1 - y0) / far) * by];
}

/** The line through points, its corners rounded. */
export function rounded(at: readonly [number, number][], radius: number): PathStep[] {
  const steps: PathStep[] = [['M', round(at[0]![0]), round(at[0]![1])]];
  for (let k = 1; k + 1 < at.length; k++) {
    const [[x0, y0], [x1, y1], [x2, y2]] = [at[k - 1]!, at[k]!, at[k + 1]!];
    const [before, after] = [Math.hypot(x1 - x0, y1 - y0), Math.hypot(x2 - x1, y2 - y1)];
    if (before < 1e-6 || after < 1e-6) continue;
    const r = Math.min(radius, before / 2, after / 2);
    const [ax, ay] = [((x1 - x0) / before) * r, ((y1 - y0) / before) * r];
    const [bx, by] = [((x2 - x1) / after) * r, ((y2 - y1) / after) * r];
    steps.push(['L', round(x1 - ax), round(y1 - ay)]);
    if (r > 0.05)
      steps.push([
        'C',
        round(x1 - ax / 2),
        round(y1 - ay / 2),
        round(x1 + bx / 2),
        round(y1 + by / 2),
        round(x1 + bx),
        round(y1 + by),
      ]);
  }
  const [x, y] = at.at(-1)!;
  return [...steps, ['L', round(x), round(y)]];
}
