import { ELAPSED, FF, FS, SF, SS } from './links';
import { FINISH_POINT, type Network, START_POINT } from './network';
import { FAR, NONE } from './slots';
import type { Adjacency } from './order';

/**
 * Early and late dates of the nodes, in slots: starts are the working slot at which work begins, finishes the
 * boundary after the last one. The method is the critical path method with the four link types of the
 * precedence diagram, worked in calendars: a link holds when `shift(predecessor, lag)` is not after the
 * successor, and each date is the first (last) slot or boundary of the activity's own calendar for which all
 * of them hold.
 */
export interface Dates {
  earlyStart: Int32Array;
  earlyFinish: Int32Array;
  lateStart: Int32Array;
  lateFinish: Int32Array;
  /** Where the links alone would lead the finish of an activity with a fixed date; else the early finish. */
  logicFinish: Int32Array;
  /** 1 for a point in time that stands at the end of a day (or minute) rather than at a beginning. */
  atFinish: Uint8Array;
  /** Of plain work: how many working slots of its calendar lie before its early start, and before its late finish. */
  startRank: Int32Array;
  finishRank: Int32Array;
  /** The last early finish of all. */
  finish: number;
}

export function emptyDates(count: number): Dates {
  const ints = () => new Int32Array(count).fill(NONE);
  return {
    earlyStart: ints(),
    earlyFinish: ints(),
    lateStart: ints(),
    lateFinish: ints(),
    logicFinish: ints(),
    atFinish: new Uint8Array(count),
    startRank: new Int32Array(count),
    finishRank: new Int32Array(count),
    finish: NONE,
  };
}

/** The boundary that a link's lag leads to from x. */
function lagged(net: Network, link: number, x: number): number {
  const lag = net.linkLag[link]!;
  if (lag === 0) return x;
  const clock = net.linkCalendar[link]!;
  return clock === ELAPSED ? x + lag : net.times[clock]!.shift(x, lag);
}

/** The last x that the link's lag does not lead past `bound`. */
export function laggedBack(net: Network, link: number, bound: number): number {
  const lag = net.linkLag[link]!;
  if (lag === 0) return bound;
  const clock = net.linkCalendar[link]!;
  return clock === ELAPSED ? bound - lag : net.times[clock]!.shiftBack(bound, lag);
}

/**
 * Early dates of all nodes, each after its predecessors. Plain work, which most of a plan is, goes a short way to
 * the dates that {@link forwardNode} gives.
 */
export function forwardPass(net: Network, adj: Adjacency, dates: Dates, sequence: Int32Array): void {
  const { plain, calendar, times, duration, linkFrom, linkType, linkLag } = net;
  const { intoAt, into } = adj;
  const { earlyStart, earlyFinish, logicFinish, atFinish, startRank } = dates;
  const demand = Math.max(net.planStart, net.status);
  for (let n = 0; n < sequence.length; n++) {
    const v = sequence[n]!;
    if (plain[v] === 0) {
      forwardNode(net, adj, dates, v);
      continue;
    }
    let byStart = demand;
    let byFinish = NONE;
    for (let k = intoAt[v]!, end = intoAt[v + 1]!; k < end; k++) {
      const link = into[k]!;
      const type = linkType[link]!;
      const u = linkFrom[link]!;
      let t = type === FS || type === FF ? earlyFinish[u]! : earlyStart[u]!;
      if (linkLag[link] !== 0) t = lagged(net, link, t);
      if (type === FS || type === SS) {
        if (t > byStart) byStart = t;
      } else if (t > byFinish) byFinish = t;
    }
    const time = times[calendar[v]!]!;
    const length = duration[v]!;
    let first = time.rank(byStart);
    if (byFinish !== NONE) {
      const latest = time.rank(byFinish - 1) + 1 - length;
      if (latest > first) first = latest;
    }
    const start = time.select(first);
    startRank[v] = first;
    earlyStart[v] = start;
    earlyFinish[v] = logicFinish[v] = length === 1 ? start + 1 : time.select(first + length - 1) + 1;
    atFinish[v] = 1;
  }
}

