import { workingTimeOf } from '../calendar/workingTime';
import { calendarOf } from '../plan/calendars';
import { type Activity, isMilestone, type Plan, type Stretch } from '../plan/schema';
import type { Schedule } from '../schedule/model';
import { stretchesAt } from '../schedule/stretches';
import { type Day, endOfDay, finishDayOf, dayOf, startOfDay } from '../time/civil';

type Part = Partial<Omit<Activity, 'ref'>>;

/**
 * Interrupts an activity from one day to another: the work that would lie there, and all behind it, comes after the
 * pause; there is as much of it as before. Null where the pause lies outside its time.
 */
export function paused(plan: Plan, s: Schedule, position: number, first: Day, last: Day): Part | null {
  const a = plan.activities[position]!;
  const pieces = stretchesAt(plan, s, position);
  const spec = calendarOf(plan, a.calendar);
  if (isMilestone(a.kind) || pieces.length === 0) return null;
  const begin = dayOf(pieces[0]!.start);
  if (first <= begin || first > finishDayOf(pieces.at(-1)!.finish) || last < first) return null;
  const time = workingTimeOf(spec, 'day', first);
  // Working days of each piece, as whole days: those before the pause stay, those in or behind it go on after it.
  const before: Stretch[] = [];
  const by = Math.max(0, time.between(first, last + 1));
  const later: Stretch[] = [];
  const put = (list: Stretch[], from: Day, to: Day) => {
    if (time.between(from, to + 1) > 0)
      list.push({ start: startOfDay(time.firstStart(from)), finish: endOfDay(time.lastStart(to)) });
  };
  for (const piece of pieces) {
    const [from, to] = [dayOf(piece.start), finishDayOf(piece.finish)];
    put(before, from, Math.min(to, first - 1));
    if (to < first) continue;
    const own = Math.max(from, first);
    const [k, n] = [time.rank(time.firstStart(own)), time.between(own, to + 1)];
    if (n > 0) later.push({ start: startOfDay(time.select(k + by)), finish: endOfDay(time.select(k + by + n - 1)) });
  }
  if (before.length === 0 || later.length === 0) return null;
  return stretchedOver([...before, ...later], spec.minutesPerDay, (from, to) => time.between(from, to));
}

/** What an activity says that is worked in these stretches, in the order of time. */
export function stretchedOver(
  stretches: readonly Stretch[],
  minutesPerDay: number,
  between: (from: Day, end: Day) => number,
): Part {
  const days = stretches.reduce((sum, x) => sum + between(dayOf(x.start), finishDayOf(x.finish) + 1), 0);
  return {
    stretches: [...stretches],
    start: stretches[0]!.start,
    finish: stretches.at(-1)!.finish,
    duration: days * minutesPerDay,
    said: null,
  };
}
