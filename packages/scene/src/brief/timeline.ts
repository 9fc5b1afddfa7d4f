import { MomentValue } from '@clembo/core';
import { z } from 'zod';
import { Filter, filterWords } from './filter';
import { Page, Print } from './pages';
import {
  dayPart,
  editionChoices,
  editionName,
  fieldChoices,
  fieldName,
  onePart,
  pageParts,
  type Part,
  type Segment,
  sentence,
} from './parts';
import { listWords, type PlanWords } from './words';

export const LABEL_PARTS = ['name', 'start', 'finish', 'reference', 'duration', 'daysDone', 'percent', 'off'] as const;
export type LabelPart = (typeof LABEL_PARTS)[number];

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
  page: Page,
  print: Print,
});
export type TimelineBrief = z.infer<typeof TimelineBrief>;

/** A brief with every part at its default. */
export const defaultTimelineBrief = (): TimelineBrief => TimelineBrief.parse({ kind: 'timeline' });

export const INCLUDE_WORDS = {
  both: 'activities and milestones',
  activities: 'activities only',
  milestones: 'milestones only',
} as const;
export const LABEL_WORDS: Record<LabelPart, string> = {
  name: 'name',
  start: 'start',
  finish: 'finish',
  reference: 'reference',
  duration: 'working days',
  daysDone: 'days done and to go',
  percent: 'percent done',
  off: 'days late or ahead',
};

const periodsWords = (n: number): string => `marking ${n} ${n === 1 ? 'period' : 'periods'}`;

export const TIMELINE_PARTS: Part<TimelineBrief>[] = [
  onePart('include', 'What is shown', 'Show ', INCLUDE_WORDS),
  {
    as: 'one',
    name: 'level',
    label: 'Deepest level',
    lead: ' down to ',
    value: (b) => String(b.level ?? 'all'),
    words: (b) => (b.level === null ? 'the last level' : `level ${b.level}`),
    options: ({ levels = 1 }) => [
      ['all', 'the last level'],
      ...Array.from({ length: levels }, (_, k): [string, string] => [String(k + 1), `level ${k + 1}`]),
    ],
    set: (v) => ({ level: v === 'all' ? null : Number(v) }),
  },
  {
    as: 'filter',
    name: 'where',
    label: 'Where',
    lead: ' where ',
    filters: (b) => b.where,
    words: (b, plan) => filterWords(b.where, plan),
    set: (where) => ({ where }),
  },
  {
    // Chosen one after the other, outermost first.
    as: 'many',
    name: 'lanes',
    label: 'Lanes',
    lead: ', ',
    most: MOST_LANE_LEVELS,
    values: (b) => b.lanes,
    words: (b, plan) =>
      b.lanes.length === 0 ? 'without lanes' : `in lanes by ${b.lanes.map((l) => fieldName(plan, l)).join(', then ')}`,
    options: (plan) => [
      ...((plan.levels ?? 1) > 1 ? [['outline', 'outline'] as [string, string]] : []),
      ...fieldChoices(plan),
    ],
    set: (lanes) => ({ lanes }),
  },
  {
    as: 'one',
    name: 'rows',
    label: 'Rows',
    lead: ', rows ',
    value: (b) => b.rows,
    words: (b) => b.rows,
    options: () => [
      ['packed', 'packed: as few as fit'],
      ['each', 'each: one activity a row'],
    ],
    set: (rows) => ({ rows: rows as TimelineBrief['rows'] }),
  },
  {
    as: 'one',
    name: 'colour',
    label: 'Colour',
    lead: ', ',
    value: (b) => b.colour ?? '',
    words: (b, plan) => (b.colour === null ? 'in one colour' : `coloured by ${fieldName(plan, b.colour)}`),
    options: (plan) => [
      ['', 'in one colour'],
      ...fieldChoices(plan).map(([id, name]): [string, string] => [id, `by ${name}`]),
    ],
    set: (v) => ({ colour: v === '' ? null : v }),
  },
  {
    as: 'one',
    name: 'compare',
    label: 'Compared with',
    lead: ', compared with ',
    shown: (b, plan) => (plan.editions?.length ?? 0) > 0 || b.compare !== null,
    value: (b) => b.compare ?? '',
    words: (b, plan) => editionName(b.compare, plan),
    options: (plan) => [['', 'nothing'], ...editionChoices(plan)],
    set: (v) => ({ compare: v === '' ? null : v }),
  },
  {
    as: 'many',
    name: 'labels',
    label: 'Labels',
    lead: ', labelled with ',
    values: (b) => b.labels,
    words: (b) => (b.labels.length === 0 ? 'nothing' : listWords(b.labels.map((l) => LABEL_WORDS[l]))),
    options: () => LABEL_PARTS.map((l): [string, string] => [l, LABEL_WORDS[l]]),
    set: (v) => ({ labels: LABEL_PARTS.filter((l) => v.includes(l)) }),
  },
  {
    as: 'one',
    name: 'periods',
    label: 'Periods',
    lead: ', ',
    shown: (_, plan) => plan.periods.length > 0,
    value: (b) => (b.periods ? 'yes' : 'no'),
    words: (b, plan) => (b.periods ? periodsWords(plan.periods.length) : 'marking no periods'),
    options: () => [
      ['yes', 'mark the plan’s periods'],
      ['no', 'mark none'],
    ],
    set: (v) => ({ periods: v === 'yes' }),
  },
  dayPart('from', ', from '),
  dayPart('to', ' to '),
  ...pageParts<TimelineBrief>(),
];

/** The brief as a sentence in plain language, in segments. */
export const briefSentence = (brief: TimelineBrief, plan: PlanWords): Segment[] =>
  sentence(TIMELINE_PARTS, brief, plan);
