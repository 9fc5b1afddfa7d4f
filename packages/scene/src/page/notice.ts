import { INK } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import type { Measure } from '../text/measure';
import type { PageFrame } from './frame';

/** A sentence in the place of a body that cannot be drawn, in the middle between two heights. */
export function noticeLines(
  words: string,
  frame: PageFrame,
  measure: Measure,
  top: number,
  bottom: number,
): SceneNode[] {
  const size = frame.subtitleSize * 1.5;
  const lines = measure.wrap('text', size, words, (frame.width - 2 * frame.margin) * 0.7, 8);
  const first = (top + bottom) / 2 - (lines.length * size * 1.4) / 2;
  return lines.map(
    (text, k): SceneNode => ({
      type: 'text',
      x: round((frame.width - measure.width('text', size, text)) / 2),
      y: round(first + k * size * 1.4),
      size,
      runs: [{ text, face: 'text', fill: INK }],
      role: 'notice',
    }),
  );
}
