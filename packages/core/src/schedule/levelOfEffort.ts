import type { Outline } from '../outline/outline';
import type { Plan } from '../plan/schema';
import { NONE } from './slots';
import type { Schedule } from './schedule';

/** A link that says where supporting work begins or ends: at the start or the finish of another activity. */
interface Anchor {
  other: number;
  side: 'start' | 'finish';
  /** Which date of the other activity is meant. */
  at: 'start' | 'finish';
}

/** Supporting work with what it hangs on. */
export interface Support {
  position: number;
  anchors: Anchor[];
}

/** The supporting work of a plan. Links between two of its kind say nothing, since neither has a length of its own. */
export function findSupport(plan: Plan, outline: Outline): Support[] {
  const found = new Map<number, Support>();
  plan.activities.forEach((a, position) => {
    if (a.kind === 'levelOfEffort' && !outline.isSummary[position]) found.set(position, { position, anchors: [] });
  });
  if (found.size === 0) return [];
  for (const link of plan.links) {
    const from = outline.indexOf.get(link.from);
    const to = outline.indexOf.get(link.to);
    if (from === undefined || to === undefined || from === to) continue;
    const after = found.get(to);
    if (after && !found.has(from)) {
      if (link.type === 'SS') after.anchors.push({ other: from, side: 'start', at: 'start' });
      if (link.type === 'FS') after.anchors.push({ other: from, side: 'start', at: 'finish' });
      if (link.type === 'FF') after.anchors.push({ other: from, side: 'finish', at: 'finish' });
    }
    const before = found.get(from);
    if (before && !found.has(to)) {
      if (link.type === 'FF') before.anchors.push({ other: to, side: 'finish', at: 'finish' });
      if (link.type === 'FS') before.anchors.push({ other: to, side: 'finish', at: 'start' });
    }
  }
  return [...found.values()];
}

/**
 * Supporting work has no length of its own: it spans from the earliest start of what its start is linked to, to
 * the latest finish of what its finish is linked to. It is placed after everything else, so it drives nothing,
 * and it has no float. Where one side is open its given date is used. Returns the positions with an open side.
 */
export function placeSupport(s: Schedule): number[] {
  const open: number[] = [];
  for (const { position: i, anchors } of s.support) {
    let [start, finish] = [NONE, NONE];
    for (const { other, side, at } of anchors) {
      const moment = at === 'start' ? s.earlyStart[other]! : s.earlyFinish[other]!;
      if (moment === NONE) continue;
      if (side === 'finish') finish = Math.max(finish, moment);
      else start = start === NONE ? moment : Math.min(start, moment);
    }
    if (start === NONE || finish === NONE) open.push(i);
    if (start === NONE) start = s.given.start[i]!;
    if (finish === NONE) finish = s.given.finish[i]!;
    s.atFinish[i] = 1;
    const known = start !== NONE && finish !== NONE;
    s.earlyStart[i] = s.lateStart[i] = known ? start : NONE;
    s.earlyFinish[i] = s.lateFinish[i] = known ? Math.max(start, finish) : NONE;
  }
  return open;
}
