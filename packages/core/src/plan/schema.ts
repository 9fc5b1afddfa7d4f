import { z } from 'zod';
import { ElementCode, ElementMatch } from '../build/element';
import { MatchRule } from '../build/rule';
import { BuildView } from '../build/view';
import { CalendarSpec } from '../calendar/spec';
import { Condition } from '../select/condition';
import { DEFAULT_TOLERANCE, PartTolerance, Tolerance } from './tolerance';
import { endOfDay, FIRST_DAY, LAST_DAY, startOfDay } from '../time/civil';

/** A moment that a plan may use: within the years 1900 to 2299. */
export const MomentValue = z.int().min(startOfDay(FIRST_DAY)).max(endOfDay(LAST_DAY));
const Text = (max: number) => z.string().max(max);
export const Ref = z.string().min(1).max(200);
/** Working minutes, at most 200 years of them. */
export const WorkMinutes = z.int().min(0).max(105_000_000);

export const ACTIVITY_KINDS = ['activity', 'startMilestone', 'finishMilestone', 'levelOfEffort', 'summary'] as const;
export const LINK_TYPES = ['FS', 'SS', 'FF', 'SF'] as const;
/** Whose working time a lag is counted in; `elapsed` ignores calendars. */
export const LAG_CALENDARS = ['successor', 'predecessor', 'plan', 'elapsed'] as const;
export const CONSTRAINT_KINDS = [
  'startNotEarlier',
  'finishNotEarlier',
  'startNotLater',
  'finishNotLater',
  'fixedStart',
  'fixedFinish',
  'asLateAsPossible',
] as const;

/** A constraint and its moment: the start of a day for starts, the end of a day for finishes. */
export const Constraint = z.object({
  kind: z.enum(CONSTRAINT_KINDS),
  moment: MomentValue.nullable().default(null),
});
export type Constraint = z.infer<typeof Constraint>;

/** A stretch of an activity whose work is interrupted. */
export const Stretch = z.object({ start: MomentValue, finish: MomentValue });
export type Stretch = z.infer<typeof Stretch>;

/** A place on a line, in thousandths of its unit. */
export const Place = z.int().min(-2_000_000_000).max(2_000_000_000);

/** A rate on a section of a line: places in thousandths of the line's unit, distance per working day in the unit. */
export const PlaceRate = z.object({ from: Place, to: Place, perDay: z.number().positive() });

/** Ways in which an amount lies over time; uniform where nothing is said. */
export const SPREAD_SHAPES = ['uniform', 'front', 'back', 'bell'] as const;

/** How much of a resource works on an activity, in minutes of effort. */
export const Assignment = z.object({
  resource: z.string().min(1).max(100),
  effort: z.number().min(0).max(1e9),
  shape: z.enum(SPREAD_SHAPES).optional(),
});
export type Assignment = z.infer<typeof Assignment>;

/**
 * What the planner states about one activity. Dates that were typed stay apart from dates that are
 * computed (those are in the Schedule). Starts are the start of a day and finishes the end of a day
 * unless the plan works in hours.
 */
