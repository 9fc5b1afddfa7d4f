import { SEVEN_DAY } from '../calendar/spec';
import { hasWorkingTime, type Resolution, slotsPerDay, WorkingTime, workingTimeOf } from '../calendar/workingTime';
import type { Finding } from '../findings/finding';
import type { Outline } from '../outline/outline';
import type { Activity, Plan } from '../plan/schema';
import { statusEnd } from '../plan/status';
import { dayFromCivil, dayOf, MINUTES_PER_DAY } from '../time/civil';
import { boundsOf, isComplete, promisedSlots, slotsByRate, statedDates } from './given';
import { type CalendarPositions, ELAPSED, FF, FS, findLinkEnds, lagClock, type LinkEnds, readLinks } from './links';
import type { Network } from './model';
import { FAR, finishSlot, NONE, startSlot } from './slots';
import { inOrder, pausesAfter, stretchedWork } from './stretches';

/** A Monday. */
const ANYWHERE = dayFromCivil(2000, 1, 3) * MINUTES_PER_DAY;

/** What a node of the network is to the passes. */
export const WORK = 0;
export const START_POINT = 1;
export const FINISH_POINT = 2;

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
    if (a.stretches.some((s) => !whole(s.start) || !whole(s.finish))) return 'minute';
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
  'output',
  'rate',
  'crews',
  'onHold',
]);

/** True when anything in the plan says when: its start, its status date, or a date of an activity. */
export const startKnown = (plan: Plan): boolean =>
  plan.start !== null ||
  plan.statusDate !== null ||
  plan.activities.some(
    (a) =>
      a.start !== null ||
      a.finish !== null ||
      a.actualStart !== null ||
      a.actualFinish !== null ||
      a.stretches.length > 0 ||
      (a.constraint?.moment ?? null) !== null,
  );

/** The moment from which undetermined work is scheduled when the plan does not say. */
export function defaultStart(plan: Plan): number {
  if (plan.start !== null) return plan.start;
  let earliest = FAR;
  for (const a of plan.activities) {
    const start = a.actualStart ?? a.start ?? inOrder(a.stretches)[0]?.start ?? a.finish ?? a.actualFinish;
    if (start !== null && start < earliest) earliest = start;
  }
  if (earliest !== FAR) return earliest;
  // Where nothing says when, dates are counted from anywhere and shown nowhere (startKnown).
  return plan.statusDate ?? plan.activities.find((a) => a.constraint?.moment)?.constraint?.moment ?? ANYWHERE;
}

function findCalendars(plan: Plan, findings: Finding[]): CalendarPositions {
  const indexOf = new Map(plan.calendars.map((c, i) => [c.id, i]));
  const own = indexOf.get(plan.calendar) ?? 0;
  const of = new Uint16Array(plan.activities.length).fill(own);
  const missing = new Map<string, string[]>();
  let last: string | null = null;
  let at: number | undefined;
  for (let i = 0; i < plan.activities.length; i++) {
    const { calendar, ref } = plan.activities[i]!;
    if (calendar === null) continue;
    if (calendar !== last) at = indexOf.get((last = calendar));
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
    if (hasWorkingTime(spec)) return workingTimeOf(spec, resolution, origin);
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
    status: finishSlotOf(statusEnd(plan), slotMinutes),
    retainedLogic: plan.retainedLogic,
    count,
    activityOf: activityOf.subarray(0, count),
    nodeOf,
    calendarOf: positions.of,
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
    begun: new Uint8Array(count),
    plain: new Uint8Array(count),
    ...readLinks({ plan, outline, nodeOf, ends, positions, times, resolution, findings }),
    findings,
  };
  const heldByFinish = new Uint8Array(count);
  for (let l = 0; l < network.linkCount; l++) {
    if (network.linkType[l] === FS || network.linkType[l] === FF) heldByFinish[network.linkTo[l]!] = 1;
  }
  for (let v = 0; v < count; v++) {
    network.calendar[v] = positions.of[network.activityOf[v]!]!;
    readNode(network, v, plan, heldByFinish[v] === 1);
  }
  return network;
}

