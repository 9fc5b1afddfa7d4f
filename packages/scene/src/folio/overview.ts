import { INK, PAPER } from '../graph/ink';
import { write } from '../graph/nodes';
import type { Scene } from '../graph/scene';
import type { Measure } from '../text/measure';
import type { DrawnBlock } from './blocks/drawn';
import { factsBlock } from './blocks/facts';
import { frameOf, pageBlock } from './blocks/page';
import { phasesBlock } from './blocks/phases';
import { textBlock } from './blocks/text';
import type { Block } from './folio';
import { frontFit } from './frontFit';
import { doneWords } from './phases';
import { fieldOf, type OverviewOf, type OverviewSize, suggestedBlocks } from './layout';
import type { Box } from './places';

export interface Overview {
  scene: Scene;
  /** The blocks as they lie, in points of the page. */
  blocks: { block: Block; box: Box }[];
  /** Where the small pages lie within theirs. */
  frames: { page: string; box: Box }[];
}

/**
 * The overview of a folio: blocks with phases, facts, small pages and text, each leading to the page that it is of.
 * Without blocks of its own it has those that its plans and pages suggest.
 */
export function overviewScene(
  name: string,
  blocks: readonly Block[] | null,
  of: OverviewOf,
  size: OverviewSize,
  measure: Measure,
): Overview {
  const field = fieldOf(size);
  const { width, height } = size;
  const placed = (blocks ?? suggestedBlocks(of, size)).map((block) => {
    const { place } = block;
    const box = {
      x: field.x + place.x * field.width,
      y: field.y + place.y * field.height,
      width: place.width * field.width,
      height: place.height * field.height,
    };
    return { block, box };
  });
  const plansOf = (id: string | null) => (id === null ? of.plans : of.plans.filter((p) => p.id === id));
  const pageOf = (id: string) => of.pages.find((p) => p.id === id) ?? null;
  const drawn = placed.map(({ block, box }): DrawnBlock => {
    switch (block.what) {
      case 'facts':
        return factsBlock(plansOf(block.plan), box, field.type, measure);
      case 'phases':
        return phasesBlock(plansOf(block.plan), box, field.type, measure);
      case 'page':
        return pageBlock(pageOf(block.page), box, field.type, measure);
      case 'text':
        return textBlock(block.text, box, field.type, measure);
    }
  });
  const title = measure.shorten('title', field.big, measure.clean(name), width - 2 * field.margin);
  return {
    scene: {
      width,
      height,
      title: name,
      description: `An overview of ${name}, with ${of.pages.length} ${of.pages.length === 1 ? 'page' : 'pages'}.`,
      language: 'en',
      paper: PAPER,
      nodes: [
        write(field.margin, field.margin + field.big * 0.8, field.big, title, INK, 'title', 'title'),
        ...drawn.flatMap((d) => d.nodes),
      ],
      content: {
        heads: ['Plan', 'What', 'How it stands'],
        named: 0,
        rows: of.plans.flatMap((p) =>
          [...p.facts.map((f) => [f.name, f.value]), ...p.phases.map((f) => [f.name, doneWords(f)])].map(
            ([what, value]) => ({ ref: null, cells: [p.plan, what!, value!], values: [null, null, null] }),
          ),
        ),
      },
      undated: [],
      fit: { ...frontFit(field.type, placed.length), labelsShortened: drawn.reduce((n, d) => n + d.cut, 0) },
      blind: null,
    },
    blocks: placed,
    frames: placed.flatMap(({ block, box }) => {
      const page = block.what === 'page' ? pageOf(block.page) : null;
      return page ? [{ page: page.id, box: frameOf(page, box, field.type) }] : [];
    }),
  };
}
