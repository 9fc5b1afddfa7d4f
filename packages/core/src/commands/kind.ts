import type { Command } from './command';
import type { Draft } from './draft/draft';

/**
 * A thing of a plan, from the whole to its part: `['activity', 'A12', 'start']`. Whoever writes a thing writes all
 * its parts.
 */
export type Thing = readonly string[];

/** The commands of a kind. */
export type Of<K extends Command['do']> = Extract<Command, { do: K }>;

/** All that there is to say of one kind of command, but how it is spelled, which `command.ts` says. */
export interface Kind<C> {
  /**
   * Changes the draft.
   * @returns the command that takes it back
   * @throws CommandRefused when the command is about something that the plan does not have, or has already
   */
  apply: (draft: Draft, command: C) => Command;
  /** The things that are different afterwards. */
  writes: (command: C) => Thing[];
  /** The things that have to be there, and to stand where they stand, for the command to mean what it says. */
  relies: (command: C) => Thing[];
  /** What it does, as a person would say it in a history. */
  words: (command: C) => string;
}

export const theActivity = (ref: string, ...part: string[]): Thing => ['activity', ref, ...part];
export const theField = (id: string, ...part: string[]): Thing => ['field', id, ...part];
/** The place of what something is put before. */
export const placeOf = (kind: string, before: string | null | undefined): Thing[] =>
  before === null || before === undefined ? [] : [[kind, before, 'place']];
