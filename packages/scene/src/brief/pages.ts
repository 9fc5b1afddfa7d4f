import { z } from 'zod';

/** Pages that an exhibit can be made for: width and height in points, and the least type that reads well there. */
export const PAGES = {
  'A4 landscape': { width: 841.89, height: 595.28, leastType: 6.5 },
  'A4 portrait': { width: 595.28, height: 841.89, leastType: 6.5 },
  'A3 landscape': { width: 1190.55, height: 841.89, leastType: 6.5 },
  'A3 portrait': { width: 841.89, height: 1190.55, leastType: 6.5 },
  'A1 landscape': { width: 2383.94, height: 1683.78, leastType: 6.5 },
  'Letter landscape': { width: 792, height: 612, leastType: 6.5 },
  'Tabloid landscape': { width: 1224, height: 792, leastType: 6.5 },
  'wide slide': { width: 960, height: 540, leastType: 9 },
} as const;
export type PageName = keyof typeof PAGES;
const PAGE_NAMES = Object.keys(PAGES) as [PageName, ...PageName[]];
export const Page = z.enum(PAGE_NAMES).default('A4 landscape');

/** Pages from small to large, for someone who may use a larger one. */
export const LARGER: Partial<Record<PageName, PageName>> = {
  'A4 landscape': 'A3 landscape',
  'A4 portrait': 'A3 portrait',
  'A3 landscape': 'A1 landscape',
  'A3 portrait': 'A1 landscape',
  'Letter landscape': 'Tabloid landscape',
  'Tabloid landscape': 'A1 landscape',
};

/** In colour, or in grey with a pattern for every category. */
export const Print = z.enum(['colour', 'grey']).default('colour');
