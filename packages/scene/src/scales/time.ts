import { civilFromDay, dayFromCivil, isoWeekOf, MINUTES_PER_DAY, monthStart, weekdayOf } from '@clembo/core';
import { MONTHS } from '../text/dates';

export type TimeUnit = 'day' | 'week' | 'month' | 'quarter' | 'year' | 'decade';

/** Time along a page: moments to points. */
export interface TimeScale {
  from: number;
  to: number;
  left: number;
  right: number;
  x(moment: number): number;
}

export function timeScale(from: number, to: number, left: number, right: number): TimeScale {
  const factor = (right - left) / (to - from);
  return { from, to, left, right, x: (moment) => left + (moment - from) * factor };
}

/** One interval of a tier, in days; the last day is not included. */
export interface Tick {
  from: number;
  to: number;
  /** What it can be called, the longest first. */
  names: string[];
  /** False where the range begins or ends within the unit. */
  whole: boolean;
}

/** The units of the two tiers, coarse above fine. */
export interface Tiers {
  upper: TimeUnit;
  lower: TimeUnit;
}

/** Pairs of units from fine to coarse, with the points that the finer one needs to be read in type of 7.5 points. */
const PAIRS: (Tiers & { days: number; points: number })[] = [
  { upper: 'month', lower: 'day', days: 1, points: 9 },
  { upper: 'month', lower: 'week', days: 7, points: 18 },
  { upper: 'year', lower: 'month', days: 30.4, points: 17 },
  { upper: 'year', lower: 'quarter', days: 91.3, points: 14 },
  { upper: 'decade', lower: 'year', days: 365.25, points: 18 },
  { upper: 'decade', lower: 'decade', days: 3652.5, points: 1 },
];

/** The finest pair of tiers whose labels, in type of a size, fit the points that a day has. */
export function chooseTiers(pointsPerDay: number, size = 7.5): Tiers {
  const pair = PAIRS.find((p) => p.days * pointsPerDay >= (p.points * size) / 7.5) ?? PAIRS.at(-1)!;
  return { upper: pair.upper, lower: pair.lower };
}

/** The first day of the unit that a day lies in, or of the one `steps` further. */
export function unitStart(day: number, unit: TimeUnit, steps = 0): number {
  const { year, month } = civilFromDay(day);
  switch (unit) {
    case 'day':
      return day + steps;
    case 'week':
      return day - weekdayOf(day) + 7 * steps;
    case 'month':
      return monthStart(day, steps);
    case 'quarter':
      return monthStart(dayFromCivil(year, Math.floor((month - 1) / 3) * 3 + 1, 1), 3 * steps);
    case 'year':
      return dayFromCivil(year + steps, 1, 1);
    case 'decade':
      return dayFromCivil(Math.floor(year / 10) * 10 + 10 * steps, 1, 1);
  }
}

/** The intervals of a unit that touch a range of days, cut at its ends. */
export function ticks(fromDay: number, toDay: number, unit: TimeUnit): Tick[] {
  const list: Tick[] = [];
  for (let start = unitStart(fromDay, unit); start < toDay; ) {
    const next = unitStart(start, unit, 1);
    const [from, to] = [Math.max(start, fromDay), Math.min(next, toDay)];
    list.push({ from, to, names: tickNames(start, unit), whole: from === start && to === next });
    start = next;
  }
  return list;
}

function tickNames(start: number, unit: TimeUnit): string[] {
  const { year, month, day } = civilFromDay(start);
  const name = MONTHS[month - 1]!;
  switch (unit) {
    case 'day':
      return [String(day)];
    case 'week':
      return [`W${isoWeekOf(start).week}`];
    case 'month':
      return [`${name} ${year}`, `${name.slice(0, 3)} ${year}`, name.slice(0, 3)];
    case 'quarter':
      return [`Q${Math.floor((month - 1) / 3) + 1}`];
    case 'year':
      return [String(year), `’${String(year % 100).padStart(2, '0')}`];
    case 'decade':
      return [`${year}s`];
  }
}

/** The longest form of names that has room in every whole interval of a tier, so that all are written alike. */
export function nameForm(list: readonly Tick[], hasRoom: (tick: Tick, name: string) => boolean): number {
  const forms = list[0]?.names.length ?? 1;
  for (let form = 0; form < forms - 1; form++) {
    if (list.every((t) => !t.whole || hasRoom(t, t.names[form]!))) return form;
  }
  return forms - 1;
}

/** A range in whole units around moments, with a little room at both ends. */
export function niceRange(from: number, to: number): { from: number; to: number } {
  const first = Math.floor(from / MINUTES_PER_DAY);
  const last = Math.max(first + 1, Math.ceil(to / MINUTES_PER_DAY));
  const length = last - first;
  const unit: TimeUnit = length > 3650 ? 'year' : length > 500 ? 'month' : length > 60 ? 'week' : 'day';
  const room = Math.max(1, Math.round(length * 0.01));
  return {
    from: unitStart(first - room, unit) * MINUTES_PER_DAY,
    to: unitStart(last + room, unit, 1) * MINUTES_PER_DAY,
  };
}
