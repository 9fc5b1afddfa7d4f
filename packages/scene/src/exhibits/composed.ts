import type { Body, BuildElement, Plan, Schedule } from '@clembo/core';
import type { AmountWords } from '../text/amounts';
import type { Measure } from '../text/measure';

/** The edition that an exhibit compares with. */
export interface Promised {
  plan: Plan;
  schedule: Schedule;
  /** The name of the edition. */
  name: string;
}

/** What is built: the elements of all models of a plan, and their bodies in the same order. */
export interface BuiltModel {
  elements: readonly BuildElement[];
  body: Body;
}

/** So many editions an exhibit looks at, the latest. */
export const MOST_EDITIONS = 26;

/** What an exhibit is composed from, beside its brief. */
export interface ComposeInput<Brief> {
  plan: Plan;
  schedule: Schedule;
  brief: Brief;
  measure: Measure;
  /** Writes amounts of the plan. */
  amounts: AmountWords;
  /** Which page is wanted of an exhibit that runs over several; the first where nobody says. */
  sheet?: number;
  /** Name of the edition, for the source line. */
  edition: string;
  /** The edition that the brief compares with, or null where it names none or the plan has none. */
  promised: Promised | null;
  /** All editions that were kept, the oldest first, for exhibits that look at all of them; else empty. */
  editions: readonly Promised[];
  /** The models of the plan, for exhibits that show them; null where there are none. */
  model?: BuiltModel | null;
  /** Pictures that play are wanted, of exhibits that have some. */
  play?: boolean;
}
