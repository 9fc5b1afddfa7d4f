export * from './brief/index';
export { suggestTimelineBrief } from './brief/suggest';
export { type BuiltModel, type ComposeInput, MOST_EDITIONS, type Promised } from './exhibits/composed';
export { typedFromPlan } from './exhibits/handoffs/process';
export { composeExhibit, composeSheets, EXHIBITS, type ExhibitKind, type ExhibitName } from './exhibits/registry';
export { blindWords } from './exhibits/timeline/blind';
export type { AmountWords } from './text/amounts';
export { type SnapshotLine, snapshotLines } from './exhibits/variance/snapshotLines';
export { TO_COME } from './exhibits/timeline/marks';
export { sumRef } from './exhibits/timeline/select';
export {
  CATEGORIES,
  GREY,
  HAIRLINE,
  HAREBELL,
  INK,
  KELP,
  MADDER,
  NEUTRAL,
  PAPER,
  SAND,
  SOFT_INK,
  tint,
} from './graph/ink';
export type { ProcessShapes } from './graph/process';
export { type Point, pointOf } from './graph/pointOf';
export { scaled } from './graph/scaled';
export * from './graph/scene';
export { Occupancy } from './labels/occupancy';
export { packRows } from './rows/pack';
export { chooseTiers, nameForm, niceRange, ticks, timeScale, type TimeUnit } from './scales/time';
export { formatDay } from './text/dates';
export { LANGUAGES } from './text/languages/index';
export { dayWords, type LanguageCode } from './text/languages/language';
export * from './text/faces';
export { createMeasure, type Measure, MISSING } from './text/measure';
export { bindFolio, type BoundFolio, type ComposedFolioPage, enlarged } from './folio/bind';
export { type SmallPage } from './folio/blocks/page';
export { coverScene } from './folio/cover';
export { type PlanFacts, planFacts } from './folio/facts';
export { fieldOf, type OverviewOf, type OverviewSize, stackedBlocks, suggestedBlocks } from './folio/layout';
export { type Overview, overviewScene } from './folio/overview';
export { type Phase, phasesOf } from './folio/phases';
export * from './folio/folio';
export { readyFolios } from './folio/ready';
export { type Box, placesOf } from './folio/places';
