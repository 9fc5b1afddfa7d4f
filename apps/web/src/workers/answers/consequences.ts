import {
  countWords,
  activityTime,
  applyCommand,
  brokenLinks,
  type Command,
  type Day,
  finishDayOf,
  NONE,
  type Plan,
  type Schedule,
  schedulePlan,
  shownDays,
  fixedConflicts,
  deadlineMiss,
  planFinish,
} from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';
import type { Held } from './held';

/** What a change would bring: in a sentence, and where the rows in sight would stand. */
export interface Consequences {
  words: string;
  /** Whether something becomes worse that one would want to know of. */
  bad: boolean;
  bars: Record<string, WouldBar>;
}

/** Where a row would stand, how late it would be, and by when it would have to be done. */
export interface WouldBar {
  first: Day;
  last: Day;
  /** Working days; 0 for what is not late. */
  late: number;
  /** Whether it would be critical, and is not now. */
  critical: boolean;
  /** The last day by which it would have to end for what follows to hold; null where it does. */
  needed: Day | null;
}

/** What a command would bring, before it is given. */
export function consequencesOf(held: Held, command: Command, inSight: readonly string[]): Consequences {
  const { plan: after } = applyCommand(held.plan, command);
  const next = schedulePlan(after);
  const { plan: before, schedule: was } = held;
  const time = activityTime(after, next);
  const oldTime = activityTime(before, was);
  const [conflicts, conflictsBefore] = [fixedConflicts(after, next), fixedConflicts(before, was)];
  let moved = 0;
  let critical = 0;
  const late: string[] = [];
  after.activities.forEach((a, j) => {
    const i = was.outline.indexOf.get(a.ref);
    if (i === undefined || next.outline.isSummary[j]) return;
    if (was.start[i] !== next.start[j] || was.finish[i] !== next.finish[j]) moved++;
    if (was.critical[i] === 0 && next.critical[j] === 1) critical++;
    const fixedBy = conflicts.get(a.ref) ?? 0;
    if (fixedBy > (conflictsBefore.get(a.ref) ?? 0))
      return late.push(
        `${a.name || a.ref} has a fixed date: what leads to it is ${countWords(fixedBy, 'working day', 'working days')} too late`,
      );
    // Of what is too late by a bound that lies behind it, the bound is told.
    if (!isBound(after, j)) return;
    const [size, old] = [lateness(after, next, time, j), lateness(before, was, oldTime, i)];
    if (size > 0 && size > old)
      late.push(`${a.name || a.ref} would be ${countWords(size, 'working day', 'working days')} late`);
  });
  const broken = brokenLinks(next).size - brokenLinks(was).size;
  const [end, oldEnd] = [lastDay(next), lastDay(was)];
  const parts = [
    moved === 0 ? 'Nothing moves' : `Moves ${countWords(moved, 'activity', 'activities')}`,
    end !== null && oldEnd !== null && end !== oldEnd
      ? `the end goes from ${formatDay(oldEnd, 'medium')} to ${formatDay(end, 'medium')}`
      : '',
    critical > 0 ? `${countWords(critical, 'activity becomes', 'activities become')} critical` : '',
    broken > 0 ? `${countWords(broken, 'link is', 'links are')} broken` : '',
    ...late.slice(0, 2),
    late.length > 2 ? `and ${late.length - 2} more are late` : '',
  ].filter(Boolean);
  const bars: Consequences['bars'] = {};
  for (const ref of inSight) {
    const j = next.outline.indexOf.get(ref);
    const days = j === undefined ? null : shownDays(next, j);
    if (!days || j === undefined) continue;
    const short = next.totalFloat[j] !== NONE && next.totalFloat[j]! < 0;
    bars[ref] = {
      ...days,
      late: isBound(after, j) ? lateness(after, next, time, j) : 0,
      critical: next.critical[j] === 1 && was.critical[was.outline.indexOf.get(ref) ?? -1] !== 1,
      needed: short && next.lateFinish[j] !== NONE ? finishDayOf(next.lateFinish[j]!) : null,
    };
  }
  return { words: `${parts.join('; ')}.`, bad: late.length > 0 || broken > 0, bars };
}

/** Whether a date of its own bounds it. */
const isBound = ({ activities }: Plan, i: number): boolean =>
  activities[i]!.deadline !== null || activities[i]!.constraint !== null;

/** Working days by which something is too late for its deadline, or for what bounds it. */
function lateness(plan: Plan, s: Schedule, time: ReturnType<typeof activityTime>, i: number): number {
  const missed = deadlineMiss(plan, s, i)?.days ?? 0;
  const negative = s.totalFloat[i] !== NONE && s.totalFloat[i]! < 0 ? -s.totalFloat[i]! / time.minutesPerDay(i) : 0;
  return Math.ceil(Math.max(missed, negative));
}

const lastDay = (s: Schedule): Day | null => planFinish(s)?.day ?? null;