/** Early dates of one node from those of its predecessors. */
export function forwardNode(net: Network, { intoAt, into }: Adjacency, dates: Dates, v: number): void {
  const time = net.times[net.calendar[v]!]!;
  const { earlyStart, earlyFinish } = dates;
  const duration = net.duration[v]!;
  const actualFinish = net.actualFinish[v]!;
  const actualStart = net.actualStart[v]!;
  if (actualFinish !== NONE) {
    earlyFinish[v] = dates.logicFinish[v] = actualFinish;
    earlyStart[v] =
      actualStart !== NONE
        ? actualStart
        : duration > 0
          ? Math.min(time.startOf(actualFinish, duration), actualFinish)
          : actualFinish;
    dates.atFinish[v] = net.role[v] === START_POINT ? 0 : 1;
    return;
  }

  let byStart = NONE;
  let byFinish = net.finishNotBefore[v]!;
  const started = actualStart !== NONE;
  if (!started || net.retainedLogic) {
    for (let k = intoAt[v]!; k < intoAt[v + 1]!; k++) {
      const link = into[k]!;
      const u = net.linkFrom[link]!;
      const type = net.linkType[link]!;
      // Work that has begun waits only for predecessors that are still to finish.
      if (started && (type === SS || type === SF || net.actualFinish[u] !== NONE)) continue;
      const t = lagged(net, link, type === FS || type === FF ? earlyFinish[u]! : earlyStart[u]!);
      if (type === FS || type === SS) {
        if (t > byStart) byStart = t;
      } else if (t > byFinish) byFinish = t;
    }
  }

  if (started) {
    earlyStart[v] = actualStart;
    if (net.status === NONE) {
      earlyFinish[v] = duration > 0 ? time.finishOf(time.firstStart(actualStart), duration) : actualStart;
    } else {
      const remaining = net.remaining[v]!;
      const resume = time.firstStart(Math.max(net.status, actualStart, byStart));
      let finish = remaining > 0 ? time.finishOf(resume, remaining) : Math.max(time.lastFinish(resume), actualStart);
      if (byFinish !== NONE) finish = Math.max(finish, time.firstFinish(byFinish));
      earlyFinish[v] = finish;
    }
    dates.logicFinish[v] = earlyFinish[v]!;
    dates.atFinish[v] = 1;
    return;
  }

  let demand = Math.max(net.planStart, net.startNotBefore[v]!);
  if (net.status > demand) demand = net.status;
  let start: number;
  let finish: number;
  if (duration > 0) {
    // Working slots by their number: the first that may be worked, or the one that lets the last come late enough.
    let first = time.rank(byStart > demand ? byStart : demand);
    if (byFinish !== NONE) {
      const latest = time.rank(byFinish - 1) + 1 - duration;
      if (latest > first) first = latest;
    }
    start = time.select(first);
    dates.startRank[v] = first;
    finish = duration === 1 ? start + 1 : time.select(first + duration - 1) + 1;
    dates.logicFinish[v] = finish;
    if (net.fixedStart[v] !== NONE) {
      start = time.firstStart(net.fixedStart[v]!);
      finish = time.finishOf(start, duration);
    } else if (net.fixedFinish[v] !== NONE) {
      finish = time.lastFinish(net.fixedFinish[v]!);
      start = time.startOf(finish, duration);
    }
    dates.atFinish[v] = 1;
  } else {
    const beginning = time.firstStart(demand);
    const bound = byStart > byFinish ? byStart : byFinish;
    let point = beginning;
    let atFinish = 0;
    if (bound !== NONE) {
      const held = net.role[v] === FINISH_POINT ? time.firstFinish(bound) : time.firstStart(bound);
      if (net.role[v] === FINISH_POINT ? time.rank(held) >= time.rank(beginning) : held > beginning) {
        point = held;
        atFinish = net.role[v] === FINISH_POINT ? 1 : 0;
      }
    }
    dates.logicFinish[v] = point;
    if (net.fixedStart[v] !== NONE) {
      point = net.fixedStart[v]!;
      atFinish = 0;
    } else if (net.fixedFinish[v] !== NONE) {
      point = net.fixedFinish[v]!;
      atFinish = 1;
    }
    start = finish = point;
    dates.atFinish[v] = atFinish;
  }
  earlyStart[v] = start;
  earlyFinish[v] = finish;
}

