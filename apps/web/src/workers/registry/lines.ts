import { type Command, type LineMove, type PlanPicture, type RoundedTo } from '@clembo/core';
import type { LinearBrief } from '@clembo/scene';
import { type BalancedLine, type Balancing, balancedLine } from '../answers/balance';
import {
  type LineAsked,
  type LineMoving,
  type LineProposal,
  type LineWork,
  applied,
  lengthsByRates,
  lineMoving,
  lineProposal,
  lineWorkOf,
} from '../answers/lineMoves';
import { type Repeated, type Repeating, repeated } from '../answers/repeated';
import { type ComposedPage, composed } from '../composing';
import type { OpenPlan } from '../openPlan';

/** What would have to move, and the page as it would be; null where nothing would. */
export interface BalanceShown extends BalancedLine {
  page: ComposedPage | null;
}

/** Works along lines. */
export const lineAnswers = (open: OpenPlan) => ({
  /** The lengths that their rates give to the works of a line, up to whole days or weeks; null where none would change. */
  lengthsByRates(line: string, to: RoundedTo): Command | null {
    return lengthsByRates(open.held, line, to);
  },

  /** The pictures along the lines; they are large, and asked for only where they are looked at. */
  pictures(): PlanPicture[] {
    return open.held.plan.pictures;
  },

  /** How many activities have their places on a line. */
  worksOn(line: string): number {
    const { activities, lines } = open.held.plan;
    return activities.filter((a) => (a.from !== null || a.to !== null) && (a.line ?? lines[0]?.id) === line).length;
  },

  /** Where the works of a page would run to keep what is asked for from each other, and the page as it would be. */
  async balanced(brief: LinearBrief, asked: Balancing): Promise<BalanceShown> {
    const { plan, schedule } = open.held;
    const found = balancedLine({ plan, schedule, brief }, asked);
    if (found.commands.length === 0) return { ...found, page: null };
    const then = applied(open.held, { do: 'all', commands: found.commands });
    const page = await composed(open, then, { ...brief, keep: asked.days });
    return { ...found, page };
  },

  /** The same work in each of several units; null where nothing or nowhere is chosen. */
  repeated(asked: Repeating): Repeated | null {
    return repeated(open.held, asked);
  },

  /** A work along a line, to be taken hold of. */
  lineWork(ref: string): LineWork | null {
    return lineWorkOf(open.held, ref);
  },

  /** Where a work along a line would run, while it is dragged. */
  lineMoving(ref: string, move: LineMove): LineMoving | null {
    return lineMoving(open.held, ref, move);
  },

  /** What comes of a change to a work along a line, and the page as it would be. */
  async lineProposal(
    brief: LinearBrief,
    ref: string,
    asked: LineAsked,
    follow: boolean,
  ): Promise<(LineProposal & { page: ComposedPage }) | null> {
    const found = lineProposal(open.held, ref, asked, follow);
    return found && { ...found, page: await composed(open, applied(open.held, found.command), brief) };
  },
});
