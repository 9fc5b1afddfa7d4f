import { varianceReader } from '../compare/variance';
import type { Plan } from '../plan/schema';
import type { Schedule } from '../schedule/model';

/** How activities stand against their promise: counts of rows and the rows themselves. */
export interface Lateness {
  /** Any working day after the promise. */
  behind: number[];
  /** Of those, what is beyond the tolerance of its part of the plan. */
  late: number[];
  ahead: number[];
  onTime: number[];
  /** What is not in the promise, or has no date. */
  without: number[];
  /** The one that is furthest behind. */
  worst: { position: number; days: number } | null;
}

/** The fact of how many are behind, late, ahead; groups among the positions are passed over. */
export function latenessOf(
  plan: Plan,
  s: Schedule,
  promised: { plan: Plan; schedule: Schedule },
  positions: Iterable<number>,
): Lateness {
  const read = varianceReader(plan, s, promised.plan, promised.schedule);
  const found: Lateness = { behind: [], late: [], ahead: [], onTime: [], without: [], worst: null };
  for (const i of positions) {
    if (s.outline.isSummary[i]) continue;
    const v = read(i);
    const days = v?.finishDays ?? null;
    if (days === null) found.without.push(i);
    else if (days === 0) found.onTime.push(i);
    else if (days < 0) found.ahead.push(i);
    else {
      found.behind.push(i);
      if (v!.dateBand === 'watch' || v!.dateBand === 'breach') found.late.push(i);
      if (found.worst === null || days > found.worst.days) found.worst = { position: i, days };
    }
  }
  return found;
}
