import { isIgnored, latestFor } from './demands';
import { FF, FS, SF, SS } from './links';
import type { Adjacency, Dates, Floats, Network } from './model';
import { WORK } from './network';
import { FAR, NONE } from './slots';

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
  const end = time.rank(dates.earlyFinish[v]!);
  const logicEnd = dates.logicFinish[v] === dates.earlyFinish[v] ? end : time.rank(dates.logicFinish[v]!);
  const total = time.rank(dates.lateFinish[v]!) - logicEnd;
  floats.total[v] = complete ? NONE : total;
  // Work ends at a boundary, a point at a beginning stands on a slot of its own.
  const endsAtBoundary = net.duration[v]! > 0 || dates.atFinish[v] === 1;
  let free = FAR;
  for (let k = adj.outAt[v]!; k < adj.outAt[v + 1]!; k++) {
    const link = adj.out[k]!;
    const w = net.linkTo[link]!;
    if (skip[w]) continue;
    if (isIgnored(net, link)) {
      floats.slack[link] = NONE;
      continue;
    }
    const type = net.linkType[link]!;
    const begins = net.actualStart[w] === NONE ? dates.earlyStart[w]! : resumeOf(net, dates, w);
    const x = latestFor(net, dates, link, begins, dates.earlyFinish[w]!);
    // The last boundary at or before x has the rank of x, the last slot one less than that of the slot behind x.
    const slack =
      type === FS || type === FF
        ? (endsAtBoundary ? time.rank(x) : time.rank(x + 1) - 1) - end
        : time.rank(x + 1) - 1 - time.rank(dates.earlyStart[v]!);
    floats.slack[link] = slack;
    if (slack < free) free = slack;
  }
  if (free === FAR) free = time.rank(dates.finish) - end;
  // What may slip without moving a successor may not slip past the end of the plan either.
  floats.free[v] = complete ? NONE : total >= 0 && total < free ? total : free;
}

/** Float of all nodes, in any order; as {@link floatNode} gives it. */
export function floatPass(
  net: Network,
  adj: Adjacency,
  dates: Dates,
  floats: Floats,
  sequence: Int32Array,
  skip: Uint8Array,
): void {
  const { plain, begun, role, calendar, times, duration, linkTo, linkType, linkLag } = net;
  const { outAt, out } = adj;
  const { earlyStart, earlyFinish, startRank, finishRank } = dates;
  for (let n = 0; n < sequence.length; n++) {
    const v = sequence[n]!;
    const time = times[calendar[v]!]!;
    let short = plain[v] === 1;
    const end = startRank[v]! + duration[v]!;
    let free = FAR;
    for (let k = outAt[v]!, stop = outAt[v + 1]!; short && k < stop; k++) {
      const link = out[k]!;
      const w = linkTo[link]!;
      if (begun[w] !== 0 || skip[w] !== 0) short = false;
      const type = linkType[link]!;
      const x =
        linkLag[link] === 0 && type !== SF && role[w] === WORK
          ? type === FF
            ? earlyFinish[w]!
            : earlyStart[w]!
          : latestFor(net, dates, link, earlyStart[w]!, earlyFinish[w]!);
      const slack = type === FS || type === FF ? time.rank(x) - end : time.rank(x + 1) - 1 - startRank[v]!;
      floats.slack[link] = slack;
      if (slack < free) free = slack;
    }
    if (!short) {
      floatNode(net, adj, dates, floats, v, skip);
      continue;
    }
    const total = finishRank[v]! - end;
    if (free === FAR) free = time.rank(dates.finish) - end;
    floats.total[v] = total;
    floats.free[v] = total >= 0 && total < free ? total : free;
  }
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
      if (skip[w] || isIgnored(net, link)) continue;
      const type = net.linkType[link]!;
      const x = latestFor(net, dates, link, dates.earlyStart[w]!, dates.earlyFinish[w]!);
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
