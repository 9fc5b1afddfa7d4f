import type { Paint } from '@clembo/scene';

/** Where along its width a fill that fades has which opacity, from left to right. */
export function fadeStops(ends: NonNullable<Paint['fade']>): [at: number, opacity: number][] {
  const left: [number, number][] = [
    [0, ends === 'right' ? 1 : 0],
    [0.18, 1],
  ];
  const right: [number, number][] = [
    [0.82, 1],
    [1, ends === 'left' ? 1 : 0],
  ];
  return [...left, ...right];
}
