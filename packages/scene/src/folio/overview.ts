import { HAIRLINE, INK, MADDER, PAPER, SOFT_INK } from '../graph/ink';
import { scaled } from '../graph/scaled';
import { round, type Scene, type SceneNode } from '../graph/scene';
import { write } from '../graph/nodes';
import type { Face } from '../text/faces';
import { frontFit } from './frontFit';
import type { Measure } from '../text/measure';
import type { PlanFacts } from './facts';

/** A page to be shown small. */
export interface SmallPage {
  name: string;
  number: number;
  scene: Scene;
}

/**
 * All pages of a folio on one: each small and as it is, with its name and number, and above them how the plans stand.
 * What stands for a page has the reference `page N`.
 */
export function overviewScene(
  name: string,
  plans: readonly PlanFacts[],
  pages: readonly SmallPage[],
  { width, height }: { width: number; height: number },
  measure: Measure,
): Scene {
  const margin = Math.round(Math.min(width, height) * 0.055);
  const size = Math.max(7, Math.round(Math.min(width, height) / 62));
  const big = size * 2.2;
  const text = (x: number, y: number, s: number, words: string, fill: string, face: Face, ref?: string) =>
    write(x, y, s, words, fill, face === 'title' ? 'title' : 'label', face, ref);
  const nodes: SceneNode[] = [
    text(
      margin,
      margin + big * 0.8,
      big,
      measure.shorten('title', big, measure.clean(name), width - 2 * margin),
      INK,
      'title',
    ),
  ];
  let y = margin + big * 1.25;
  for (const { plan, facts } of plans) {
    y += size * 1.7;
    nodes.push(
      text(
        margin,
        y,
        size * 1.1,
        measure.shorten('labelStrong', size * 1.1, measure.clean(plan), width * 0.2),
        INK,
        'labelStrong',
      ),
    );
    const room = (width - margin - (margin + width * 0.22)) / 4;
    facts.slice(0, 4).forEach((f, k) => {
      const x = margin + width * 0.22 + k * room;
      const label = `${f.name}  `;
      nodes.push(
        text(x, y, size, label, SOFT_INK, 'label'),
        text(
          x + measure.width('label', size, label),
          y,
          size,
          measure.shorten(
            'labelStrong',
            size,
            measure.clean(f.value),
            room - size - measure.width('label', size, label),
          ),
          f.late ? MADDER : INK,
          'labelStrong',
        ),
      );
    });
  }
  const top = y + size * 1.6;
  const caption = size * 2;
  const gap = size * 1.4;
  const [wide, high] = [width - 2 * margin, height - margin - top];
  // As many columns as make the small pages largest.
  let best = { columns: 1, by: 0 };
  for (let columns = 1; columns <= pages.length; columns++) {
    const rows = Math.ceil(pages.length / columns);
    const by = Math.min(
      (wide - gap * (columns - 1)) / columns / width,
      ((high - gap * (rows - 1)) / rows - caption) / height,
    );
    if (by > best.by) best = { columns, by };
  }
  const [cellWide, cellHigh] = [width * best.by, height * best.by];
  pages.forEach((p, k) => {
    const x = margin + (k % best.columns) * ((wide + gap) / best.columns);
    const at = top + Math.floor(k / best.columns) * (cellHigh + caption + gap);
    const by = Math.min(cellWide / p.scene.width, cellHigh / p.scene.height);
    const ref = `page ${p.number}`;
    const [w, h] = [p.scene.width * by, p.scene.height * by];
    nodes.push({
      type: 'group',
      role: 'item',
      ref,
      name: p.name,
      alt: `page ${p.number}, small`,
      clip: { x: round(x), y: round(at), width: round(w), height: round(h) },
      children: [
        { type: 'rect', x: round(x), y: round(at), width: round(w), height: round(h), fill: PAPER, ref, role: 'cell' },
        // What is within belongs to the small page as a whole: its own references stay behind.
        ...p.scene.nodes.map((n) => bare(scaled(n, by, x, at))),
      ],
    });
    nodes.push(
      {
        type: 'rect',
        x: round(x),
        y: round(at),
        width: round(w),
        height: round(h),
        fill: PAPER,
        opacity: 0,
        stroke: HAIRLINE,
        strokeWidth: 0.6,
        role: 'cell',
      },
      text(
        x,
        at + h + size * 1.3,
        size,
        `${p.number}  ${measure.shorten('label', size, measure.clean(p.name), w - size * 2)}`,
        INK,
        'label',
        ref,
      ),
    );
  });
  return {
    width,
    height,
    title: name,
    description: `All ${pages.length} pages of ${name}, small.`,
    language: 'en',
    paper: PAPER,
    nodes,
    content: {
      heads: ['Plan', 'What', 'How it stands'],
      named: 0,
      rows: plans.flatMap((p) =>
        p.facts.map((f) => ({ ref: null, cells: [p.plan, f.name, f.value], values: [null, null, null] })),
      ),
    },
    undated: [],
    fit: frontFit(size, pages.length),
    blind: null,
  };
}

/** A node without references and roles of its own. */
function bare(node: SceneNode): SceneNode {
  const { ref: _, role: __, ...rest } = node as SceneNode & { ref?: string; role?: string };
  const made = rest as SceneNode;
  return made.type === 'group' ? { ...made, children: made.children.map(bare) } : made;
}
