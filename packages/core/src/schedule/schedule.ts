import type { Finding } from '../findings/finding';
import { buildOutline, type Outline } from '../outline/outline';
import type { Plan } from '../plan/schema';
import { isoDate, LAST_DAY, startOfDay } from '../time/civil';
import { type Drawn, drawDates, endOf, isFixed } from './drawn';
import { floatPass, placeAsLate } from './float';
import { ACTUAL, COMPUTED, isComplete, readGivenDates, takeGiven, UNKNOWN } from './given';
import { decides, leadPass } from './leads';
import { findSupport, isOpen, placeSupport } from './levelOfEffort';
import type { Adjacency, Dates, Floats, GivenDates, Network, Order, Schedule } from './model';
import { buildNetwork, startKnown } from './network';
import { NONE } from './slots';
import { buildAdjacency, orderNodes } from './order';
import { backwardPass, emptyDates, forwardPass } from './passes';
import { datePairs, rollUpDates, rollUpInto } from './rollup';
import { stretchedWork } from './stretches';

/**
 * Computes a plan.
 *
 *   plan → outline → network → order → forward → backward → as late as possible → float
 *        → given dates → as drawn, with their float → what leads to the end → shown dates → level of effort → rollups
 *
 * Broken data gives findings; everything that can be computed is.
 */
export function schedulePlan(plan: Plan): Schedule {
  const schedule = scheduleDates(plan);
  schedule.findings = findingsOf(plan, schedule);
  return schedule;
}

/** As {@link schedulePlan}, without findings: for whoever looks at these later, if at all. */
export function scheduleDates(plan: Plan): Schedule {
  const outline = buildOutline(plan);
  const network = buildNetwork(plan, outline);
  const adjacency = buildAdjacency(network);
  const order = orderNodes(network, adjacency);
  const given = readGivenDates(plan, outline, network);
  if (plan.source === 'given') {
    const dates = emptyDates(network.count);
    forwardDates(network, adjacency, order, dates);
    if (network.asLate.includes(1)) lateDates(network, adjacency, order, dates);
    const drawn = drawDates(plan, network, adjacency, order, given);
    return collect(plan, outline, network, adjacency, order, given, dates, drawn.dates, drawn.floats, drawn);
  }
  const { dates, floats } = computeDates(network, adjacency, order);
  return collect(plan, outline, network, adjacency, order, given, dates, dates, floats, null);
}

/** The passes over an ordered network: forward, backward, as late as possible, float. */
export function computeDates(network: Network, adjacency: Adjacency, order: Order): { dates: Dates; floats: Floats } {
  const dates = emptyDates(network.count);
  const ints = (length: number) => new Int32Array(length).fill(NONE);
  const floats: Floats = { total: ints(network.count), free: ints(network.count), slack: ints(network.linkCount) };
  forwardDates(network, adjacency, order, dates);
  lateDates(network, adjacency, order, dates);
  floatPass(network, adjacency, dates, floats, order.sequence, order.blocked);
  return { dates, floats };
}

function forwardDates(network: Network, adjacency: Adjacency, { sequence }: Order, dates: Dates): void {
  forwardPass(network, adjacency, dates, sequence);
  for (let k = 0; k < sequence.length; k++) dates.finish = Math.max(dates.finish, endOf(network, dates, sequence[k]!));
}

function lateDates(network: Network, adjacency: Adjacency, { sequence, blocked }: Order, dates: Dates): void {
  backwardPass(network, adjacency, dates, sequence, blocked);
  if (network.asLate.includes(1)) placeAsLate(network, adjacency, dates, sequence, blocked);
}

function collect(
  plan: Plan,
  outline: Outline,
  network: Network,
  adjacency: Adjacency,
  order: Order,
  given: GivenDates,
  dates: Dates,
  shown: Dates,
  floats: Floats,
  drawn: Drawn | null,
): Schedule {
  const n = plan.activities.length;
  const ints = () => new Int32Array(n).fill(NONE);
  const schedule: Schedule = {
    outline,
    network,
    adjacency,
    order,
    nodeDates: dates,
    shown,
    floats,
    leads: leadPass(network, adjacency, shown, order),
    support: findSupport(plan, outline),
    start: ints(),
    finish: ints(),
    startFrom: new Uint8Array(n),
    finishFrom: new Uint8Array(n),
    given,
    earlyStart: ints(),
    earlyFinish: ints(),
    lateStart: ints(),
    lateFinish: ints(),
    totalFloat: ints(),
    freeFloat: ints(),
    critical: new Uint8Array(n),
    atFinish: new Uint8Array(n),
    planFinish: finishOf(network, shown),
    findings: [],
  };
  for (let v = 0; v < network.count; v++) if (!order.blocked[v]) takeDates(plan, schedule, v);
  for (let i = 0; i < n; i++) chooseDates(plan, schedule, i);
  if (drawn) takeDrawn(schedule, drawn);
  placeSupport(plan, schedule);
  rollUpDates(schedule);
  if (!startKnown(plan)) forgetDates(schedule);
  return schedule;
}

