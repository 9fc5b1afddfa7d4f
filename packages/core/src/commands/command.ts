import { z } from 'zod';
import { ElementMatch } from '../build/element';
import { Activity, CodeField, Link, Plan, PlanPicture, Ref } from '../plan/schema';

/** Any of the fields of an object, none of them filled in when it is not said. */
function anyOf<Shape extends z.ZodRawShape>(object: z.ZodObject<Shape>) {
  const bare = Object.entries(object.shape).map(([key, schema]) => [
    key,
    (schema instanceof z.ZodDefault ? schema.unwrap() : schema) as z.ZodType,
  ]);
  return z.strictObject(Object.fromEntries(bare)).partial() as unknown as z.ZodType<
    Partial<z.infer<z.ZodObject<Shape>>>
  >;
}

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
export const ActivityPart = anyOf(Activity.omit({ ref: true }));

/**
 * Every change to a plan. A command says what is to be different, and nothing else writes a plan; it is applied by
 * {@link applyCommand}, which also gives the command that takes it back.
 */
export type Command =
  | { do: 'setPlan'; settings: PlanSettings }
  | { do: 'changeActivity'; ref: string; part: Partial<Omit<Activity, 'ref'>> }
  | { do: 'addActivity'; activity: Activity; before: string | null }
  | { do: 'removeActivity'; ref: string }
  | { do: 'moveActivity'; ref: string; before: string | null }
  | { do: 'addLink'; link: Link }
  | { do: 'removeLink'; link: Link }
  | { do: 'setCodeField'; field: CodeField; before: string | null }
  | { do: 'removeCodeField'; id: string }
  | { do: 'setPicture'; picture: PlanPicture }
  | { do: 'removePicture'; id: string }
  | { do: 'matchElements'; match: ElementMatch }
  | { do: 'unmatchElements'; match: ElementMatch }
  | { do: 'codeElements'; field: string; codes: [element: string, code: string][] }
  | { do: 'recode'; field: string; codes: [ref: string, code: string][] }
  | { do: 'all'; commands: Command[] };

/** The schema of commands that come from outside. */
export const Command: z.ZodType<Command> = z.discriminatedUnion('do', [
  z.object({ do: z.literal('setPlan'), settings: PlanSettings }),
  z.object({ do: z.literal('changeActivity'), ref: Ref, part: ActivityPart }),
  /** `before` is the reference that it stands before; null for the end. */
  z.object({ do: z.literal('addActivity'), activity: Activity, before: Ref.nullable() }),
  z.object({ do: z.literal('removeActivity'), ref: Ref }),
  z.object({ do: z.literal('moveActivity'), ref: Ref, before: Ref.nullable() }),
  z.object({ do: z.literal('addLink'), link: Link }),
  z.object({ do: z.literal('removeLink'), link: Link }),
  /** Adds a code field, or puts it in the place of the one with its id; `before` is the id of the field behind it. */
  z.object({ do: z.literal('setCodeField'), field: CodeField, before: CodeField.shape.id.nullable() }),
  /** Removes a code field with the codes that activities have of it. */
  z.object({ do: z.literal('removeCodeField'), id: CodeField.shape.id }),
  /** Adds a picture, or puts it in the place of the one with its id. */
  z.object({ do: z.literal('setPicture'), picture: PlanPicture }),
  z.object({ do: z.literal('removePicture'), id: PlanPicture.shape.id }),
  /** Says that an activity builds elements, removes them, or that they stand for it; and takes that back. */
  z.object({ do: z.literal('matchElements'), match: ElementMatch }),
  z.object({ do: z.literal('unmatchElements'), match: ElementMatch }),
  /** Gives building elements codes of a field; an empty code takes it away. */
  z.object({
    do: z.literal('codeElements'),
    field: CodeField.shape.id,
    codes: z.array(z.tuple([z.string().min(3).max(200), z.string().max(300)])).max(200_000),
  }),
  /** Gives activities codes of a field; an empty code takes it away. */
  z.object({
    do: z.literal('recode'),
    field: CodeField.shape.id,
    codes: z.array(z.tuple([Ref, z.string().max(300)])).max(200_000),
  }),
  z.object({ do: z.literal('all'), commands: z.array(z.lazy(() => Command)).max(200_000) }),
]);
