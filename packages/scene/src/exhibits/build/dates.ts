import { buildRange, type BuildTimes, type Day, dayOf, type Plan } from '@clembo/core';
import type { BuildBrief } from '../../brief/build';

/** A day that a model is shown on, with a caption of its own where it has one. */
export interface ShownDate {
  day: Day;
  caption: string;
}

const EVEN: Partial<Record<BuildBrief['when'], number>> = { even2: 2, even3: 3, even4: 4, even6: 6, even8: 8 };

/**
 * The days that a brief asks for, in their order. Even ones begin behind the first step and end on the day on which the
 * last element stands. Without a status date and dates of its own there is none: nobody has said when.
 */
export function datesOf(brief: Pick<BuildBrief, 'when' | 'dates'>, plan: Plan, times: BuildTimes): ShownDate[] {
  const count = EVEN[brief.when];
  if (count !== undefined) {
    const range = buildRange(times);
    if (!range) return [];
    const days = Array.from({ length: count }, (_, k) =>
      Math.round(range.first + ((range.last - range.first) * (k + 1)) / count),
    );
    return [...new Set(days)].map((day) => ({ day, caption: '' }));
  }
  if (brief.when === 'own' && brief.dates.length > 0)
    return brief.dates.map(({ name, start }) => ({ day: dayOf(start), caption: name })).sort((a, b) => a.day - b.day);
  return plan.statusDate === null ? [] : [{ day: dayOf(plan.statusDate), caption: '' }];
}
