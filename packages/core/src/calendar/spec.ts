import { z } from 'zod';
import { FIRST_DAY, LAST_DAY, MINUTES_PER_DAY } from '../time/civil';

/** A piece of working time within a day, in minutes from midnight; the end is not included. */
export const WorkInterval = z
  .tuple([z.int().min(0).max(MINUTES_PER_DAY), z.int().min(0).max(MINUTES_PER_DAY)])
  .refine(([from, to]) => from < to, { message: 'a working interval ends after it begins' });
export type WorkInterval = z.infer<typeof WorkInterval>;

/** The working time of one day: intervals in order that do not overlap. None means no work. */
export const DayPattern = z
  .array(WorkInterval)
  .max(12)
  .refine((list) => list.every((interval, i) => i === 0 || list[i - 1]![1] <= interval[0]), {
    message: 'working intervals stand in order and do not overlap',
  });
export type DayPattern = z.infer<typeof DayPattern>;

/** What a planner states about working time. */
export const CalendarSpec = z.object({
  id: z.string().min(1).max(100),
  name: z.string().min(1).max(200),
  /** Seven patterns, Monday first. */
  week: z.array(DayPattern).length(7),
  /** Dates with working time of their own, as day numbers. The later of two entries for a day holds. */
  exceptions: z
    .array(
      z.object({
        day: z.int().min(FIRST_DAY).max(LAST_DAY),
        pattern: DayPattern,
        name: z.string().max(200).default(''),
      }),
    )
    .max(20_000)
    .default([]),
  /** Dates that come back every year; exceptions go before them. */
  yearly: z
    .array(
      z.object({
        month: z.int().min(1).max(12),
        day: z.int().min(1).max(31),
        pattern: DayPattern,
        name: z.string().max(200).default(''),
      }),
    )
    .max(400)
    .default([]),
  /** Working minutes that count as "one day" of duration. */
  minutesPerDay: z.int().min(1).max(MINUTES_PER_DAY),
});
export type CalendarSpec = z.infer<typeof CalendarSpec>;

/** Eight hours with a break at noon. */
export const OFFICE_DAY: DayPattern = [
  [8 * 60, 12 * 60],
  [13 * 60, 17 * 60],
];

/** A calendar with the same day on the first `workdays` days of the week and none on the others. */
export function weekCalendar(
  id: string,
  name: string,
  workdays: number,
  pattern: DayPattern = OFFICE_DAY,
): CalendarSpec {
  return {
    id,
    name,
    week: Array.from({ length: 7 }, (_, weekday) => (weekday < workdays ? pattern : [])),
    exceptions: [],
    yearly: [],
    minutesPerDay: minutesIn(pattern),
  };
}

/** Working minutes in a day of this pattern. */
export const minutesIn = (pattern: DayPattern): number => pattern.reduce((sum, [from, to]) => sum + to - from, 0);

/** Monday to Friday, eight hours. */
export const FIVE_DAY: CalendarSpec = weekCalendar('five-day', 'Five-day week', 5);
/** Monday to Saturday, eight hours. */
export const SIX_DAY: CalendarSpec = weekCalendar('six-day', 'Six-day week', 6);
/** Every day, eight hours. */
export const SEVEN_DAY: CalendarSpec = weekCalendar('seven-day', 'Seven-day week', 7);

/** Every day and hour: for what is counted in elapsed time, such as curing or a permit's term. */
export const ROUND_THE_CLOCK: CalendarSpec = weekCalendar('round-the-clock', 'Every day, round the clock', 7, [
  [0, MINUTES_PER_DAY],
]);

export const STANDARD_CALENDARS: readonly CalendarSpec[] = [FIVE_DAY, SIX_DAY, SEVEN_DAY];
