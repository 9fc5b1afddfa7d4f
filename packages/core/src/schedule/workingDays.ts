import type { WorkingTime } from '../calendar/workingTime';
import type { Plan } from '../plan/schema';
import type { Schedule } from './model';
import { NONE } from './slots';

/** Working time of a plan's activities, for whoever compares and spreads moments. */
export interface ActivityTime {
  /** Working days from one moment to another in the calendar of the activity; negative backwards. */
  daysBetween(position: number, from: number, to: number): number;
  /** The same in the plan's own calendar. */
  planDaysBetween(from: number, to: number): number;
  /** Working minutes between two moments. */
  minutesBetween(position: number, from: number, to: number): number;
  minutesPerDay(position: number): number;
  timeOf(position: number): WorkingTime;
}

/** Starts and finishes are both boundaries here: the working time that lies between them is counted. */
export function activityTime(plan: Plan, s: Schedule): ActivityTime {
  const byId = new Map(s.network.times.map((t) => [t.spec.id, t]));
  const own = byId.get(plan.calendar) ?? s.network.times[0]!;
  const timeOf = (i: number) => {
    const { calendar } = plan.activities[i]!;
    return (calendar !== null && byId.get(calendar)) || own;
  };
  const m = s.network.slotMinutes;
  const minutesIn = (time: WorkingTime, from: number, to: number): number => {
    if (from === NONE || to === NONE) return 0;
    const slots = time.rank(Math.ceil(to / m)) - time.rank(Math.ceil(from / m));
    return s.network.resolution === 'day' ? slots * time.spec.minutesPerDay : slots;
  };
  const minutesBetween = (i: number, from: number, to: number) => minutesIn(timeOf(i), from, to);
  const minutesPerDay = (i: number) => timeOf(i).spec.minutesPerDay;
  return {
    minutesBetween,
    minutesPerDay,
    timeOf,
    planDaysBetween: (from, to) => minutesIn(own, from, to) / own.spec.minutesPerDay,
    daysBetween: (i, from, to) => minutesBetween(i, from, to) / minutesPerDay(i),
  };
}
