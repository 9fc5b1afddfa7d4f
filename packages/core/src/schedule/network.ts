import { SEVEN_DAY } from '../calendar/spec';
import { hasWorkingTime, type Resolution, slotsPerDay, WorkingTime } from '../calendar/workingTime';
import type { Finding } from '../findings/finding';
import type { Outline } from '../outline/outline';
import type { Activity, Link, Plan } from '../plan/schema';
import { dayFromCivil, dayOf, MINUTES_PER_DAY } from '../time/civil';
import { pausedSlots } from './stretches';

/** Stands for "no value" in arrays of whole numbers. */
export const NONE = -2147483648;
export const FAR = 2147483647;

export const FS = 0;
export const SS = 1;
export const FF = 2;
export const SF = 3;
const TYPE_CODE = { FS, SS, FF, SF } as const;

/** What a node of the network is to the passes. */
export const WORK = 0;
export const START_POINT = 1;
export const FINISH_POINT = 2;

/** The lag of a link counts elapsed time. */
export const ELAPSED = -1;

/**
 * The plan as the passes need it: what can be scheduled as nodes, in arrays of whole slots, and links that
 * have two nodes as ends. Summaries are read as what they contain; levels of effort stay outside.
 */
export interface Network {
  resolution: Resolution;
  /** Minutes of wall-clock time in a slot of the time axis. */
  slotMinutes: number;
  times: WorkingTime[];
  /** Earliest start of what nothing else holds, as a slot. */
  planStart: number;
  /** Slot of the status date, or NONE. */
  status: number;
  retainedLogic: boolean;
  count: number;
  activityOf: Int32Array;
  /** Node of an activity's position, or -1. */
  nodeOf: Int32Array;
  calendar: Uint16Array;
  role: Uint8Array;
  duration: Int32Array;
  remaining: Int32Array;
  actualStart: Int32Array;
  actualFinish: Int32Array;
  startNotBefore: Int32Array;
  finishNotBefore: Int32Array;
  startNotAfter: Int32Array;
  finishNotAfter: Int32Array;
  fixedStart: Int32Array;
  fixedFinish: Int32Array;
  asLate: Uint8Array;
  linkCount: number;
  linkFrom: Int32Array;
  linkTo: Int32Array;
  linkType: Uint8Array;
  linkLag: Int32Array;
  /** Position in `times`, or ELAPSED. */
  linkCalendar: Int16Array;
  /** Position in `plan.links` of each link of the network (several where a summary was read as its content). */
  linkOf: Int32Array;
  findings: Finding[];
}

/** Positions of the ends of every link in `plan.activities`; -1 where the plan has none by that reference. */
export interface LinkEnds {
  from: Int32Array;
  to: Int32Array;
}

function findLinkEnds(plan: Plan, outline: Outline): LinkEnds {
  const n = plan.links.length;
  const ends: LinkEnds = { from: new Int32Array(n), to: new Int32Array(n) };
  const { indexOf } = outline;
  for (let l = 0; l < n; l++) {
    const link = plan.links[l]!;
    ends.from[l] = indexOf.get(link.from) ?? -1;
    // Sources list the predecessors of an activity together: its reference is looked up once.
    ends.to[l] = l > 0 && link.to === plan.links[l - 1]!.to ? ends.to[l - 1]! : (indexOf.get(link.to) ?? -1);
  }
  return ends;
}

/** The resolution that represents a plan exactly: days when nothing in it is finer than a day. */
function resolutionOf(plan: Plan, ends: LinkEnds, positions: CalendarPositions): Resolution {
  if (plan.inHours) return 'minute';
  const perDay = plan.calendars.map((c) => c.minutesPerDay);
  const whole = (moment: number | null) => moment === null || moment % MINUTES_PER_DAY === 0;
  for (let i = 0; i < plan.activities.length; i++) {
    const a = plan.activities[i]!;
    const day = perDay[positions.of[i]!]!;
    if ((a.duration ?? 0) % day !== 0 || (a.remaining ?? 0) % day !== 0) return 'minute';
    if (!whole(a.start) || !whole(a.finish) || !whole(a.actualStart) || !whole(a.actualFinish)) return 'minute';
    if (a.constraint !== null && !whole(a.constraint.moment)) return 'minute';
  }
  for (let l = 0; l < plan.links.length; l++) {
    const link = plan.links[l]!;
    if (link.lag === 0 || ends.from[l]! < 0 || ends.to[l]! < 0) continue;
    const clock = lagClock(link, ends.from[l]!, ends.to[l]!, positions);
    if (link.lag % (clock === ELAPSED ? MINUTES_PER_DAY : perDay[clock]!) !== 0) return 'minute';
  }
  return whole(plan.start) && whole(plan.statusDate) ? 'day' : 'minute';
}

