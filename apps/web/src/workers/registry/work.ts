import { type Command, worklist } from '@clembo/core';
import { PROMISED } from '@clembo/scene';
import { type Checks, checksOf } from '../answers/checks';
import { type SketchedRow, sketchedRows } from '../answers/sketched';
import { type AlikeRow, type WorkShown, alikeRows, mendingCommand, workShown } from '../answers/work';
import type { OpenPlan } from '../openPlan';

/** What waits to be mended, and the sketch. */
export const workAnswers = (open: OpenPlan) => ({
  work(opened: Record<string, number>): WorkShown {
    return workShown(open.checked, opened);
  },

  /** Keys of all items of a group that is open. */
  workKeys(group: string): string[] {
    const { plan, schedule } = open.checked;
    return (
      worklist(plan, schedule)
        .find((g) => g.id === group)
        ?.items.map((i) => i.key) ?? []
    );
  },

  /** What mends findings of a group: those with the keys, or all of them. */
  mend(group: string, keys: string[] | null, mend: string, answer: string): Command {
    return mendingCommand(open.checked, group, keys, mend, answer);
  },

  alike(refs: string[]): AlikeRow[] {
    return alikeRows(open.held, refs);
  },

  async checks(): Promise<Checks> {
    return checksOf(open.checked, await open.keptEdition(PROMISED));
  },

  sketched(): SketchedRow[] {
    return sketchedRows(open.held);
  },
});
