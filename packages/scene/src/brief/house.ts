import { z } from 'zod';
import { LANGUAGE_CODES } from '../text/languages/language';
import { Picture } from './parts';
import { Page, PageSaid } from './pages';
import { Palette } from './palette';
import { Brief } from './kinds';

/** How the pages of a house begin, where nobody says otherwise; null for what the house leaves open. */
export const House = z.object({
  page: PageSaid.nullable().default(null),
  language: z.enum(LANGUAGE_CODES).nullable().default(null),
  /** The month in which fiscal years begin, 1 to 12. */
  fiscal: z.int().min(1).max(12).nullable().default(null),
  logo: Picture.nullable().default(null),
  /** Colours of categories instead of the usual ones. */
  colours: Palette,
  /** What money is in where a new plan does not say it (ISO 4217). */
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/)
    .nullable()
    .default(null),
});
export type House = z.infer<typeof House>;

/** A new plan in the currency of the house, where nothing says another one. */
export const inCurrency = <P extends { currency: string | null }>(plan: P, { currency }: House): P =>
  plan.currency === null && currency !== null ? { ...plan, currency } : plan;

const USUAL = Page.parse(undefined);

/**
 * A new page as the house would have it: the language, the fiscal year, the logo and the colours where its kind has
 * them, and its size of page where the brief asks for no other than the usual one.
 */
export function inHouse<B extends Brief>(brief: B, { page, language, fiscal, logo, colours }: House): B {
  const palette = colours.length > 0 ? colours : null;
  const wanted = { ...(brief.page === USUAL && { page }), language, fiscal, logo, palette };
  const parts = Object.entries(wanted).filter(
    ([part, value]) => value !== null && value !== undefined && part in brief,
  );
  return Brief.parse({ ...brief, ...Object.fromEntries(parts) }) as B;
}
