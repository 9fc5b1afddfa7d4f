import { FAR, FF, FS, type Network, NONE, SF, SS } from './network';
import type { Adjacency } from './order';
import { type Dates, laggedBack } from './passes';

/** Float in slots of the activity's own calendar; NONE where it is not defined (what is complete has none). */
export interface Floats {
  total: Int32Array;
  free: Int32Array;
  /** How far, by link, the predecessor can slip before the successor's early date moves. */
  slack: Int32Array;
}

/**
 * Total float is the working time between early and late finish. Free float is the smallest slack of the
 * links that leave an activity, and for one without successors its total float.
 */
export function floatNode(
  net: Network,
  adj: Adjacency,
  dates: Dates,
  floats: Floats,
  v: number,
  skip: Uint8Array,
): void {
  const time = net.times[net.calendar[v]!]!;
  const complete = net.actualFinish[v] !== NONE;
  floats.total[v] = complete ? NONE : time.rank(dates.lateFinish[v]!) - time.rank(dates.logicFinish[v]!);
  let free = FAR;
  for (let k = adj.outAt[v]!; k < adj.outAt[v + 1]!; k++) {
    const link = adj.out[k]!;
    const w = net.linkTo[link]!;
    if (skip[w]) continue;
    const slack = linkSlack(net, dates, link);
    floats.slack[link] = slack;
    if (net.actualFinish[w] === NONE && slack < free) free = slack;
  }
  if (free === FAR) free = time.between(dates.earlyFinish[v]!, dates.finish);
  // What may slip without moving a successor may not slip past the end of the plan either.
  const total = floats.total[v]!;
  floats.free[v] = complete ? NONE : total >= 0 && total < free ? total : free;
}

/** Slack of one link in the predecessor's working time, against the successor's early dates. */
function linkSlack(net: Network, dates: Dates, link: number): number {
  const u = net.linkFrom[link]!;
  const w = net.linkTo[link]!;
  const type = net.linkType[link]!;
  const time = net.times[net.calendar[u]!]!;
  const remainderStart = net.actualStart[w] !== NONE ? resumeOf(net, dates, w) : dates.earlyStart[w]!;
  const x = laggedBack(net, link, type === FS || type === SS ? remainderStart : dates.earlyFinish[w]!);
  if (type === FS || type === FF) {
    const last = net.duration[u]! > 0 || dates.atFinish[u] ? time.lastFinish(x) : time.lastStart(x);
    return time.rank(last) - time.rank(dates.earlyFinish[u]!);
  }
  return time.rank(time.lastStart(x)) - time.rank(dates.earlyStart[u]!);
}

/** The slot at which the remaining work of an activity in progress begins. */
function resumeOf(net: Network, dates: Dates, v: number): number {
  const time = net.times[net.calendar[v]!]!;
  const remaining = net.remaining[v]!;
  return net.actualFinish[v] === NONE && remaining > 0 && net.status !== NONE
    ? time.startOf(dates.earlyFinish[v]!, remaining)
    : dates.earlyStart[v]!;
}

/**
 * Moves what shall start as late as possible to the end of its free float, last ones first, so that a chain
 * of such activities moves together and no successor's early date changes.
 */
export function placeAsLate(net: Network, adj: Adjacency, dates: Dates, sequence: Int32Array, skip: Uint8Array): void {
  for (let k = sequence.length - 1; k >= 0; k--) {
    const v = sequence[k]!;
    if (!net.asLate[v] || net.actualStart[v] !== NONE || net.actualFinish[v] !== NONE) continue;
    const time = net.times[net.calendar[v]!]!;
    let byFinish = dates.finish;
    let byStart = FAR;
    for (let i = adj.outAt[v]!; i < adj.outAt[v + 1]!; i++) {
      const link = adj.out[i]!;
      const w = net.linkTo[link]!;
      if (skip[w] || net.actualFinish[w] !== NONE) continue;
      const type = net.linkType[link]!;
      const x = laggedBack(net, link, type === FS || type === SS ? dates.earlyStart[w]! : dates.earlyFinish[w]!);
      if (type === SS || type === SF) byStart = Math.min(byStart, x);
      else byFinish = Math.min(byFinish, x);
    }
    const duration = net.duration[v]!;
    if (duration === 0) {
      const bound = Math.min(byFinish, byStart);
      const point = dates.atFinish[v] ? time.lastFinish(bound) : time.lastStart(bound);
      if (point > dates.earlyFinish[v]!) dates.earlyStart[v] = dates.earlyFinish[v] = dates.logicFinish[v] = point;
      continue;
    }
    let start = time.startOf(time.lastFinish(byFinish), duration);
    if (byStart !== FAR) start = Math.min(start, time.lastStart(byStart));
    if (start <= dates.earlyStart[v]!) continue;
    dates.earlyStart[v] = start;
    dates.earlyFinish[v] = dates.logicFinish[v] = time.finishOf(start, duration);
  }
}
