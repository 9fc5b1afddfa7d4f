import { boundsFinish, demandOf, isIgnored } from './demands';
import { isFixed } from './drawn';
import type { Dates, Schedule } from './model';
import { FINISH_POINT, WORK } from './network';
import { NONE } from './slots';

/** What the links of a plan are checked against: the dates that it shows, as slots of its network. */
type ShownDates = Pick<Dates, 'earlyStart' | 'earlyFinish' | 'atFinish'>;

/** Shown dates by node, to be changed; NONE for what has none. */
export const shownSlots = ({ shown }: Schedule): ShownDates => ({
  earlyStart: shown.earlyStart.slice(),
  earlyFinish: shown.earlyFinish.slice(),
  atFinish: shown.atFinish.slice(),
});

/**
 * Working slots by which a link's successor stands too early for what the link demands, in its own calendar; 0 or
 * less where the link holds, NONE where one of the two has no dates.
 */
export function shortfall(s: Schedule, dates: ShownDates, link: number): number {
  const { network: net } = s;
  const [u, w] = [net.linkFrom[link]!, net.linkTo[link]!];
  if (dates.earlyStart[u] === NONE || dates.earlyStart[w] === NONE) return NONE;
  const demand = demandOf(net, dates as Dates, link);
  const time = net.times[net.calendar[w]!]!;
  const own = boundsFinish(net, dates as Dates, link) ? dates.earlyFinish[w]! : dates.earlyStart[w]!;
  return time.rank(demand) - time.rank(own);
}

/** Positions in `plan.links` of the links that the shown dates break. */
export function brokenLinks(s: Schedule): Set<number> {
  const broken = new Set<number>();
  const dates = shownSlots(s);
  for (let l = 0; l < s.network.linkCount; l++)
    if (!isIgnored(s.network, l) && shortfall(s, dates, l) > 0) broken.add(s.network.linkOf[l]!);
  return broken;
}

/** New moments of an activity that has to go later. */
export interface Pushed {
  position: number;
  start: number;
  finish: number;
}

/**
 * What has to go later for links to hold, from some activities on along the links: by as much as these ask, and no
 * more. What has begun stays, and so does what is held.
 *
 * @param held positions of activities that stay where they are
 * @param without positions in `plan.links` of those that are left aside
 * @param from positions in `plan.links` of those that ask whether or not what they leave has moved
 */
export function pushedBehind(
  s: Schedule,
  held: ReadonlySet<number>,
  without: ReadonlySet<number>,
  from: ReadonlySet<number>,
): Pushed[] {
  const { network: net, adjacency: adj } = s;
  const dates = shownSlots(s);
  const moved = new Uint8Array(net.count);
  for (const i of held) if (net.nodeOf[i]! >= 0) moved[net.nodeOf[i]!] = 1;
  const pushed: Pushed[] = [];
  for (const v of s.order.sequence) {
    const i = net.activityOf[v]!;
    if (held.has(i) || net.begun[v] === 1 || isFixed(net, v) || dates.earlyStart[v] === NONE) continue;
    let by = 0;
    for (let k = adj.intoAt[v]!; k < adj.intoAt[v + 1]!; k++) {
      const link = adj.into[k]!;
      const asks = moved[net.linkFrom[link]!] === 1 || from.has(net.linkOf[link]!);
      if (!asks || without.has(net.linkOf[link]!)) continue;
      by = Math.max(by, shortfall(s, dates, link));
    }
    if (by <= 0) continue;
    moved[v] = 1;
    const time = net.times[net.calendar[v]!]!;
    const [start, finish] = [dates.earlyStart[v]!, dates.earlyFinish[v]!];
    if (net.role[v] === WORK) {
      const first = time.rank(start) + by;
      const length = Math.max(1, time.rank(finish) - time.rank(start));
      dates.earlyStart[v] = time.select(first);
      dates.earlyFinish[v] = time.select(first + length - 1) + 1;
    } else {
      const atEnd = net.role[v] === FINISH_POINT && dates.atFinish[v] === 1;
      const at = time.rank(start) + by;
      dates.earlyStart[v] = atEnd ? time.select(at - 1) + 1 : time.select(at);
      dates.earlyFinish[v] = dates.earlyStart[v]!;
    }
    pushed.push({
      position: i,
      start: dates.earlyStart[v]! * net.slotMinutes,
      finish: dates.earlyFinish[v]! * net.slotMinutes,
    });
  }
  return pushed;
}
