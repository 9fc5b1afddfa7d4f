import { INK, SOFT_INK } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import type { Measure } from '../text/measure';
import type { PageFrame } from './frame';

/** The lines at the foot: what is shown and what is not, and where the data is from. */
export interface Foot {
  lines: { text: string; strong: boolean }[];
  height: number;
}

/** Breaks the words of the foot into lines: what is not on the page in ink, the source in soft ink. */
export function footOf(about: string[], source: string[], frame: PageFrame, measure: Measure): Foot {
  const size = frame.smallSize;
  const width = frame.width - 2 * frame.margin;
  const lines = [
    ...measure.wrap('label', size, about.filter(Boolean).join(' · '), width, 3).map((text) => ({ text, strong: true })),
    ...measure
      .wrap('label', size, source.filter(Boolean).join(' · '), width, 2)
      .map((text) => ({ text, strong: false })),
  ];
  return { lines, height: lines.length * size * 1.4 };
}

/** The foot at the bottom of the page. */
export function footNodes(foot: Foot, frame: PageFrame): SceneNode[] {
  const size = frame.smallSize;
  return foot.lines.map(
    ({ text, strong }, k): SceneNode => ({
      type: 'text',
      x: frame.margin,
      y: round(frame.height - frame.margin - (foot.lines.length - 1 - k) * size * 1.4),
      size,
      runs: [{ text, face: 'label', fill: strong ? INK : SOFT_INK }],
      role: 'source',
    }),
  );
}
