import { NONE } from './slots';
import type { Schedule } from './model';

/** The pairs of dates that summaries roll up. */
export const datePairs = (s: Schedule): [start: Int32Array, finish: Int32Array][] => [
  [s.start, s.finish],
  [s.earlyStart, s.earlyFinish],
  [s.lateStart, s.lateFinish],
  [s.given.start, s.given.finish],
];

/** Gives summaries the earliest start and the latest finish of what they contain, in every pair of dates. */
export function rollUpDates(s: Schedule): void {
  const { order, isSummary, children } = s.outline;
  const pairs = datePairs(s);
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    if (isSummary[i]) s.atFinish[i] = 1;
    if (children[i]!.length > 0) rollUpInto(s, pairs, i);
  }
}

/** Rolls up into one summary what is directly below it. */
export function rollUpInto(s: Schedule, pairs: [Int32Array, Int32Array][], summary: number): void {
  for (const [start, finish] of pairs) {
    let [first, last] = [NONE, NONE];
    for (const c of s.outline.children[summary]!) {
      if (start[c] === NONE) continue;
      first = first === NONE ? start[c]! : Math.min(first, start[c]!);
      last = Math.max(last, finish[c]!);
    }
    start[summary] = first;
    finish[summary] = last;
  }
}
