import { type Day, dayOf, NONE, type Schedule, shownDays } from '@clembo/core';

/** The first and the last day of everything that has dates; null where nothing has. */
export function dateSpan(s: Schedule): { first: Day; last: Day } | null {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = 0; i < s.start.length; i++) {
    if (s.start[i] === NONE) continue;
    // A point is shown a day before its moment at the earliest: what lies well within needs no closer look.
    if (dayOf(s.start[i]!) > first && dayOf(s.finish[i]!) < last) continue;
    const days = shownDays(s, i)!;
    first = Math.min(first, days.first);
    last = Math.max(last, days.last);
  }
  return first > last ? null : { first, last };
}
