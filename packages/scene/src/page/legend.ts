import { SOFT_INK } from '../graph/ink';
import { round, type SceneNode } from '../graph/scene';
import type { Measure } from '../text/measure';
import type { PageFrame } from './frame';

/** One thing that a legend explains: its title, and how it is drawn around a middle line from x on. */
export interface LegendEntry {
  title: string;
  width: number;
  draw(x: number, y: number): SceneNode[];
}

export interface Legend {
  height: number;
  nodes(top: number): SceneNode[];
}

/** Height of a sample in a legend. */
export const sampleHeight = (frame: PageFrame): number => frame.smallSize * 0.95;

/** Sets entries one after the other in lines as wide as the page. Titles longer than the page are cut. */
export function legendOf(entries: readonly LegendEntry[], frame: PageFrame, measure: Measure): Legend {
  const size = frame.smallSize;
  const lineHeight = size * 1.9;
  const right = frame.width - frame.margin;
  const gap = size * 0.5;
  let x = frame.margin;
  let line = 0;
  const places = entries.map((entry) => {
    const text = measure.shorten('label', size, measure.clean(entry.title), right - frame.margin - entry.width - gap);
    const width = entry.width + gap + measure.width('label', size, text);
    if (x > frame.margin && x + width > right) {
      x = frame.margin;
      line++;
    }
    const place = { entry, text, x, line };
    x += width + size * 1.8;
    return place;
  });
  return {
    height: entries.length === 0 ? 0 : (line + 1) * lineHeight,
    nodes: (top) =>
      places.flatMap((p) => {
        const y = top + (p.line + 0.5) * lineHeight;
        return [
          ...p.entry.draw(p.x, y).map((n): SceneNode => ({ ...n, role: 'legend' })),
          {
            type: 'text',
            x: round(p.x + p.entry.width + gap),
            y: round(y + size * 0.3),
            size,
            runs: [{ text: p.text, face: 'label', fill: SOFT_INK }],
            role: 'legend',
          } as SceneNode,
        ];
      }),
  };
}
