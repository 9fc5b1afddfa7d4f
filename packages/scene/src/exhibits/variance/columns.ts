import { INK, SOFT_INK } from '../../graph/ink';
import type { SceneNode } from '../../graph/scene';
import type { Measure } from '../../text/measure';
import { BASE, write } from '../../graph/nodes';

/** A column of texts beside the plot. */
export interface Column {
  title: string;
  align: 'left' | 'right';
  /** What stands in each row, and in which colour. */
  texts: { text: string; fill?: string; strong?: boolean }[];
  /** Takes no more than this share of the page; what is longer is cut with a sign. */
  most?: number;
}

/** Columns with their places on the page. */
export interface LaidColumns {
  right: number;
  shortened: number;
  nodes(row: number, y: number, ref?: string): SceneNode[];
  heads(y: number): SceneNode[];
}

/** Lays columns side by side from the left, each as wide as its longest text. */
export function layColumns(
  columns: readonly Column[],
  size: number,
  left: number,
  page: number,
  measure: Measure,
): LaidColumns {
  const gap = size * 1.5;
  let x = left;
  let shortened = 0;
  const laid = columns.map((c) => {
    const texts = c.texts.map((t) => measure.clean(t.text));
    const title = measure.clean(c.title);
    const widest = texts.reduce(
      (most, t, k) => Math.max(most, measure.width(c.texts[k]!.strong ? 'labelStrong' : 'label', size, t)),
      measure.width('label', size, title),
    );
    const width = Math.min(widest, page * (c.most ?? 1));
    const shown = texts.map((t, k) => {
      const face = c.texts[k]!.strong ? 'labelStrong' : 'label';
      const cut = measure.shorten(face, size, t, width + 0.01);
      if (cut !== t) shortened++;
      return { text: cut, face, fill: c.texts[k]!.fill ?? INK } as const;
    });
    const place = { x, width, align: c.align, title, shown };
    x += width + gap;
    return place;
  });
  const at = (place: (typeof laid)[number], text: string, face: 'label' | 'labelStrong') =>
    place.align === 'left' ? place.x : place.x + place.width - measure.width(face, size, text);
  return {
    right: x,
    shortened,
    nodes: (row, y, ref) =>
      laid.flatMap((p) => {
        const { text, face, fill } = p.shown[row]!;
        return text === '' ? [] : [write(at(p, text, face), y + size * BASE, size, text, fill, 'cell', face, ref)];
      }),
    heads: (y) =>
      laid.flatMap((p) => {
        const text = measure.shorten('label', size, p.title, p.width + 0.01);
        return text === '' ? [] : [write(at(p, text, 'label'), y, size, text, SOFT_INK, 'head')];
      }),
  };
}
