// Batches of commands beside one full schedule of the same plan; the batch of twice the plan tells how it grows.
import { applyCommand, type Command, makeActivity, makeLink, type Plan, schedulePlan } from '@clembo/core';
import { benchPlan } from './engine';
import { report, sideBySide } from './sideBySide';

const BATCH = 2000;

const batch = (plan: Plan, one: (ref: string, k: number) => Command): Command => {
  const step = Math.floor(plan.activities.length / BATCH);
  return {
    do: 'all',
    commands: Array.from({ length: BATCH }, (_, k) =>
      one(plan.activities[(k * step + 7) % plan.activities.length]!.ref, k),
    ),
  };
};

const KINDS: Record<string, (ref: string, k: number) => Command> = {
  'removals, links and all': (ref) => ({ do: 'removeActivity', ref }),
  'additions, each before a row': (ref, k) => ({
    do: 'addActivity',
    activity: makeActivity({ ref: `X${k}` }),
    before: ref,
  }),
  'moves to the end': (ref) => ({ do: 'moveActivity', ref, before: null }),
  renames: (ref, k) => ({ do: 'changeActivity', ref, part: { name: `n${k}` } }),
  'links added': (ref) => ({ do: 'addLink', link: makeLink({ from: ref, to: 'N1' }) }),
};

export function benchCommands(): void {
  const [half, whole] = [benchPlan(25_000, 2, false), benchPlan(50_000, 2, false)];
  const works: Record<string, () => unknown> = { 'one full schedule of 50,000': () => schedulePlan(whole) };
  for (const [name, one] of Object.entries(KINDS)) {
    const [a, b] = [batch(half, one), batch(whole, one)];
    works[`2,000 ${name}, of 25,000`] = () => applyCommand(half, a);
    works[`2,000 ${name}, of 50,000`] = () => applyCommand(whole, b);
  }
  const [first] = whole.activities;
  works['one rename, of 50,000'] = () =>
    applyCommand(whole, { do: 'changeActivity', ref: first!.ref, part: { name: 'n' } });
  report('Commands', sideBySide(works, 5), 'one full schedule of 50,000');
}
