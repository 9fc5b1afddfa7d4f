import { FIVE_DAY, SEVEN_DAY, SIX_DAY, weekdayOf, WorkingTime } from '@clembo/core';

interface DatedRow {
  start: number | null;
  finish: number | null;
  days: number | null;
}

/**
 * Which week the dates of a table were made with: the one in which the most durations equal the working days
 * from start to finish; without durations, the shortest week whose days off are (almost) never used.
 */
export function guessCalendar(rows: DatedRow[]): string {
  const weeks = [FIVE_DAY, SIX_DAY, SEVEN_DAY];
  const timed = rows
    .filter((r) => r.start !== null && r.finish !== null && r.days !== null && r.days > 0 && Number.isInteger(r.days))
    .slice(0, 2000);
  if (timed.length >= 3) {
    const hits = weeks.map((week) => {
      const time = new WorkingTime(week, 'day', timed[0]!.start!);
      return timed.filter((r) => time.between(r.start!, r.finish! + 1) === r.days).length;
    });
    const best = Math.max(...hits);
    if (best > timed.length / 2) return weeks[hits.indexOf(best)]!.id;
  }
  const days = rows.flatMap((r) => [r.start, r.finish]).filter((d) => d !== null);
  const share = (weekday: number) => days.filter((d) => weekdayOf(d) === weekday).length / Math.max(1, days.length);
  if (share(6) > 0.05) return SEVEN_DAY.id;
  return share(5) > 0.05 ? SIX_DAY.id : FIVE_DAY.id;
}
