import { MomentValue } from '@clembo/core';
import { z } from 'zod';
import { STEP_KINDS, type StepKind } from '../graph/process';

export { STEP_KINDS, type StepKind };

export const STEP_WORDS: Record<StepKind, string> = {
  step: 'Step',
  start: 'Start',
  end: 'End',
  decision: 'Decision',
  document: 'Document',
  waiting: 'Waiting',
};

/** A step of a process that is typed, not taken from a plan. */
export const Step = z.object({
  id: z.string().min(1).max(40),
  name: z.string().max(200).default(''),
  kind: z.enum(STEP_KINDS).default('step'),
  /** Who does it: one lane, or several. */
  by: z.array(z.string().trim().min(1).max(120)).max(12).default([]),
  phase: z.string().trim().max(120).default(''),
  /** Moments; a finish is the end of its day. */
  start: MomentValue.nullable().default(null),
  finish: MomentValue.nullable().default(null),
});
export type Step = z.infer<typeof Step>;

/** Work that goes from one step to another; a way out of a decision has a name. */
export const StepArrow = z.object({
  from: z.string().min(1).max(40),
  to: z.string().min(1).max(40),
  words: z.string().trim().max(60).default(''),
});
export type StepArrow = z.infer<typeof StepArrow>;

export const MOST_STEPS = 300;

export const typedSteps = {
  steps: z.array(Step).max(MOST_STEPS).default([]),
  arrows: z.array(StepArrow).max(1000).default([]),
};

/** A process as it is typed. */
export interface TypedProcess {
  steps: Step[];
  arrows: StepArrow[];
}

/** An id that no step has yet. */
export function freeStepId(steps: readonly Step[]): string {
  const taken = new Set(steps.map((s) => s.id));
  let n = steps.length + 1;
  while (taken.has(`s${n}`)) n++;
  return `s${n}`;
}

/**
 * A new step behind another one, led to by it. What the other one led to comes after the new one, unless it is a
 * decision: that gets one more way.
 *
 * @returns the process with the step, and its id
 */
export function stepAfter({ steps, arrows }: TypedProcess, after: string | null): TypedProcess & { id: string } {
  const id = freeStepId(steps);
  const at = steps.findIndex((s) => s.id === after);
  const before = steps[at];
  const step = Step.parse({ id, by: before?.by ?? [], phase: before?.phase ?? '' });
  const placed = [...steps.slice(0, at + 1), step, ...steps.slice(at + 1)];
  if (!before) return { id, steps: [...steps, step], arrows };
  const chained =
    before.kind === 'decision' ? arrows : arrows.map((a) => (a.from === before.id ? { ...a, from: id } : a));
  return { id, steps: placed, arrows: [...chained, { from: before.id, to: id, words: '' }] };
}

/** A process without a step: what led to it leads to what came after it, where one of the two is a single step. */
export function withoutStep({ steps, arrows }: TypedProcess, id: string): TypedProcess {
  const [into, out] = [arrows.filter((a) => a.to === id), arrows.filter((a) => a.from === id)];
  const bridges =
    into.length === 1 || out.length === 1
      ? into.flatMap((a) => out.map((b): StepArrow => ({ from: a.from, to: b.to, words: a.words || b.words })))
      : [];
  const kept = arrows.filter((a) => a.from !== id && a.to !== id);
  const known = new Set(kept.map((a) => `${a.from} ${a.to}`));
  return {
    steps: steps.filter((s) => s.id !== id),
    arrows: [...kept, ...bridges.filter((a) => a.from !== a.to && !known.has(`${a.from} ${a.to}`))],
  };
}
