import { ELAPSED, FF, FS, SF, SS } from './links';
import type { Dates, Network } from './model';
import { FINISH_POINT, WORK } from './network';
import { NONE } from './slots';

/**
 * What links demand. A link leads from a moment of its predecessor, by its lag, to a bound for a moment of its
 * successor. A moment of working time has one number whatever side of a break it is written on, so a bound for a
 * finish is the end of the last working slot before it, and a bound for a start the first working slot after it.
 */

/** True when the predecessor's end of the link is a beginning: its start, or a point that stands at a beginning. */
const leavesBeginning = (net: Network, dates: Dates, link: number): boolean => {
  const type = net.linkType[link]!;
  if (type === SS || type === SF) return true;
  const u = net.linkFrom[link]!;
  return net.role[u] !== WORK && dates.atFinish[u] === 0;
};

/** True when the link bounds an end of its successor: the finish of work, or a point that stands where something ends. */
export function boundsFinish(net: Network, dates: Dates, link: number): boolean {
  const role = net.role[net.linkTo[link]!]!;
  const type = net.linkType[link]!;
  if (role === WORK) return type === FF || type === SF;
  return role === FINISH_POINT && !leavesBeginning(net, dates, link);
}

/** Links that say nothing any more: what has begun waits only for predecessors that are still to finish, what is complete for none. */
export function isIgnored(net: Network, link: number): boolean {
  const w = net.linkTo[link]!;
  if (net.begun[w] === 0) return false;
  if (net.actualFinish[w] !== NONE || !net.retainedLogic) return true;
  const type = net.linkType[link]!;
  return type === SS || type === SF || net.actualFinish[net.linkFrom[link]!] !== NONE;
}

/** The bound that a link gives its successor, from the early dates of its predecessor. */
export function demandOf(net: Network, dates: Dates, link: number): number {
  const u = net.linkFrom[link]!;
  const type = net.linkType[link]!;
  const x = type === FS || type === FF ? dates.earlyFinish[u]! : dates.earlyStart[u]!;
  const lag = net.linkLag[link]!;
  const forFinish = boundsFinish(net, dates, link);
  if (lag === 0) {
    if (!forFinish || !leavesBeginning(net, dates, link)) return x;
    const w = net.linkTo[link]!;
    return net.times[net.calendar[w]!]!.lastFinish(x);
  }
  const clock = net.linkCalendar[link]!;
  if (clock === ELAPSED) return x + lag;
  return forFinish ? net.times[clock]!.shiftFinish(x, lag) : net.times[clock]!.shift(x, lag);
}

/** The last moment of the predecessor whose {@link demandOf} the successor meets with this start and finish. */
export function latestFor(net: Network, dates: Dates, link: number, start: number, finish: number): number {
  const w = net.linkTo[link]!;
  const forFinish = boundsFinish(net, dates, link);
  const own = net.times[net.calendar[w]!]!;
  let bound = forFinish ? finish : start;
  // A point at an end meets what bounds a beginning up to the beginning of the next working slot.
  if (!forFinish && net.role[w] === FINISH_POINT && dates.atFinish[w] === 1) bound = own.firstStart(bound);
  const lag = net.linkLag[link]!;
  if (lag === 0) return forFinish && leavesBeginning(net, dates, link) ? own.firstStart(bound) : bound;
  const clock = net.linkCalendar[link]!;
  if (clock === ELAPSED) return bound - lag;
  return forFinish ? net.times[clock]!.shiftFinishBack(bound, lag) : net.times[clock]!.shiftBack(bound, lag);
}