export const Activity = z.object({
  /** The unique reference from the source; never reused. */
  ref: Ref,
  name: Text(1000).default(''),
  kind: z.enum(ACTIVITY_KINDS).default('activity'),
  /** The reference of the summary that it belongs to. */
  parent: Ref.nullable().default(null),
  /** Calendar id; null means the plan's own. */
  calendar: z.string().max(100).nullable().default(null),
  duration: WorkMinutes.nullable().default(null),
  start: MomentValue.nullable().default(null),
  finish: MomentValue.nullable().default(null),
  actualStart: MomentValue.nullable().default(null),
  actualFinish: MomentValue.nullable().default(null),
  /** Percent complete as stated, 0 to 100. */
  percent: z.number().min(0).max(100).nullable().default(null),
  /** Remaining duration as stated, in working minutes. */
  remaining: WorkMinutes.nullable().default(null),
  constraint: Constraint.nullable().default(null),
  deadline: MomentValue.nullable().default(null),
  stretches: z.array(Stretch).max(200).default([]),
  onHold: z.boolean().default(false),
  /** Value per code field id. */
  codes: z.record(z.string().max(100), z.string().max(300)).default({}),
  responsible: z.array(Text(200)).max(50).default([]),
  assignments: z.array(Assignment).max(100).default([]),
  /** Budgeted and actual effort, in minutes. */
  effort: z.number().min(0).nullable().default(null),
  actualEffort: z.number().min(0).nullable().default(null),
  /** Budgeted and actual cost, in hundredths of the plan's currency. */
  cost: z.int().nullable().default(null),
  actualCost: z.int().nullable().default(null),
  /** Place of linear work, in thousandths of the line's unit. */
  from: Place.nullable().default(null),
  to: Place.nullable().default(null),
  /** The line that the places are on; null means the plan's first. */
  line: z.string().max(100).nullable().default(null),
  /** It holds its whole section of the line for as long as it lasts, instead of moving along it. */
  occupies: z.boolean().default(false),
  quantity: z.number().nullable().default(null),
  /** How much of its quantity one crew does in a working day. */
  output: z.number().min(0).nullable().default(null),
  /** Distance per working day of one crew, in the line's unit, and the number of crews. */
  rate: z.number().min(0).nullable().default(null),
  crews: z.number().min(0).nullable().default(null),
  /** Rates of one crew that hold on sections of the line only. */
  rates: z.array(PlaceRate).max(1000).default([]),
  notes: Text(10_000).default(''),
  /**
   * What the source says where it names no day: “Q3 2026” (its dates are then the first and the last that this can
   * mean), “by 17 July”, “TBC” (it then has no date). Null where both dates are days or missing.
   */
  said: z
    .object({ start: Text(200).nullable().default(null), finish: Text(200).nullable().default(null) })
    .nullable()
    .default(null),
  /**
   * When it was promised, for what states no dates of its own: the length counts where it states none, the dates where
   * the plan takes them as they stand (`asPromised`).
   */
  promised: z
    .object({ start: MomentValue.nullable().default(null), finish: MomentValue.nullable().default(null) })
    .nullable()
    .default(null),
});
export type Activity = z.infer<typeof Activity>;
export type ActivityKind = Activity['kind'];

export const Link = z.object({
  from: Ref,
  to: Ref,
  type: z.enum(LINK_TYPES).default('FS'),
  /** Minutes; negative is a lead. */
  lag: z.int().min(-105_000_000).max(105_000_000).default(0),
  lagCalendar: z.enum(LAG_CALENDARS).default('successor'),
});
export type Link = z.infer<typeof Link>;
export type LinkType = Link['type'];

export const SHAPES = ['diamond', 'circle', 'square', 'triangle', 'flag', 'star'] as const;

/** One value of a code book. */
export const CodeValue = z.object({
  code: Text(300),
  title: Text(300),
  /** `#RRGGBB`, or null for the next colour of the palette. */
  colour: z
    .string()
    .regex(/^#[0-9A-Fa-f]{6}$/)
    .nullable()
    .default(null),
  shape: z.enum(SHAPES).nullable().default(null),
  /** The code of the value that this one is a part of. */
  parent: Text(300).nullable().default(null),
  /** How many rows high a lane of it is at least; null for as many as it needs. */
  height: z.int().min(1).max(50).nullable().default(null),
});
export type CodeValue = z.infer<typeof CodeValue>;

/** What catches a condition gets a code; of several rules the first one that catches decides. */
export const CodeRule = z.object({ code: z.string().min(1).max(300), when: Condition });
export type CodeRule = z.infer<typeof CodeRule>;

/** How a code field is filled by itself: by rules in their order, or by the first characters of another field. */
export const CodeFill = z.discriminatedUnion('by', [
  z.object({ by: z.literal('rules'), rules: z.array(CodeRule).max(500) }),
  z.object({ by: z.literal('characters'), of: z.string().min(1).max(110), count: z.int().min(1).max(100) }),
]);
export type CodeFill = z.infer<typeof CodeFill>;

/** A field that sorts activities; the order of its values is the order of lanes and legends. */
export const CodeField = z.object({
  id: z
    .string()
    .min(1)
    .max(100)
    .refine((id) => !(id in Object.prototype), 'is a word that no field may be named by'),
  name: z.string().min(1).max(200),
  values: z.array(CodeValue).max(10_000).default([]),
  /** Run when it is set and again at every refresh; null where values are typed or read only. */
  fill: CodeFill.nullable().default(null),
});
export type CodeField = z.infer<typeof CodeField>;

/** A date or a period that readers must see: a season, a closure, a holiday. */
export const Period = z.object({ name: Text(200), start: MomentValue, finish: MomentValue });
export type Period = z.infer<typeof Period>;

/** Where and when no work may happen on a line: a nesting season, a tide, a possession. */
export const LineWindow = z.object({
  name: Text(200),
  from: z.int(),
  to: z.int(),
  start: MomentValue,
  finish: MomentValue,
});

/**
 * How a station or a zone is drawn through the plot: solid (a zone with its edges), dashed (a zone by its edges alone),
 * or only at the scale. A station is usually dashed, a zone a band.
 */
export const PLACE_STYLES = ['solid', 'dashed', 'scale'] as const;
export type PlaceStyle = (typeof PLACE_STYLES)[number];

/** How a station or a zone is shown: in a colour of its own, in a style of its own. */
const PlaceLooks = {
  colour: z
    .string()
    .regex(/^#[0-9A-Fa-f]{6}$/)
    .optional(),
  style: z.enum(PLACE_STYLES).optional(),
};

/** So many characters of a picture are kept with a plan. */
export const MOST_STRIP_PICTURE = 1_500_000;

/** A picture of pixels that is laid along a line: a map, an aerial view, an elevation. */
export const PlanPicture = z.object({
  id: z.string().min(1).max(100),
  name: Text(200),
  data: z
    .string()
    .max(MOST_STRIP_PICTURE)
    .regex(/^data:image\/(?:png|jpeg);base64,[A-Za-z0-9+/]+=*$/, 'a picture is a PNG or JPEG as a data URL'),
  width: z.int().min(1).max(20_000),
  height: z.int().min(1).max(20_000),
});
export type PlanPicture = z.infer<typeof PlanPicture>;

/** A point of a picture, as fractions of its width and height, that lies at a place of the line. */
export const Pin = z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1), place: z.int() });
export type Pin = z.infer<typeof Pin>;

