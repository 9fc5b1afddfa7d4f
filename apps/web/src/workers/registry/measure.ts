import { statusEnd } from '@clembo/core';
import { PROMISED } from '@clembo/scene';
import { type EditionsAsked, type EditionsShown, editionsShown } from '../answers/editions';
import {
  type Behind,
  type Measuring,
  type RowsShown,
  type StandingShown,
  rowsBehind,
  standingShown,
} from '../answers/measure';
import { type RoundShown, type RoundWould, roundShown, roundWould } from '../answers/round';
import type { OpenPlan } from '../openPlan';

/** How the plan stands. */
export const measureAnswers = (open: OpenPlan) => ({
  /** How the plan stands against an edition; null where there is none, or the plan has no status date. */
  async standing(measuring: Measuring): Promise<StandingShown | null> {
    const promised = await open.keptEdition(measuring.against);
    const moment = statusEnd(open.held.plan);
    return promised && moment !== null ? standingShown(open.held, promised, measuring, moment, open.locale) : null;
  },

  async rowsBehind(measuring: Measuring, behind: Behind): Promise<RowsShown> {
    const promised = await open.keptEdition(measuring.against);
    const moment = statusEnd(open.held.plan);
    return promised && moment !== null
      ? rowsBehind(open.held, promised, measuring, moment, behind)
      : { count: 0, rows: [] };
  },

  /** What the status date asks, with what the latest kept edition said; null for a plan without a status date. */
  async round(weeks: number): Promise<RoundShown | null> {
    const moment = statusEnd(open.held.plan);
    if (moment === null) return null;
    const [promised, last] = [await open.keptEdition(PROMISED), await open.keptEdition(open.editions[0]?.id ?? null)];
    return roundShown({ ...open.held, promised }, last, moment, 7 * weeks);
  },

  roundWould(ref: string, field: string, text: string): RoundWould {
    return roundWould(open.held, ref, field, text);
  },

  /** How the plan came to stand as it does, over the editions that were kept. */
  async overEditions(asked: EditionsAsked): Promise<EditionsShown> {
    const kept = await open.latestEditions();
    return editionsShown(open.held, kept, open.editions.length - kept.length, asked);
  },
});
