import { firstBoundary, lastBoundary } from '../time/days';
import type { Schedule } from './model';
import { NONE } from './slots';

/** A pair of dates that summaries roll up, with on which side of its day a point of it stands. */
interface DatePair {
  start: Int32Array;
  finish: Int32Array;
  atFinish: Uint8Array;
  /** Where the ends come from; of a summary, where the end that decides comes from. */
  startFrom?: Uint8Array;
  finishFrom?: Uint8Array;
}

/** The pairs of dates that summaries roll up. */
export const datePairs = (s: Schedule): DatePair[] => [
  s,
  { start: s.earlyStart, finish: s.earlyFinish, atFinish: s.atFinish },
  { start: s.lateStart, finish: s.lateFinish, atFinish: s.atFinish },
  s.given,
];

/** Gives summaries the earliest start and the latest finish of what they contain, in every pair of dates. */
export function rollUpDates(s: Schedule): void {
  const { order, isSummary, children } = s.outline;
  const pairs = datePairs(s);
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    if (isSummary[i]) s.atFinish[i] = s.given.atFinish[i] = 1;
    if (children[i]!.length > 0) rollUpInto(s, pairs, i);
  }
}

/**
 * Rolls up into one summary what is directly below it: from the first day that it holds to the last, on whichever side
 * of its day a point stands.
 */
export function rollUpInto(s: Schedule, pairs: readonly DatePair[], summary: number): void {
  for (const { start, finish, atFinish, startFrom, finishFrom } of pairs) {
    let [first, last] = [NONE, NONE];
    let [firstOf, lastOf] = [-1, -1];
    for (const c of s.outline.children[summary]!) {
      if (start[c] === NONE) continue;
      const span = { start: start[c]!, finish: finish[c]!, atFinish: atFinish[c] === 1 };
      const [begins, ends] = [firstBoundary(span), lastBoundary(span)];
      if (first === NONE || begins < first) [first, firstOf] = [begins, c];
      if (ends > last) [last, lastOf] = [ends, c];
    }
    start[summary] = first;
    finish[summary] = last;
    if (startFrom) startFrom[summary] = firstOf < 0 ? 0 : startFrom[firstOf]!;
    if (finishFrom) finishFrom[summary] = lastOf < 0 ? 0 : finishFrom[lastOf]!;
  }
}
