import { Condition, MomentValue } from '@clembo/core';
import { z } from 'zod';
import type { Brief } from '../brief/kinds';

const Id = z.string().min(1).max(100);
const Share = z.number().min(0).max(1);

/** A rectangle of a page, in shares of its width and height from its left upper corner. */
export const PageBox = z.object({ x: Share, y: Share, width: Share, height: Share });
export type PageBox = z.infer<typeof PageBox>;

/** Something on a page: what has a reference there, or a rectangle; or all of the page where neither is said. */
export const Place = z.object({
  page: Id,
  ref: z.string().min(1).max(300).nullable().default(null),
  box: PageBox.nullable().default(null),
});
export type Place = z.infer<typeof Place>;

/** From a place on one page to another page, or to a place on it, enlarged. */
export const Hop = z.object({ id: Id, from: Place, to: Place });
export type Hop = z.infer<typeof Hop>;

/** An exhibit as it is shown to an audience. */
export const FolioPage = z.object({
  id: Id,
  exhibit: z.uuid(),
  /** The section that begins with it; an empty text for none. */
  section: z.string().max(200).default(''),
  /** For whoever presents it. */
  notes: z.string().max(10_000).default(''),
  /** Another range or filter than the exhibit's own, where its brief has one; null leaves it as it is. */
  from: MomentValue.nullable().default(null),
  to: MomentValue.nullable().default(null),
  where: Condition.nullable().default(null),
  /** What it is grouped by here, a field of its plan. */
  group: z.string().min(1).max(100).nullable().default(null),
});
export type FolioPage = z.infer<typeof FolioPage>;

const placed = { id: Id, place: PageBox };
const ofPlan = { plan: z.string().min(1).max(100).nullable().default(null) };

/**
 * Something on the overview; its place is in shares of the paper that is left below the name. What is of a plan is of
 * all plans of the folio where none is named.
 */
export const Block = z.discriminatedUnion('what', [
  z.object({ ...placed, what: z.literal('phases'), ...ofPlan }),
  z.object({ ...placed, what: z.literal('facts'), ...ofPlan }),
  z.object({ ...placed, what: z.literal('page'), page: Id }),
  z.object({ ...placed, what: z.literal('text'), text: z.string().max(2000) }),
]);
export type Block = z.infer<typeof Block>;

/** So many blocks are on one overview. */
export const MOST_BLOCKS = 120;

/** So many pages are in one folio. */
export const MOST_FOLIO_PAGES = 100;

/** An ordered set of exhibits for an audience. */
export const Folio = z.object({
  name: z.string().trim().min(1).max(200),
  /** What stands below the name on the cover. */
  under: z.string().max(500).default(''),
  cover: z.boolean().default(true),
  /** A page of blocks that lead to the others: phases, facts, small pages, text. */
  overview: z.boolean().default(false),
  /** The blocks as they were put by hand; null for those that pages and plans suggest. */
  blocks: z.array(Block).max(MOST_BLOCKS).nullable().default(null),
  pages: z.array(FolioPage).max(MOST_FOLIO_PAGES).default([]),
  hops: z.array(Hop).max(1000).default([]),
});
export type Folio = z.infer<typeof Folio>;

/** The id of the cover, as hops name it. */
export const COVER = 'cover';
/** The id of the page with all pages small. */
export const OVERVIEW = 'overview';

/** How many pages stand before those of the folio. */
export const frontCount = ({ cover, overview }: Pick<Folio, 'cover' | 'overview'>): number =>
  (cover ? 1 : 0) + (overview ? 1 : 0);

type Own = Pick<FolioPage, 'from' | 'to' | 'where' | 'group'>;

/** A brief as a page of a folio shows it: with the range, the filter and the grouping that the page has of its own. */
export function asShown(brief: Brief, { from, to, where, group }: Own): Brief {
  return {
    ...brief,
    ...(from !== null && 'from' in brief ? { from } : {}),
    ...(to !== null && 'to' in brief ? { to } : {}),
    ...(where !== null && 'where' in brief ? { where } : {}),
    ...(group === null ? {} : groupedBy(brief, group)),
  } as Brief;
}

/** Whether the pages of a brief can be grouped by a field that is asked of them. */
export const canGroup = (brief: Brief): boolean => Object.keys(groupedBy(brief, 'outline')).length > 0;

/** The part of a brief that says what it is grouped by. */
function groupedBy(brief: Brief, field: string): object {
  switch (brief.kind) {
    case 'timeline':
      return { lanes: [field] };
    case 'network':
    case 'handoffs':
      return { lanes: field };
    case 'snapshot':
      return { by: field };
    default:
      return {};
  }
}