/** Fields of an activity whose change leaves the network itself as it is: the same nodes, links and calendars. */
export const FOLLOWED_FIELDS: ReadonlySet<keyof Activity> = new Set([
  'duration',
  'remaining',
  'percent',
  'constraint',
  'deadline',
  'name',
  'codes',
  'notes',
  'responsible',
  'effort',
  'actualEffort',
  'cost',
  'actualCost',
  'quantity',
  'rate',
  'crews',
  'onHold',
]);

/** Slot that a start moment falls in. */
export const startSlot = (moment: number, slotMinutes: number): number => Math.floor(moment / slotMinutes);
/** Boundary that a finish moment stands for. */
export const finishSlot = (moment: number, slotMinutes: number): number => Math.ceil(moment / slotMinutes);

/** The moment from which undetermined work is scheduled when the plan does not say. */
export function defaultStart(plan: Plan): number {
  if (plan.start !== null) return plan.start;
  let earliest = FAR;
  for (const a of plan.activities) {
    const start = a.actualStart ?? a.start ?? a.finish;
    if (start !== null && start < earliest) earliest = start;
  }
  if (earliest !== FAR) return earliest;
  return plan.statusDate ?? dayFromCivil(2000, 1, 3) * MINUTES_PER_DAY;
}

/** Positions in `plan.calendars`: of the plan's own calendar, and of that of every activity. */
interface CalendarPositions {
  own: number;
  of: Uint16Array;
}

function findCalendars(plan: Plan, findings: Finding[]): CalendarPositions {
  const indexOf = new Map(plan.calendars.map((c, i) => [c.id, i]));
  const own = indexOf.get(plan.calendar) ?? 0;
  const of = new Uint16Array(plan.activities.length).fill(own);
  const missing = new Map<string, string[]>();
  for (let i = 0; i < plan.activities.length; i++) {
    const { calendar, ref } = plan.activities[i]!;
    if (calendar === null) continue;
    const at = indexOf.get(calendar);
    if (at !== undefined) of[i] = at;
    else if (missing.has(calendar)) missing.get(calendar)!.push(ref);
    else missing.set(calendar, [ref]);
  }
  for (const [calendar, refs] of missing)
    findings.push({ code: 'calendarMissing', severity: 'warning', refs, facts: { calendar } });
  return { own, of };
}

/** The calendars of a plan for computing; one without any working time is computed on every day. */
function compileCalendars(plan: Plan, resolution: Resolution, findings: Finding[]): WorkingTime[] {
  const origin = dayOf(defaultStart(plan));
  return plan.calendars.map((spec) => {
    if (hasWorkingTime(spec)) return new WorkingTime(spec, resolution, origin);
    findings.push({ code: 'calendarWithoutWork', severity: 'error', refs: [], facts: { calendar: spec.name } });
    return new WorkingTime({ ...SEVEN_DAY, id: spec.id, name: spec.name }, resolution, origin);
  });
}

/** Builds the network of a plan. Broken links are findings and are left out. */
export function buildNetwork(plan: Plan, outline: Outline): Network {
  const findings: Finding[] = [];
  const ends = findLinkEnds(plan, outline);
  const positions = findCalendars(plan, findings);
  const resolution = resolutionOf(plan, ends, positions);
  const slotMinutes = MINUTES_PER_DAY / slotsPerDay(resolution);
  const times = compileCalendars(plan, resolution, findings);

  const n = plan.activities.length;
  const nodeOf = new Int32Array(n).fill(-1);
  const activityOf = new Int32Array(n);
  let count = 0;
  for (let i = 0; i < n; i++) {
    const a = plan.activities[i]!;
    if (outline.isSummary[i] || a.kind === 'levelOfEffort' || outline.isDouble[i]) continue;
    nodeOf[i] = count;
    activityOf[count++] = i;
  }

  const ints = (fill = NONE) => new Int32Array(count).fill(fill);
  const network: Network = {
    resolution,
    slotMinutes,
    times,
    planStart: startSlot(defaultStart(plan), slotMinutes),
    status: plan.statusDate === null ? NONE : startSlot(plan.statusDate, slotMinutes),
    retainedLogic: plan.retainedLogic,
    count,
    activityOf: activityOf.subarray(0, count),
    nodeOf,
    calendar: new Uint16Array(count),
    role: new Uint8Array(count),
    duration: ints(0),
    remaining: ints(0),
    actualStart: ints(),
    actualFinish: ints(),
    startNotBefore: ints(),
    finishNotBefore: ints(),
    startNotAfter: ints(FAR),
    finishNotAfter: ints(FAR),
    fixedStart: ints(),
    fixedFinish: ints(),
    asLate: new Uint8Array(count),
    ...readLinks({ plan, outline, nodeOf, ends, positions, times, resolution, findings }),
    findings,
  };
  const heldByFinish = new Uint8Array(count);
  for (let l = 0; l < network.linkCount; l++) {
    if (network.linkType[l] === FS || network.linkType[l] === FF) heldByFinish[network.linkTo[l]!] = 1;
  }
  for (let v = 0; v < count; v++) {
    network.calendar[v] = positions.of[network.activityOf[v]!]!;
    readNode(network, v, plan.activities[network.activityOf[v]!]!, heldByFinish[v] === 1);
  }
  return network;
}

