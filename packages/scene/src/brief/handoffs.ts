import { Condition } from '@clembo/core';
import { z } from 'zod';
import { notesByHand } from './hand';
import { levelPart } from './levels';
import { Page, Print } from './pages';
import { Palette } from './palette';
import { conditionPart, fieldChoices, fieldName, onePart, pageParts, type Part, RESPONSIBLE, yesPart } from './parts';
import { placedByHand } from './placed';
import { typedSteps } from './steps';
import type { PlanWords } from './words';

/** Who does which step, and where work passes from hand to hand. */
export const HandoffsBrief = z.object({
  kind: z.literal('handoffs'),
  title: z.string().max(300).nullable().default(null),
  /** Steps are the activities of the plan, or typed. */
  of: z.enum(['plan', 'typed']).default('plan'),
  ...typedSteps,
  where: Condition.default({ match: 'all', tests: [] }),
  level: z.int().min(1).max(50).nullable().default(null),
  only: z.enum(['all', 'critical', 'longest', 'open']).default('all'),
  /** Whose lanes there are: a code field, or `responsible`. */
  lanes: z.string().min(1).max(100).default(RESPONSIBLE),
  /** What columns are named after: a code field, or `phase` for typed steps; null for none. */
  phases: z.string().min(1).max(100).nullable().default(null),
  /** The code field whose values say what kind of step an activity is; null where all are steps. */
  kinds: z.string().min(1).max(100).nullable().default(null),
  form: z.enum(['lanes', 'chart']).default('lanes'),
  dates: z.boolean().default(true),
  waits: z.boolean().default(true),
  placed: placedByHand,
  marks: notesByHand,
  compare: z.null().default(null),
  page: Page,
  print: Print,
  palette: Palette,
});
export type HandoffsBrief = z.infer<typeof HandoffsBrief>;

/** Stands for the phases that typed steps have of their own. */
export const OWN_PHASE = 'phase';

const SOURCES = { plan: 'the activities of the plan', typed: 'the steps typed here' } as const;
const ofPlan = (b: HandoffsBrief) => b.of === 'plan';

/** A part that is a code field of the plan or none. */
const fieldOrNone = (
  key: 'phases' | 'kinds',
  label: string,
  words: (name: string) => string,
  none: string,
): Part<HandoffsBrief> => ({
  as: 'one',
  name: key,
  label,
  lead: ', ',
  quiet: (b) => b[key] === (key === 'phases' && !ofPlan(b) ? OWN_PHASE : null),
  shown: (b) => key === 'phases' || ofPlan(b),
  value: (b) => b[key] ?? '',
  words: (b, plan) => (b[key] === null ? none : words(b[key] === OWN_PHASE ? 'phase' : fieldName(plan, b[key]))),
  options: (plan, b) => [
    ['', none],
    ...(ofPlan(b) ? fieldChoices(plan) : [[OWN_PHASE, 'phase']]).map(([id = '', name = '']): [string, string] => [
      id,
      words(name),
    ]),
  ],
  set: (v) => ({ [key]: v === '' ? null : v }),
});

const lanes = (plan: PlanWords, id: string) => `in lanes by ${fieldName(plan, id)}`;

export const HANDOFFS_PARTS: Part<HandoffsBrief>[] = [
  {
    as: 'one',
    name: 'of',
    label: 'Steps',
    lead: 'Show who hands over to whom, by ',
    value: (b) => b.of,
    words: (b) => SOURCES[b.of],
    options: () => Object.entries(SOURCES),
    // Phases of typed steps are their own.
    set: (v) => (v === 'typed' ? { of: 'typed', phases: OWN_PHASE } : { of: 'plan', phases: null }),
  },
  { ...levelPart<HandoffsBrief>(), shown: ofPlan },
  { ...conditionPart<HandoffsBrief>(' where '), shown: ofPlan },
  {
    ...onePart<HandoffsBrief, 'only'>('only', 'Only', ', ', {
      all: 'whatever its state',
      critical: 'only what is critical',
      longest: 'only the longest path',
      open: 'only what is not done',
    }),
    quiet: (b) => b.only === 'all',
    shown: ofPlan,
  },
  {
    as: 'one',
    name: 'lanes',
    label: 'Lanes',
    lead: ', ',
    shown: ofPlan,
    value: (b) => b.lanes,
    words: (b, plan) => lanes(plan, b.lanes),
    options: (plan) =>
      [RESPONSIBLE, ...plan.codeFields.map((f) => f.id)].map((id): [string, string] => [id, lanes(plan, id)]),
    set: (v) => ({ lanes: v }),
  },
  fieldOrNone('phases', 'Columns', (name) => `in columns by ${name}`, 'without named columns'),
  fieldOrNone('kinds', 'Kinds of step', (name) => `with kinds of step by ${name}`, 'all steps alike'),
  {
    ...onePart<HandoffsBrief, 'form'>('form', 'Form', ', ', {
      lanes: 'from left to right over the lanes',
      chart: 'downwards as a flow chart',
    }),
    quiet: (b) => b.form === 'lanes',
  },
  yesPart('dates', 'Dates', { yes: 'with dates', no: 'without dates' }, true),
  yesPart('waits', 'Waits', { yes: 'with the longest waits', no: 'without waits' }, true),
  ...pageParts<HandoffsBrief>(),
];
