import type { Command, Plan } from '@clembo/core';

/** What a person asks for: a change, or one step back or forth, or a point of the history. */
export type Asked =
  | { kind: 'change'; command: Command; words?: string | undefined }
  | { kind: 'turn'; undo: boolean }
  | { kind: 'turnTo'; to: number };

/** Something that was asked for and is not known to be kept. */
export interface Pending {
  /** Chosen by who asks, and never used twice. */
  id: string;
  asked: Asked;
  /** References of the activities that it changes as it is shown; none where it does not fit, or changes nothing yet. */
  touched: readonly string[];
}

/** What made a version of the plan, as its keeper tells it. */
export interface Step {
  version: number;
  /** Null for who asked for it and has it. */
  command: Command | null;
  /** The id of what was asked for; null where nobody gave one. */
  request: string | null;
}

/**
 * A plan as one person sees it while several change it. One keeper (the server) puts all that is kept in one order;
 * each version is one step. What a person asks for is shown at once and kept afterwards.
 *
 * Invariants:
 * 1. `confirmed` is the plan of `version`: all steps up to it were applied in their order, each once.
 * 2. `shown` is `confirmed` with the changes that are pending applied in their order, as far as they fit.
 * 3. One thing is under way at a time, the first of what is pending; it is sent with one id and one version until it is
 *    answered. Nothing comes to be twice, since the keeper knows the ids.
 * 4. What is pending and not under way meets no step of others that came since it was asked for (`collide` in core);
 *    what is under way is looked at by the keeper, from the version with which it was sent.
 * 5. Whatever was asked for ends once: it is kept, or refused with a reason. Nothing is overwritten unsaid. Where the
 *    plan is opened anew, all that has not ended ends with that, which the driver tells.
 */
export interface State {
  readonly confirmed: Plan;
  readonly shown: Plan;
  readonly version: number;
  readonly pending: readonly Pending[];
  /** What was sent last and is not answered; `landed` when its step has come. */
  readonly underWay: { readonly pending: Pending; readonly version: number; readonly landed: boolean } | null;
  /** The last steps of others, for what was made before they were seen. */
  readonly recent: readonly Step[];
}

/** Why something was not kept. */
export type Reason =
  | { kind: 'overtaken' }
  | { kind: 'unfit'; message: string }
  | { kind: 'said'; message: string; status: number };

export type Event =
  /** A person asks for something, having seen the plan of a version. */
  | { kind: 'asked'; id: string; asked: Asked; seen: number }
  /** Steps came, by whatever way; null where they are not all known any more and the plan is at `version`. */
  | { kind: 'steps'; version: number; steps: readonly Step[] | null }
  /** The keeper keeps it, with the steps since the version with which it was sent. */
  | { kind: 'answered'; id: string; steps: readonly Step[] | null }
  /** The keeper does not keep it. */
  | { kind: 'refused'; id: string; message: string; status: number }
  /** There was no answer, and nobody knows whether it was kept. */
  | { kind: 'unanswered'; id: string };

export type Effect =
  | { do: 'send'; id: string; version: number; asked: Asked; isAgain: boolean }
  /** What was asked for has ended. */
  | { do: 'kept'; id: string }
  | { do: 'refused'; id: string; reason: Reason }
  /** Steps behind a version are missing. */
  | { do: 'fetch'; after: number }
  /** The plan is to be opened anew: which steps led to where it is, is not known. */
  | { do: 'reopen' };

/** So many steps of others are remembered. */
export const RECENT = 60;

/** A plan as it was opened. */
export const opened = (plan: Plan, version: number): State => ({
  confirmed: plan,
  shown: plan,
  version,
  pending: [],
  underWay: null,
  recent: [],
});
