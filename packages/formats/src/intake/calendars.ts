import { FIVE_DAY, SEVEN_DAY, SIX_DAY, weekdayOf, WorkingTime } from '@clembo/core';
import type { ReadDuration } from '../values/amounts';
import type { ReadDate } from '../values/dates';

interface DatedRow {
  start: ReadDate | null;
  finish: ReadDate | null;
  duration: ReadDuration | null;
}

const ENOUGH = 2000;

/**
 * Which week the dates of a table were made with: the one in which the most durations equal the working days
 * from start to finish; without durations, the shortest week whose days off are (almost) never used.
 */
export function guessCalendar(rows: DatedRow[]): string {
  const weeks = [FIVE_DAY, SIX_DAY, SEVEN_DAY];
  const timed: { start: number; end: number; days: number }[] = [];
  const days: number[] = [];
  for (const { start, finish, duration } of rows) {
    if (timed.length === ENOUGH || days.length > 4 * ENOUGH) break;
    // What is vaguer than a day begins and ends on no day in particular.
    for (const date of [start, finish]) if (date && date.day === date.last && !date.bound) days.push(date.day);
    if (
      start &&
      finish &&
      duration?.unit === 'day' &&
      !duration.elapsed &&
      duration.amount > 0 &&
      Number.isInteger(duration.amount)
    ) {
      timed.push({ start: start.day, end: finish.day + 1, days: duration.amount });
    }
  }
  if (timed.length >= 3) {
    const hits = weeks.map((week) => {
      const time = new WorkingTime(week, 'day', timed[0]!.start);
      return timed.filter((t) => time.between(t.start, t.end) === t.days).length;
    });
    const best = Math.max(...hits);
    if (best > timed.length / 2) return weeks[hits.indexOf(best)]!.id;
  }
  const share = (weekday: number) => days.filter((d) => weekdayOf(d) === weekday).length / Math.max(1, days.length);
  if (share(6) > 0.05) return SEVEN_DAY.id;
  return share(5) > 0.05 ? SIX_DAY.id : FIVE_DAY.id;
}
