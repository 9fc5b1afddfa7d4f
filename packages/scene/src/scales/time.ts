import {
  civilFromDay,
  dayFromCivil,
  dayOf,
  isoWeekOf,
  MINUTES_PER_DAY,
  monthStart,
  startOfDay,
  weekdayOf,
} from '@clembo/core';
import { en } from '../text/languages/en';
import { dayWords, type PageLanguage } from '../text/languages/language';

export type TimeUnit =
  | 'hour'
  | 'hours3'
  | 'hours6'
  | 'day'
  | 'week'
  | 'weekDate'
  | 'month'
  | 'quarter'
  | 'fiscalQuarter'
  | 'year'
  | 'fiscalYear'
  | 'years2'
  | 'years5'
  | 'decade';

/** Time along a page: moments to points. */
export interface TimeScale {
  from: number;
  to: number;
  left: number;
  right: number;
  x(moment: number): number;
}

/** A scale whose range takes the room from left to right. */
export function timeScale(from: number, to: number, left: number, right: number): TimeScale {
  const factor = (right - left) / (to - from);
  return { from, to, left, right, x: (moment) => left + (moment - from) * factor };
}

/** One interval of a tier, in moments. */
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
  { upper: 'day', lower: 'hour', days: 1 / 24, points: 21 },
  { upper: 'day', lower: 'hours3', days: 1 / 8, points: 21 },
  { upper: 'day', lower: 'hours6', days: 1 / 4, points: 21 },
  { upper: 'month', lower: 'day', days: 1, points: 9 },
  { upper: 'month', lower: 'week', days: 7, points: 18 },
  { upper: 'year', lower: 'month', days: 30.4, points: 17 },
  { upper: 'year', lower: 'quarter', days: 91.3, points: 14 },
  { upper: 'decade', lower: 'year', days: 365.25, points: 18 },
  { upper: 'decade', lower: 'years2', days: 730.5, points: 18 },
  { upper: 'decade', lower: 'years5', days: 1826.25, points: 18 },
  { upper: 'decade', lower: 'decade', days: 3652.5, points: 1 },
];

/** Hours are told only on pages of a few days. */
const MOST_DAYS_IN_HOURS = 5;

/** The finest pair of tiers whose labels, in type of a size, fit the points that a day has. */
export function chooseTiers(pointsPerDay: number, size = 7.5, days = Number.POSITIVE_INFINITY): Tiers {
  const allowed = days <= MOST_DAYS_IN_HOURS ? PAIRS : PAIRS.filter((p) => p.days >= 1);
  const pair = allowed.find((p) => p.days * pointsPerDay >= (p.points * size) / 7.5) ?? PAIRS.at(-1)!;
  return { upper: pair.upper, lower: pair.lower };
}

const HOURS: Partial<Record<TimeUnit, number>> = { hour: 60, hours3: 180, hours6: 360 };
const YEARS: Partial<Record<TimeUnit, number>> = { year: 1, years2: 2, years5: 5, decade: 10 };

/** The beginning of the unit that a moment lies in, or of the one `steps` further. */
function unitStart(moment: number, unit: TimeUnit, steps = 0, fiscal = 1): number {
  const minutes = HOURS[unit];
  if (minutes !== undefined) return (Math.floor(moment / minutes) + steps) * minutes;
  return startOfDay(firstDay(dayOf(moment), unit, steps, fiscal));
}

function firstDay(day: number, unit: TimeUnit, steps: number, fiscal: number): number {
  const { year, month } = civilFromDay(day);
  const years = YEARS[unit];
  if (years !== undefined) return dayFromCivil((Math.floor(year / years) + steps) * years, 1, 1);
  switch (unit) {
    case 'week':
    case 'weekDate':
      return day - weekdayOf(day) + 7 * steps;
    case 'month':
      return monthStart(day, steps);
    case 'quarter':
      return monthStart(dayFromCivil(year, Math.floor((month - 1) / 3) * 3 + 1, 1), 3 * steps);
    case 'fiscalYear':
      return monthStart(dayFromCivil(month >= fiscal ? year : year - 1, fiscal, 1), 12 * steps);
    case 'fiscalQuarter':
      return monthStart(day, -((month - fiscal + 12) % 3) + 3 * steps);
    default:
      return day + steps;
  }
}