/** Late dates of all nodes, each before its successors; as {@link backwardNode} gives them. */
export function backwardPass(net: Network, adj: Adjacency, dates: Dates, sequence: Int32Array, skip: Uint8Array): void {
  const { plain, begun, calendar, times, duration, linkTo, linkType, linkLag } = net;
  const { outAt, out } = adj;
  const { lateStart, lateFinish, finishRank } = dates;
  for (let n = sequence.length - 1; n >= 0; n--) {
    const v = sequence[n]!;
    let short = plain[v] === 1;
    let byFinish = dates.finish;
    let byStart = FAR;
    for (let k = outAt[v]!, end = outAt[v + 1]!; short && k < end; k++) {
      const link = out[k]!;
      const w = linkTo[link]!;
      if (begun[w] !== 0 || skip[w] !== 0) short = false;
      const type = linkType[link]!;
      let x = type === FS || type === SS ? lateStart[w]! : lateFinish[w]!;
      if (linkLag[link] !== 0) x = laggedBack(net, link, x);
      if (type === FS || type === FF) {
        if (x < byFinish) byFinish = x;
      } else if (x < byStart) byStart = x;
    }
    if (!short) {
      backwardNode(net, adj, dates, v, skip);
      continue;
    }
    const time = times[calendar[v]!]!;
    const length = duration[v]!;
    let last = time.rank(byFinish) - 1;
    if (byStart !== FAR) {
      const latest = time.rank(byStart + 1) - 2 + length;
      if (latest < last) last = latest;
    }
    const finish = time.select(last) + 1;
    finishRank[v] = last + 1;
    lateStart[v] = length === 1 ? finish - 1 : time.select(last - length + 1);
    lateFinish[v] = finish;
  }
}

/** Late dates of one node from those of its successors and from the last finish of the plan. */
export function backwardNode(net: Network, { outAt, out }: Adjacency, dates: Dates, v: number, skip: Uint8Array): void {
  const { lateStart, lateFinish, earlyStart, earlyFinish } = dates;
  if (net.actualFinish[v] !== NONE) {
    lateStart[v] = earlyStart[v]!;
    lateFinish[v] = earlyFinish[v]!;
    return;
  }
  const time = net.times[net.calendar[v]!]!;
  const started = net.actualStart[v] !== NONE;
  let byFinish = Math.min(dates.finish, net.finishNotAfter[v]!);
  let byStart = net.startNotAfter[v]!;
  for (let k = outAt[v]!; k < outAt[v + 1]!; k++) {
    const link = out[k]!;
    const w = net.linkTo[link]!;
    if (skip[w] || net.actualFinish[w] !== NONE) continue;
    const type = net.linkType[link]!;
    const successorStarted = net.actualStart[w] !== NONE;
    if (successorStarted && (!net.retainedLogic || type === SS || type === SF)) continue;
    const x = laggedBack(net, link, type === FS || type === SS ? lateStart[w]! : lateFinish[w]!);
    if (type === FS || type === FF) {
      if (x < byFinish) byFinish = x;
    } else if (x < byStart) byStart = x;
  }
  const length = started && net.status !== NONE ? net.remaining[v]! : net.duration[v]!;
  if (length > 0) {
    const end = time.rank(byFinish);
    let finish = time.select(end - 1) + 1;
    let start = length === 1 ? finish - 1 : time.select(end - length);
    if (!started && byStart !== FAR) {
      const latest = time.lastStart(byStart);
      if (latest < start) {
        start = latest;
        finish = time.finishOf(start, length);
      }
    }
    if (net.fixedStart[v] !== NONE || net.fixedFinish[v] !== NONE) {
      if (earlyFinish[v]! < finish) {
        start = earlyStart[v]!;
        finish = earlyFinish[v]!;
      }
    }
    lateStart[v] = start;
    lateFinish[v] = finish;
    if (net.plain[v]) dates.finishRank[v] = time.rank(finish);
    return;
  }
  const bound = byStart < byFinish ? byStart : byFinish;
  let point = dates.atFinish[v] ? time.lastFinish(bound) : time.lastStart(bound);
  if (net.fixedStart[v] !== NONE || net.fixedFinish[v] !== NONE) point = Math.min(point, earlyFinish[v]!);
  lateStart[v] = lateFinish[v] = point;
}