/** Reads what the passes need of one activity; a node may be read again after its activity has changed. */
export function readNode(net: Network, v: number, a: Activity, heldByFinish: boolean): void {
  const time = net.times[net.calendar[v]!]!;
  const m = net.slotMinutes;
  const duration = durationSlots(net, a, time);
  net.duration[v] = duration;
  net.role[v] = WORK;
  // A point in time stands at the end of what leads to it; without that, at a beginning.
  if (duration === 0) net.role[v] = a.kind !== 'startMilestone' && heldByFinish ? FINISH_POINT : START_POINT;
  net.actualStart[v] = a.actualStart === null ? NONE : startSlot(a.actualStart, m);
  net.actualFinish[v] = a.actualFinish === null ? NONE : finishSlot(a.actualFinish, m);
  net.remaining[v] =
    a.remaining !== null
      ? toSlots(net, time, a.remaining)
      : duration - Math.floor((duration * Math.round((a.percent ?? 0) * 1000)) / 100_000);
  for (const bound of [net.startNotBefore, net.finishNotBefore, net.fixedStart, net.fixedFinish]) bound[v] = NONE;
  net.startNotAfter[v] = net.finishNotAfter[v] = FAR;
  net.asLate[v] = 0;
  const { constraint } = a;
  if (!constraint) return;
  if (constraint.kind === 'asLateAsPossible') {
    net.asLate[v] = 1;
    return;
  }
  if (constraint.moment === null) return;
  const start = startSlot(constraint.moment, m);
  const finish = finishSlot(constraint.moment, m);
  switch (constraint.kind) {
    case 'startNotEarlier':
      if (net.role[v] === FINISH_POINT) net.finishNotBefore[v] = start + (net.resolution === 'day' ? 1 : 0);
      else net.startNotBefore[v] = start;
      break;
    case 'finishNotEarlier':
      net.finishNotBefore[v] = finish;
      break;
    case 'startNotLater':
      net.startNotAfter[v] = start;
      break;
    case 'finishNotLater':
      net.finishNotAfter[v] = finish;
      break;
    case 'fixedStart':
      net.fixedStart[v] = start;
      break;
    case 'fixedFinish':
      net.fixedFinish[v] = finish;
      break;
  }
}

const toSlots = (net: Network, time: WorkingTime, minutes: number): number =>
  net.resolution === 'day' ? Math.round(minutes / time.spec.minutesPerDay) : minutes;

/** Duration as stated, else the working time between the given dates (at least one slot, but for milestones). */
function durationSlots(net: Network, a: Activity, time: WorkingTime): number {
  // Interrupted work spans its pauses too.
  if (a.duration !== null)
    return toSlots(net, time, a.duration) + (a.duration > 0 ? pausedSlots(a, time, net.slotMinutes) : 0);
  if (a.kind === 'startMilestone' || a.kind === 'finishMilestone') return 0;
  const from = a.actualStart ?? a.start;
  const to = a.actualFinish ?? a.finish;
  if (from === null || to === null) return 0;
  return Math.max(1, time.between(startSlot(from, net.slotMinutes), finishSlot(to, net.slotMinutes)));
}

type LinkArrays = Pick<
  Network,
  'linkCount' | 'linkFrom' | 'linkTo' | 'linkType' | 'linkLag' | 'linkCalendar' | 'linkOf'
>;

interface LinkInput {
  plan: Plan;
  outline: Outline;
  nodeOf: Int32Array;
  ends: LinkEnds;
  positions: CalendarPositions;
  times: WorkingTime[];
  resolution: Resolution;
  findings: Finding[];
}