/** A picture that lies along a line, held by its pins. */
export const MapStrip = z.object({
  id: z.string().min(1).max(100),
  name: Text(200),
  /** Id of the picture among those of the plan. */
  picture: z.string().min(1).max(100),
  pins: z.array(Pin).max(200).default([]),
});
export type MapStrip = z.infer<typeof MapStrip>;

/** Something that work runs along: a road, a pipe, a wall, the floors of a tower. Places in thousandths of its unit. */
export const Line = z.object({
  id: z.string().min(1).max(100),
  name: Text(200),
  unit: Text(40),
  from: z.int(),
  to: z.int(),
  stations: z
    .array(z.object({ name: Text(200), at: z.int(), ...PlaceLooks }))
    .max(5000)
    .default([]),
  zones: z
    .array(z.object({ name: Text(200), from: z.int(), to: z.int(), ...PlaceLooks }))
    .max(5000)
    .default([]),
  windows: z.array(LineWindow).max(5000).default([]),
  strips: z.array(MapStrip).max(20).optional(),
});
export type Line = z.infer<typeof Line>;

/** Who or what does the work. */
export const Resource = z.object({
  id: z.string().min(1).max(100),
  name: z.string().min(1).max(200),
  /** What its effort is counted in, for its reader: hours, machine hours. */
  unit: Text(40).default('hour'),
  /** Cost of an hour of it, in hundredths of the plan's currency. */
  rate: z.int().min(0).nullable().default(null),
  /** How many there are at a time; null where that is not limited. */
  limit: z.number().min(0).nullable().default(null),
  /** Calendar id; null means the plan's own. */
  calendar: z.string().max(100).nullable().default(null),
});
export type Resource = z.infer<typeof Resource>;

/** Ways to say how much of an activity is done: as the planner states it, by working time, by effort. */
export const PERCENT_MEASURES = ['stated', 'time', 'effort'] as const;
export type PercentMeasure = (typeof PERCENT_MEASURES)[number];

/** So many activities and links a plan may have. */
export const MOST_ACTIVITIES = 200_000;
export const MOST_LINKS = 1_000_000;

