import { type Command, type PromiseOffer, type RowPlace, carried, duplicated, promiseOffer } from '@clembo/core';
import { PROMISED } from '@clembo/scene';
import { type About, type EditionFacts, aboutOf, editionWords } from '../answers/about';
import { type Dragging, dragged, withFollowers } from '../answers/dragging';
import { type Drawing, drawn, milestoneBehind, becomesGroup, type Drawn } from '../answers/drawn';
import { type Facts, factsOf } from '../answers/facts';
import type { OpenPlan } from '../openPlan';

/** Single activities, and what comes of moving them. */
export const activityAnswers = (open: OpenPlan) => ({
  /** Activities whose name or reference holds the text. */
  find(text: string, limit: number): { ref: string; name: string }[] {
    const wanted = text.trim().toLowerCase();
    if (wanted === '') return [];
    const found: { ref: string; name: string }[] = [];
    for (const { ref, name } of open.held.plan.activities) {
      if (!name.toLowerCase().includes(wanted) && !ref.toLowerCase().includes(wanted)) continue;
      found.push({ ref, name });
      if (found.length === limit) break;
    }
    return found;
  },

  facts(ref: string): Facts | null {
    return factsOf(open.held, ref, open.from);
  },

  /** What the margin of the ledger says of the activities that are chosen. */
  async about(refs: string[]): Promise<About | null> {
    return aboutOf({ ...open.held, promised: await open.keptEdition(PROMISED) }, refs);
  },

  /** How the kept editions had an activity, the latest first. */
  async inEditions(ref: string): Promise<EditionFacts[]> {
    const found: EditionFacts[] = [];
    for (const { id, name } of open.editions) {
      const kept = await open.keptEdition(id);
      found.push({
        edition: name,
        words: (kept && editionWords(kept.plan, kept.schedule, ref)) ?? 'not in it',
      });
    }
    return found;
  },

  /** What the promise could give to activities without dates; null where that is nothing. */
  async promiseOffer(): Promise<PromiseOffer | null> {
    const { plan, schedule } = open.held;
    return promiseOffer(plan, schedule, await open.keptEdition(PROMISED));
  },

  drawn(drawing: Drawing): Drawn | null {
    return drawn(open.held, drawing);
  },

  dragged(dragging: Dragging, follow: boolean): Command | null {
    return dragged(open.held, dragging, follow);
  },

  withFollowers(command: Command): Command {
    return withFollowers(open.held, command);
  },

  milestoneBehind(ref: string): { command: Command; ref: string } | null {
    return milestoneBehind(open.held, ref);
  },

  /** Copies of activities with all that they hold, and their references. */
  duplicated(refs: string[]): { command: Command; refs: string[] } | null {
    return duplicated(open.held.plan, refs);
  },

  carried(refs: string[], place: RowPlace, target: string): { command: Command; group: string | null } | null {
    const command = carried(open.held.plan, refs, place, target);
    return command && { command, group: becomesGroup(open.held, command) };
  },
});
