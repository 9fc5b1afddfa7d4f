import type { Plan, Schedule } from '@clembo/core';
import type { z } from 'zod';
import { TimelineBrief } from '../brief/brief';
import { briefSentence, type PlanWords, type Segment } from '../brief/sentence';
import { suggestTimelineBrief } from '../brief/suggest';
import type { Scene } from '../graph/scene';
import type { ComposeInput } from './composed';
import { composeTimeline } from './timeline/timeline';

/** All that is known of a kind of exhibit. Nothing outside this registry asks which kind a brief is of. */
export interface ExhibitKind<Brief> {
  /** What it is called. */
  title: string;
  schema: z.ZodType<Brief>;
  /** A brief with every part at its default. */
  defaults(): Brief;
  /** A first brief for a plan; `editions` says whether there is one to compare with. */
  suggest(plan: Plan, schedule: Schedule, editions: number): Brief;
  toWords(brief: Brief, words: PlanWords): Segment[];
  compose(input: ComposeInput<Brief>): Scene;
}

const timeline: ExhibitKind<TimelineBrief> = {
  title: 'Timeline',
  schema: TimelineBrief,
  defaults: () => TimelineBrief.parse({ kind: 'timeline' }),
  suggest: suggestTimelineBrief,
  toWords: briefSentence,
  compose: composeTimeline,
};

export const EXHIBITS = { timeline } as const;
export type ExhibitName = keyof typeof EXHIBITS;

/** What an exhibit shows, of any kind. */
export const Brief = TimelineBrief;
export type Brief = TimelineBrief;

/** Composes an exhibit of any kind. */
export const composeExhibit = (input: ComposeInput<Brief>): Scene => EXHIBITS[input.brief.kind].compose(input);
/** A brief of any kind as a sentence. */
export const sentenceOf = (brief: Brief, words: PlanWords): Segment[] => EXHIBITS[brief.kind].toWords(brief, words);
