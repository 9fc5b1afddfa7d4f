import { type CalendarSpec, parseIsoDate } from '@clembo/core';
import Holidays from 'date-holidays';

/** A day off by law. */
export interface PublicHoliday {
  day: number;
  name: string;
}

/** True for the codes of countries, and of their parts (`DE-BE`), whose holidays are known. */
export function isHolidayRegion(region: string): boolean {
  const [country = '', state] = region.split('-');
  const known = new Holidays();
  if (!(country in known.getCountries('en'))) return false;
  return state === undefined || state in (known.getStates(country, 'en') ?? {});
}

/**
 * The public holidays of a country or a part of it, with the days that stand in for those that fall on a weekend,
 * as the library date-holidays knows them (it lacks some observed days: look at what comes out).
 *
 * @param region ISO 3166 code, `GB`, `DE-BE`
 * @throws RangeError for a region that is not known
 */
export function publicHolidays(region: string, firstYear: number, lastYear: number): PublicHoliday[] {
  if (!isHolidayRegion(region)) throw new RangeError(`no public holidays are known for “${region}”`);
  const [country = '', state] = region.split('-');
  const source = state === undefined ? new Holidays(country) : new Holidays(country, state);
  const days = new Map<number, string>();
  for (let year = firstYear; year <= lastYear; year++) {
    for (const h of source.getHolidays(year, 'en')) {
      if (h.type !== 'public') continue;
      const first = parseIsoDate(h.date.slice(0, 10))!;
      const length = Math.max(1, Math.round((h.end.getTime() - h.start.getTime()) / 86_400_000));
      for (let day = first; day < first + length; day++) days.set(day, h.name);
    }
  }
  return [...days].map(([day, name]) => ({ day, name })).sort((a, b) => a.day - b.day);
}

/** The calendar with days off added; dates that have working time of their own keep it. */
export function withHolidays(calendar: CalendarSpec, holidays: readonly PublicHoliday[]): CalendarSpec {
  const stated = new Set(calendar.exceptions.map((e) => e.day));
  const more = holidays.filter((h) => !stated.has(h.day)).map(({ day, name }) => ({ day, name, pattern: [] }));
  return { ...calendar, exceptions: [...calendar.exceptions, ...more] };
}
export * from './regions';
