import type { Plan } from '../plan/schema';
import { NONE } from './slots';
import type { Schedule } from './schedule';

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

/**
 * Percent complete by time, 0 to 100, of every activity and summary (weighted by duration) and of the whole plan.
 * A summary of points in time only is as complete as the share of them that is reached.
 */
export function percentByTime(plan: Plan, s: Schedule): { percent: Float64Array; whole: number } {
  const n = plan.activities.length;
  const percent = new Float64Array(n);
  const weight = new Float64Array(n);
  const done = new Float64Array(n);
  const points = new Float64Array(n);
  const reached = new Float64Array(n);
  let [allWeight, allDone] = [0, 0];
  const own = Math.max(
    0,
    plan.calendars.findIndex((c) => c.id === plan.calendar),
  );
  const byId = new Map(s.network.times.map((t) => [t.spec.id, t]));
  const { order, parent, isSummary } = s.outline;
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    const a = plan.activities[i]!;
    if (!isSummary[i] && s.start[i] !== NONE) {
      const time = (a.calendar !== null && byId.get(a.calendar)) || s.network.times[own]!;
      const m = s.network.slotMinutes;
      const length = Math.max(0, time.between(Math.floor(s.start[i]! / m), Math.ceil(s.finish[i]! / m)));
      percent[i] = a.actualFinish !== null ? 100 : (a.percent ?? 0);
      weight[i] =
        a.kind === 'levelOfEffort' ? 0 : length * (s.network.resolution === 'day' ? time.spec.minutesPerDay : 1);
      done[i] = (weight[i]! * percent[i]!) / 100;
      points[i] = 1;
      reached[i] = percent[i]! >= 100 ? 1 : 0;
    } else if (weight[i]! > 0) percent[i] = (100 * done[i]!) / weight[i]!;
    else if (points[i]! > 0) percent[i] = (100 * reached[i]!) / points[i]!;
    const p = parent[i]!;
    if (p === -1) {
      allWeight += weight[i]!;
      allDone += done[i]!;
      continue;
    }
    weight[p]! += weight[i]!;
    done[p]! += done[i]!;
    points[p]! += points[i]!;
    reached[p]! += reached[i]!;
  }
  return { percent, whole: allWeight > 0 ? (100 * allDone) / allWeight : 0 };
}
