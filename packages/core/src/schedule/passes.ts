import { boundsFinish, demandOf, isIgnored, latestFor } from './demands';
import { FF, FS, SF, SS } from './links';
import type { Adjacency, Dates, Network } from './model';
import { START_POINT, WORK } from './network';
import { FAR, NONE } from './slots';

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
      if (type === FS || type === SS) {
        const t = linkLag[link] !== 0 ? demandOf(net, dates, link) : type === FS ? earlyFinish[u]! : earlyStart[u]!;
        if (t > byStart) byStart = t;
      } else {
        const t = demandOf(net, dates, link);
        if (t > byFinish) byFinish = t;
      }
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
    const worked = duration > 0 ? Math.min(time.startOf(actualFinish, duration), actualFinish) : actualFinish;
    earlyStart[v] = actualStart !== NONE ? actualStart : worked;
    dates.atFinish[v] = net.role[v] === START_POINT ? 0 : 1;
    return;
  }

  let byStart = NONE;
  let byFinish = net.finishNotBefore[v]!;
  for (let k = intoAt[v]!; k < intoAt[v + 1]!; k++) {
    const link = into[k]!;
    if (isIgnored(net, link) || earlyFinish[net.linkFrom[link]!] === NONE) continue;
    const t = demandOf(net, dates, link);
    if (boundsFinish(net, dates, link)) {
      if (t > byFinish) byFinish = t;
    } else if (t > byStart) byStart = t;
  }
  if (actualStart !== NONE) forwardStarted(net, dates, v, byStart, byFinish);
  else if (duration > 0) forwardWork(net, dates, v, byStart, byFinish);
  else forwardPoint(net, dates, v, byStart, byFinish);
}

/** Work in progress: its start is history, what remains resumes at the status date and waits for what is unfinished. */
function forwardStarted(net: Network, dates: Dates, v: number, byStart: number, byFinish: number): void {
  const time = net.times[net.calendar[v]!]!;
  const started = net.actualStart[v]!;
  let finish: number;
  if (net.status === NONE) {
    finish = net.duration[v]! > 0 ? time.finishOf(time.firstStart(started), net.duration[v]!) : started;
  } else {
    const remaining = net.remaining[v]!;
    const resume = time.firstStart(Math.max(net.status, started, byStart));
    finish = remaining > 0 ? time.finishOf(resume, remaining) : Math.max(time.lastFinish(resume), started);
    if (byFinish !== NONE) finish = Math.max(finish, time.firstFinish(byFinish));
  }
  dates.earlyStart[v] = started;
  dates.logicFinish[v] = finish;
  dates.earlyFinish[v] = net.fixedFinish[v] === NONE ? finish : Math.max(started, time.lastFinish(net.fixedFinish[v]!));
  dates.atFinish[v] = 1;
}

/** Work with a length that has not begun: the first slot that may be worked, or the one that lets the last come late enough. */
function forwardWork(net: Network, dates: Dates, v: number, byStart: number, byFinish: number): void {
  const time = net.times[net.calendar[v]!]!;
  const duration = net.duration[v]!;
  let first = time.rank(Math.max(net.planStart, net.startNotBefore[v]!, net.status, byStart));
  if (byFinish !== NONE) first = Math.max(first, time.rank(byFinish - 1) + 1 - duration);
  let start = time.select(first);
  let finish = duration === 1 ? start + 1 : time.select(first + duration - 1) + 1;
  dates.startRank[v] = first;
  dates.logicFinish[v] = finish;
  if (net.fixedStart[v] !== NONE) {
    start = time.firstStart(net.fixedStart[v]!);
    finish = time.finishOf(start, duration);
  } else if (net.fixedFinish[v] !== NONE) {
    finish = time.lastFinish(net.fixedFinish[v]!);
    start = time.startOf(finish, duration);
  }
  dates.earlyStart[v] = start;
  dates.earlyFinish[v] = finish;
  dates.atFinish[v] = 1;
}

/** A point in time: at the end of what leads to it, where that is not before what bounds its beginning. */
function forwardPoint(net: Network, dates: Dates, v: number, byStart: number, byFinish: number): void {
  const time = net.times[net.calendar[v]!]!;
  const beginning = time.firstStart(Math.max(net.planStart, net.startNotBefore[v]!, net.status, byStart));
  let point = beginning;
  let atFinish = 0;
  if (byFinish !== NONE) {
    const reached = time.rank(byFinish);
    const least = byStart === NONE ? time.rank(beginning) : Math.max(time.rank(beginning), time.rank(byStart) + 1);
    // What ends in a break of this calendar is followed by the next beginning.
    if (time.lastFinish(byFinish) !== byFinish) point = Math.max(beginning, time.firstStart(byFinish));
    else if (reached >= least) [point, atFinish] = [byFinish, 1];
  }
  dates.logicFinish[v] = point;
  if (net.fixedStart[v] !== NONE) [point, atFinish] = [net.fixedStart[v]!, 0];
  else if (net.fixedFinish[v] !== NONE) [point, atFinish] = [net.fixedFinish[v]!, 1];
  dates.earlyStart[v] = dates.earlyFinish[v] = point;
  dates.atFinish[v] = atFinish;
}

/** Late dates of all nodes, each before its successors; as {@link backwardNode} gives them. */
export function backwardPass(net: Network, adj: Adjacency, dates: Dates, sequence: Int32Array, skip: Uint8Array): void {
  const { plain, begun, role, calendar, times, duration, linkTo, linkType, linkLag } = net;
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
      const x =
        linkLag[link] === 0 && type !== SF && role[w] === WORK
          ? type === FF
            ? lateFinish[w]!
            : lateStart[w]!
          : latestFor(net, dates, link, lateStart[w]!, lateFinish[w]!);
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

/**
 * Late dates of one node from those of its successors and from the last finish of the plan.
 *
 * @param broken by link, 1 where the dates that are shown break it already: it then bounds by the date that its
 *   successor has, and not by the one that it could have
 */
export function backwardNode(
  net: Network,
  { outAt, out }: Adjacency,
  dates: Dates,
  v: number,
  skip: Uint8Array,
  broken: Uint8Array | null = null,
): void {
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
    if (skip[w] || isIgnored(net, link)) continue;
    const type = net.linkType[link]!;
    const x =
      broken?.[link] === 1
        ? latestFor(net, dates, link, earlyStart[w]!, earlyFinish[w]!)
        : latestFor(net, dates, link, lateStart[w]!, lateFinish[w]!);
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
  // A point at a beginning lies on the plan's last day at the latest, not at the end of it.
  if (!dates.atFinish[v] && byFinish === dates.finish && net.resolution === 'day') byFinish -= 1;
  const bound = byStart < byFinish ? byStart : byFinish;
  let point = dates.atFinish[v] ? time.lastFinish(bound) : time.lastStart(bound);
  // What is drawn on a day off may stay on it.
  if (point < earlyFinish[v]! && earlyFinish[v]! <= bound) point = earlyFinish[v]!;
  if (net.fixedStart[v] !== NONE || net.fixedFinish[v] !== NONE) point = Math.min(point, earlyFinish[v]!);
  lateStart[v] = lateFinish[v] = point;
}
