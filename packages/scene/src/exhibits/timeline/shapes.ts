import { type About, type Paint, polygon, round, type SceneNode } from '../../graph/scene';

const polar = (x: number, y: number, r: number, degrees: number): [number, number] => [
  round(x + r * Math.sin((degrees * Math.PI) / 180)),
  round(y - r * Math.cos((degrees * Math.PI) / 180)),
];

/** The outline of a marker around a point; `half` is half its height. */
export function marker(shape: string, x: number, y: number, half: number, paint: Paint & About): SceneNode {
  if (shape === 'circle') return { type: 'circle', x: round(x), y: round(y), radius: round(half * 0.88), ...paint };
  return polygon(outline(shape, x, y, half), paint);
}

function outline(shape: string, x: number, y: number, half: number): [number, number][] {
  switch (shape) {
    case 'square':
      return [45, 135, 225, 315].map((a) => polar(x, y, half * 1.12, a));
    case 'triangle':
      return [0, 120, 240].map((a) => polar(x, y + half * 0.22, half * 1.12, a));
    case 'flag':
      return [
        [round(x - half * 0.9), round(y - half)],
        [round(x + half * 0.9), round(y - half * 0.4)],
        [round(x - half * 0.6), round(y + half * 0.2)],
        [round(x - half * 0.6), round(y + half)],
        [round(x - half * 0.9), round(y + half)],
      ];
    case 'star':
      return Array.from({ length: 10 }, (_, k) => polar(x, y, k % 2 === 0 ? half * 1.1 : half * 0.5, k * 36));
    default:
      return [0, 90, 180, 270].map((a) => polar(x, y, half, a));
  }
}
