import { z } from 'zod';
import { LANGUAGE_CODES } from '../text/languages/language';
import { Picture } from './parts';
import { Page, PageSaid } from './pages';
import { Brief } from './kinds';

/** How the pages of a house begin, where nobody says otherwise; null for what the house leaves open. */
export const House = z.object({
  page: PageSaid.nullable().default(null),
  language: z.enum(LANGUAGE_CODES).nullable().default(null),
  /** The month in which fiscal years begin, 1 to 12. */
  fiscal: z.int().min(1).max(12).nullable().default(null),
  logo: Picture.nullable().default(null),
});
export type House = z.infer<typeof House>;

const USUAL = Page.parse(undefined);

/**
 * A new page as the house would have it: the language, the fiscal year and the logo where its kind has them, and its
 * size of page where the brief asks for no other than the usual one.
 */
export function inHouse<B extends Brief>(brief: B, { page, language, fiscal, logo }: House): B {
  const wanted = { ...(brief.page === USUAL && { page }), language, fiscal, logo };
  const parts = Object.entries(wanted).filter(
    ([part, value]) => value !== null && value !== undefined && part in brief,
  );
  return Brief.parse({ ...brief, ...Object.fromEntries(parts) }) as B;
}
