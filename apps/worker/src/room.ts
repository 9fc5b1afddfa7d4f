import type { Access, Store } from '@clembo/store';
import type { z } from 'zod';
import { type Bounds, HandRefused, type Hands, HandStopped } from './hands/hands';

/** Why a job cannot be done, in words for the person who asked. */
export class JobRefused extends Error {}

/** What a job works with: whose it is, the store, and hands for all that is heavy or not to be trusted. */
export interface Room {
  /** The job that is done when the work is; null for work within another. */
  job: string | null;
  store: Store;
  access: Access;
  /** Has a hand do a task, and checks its answer. */
  hand<T>(task: string, input: unknown, answer: z.ZodType<T>, what: string): Promise<T>;
  step(words: string, share: number): void;
}

/** What a job leaves. */
export interface Outcome {
  result: unknown;
  file?: Uint8Array;
}

/** The most that a task may take. A workbook of 200,000 rows needs about a third of each. */
const BOUNDS: Bounds = { seconds: 120, megabytes: 2000 };

export function makeRoom(
  job: string,
  store: Store,
  access: Access,
  hands: Hands,
  signal: AbortSignal,
  step: (words: string, share: number) => void,
): Room {
  return {
    job,
    store,
    access,
    step,
    async hand(task, input, answer, what) {
      try {
        return answer.parse(await hands.work(task, input, { bounds: BOUNDS, signal, onStep: step }));
      } catch (error) {
        if (error instanceof HandRefused) throw new JobRefused(error.message);
        if (error instanceof HandStopped && error.why !== 'cancelled') throw new JobRefused(stoppedWords(error, what));
        throw error;
      }
    },
  };
}

function stoppedWords({ why }: HandStopped, what: string): string {
  const how =
    why === 'time'
      ? `took more than ${BOUNDS.seconds} seconds`
      : why === 'memory'
        ? 'needed more memory than one person may have'
        : 'ended the program that was at it';
  return `${what} ${how}, and was stopped; nothing was changed. If it is a very large file, split it, or save it again as CSV; if not, it is probably damaged.`;
}
