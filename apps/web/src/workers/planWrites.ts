'use client';
import type { Command } from '@clembo/core';
import type { Asked } from '@clembo/sync';
import type { Remote } from 'comlink';
import { Refused } from '@/ui/ask';
import { newId } from '@/ui/newId';
import { LOOK_ONLY, mayNow } from '@/ui/useMay';
import type { PlanRoom } from './plan.worker';
import { answered, openPlan, type Opened, take } from './planRoom';
import { signal } from './signal';
import { NO_TURNS, type Turns, type Written } from './writing';

/** A command, or a question to the room that makes one; null where there is nothing to do. */
export type Wanted = Command | ((room: Remote<PlanRoom>) => Promise<Command | null>);

/** How many things that were asked for have not ended. */
const keeping = signal(0);

/** Whether anything that is shown is not kept yet. */
export const useKeeping = (): boolean => keeping.use() > 0;

/** Notes something that was asked for; what comes of it ends with the server's answer, or fails with why not. */
function promiseOf(opened: Opened, id: string): Promise<Written | null> {
  keeping.set(keeping.get() + 1);
  const end = new Promise<Written | null>((resolve, reject) => {
    const ended = () => {
      opened.waiting.delete(id);
      keeping.set(keeping.get() - 1);
    };
    opened.waiting.set(id, {
      written: null,
      done: (written) => {
        ended();
        resolve(written);
      },
      fail: (error) => {
        ended();
        reject(error);
      },
    });
  });
  end.catch(() => {});
  return end;
}

/** Asks for something once all before it is seen; it is seen at once, and kept while it is looked at. */
async function want(planId: string, make: (opened: Opened) => Promise<Asked | null>): Promise<Written | null> {
  const opened = openPlan(planId);
  if (!opened) throw new Refused('The plan is not open any more. Open it again.');
  if (!mayNow(planId).edit) throw new Refused(LOOK_ONLY);
  await opened.ready;
  // It was made in view of this, also where it has to wait.
  const seen = opened.version;
  const shown = opened.seen
    .catch(() => {})
    .then(async () => {
      const asked = await make(opened);
      if (asked === null) return null;
      const id = newId();
      const end = promiseOf(opened, id);
      opened.kept = Promise.all([opened.kept.catch(() => {}), end]);
      opened.kept.catch(() => {});
      await take(opened, { kind: 'asked', id, asked, seen });
      return { end };
    });
  opened.seen = shown;
  return (await shown)?.end ?? null;
}

/**
 * Changes the plan by a command; `words` is what the history calls it. A command that is made by a question to the room
 * is asked for once everything before it is shown. What the server refuses leaves all as it was.
 */
export const changePlan = (planId: string, wanted: Wanted, words?: string): Promise<unknown> =>
  want(planId, async (opened) => {
    const command = typeof wanted === 'function' ? await answered(opened, wanted(opened.room)) : wanted;
    return command && { kind: 'change', command, words };
  });

/** Takes the last change back, or does it again; gives what it was, and what can be taken back and done again then. */
export const turnPlan = async (planId: string, undo: boolean): Promise<{ words: string; turns: Turns }> => {
  const written = await want(planId, async () => ({ kind: 'turn', undo }));
  return { words: written?.words ?? '', turns: written?.turns ?? NO_TURNS };
};

/** Goes to a point of the history: behind the change of this number, 0 before all that is remembered. */
export const turnPlanTo = async (planId: string, to: number): Promise<string> =>
  (await want(planId, async () => ({ kind: 'turnTo', to })))?.words ?? '';

/** Ends when all that is shown of a plan is kept; fails with what could not be. */
export const whenKept = async (planId: string): Promise<void> => {
  const opened = openPlan(planId);
  if (!opened) return;
  await opened.ready;
  await opened.seen;
  await opened.kept;
};
