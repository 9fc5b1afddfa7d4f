import type { Plan } from '@clembo/core';
import { BuildBrief } from './build';
import { PROMISED } from './parts';
import type { Ready } from './ready';

/** Ready-made pages of the model of a plan, where any of its elements has work. */
export function readyBuilds(plan: Plan, editions: number): Ready[] {
  if (plan.matches.length === 0) return [];
  const colour = plan.codeFields.find((f) => f.values.length >= 2 && f.values.length <= 8)?.id ?? null;
  const base = BuildBrief.parse({ kind: 'build', page: 'A3 landscape', colour });
  const compare = editions > 0 ? PROMISED : null;
  return [
    ...(plan.statusDate === null
      ? []
      : [
          {
            name: 'The model today',
            about: 'What stands, what is under way and what is behind, on the status date',
            brief: { ...base, compare },
          },
        ]),
    {
      name: 'The model from start to finish',
      about: 'Six dates from left to right, with what came between them',
      brief: { ...base, when: 'even6', loose: false },
    },
    {
      name: 'The model storey by storey',
      about: 'Storeys lifted apart, so that what is inside is seen',
      brief: { ...base, compare, when: plan.statusDate === null ? 'even4' : 'status', lift: 5, loose: false },
    },
  ];
}
