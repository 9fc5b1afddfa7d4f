import { endOfDay, startOfDay } from '@clembo/core';
import { packRows } from '../rows/pack';
import type { Measure } from '../text/measure';
import { LISTED } from './blocks/facts';
import { CAPTION, type SmallPage } from './blocks/page';
import type { PlanFacts } from './facts';
import type { Block } from './folio';
import type { Box } from './places';

/** The paper of an overview, and its type size where that does not follow from it. Points. */
export interface OverviewSize {
  width: number;
  height: number;
  type?: number;
}

/** What an overview can be made of. */
export interface OverviewOf {
  plans: readonly PlanFacts[];
  pages: readonly SmallPage[];
}

/** The type size of an overview, and the paper that its blocks share, below the name. */
export function fieldOf({ width, height, type }: OverviewSize): Box & { type: number; margin: number; big: number } {
  const size = type ?? Math.max(7, Math.round(Math.min(width, height) / 62));
  const margin = Math.max(size * 1.6, Math.round(Math.min(width, height) * 0.055));
  const big = size * (type === undefined ? 2.2 : 1.65);
  const top = margin + big * 1.25 + size;
  return { type: size, margin, big, x: margin, y: top, width: width - 2 * margin, height: height - margin - top };
}

/** Between blocks, in type sizes. */
const GAP = 1.4;

/** The heights that blocks would have, in type sizes. */
const factsOf = (p: PlanFacts): number => LISTED.plan + LISTED.fact * p.facts.length;
function factsHeight(plans: readonly PlanFacts[], columns: number): number {
  if (plans.every((p) => p.facts.length === 0)) return 0;
  if (plans.length === 1) return 5.1 * Math.ceil(plans[0]!.facts.length / columns);
  return columns > 1 ? 1.6 + 1.9 * plans.length : plans.reduce((sum, p) => sum + factsOf(p), 0);
}

function phasesHeight(plans: readonly PlanFacts[]): number {
  const own = plans.filter((p) => p.phases.length > 0);
  if (own.length === 0) return 0;
  const rows = own.reduce(
    (sum, { phases }) =>
      sum +
      packRows(
        Float64Array.from(phases, (p) => startOfDay(p.first) / 1440),
        Float64Array.from(phases, (p) => endOfDay(p.last) / 1440),
      ).rows,
    0,
  );
  return 4.6 + 2.1 * rows + (own.length > 1 ? 0.35 * own.length : 0) + 1.8;
}

/** What plans and pages suggest: how the plans stand, their phases, and all pages as large as they have room. */
export function suggestedBlocks({ plans, pages }: OverviewOf, size: OverviewSize): Block[] {
  const field = fieldOf(size);
  const gap = (GAP * field.type) / field.height;
  const blocks: Block[] = [];
  let y = 0;
  const across = (high: number, most: number, block: { what: 'facts' | 'phases' }) => {
    if (high === 0) return;
    const height = Math.min(most, (high * field.type) / field.height);
    blocks.push({ ...block, id: block.what, plan: null, place: { x: 0, y, width: 1, height } });
    y += height + gap;
  };
  across(factsHeight(plans, 4), 0.3, { what: 'facts' });
  across(phasesHeight(plans), 0.4, { what: 'phases' });
  if (pages.length === 0) return blocks;
  const rest = 1 - y;
  // As many columns as make the small pages largest.
  const [wide, high] = [field.width, field.height * rest];
  const step = GAP * field.type;
  const { width, height } = pages[0]!;
  let best = { columns: 1, rows: pages.length, by: 0 };
  for (let columns = 1; columns <= pages.length; columns++) {
    const rows = Math.ceil(pages.length / columns);
    const by = Math.min(
      (wide - step * (columns - 1)) / columns / width,
      ((high - step * (rows - 1)) / rows - CAPTION * field.type) / height,
    );
    if (by > best.by) best = { columns, rows, by };
  }
  const cell = {
    width: (wide - step * (best.columns - 1)) / best.columns / field.width,
    height: (high - step * (best.rows - 1)) / best.rows / field.height,
  };
  const across1 = cell.width + step / field.width;
  pages.forEach((p, k) =>
    blocks.push({
      id: p.id,
      what: 'page',
      page: p.id,
      place: {
        x: (k % best.columns) * across1,
        y: y + Math.floor(k / best.columns) * (cell.height + gap),
        ...cell,
      },
    }),
  );
  return blocks.map((b) => ({ ...b, place: within(b.place) }));
}

/** A place without what arithmetic has put beyond the field. */
const within = (p: Block['place']): Block['place'] => {
  const cut = (v: number, most = 1) => Math.max(0, Math.min(most, v));
  const [x, y] = [cut(p.x), cut(p.y)];
  return { x, y, width: cut(p.width, 1 - x), height: cut(p.height, 1 - y) };
};

/** The same blocks below each other, in the order in which they are read, for a narrow screen; as high as they need. */
export function stackedBlocks(
  blocks: readonly Block[],
  { plans, pages }: OverviewOf,
  width: number,
  type: number,
  measure: Measure,
): { blocks: Block[]; size: OverviewSize } {
  const field = fieldOf({ width, height: 1000, type });
  const own = (plan: string | null) => (plan === null ? plans : plans.filter((p) => p.id === plan));
  const heightOf = (b: Block): number => {
    switch (b.what) {
      case 'facts':
        return factsHeight(own(b.plan), 1) * type;
      case 'phases':
        return own(b.plan).reduce((sum, p) => sum + 2.1 * p.phases.length, 7) * type;
      case 'text':
        return (
          b.text
            .split('\n')
            .reduce((n, p) => n + measure.wrap('text', type * 1.25, measure.clean(p), field.width, 200).length, 0.6) *
          type *
          1.25 *
          1.4
        );
      case 'page': {
        const page = pages.find((p) => p.id === b.page);
        return page ? (field.width * page.height) / page.width + CAPTION * type : 2 * type;
      }
    }
  };
  const ordered = [...blocks].sort((a, b) => a.place.y - b.place.y || a.place.x - b.place.x);
  const heights = ordered.map((b) => heightOf(b) + GAP * type);
  const whole = heights.reduce((a, b) => a + b, 0);
  let y = 0;
  return {
    size: { width, type, height: field.y + whole + field.margin },
    blocks: ordered.map((b, k) => {
      const place = within({ x: 0, y: y / whole, width: 1, height: (heights[k]! - GAP * type) / whole });
      y += heights[k]!;
      return { ...b, place };
    }),
  };
}
