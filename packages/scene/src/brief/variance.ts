import { Condition, MomentValue } from '@clembo/core';
import { z } from 'zod';
import { Page, Print } from './pages';
import { Palette } from './palette';
import {
  comparePart,
  conditionPart,
  dayPart,
  fieldChoices,
  fieldName,
  onePart,
  pageParts,
  type Part,
  PROMISED,
} from './parts';
import { listWords, type PlanWords } from './words';

/** What all pages have that say how a plan stands against its promise. */
const COMMON = {
  /** The message of the page; null lets Clembo state what the data says. */
  title: z.string().max(300).nullable().default(null),
  /** Only what meets it counts. */
  where: Condition.default({ match: 'all', tests: [] }),
  /** The edition that is measured against: `promised` for the oldest that was kept, or the id of another. */
  compare: z.string().min(1).max(100).default(PROMISED),
  page: Page,
  print: Print,
  palette: Palette,
};

/** What rows stand for: activities, the groups at the top of the outline, or the values of a code field. */
const Of = z.string().min(1).max(100).default('each');
const Include = z.enum(['both', 'activities', 'milestones']).default('both');
const INCLUDE = {
  both: 'activities and milestones',
  activities: 'activities',
  milestones: 'milestones',
} as const;

const ofPart = <B extends { of: string }>(lead: string): Part<B> => ({
  as: 'one',
  quiet: (b) => b.of === 'each',
  name: 'of',
  label: 'Rows',
  lead,
  value: (b) => b.of,
  words: (b, plan) => (b.of === 'each' ? 'each by itself' : `added up by ${fieldName(plan, b.of)}`),
  options: (plan: PlanWords) => [
    ['each', 'each by itself'],
    ...((plan.levels ?? 1) > 1 ? [['outline', 'added up by outline'] as [string, string]] : []),
    ...fieldChoices(plan).map(([id, name]): [string, string] => [id, `added up by ${name}`]),
  ],
  set: (of) => ({ of }) as Partial<B>,
});

const leastPart = <B extends { least: number }>(): Part<B> => {
  const words = (n: number) => (n === 0 ? 'however little' : `by ${n} working ${n === 1 ? 'day' : 'days'} or more`);
  return {
    as: 'one',
    name: 'least',
    label: 'Least size',
    lead: ', ',
    value: (b) => String(b.least),
    words: (b) => words(b.least),
    options: () => [0, 1, 2, 3, 5, 10, 15, 20, 40].map((n): [string, string] => [String(n), words(n)]),
    set: (v) => ({ least: Number(v) }) as Partial<B>,
  };
};

/** Promised and current place of what slipped, joined by an arrow. */
export const SlipsBrief = z.object({
  kind: z.literal('slips'),
  ...COMMON,
  include: Include,
  of: Of,
  only: z.enum(['both', 'late', 'ahead']).default('both'),
  /** Less than so many working days are left out. */
  least: z.number().min(0).max(10_000).default(1),
  by: z.enum(['finish', 'start']).default('finish'),
});
export type SlipsBrief = z.infer<typeof SlipsBrief>;
export const SLIPS_PARTS: Part<SlipsBrief>[] = [
  onePart('only', 'Which way', 'Show what is ', { both: 'late or ahead', late: 'late', ahead: 'ahead' }),
  leastPart(),
  onePart('include', 'What is shown', ', of ', INCLUDE),
  conditionPart(' of '),
  ofPart(', '),
  {
    ...onePart<SlipsBrief, 'by'>('by', 'Of which date', ', by their ', { finish: 'finish', start: 'start' }),
    quiet: (b) => b.by === 'finish',
  },
  comparePart(', against '),
  ...pageParts<SlipsBrief>(),
];

/** What was promised as an outline half a row lower, where it stands now above it. */
export const BarsBrief = z.object({
  kind: z.literal('bars'),
  ...COMMON,
  include: Include,
  only: z.enum(['all', 'off', 'critical', 'open']).default('all'),
  order: z.enum(['plan', 'start', 'size']).default('plan'),
  from: MomentValue.nullable().default(null),
  to: MomentValue.nullable().default(null),
});
export type BarsBrief = z.infer<typeof BarsBrief>;
export const BARS_PARTS: Part<BarsBrief>[] = [
  onePart('include', 'What is shown', 'Show then and now of ', INCLUDE),
  conditionPart(' of '),
  onePart('only', 'Only', ', ', {
    all: 'off or not',
    off: 'only what is off',
    critical: 'only what is critical',
    open: 'only what is not done',
  }),
  onePart('order', 'Order', ', in the order of ', {
    plan: 'the plan',
    start: 'their start',
    size: 'how late they are',
  }),
  comparePart(', against '),
  dayPart('from', ', from '),
  dayPart('to', ' to '),
  ...pageParts<BarsBrief>(),
];

/** Effort or cost against what was promised, on a scale of shares with the bands of tolerance. */
export const AmountsBrief = z.object({
  kind: z.literal('amounts'),
  ...COMMON,
  amount: z.enum(['effort', 'cost']).default('effort'),
  of: Of,
  only: z.enum(['all', 'off', 'over', 'beyond']).default('off'),
  order: z.enum(['ratio', 'size', 'plan']).default('ratio'),
});
export type AmountsBrief = z.infer<typeof AmountsBrief>;
export const AMOUNTS_PARTS: Part<AmountsBrief>[] = [
  onePart('amount', 'What is measured', 'Show ', { effort: 'effort', cost: 'cost' }),
  comparePart(' against the budget of '),
  conditionPart(' of '),
  ofPart(', '),
  onePart('only', 'Only', ', ', {
    all: 'off or not',
    off: 'only what is off',
    over: 'only what is over',
    beyond: 'only what is beyond tolerance',
  }),
  onePart('order', 'Order', ', in the order of ', {
    ratio: 'how far off they are',
    size: 'their budget',
    plan: 'the plan',
  }),
  ...pageParts<AmountsBrief>(),
];