export const Plan = z.object({
  name: z.string().min(1).max(300),
  statusDate: MomentValue.nullable().default(null),
  /** The earliest start of what has no predecessor; null takes the earliest given date. */
  start: MomentValue.nullable().default(null),
  /** Which dates exhibits show. */
  source: z.enum(['given', 'computed']).default('given'),
  /** Whether what has only promised dates happens as it was promised; a person says so. */
  asPromised: z.boolean().default(false),
  /** Whether dates carry times of the day. */
  inHours: z.boolean().default(false),
  /** Activities with at most this total float, in working minutes, are critical. */
  criticalFloat: z.int().default(0),
  /** With retained logic, work in progress waits for unfinished predecessors. */
  retainedLogic: z.boolean().default(true),
  calendars: z.array(CalendarSpec).min(1).max(500),
  /** Id of the calendar of activities that name none. */
  calendar: z.string(),
  activities: z.array(Activity).max(MOST_ACTIVITIES),
  links: z.array(Link).max(MOST_LINKS),
  codeFields: z.array(CodeField).max(100).default([]),
  periods: z.array(Period).max(500).default([]),
  lines: z.array(Line).max(100).default([]),
  pictures: z.array(PlanPicture).max(40).default([]),
  /** What activities do to building elements, the codes that elements have, and the rules that match them. */
  matches: z.array(ElementMatch).max(100_000).default([]),
  elementCodes: z.array(ElementCode).max(100_000).default([]),
  matchRules: z.array(MatchRule).max(500).default([]),
  buildViews: z.array(BuildView).max(200).default([]),
  /** Which percent complete exhibits show unless they say otherwise. */
  percentShown: z.enum(PERCENT_MEASURES).default('stated'),
  resources: z.array(Resource).max(2000).default([]),
  /** Fields that every activity must have filled, by their ids in `select/fields.ts`. */
  required: z.array(z.string().min(1).max(110)).max(100).default([]),
  /** Findings that are well as they are, by their keys. */
  aside: z.array(z.string().max(1000)).max(20_000).default([]),
  /** How far off the promise is normal, and of which parts of the plan something else holds. */
  tolerance: Tolerance.default(DEFAULT_TOLERANCE),
  tolerances: z.array(PartTolerance).max(1000).default([]),
  /** What costs are in (ISO 4217); null where nobody has said it. */
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/)
    .nullable()
    .default(null),
  /** How many minutes of effort make a person-day, where effort is told in days; null tells it in hours. */
  effortDay: z.int().min(60).max(1440).nullable().default(null),
});
export type Plan = z.infer<typeof Plan>;

/** Shared by all activities that hold none, and frozen: plans are never changed in place. */
const EMPTY: never[] = [];
Object.freeze(EMPTY);
const ACTIVITY_DEFAULTS: Activity = {
  ...Activity.parse({ ref: '-' }),
  responsible: EMPTY,
  assignments: EMPTY,
  stretches: EMPTY,
  rates: EMPTY,
};

/** An activity with everything that is not said left open. */
export const makeActivity = (said: Partial<Activity> & { ref: string }): Activity => ({
  ...ACTIVITY_DEFAULTS,
  codes: {},
  ...said,
});

/** A plan with the usual settings where nothing else is said. */
export const makePlan = (said: Partial<Plan> & Pick<Plan, 'name' | 'calendars' | 'calendar'>): Plan => ({
  statusDate: null,
  start: null,
  source: 'given',
  asPromised: false,
  inHours: false,
  criticalFloat: 0,
  retainedLogic: true,
  activities: [],
  links: [],
  codeFields: [],
  periods: [],
  lines: [],
  pictures: [],
  matches: [],
  elementCodes: [],
  matchRules: [],
  buildViews: [],
  percentShown: 'stated',
  resources: [],
  required: [],
  aside: [],
  tolerance: DEFAULT_TOLERANCE,
  tolerances: [],
  currency: null,
  effortDay: null,
  ...said,
});

/** A field that sorts activities, without a book and without rules unless said otherwise. */
export const makeField = (said: Partial<CodeField> & Pick<CodeField, 'id' | 'name'>): CodeField => ({
  values: [],
  fill: null,
  ...said,
});

/** A value of a code book, titled by its code unless said otherwise. */
export const makeValue = (said: Partial<CodeValue> & { code: string }): CodeValue => ({
  title: said.code,
  colour: null,
  shape: null,
  parent: null,
  height: null,
  ...said,
});

/** A finish-to-start link without lag, unless said otherwise. */
export const makeLink = (said: Partial<Link> & { from: string; to: string }): Link => ({
  type: 'FS',
  lag: 0,
  lagCalendar: 'successor',
  ...said,
});

export const isMilestone = (kind: ActivityKind): boolean => kind === 'startMilestone' || kind === 'finishMilestone';
