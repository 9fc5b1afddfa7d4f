import { MomentValue } from '@clembo/core';
import { z } from 'zod';
import { LANGUAGE_CODES } from '../text/languages/language';
import { Where } from './filter';
import { Page, PageSize, Print } from './pages';
import { Palette } from './palette';
import { TELLS } from './tells';
import { byHand } from './hand';
import { NamedDate, Picture } from './parts';

export const LABEL_PARTS = ['name', 'start', 'finish', 'reference', 'duration', 'daysDone', 'percent', 'off'] as const;
export type LabelPart = (typeof LABEL_PARTS)[number];

/** Units of the tiers of a time scale, from coarse to fine. */
export const SCALE_UNITS = [
  'year',
  'fiscalYear',
  'quarter',
  'fiscalQuarter',
  'month',
  'week',
  'weekDate',
  'day',
] as const;

export const ONLY = ['all', 'critical', 'late', 'ahead', 'beyond', 'open', 'next', 'changed'] as const;
export type Only = (typeof ONLY)[number];

/** So many columns stand beside the rows at the most. */
export const MOST_COLUMNS = 12;

/** How deep lanes nest at the most. */
export const MOST_LANE_LEVELS = 4;

/**
 * What a timeline shows. The page is composed from this, the plan and its schedule, and from nothing else.
 */
