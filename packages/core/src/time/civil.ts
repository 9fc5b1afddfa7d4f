/**
 * Dates as whole numbers. A **day** is the number of days since 1970-01-01, a **moment** the number of
 * minutes since 1970-01-01T00:00 in wall-clock time without zone.
 *
 * Day numbers from year, month and day after H. Hinnant, "chrono-compatible low-level date algorithms".
 */
export type Day = number;
export type Moment = number;

export const MINUTES_PER_DAY = 1440;

/** The first and the last day that any plan may use: 1900-01-01 and 2299-12-31. */
export const FIRST_DAY: Day = -25567;
export const LAST_DAY: Day = 120529;

export interface CivilDate {
  year: number;
  /** 1 to 12 */
  month: number;
  /** 1 to 31 */
  day: number;
}

/** The day number of a date of the Gregorian calendar. `dayFromCivil(1970, 1, 1)` is 0. */
export function dayFromCivil(year: number, month: number, day: number): Day {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yearOfEra = y - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * 146097 + dayOfEra - 719468;
}

/** The date of a day number; the inverse of {@link dayFromCivil}. */
export function civilFromDay(dayNumber: Day): CivilDate {
  const z = dayNumber + 719468;
  const era = Math.floor(z / 146097);
  const dayOfEra = z - era * 146097;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36524) - Math.floor(dayOfEra / 146096)) / 365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const shifted = Math.floor((5 * dayOfYear + 2) / 153);
  const month = shifted < 10 ? shifted + 3 : shifted - 9;
  return {
    year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    day: dayOfYear - Math.floor((153 * shifted + 2) / 5) + 1,
  };
}

/** True when the three numbers name a real date. `isCivil(2025, 2, 29)` is false. */
export function isCivil(year: number, month: number, day: number): boolean {
  if (month < 1 || month > 12 || day < 1 || day > 31) return false;
  const back = civilFromDay(dayFromCivil(year, month, day));
  return back.year === year && back.month === month && back.day === day;
}

/** The day that a moment lies in. */
export const dayOf = (moment: Moment): Day => Math.floor(moment / MINUTES_PER_DAY);

/** The day on which work that ends at this moment ends: midnight belongs to the day before. */
export const finishDayOf = (moment: Moment): Day => Math.floor((moment - 1) / MINUTES_PER_DAY);

/** The moment at which a day begins. */
export const startOfDay = (day: Day): Moment => day * MINUTES_PER_DAY;

/** The moment at which a day ends, which is when the next one begins. */
export const endOfDay = (day: Day): Moment => (day + 1) * MINUTES_PER_DAY;

/** Weekday of a day: 0 is Monday, 6 is Sunday. */
export const weekdayOf = (day: Day): number => (((day + 3) % 7) + 7) % 7;

/** Year and week by ISO 8601. `isoWeekOf` of 2005-01-01 is week 53 of 2004. */
export function isoWeekOf(day: Day): { year: number; week: number } {
  const thursday = day - weekdayOf(day) + 3;
  const { year } = civilFromDay(thursday);
  return { year, week: Math.floor((thursday - dayFromCivil(year, 1, 1)) / 7) + 1 };
}

/**
 * The fiscal year and quarter of a day, for years that begin in `firstMonth` and are named after the
 * calendar year in which they end. With `firstMonth` 1 they are calendar years.
 */
export function fiscalOf(day: Day, firstMonth: number): { year: number; quarter: number } {
  const { year, month } = civilFromDay(day);
  const monthOfYear = (month - firstMonth + 12) % 12;
  const begins = month >= firstMonth ? year : year - 1;
  return { year: firstMonth === 1 ? begins : begins + 1, quarter: Math.floor(monthOfYear / 3) + 1 };
}

/** The first day of the month that lies `months` after the month of `day`. */
export function monthStart(day: Day, months = 0): Day {
  const { year, month } = civilFromDay(day);
  const index = year * 12 + (month - 1) + months;
  return dayFromCivil(Math.floor(index / 12), (((index % 12) + 12) % 12) + 1, 1);
}

const two = (n: number): string => (n < 10 ? `0${n}` : String(n));

/** A day as ISO 8601 text, `2026-09-14`. */
export function isoDate(day: Day): string {
  const { year, month, day: d } = civilFromDay(day);
  return `${String(year).padStart(4, '0')}-${two(month)}-${two(d)}`;
}

/** Reads `YYYY-MM-DD` to a day, or null when the text is not a real date in that notation. */
export function parseIsoDate(text: string): Day | null {
  const m = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (!m) return null;
  const [year, month, day] = [Number(m[1]), Number(m[2]), Number(m[3])];
  return isCivil(year, month, day) ? dayFromCivil(year, month, day) : null;
}

/** True when a day lies within what any plan may use. */
export const isUsableDay = (day: Day): boolean => day >= FIRST_DAY && day <= LAST_DAY;
