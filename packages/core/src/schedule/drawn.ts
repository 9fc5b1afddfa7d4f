import type { Plan } from '../plan/schema';
import { isMilestone } from '../plan/schema';
import { isIgnored } from './demands';
import { floatNode } from './float';
import { COMPUTED, EXPECTED, STATED, UNKNOWN } from './given';
import type { Adjacency, Dates, Floats, GivenDates, Network, Order } from './model';
import { WORK } from './network';
import { backwardNode, emptyDates, forwardNode } from './passes';
import { finishSlot, NONE, startSlot } from './slots';

/**
 * Dates of a plan as drawn, with the late dates and the float that follow from them.
 *
 * What is stated stands. A fixed date stands before what is stated otherwise. What states no date and hangs on others
 * by links is put where these lead it; where one of them has no date it has none either. Late dates go backward from
 * the last of what is drawn, over links, lags, fixed dates and deadlines, with the lengths that are drawn; a link that
 * the drawn dates break bounds its predecessor by the date that its successor has, so that float there is negative.
 */
export interface Drawn {
  /** The network with the lengths that are drawn. */
  network: Network;
  dates: Dates;
  floats: Floats;
  /** Where the dates of each node come from, as positions in `ORIGINS`. */
  startFrom: Uint8Array;
  finishFrom: Uint8Array;
}

/** Works out {@link Drawn}; requires nodes in order and their stated dates. */
export function drawDates(plan: Plan, net: Network, adj: Adjacency, order: Order, given: GivenDates): Drawn {
  const dates = emptyDates(net.count);
  const startFrom = new Uint8Array(net.count);
  const finishFrom = new Uint8Array(net.count);
  const { sequence, blocked } = order;
  for (let v = 0; v < net.count; v++) {
    if (!blocked[v]) continue;
    takeStated(net, given, dates, v);
    [startFrom[v], finishFrom[v]] = originsOf(net, given, dates, v);
  }
  const linked = net.linkCount > 0;
  const own = atItsOwn(net);
  for (let k = 0; k < sequence.length; k++) {
    const v = sequence[k]!;
    const i = net.activityOf[v]!;
    if (isFixed(net, v)) {
      forwardNode(own, adj, dates, v);
      // Where what leads to it leaves room, it still may not slip.
      dates.logicFinish[v] = Math.max(dates.logicFinish[v]!, dates.earlyFinish[v]!);
    } else if (given.start[i] !== NONE) takeStated(net, given, dates, v);
    else if (linked && hangs(plan, net, adj, dates, v)) forwardNode(net, adj, dates, v);
    [startFrom[v], finishFrom[v]] = originsOf(net, given, dates, v);
  }
  for (let v = 0; v < net.count; v++)
    if (dates.earlyStart[v] !== NONE) dates.finish = Math.max(dates.finish, endOf(net, dates, v));
  const network = asDrawn(net, dates);
  return { network, dates, floats: floatsOf(network, adj, order, dates), startFrom, finishFrom };
}

/** The boundary at which the day ends that a node ends on: a point at a beginning takes its day with it. */
export const endOf = (net: Network, dates: Dates, v: number): number =>
  dates.earlyFinish[v]! + (net.resolution === 'day' && dates.atFinish[v] === 0 ? 1 : 0);

/** Whether something that has not begun has a fixed date. */
export const isFixed = (net: Network, v: number): boolean =>
  net.begun[v] === 0 && (net.fixedStart[v] !== NONE || net.fixedFinish[v] !== NONE);

/** A fixed date is drawn where it is fixed; only what leads to it can be too late for it, not the day that it is. */
const atItsOwn = (net: Network): Network => ({ ...net, status: NONE, planStart: NEVER });
/** Before every plan, so that nothing is held by it. */
const NEVER = -40_000_000;

function takeStated(net: Network, given: GivenDates, dates: Dates, v: number): void {
  const i = net.activityOf[v]!;
  const [start, finish] = [given.start[i]!, given.finish[i]!];
  if (start === NONE) return;
  const isPoint = start === finish;
  dates.atFinish[v] = isPoint ? given.atFinish[i]! : 1;
  dates.earlyFinish[v] = dates.logicFinish[v] =
    isPoint && !given.atFinish[i] ? startSlot(finish, net.slotMinutes) : finishSlot(finish, net.slotMinutes);
  dates.earlyStart[v] = isPoint ? dates.earlyFinish[v]! : startSlot(start, net.slotMinutes);
}

