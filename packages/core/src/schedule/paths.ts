import type { Plan } from '../plan/schema';
import { NONE } from './slots';
import { latestFor } from './demands';
import { endOf } from './drawn';
import { SF, SS } from './links';
import type { Schedule } from './model';

/** Positions in `plan.links` of the links without slack: what each activity waits for. */
export function drivingLinks(s: Schedule): number[] {
  const driving = new Set<number>();
  for (let l = 0; l < s.network.linkCount; l++) if (isDriving(s, l)) driving.add(s.network.linkOf[l]!);
  return [...driving].sort((a, b) => a - b);
}

const isDriving = (s: Schedule, l: number): boolean => s.floats.slack[l] !== NONE && s.floats.slack[l]! <= 0;

/**
 * The driving path of an activity: the activities that lead to it along links without slack, from where the path
 * starts to the activity itself. Where several links drive, the one from the latest predecessor is followed.
 * Positions in `plan.activities`; empty for what has no dates.
 */
export function drivingPath(s: Schedule, position: number): number[] {
  const { network: net, adjacency: adj, shown: dates } = s;
  let v = net.nodeOf[position] ?? -1;
  if (v < 0 || s.order.blocked[v] || dates.earlyStart[v] === NONE) return [];
  const path: number[] = [];
  for (;;) {
    path.unshift(net.activityOf[v]!);
    let next = -1;
    for (let k = adj.intoAt[v]!; k < adj.intoAt[v + 1]!; k++) {
      const link = adj.into[k]!;
      const u = net.linkFrom[link]!;
      if (!isDriving(s, link)) continue;
      if (next < 0 || dates.earlyFinish[u]! > dates.earlyFinish[next]!) next = u;
    }
    if (next < 0) return path;
    v = next;
  }
}

/** The driving path of the last shown finish of the plan; of several at the same moment, of the one that others lead to. */
export function longestPath(s: Schedule): number[] {
  let last = -1;
  for (const v of s.order.sequence) {
    if (s.shown.earlyStart[v] === NONE) continue;
    if (last < 0 || endOf(s.network, s.shown, v) >= endOf(s.network, s.shown, last)) last = v;
  }
  return last < 0 ? [] : drivingPath(s, s.network.activityOf[last]!);
}

/** By when a predecessor must be done for a fixed date to hold. */
export interface NeededBy {
  /** Position of the predecessor in `plan.activities`. */
  position: number;
  /** The last moment, in the predecessor's own calendar: an end of work for FS and FF, a start for SS and SF. */
  moment: number;
  ofStart: boolean;
}

/**
 * For an activity with a fixed date, each predecessor's last moment: if the opening day is a Monday, the end of
 * the Friday before (on a five-day week). Empty for what has no fixed date.
 */
export function neededBy(plan: Plan, s: Schedule, position: number): NeededBy[] {
  const constraint = plan.activities[position]?.constraint;
  if (constraint?.kind !== 'fixedStart' && constraint?.kind !== 'fixedFinish') return [];
  const { network: net, adjacency: adj, shown: dates } = s;
  const v = net.nodeOf[position]!;
  if (v < 0) return [];
  const list: NeededBy[] = [];
  for (let k = adj.intoAt[v]!; k < adj.intoAt[v + 1]!; k++) {
    const link = adj.into[k]!;
    const u = net.linkFrom[link]!;
    const type = net.linkType[link]!;
    const time = net.times[net.calendar[u]!]!;
    const x = latestFor(net, dates, link, dates.earlyStart[v]!, dates.earlyFinish[v]!);
    const ofStart = type === SS || type === SF;
    const slot = ofStart ? time.lastStart(x) : time.lastFinish(x);
    list.push({ position: net.activityOf[u]!, moment: slot * net.slotMinutes, ofStart });
  }
  return list;
}
