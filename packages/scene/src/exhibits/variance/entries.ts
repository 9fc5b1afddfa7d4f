import { KELP } from '../../graph/ink';
import type { SceneNode } from '../../graph/scene';
import type { PageFrame } from '../../page/frame';
import type { LegendEntry } from '../../page/legend';
import { rule } from '../../graph/nodes';

export const statusEntry = (frame: PageFrame): LegendEntry => ({
  title: 'Status date',
  width: frame.smallSize * 0.4,
  draw: (x, y) => [
    rule(
      x + frame.smallSize * 0.2,
      y - frame.smallSize * 0.5,
      x + frame.smallSize * 0.2,
      y + frame.smallSize * 0.5,
      KELP,
      1.2,
      'legend',
    ),
  ],
});

/** A line with a mark, as in the plot. */
export const lineEntry = (
  frame: PageFrame,
  title: string,
  draw: (x0: number, x1: number, y: number) => SceneNode[],
): LegendEntry => {
  const width = frame.smallSize * 3;
  const inset = frame.smallSize * 0.35;
  return { title, width, draw: (x, y) => draw(x + inset, x + width - inset, y) };
};
