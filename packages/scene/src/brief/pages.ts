import { z } from 'zod';

/** Pages that an exhibit can be made for: width and height in points, and the least type that reads well there. */
export const PAGES = {
  'A4 landscape': { width: 841.89, height: 595.28, leastType: 6.5 },
  'A4 portrait': { width: 595.28, height: 841.89, leastType: 6.5 },
  'A3 landscape': { width: 1190.55, height: 841.89, leastType: 6.5 },
  'A3 portrait': { width: 841.89, height: 1190.55, leastType: 6.5 },
  'A2 landscape': { width: 1683.78, height: 1190.55, leastType: 6.5 },
  'A2 portrait': { width: 1190.55, height: 1683.78, leastType: 6.5 },
  'A1 landscape': { width: 2383.94, height: 1683.78, leastType: 6.5 },
  'A1 portrait': { width: 1683.78, height: 2383.94, leastType: 6.5 },
  'Letter landscape': { width: 792, height: 612, leastType: 6.5 },
  'Letter portrait': { width: 612, height: 792, leastType: 6.5 },
  'Tabloid landscape': { width: 1224, height: 792, leastType: 6.5 },
  'Tabloid portrait': { width: 792, height: 1224, leastType: 6.5 },
  'wide slide': { width: 960, height: 540, leastType: 9 },
  'square slide': { width: 960, height: 720, leastType: 9 },
} as const;
export type PageName = keyof typeof PAGES;
const PAGE_NAMES = Object.keys(PAGES) as [PageName, ...PageName[]];
export const PageSaid = z.enum(PAGE_NAMES);
export const Page = PageSaid.default('A4 landscape');

/** Pages from small to large, for someone who may use a larger one. */
export const LARGER: Partial<Record<PageName, PageName>> = {
  'A4 landscape': 'A3 landscape',
  'A4 portrait': 'A3 portrait',
  'A3 landscape': 'A1 landscape',
  'A3 portrait': 'A1 portrait',
  'A2 landscape': 'A1 landscape',
  'A2 portrait': 'A1 portrait',
  'Letter landscape': 'Tabloid landscape',
  'Letter portrait': 'Tabloid portrait',
  'Tabloid landscape': 'A1 landscape',
  'Tabloid portrait': 'A1 portrait',
};

/** How a page is spoken of. */
export const pageWords = (page: PageName): string =>
  page === 'wide slide' ? 'a wide slide' : page === 'square slide' ? 'a slide of 4 to 3' : page;

export const isSlide = (page: PageName): boolean => page.endsWith('slide');

/** The sides of a page of one's own size, in millimetres. */
export const LEAST_SIDE = 80;
export const LARGEST_SIDE = 3000;
const Side = z.number().min(LEAST_SIDE).max(LARGEST_SIDE);
export const PageSize = z.object({ width: Side, height: Side });
export type PageSize = z.infer<typeof PageSize>;

export const sizeWords = (size: PageSize | null): string =>
  size === null ? 'a page of a usual size' : `${size.width} by ${size.height} mm`;

const POINTS_PER_MM = 72 / 25.4;

/** Width and height of the page of a brief in points, and the least type that reads well there. */
export function pageSizeOf({ page, size }: { page: PageName; size?: PageSize | null }): {
  width: number;
  height: number;
  leastType: number;
} {
  if (!size) return PAGES[page];
  const points = (mm: number) => Math.round(mm * POINTS_PER_MM * 100) / 100;
  return { width: points(size.width), height: points(size.height), leastType: PAGES[page].leastType };
}

/** In colour, or in grey with a pattern for every category. */
export const Print = z.enum(['colour', 'grey']).default('colour');