const finishOf = (network: Network, dates: Dates): number =>
  dates.finish === NONE ? NONE : dates.finish * network.slotMinutes;

/** Brings what was computed for a node to its activity: slots to moments, float to working minutes. */
function takeDates(plan: Plan, s: Schedule, v: number): void {
  const { network: net, nodeDates: dates, shown, floats } = s;
  const i = net.activityOf[v]!;
  const m = net.slotMinutes;
  s.earlyStart[i] = dates.earlyStart[v]! * m;
  s.earlyFinish[i] = dates.earlyFinish[v]! * m;
  s.atFinish[i] = dates.atFinish[v]!;
  takeFloat(plan, s, v);
  if (shown.earlyStart[v] === NONE) return;
  s.lateStart[i] = shown.lateStart[v]! * m;
  s.lateFinish[i] = shown.lateFinish[v]! * m;
  const minutes = net.resolution === 'day' ? net.times[net.calendar[v]!]!.spec.minutesPerDay : 1;
  s.freeFloat[i] = floats.total[v] === NONE ? NONE : floats.free[v]! * minutes;
}

function takeFloat(plan: Plan, s: Schedule, v: number): void {
  const { network: net, floats } = s;
  const i = net.activityOf[v]!;
  const minutes = net.resolution === 'day' ? net.times[net.calendar[v]!]!.spec.minutesPerDay : 1;
  const known = floats.total[v] !== NONE;
  s.totalFloat[i] = known ? floats.total[v]! * minutes : NONE;
  s.critical[i] = known && s.totalFloat[i]! <= plan.criticalFloat && decides(s.leads[v]!) ? 1 : 0;
}

/** Shown dates of a plan as computed: the computed ones, and stated ones where nothing could be. */
function chooseDates(plan: Plan, s: Schedule, i: number): void {
  const useGiven = plan.source === 'given' || s.earlyStart[i] === NONE;
  s.start[i] = useGiven ? s.given.start[i]! : s.earlyStart[i]!;
  s.finish[i] = useGiven ? s.given.finish[i]! : s.earlyFinish[i]!;
  if (useGiven && s.given.start[i] !== NONE) s.atFinish[i] = s.given.atFinish[i]!;
  s.startFrom[i] = useGiven || s.given.startFrom[i] === ACTUAL ? s.given.startFrom[i]! : COMPUTED;
  s.finishFrom[i] = useGiven || s.given.finishFrom[i] === ACTUAL ? s.given.finishFrom[i]! : COMPUTED;
}

/** Shown dates of a plan as drawn: what is fixed, and what hangs on others by links, beside what is stated. */
function takeDrawn(s: Schedule, { dates, startFrom, finishFrom }: Drawn): void {
  const { network: net, order } = s;
  for (let v = 0; v < net.count; v++) {
    if (order.blocked[v] || dates.earlyStart[v] === NONE) continue;
    const i = net.activityOf[v]!;
    s.startFrom[i] = startFrom[v]!;
    s.finishFrom[i] = finishFrom[v]!;
    // Stated moments may be finer than the slots of the network.
    if (!isFixed(net, v) && s.given.start[i] !== NONE) continue;
    s.start[i] = dates.earlyStart[v]! * net.slotMinutes;
    s.finish[i] = dates.earlyFinish[v]! * net.slotMinutes;
    s.atFinish[i] = dates.atFinish[v]!;
  }
}

/** Without any date there is nothing to count from: lengths and floats hold, dates do not. */
function forgetDates(s: Schedule): void {
  for (const dates of [s.start, s.finish, s.earlyStart, s.earlyFinish, s.lateStart, s.lateFinish]) dates.fill(NONE);
  for (const from of [s.startFrom, s.finishFrom]) from.fill(UNKNOWN);
  s.planFinish = NONE;
}

/**
 * After some nodes were computed again: brings their dates to their activities, places supporting work and rolls
 * up what lies above them. Part of the incremental schedule of a plan as computed.
 *
 * @param changed the node of the activity that was changed: what the others state of their dates is as it was
 */
export function takeChanges(plan: Plan, s: Schedule, nodes: Iterable<number>, changed: number): void {
  const above = new Set<number>();
  const note = (i: number) => {
    for (let p = s.outline.parent[i]!; p !== -1 && !above.has(p); p = s.outline.parent[p]!) above.add(p);
  };
  takeGiven(plan, s.outline, s.network, s.given, s.network.activityOf[changed]!);
  for (const v of nodes) {
    const i = s.network.activityOf[v]!;
    takeDates(plan, s, v);
    chooseDates(plan, s, i);
    note(i);
  }
  placeSupport(plan, s);
  for (const { position } of s.support) note(position);
  const pairs = datePairs(s);
  // Deepest groups first, since each rolls up what is directly below it.
  for (const p of [...above].sort((a, b) => s.outline.level[b]! - s.outline.level[a]!)) rollUpInto(s, pairs, p);
  s.planFinish = finishOf(s.network, s.shown);
  if (!startKnown(plan)) forgetDates(s);
}

