import { HAIRLINE, INK, KELP, PAPER, SOFT_INK } from '../graph/ink';
import { write } from '../graph/nodes';
import { round, type Scene, type SceneNode } from '../graph/scene';
import type { Face } from '../text/faces';
import { frontFit } from './frontFit';
import type { Measure } from '../text/measure';

/** A line of the contents: what it is called, its number, and whether a section begins with it. */
export interface ContentLine {
  section: string;
  name: string;
  /** The number of its page. */
  number: number;
}

/** The cover of a folio: its name, what stands below it, and the contents, each line of which has the reference of its page. */
export function coverScene(
  { name, under, plans }: { name: string; under: string; plans: readonly string[] },
  lines: readonly ContentLine[],
  { width, height }: { width: number; height: number },
  measure: Measure,
): Scene {
  const margin = Math.round(Math.min(width, height) * 0.09);
  const big = Math.round(Math.min(width, height) * 0.075);
  const small = Math.max(9, Math.round(big * 0.42));
  const nodes: SceneNode[] = [];
  const text = (x: number, y: number, size: number, words: string, fill: string, face: Face, ref?: string) =>
    write(x, y, size, words, fill, face === 'title' ? 'title' : 'subtitle', face, ref);
  const column = width * 0.46;
  let y = margin + big;
  for (const line of measure.wrap('title', big, measure.clean(name), column - margin, 4)) {
    nodes.push(text(margin, y, big, line, INK, 'title'));
    y += big * 1.15;
  }
  y += small * 0.4;
  for (const line of measure.wrap(
    'text',
    small,
    measure.clean([under, ...plans].filter(Boolean).join(' · ')),
    column - margin,
    6,
  )) {
    nodes.push(text(margin, y, small, line, SOFT_INK, 'text'));
    y += small * 1.4;
  }
  nodes.push({
    type: 'rect',
    x: margin,
    y: round(height - margin - 3),
    width: round(width * 0.12),
    height: 3,
    fill: KELP,
    role: 'band',
  });
  // The contents, in as large a type as they have room for.
  const rows = lines.reduce((n, l) => n + (l.section === '' ? 1 : 2.2), 0);
  const size = Math.max(6.5, Math.min(small * 1.1, (height - 2 * margin) / Math.max(1, rows) / 1.75));
  const left = column + margin * 0.5;
  const right = width - margin;
  let at = margin + size;
  for (const line of lines) {
    if (line.section !== '') {
      at += size * 0.6;
      nodes.push(
        text(
          left,
          at,
          size,
          measure.shorten('labelStrong', size, measure.clean(line.section), right - left),
          SOFT_INK,
          'labelStrong',
        ),
      );
      at += size * 1.6;
    }
    const number = String(line.number);
    const ref = `page ${line.number}`;
    const numberAt = right - measure.width('label', size, number);
    nodes.push(
      text(
        left,
        at,
        size,
        measure.shorten('label', size, measure.clean(line.name), numberAt - left - size),
        INK,
        'label',
        ref,
      ),
      text(numberAt, at, size, number, SOFT_INK, 'label', ref),
      {
        type: 'line',
        x1: round(left),
        y1: round(at + size * 0.55),
        x2: round(right),
        y2: round(at + size * 0.55),
        stroke: HAIRLINE,
        strokeWidth: 0.5,
        role: 'grid',
      },
    );
    at += size * 1.75;
    if (at > height - margin) break;
  }
  return {
    width,
    height,
    title: name,
    description: `The cover of ${name}, with ${lines.length} pages.`,
    language: 'en',
    paper: PAPER,
    nodes,
    content: {
      heads: ['Page', 'Number'],
      named: 0,
      rows: lines.map((l) => ({ ref: null, cells: [l.name, String(l.number)], values: [null, { number: l.number }] })),
    },
    undated: [],
    fit: frontFit(size, lines.length),
    blind: null,
  };
}
