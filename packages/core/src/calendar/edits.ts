import { civilFromDay, type Day, MINUTES_PER_DAY, weekdayOf } from '../time/civil';
import { type CalendarSpec, type DayPattern, minutesIn } from './spec';
import { workingTimeOf } from './workingTime';

/** A minute of the day as a clock shows it: `07:30`. */
export const clockWords = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;

/** Working hours of a day as a person would write them: `08:00–12:00, 13:00–17:00`; an empty text for none. */
export const patternWords = (pattern: DayPattern): string =>
  pattern.map(([from, to]) => `${clockWords(from)}–${clockWords(to)}`).join(', ');

/**
 * Working hours as typed: `8-12, 13-17`, `08:00–16:30`, `22-24`; an empty text, `off` and `none` for a day without work.
 * Null for what is none, or where two of them lie over each other.
 */
export function readPattern(text: string): DayPattern | null {
  const plain = text.trim().toLowerCase();
  if (plain === '' || plain === 'off' || plain === 'none') return [];
  const intervals: [number, number][] = [];
  for (const part of plain.split(/\s*[,;]\s*|\s+and\s+/)) {
    const m = /^(\d{1,2})(?:[:.](\d{2}))?\s*(?:-|–|—|to)\s*(\d{1,2})(?:[:.](\d{2}))?(?:\s*h)?$/.exec(part);
    if (!m) return null;
    const [from, to] = [Number(m[1]) * 60 + Number(m[2] ?? 0), Number(m[3]) * 60 + Number(m[4] ?? 0)];
    if (Number(m[2] ?? 0) > 59 || Number(m[4] ?? 0) > 59 || from >= to || to > MINUTES_PER_DAY) return null;
    intervals.push([from, to]);
  }
  intervals.sort((a, b) => a[0] - b[0]);
  if (intervals.length > 12 || intervals.some(([from], k) => k > 0 && from < intervals[k - 1]![1])) return null;
  return intervals;
}

/** What days of a calendar are made: off, working hours of their own, or as their weekday is. */
export interface DaysMade {
  first: Day;
  last: Day;
  /** Null makes them as their weekdays are. */
  pattern: DayPattern | null;
  name: string;
  /** Every year on the same dates. */
  yearly: boolean;
}

/** A calendar with some of its days made otherwise; what was said of them before goes. */
export function withDays(spec: CalendarSpec, { first, last, pattern, name, yearly }: DaysMade): CalendarSpec {
  const days = Array.from({ length: last - first + 1 }, (_, k) => first + k);
  const dates = new Set(days.map((day) => dateKey(civilFromDay(day))));
  const exceptions = spec.exceptions.filter((e) => e.day < first || e.day > last);
  const others = spec.yearly.filter((y) => !dates.has(dateKey(y)));
  if (pattern === null) return { ...spec, exceptions, yearly: others };
  if (yearly)
    return {
      ...spec,
      exceptions,
      yearly: [
        ...others,
        ...days.map((day) => {
          const { month, day: date } = civilFromDay(day);
          return { month, day: date, pattern, name };
        }),
      ],
    };
  return { ...spec, exceptions: [...exceptions, ...days.map((day) => ({ day, pattern, name }))] };
}

const dateKey = ({ month, day }: { month: number; day: number }): string => `${month}-${day}`;

/** What a calendar says of one day. */
export interface DaySaid {
  pattern: DayPattern;
  name: string;
  /** Whether it follows its weekday, or is said for the date, every year or once. */
  by: 'weekday' | 'yearly' | 'date';
}

export function daySaid(spec: CalendarSpec, day: Day): DaySaid {
  const own = spec.exceptions.findLast((e) => e.day === day);
  if (own) return { pattern: own.pattern, name: own.name, by: 'date' };
  const { month, day: date } = civilFromDay(day);
  const yearly = spec.yearly.findLast((y) => y.month === month && y.day === date);
  if (yearly) return { pattern: yearly.pattern, name: yearly.name, by: 'yearly' };
  return { pattern: spec.week[weekdayOf(day)]!, name: '', by: 'weekday' };
}

/** Working days from a day on: the last of them, and how many calendar days that is. */
export interface SpanWords {
  first: Day;
  last: Day;
  calendarDays: number;
}

/** Where so many working days end that begin on a day, or on the first working day behind it. */
export function workingDaysFrom(spec: CalendarSpec, day: Day, days: number): SpanWords {
  const time = workingTimeOf(spec, 'day', day);
  const first = time.firstStart(day);
  const last = time.finishOf(first, Math.max(1, days)) - 1;
  return { first, last, calendarDays: last - first + 1 };
}

/** The working minutes that most working days of a week have, for what “a day” of length comes to. */
export function usualMinutes(week: readonly DayPattern[]): number {
  const worked = week.map(minutesIn).filter((m) => m > 0);
  if (worked.length === 0) return 480;
  const counts = new Map<number, number>();
  for (const m of worked) counts.set(m, (counts.get(m) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0]![0];
}
