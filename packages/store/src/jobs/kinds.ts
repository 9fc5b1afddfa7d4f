import { FIRST_DAY, LAST_DAY, MomentValue } from '@clembo/core';
import { z } from 'zod';

/** What a page can be written as. */
export const PAGE_FORMATS = ['pdf', 'pptx', 'svg', 'png', 'html', 'xlsx', 'bpmn'] as const;
export type PageFormat = (typeof PAGE_FORMATS)[number];

/** What a folio can be written as; pictures come in an archive. */
export const FOLIO_FORMATS = ['pdf', 'pptx', 'html', 'png'] as const;
export type FolioFormat = (typeof FOLIO_FORMATS)[number];

/** So many exhibits go into one file. */
export const MOST_PAGES = 100;

/** What a plan can be written as. */
export const PLAN_FORMATS = ['csv', 'xlsx', 'ics', 'ifc', 'json', 'graphml', 'dot'] as const;
/** The plan with its exhibits, books, editions and sources, in one file. */
export const BUNDLE = 'clembo';
export type PlanFormat = (typeof PLAN_FORMATS)[number];

/** What a person wants of the plan that an intake becomes. */
export const PlanWish = z.object({
  name: z.string().trim().min(1).max(300),
  /** Nothing is taken in while any cell cannot be read. */
  strict: z.boolean().default(false),
  /** The moment at which a plan without dates starts. */
  start: MomentValue.nullable().default(null),
});
export type PlanWish = z.infer<typeof PlanWish>;

/** What a person decided of the changes that a refresh would make. */
export const Choices = z.object({
  /** Ids of changes that are refused. */
  refused: z.array(z.string().max(400)).max(200_000).default([]),
  /** Rows that are the same under another reference: the one that was, and the one that is now. */
  same: z
    .array(z.object({ was: z.string().max(200), is: z.string().max(200) }))
    .max(20_000)
    .default([]),
  /** Pairs that were said not to be the same. */
  apart: z.array(z.string().max(200)).max(20_000).default([]),
});
export type Choices = z.infer<typeof Choices>;

/** What takes longer than an answer may: each kind of job with what it needs to be done. */
export const JobInput = z.discriminatedUnion('kind', [
  /** Reads what was uploaded or pasted. Our own JSON becomes a plan, a table gets a column map. */
  z.object({ kind: z.literal('readIntake'), intake: z.uuid() }),
  /** Reads an intake otherwise: other tables of it, or by another column map. */
  z.object({ kind: z.literal('correctIntake'), intake: z.uuid(), change: z.looseObject({}) }),
  /** Lists the rows that could be taken of the table of an intake that is looked at. */
  z.object({ kind: z.literal('listRows'), intake: z.uuid() }),
  /** Makes the plan of an intake, and ends the intake. */
  z.object({ kind: z.literal('makePlan'), intake: z.uuid(), wish: PlanWish }),
  /** Finds out what an intake would change in the plan that it is to refresh. */
  z.object({ kind: z.literal('compareIntake'), intake: z.uuid() }),
  /** Refreshes the plan by what was not refused, and ends the intake. */
  z.object({ kind: z.literal('refreshPlan'), intake: z.uuid(), version: z.int() }),
  /** Writes a plan as a file that other programs read. */
  z.object({ kind: z.literal('writePlan'), plan: z.uuid(), format: z.enum([...PLAN_FORMATS, BUNDLE]) }),
  /** Begins a plan from a starter: one that everybody has, or one that the workspace keeps. */
  z.object({
    kind: z.literal('beginPlan'),
    starter: z.union([z.object({ own: z.string().max(100) }), z.object({ kept: z.uuid() })]),
    name: z.string().trim().min(1).max(300),
    day: z.int().min(FIRST_DAY).max(LAST_DAY),
  }),
  /** Keeps a plan as a starter. */
  z.object({
    kind: z.literal('keepStarter'),
    plan: z.uuid(),
    name: z.string().trim().min(1).max(200),
    note: z.string().trim().max(1000),
  }),
  /** Reads a model of what is built; one that is to take the place of another is compared with it. */
  z.object({ kind: z.literal('readModel'), model: z.uuid() }),
  /** Does what a plan does every week. */
  z.object({ kind: z.literal('weeklyRun'), plan: z.uuid() }),
  /** Writes a folio as one file that holds together. */
  z.object({ kind: z.literal('writeFolio'), folio: z.uuid(), format: z.enum(FOLIO_FORMATS) }),
  /** Composes a page that is shared, as it stands now. */
  z.object({ kind: z.literal('composeShared'), shared: z.uuid(), mark: z.string().max(20_000) }),
  /** Writes exhibits of one plan as one file. */
  z.object({
    kind: z.literal('writePages'),
    exhibits: z.array(z.uuid()).min(1).max(MOST_PAGES),
    format: z.enum(PAGE_FORMATS),
    /** Which page of an exhibit that runs over several becomes a drawing or a picture; all where nobody says. */
    sheet: z.int().min(1).max(99).optional(),
  }),
]);
export type JobInput = z.infer<typeof JobInput>;

/** Waiting for its turn, at work, or how it ended. */
export type JobState = 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';

/** Jobs about the same thing are done one after the other, in the order in which they were asked for. */
export const queueOf = (input: JobInput): string | null =>
  'intake' in input ? `intake ${input.intake}` : input.kind === 'weeklyRun' ? `week ${input.plan}` : null;
