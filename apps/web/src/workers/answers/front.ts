import {
  coverScene,
  fieldOf,
  type Measure,
  overviewScene,
  type OverviewSize,
  type PlanFacts,
  type Scene,
  stackedBlocks,
  suggestedBlocks,
} from '@clembo/scene';
import type { Block, Folio } from '@clembo/scene/folio';

/** A page of a folio, as its first pages speak of it. */
export interface FrontEntry {
  id: string;
  name: string;
  section: string;
  number: number;
  width: number;
  height: number;
}

/** What the first pages of a folio are made of. */
export interface FrontAsked {
  folio: Pick<Folio, 'name' | 'under' | 'cover' | 'overview' | 'blocks'>;
  plans: PlanFacts[];
  /** The plans of the folio by name, as its cover lists them. */
  names: string[];
  pages: FrontEntry[];
  /** Points; on a screen, pixels. */
  size: OverviewSize;
  /** Blocks below each other in the width of the size, in type of this size, for a narrow screen. */
  stacked: number | null;
}

export interface FrontPicture {
  svg: string;
  width: number;
  height: number;
}

interface Rectangle {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The overview, over whose frames the small pages are laid. */
export interface OverviewPicture extends FrontPicture {
  blocks: { block: Block; box: Rectangle }[];
  frames: { page: string; box: Rectangle }[];
  /** The paper that the blocks share. */
  field: Rectangle;
}

export interface FrontPages {
  cover: FrontPicture | null;
  overview: OverviewPicture | null;
}

/** The cover and the overview of a folio, as far as it has them, by the code that writes them into files. */
export function frontPages(
  { folio, plans, names, pages, size, stacked }: FrontAsked,
  measure: Measure,
  draw: (scene: Scene) => string,
): FrontPages {
  const picture = (scene: Scene): FrontPicture => ({ svg: draw(scene), width: scene.width, height: scene.height });
  const of = { plans, pages: pages.map((p) => ({ ...p, nodes: null })) };
  const overview = (): OverviewPicture => {
    const laid =
      stacked === null
        ? { blocks: folio.blocks, size }
        : stackedBlocks(folio.blocks ?? suggestedBlocks(of, size), of, size.width, stacked, measure);
    const { scene, blocks, frames } = overviewScene(folio.name, laid.blocks, of, laid.size, measure);
    const { x, y, width, height } = fieldOf(laid.size);
    return { ...picture(scene), blocks, frames, field: { x, y, width, height } };
  };
  return {
    cover: folio.cover
      ? picture(coverScene({ name: folio.name, under: folio.under, plans: names }, pages, size, measure))
      : null,
    overview: folio.overview ? overview() : null,
  };
}