/** Most milestones whose trend one page follows. */
export const MOST_TRENDS = 12;

/** Editions down, dates across: where milestones were expected, from edition to edition. */
export const TrendBrief = z.object({
  kind: z.literal('trend'),
  ...COMMON,
  /** References of milestones; none stands for those that moved most. */
  refs: z.array(z.string().min(1).max(200)).max(MOST_TRENDS).default([]),
  finish: z.boolean().default(true),
});
export type TrendBrief = z.infer<typeof TrendBrief>;
export const TREND_PARTS: Part<TrendBrief>[] = [
  {
    as: 'many',
    name: 'refs',
    label: 'Milestones',
    lead: 'Show how ',
    most: MOST_TRENDS,
    values: (b) => b.refs,
    words: (b, { milestones = [] }) =>
      b.refs.length === 0
        ? 'the milestones that moved most'
        : listWords(b.refs.map((ref) => milestones.find((m) => m.ref === ref)?.name ?? ref)),
    options: ({ milestones = [] }) => milestones.map((m): [string, string] => [m.ref, m.name]),
    set: (refs) => ({ refs }),
  },
  {
    as: 'one',
    name: 'finish',
    label: 'Finish of the plan',
    lead: ' ',
    value: (b) => (b.finish ? 'yes' : 'no'),
    words: (b) => (b.finish ? 'and the finish of the plan' : 'without the finish of the plan'),
    options: () => [
      ['yes', 'and the finish of the plan'],
      ['no', 'without the finish of the plan'],
    ],
    set: (v) => ({ finish: v === 'yes' }),
  },
  comparePart(' moved over the editions since '),
  ...pageParts<TrendBrief>(),
];

/** Planned, earned and spent over time, or how many were done against how many were to be. */
export const CurvesBrief = z.object({
  kind: z.literal('curves'),
  ...COMMON,
  of: z.enum(['effort', 'cost', 'activities', 'milestones']).default('effort'),
  forecast: z.boolean().default(true),
});
export type CurvesBrief = z.infer<typeof CurvesBrief>;
export const CURVES_PARTS: Part<CurvesBrief>[] = [
  onePart('of', 'What is measured', 'Show ', {
    effort: 'effort promised, earned and spent',
    cost: 'cost promised, earned and spent',
    activities: 'how many activities are done',
    milestones: 'how many milestones are reached',
  }),
  conditionPart(' over time, of '),
  comparePart(', against '),
  {
    as: 'one',
    name: 'forecast',
    label: 'Forecast',
    lead: ', ',
    value: (b) => (b.forecast ? 'yes' : 'no'),
    words: (b) => (b.forecast ? 'with what is to come' : 'up to the status date'),
    options: () => [
      ['yes', 'with what is to come'],
      ['no', 'up to the status date'],
    ],
    set: (v) => ({ forecast: v === 'yes' }),
  },
  ...pageParts<CurvesBrief>(),
];

/** What every week or month brings. */
export const MonthsBrief = z.object({
  kind: z.literal('months'),
  ...COMMON,
  of: z.enum(['hours', 'payments', 'finishes']).default('hours'),
});
export type MonthsBrief = z.infer<typeof MonthsBrief>;
export const MONTHS_PARTS: Part<MonthsBrief>[] = [
  onePart('of', 'What is shown', 'Show month by month ', {
    hours: 'the hours that people and plant are needed',
    payments: 'the payments that hang on milestones',
    finishes: 'what finishes',
  }),
  conditionPart(' of '),
  comparePart(', against '),
  ...pageParts<MonthsBrief>(),
];

/** The small table: now, promised, actual, to go, off by. */
export const SnapshotBrief = z.object({
  kind: z.literal('snapshot'),
  ...COMMON,
  /** The code field, or `outline`, whose parts have a table each; null for the whole alone. */
  by: z.string().min(1).max(100).nullable().default(null),
});
export type SnapshotBrief = z.infer<typeof SnapshotBrief>;
export const SNAPSHOT_PARTS: Part<SnapshotBrief>[] = [
  // It begins the sentence, also where nothing is left out.
  { ...conditionPart('Show the snapshot of '), quiet: () => false },
  {
    as: 'one',
    name: 'by',
    label: 'By',
    lead: ', ',
    value: (b) => b.by ?? '',
    words: (b, plan) => (b.by === null ? 'as a whole' : `for each ${fieldName(plan, b.by)}`),
    options: (plan) => [
      ['', 'as a whole'],
      ...((plan.levels ?? 1) > 1 ? [['outline', 'for each group of the outline'] as [string, string]] : []),
      ...fieldChoices(plan).map(([id, name]): [string, string] => [id, `for each ${name}`]),
    ],
    set: (by) => ({ by: by === '' ? null : by }),
  },
  comparePart(', against '),
  ...pageParts<SnapshotBrief>(),
];