/** After the end of the plan moved, or what is done changed: what leads to it is looked for again. Part of the incremental schedule. */
export function takeLeads(plan: Plan, s: Schedule): void {
  s.leads = leadPass(s.network, s.adjacency, s.shown, s.order);
  for (let v = 0; v < s.network.count; v++) if (!s.order.blocked[v]) takeFloat(plan, s, v);
}

/** By how many working days what leads to each fixed date is too late for it, by reference. */
export function fixedConflicts(plan: Plan, s: Schedule): Map<string, number> {
  const found = new Map<string, number>();
  for (let v = 0; v < s.network.count; v++) {
    if (s.order.blocked[v] || s.shown.earlyFinish[v] === NONE) continue;
    if (s.shown.logicFinish[v]! <= s.shown.earlyFinish[v]!) continue;
    const { ref } = plan.activities[s.network.activityOf[v]!]!;
    for (const { facts } of fixedConflict(s, v, ref)) found.set(ref, Number(facts!.days));
  }
  return found;
}

/** All that the schedule has to say about the data. */
export function findingsOf(plan: Plan, s: Schedule): Finding[] {
  const { outline, network: net, order, shown: dates } = s;
  const ref = (i: number) => plan.activities[i]!.ref;
  const findings: Finding[] = [...outline.findings, ...net.findings];
  for (const loop of order.loops)
    findings.push({ code: 'loop', severity: 'error', refs: loop.map((v) => ref(net.activityOf[v]!)) });
  const beyond: string[] = [];
  for (let v = 0; v < net.count; v++) {
    if (order.blocked[v]) continue;
    const i = net.activityOf[v]!;
    if (s.earlyFinish[i]! > startOfDay(LAST_DAY)) beyond.push(ref(i));
    if (dates.earlyFinish[v] !== NONE && dates.logicFinish[v]! > dates.earlyFinish[v]!)
      findings.push(...fixedConflict(s, v, ref(i)));
  }
  if (beyond.length > 0) findings.push({ code: 'beyondCalendar', severity: 'error', refs: beyond });
  const open = s.support.filter((x) => isOpen(x, s));
  if (open.length > 0)
    findings.push({ code: 'levelOfEffortOpen', severity: 'warning', refs: open.map((x) => ref(x.position)) });
  findings.push(...statedFindings(plan, s));
  const without = plan.activities.filter(
    (_, i) => s.start[i] === NONE && (outline.children[i]!.length === 0 || !outline.isSummary[i]),
  );
  if (!startKnown(plan)) findings.push({ code: 'noStart', severity: 'error', refs: [] });
  else if (without.length > 0) findings.push({ code: 'noDates', severity: 'warning', refs: without.map((a) => a.ref) });
  const reversed = plan.activities.filter((_, i) => s.start[i] !== NONE && s.finish[i]! < s.start[i]!);
  if (reversed.length > 0)
    findings.push({ code: 'finishBeforeStart', severity: 'error', refs: reversed.map((a) => a.ref) });
  return findings;
}

/** What the source states that does not go together. */
function statedFindings(plan: Plan, s: Schedule): Finding[] {
  const assumed: string[] = [];
  const unequal: string[] = [];
  const { network: net, outline } = s;
  plan.activities.forEach((a, i) => {
    if (outline.isSummary[i]) return;
    if (isComplete(a) && a.actualFinish === null && a.actualStart === null) assumed.push(a.ref);
    else if (isComplete(a) && a.actualFinish === null && net.duration[net.nodeOf[i]!]! > 0) assumed.push(a.ref);
    if (a.stretches.length === 0 || a.duration === null) return;
    const time = net.times[net.calendarOf[i]!]!;
    const minutes = net.resolution === 'day' ? time.spec.minutesPerDay : 1;
    if (stretchedWork(a, time, net.slotMinutes) * minutes !== a.duration) unequal.push(a.ref);
  });
  const findings: Finding[] = [];
  if (assumed.length > 0) findings.push({ code: 'completeWithoutDates', severity: 'warning', refs: assumed });
  if (unequal.length > 0) findings.push({ code: 'stretchesAgainstDuration', severity: 'warning', refs: unequal });
  return findings;
}

/** A fixed date that the logic passes, with the size of the conflict. */
function fixedConflict({ network: net, shown: dates }: Schedule, v: number, ref: string): Finding[] {
  const time = net.times[net.calendar[v]!]!;
  const late = time.between(dates.earlyFinish[v]!, dates.logicFinish[v]!);
  if (late <= 0) return [];
  const day = (x: number) => isoDate(Math.floor((x * net.slotMinutes - dates.atFinish[v]!) / 1440));
  const days = net.resolution === 'day' ? late : Math.round((100 * late) / time.spec.minutesPerDay) / 100;
  return [
    {
      code: 'fixedDateConflict',
      severity: 'warning',
      refs: [ref],
      facts: { fixed: day(dates.earlyFinish[v]!), logic: day(dates.logicFinish[v]!), days },
    },
  ];
}