/** The intervals of a unit that touch a range of moments, cut at its ends. */
export function ticks(from: number, to: number, unit: TimeUnit, language: PageLanguage = en, fiscal = 1): Tick[] {
  const list: Tick[] = [];
  for (let start = unitStart(from, unit, 0, fiscal); start < to; ) {
    const next = unitStart(start, unit, 1, fiscal);
    const [a, b] = [Math.max(start, from), Math.min(next, to)];
    list.push({ from: a, to: b, names: tickNames(start, unit, language, fiscal), whole: a === start && b === next });
    start = next;
  }
  return list;
}

function tickNames(start: number, unit: TimeUnit, language: PageLanguage, fiscal: number): string[] {
  const first = dayOf(start);
  const { year, month, day } = civilFromDay(first);
  const name = language.months[month - 1]!;
  const short = language.shortMonths[month - 1]!;
  switch (unit) {
    case 'hour':
    case 'hours3':
    case 'hours6': {
      const hour = String((start - startOfDay(first)) / 60).padStart(2, '0');
      return [`${hour}:00`, hour];
    }
    case 'day':
      return [String(day)];
    case 'week':
      return [`${language.week}${isoWeekOf(first).week}`];
    case 'weekDate':
      return [language.shortDay(day, short), String(day)];
    case 'month':
      return [`${name} ${year}`, `${short} ${year}`, short];
    case 'quarter':
      return [`${language.quarter}${Math.floor((month - 1) / 3) + 1}`];
    case 'fiscalQuarter':
      return [`${language.quarter}${Math.floor(((month - fiscal + 12) % 12) / 3) + 1}`];
    case 'fiscalYear': {
      // A fiscal year is called by the years that it lies in.
      const last = fiscal === 1 ? '' : `/${String((year + 1) % 100).padStart(2, '0')}`;
      return [
        `${language.fiscalYear}${year}${last}`,
        `${year}${last}`,
        `’${String(year % 100).padStart(2, '0')}${last}`,
      ];
    }
    case 'year':
      return [String(year), `’${String(year % 100).padStart(2, '0')}`];
    case 'years2':
    case 'years5':
      return [`${year}–${String((year + YEARS[unit]! - 1) % 100).padStart(2, '0')}`, String(year)];
    case 'decade':
      return [`${year}s`];
  }
}

/** Names of the days of an upper tier. */
export function dayNames(tick: Tick, language: PageLanguage = en): string[] {
  const { year, day } = civilFromDay(dayOf(tick.from));
  const weekday = dayWords(language, dayOf(tick.from), 'weekday');
  const short = dayWords(language, dayOf(tick.from), 'short');
  return [weekday, weekday.slice(0, -5), short, String(day), String(year)].slice(0, 4);
}

/** The longest form of names that has room in every whole interval of a tier, so that all are written alike. */
export function nameForm(list: readonly Tick[], hasRoom: (tick: Tick, name: string) => boolean): number {
  const forms = list[0]?.names.length ?? 1;
  for (let form = 0; form < forms - 1; form++) {
    if (list.every((t) => !t.whole || hasRoom(t, t.names[form]!))) return form;
  }
  return forms - 1;
}

/** A range in whole units around moments; a long one has a little room at both ends. */
export function niceRange(from: number, to: number): { from: number; to: number } {
  const days = (to - from) / MINUTES_PER_DAY;
  const unit: TimeUnit = days > 3650 ? 'year' : days > 550 ? 'month' : days > 120 ? 'week' : days > 3 ? 'day' : 'hour';
  const room = days > 60 ? Math.round(days * 0.01) * MINUTES_PER_DAY : 0;
  const first = unitStart(from - room, unit);
  const last = unitStart(to + room - 1, unit, 1);
  return { from: first, to: Math.max(last, first + 60) };
}
