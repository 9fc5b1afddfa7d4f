import { Condition, isChainage, MomentValue, placeWords, readPlace } from '@clembo/core';
import { z } from 'zod';
import { placeScaleWords, SCALE, readPlaceScale, readTimeScale, timeScaleWords } from './axisScales';
import { notesByHand } from './hand';
import { Page, Print } from './pages';
import { Palette } from './palette';
import {
  colourPart,
  compareOrNonePart,
  conditionPart,
  dayPart,
  onePart,
  pageParts,
  type Part,
  quoted,
  yesPart,
} from './parts';
import type { PlanWords } from './words';

const PlaceValue = z.int().min(-2_000_000_000_000).max(2_000_000_000_000);

/** Work along a line, in place and time. */
export const LinearBrief = z.object({
  kind: z.literal('linear'),
  title: z.string().max(300).nullable().default(null),
  /** The line by its id; null for the plan's first. */
  line: z.string().min(1).max(100).nullable().default(null),
  where: Condition.default({ match: 'all', tests: [] }),
  only: z.enum(['all', 'critical', 'open']).default('all'),
  /** Place across and time down, or place up and time across. */
  axes: z.enum(['across', 'up']).default('across'),
  /** The place axis runs the other way. */
  backwards: z.boolean().default(false),
  /** Places that the page begins and ends at, in thousandths of the unit of the line; null for those of the line. */
  fromPlace: PlaceValue.nullable().default(null),
  toPlace: PlaceValue.nullable().default(null),
  /** Millimetres of paper for a unit of the line, and for a day; null fits them to the page. */
  placeScale: z.number().positive().max(10_000).nullable().default(null),
  timeScale: z.number().positive().max(10_000).nullable().default(null),
  from: MomentValue.nullable().default(null),
  to: MomentValue.nullable().default(null),
  colour: z.string().min(1).max(100).nullable().default(null),
  names: z.enum(['each', 'group', 'alike', 'none']).default('each'),
  rates: z.boolean().default(true),
  /** Lines as wide as there are crews. */
  wide: z.boolean().default(false),
  compare: z.string().max(100).nullable().default(null),
  stations: z.boolean().default(true),
  zones: z.boolean().default(true),
  windows: z.boolean().default(true),
  /** Pictures along the line. */
  strips: z.boolean().default(true),
  clashes: z.boolean().default(true),
  /** The least days between consecutive works. */
  gaps: z.boolean().default(false),
  /** Days that are asked for between works; less is a clash. */
  keep: z.int().min(0).max(1000).default(0),
  crews: z.boolean().default(false),
  /** A resource whose need is told over time. */
  need: z.string().max(100).nullable().default(null),
  /** How many days each place is worked on, along the place axis. */
  workedDays: z.boolean().default(false),
  /** How much is done at each place, along the place axis. */
  quantities: z.boolean().default(false),
  marks: notesByHand,
  page: Page,
  print: Print,
  palette: Palette,
});
export type LinearBrief = z.infer<typeof LinearBrief>;

const lineOf = (plan: PlanWords, b: LinearBrief) =>
  plan.lines?.find((l) => l.id === b.line) ?? (b.line === null ? plan.lines?.[0] : undefined);
const unitOf = (plan: PlanWords, b: LinearBrief): string => lineOf(plan, b)?.unit ?? '';

/** A place, typed or left to the line. */
const placePart = (key: 'fromPlace' | 'toPlace', label: string, lead: string, open: string): Part<LinearBrief> => ({
  as: 'place',
  name: key,
  label,
  lead,
  quiet: (b) => b[key] === null,
  open,
  place: (b) => b[key],
  unit: (b, plan) => unitOf(plan, b),
  words: (b, plan) => {
    const place = b[key];
    if (place === null) return open;
    const unit = unitOf(plan, b);
    return isChainage(unit) || unit === '' ? placeWords(place, unit) : `${placeWords(place, unit)} ${unit}`;
  },
  read: (text, plan, b) => readPlace(text, unitOf(plan, b)),
  set: (place) => ({ [key]: place }),
});

/** A scale of an axis, typed or left to the page. */
const scalePart = (
  key: 'placeScale' | 'timeScale',
  label: string,
  lead: string,
  open: string,
  own: {
    words: (mm: number, b: LinearBrief, plan: PlanWords) => string;
    read: (text: string, b: LinearBrief, plan: PlanWords) => number | null;
  },
): Part<LinearBrief> => ({
  as: 'place',
  name: key,
  label,
  lead,
  quiet: (b) => b[key] === null,
  open,
  place: (b) => b[key],
  unit: () => '',
  words: (b, plan) => {
    const mm = b[key];
    return mm === null ? open : own.words(mm, b, plan);
  },
  read: (text, plan, b) => own.read(text, b, plan),
  said: SCALE,
  typed: (b, plan) => (b[key] === null ? '' : own.words(b[key], b, plan)),
  set: (mm) => ({ [key]: mm }),
});

