import { expect, test } from '@jest/globals';
import { FIVE_DAY, isoDate, parseIsoDate, WorkingTime } from '@clembo/core';
import { isHolidayRegion, publicHolidays, withHolidays } from '../src/holidays/holidays';

const dates = (region: string) => publicHolidays(region, 2026, 2026).map((h) => isoDate(h.day));

// npm date-holidays; the dates below are those that the authorities publish for 2026 (from memory)
test('bank holidays in England, with the day that stands in for a Saturday', () => {
  expect(dates('GB-ENG')).toEqual([
    '2026-01-01',
    '2026-04-03',
    '2026-04-06',
    '2026-05-04',
    '2026-05-25',
    '2026-08-31',
    '2026-12-25',
    '2026-12-26',
    '2026-12-28',
  ]);
});
test('a part of a country has holidays of its own', () => {
  expect(dates('DE-BE')).toContain('2026-03-08');
  expect(dates('DE-BY')).not.toContain('2026-03-08');
});
test('regions that are not known are refused', () => {
  expect([isHolidayRegion('GB'), isHolidayRegion('DE-BE'), isHolidayRegion('XX'), isHolidayRegion('GB-BE')]).toEqual([
    true,
    true,
    false,
    false,
  ]);
  expect(() => publicHolidays('XX', 2026, 2026)).toThrow(RangeError);
});
test('a calendar with holidays does not work on them', () => {
  const time = new WorkingTime(
    withHolidays(FIVE_DAY, publicHolidays('GB', 2026, 2027)),
    'day',
    parseIsoDate('2026-12-24')!,
  );
  expect(isoDate(time.select(time.rank(parseIsoDate('2026-12-24')!) + 1))).toBe('2026-12-29');
});
