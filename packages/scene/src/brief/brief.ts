import { MomentValue } from '@clembo/core';
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

/** Activities that are left in or out by the value of a code field. */
export const Filter = z.object({
  field: z.string().min(1).max(100),
  /** Keep only these values, or leave these out. */
  keep: z.enum(['only', 'without']),
  /** An empty text stands for "no value". */
  values: z.array(z.string().max(300)).min(1).max(10_000),
});
export type Filter = z.infer<typeof Filter>;

export const LABEL_PARTS = ['name', 'start', 'finish', 'reference', 'duration', 'percent', 'off'] as const;
export type LabelPart = (typeof LABEL_PARTS)[number];

/** The oldest edition that was kept: what was promised. */
export const PROMISED = 'promised';
/** How deep lanes nest at the most. */
export const MOST_LANE_LEVELS = 4;

/**
 * What a timeline shows. The page is composed from this, the plan and its schedule, and from nothing else.
 */
export const TimelineBrief = z.object({
  kind: z.literal('timeline'),
  /** The message of the page; null lets Clembo state what the dates say. */
  title: z.string().max(300).nullable().default(null),
  include: z.enum(['both', 'activities', 'milestones']).default('both'),
  /** Deepest outline level that is shown; what lies deeper is drawn as its summary. Null shows all. */
  level: z.int().min(1).max(50).nullable().default(null),
  where: z.array(Filter).max(20).default([]),
  /** What lanes are made of, outermost first: ids of code fields, or `outline` for the top level of the outline. */
  lanes: z
    .preprocess(
      (said) => (said === null ? [] : typeof said === 'string' ? [said] : said),
      z.array(z.string().min(1).max(100)).max(MOST_LANE_LEVELS),
    )
    .default([]),
  rows: z.enum(['each', 'packed']).default('packed'),
  /** Id of the code field that gives the colours, or null for one colour. */
  colour: z.string().max(100).nullable().default(null),
  labels: z.array(z.enum(LABEL_PARTS)).max(LABEL_PARTS.length).default(['name', 'finish']),
  /** The edition that is compared with: `promised` for the oldest that was kept, the id of another, or null. */
  compare: z.string().min(1).max(100).nullable().default(null),
  /** Whether periods that the plan knows (closures, seasons) are shaded. */
  periods: z.boolean().default(true),
  from: MomentValue.nullable().default(null),
  to: MomentValue.nullable().default(null),
  page: z.enum(PAGE_NAMES).default('A4 landscape'),
  /** In colour, or in grey with a pattern for every category. */
  print: z.enum(['colour', 'grey']).default('colour'),
});
export type TimelineBrief = z.infer<typeof TimelineBrief>;

/** A brief with every part at its default. */
export const defaultTimelineBrief = (): TimelineBrief => TimelineBrief.parse({ kind: 'timeline' });
