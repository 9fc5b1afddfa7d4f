import { Condition } from '@clembo/core';
import { z } from 'zod';
import { notesByHand } from './hand';
import { levelPart } from './levels';
import { Page, Print } from './pages';
import { Palette } from './palette';
import {
  colourPart,
  conditionPart,
  fieldOrNonePart,
  onePart,
  pageParts,
  type Part,
  quoted,
  RESPONSIBLE,
  WHO,
} from './parts';
import { placedByHand } from './placed';
import type { PlanWords } from './words';

export const CARDS = ['fitting', 'full', 'dates', 'float', 'dot'] as const;

/** Activities as cards, links as lines, in the order of the logic. */
export const NetworkBrief = z.object({
  kind: z.literal('network'),
  title: z.string().max(300).nullable().default(null),
  where: Condition.default({ match: 'all', tests: [] }),
  /** Deepest outline level that is shown; what lies deeper is a card of its group. */
  level: z.int().min(1).max(50).nullable().default(null),
  only: z.enum(['all', 'critical', 'longest', 'open']).default('all'),
  /** The activity around which the network is shown; null for all of the plan. */
  around: z.string().min(1).max(200).nullable().default(null),
  way: z.enum(['before', 'after', 'both']).default('before'),
  /** Within so many links from it; null for all the way. */
  steps: z.int().min(1).max(100).nullable().default(null),
  /** How much a card says; `fitting` for as much as fits. */
  card: z.enum(CARDS).default('fitting'),
  /** Columns by the longest way from the start, or by the month in which things start. */
  place: z.enum(['logic', 'time']).default('logic'),
  /** What has lanes: a code field, or `responsible`; null for none. */
  lanes: z.string().min(1).max(100).nullable().default(null),
  colour: z.string().min(1).max(100).nullable().default(null),
  placed: placedByHand,
  marks: notesByHand,
  /** A network compares with nothing. */
  compare: z.null().default(null),
  page: Page,
  print: Print,
  palette: Palette,
});
export type NetworkBrief = z.infer<typeof NetworkBrief>;

const nameOf = (ref: string, plan: PlanWords): string =>
  quoted(plan.milestones?.find((m) => m.ref === ref)?.name ?? ref);

const steps = (n: number | null): string => (n === null ? 'all the way' : `within ${n} ${n === 1 ? 'link' : 'links'}`);

export const NETWORK_PARTS: Part<NetworkBrief>[] = [
  {
    as: 'one',
    name: 'around',
    label: 'Around',
    lead: 'Show the network of ',
    value: (b) => b.around ?? '',
    words: (b, plan) => (b.around === null ? 'the whole plan' : nameOf(b.around, plan)),
    options: (plan, b) => {
      const known = plan.milestones ?? [];
      const own =
        b.around !== null && !known.some((m) => m.ref === b.around) ? [{ ref: b.around, name: b.around }] : [];
      return [
        ['', 'the whole plan'],
        ...[...own, ...known].map(({ ref, name }): [string, string] => [ref, quoted(name)]),
      ];
    },
    set: (ref) => ({ around: ref === '' ? null : ref }),
  },
  {
    ...onePart<NetworkBrief, 'way'>('way', 'Which way', ': ', {
      before: 'what leads to it',
      after: 'what it leads to',
      both: 'what leads to it and what it leads to',
    }),
    shown: (b) => b.around !== null,
  },
  {
    as: 'one',
    name: 'steps',
    label: 'How far',
    lead: ', ',
    shown: (b) => b.around !== null,
    quiet: (b) => b.steps === null,
    value: (b) => String(b.steps ?? ''),
    words: (b) => steps(b.steps),
    options: (_, b) =>
      [null, ...new Set([1, 2, 3, 4, 5, 8, ...(b.steps === null ? [] : [b.steps])])].map((n): [string, string] => [
        String(n ?? ''),
        steps(n),
      ]),
    set: (v) => ({ steps: v === '' ? null : Number(v) }),
  },
  levelPart(),
  conditionPart(' where '),
  {
    ...onePart<NetworkBrief, 'only'>('only', 'Only', ', ', {
      all: 'whatever its state',
      critical: 'only what is critical',
      longest: 'only the longest path',
      open: 'only what is not done',
    }),
    quiet: (b) => b.only === 'all',
  },
  onePart('card', 'Cards', ', as ', {
    fitting: 'cards that say as much as fits',
    full: 'cards with early and late dates',
    dates: 'cards with their dates',
    float: 'cards with their float',
    dot: 'dots with their names',
  }),
  {
    ...onePart<NetworkBrief, 'place'>('place', 'Place', ', ', {
      logic: 'in the order of the logic',
      time: 'by the months in which they start',
    }),
    quiet: (b) => b.place === 'logic',
  },
  fieldOrNonePart<'lanes', NetworkBrief>('lanes', 'Lanes', (name) => `in lanes by ${name}`, 'without lanes', [
    [RESPONSIBLE, WHO],
  ]),
  colourPart<NetworkBrief>(),
  ...pageParts<NetworkBrief>(),
];
