import { INK, SOFT_INK } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import type { Measure } from '../text/measure';
import type { PageFrame } from './frame';

/** The lines at the foot: what is shown and what is not, and where the data is from. */
export interface Foot {
  lines: { text: string; strong: boolean }[];
  /** The number of the page, at the right of the last line. */
  number: string;
  height: number;
}

const MOST_NOTES = 5;

/** Breaks the words of the foot into lines: what is not on the page in ink, the source in soft ink. */
export function footOf(
  about: string[],
  source: string[],
  frame: PageFrame,
  measure: Measure,
  more: { notes?: string; number?: string } = {},
): Foot {
  const size = frame.smallSize;
  const width = frame.width - 2 * frame.margin;
  const number = more.number ?? '';
  const beside = number === '' ? 0 : measure.width('label', size, number) + size * 2;
  const notes = measure.clean(more.notes ?? '');
  const lines = [
    ...measure.wrap('label', size, notes, width, MOST_NOTES).map((text) => ({ text, strong: true })),
    ...measure.wrap('label', size, about.filter(Boolean).join(' · '), width, 3).map((text) => ({ text, strong: true })),
    ...measure
      .wrap('label', size, source.filter(Boolean).join(' · '), width - beside, 2)
      .map((text) => ({ text, strong: false })),
  ];
  return { lines, number, height: lines.length * size * 1.4 };
}

/** The foot at the bottom of the page. */
export function footNodes(foot: Foot, frame: PageFrame, measure: Measure): SceneNode[] {
  const size = frame.smallSize;
  const line = (text: string, x: number, k: number, strong: boolean): SceneNode => ({
    type: 'text',
    x: round(x),
    y: round(frame.height - frame.margin - (foot.lines.length - 1 - k) * size * 1.4),
    size,
    runs: [{ text, face: 'label', fill: strong ? INK : SOFT_INK }],
    role: 'source',
  });
  const nodes = foot.lines.map(({ text, strong }, k) => line(text, frame.margin, k, strong));
  if (foot.number === '') return nodes;
  const right = frame.width - frame.margin - measure.width('label', size, foot.number);
  return [...nodes, line(foot.number, right, foot.lines.length - 1, false)];
}