const GAPS = [0, 1, 2, 3, 5, 7, 10, 14, 20, 28];
const keepWords = (days: number) =>
  days === 0 ? 'no buffer asked for' : `at least ${days} ${days === 1 ? 'day' : 'days'} between works`;

const NO_NEED = 'without the need of a resource';
const needWords = (name: string) => `with the need of ${quoted(name)}`;

export const LINEAR_PARTS: Part<LinearBrief>[] = [
  {
    as: 'one',
    name: 'line',
    label: 'Line',
    lead: 'Show the work along ',
    value: (b) => b.line ?? '',
    words: (b, plan) => {
      const line = lineOf(plan, b);
      return line ? quoted(line.name || line.id) : b.line === null ? 'its line' : 'a line that is gone';
    },
    options: (plan) =>
      (plan.lines ?? []).map(({ id, name }, k): [string, string] => [k === 0 ? '' : id, quoted(name || id)]),
    set: (v) => ({ line: v === '' ? null : v, fromPlace: null, toPlace: null }),
  },
  conditionPart(' where '),
  {
    ...onePart<LinearBrief, 'only'>('only', 'Only', ', ', {
      all: 'whatever its state',
      critical: 'only what is critical',
      open: 'only what is not done',
    }),
    quiet: (b) => b.only === 'all',
  },
  onePart('axes', 'Axes', ', with ', {
    across: 'places across and time down',
    up: 'places upwards and time across',
  }),
  yesPart('backwards', 'Direction', { yes: 'places running backwards', no: 'places running forwards' }, false),
  placePart('fromPlace', 'From place', ', from place ', 'the beginning of the line'),
  placePart('toPlace', 'To place', ' to place ', 'the end of the line'),
  scalePart('placeScale', 'Scale of places', ', places at ', 'places as large as fits', {
    words: (mm, b, plan) => placeScaleWords(mm, unitOf(plan, b)),
    read: (text, b, plan) => readPlaceScale(text, unitOf(plan, b)),
  }),
  scalePart('timeScale', 'Scale of time', ', time at ', 'time as large as fits', {
    words: timeScaleWords,
    read: readTimeScale,
  }),
  dayPart<LinearBrief>('from', ', from '),
  dayPart<LinearBrief>('to', ' to '),
  colourPart<LinearBrief>(),
  {
    ...onePart<LinearBrief, 'names'>('names', 'Names', ', ', {
      each: 'named one by one',
      group: 'named by the group above',
      alike: 'works of one name named once',
      none: 'without names',
    }),
    quiet: (b) => b.names === 'each',
  },
  yesPart('rates', 'Rates', { yes: 'with rates', no: 'without rates' }, true),
  yesPart('wide', 'Width', { yes: 'as wide as there are crews', no: 'all equally wide' }, false),
  compareOrNonePart<LinearBrief>(),
  yesPart('stations', 'Stations', { yes: 'with stations', no: 'without stations' }, true),
  yesPart('zones', 'Zones', { yes: 'with zones', no: 'without zones' }, true),
  yesPart('windows', 'Closed windows', { yes: 'with closed windows', no: 'without closed windows' }, true),
  yesPart('strips', 'Pictures', { yes: 'with the pictures along it', no: 'without pictures along it' }, true),
  yesPart('clashes', 'Clashes', { yes: 'with clashes', no: 'without clashes' }, true),
  {
    as: 'one',
    name: 'keep',
    label: 'Buffer',
    lead: ', ',
    quiet: (b) => b.keep === 0,
    value: (b) => String(b.keep),
    words: (b) => keepWords(b.keep),
    options: (_, b) =>
      [...new Set([...GAPS, b.keep])].sort((p, q) => p - q).map((n): [string, string] => [String(n), keepWords(n)]),
    set: (v) => ({ keep: Number(v) }),
  },
  yesPart(
    'gaps',
    'Least buffers',
    { yes: 'with the least days between works', no: 'without days between works' },
    false,
  ),
  yesPart('crews', 'Crews', { yes: 'with crews over time', no: 'without crews' }, false),
  {
    as: 'one',
    name: 'need',
    label: 'Resource over time',
    lead: ', ',
    shown: (b, plan) => (plan.resources?.length ?? 0) > 0 || b.need !== null,
    quiet: (b) => b.need === null,
    value: (b) => b.need ?? '',
    words: (b, plan) => {
      const own = plan.resources?.find((r) => r.id === b.need);
      return b.need === null ? NO_NEED : own ? needWords(own.name) : 'with the need of what is gone';
    },
    options: (plan) => [
      ['', NO_NEED],
      ...(plan.resources ?? []).map(({ id, name }): [string, string] => [id, needWords(name)]),
    ],
    set: (v) => ({ need: v === '' ? null : v }),
  },
  yesPart(
    'workedDays',
    'Days worked on',
    { yes: 'with the days that each place is worked on', no: 'without days by place' },
    false,
  ),
  yesPart(
    'quantities',
    'Quantities',
    { yes: 'with the quantity at each place', no: 'without quantities by place' },
    false,
  ),
  ...pageParts<LinearBrief>(),
];
