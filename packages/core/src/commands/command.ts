import { z } from 'zod';
import { ElementMatch } from '../build/element';
import { Activity, CodeField, Link, Plan, PlanPicture, Ref } from '../plan/schema';
import { anyOf } from './anyOf';

/** Settings of a plan that a command may set. */
export const PlanSettings = anyOf(
  Plan.pick({
    name: true,
    statusDate: true,
    start: true,
    source: true,
    asPromised: true,
    criticalFloat: true,
    retainedLogic: true,
    percentShown: true,
    periods: true,
    calendar: true,
    calendars: true,
    lines: true,
    matchRules: true,
    buildViews: true,
    resources: true,
    required: true,
    aside: true,
    tolerance: true,
    tolerances: true,
    currency: true,
    effortDay: true,
  }),
);
export type PlanSettings = z.infer<typeof PlanSettings>;

/** What of an activity a command may change: all but its reference. */
const ActivityPart = anyOf(Activity.omit({ ref: true }));
export type ActivityPart = z.infer<typeof ActivityPart>;

const FieldId = CodeField.shape.id;
const PictureId = PlanPicture.shape.id;
/** Where a link stands in the list of links. */
const LinkPlace = z.int().min(0).optional();
const codesOf = <T extends z.ZodType<string>>(ref: T) => z.array(z.tuple([ref, z.string().max(300)])).max(200_000);

/** What `before` says: the one that it stands before, null for the end; where it is not said, it stays. */
const Single = z.discriminatedUnion('do', [
  z.object({ do: z.literal('setPlan'), settings: PlanSettings }),
  z.object({ do: z.literal('changeActivity'), ref: Ref, part: ActivityPart }),
  z.object({ do: z.literal('addActivity'), activity: Activity, before: Ref.nullable() }),
  /** Removes an activity with its links and matches; what it held goes up to what held it. */
  z.object({ do: z.literal('removeActivity'), ref: Ref }),
  z.object({ do: z.literal('moveActivity'), ref: Ref, before: Ref.nullable() }),
  /** At the end where no place is said. */
  z.object({ do: z.literal('addLink'), link: Link, at: LinkPlace }),
  /** Of a link that stands several times, the one at a place goes, or else the last. */
  z.object({ do: z.literal('removeLink'), link: Link, at: LinkPlace }),
  /** Adds a code field, or puts it in the place of the one with its id. */
  z.object({ do: z.literal('setCodeField'), field: CodeField, before: FieldId.nullable().optional() }),
  /** Removes a code field with the codes that activities and elements have of it. */
  z.object({ do: z.literal('removeCodeField'), id: FieldId }),
  /** Gives activities codes of a field; an empty code takes it away. */
  z.object({ do: z.literal('recode'), field: FieldId, codes: codesOf(Ref) }),
  /** Gives building elements codes of a field; an empty code takes it away. */
  z.object({ do: z.literal('codeElements'), field: FieldId, codes: codesOf(z.string().min(3).max(200)) }),
  /** Adds a picture, or puts it in the place of the one with its id. */
  z.object({ do: z.literal('setPicture'), picture: PlanPicture, before: PictureId.nullable().optional() }),
  z.object({ do: z.literal('removePicture'), id: PictureId }),
  /** Says that an activity builds elements, removes them, or that they stand for it; and takes that back. */
  z.object({ do: z.literal('matchElements'), match: ElementMatch }),
  z.object({ do: z.literal('unmatchElements'), match: ElementMatch }),
]);
/** A command that is not a list of others. */
export type Single = z.infer<typeof Single>;

/**
 * Every change to a plan. A command says what is to be different, and nothing else writes a plan; it is applied by
 * `applyCommand`, which also gives the command that takes it back. What each kind does is said in one record of
 * `table.ts`.
 */
export type Command = Single | { do: 'all'; commands: Command[] };

/** The schema of commands that come from outside. */
export const Command: z.ZodType<Command> = z.discriminatedUnion('do', [
  Single,
  z.object({ do: z.literal('all'), commands: z.array(z.lazy(() => Command)).max(200_000) }),
]);
