import {
  activityTime,
  applyCommand,
  type Command,
  type Day,
  finishDayOf,
  type Link,
  NONE,
  type Plan,
  type Schedule,
  schedulePlan,
  shownDays,
} from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import type { Held } from './held';

/** What a change would bring: in a sentence, and where the rows in sight would stand. */
export interface Consequences {
  words: string;
  /** Whether something becomes worse that one would want to know of. */
  bad: boolean;
  bars: Record<string, { first: Day; last: Day }>;
}

const count = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

/** What a command would bring, before it is given. */
export function consequencesOf(held: Held, command: Command, inSight: readonly string[]): Consequences {
  const { plan: after } = applyCommand(held.plan, command);
  const next = schedulePlan(after);
  const { plan: before, schedule: was } = held;
  const time = activityTime(after, next);
  let moved = 0;
  let critical = 0;
  const late: string[] = [];
  after.activities.forEach((a, j) => {
    const i = was.outline.indexOf.get(a.ref);
    if (i === undefined || next.outline.isSummary[j]) return;
    if (was.start[i] !== next.start[j] || was.finish[i] !== next.finish[j]) moved++;
    if (was.critical[i] === 0 && next.critical[j] === 1) critical++;
    const [size, old] = [lateness(after, next, time, j), lateness(before, was, activityTime(before, was), i)];
    if (size > 0 && size > old)
      late.push(`${a.name || a.ref} would be ${count(size, 'working day', 'working days')} late`);
  });
  const broken = brokenLinks(after, next).length - brokenLinks(before, was).length;
  const [end, oldEnd] = [lastDay(next), lastDay(was)];
  const parts = [
    moved === 0 ? 'Nothing moves' : `Moves ${count(moved, 'activity', 'activities')}`,
    end !== null && oldEnd !== null && end !== oldEnd
      ? `the end goes from ${formatDay(oldEnd, 'medium')} to ${formatDay(end, 'medium')}`
      : '',
    critical > 0 ? `${count(critical, 'activity becomes', 'activities become')} critical` : '',
    broken > 0 ? `${count(broken, 'link is', 'links are')} broken` : '',
    ...late.slice(0, 2),
    late.length > 2 ? `and ${late.length - 2} more are late` : '',
  ].filter(Boolean);
  const bars: Consequences['bars'] = {};
  for (const ref of inSight) {
    const j = next.outline.indexOf.get(ref);
    const days = j === undefined ? null : shownDays(next, j);
    if (days) bars[ref] = days;
  }
  return { words: `${parts.join('; ')}.`, bad: late.length > 0 || broken > 0, bars };
}

/** Working days by which something is too late for its deadline, or for what bounds it. */
function lateness(plan: Plan, s: Schedule, time: ReturnType<typeof activityTime>, i: number): number {
  const { deadline } = plan.activities[i]!;
  const missed =
    deadline !== null && s.finish[i] !== NONE && s.finish[i]! > deadline
      ? time.daysBetween(i, deadline, s.finish[i]!)
      : 0;
  const negative =
    plan.source === 'computed' && s.totalFloat[i] !== NONE && s.totalFloat[i]! < 0
      ? -s.totalFloat[i]! / time.minutesPerDay(i)
      : 0;
  return Math.ceil(Math.max(missed, negative));
}

/** Links whose ends, as the plan shows them, stand against each other; lags are not counted. */
function brokenLinks(plan: Plan, s: Schedule): Link[] {
  return plan.links.filter((l) => {
    const [i, j] = [s.outline.indexOf.get(l.from), s.outline.indexOf.get(l.to)];
    if (i === undefined || j === undefined || l.lag < 0 || s.start[i] === NONE || s.start[j] === NONE) return false;
    if (s.outline.isSummary[i] || s.outline.isSummary[j]) return false;
    const end = l.type === 'FS' || l.type === 'FF' ? s.finish[i]! : s.start[i]!;
    const begin = l.type === 'FS' || l.type === 'SS' ? s.start[j]! : s.finish[j]!;
    return begin < end;
  });
}

function lastDay(s: Schedule): Day | null {
  const last = s.finish.reduce((most, f) => (f !== NONE && f > most ? f : most), Number.NEGATIVE_INFINITY);
  return Number.isFinite(last) ? finishDayOf(last) : null;
}
