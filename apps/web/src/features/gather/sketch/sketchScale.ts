import { civilFromDay, type Day, monthStart, weekdayOf } from '@clembo/core';
import type { SketchedRow } from '@/workers/answers/sketched';

/** How wide a day is drawn, in pixels, for each stretch of time that one wants to see at a time. */
export const ZOOMS = { weeks: 20, months: 6, quarters: 2.4, years: 0.9 } as const;
export type Zoom = keyof typeof ZOOMS;

/** The zoom at which the dates that there are fit into about so many pixels. */
export function zoomFor(rows: readonly SketchedRow[], width: number): Zoom {
  const span = spanOf(rows);
  if (!span) return 'months';
  const zooms = Object.keys(ZOOMS) as Zoom[];
  return zooms.find((z) => (span[1] - span[0]) * ZOOMS[z] <= width) ?? 'years';
}

function spanOf(rows: readonly SketchedRow[]): [Day, Day] | null {
  const days = rows.flatMap((r) => [r.start, r.finish].filter((d) => d !== null));
  if (days.length === 0) return null;
  return [days.reduce((a, b) => Math.min(a, b)), days.reduce((a, b) => Math.max(a, b))];
}

/** The days that can be drawn on: all that have anything, with room before and behind. */
export function boardRange(rows: readonly SketchedRow[], today: Day, zoom: Zoom): [Day, Day] {
  const [first, last] = spanOf(rows) ?? [today, today];
  const room = Math.ceil(1100 / ZOOMS[zoom]);
  return [monthStart(first - Math.ceil(room / 12)), monthStart(last + room, 1) - 1];
}

export interface Tick {
  day: Day;
  /** Nothing where there is no room for words. */
  label: string;
  strong: boolean;
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** Lines of the time line: weeks or months or quarters, the years strong. */
export function ticks([from, to]: [Day, Day], zoom: Zoom): Tick[] {
  const list: Tick[] = [];
  if (zoom === 'weeks')
    for (let day = from + ((7 - weekdayOf(from)) % 7); day <= to; day += 7) {
      const { month, day: date } = civilFromDay(day);
      list.push({ day, label: `${date} ${MONTHS[month - 1]}`, strong: date <= 7 });
    }
  else {
    const step = { months: 1, quarters: 1, years: 3 }[zoom];
    for (let day = from; day <= to; day = monthStart(day, 1)) {
      const { year, month } = civilFromDay(day);
      if ((month - 1) % step !== 0) continue;
      const label = month === 1 ? String(year) : zoom === 'years' ? `Q${(month + 2) / 3}` : MONTHS[month - 1]!;
      list.push({ day, label, strong: month === 1 });
    }
  }
  return list;
}
