import type { Outline } from '../outline/outline';
import type { Plan } from '../plan/schema';
import type { Anchor, Schedule, Support } from './model';
import { firstBoundary, lastBoundary } from '../time/days';
import { ACTUAL, COMPUTED, STATED, UNKNOWN } from './given';
import { NONE } from './slots';

/** Dates with the side of its day on which each point stands. */
type Sided = Pick<Schedule, 'start' | 'finish' | 'atFinish'>;

/**
 * The supporting work of a plan with what it hangs on. A summary is read as what it contains. Links between two of
 * its kind say nothing, since neither has a length of its own.
 */
export function findSupport(plan: Plan, outline: Outline): Support[] {
  const found = new Map<number, Support>();
  plan.activities.forEach((a, position) => {
    if (a.kind === 'levelOfEffort' && !outline.isSummary[position]) found.set(position, { position, anchors: [] });
  });
  if (found.size === 0) return [];
  const within = (i: number): number[] =>
    outline.isSummary[i]
      ? outline.children[i]!.flatMap(within)
      : plan.activities[i]!.kind === 'levelOfEffort'
        ? []
        : [i];
  for (const link of plan.links) {
    const from = outline.indexOf.get(link.from);
    const to = outline.indexOf.get(link.to);
    if (from === undefined || to === undefined || from === to) continue;
    const anchor = (side: Anchor['side'], other: number, at: Anchor['at']): Anchor => ({
      side,
      at,
      others: within(other),
    });
    const after = found.get(to);
    if (after && !found.has(from)) {
      if (link.type === 'SS') after.anchors.push(anchor('start', from, 'start'));
      if (link.type === 'FS') after.anchors.push(anchor('start', from, 'finish'));
      if (link.type === 'FF') after.anchors.push(anchor('finish', from, 'finish'));
    }
    const before = found.get(from);
    if (before && !found.has(to)) {
      if (link.type === 'FF') before.anchors.push(anchor('finish', to, 'finish'));
      if (link.type === 'FS') before.anchors.push(anchor('finish', to, 'start'));
    }
  }
  return [...found.values()];
}

/** The earliest start or the latest finish of what an anchor hangs on; NONE where nothing of it has dates. */
function momentOf({ others, at }: Anchor, starts: Int32Array, finishes: Int32Array, sides: Uint8Array): number {
  let moment = NONE;
  for (const i of others) {
    if (starts[i] === NONE) continue;
    const span = { start: starts[i]!, finish: finishes[i]!, atFinish: sides[i] === 1 };
    const own = at === 'start' ? firstBoundary(span) : lastBoundary(span);
    if (moment === NONE || (at === 'start' ? own < moment : own > moment)) moment = own;
  }
  return moment;
}

function spanOf(
  { anchors }: Support,
  { start: starts, finish: finishes, atFinish }: Sided,
): [start: number, finish: number] {
  let [start, finish] = [NONE, NONE];
  for (const anchor of anchors) {
    const moment = momentOf(anchor, starts, finishes, atFinish);
    if (moment === NONE) continue;
    if (anchor.side === 'finish') finish = Math.max(finish, moment);
    else start = start === NONE ? moment : Math.min(start, moment);
  }
  return [start, finish];
}

/** True when supporting work has nothing that says where it begins, or where it ends. */
export const isOpen = (support: Support, s: Schedule): boolean =>
  spanOf(support, { start: s.earlyStart, finish: s.earlyFinish, atFinish: s.atFinish }).includes(NONE);

/**
 * Supporting work has no length of its own: it spans from the earliest start of what its start is linked to, to
 * the latest finish of what its finish is linked to. It is placed after everything else, so it drives nothing,
 * and it has no float. Where one side is open its given date is used. Its shown dates follow the shown dates of
 * what it supports, unless the source states its own and is trusted.
 */
export function placeSupport(plan: Plan, s: Schedule): void {
  for (const support of s.support) {
    const i = support.position;
    const [given, end] = [s.given.start[i]!, s.given.finish[i]!];
    const place = (dates: Sided): [start: number, finish: number] => {
      const [start, finish] = spanOf(support, dates);
      const from = start === NONE ? given : start;
      const to = finish === NONE ? end : finish;
      return from === NONE || to === NONE ? [NONE, NONE] : [from, Math.max(from, to)];
    };
    const [early, earlyEnd] = place({ start: s.earlyStart, finish: s.earlyFinish, atFinish: s.atFinish });
    s.earlyStart[i] = s.lateStart[i] = early;
    s.earlyFinish[i] = s.lateFinish[i] = earlyEnd;
    s.atFinish[i] = 1;
    const { startFrom, finishFrom } = s.given;
    const isStated = (from: number) => from === ACTUAL || from === STATED;
    const stated = plan.source === 'given' && isStated(startFrom[i]!) && isStated(finishFrom[i]!);
    const [start, finish] = stated ? [given, end] : plan.source === 'given' ? place(s) : [early, earlyEnd];
    const from = (own: number): number => (start === NONE ? UNKNOWN : stated ? own : COMPUTED);
    s.startFrom[i] = from(startFrom[i]!);
    s.finishFrom[i] = from(finishFrom[i]!);
    s.start[i] = start;
    s.finish[i] = finish;
  }
}
