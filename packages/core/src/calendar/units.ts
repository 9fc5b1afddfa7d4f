import { MINUTES_PER_DAY } from '../time/civil';
import type { CalendarSpec } from './spec';

/** Units of length in which people say durations, lags and floats. Elapsed days ignore calendars. */
export const LENGTH_UNITS = ['minute', 'hour', 'day', 'week', 'month', 'elapsedDay'] as const;
export type LengthUnit = (typeof LENGTH_UNITS)[number];

/** Weeks that make a month of length, by common practice. */
const WEEKS_PER_MONTH = 4;

/** Days of the week on which a calendar works. */
export const workdaysPerWeek = (spec: CalendarSpec): number => spec.week.filter((pattern) => pattern.length > 0).length;

/** Minutes in a unit: working minutes by the calendar's own day and week, and those of the clock for elapsed days. */
export function minutesPerUnit(unit: LengthUnit, spec: CalendarSpec): number {
  switch (unit) {
    case 'minute':
      return 1;
    case 'hour':
      return 60;
    case 'day':
      return spec.minutesPerDay;
    case 'week':
      return spec.minutesPerDay * workdaysPerWeek(spec);
    case 'month':
      return spec.minutesPerDay * workdaysPerWeek(spec) * WEEKS_PER_MONTH;
    case 'elapsedDay':
      return MINUTES_PER_DAY;
  }
}

const NAMES: Record<LengthUnit, [one: string, many: string]> = {
  minute: ['working minute', 'working minutes'],
  hour: ['working hour', 'working hours'],
  day: ['working day', 'working days'],
  week: ['working week', 'working weeks'],
  month: ['working month', 'working months'],
  elapsedDay: ['elapsed day', 'elapsed days'],
};

/** A length with its unit in words, to two decimals: `3 working days`, `1.5 working weeks`, `1 elapsed day`. */
export function lengthWords(minutes: number, unit: LengthUnit, spec: CalendarSpec): string {
  const amount = Math.round((100 * minutes) / minutesPerUnit(unit, spec)) / 100 + 0;
  return `${amount} ${NAMES[unit][Math.abs(amount) === 1 ? 0 : 1]}`;
}