/** Reads what the passes need of one activity; a node may be read again after its activity has changed. */
export function readNode(net: Network, v: number, plan: Plan, heldByFinish: boolean): void {
  const a = plan.activities[net.activityOf[v]!]!;
  const time = net.times[net.calendar[v]!]!;
  const m = net.slotMinutes;
  const duration = durationSlots(net, a, time);
  net.duration[v] = duration;
  net.role[v] = WORK;
  // A point in time stands at the end of what leads to it, or where its own end is bound; else at a beginning.
  if (duration === 0)
    net.role[v] =
      a.kind !== 'startMilestone' && (heldByFinish || a.constraint?.kind === 'finishNotEarlier')
        ? FINISH_POINT
        : START_POINT;
  net.remaining[v] = remainingSlots(net, a, time, duration);
  net.actualStart[v] = a.actualStart === null ? NONE : startSlot(a.actualStart, m);
  net.actualFinish[v] = NONE;
  if (isComplete(a)) readHistory(net, v, plan, a, time);
  for (const bound of [net.startNotBefore, net.finishNotBefore, net.fixedStart, net.fixedFinish]) bound[v] = NONE;
  net.startNotAfter[v] = net.finishNotAfter[v] = FAR;
  net.asLate[v] = 0;
  net.begun[v] = net.actualStart[v] !== NONE || net.actualFinish[v] !== NONE ? 1 : 0;
  const { constraint } = a;
  if (a.deadline !== null) net.finishNotAfter[v] = finishSlot(a.deadline, m);
  net.plain[v] = duration > 0 && !net.begun[v] && !constraint && a.deadline === null ? 1 : 0;
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
      net.finishNotAfter[v] = Math.min(finish, net.finishNotAfter[v]!);
      break;
    case 'fixedStart':
      net.fixedStart[v] = start;
      break;
    case 'fixedFinish':
      net.fixedFinish[v] = finish;
      break;
  }
}

const finishSlotOf = (moment: number | null, slotMinutes: number): number =>
  moment === null ? NONE : finishSlot(moment, slotMinutes);

const toSlots = (net: Network, time: WorkingTime, minutes: number): number =>
  net.resolution === 'day' ? Math.round(minutes / time.spec.minutesPerDay) : minutes;

/**
 * What is complete is history: it has happened on the dates that are stated of it. Without any, it is taken to have
 * been done by the status date; without that too, nothing says when, and it stays where the links put it.
 */
function readHistory(net: Network, v: number, plan: Plan, a: Activity, time: WorkingTime): void {
  const stated = statedDates(a, time, net.slotMinutes, boundsOf(plan));
  if (!stated) {
    if (net.status !== NONE) net.actualFinish[v] = Math.max(net.status, net.planStart);
    return;
  }
  const point = net.duration[v] === 0;
  if (point) net.role[v] = stated.atFinish ? FINISH_POINT : START_POINT;
  const finish = stated.atFinish
    ? finishSlot(stated.finish, net.slotMinutes)
    : startSlot(stated.finish, net.slotMinutes);
  net.actualFinish[v] = finish;
  if (point) net.actualStart[v] = finish;
  else if (a.actualFinish === null) net.actualStart[v] = Math.min(finish, startSlot(stated.start, net.slotMinutes));
}

/** Slots that a begun activity still takes: what remains of its work, with the pauses that are still to come. */
function remainingSlots(net: Network, a: Activity, time: WorkingTime, duration: number): number {
  const paused = a.stretches.length > 1 ? pausesAfter(a, time, net.slotMinutes, workSlots(net, a, time), -1) : 0;
  const work = duration - paused;
  const left =
    a.remaining !== null
      ? toSlots(net, time, a.remaining)
      : work - Math.floor((work * Math.round((a.percent ?? 0) * 1000)) / 100_000);
  return paused === 0 || left === 0 ? left : left + pausesAfter(a, time, net.slotMinutes, work, work - left);
}

/** Working slots of interrupted work without its pauses. */
const workSlots = (net: Network, a: Activity, time: WorkingTime): number =>
  a.duration !== null ? toSlots(net, time, a.duration) : stretchedWork(a, time, net.slotMinutes);

/**
 * Duration as stated, else the working time between the given dates (at least one slot, but for milestones), else what
 * its rate gives, else the promised length.
 */
function durationSlots(net: Network, a: Activity, time: WorkingTime): number {
  // Interrupted work spans its pauses too.
  if (a.duration !== null)
    return toSlots(net, time, a.duration) + pausesAfter(a, time, net.slotMinutes, toSlots(net, time, a.duration), -1);
  if (a.kind === 'startMilestone' || a.kind === 'finishMilestone') return 0;
  const from = a.actualStart ?? a.start ?? inOrder(a.stretches)[0]?.start ?? null;
  const to = a.actualFinish ?? a.finish ?? inOrder(a.stretches).at(-1)?.finish ?? null;
  if (from === null || to === null) return slotsByRate(a, time) || promisedSlots(a, time, net.slotMinutes);
  return Math.max(1, time.between(startSlot(from, net.slotMinutes), finishSlot(to, net.slotMinutes)));
}
