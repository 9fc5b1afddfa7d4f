import { Condition, conditionWords, elementFields, Look } from '@clembo/core';
import { z } from 'zod';
import { Page, Print } from './pages';
import { Palette } from './palette';
import {
  colourPart,
  compareOrNonePart,
  namedDateWords,
  NamedDate,
  NO_DATES,
  onePart,
  pageParts,
  type Part,
  yesPart,
} from './parts';
import type { PlanWords } from './words';

/** So many dates stand on one page. */
export const MOST_DATES = 8;

const WHEN = {
  status: 'on the status date',
  even2: 'on two dates from start to finish',
  even3: 'on three dates from start to finish',
  even4: 'on four dates from start to finish',
  even6: 'on six dates from start to finish',
  even8: 'on eight dates from start to finish',
  own: 'on dates of its own',
} as const;

/** The model as it stands on a date, or on several. */
export const BuildBrief = z.object({
  kind: z.literal('build'),
  title: z.string().max(300).nullable().default(null),
  /** Which elements are meant; fields of elements. */
  where: Condition.default({ match: 'all', tests: [] }),
  when: z.enum(Object.keys(WHEN) as [keyof typeof WHEN, ...(keyof typeof WHEN)[]]).default('status'),
  /** Dates with their captions, where `when` is `own`. */
  dates: z.array(NamedDate).max(MOST_DATES).default([]),
  colour: z.string().min(1).max(100).nullable().default(null),
  /** What is counted over time. */
  measure: z.enum(['count', 'volume', 'area', 'length']).default('count'),
  compare: z.string().max(100).nullable().default(null),
  /** What is not yet there as faint edges; what has no work as pale bodies. */
  toCome: z.boolean().default(true),
  loose: z.boolean().default(true),
  ...Look.shape,
  page: Page,
  print: Print,
  palette: Palette,
});
export type BuildBrief = z.infer<typeof BuildBrief>;

const SIDES: [turn: number, words: string][] = [
  [0, 'the front'],
  [35, 'the front, to the right'],
  [90, 'the right'],
  [145, 'the back, to the right'],
  [180, 'the back'],
  [-145, 'the back, to the left'],
  [-90, 'the left'],
  [-35, 'the front, to the left'],
];
const sideWords = (turn: number): string =>
  `seen from ${SIDES.find(([t]) => t === turn)?.[1] ?? `${Math.round(turn)}° around`}`;
const HEIGHTS: [height: number, words: string][] = [
  [0, 'from the side'],
  [15, 'from a little above'],
  [30, 'from above'],
  [55, 'from high above'],
  [90, 'straight down'],
];
const heightWords = (height: number): string =>
  HEIGHTS.find(([h]) => h === height)?.[1] ?? `from ${Math.round(height)}° above`;

const numbers = (list: [number, string][], own: number, say: (v: number) => string): [string, string][] => [
  ...list.map(([v]): [string, string] => [String(v), say(v)]),
  ...(list.some(([v]) => v === own) ? [] : [[String(own), say(own)] as [string, string]]),
];

/** Metres, typed or left open. */
const metresPart = (
  key: 'cut' | 'lift',
  label: string,
  lead: string,
  open: string,
  none: 0 | null,
): Part<BuildBrief> => ({
  as: 'place',
  name: key,
  label,
  lead,
  quiet: (b) => b[key] === none,
  open,
  place: (b) => (b[key] === none ? null : b[key]),
  unit: () => 'm',
  words: (b) => (b[key] === none ? open : `${b[key]} m`),
  read: (text) => {
    const m = /-?\d+(?:[.,]\d+)?/.exec(text);
    const value = m ? Number(m[0].replace(',', '.')) : Number.NaN;
    return Math.abs(value) <= 1000 && (key === 'cut' || value >= 0) ? value : null;
  },
  said: /^-?\d+(?:\.\d+)? m(?![a-z])/i,
  typed: (b) => (b[key] === none ? '' : String(b[key])),
  set: (value) => ({ [key]: value ?? none }),
});

/** Fields of elements by which a model can be narrowed; those of every model where the plan's are not known. */
export const buildFields = (plan: PlanWords) => plan.elementFields ?? elementFields([]);

export const BUILD_PARTS: Part<BuildBrief>[] = [
  {
    as: 'one',
    name: 'when',
    label: 'When',
    lead: 'Show the model as it stands ',
    value: (b) => b.when,
    words: (b) => WHEN[b.when],
    options: () => Object.entries(WHEN) as [string, string][],
    set: (when) => ({ when: when as BuildBrief['when'] }),
  },
  {
    as: 'dates',
    name: 'dates',
    label: 'Dates',
    lead: ', ',
    shown: (b) => b.when === 'own',
    dates: (b) => b.dates,
    words: (b) => (b.dates.length === 0 ? NO_DATES : namedDateWords(b.dates)),
    set: (dates) => ({ dates: dates.slice(0, MOST_DATES) }),
  },
  {
    as: 'condition',
    quiet: (b) => b.where.tests.length === 0,
    name: 'where',
    label: 'Where',
    lead: ', of elements where ',
    where: (b) => b.where,
    fields: buildFields,
    words: (b, plan) =>
      conditionWords({ codeFields: plan.codeFields, effortDay: null, fields: buildFields(plan) }, b.where),
    set: (where) => ({ where }),
  },
  colourPart<BuildBrief>(),
  {
    ...onePart<BuildBrief, 'measure'>('measure', 'Counted by', ', counted by ', {
      count: 'number',
      volume: 'volume',
      area: 'area',
      length: 'length',
    }),
    quiet: (b) => b.measure === 'count',
  },
  compareOrNonePart<BuildBrief>(),
  {
    as: 'one',
    name: 'side',
    label: 'Seen from',
    lead: ', ',
    value: (b) => String(b.turn),
    words: (b) => sideWords(b.turn),
    options: (_, b) => numbers(SIDES, b.turn, sideWords),
    set: (v) => ({ turn: Number(v), middle: null, span: null }),
  },
  {
    as: 'one',
    name: 'height',
    label: 'From how high',
    lead: ', ',
    value: (b) => String(b.height),
    words: (b) => heightWords(b.height),
    options: (_, b) => numbers(HEIGHTS, b.height, heightWords),
    set: (v) => ({ height: Number(v) }),
  },
  yesPart('perspective', 'Lines', { yes: 'in perspective', no: 'with parallel lines' }, false),
  {
    as: 'one',
    name: 'near',
    label: 'How near',
    lead: ', ',
    shown: (b) => b.middle !== null,
    value: () => 'part',
    words: (b) => (b.middle === null ? 'all of it' : 'a part of it enlarged'),
    options: () => [
      ['part', 'a part of it enlarged'],
      ['all', 'all of it'],
    ],
    set: (v) => (v === 'all' ? { middle: null, span: null } : {}),
  },
  metresPart('lift', 'Storeys', ', storeys lifted by ', 'nothing', 0),
  metresPart('cut', 'Section', ', cut at ', 'no height', null),
  yesPart('toCome', 'To come', { yes: 'with what is to come', no: 'without what is to come' }, true),
  yesPart('loose', 'Without work', { yes: 'with what has no work', no: 'without what has no work' }, true),
  ...pageParts<BuildBrief>(),
];
