import { HAIRLINE, INK, PAPER, SOFT_INK } from '../../graph/ink';
import { write } from '../../graph/nodes';
import { scaled } from '../../graph/scaled';
import { round, type SceneNode } from '../../graph/scene';
import type { Measure } from '../../text/measure';
import type { Box } from '../places';
import type { DrawnBlock } from './drawn';

/** A page that is shown small; its drawing is null where whoever shows it lays it over the empty frame. */
export interface SmallPage {
  id: string;
  name: string;
  number: number;
  width: number;
  height: number;
  nodes: readonly SceneNode[] | null;
}

/** The reference of what stands for a page. */
export const pageRef = (number: number): string => `page ${number}`;

/** The height of the line below a small page, in type sizes. */
export const CAPTION = 2;

/** Where a small page lies within its block: as large as has room above its name. */
export function frameOf({ width, height }: Pick<SmallPage, 'width' | 'height'>, box: Box, size: number): Box {
  const by = Math.max(0.01, Math.min(box.width / width, (box.height - size * CAPTION) / height));
  return { x: round(box.x), y: round(box.y), width: round(width * by), height: round(height * by) };
}

/** A page small and as it is, with its number and name below. */
export function pageBlock(page: SmallPage | null, box: Box, size: number, measure: Measure): DrawnBlock {
  if (page === null)
    return {
      nodes: [write(box.x, box.y + size, size, 'This page is not in the folio any more.', SOFT_INK, 'notice')],
      cut: 0,
    };
  const frame = frameOf(page, box, size);
  const ref = pageRef(page.number);
  const by = frame.width / page.width;
  const number = `${page.number}  `;
  const name = measure.clean(page.name);
  const shown = measure.shorten('label', size, name, box.width - measure.width('label', size, number));
  return {
    nodes: [
      {
        type: 'group',
        role: 'item',
        ref,
        name: page.name,
        alt: `page ${page.number}, small`,
        clip: frame,
        children: [
          { type: 'rect', ...frame, fill: PAPER, ref, role: 'cell' },
          // What is within belongs to the small page as a whole: its own references stay behind.
          ...(page.nodes ?? []).map((n) => bare(scaled(n, by, frame.x, frame.y))),
        ],
      },
      { type: 'rect', ...frame, fill: PAPER, opacity: 0, stroke: HAIRLINE, strokeWidth: 0.6, role: 'cell' },
      write(box.x, frame.y + frame.height + size * 1.3, size, number + shown, INK, 'label', 'label', ref),
    ],
    cut: shown === name ? 0 : 1,
  };
}

/** A node without references and roles of its own. */
function bare(node: SceneNode): SceneNode {
  const { ref: _, role: __, ...rest } = node as SceneNode & { ref?: string; role?: string };
  const made = rest as SceneNode;
  return made.type === 'group' ? { ...made, children: made.children.map(bare) } : made;
}
