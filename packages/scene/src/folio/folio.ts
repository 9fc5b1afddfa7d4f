import { Condition, MomentValue } from '@clembo/core';
import { z } from 'zod';

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
});
export type FolioPage = z.infer<typeof FolioPage>;

/** So many pages are in one folio. */
export const MOST_FOLIO_PAGES = 100;

/** An ordered set of exhibits for an audience. */
export const Folio = z.object({
  name: z.string().trim().min(1).max(200),
  /** What stands below the name on the cover. */
  under: z.string().max(500).default(''),
  cover: z.boolean().default(true),
  /** A page with all pages small, each of which leads to itself, and how the plans stand. */
  overview: z.boolean().default(false),
  pages: z.array(FolioPage).max(MOST_FOLIO_PAGES).default([]),
  hops: z.array(Hop).max(1000).default([]),
});
export type Folio = z.infer<typeof Folio>;

/** The id of the cover, as hops name it. */
export const COVER = 'cover';
/** The id of the page with all pages small. */
export const OVERVIEW = 'overview';

/** A brief as a page of a folio shows it: with the range and the filter that the page has of its own. */
export function asShown<B extends object>(brief: B, { from, to, where }: Pick<FolioPage, 'from' | 'to' | 'where'>): B {
  return {
    ...brief,
    ...(from !== null && 'from' in brief ? { from } : {}),
    ...(to !== null && 'to' in brief ? { to } : {}),
    ...(where !== null && 'where' in brief ? { where } : {}),
  };
}