/** Whether links alone say when something happens: it has a length, and all that it waits for has dates. */
function hangs(plan: Plan, net: Network, adj: Adjacency, dates: Dates, v: number): boolean {
  if (net.begun[v] !== 0) return false;
  if (net.role[v] !== WORK && !isMilestone(plan.activities[net.activityOf[v]!]!.kind)) return false;
  let waits = false;
  for (let k = adj.intoAt[v]!; k < adj.intoAt[v + 1]!; k++) {
    if (isIgnored(net, adj.into[k]!)) continue;
    if (dates.earlyStart[net.linkFrom[adj.into[k]!]!] === NONE) return false;
    waits = true;
  }
  return waits;
}

function originsOf(net: Network, given: GivenDates, dates: Dates, v: number): [start: number, finish: number] {
  const i = net.activityOf[v]!;
  if (dates.earlyStart[v] === NONE) return [UNKNOWN, UNKNOWN];
  if (given.start[i] === NONE) return isFixed(net, v) ? fixedEnds(net, v) : [COMPUTED, COMPUTED];
  if (!isFixed(net, v)) return [given.startFrom[i]!, given.finishFrom[i]!];
  const same = (slot: number, stated: number) => slot * net.slotMinutes === stated;
  const [start, finish] = fixedEnds(net, v);
  return [
    same(dates.earlyStart[v]!, given.start[i]!) ? given.startFrom[i]! : start,
    same(dates.earlyFinish[v]!, given.finish[i]!) ? given.finishFrom[i]! : finish,
  ];
}

const fixedEnds = (net: Network, v: number): [number, number] =>
  net.duration[v] === 0 ? [STATED, STATED] : net.fixedStart[v] !== NONE ? [STATED, EXPECTED] : [EXPECTED, STATED];

/** The network with the lengths that are drawn in the place of those that are stated. */
function asDrawn(net: Network, dates: Dates): Network {
  const drawn = {
    ...net,
    duration: net.duration.slice(),
    remaining: net.remaining.slice(),
    role: net.role.slice(),
    plain: new Uint8Array(net.count),
  };
  for (let v = 0; v < net.count; v++) {
    const [start, finish] = [dates.earlyStart[v]!, dates.earlyFinish[v]!];
    if (start === NONE) continue;
    const time = net.times[net.calendar[v]!]!;
    if (finish > start) drawn.role[v] = WORK;
    drawn.duration[v] = Math.max(0, time.rank(finish) - time.rank(start));
    const from = net.status === NONE ? start : Math.max(start, net.status);
    drawn.remaining[v] = Math.max(0, time.rank(finish) - time.rank(from));
  }
  return drawn;
}

function floatsOf(net: Network, adj: Adjacency, { sequence, blocked }: Order, dates: Dates): Floats {
  const ints = (length: number) => new Int32Array(length).fill(NONE);
  const floats: Floats = { total: ints(net.count), free: ints(net.count), slack: ints(net.linkCount) };
  const without = blocked.slice();
  for (let v = 0; v < net.count; v++) if (dates.earlyStart[v] === NONE) without[v] = 1;
  // Slack does not hang on late dates, and late dates hang on which links are broken.
  dates.lateStart.set(dates.earlyStart);
  dates.lateFinish.set(dates.earlyFinish);
  const broken = new Uint8Array(net.linkCount);
  if (net.linkCount > 0) {
    for (let k = 0; k < sequence.length; k++) {
      const v = sequence[k]!;
      if (!without[v]) floatNode(net, adj, dates, floats, v, without);
    }
    for (let l = 0; l < net.linkCount; l++) if (floats.slack[l] !== NONE && floats.slack[l]! < 0) broken[l] = 1;
  }
  for (let k = sequence.length - 1; k >= 0; k--) {
    const v = sequence[k]!;
    if (!without[v]) backwardNode(net, adj, dates, v, without, broken);
  }
  for (let k = 0; k < sequence.length; k++) {
    const v = sequence[k]!;
    if (!without[v]) floatNode(net, adj, dates, floats, v, without);
  }
  return floats;
}
