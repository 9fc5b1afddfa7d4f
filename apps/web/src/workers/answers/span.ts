import { type Day, type Schedule, shownDays } from '@clembo/core';

/** The first and the last day of everything that has dates; null where nothing has. */
export function dateSpan(s: Schedule): { first: Day; last: Day } | null {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = 0; i < s.start.length; i++) {
    const days = shownDays(s, i);
    if (!days) continue;
    first = Math.min(first, days.first);
    last = Math.max(last, days.last);
  }
  return first > last ? null : { first, last };
}
