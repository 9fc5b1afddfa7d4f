import { z } from 'zod';
import { BUILD_PARTS, BuildBrief } from './build';
import { HANDOFFS_PARTS, HandoffsBrief } from './handoffs';
import { LINEAR_PARTS, LinearBrief } from './linear';
import { NETWORK_PARTS, NetworkBrief } from './network';
import { type Part, type Segment, sentence } from './parts';
import { type ReadBrief, readSentence } from './read';
import { TimelineBrief } from './timeline';
import { TIMELINE_PARTS } from './timelineParts';
import {
  AMOUNTS_PARTS,
  AmountsBrief,
  BARS_PARTS,
  BarsBrief,
  CURVES_PARTS,
  CurvesBrief,
  MONTHS_PARTS,
  MonthsBrief,
  SLIPS_PARTS,
  SlipsBrief,
  SNAPSHOT_PARTS,
  SnapshotBrief,
  TREND_PARTS,
  TrendBrief,
} from './variance';
import type { PlanWords } from './words';

/** What an exhibit shows, of any kind. */
export const Brief = z.discriminatedUnion('kind', [
  TimelineBrief,
  SlipsBrief,
  BarsBrief,
  AmountsBrief,
  TrendBrief,
  CurvesBrief,
  MonthsBrief,
  SnapshotBrief,
  NetworkBrief,
  HandoffsBrief,
  LinearBrief,
  BuildBrief,
]);
export type Brief = z.infer<typeof Brief>;
export type BriefKind = Brief['kind'];
export type BriefOf<Kind extends BriefKind> = Extract<Brief, { kind: Kind }>;

/** How a kind of exhibit is spoken of. */
export interface SpokenKind<B> {
  title: string;
  /** What it is for, in a line. */
  about: string;
  schema: z.ZodType<B>;
  parts: Part<B>[];
}

export const SPOKEN: { [Kind in BriefKind]: SpokenKind<BriefOf<Kind>> } = {
  timeline: {
    title: 'Timeline',
    about: 'Activities and milestones on a time line, in lanes',
    schema: TimelineBrief,
    parts: TIMELINE_PARTS,
  },
  slips: {
    title: 'Slips',
    about: 'What moved against the promise, by how much, the worst first',
    schema: SlipsBrief,
    parts: SLIPS_PARTS,
  },
  bars: {
    title: 'Then and now',
    about: 'Where everything was promised, and where it stands now',
    schema: BarsBrief,
    parts: BARS_PARTS,
  },
  amounts: {
    title: 'Amounts',
    about: 'Effort or cost against budget, with the bands of tolerance',
    schema: AmountsBrief,
    parts: AMOUNTS_PARTS,
  },
  trend: {
    title: 'Trend',
    about: 'Where milestones were expected, from edition to edition',
    schema: TrendBrief,
    parts: TREND_PARTS,
  },
  curves: {
    title: 'Curves',
    about: 'Promised, earned and spent over time, with what is to come',
    schema: CurvesBrief,
    parts: CURVES_PARTS,
  },
  months: {
    title: 'Month by month',
    about: 'Hours that are needed, payments, what finishes, in each week or month',
    schema: MonthsBrief,
    parts: MONTHS_PARTS,
  },
  snapshot: {
    title: 'Snapshot',
    about: 'Now, promised, actual, to go and off by, in a small table',
    schema: SnapshotBrief,
    parts: SNAPSHOT_PARTS,
  },
  network: {
    title: 'Network',
    about: 'What leads to what: activities as cards, links as lines',
    schema: NetworkBrief,
    parts: NETWORK_PARTS,
  },
  handoffs: {
    title: 'Handoffs',
    about: 'Who does which step, and where work passes from hand to hand',
    schema: HandoffsBrief,
    parts: HANDOFFS_PARTS,
  },
  linear: {
    title: 'Line',
    about: 'Work along a line, in place and time',
    schema: LinearBrief,
    parts: LINEAR_PARTS,
  },
  build: {
    title: 'Model',
    about: 'The model as it stands on a date, or from date to date',
    schema: BuildBrief,
    parts: BUILD_PARTS,
  },
};

/** How the kind of a brief is spoken of. */
export const spoken = (kind: BriefKind): SpokenKind<Brief> => SPOKEN[kind] as unknown as SpokenKind<Brief>;

/** A brief of any kind as a sentence. */
export const sentenceOf = (brief: Brief, words: PlanWords): Segment[] =>
  sentence(spoken(brief.kind).parts, brief, words);

/** Reads a sentence into a brief of a kind; what it does not speak of stays as it was. */
export const readBriefSentence = (text: string, brief: Brief, words: PlanWords): ReadBrief<Brief> =>
  readSentence(spoken(brief.kind).parts, text, brief, words);

/** A brief of a kind with every part at its default. */
export const defaultBrief = <Kind extends BriefKind>(kind: Kind): BriefOf<Kind> =>
  SPOKEN[kind].schema.parse({ kind }) as BriefOf<Kind>;