function readLinks(input: LinkInput): LinkArrays {
  const { plan, outline, nodeOf, ends, findings } = input;
  const list = new LinkList(plan.links.length);
  const summaryEnd = summaryEnds(plan, outline, nodeOf, ends);
  for (let l = 0; l < plan.links.length; l++) {
    const link = plan.links[l]!;
    const [a, b] = [ends.from[l]!, ends.to[l]!];
    if (a < 0 || b < 0) {
      const [known, missing] = a < 0 ? [link.to, link.from] : [link.from, link.to];
      findings.push({ code: 'linkToNothing', severity: 'error', refs: [known], facts: { missing } });
      continue;
    }
    if (a === b) {
      findings.push({ code: 'linkToItself', severity: 'error', refs: [link.from] });
      continue;
    }
    const type = TYPE_CODE[link.type];
    const clock = lagClock(link, a, b, input.positions);
    const lag = lagSlots(link, clock, input);
    const [s, t] = [nodeOf[a]!, nodeOf[b]!];
    if (s >= 0 && t >= 0) {
      list.add(s, t, type, lag, clock, l);
      continue;
    }
    if (!outline.isSummary[a] && !outline.isSummary[b]) continue; // supporting work: placed after everything else
    findings.push({ code: 'linkToSummary', severity: 'warning', refs: [link.from, link.to] });
    const sources = s >= 0 ? [s] : summaryEnd(a, type === FS || type === FF ? 'last' : 'first');
    const targets = t >= 0 ? [t] : summaryEnd(b, type === FS || type === SS ? 'first' : 'last');
    for (const from of sources) for (const to of targets) if (from !== to) list.add(from, to, type, lag, clock, l);
  }
  return list.arrays();
}

/** Links in typed arrays that grow when summaries turn one link into many. */
class LinkList {
  private count = 0;
  private from: Int32Array;
  private to: Int32Array;
  private type: Uint8Array;
  private lag: Int32Array;
  private clock: Int16Array;
  private link: Int32Array;

  constructor(capacity: number) {
    this.from = new Int32Array(capacity);
    this.to = new Int32Array(capacity);
    this.type = new Uint8Array(capacity);
    this.lag = new Int32Array(capacity);
    this.clock = new Int16Array(capacity);
    this.link = new Int32Array(capacity);
  }

  add(from: number, to: number, type: number, lag: number, clock: number, link: number): void {
    if (this.count === this.from.length) this.grow();
    const k = this.count++;
    this.from[k] = from;
    this.to[k] = to;
    this.type[k] = type;
    this.lag[k] = lag;
    this.clock[k] = clock;
    this.link[k] = link;
  }

  private grow(): void {
    const capacity = Math.max(16, this.count * 2);
    const larger = <T extends Int32Array | Uint8Array | Int16Array>(old: T, next: T): T => {
      next.set(old);
      return next;
    };
    this.from = larger(this.from, new Int32Array(capacity));
    this.to = larger(this.to, new Int32Array(capacity));
    this.type = larger(this.type, new Uint8Array(capacity));
    this.lag = larger(this.lag, new Int32Array(capacity));
    this.clock = larger(this.clock, new Int16Array(capacity));
    this.link = larger(this.link, new Int32Array(capacity));
  }

  arrays(): LinkArrays {
    const n = this.count;
    return {
      linkCount: n,
      linkFrom: this.from.subarray(0, n),
      linkTo: this.to.subarray(0, n),
      linkType: this.type.subarray(0, n),
      linkLag: this.lag.subarray(0, n),
      linkCalendar: this.clock.subarray(0, n),
      linkOf: this.link.subarray(0, n),
    };
  }
}

function lagClock(link: Link, a: number, b: number, positions: CalendarPositions): number {
  switch (link.lagCalendar) {
    case 'elapsed':
      return ELAPSED;
    case 'plan':
      return positions.own;
    case 'predecessor':
      return positions.of[a]!;
    case 'successor':
      return positions.of[b]!;
  }
}

function lagSlots(link: Link, clock: number, { times, resolution }: LinkInput): number {
  if (link.lag === 0 || resolution === 'minute') return link.lag;
  return Math.round(link.lag / (clock === ELAPSED ? MINUTES_PER_DAY : times[clock]!.spec.minutesPerDay));
}

/**
 * The nodes that stand for a summary in a link: of what it contains, those that nothing within it leads to
 * (its first), or those that lead to nothing within it (its last). Found once for each summary.
 */
function summaryEnds(
  plan: Plan,
  outline: Outline,
  nodeOf: Int32Array,
  ends: LinkEnds,
): (summary: number, side: 'first' | 'last') => number[] {
  const known = new Map<string, number[]>();
  return (summary, side) => {
    const key = `${summary} ${side}`;
    const had = known.get(key);
    if (had) return had;
    const within = new Set<number>();
    const stack = [...outline.children[summary]!];
    while (stack.length > 0) {
      const i = stack.pop()!;
      if (nodeOf[i]! >= 0) within.add(i);
      for (const c of outline.children[i]!) stack.push(c);
    }
    const held = new Set<number>();
    for (let l = 0; l < plan.links.length; l++) {
      const [a, b] = [ends.from[l]!, ends.to[l]!];
      if (a === b || !within.has(a) || !within.has(b)) continue;
      held.add(side === 'first' ? b : a);
    }
    const found = [...within].filter((i) => !held.has(i)).map((i) => nodeOf[i]!);
    known.set(key, found);
    return found;
  };
}
