'use client';
import { type HandoffsBrief, type Step, type StepArrow, stepAfter, withoutStep } from '@clembo/scene/brief';
import { useMemo } from 'react';

/** What a person does to the steps of a process, as changes of its brief. */
export interface Steps {
  steps: readonly Step[];
  arrows: readonly StepArrow[];
  /** Everyone who is named, in the order in which they come. */
  hands: string[];
  phases: string[];
  change: (id: string, part: Partial<Step>) => void;
  /** Adds a step behind another one, after a change of that; gives the id of the new one. */
  add: (after: string | null, part?: Partial<Step>) => string;
  remove: (id: string) => void;
  /** Puts a step so many places further on in the list. */
  shift: (id: string, by: number) => void;
  lead: (from: string, to: string) => void;
  say: (from: string, to: string, words: string) => void;
  unlead: (from: string, to: string) => void;
}

/** A question is a decision. */
const kindFor = (step: Step): Step =>
  step.kind === 'step' && step.name.endsWith('?') ? { ...step, kind: 'decision' } : step;

export function useSteps(brief: HandoffsBrief, put: (part: Partial<HandoffsBrief>) => void): Steps {
  return useMemo(() => {
    const { steps, arrows } = brief;
    const changed = (id: string, part: Partial<Step>): Step[] =>
      steps.map((s) => (s.id === id ? ('name' in part ? kindFor({ ...s, ...part }) : { ...s, ...part }) : s));
    const isArrow = (a: StepArrow, from: string, to: string) => a.from === from && a.to === to;
    return {
      steps,
      arrows,
      hands: [...new Set(steps.flatMap((s) => s.by))],
      phases: [...new Set(steps.map((s) => s.phase).filter(Boolean))],
      change: (id, part) => put({ steps: changed(id, part) }),
      add: (after, part = {}) => {
        const { id, ...process } = stepAfter({ steps: after === null ? steps : changed(after, part), arrows }, after);
        put(process);
        return id;
      },
      remove: (id) => put(withoutStep({ steps, arrows }, id)),
      shift: (id, by) => {
        const at = steps.findIndex((s) => s.id === id);
        const to = Math.min(steps.length - 1, Math.max(0, at + by));
        if (at < 0 || at === to) return;
        const list = steps.filter((s) => s.id !== id);
        list.splice(to, 0, steps[at]!);
        put({ steps: list });
      },
      lead: (from, to) => {
        if (from !== to && !arrows.some((a) => isArrow(a, from, to)))
          put({ arrows: [...arrows, { from, to, words: '' }] });
      },
      say: (from, to, words) => put({ arrows: arrows.map((a) => (isArrow(a, from, to) ? { ...a, words } : a)) }),
      unlead: (from, to) => put({ arrows: arrows.filter((a) => !isArrow(a, from, to)) }),
    };
  }, [brief, put]);
}
