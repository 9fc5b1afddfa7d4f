import type { Arrangement, Command, Looking, Test } from '@clembo/core';
import { type Consequences, consequencesOf } from '../answers/consequences';
import { type FoundCell, type FoundCells, foundCells, likeTest, replacedCells } from '../answers/finding';
import {
  type DayMeant,
  type LedgerShape,
  type LedgerShown,
  type Sight,
  addedRows,
  dayMeant,
  editText,
  lengthMeant,
  typedCells,
} from '../answers/ledger';
import { type Neighbours, neighboursOf } from '../answers/neighbours';
import { type Suggestion, suggestionsFor } from '../answers/suggestions';
import { LedgerSight } from '../ledgerSight';
import type { OpenPlan } from '../openPlan';

/** The rows of the ledger and what is typed into them. */
export function ledgerAnswers(open: OpenPlan) {
  const sight = new LedgerSight(open);
  return {
    /** Arranges the ledger; its lines are then asked for as they come in sight. */
    async arrange(arrangement: Arrangement, closed: string[], seen: Sight): Promise<LedgerShape> {
      return (await sight.arrange(arrangement, closed)).shape(seen);
    },

    lines(from: number, to: number): LedgerShown[] {
      return sight.view?.window(from, to) ?? [];
    },

    /** Where an activity stands, and the groups of the outline that hold it, outermost first. */
    lineOf(ref: string): { place: number; holders: string[] } {
      const { plan, schedule } = open.held;
      const holders: string[] = [];
      for (
        let i = schedule.outline.parent[schedule.outline.indexOf.get(ref) ?? -1] ?? -1;
        i !== -1;
        i = schedule.outline.parent[i]!
      )
        holders.unshift(plan.activities[i]!.ref);
      return { place: sight.view?.placeOf(ref) ?? -1, holders };
    },

    refsOn(from: number, to: number): string[] {
      return sight.view?.refs(from, to) ?? [];
    },

    found(looking: Looking, fields: string[]): FoundCells {
      return sight.view ? foundCells(sight.view, looking, fields) : { cells: [], open: 0 };
    },

    replaced(cells: FoundCell[], looking: Looking, by: string): { ref: string; field: string; text: string }[] {
      return sight.view ? replacedCells(open.held, sight.view, cells, looking, by) : [];
    },

    /** What only rows with the same value answer; null for what the plan does not have. */
    like(ref: string, field: string): Test | null {
      return likeTest(open.held, ref, field);
    },

    copied(from: number, to: number, columns: number[]): string[][] {
      return sight.view?.table(from, to, columns) ?? [];
    },

    typed(cells: { ref: string; field: string; text: string }[]): ReturnType<typeof typedCells> {
      return typedCells(open.held, cells);
    },

    added(behind: string | null, fields: string[], rows: string[][]): ReturnType<typeof addedRows> {
      return addedRows(open.held, behind, fields, rows);
    },

    consequences(command: Command, refs: string[]): Consequences {
      return consequencesOf(open.held, command, refs);
    },

    suggestions(field: string, text: string): Suggestion[] {
      return suggestionsFor(open.held, field, text);
    },

    /** What leads to an activity and what follows it. */
    neighbours(ref: string): Neighbours {
      return neighboursOf(open.held, ref, (i) => sight.view?.strip(i) ?? null);
    },

    editText(ref: string, field: string, shown: string): string {
      return editText(open.held, ref, field, shown);
    },

    lengthMeant(ref: string, text: string): string {
      return lengthMeant(open.held, ref, text);
    },

    dayMeant(ref: string, text: string): DayMeant {
      return dayMeant(open.held, ref, text);
    },

    /** Groups of the outline below a level, to be closed. */
    closable(level: number): string[] {
      const { plan, schedule: s } = open.held;
      return plan.activities.flatMap((a, i) =>
        s.outline.children[i]!.length > 0 && s.outline.level[i]! >= level ? [a.ref] : [],
      );
    },
  };
}
