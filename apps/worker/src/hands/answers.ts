import {
  BuildElement,
  type ModelChanges,
  type PackedPlan,
  packPlan,
  unpackPlan,
  type WholeEdition,
  type WholePlan,
} from '@clembo/core';
import { ColumnMap, type IntakePreview, IntakeState } from '@clembo/formats';
import { Brief, Folio } from '@clembo/scene';
import type { OpenComment, PageFormat, PlanWish, StoredSource } from '@clembo/store';
import { z } from 'zod';

/** The tables of an intake, packed as they are kept. */
interface FromTables {
  tables: Uint8Array;
}
/** `known` are column maps that were corrected or confirmed before. */
export interface ReadInput {
  files: { name: string; bytes: Uint8Array }[];
  known: unknown[];
}
export type ChangeInput = FromTables & { state: unknown; change: unknown; known: unknown[] };
export type RowsInput = FromTables & { state: unknown };
export type MakeInput = FromTables & { state: unknown; wish: PlanWish };
export type AgainInput = FromTables & {
  state: unknown;
  current: PackedPlan;
  /** The sources that the plan was read from last. */
  last: Pick<StoredSource, 'map' | 'content' | 'aliases'>[];
  same: { was: string; is: string }[];
};
export interface ModelInput {
  file: string;
  key: string;
  bytes: Uint8Array;
  /** The model that it is to replace, as it was read. */
  before: { elements: BuildElement[]; geometry: Uint8Array } | null;
}
/** Models as they are kept. */
export type SentModels = { elements: BuildElement[]; geometry: Uint8Array }[];
/** A plan that pages are of. */
export interface SentPlanOfPages {
  id: string;
  plan: PackedPlan;
  edition: string;
  /** The models of the plan, where an exhibit shows them. */
  models: SentModels | null;
  /** What was promised, for facts about it; null where there is none, or nobody asks. */
  promised: { plan: PackedPlan; name: string } | null;
}
export interface PagesInput {
  plans: SentPlanOfPages[];
  /** A folio that binds the pages: its content, whose pages are those of the list in their order, by their ids. */
  folio: { content: unknown } | null;
  pages: {
    name: string;
    /** Which of the plans it is of. */
    of: number;
    /** As the folio names it. */
    id?: string;
    /** What is open among what was said about it, where that is shown with it. */
    said?: OpenComment[];
    brief: unknown;
    promised: { plan: PackedPlan; name: string } | null;
    /** All editions that were kept, the oldest first, where the exhibit looks at all of them. */
    editions: { plan: PackedPlan; name: string }[];
  }[];
  /** Whose notation numbers are written in (BCP 47). */
  locale: string;
  format: PageFormat;
  /** The page that is wanted of an exhibit that runs over several; null for all. */
  sheet: number | null;
  /** Where they are shown to whoever has their address: how, and whether they follow their plans. */
  shared?: { lay: 'pages' | 'wall'; live: boolean };
  /** Milliseconds since 1970: the date that the file carries. */
  date: number;
}

// What comes back from a hand was made of a stranger's file: it is checked before it is kept. Plans are checked by
// the store, which takes in nothing else.
const Bytes = z.custom<Uint8Array>((value) => value instanceof Uint8Array);
// They travel as columns: many small objects take their time from one process to another.
const Packed = z.custom<PackedPlan>((value) => typeof value === 'object' && value !== null);
const PlanLike = Packed.transform(unpackPlan);
const MadeSource = z.object({
  name: z.string(),
  sheet: z.string().nullable(),
  map: ColumnMap.nullable(),
  content: Bytes.nullable(),
  aliases: z.record(z.string(), z.string()),
  problems: z.array(z.unknown()),
});
export type MadeSource = z.infer<typeof MadeSource>;
const PlaceOf = z
  .object({ refs: z.array(z.string()), parts: z.array(z.int()), rows: z.array(z.int()) })
  .transform(({ refs, parts, rows }) => new Map(refs.map((ref, k) => [ref, [parts[k]!, rows[k]!] as const])));
export const packPlaces = (places: ReadonlyMap<string, readonly [part: number, row: number]>) => ({
  refs: [...places.keys()],
  parts: [...places.values()].map(([part]) => part),
  rows: [...places.values()].map(([, row]) => row),
});
export const MadePlan = z.object({
  plan: Packed,
  promised: Packed.nullable(),
  placeOf: PlaceOf,
  sources: z.array(MadeSource),
  maps: z.array(ColumnMap),
  brief: Brief,
});
export type MadePlan = z.infer<typeof MadePlan>;
/** As a hand sends it. */
export type SentPlan = z.input<typeof MadePlan>;
/** A plan with all that belongs to it; its plans travel as columns. */
const WholeLike = z.object({
  editions: z.array(z.object({ plan: PlanLike }).loose()),
  exhibits: z.array(z.object({ name: z.string(), brief: Brief })),
  folios: z.array(z.object({ name: z.string(), content: Folio })),
  sources: z.array(z.object({ content: Bytes.nullable() }).loose()),
  models: z.array(z.object({ geometry: Bytes }).loose()),
});
export type SentWhole = Omit<WholePlan, 'editions'> & {
  editions: (Omit<WholeEdition, 'plan'> & { plan: PackedPlan })[];
};
export const packWhole = (whole: WholePlan): SentWhole => ({
  ...whole,
  editions: whole.editions.map((e) => ({ ...e, plan: packPlan(e.plan) })),
});
export const unpackWhole = (sent: SentWhole): WholePlan => ({
  ...sent,
  editions: sent.editions.map((e) => ({ ...e, plan: unpackPlan(e.plan) })),
});
export const Previewed = z.object({
  state: IntakeState,
  preview: z.custom<IntakePreview>((value) => typeof value === 'object' && value !== null && 'part' in value),
});
export type Previewed = z.infer<typeof Previewed>;
export const ReadResult = z.union([
  z.object({ made: MadePlan }),
  z.object({ whole: WholeLike.transform((whole) => whole as unknown as WholePlan) }),
  Previewed.extend({ tables: Bytes }),
]);
export type SentReading = { made: SentPlan } | { whole: SentWhole } | (Previewed & { tables: Uint8Array });
export const Rows = z.object({ rows: z.array(z.int()), refs: z.array(z.string()), names: z.array(z.string()) });
export const ReadAgainResult = z.object({
  base: PlanLike,
  incoming: PlanLike,
  placeOf: PlaceOf,
  sources: z.array(MadeSource),
  maps: z.array(ColumnMap),
  alike: z.array(z.object({ was: z.string(), is: z.string(), wasName: z.string(), name: z.string() })),
  doubtful: z.array(z.string()),
});
export type ReadAgainResult = z.infer<typeof ReadAgainResult>;
export type SentAgain = z.input<typeof ReadAgainResult>;
export const MadeModel = z.object({
  elements: z.array(BuildElement),
  geometry: Bytes,
  assigned: z.array(z.object({ activity: z.string(), name: z.string(), elements: z.array(z.string()) })),
  notes: z.array(z.string()),
  changes: z.custom<ModelChanges | null>((value) => value === null || typeof value === 'object'),
});
export type SentModel = z.input<typeof MadeModel>;
export const WrittenPage = z.object({ bytes: Bytes });
export type WrittenPage = z.infer<typeof WrittenPage>;
