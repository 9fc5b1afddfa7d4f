import type { Plan, SelectField } from '@clembo/core';

/** What the sentence needs to know of a plan. */
export type PlanWords = Pick<Plan, 'codeFields' | 'periods'> & {
  effortDay?: number | null;
  /** Editions that were kept, the oldest last. */
  editions?: readonly { id: string; name: string }[];
  /** How deep the outline is. */
  levels?: number;
  lines?: readonly { id: string; name: string; unit: string }[];
  resources?: readonly { id: string; name: string }[];
  /** What can be asked of elements of the models of the plan. */
  elementFields?: readonly SelectField[];
  milestones?: readonly { ref: string; name: string }[];
};

/** `a`, `a and b`, `a, b and c`. */
export const listWords = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`;
