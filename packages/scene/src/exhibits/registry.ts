import type { Plan, Schedule } from '@clembo/core';
import { type Brief, type BriefKind, type BriefOf, defaultBrief, SPOKEN, type SpokenKind } from '../brief/kinds';
import { suggestTimelineBrief } from '../brief/suggest';
import type { Scene } from '../graph/scene';
import type { ComposeInput } from './composed';
import { composeBuild, suggestBuild } from './build/build';
import { composeHandoffs, suggestHandoffs } from './handoffs/handoffs';
import { composeLinear, suggestLinear } from './linear/linear';
import { composeNetwork, suggestNetwork } from './network/network';
import { composeTimeline } from './timeline/timeline';
import { composeAmounts } from './variance/amounts';
import { composeBars } from './variance/bars';
import { composeCurves } from './variance/curves';
import { composeMonths } from './variance/months';
import { composeSlips } from './variance/slips';
import { composeSnapshot } from './variance/snapshot';
import { suggestFor } from './variance/suggest';
import { composeTrend } from './variance/trend';

/** All that is known of a kind of exhibit. Nothing outside this registry asks which kind a brief is of. */
export interface ExhibitKind<B> extends SpokenKind<B> {
  /** A brief with every part at its default. */
  defaults(): B;
  /** A first brief for a plan; `editions` says whether there is one to compare with. */
  suggest(plan: Plan, schedule: Schedule, editions?: number): B;
  /** Whether it looks at all editions that were kept. */
  allEditions: boolean;
  /** Whether it says nothing without an edition to compare with. */
  needsPromise: boolean;
  /** Whether it shows the models of the plan. */
  needsModel: boolean;
  compose(input: ComposeInput<B>): Scene;
}

function kind<Kind extends BriefKind>(
  name: Kind,
  compose: (input: ComposeInput<BriefOf<Kind>>) => Scene,
  more: Partial<ExhibitKind<BriefOf<Kind>>> = {},
): ExhibitKind<BriefOf<Kind>> {
  return {
    ...SPOKEN[name],
    defaults: () => defaultBrief(name),
    suggest: (plan) => suggestFor(plan, defaultBrief(name)),
    allEditions: false,
    needsPromise: true,
    needsModel: false,
    compose,
    ...more,
  };
}

export const EXHIBITS: { [Kind in BriefKind]: ExhibitKind<BriefOf<Kind>> } = {
  timeline: kind('timeline', composeTimeline, { suggest: suggestTimelineBrief, needsPromise: false }),
  slips: kind('slips', composeSlips),
  bars: kind('bars', composeBars),
  amounts: kind('amounts', composeAmounts),
  trend: kind('trend', composeTrend, { allEditions: true }),
  curves: kind('curves', composeCurves),
  months: kind('months', composeMonths),
  snapshot: kind('snapshot', composeSnapshot),
  network: kind('network', composeNetwork, {
    suggest: (plan, schedule) => suggestNetwork(plan, schedule, defaultBrief('network')),
    needsPromise: false,
  }),
  handoffs: kind('handoffs', composeHandoffs, {
    suggest: (plan, schedule) => suggestHandoffs(plan, schedule, defaultBrief('handoffs')),
    needsPromise: false,
  }),
  linear: kind('linear', composeLinear, {
    suggest: (plan, schedule) => suggestLinear(plan, schedule, defaultBrief('linear')),
    needsPromise: false,
  }),
  build: kind('build', composeBuild, {
    suggest: (plan, _, editions) => suggestBuild(plan, defaultBrief('build'), editions ?? 0),
    needsPromise: false,
    needsModel: true,
  }),
};
export type ExhibitName = BriefKind;

const composer = (name: BriefKind) => EXHIBITS[name] as unknown as ExhibitKind<Brief>;

/** Composes all pages of an exhibit. */
export function composeSheets(input: ComposeInput<Brief>): Scene[] {
  const first = composeExhibit({ ...input, sheet: 1 });
  const of = first.sheet?.of ?? 1;
  return [first, ...Array.from({ length: of - 1 }, (_, k) => composeExhibit({ ...input, sheet: k + 2 }))];
}

/** Composes an exhibit of any kind: its first page, or the one that is asked for. */
export const composeExhibit = (input: ComposeInput<Brief>): Scene => composer(input.brief.kind).compose(input);
