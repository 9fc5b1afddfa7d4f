import { shownDays } from '../commands/dating';
import { calendarOf } from '../plan/calendars';
import type { Plan } from '../plan/schema';
import { workingTimeOf } from '../calendar/workingTime';
import { NONE } from '../schedule/slots';
import type { Schedule } from '../schedule/model';
import { behindReader } from './behind';
import { planFinish } from './planFinish';
import type { Day } from '../time/civil';

/** A plan as it stood once. */
export interface KeptPlan {
  plan: Plan;
  schedule: Schedule;
}

/** Where something was expected, edition by edition; null where the edition did not have it or gave it no date. */
export interface Trend {
  /** The reference, or null for the finish of the whole plan. */
  ref: string | null;
  name: string;
  days: (Day | null)[];
  /** Working days from the first edition that knew it to the last; later is positive. Null where fewer than two did. */
  moved: number | null;
}

/**
 * The expected finish of the plan, and of activities, from edition to edition.
 * @param editions in their order, the oldest first; the last one names things and gives the calendars
 */
export function trendsOf(editions: readonly KeptPlan[], refs: readonly string[]): Trend[] {
  const now = editions.at(-1);
  if (!now) return [];
  const moved = (days: (Day | null)[], calendar: string | null): number | null => {
    const known = days.filter((d) => d !== null);
    if (known.length < 2) return null;
    return workingTimeOf(calendarOf(now.plan, calendar), 'day', known[0]!).between(known[0]! + 1, known.at(-1)! + 1);
  };
  const whole = editions.map(({ schedule }) => planFinish(schedule)?.day ?? null);
  return [
    { ref: null, name: 'Finish', days: whole, moved: moved(whole, null) },
    ...refs.map((ref): Trend => {
      const days = editions.map(({ schedule: s }) => {
        const i = s.outline.indexOf.get(ref);
        return i === undefined ? null : (shownDays(s, i)?.last ?? null);
      });
      const at = editions.map(({ schedule }) => schedule.outline.indexOf.get(ref));
      const k = at.findLastIndex((i) => i !== undefined);
      const a = k < 0 ? null : editions[k]!.plan.activities[at[k]!]!;
      return { ref, name: a?.name || ref, days, moved: moved(days, a?.calendar ?? null) };
    }),
  ];
}

/** How an activity moved between two editions, in working days of its calendar; later is positive. */
export interface Moved {
  ref: string;
  name: string;
  responsible: string[];
  startDays: number;
  finishDays: number;
}

/** What moved between two editions, the largest move first. Groups are left out. */
export function movesBetween(before: KeptPlan, after: KeptPlan): Moved[] {
  const { plan, schedule: s } = after;
  const { schedule: b } = before;
  const behind = behindReader(plan, s, { schedule: b });
  const list = plan.activities.flatMap((a, i): Moved[] => {
    const j = b.outline.indexOf.get(a.ref);
    if (j === undefined || s.outline.isSummary[i] || b.outline.isSummary[j]) return [];
    if (s.start[i] === NONE || b.start[j] === NONE) return [];
    const { start: startDays, finish: finishDays } = behind(i, j)!;
    if (startDays === 0 && finishDays === 0) return [];
    return [{ ref: a.ref, name: a.name || a.ref, responsible: a.responsible, startDays, finishDays }];
  });
  const size = (m: Moved) => Math.max(Math.abs(m.finishDays), Math.abs(m.startDays));
  return list.sort((x, y) => size(y) - size(x));
}
