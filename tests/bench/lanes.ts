import { neighbourly } from '../../packages/scene/src/exhibits/lanesOf';
import { report, sideBySide } from './sideBySide';

/** Things that are shared by three lanes each, at random but always the same. */
function shared(lanes: number, things: number): { order: string[]; sets: string[][] } {
  let state = 7;
  const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  const order = Array.from({ length: lanes }, (_, k) => `L${k}`);
  const sets = Array.from({ length: things }, () => [
    ...new Set([0, 1, 2].map(() => order[Math.floor(random() * lanes)]!)),
  ]);
  return { order, sets };
}

export function benchLanes(): void {
  const works = Object.fromEntries(
    [
      [30, 300],
      [60, 600],
      [120, 1200],
    ].map(([lanes, things]) => {
      const { order, sets } = shared(lanes!, things!);
      return [`${lanes} lanes, ${things} things that they share`, () => neighbourly(order, sets)];
    }),
  );
  report('The order of lanes', sideBySide(works), '30 lanes, 300 things that they share');
}
