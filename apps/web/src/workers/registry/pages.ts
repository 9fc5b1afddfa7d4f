import {
  type Brief,
  EXHIBITS,
  type ExhibitName,
  type HandoffsBrief,
  PROMISED,
  type PlanFacts,
  type Ready,
  type Regrouping,
  type TypedProcess,
  planFacts,
  readyBuilds,
  readyLines,
  readyMade,
  readyNetworks,
  readyTimelines,
  regroupings,
  typedFromPlan,
} from '@clembo/scene';
import { type FrontAsked, type FrontPages, frontPages } from '../answers/front';
import { type ComposedPage, composed, measure, asSvg } from '../composing';
import type { OpenPlan } from '../openPlan';

/** Pages, and what pages could be made. */
export const pageAnswers = (open: OpenPlan) => ({
  suggest(kind: ExhibitName): Brief {
    return EXHIBITS[kind].suggest(open.held.plan, open.held.schedule, open.editions.length);
  },

  /** Briefs for questions that are asked often, in the fields of this plan. */
  readyMade(): Ready[] {
    const { plan, schedule } = open.held;
    const editions = open.editions.map((e) => ({ ...e, baseline: e.id === open.promisedId }));
    return [
      ...readyTimelines(plan, schedule, editions),
      ...readyNetworks(plan, schedule),
      ...readyLines(plan, editions.length),
      ...readyBuilds(plan, editions.length),
      ...(editions.length > 0 ? readyMade(plan) : []),
    ];
  },

  /** What the plan has to say for a page of handoffs, as steps that can be typed on. */
  typedSteps(brief: HandoffsBrief): TypedProcess & { left: number } {
    return typedFromPlan(open.held.plan, open.held.schedule, brief);
  },

  /** Other ways to group a page. */
  regroupings(brief: Brief): Regrouping[] {
    return brief.kind === 'timeline' ? regroupings(open.held.plan, open.held.schedule, brief) : [];
  },

  compose(brief: Brief, sheet = 1): Promise<ComposedPage> {
    return composed(open, open.held, brief, sheet);
  },

  /** How the plan stands, in a few words each. */
  async standingFacts(): Promise<PlanFacts> {
    const { plan, schedule } = open.held;
    return planFacts(plan, schedule, await open.keptEdition(PROMISED), open.id);
  },

  /** The cover and the overview of a folio. */
  frontPages(asked: FrontAsked): FrontPages {
    return frontPages(asked, measure, asSvg);
  },
});
