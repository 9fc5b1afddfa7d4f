import { inOrder, leastGap, timesAt } from '@clembo/core';
import type { Flow } from './select';

/** The least time between two works that follow each other, and where it is. */
export interface Gap {
  refs: [leader: string, follower: string];
  place: number;
  /** When the leader has left the place, and when the follower comes there. */
  from: number;
  to: number;
  days: number;
  /** Less than is asked for. */
  short: boolean;
}

/** So many are drawn: the least. */
const MOST = 12;

/** Each work with the one that follows it most closely of all that share places with it. */
export function gapsOf(flows: readonly Flow[], keep: number): Gap[] {
  const found: Gap[] = [];
  for (const a of flows) {
    let best: Gap | null = null;
    for (const b of flows) {
      if (a === b || inOrder(a, b)[0] !== a) continue;
      const least = leastGap(a.points, b.points);
      if (!least || least.gap < 0 || (best && least.gap >= best.days)) continue;
      const left = timesAt(a.points, least.place);
      if (!left) continue;
      best = {
        refs: [a.ref, b.ref],
        place: least.place,
        from: left.last,
        to: least.time,
        days: least.gap,
        short: least.gap < keep - 1e-9,
      };
    }
    if (best && best.days > 0.01) found.push(best);
  }
  return found.sort((x, y) => x.days - y.days).slice(0, MOST);
}
