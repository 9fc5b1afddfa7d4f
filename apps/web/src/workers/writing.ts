import type { Asked, Effect, Event, Reason, Step } from '@clembo/sync';
import { ask, Refused } from '@/ui/ask';
import { signal } from './signal';

/** What can be taken back next, and done again, in words. */
export interface Turns {
  undo: string | null;
  redo: string | null;
}
export const NO_TURNS: Turns = { undo: null, redo: null };

/** What the server answers to something that it kept. */
export interface Written {
  steps: Step[] | null;
  turns: Turns;
  words?: string;
}

const away = signal(false);
/** Notes whether the server is to be reached. */
export const setAway = away.set;
/** Whether the server is not to be reached, so that what others do is not seen and nothing can be kept. */
export const useAway = away.use;

/** After so long the server is asked again when it did not answer, in milliseconds. */
const AGAIN = 1500;
export const pause = (): Promise<void> => new Promise((r) => setTimeout(r, AGAIN));

const asked = (planId: string, about: object, what: Asked): Promise<Written> => {
  const path = `/api/plans/${planId}`;
  switch (what.kind) {
    case 'change': {
      const { command, words } = what;
      return ask<Written>(path, { method: 'PATCH', json: { ...about, command, ...(words && { words }) } });
    }
    case 'turn':
      return ask<Written>(`${path}/turn`, { method: 'POST', json: { ...about, undo: what.undo } });
    case 'turnTo':
      return ask<Written>(`${path}/turn`, { method: 'POST', json: { ...about, to: what.to } });
  }
};

/** Sends to the server what a person asked for, and says what came of it. */
export async function send(
  planId: string,
  { id, version, asked: what }: Extract<Effect, { do: 'send' }>,
): Promise<{ event: Event; written: Written | null }> {
  try {
    const written = await asked(planId, { version, request: id }, what);
    away.set(false);
    return { event: { kind: 'answered', id, steps: written.steps }, written };
  } catch (error) {
    const { message } = error as Error;
    const status = error instanceof Refused ? error.status : 500;
    // What was typed is kept until the server is there again.
    const event: Event =
      status === 0 || status === 503 ? { kind: 'unanswered', id } : { kind: 'refused', id, message, status };
    away.set(event.kind === 'unanswered');
    return { event, written: null };
  }
}

const OVERTAKEN =
  'Somebody else changed the same just before you, so your change was not kept. Theirs is shown; make yours again if it is right.';

/** Why something was not kept, for the person who asked for it. */
export const refusalOf = (reason: Reason): Refused =>
  reason.kind === 'overtaken'
    ? new Refused(OVERTAKEN, 422)
    : new Refused(reason.message, reason.kind === 'said' ? reason.status : 409);
