import type { Finding } from '../findings/finding';
import { buildOutline, type Outline } from '../outline/outline';
import type { Plan } from '../plan/schema';
import { isoDate, LAST_DAY, startOfDay } from '../time/civil';
import { type Floats, floatNode, placeAsLate } from './float';
import { type GivenDates, readGivenDates } from './given';
import { placeLevelsOfEffort } from './levelOfEffort';
import { buildNetwork, type Network, NONE } from './network';
import { type Adjacency, buildAdjacency, type Order, orderNodes } from './order';
import { backwardNode, type Dates, emptyDates, forwardNode } from './passes';
import { rollUpDates } from './rollup';

/**
 * What was computed for a plan, in arrays over the positions of `plan.activities`. Moments are minutes since
 * 1970; floats are working minutes of the activity's own calendar; NONE where a value is not defined.
 */
export interface Schedule {
  outline: Outline;
  network: Network;
  adjacency: Adjacency;
  order: Order;
  nodeDates: Dates;
  floats: Floats;
  /** The dates that exhibits show: as given or computed, as the plan says; summaries are rolled up. */
  start: Int32Array;
  finish: Int32Array;
  given: GivenDates;
  earlyStart: Int32Array;
  earlyFinish: Int32Array;
  lateStart: Int32Array;
  lateFinish: Int32Array;
  totalFloat: Int32Array;
  freeFloat: Int32Array;
  critical: Uint8Array;
  /** 1 for a point in time that stands at the end of its day. */
  atFinish: Uint8Array;
  /** The last computed finish of the plan, or NONE. */
  planFinish: number;
  findings: Finding[];
}

/**
 * Computes a plan.
 *
 *   plan → outline → network → order → forward → backward → as late as possible → float
 *        → level of effort → given dates → rollups
 *
 * Broken data gives findings; everything that can be computed is.
 */
export function schedulePlan(plan: Plan): Schedule {
  const outline = buildOutline(plan);
  const network = buildNetwork(plan, outline);
  const adjacency = buildAdjacency(network);
  const order = orderNodes(network, adjacency);
  const dates = emptyDates(network.count);
  const floats: Floats = {
    total: new Int32Array(network.count).fill(NONE),
    free: new Int32Array(network.count).fill(NONE),
    slack: new Int32Array(network.linkCount).fill(NONE),
  };
  runPasses(network, adjacency, order, dates, floats);
  return collect(plan, outline, network, adjacency, order, dates, floats);
}

function runPasses(network: Network, adjacency: Adjacency, order: Order, dates: Dates, floats: Floats): void {
  const { sequence, blocked } = order;
  for (let k = 0; k < sequence.length; k++) forwardNode(network, adjacency, dates, sequence[k]!);
  for (let k = 0; k < sequence.length; k++) dates.finish = Math.max(dates.finish, dates.earlyFinish[sequence[k]!]!);
  for (let k = sequence.length - 1; k >= 0; k--) backwardNode(network, adjacency, dates, sequence[k]!, blocked);
  if (network.asLate.includes(1)) placeAsLate(network, adjacency, dates, sequence, blocked);
  for (let k = 0; k < sequence.length; k++) floatNode(network, adjacency, dates, floats, sequence[k]!, blocked);
}

function collect(
  plan: Plan,
  outline: Outline,
  network: Network,
  adjacency: Adjacency,
  order: Order,
  dates: Dates,
  floats: Floats,
): Schedule {
  const n = plan.activities.length;
  const ints = () => new Int32Array(n).fill(NONE);
  const schedule: Schedule = {
    outline,
    network,
    adjacency,
    order,
    nodeDates: dates,
    floats,
    start: ints(),
    finish: ints(),
    given: readGivenDates(plan, outline, network),
    earlyStart: ints(),
    earlyFinish: ints(),
    lateStart: ints(),
    lateFinish: ints(),
    totalFloat: ints(),
    freeFloat: ints(),
    critical: new Uint8Array(n),
    atFinish: new Uint8Array(n),
    planFinish: dates.finish === NONE ? NONE : dates.finish * network.slotMinutes,
    findings: [...outline.findings, ...network.findings],
  };
  for (const loop of order.loops) {
    schedule.findings.push({ code: 'loop', severity: 'error', refs: loop.map((v) => refOf(plan, network, v)) });
  }
  for (let v = 0; v < network.count; v++) if (!order.blocked[v]) readNode(plan, schedule, v);
  placeLevelsOfEffort(plan, schedule);
  chooseDates(plan, schedule);
  rollUpDates(plan, schedule);
  return schedule;
}

const refOf = (plan: Plan, network: Network, v: number): string => plan.activities[network.activityOf[v]!]!.ref;

function readNode(plan: Plan, s: Schedule, v: number): void {
  const { network: net, nodeDates: dates, floats } = s;
  const i = net.activityOf[v]!;
  const m = net.slotMinutes;
  const time = net.times[net.calendar[v]!]!;
  const minutes = net.resolution === 'day' ? time.spec.minutesPerDay : 1;
  s.earlyStart[i] = dates.earlyStart[v]! * m;
  s.earlyFinish[i] = dates.earlyFinish[v]! * m;
  s.lateStart[i] = dates.lateStart[v]! * m;
  s.lateFinish[i] = dates.lateFinish[v]! * m;
  s.atFinish[i] = dates.atFinish[v]!;
  if (floats.total[v] !== NONE) {
    s.totalFloat[i] = floats.total[v]! * minutes;
    s.freeFloat[i] = floats.free[v]! * minutes;
    s.critical[i] = s.totalFloat[i]! <= plan.criticalFloat ? 1 : 0;
  }
  if (s.earlyFinish[i]! > startOfDay(LAST_DAY)) {
    s.findings.push({ code: 'beyondCalendar', severity: 'error', refs: [plan.activities[i]!.ref] });
  }
  const late = time.between(dates.earlyFinish[v]!, dates.logicFinish[v]!);
  if (late > 0) {
    const day = (x: number) => isoDate(Math.floor((x * m - dates.atFinish[v]!) / 1440));
    s.findings.push({
      code: 'fixedDateConflict',
      severity: 'warning',
      refs: [plan.activities[i]!.ref],
      facts: {
        fixed: day(dates.earlyFinish[v]!),
        logic: day(dates.logicFinish[v]!),
        days: Math.round(((late * minutes) / time.spec.minutesPerDay) * 100) / 100,
      },
    });
  }
}

/** Shown dates: given ones where the plan trusts its source and has them, computed ones otherwise. */
function chooseDates(plan: Plan, s: Schedule): void {
  for (let i = 0; i < plan.activities.length; i++) {
    const trusted = plan.source === 'given' && s.given.start[i] !== NONE;
    s.start[i] = trusted ? s.given.start[i]! : s.earlyStart[i]!;
    s.finish[i] = trusted ? s.given.finish[i]! : s.earlyFinish[i]!;
    if (!trusted && s.start[i] === NONE && s.given.start[i] !== NONE) {
      s.start[i] = s.given.start[i]!;
      s.finish[i] = s.given.finish[i]!;
    }
    if (trusted) s.atFinish[i] = s.given.atFinish[i]!;
  }
}