export const TimelineBrief = z.object({
  kind: z.literal('timeline'),
  /** The message of the page; null lets Clembo state what the dates say. */
  title: z.string().max(300).nullable().default(null),
  /** The question that its message answers; `shown` for the one that its choice of rows asks. */
  tells: z.enum(['shown', ...TELLS]).default('shown'),
  include: z.enum(['both', 'activities', 'milestones']).default('both'),
  /** Deepest outline level that is shown; what lies deeper is drawn as its summary. Null shows all. */
  level: z.int().min(1).max(50).nullable().default(null),
  /** The code field whose values are one bar each, for all the work that has them; null draws every activity. */
  together: z.string().min(1).max(100).nullable().default(null),
  /** Only what meets it, of any depth. */
  where: Where.default({ match: 'all', tests: [] }),
  /** Only what stands in some way: critical, late, ahead or beyond tolerance against the edition compared with, open,
   * due within the next weeks from the status date, or moved or new since the edition compared with. */
  only: z.enum(ONLY).default('all'),
  /** How far the next weeks reach. */
  weeks: z.int().min(1).max(260).default(6),
  /** What lanes are made of, outermost first: ids of code fields, or `outline` for the top level of the outline. */
  lanes: z
    .preprocess(
      (said) => (said === null ? [] : typeof said === 'string' ? [said] : said),
      z.array(z.string().min(1).max(100)).max(MOST_LANE_LEVELS),
    )
    .default([]),
  /** In which order lanes stand: that of the code book, of their first dates, or of their titles. */
  laneOrder: z.enum(['book', 'time', 'name']).default('book'),
  /** Lanes of the outermost field that come first, in this order; the others follow. */
  laneFirst: z.array(z.string().max(300)).max(100).default([]),
  /** Whether values of the book that nothing on the page has are lanes too. */
  emptyLanes: z.boolean().default(false),
  /** Whether titles of the outermost lanes are turned to run upwards. */
  laneTitles: z.enum(['level', 'turned']).default('level'),
  /** Whether what has no value of the fields of the lanes has a lane too. */
  strays: z.boolean().default(true),
  /** One activity a row; side by side in as few rows as fit; or, points in time strung on one line per lane. */
  rows: z.enum(['each', 'packed', 'strand']).default('packed'),
  /** The code field whose values have rows of their own, so that what belongs together stands in one row. */
  packBy: z.string().min(1).max(100).nullable().default(null),
  /** Whether what overlaps in time goes to further rows, or may stand over each other on one line. */
  overlaps: z.enum(['staggered', 'allowed']).default('staggered'),
  /** Points in time stand among the rows, on one line above the bars of their lane, or become blocks: phases from one
   * to the next. */
  points: z.enum(['among', 'above', 'phases']).default('among'),
  /** Labels of what is strung on a line stand in turn above and below it, or all above. */
  stems: z.enum(['turns', 'above']).default('turns'),
  /** Fields that stand in columns beside the rows, by the ids of conditions (`finish`, `code.area`). */
  columns: z.array(z.string().min(1).max(120)).max(MOST_COLUMNS).default([]),
  columnsAt: z.enum(['left', 'right']).default('right'),
  /** Whether every lane ends with what its columns come to. */
  totals: z.boolean().default(false),
  /** Whether what is complete is drawn in grey. */
  doneGrey: z.boolean().default(false),
  /** Id of the code field that gives the colours, or of a state (`states.ts`); null for one colour. */
  colour: z.string().max(100).nullable().default(null),
  /** Id of the code field that gives points in time their shapes; null for that of the colours. */
  shape: z.string().max(100).nullable().default(null),
  /** Where labels stand where they have room there; `auto` for where each reads best. */
  side: z.enum(['auto', 'right', 'left', 'inside', 'above']).default('auto'),
  /** How summaries stand in rows of one each: as thin lines, as blocks, or not at all. */
  summaries: z.enum(['lines', 'blocks', 'none']).default('lines'),
  /** What labels say: these parts, or any field by the id of conditions. */
  labels: z.array(z.string().min(1).max(120)).max(16).default(['name', 'finish']),
  /** The edition that is compared with: `promised` for the oldest that was kept, the id of another, or null. */
  compare: z.string().min(1).max(100).nullable().default(null),
  /** How the comparison is drawn: as an outline below, as an arrow from the promised to the current finish, or both. */
  compareBy: z.enum(['outline', 'arrow', 'both']).default('outline'),
  /** Whether what the edition compared with had and the plan no longer has is drawn too. */
  gone: z.boolean().default(false),
  /** Only what is off by so many working days is compared. */
  threshold: z.number().min(0).max(10_000).default(0),
  /** Whether periods that the plan knows (closures, seasons) are shaded. */
  periods: z.boolean().default(true),
  /** Which links are drawn between the things of the page. */
  links: z.enum(['none', 'all', 'critical', 'lanes']).default('none'),
  /** Days and periods of its own that the page marks by name. */
  dates: z.array(NamedDate).max(20).default([]),
  /** Whether deadlines are marked in the rows. */
  deadlines: z.boolean().default(false),
  /** Whether days off are shaded, where the scale is wide enough to see them. */
  daysOff: z.boolean().default(false),
  /** Whether the time before the status date is shaded. */
  elapsed: z.boolean().default(false),
  /** Tiers of the time scale from coarse to fine; without any, two that are as fine as fits. */
  scale: z.array(z.enum(SCALE_UNITS)).max(4).default([]),
  /** The month in which fiscal years begin, 1 to 12. */
  fiscal: z.int().min(1).max(12).default(1),
  /** Whether the page says what it hides. */
  blind: z.boolean().default(false),
  from: MomentValue.nullable().default(null),
  to: MomentValue.nullable().default(null),
  /** In which language the page says what it says by itself. */
  language: z.enum(LANGUAGE_CODES).default('en'),
  /** A picture at the head of the page, such as a logo. */
  logo: Picture.nullable().default(null),
  /** What is written below the plot. */
  notes: z.string().max(600).default(''),
  /** Whether the page says its number. */
  numbered: z.boolean().default(false),
  /** One page, or as many as it takes. */
  pages: z.enum(['one', 'several']).default('one'),
  /** A page of its own size in millimetres; null for a usual one. */
  size: PageSize.nullable().default(null),
  ...byHand,
  page: Page,
  print: Print,
  palette: Palette,
});
export type TimelineBrief = z.infer<typeof TimelineBrief>;

/** Whether lanes end with a line of totals: where rows of their own stand above it. */
export const hasTotals = (brief: TimelineBrief): boolean =>
  brief.totals && brief.columns.length > 0 && (brief.rows === 'each' || brief.packBy !== null);

/** A brief with every part at its default. */
export const defaultTimelineBrief = (): TimelineBrief => TimelineBrief.parse({ kind: 'timeline' });
