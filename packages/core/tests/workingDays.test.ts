import { describe, expect, test } from '@jest/globals';
import { fiscalOf, FIVE_DAY, isoDate, isoWeekOf, parseIsoDate, SIX_DAY, WorkingTime } from '../src/index';
import fixture from './fixtures/working-days.json' with { type: 'json' };

const day = (text: string) => parseIsoDate(text)!;
const withHolidays = (holidays: string[], spec = FIVE_DAY) => ({
  ...spec,
  exceptions: holidays.map((h) => ({ day: day(h), pattern: [], name: '' })),
});

// numpy busday_offset and busday_count, made by fixtures/make-working-days.py
test('300 random cases agree with numpy', () => {
  for (const c of fixture.cases) {
    const time = new WorkingTime(
      withHolidays(c.holidays, c.calendar === 'five-day' ? FIVE_DAY : SIX_DAY),
      'day',
      day(c.start),
    );
    expect(isoDate(time.select(time.rank(day(c.start)) + c.days))).toBe(c.offset);
    expect(time.between(day(c.start), day(c.end))).toBe(c.count);
  }
});

describe('working days and weeks', () => {
  const after = (from: string, days: number, holidays: string[] = []) => {
    const time = new WorkingTime(withHolidays(holidays), 'day', day(from));
    return isoDate(time.select(time.rank(day(from)) + days));
  };
  // Recomputed with numpy and LibreOffice Calc WORKDAY, NETWORKDAYS
  test('the next working day, also over holidays', () => {
    expect(after('2025-01-10', 1)).toBe('2025-01-13');
    expect(after('2025-12-22', 10)).toBe('2026-01-05');
    expect(after('2025-12-22', 10, ['2025-12-25', '2025-12-26', '2026-01-01'])).toBe('2026-01-08');
  });
  test.each([
    [2024, 262],
    [2025, 261],
  ])('weekdays of %i', (year, count) => {
    const time = new WorkingTime(FIVE_DAY, 'day', day(`${year}-01-01`));
    expect(time.between(day(`${year}-01-01`), day(`${year + 1}-01-01`))).toBe(count);
  });
  // Common practice: ten working days from a Monday span twelve calendar days, and fourteen to the next start
  test('ten working days from a Monday', () => {
    const time = new WorkingTime(FIVE_DAY, 'day', day('2025-01-06'));
    const finish = time.finishOf(day('2025-01-06'), 10);
    expect(finish - day('2025-01-06')).toBe(12);
    expect(time.firstStart(finish) - day('2025-01-06')).toBe(14);
  });
  // ISO 8601
  test.each([
    ['2005-01-01', 2004, 53],
    ['2008-12-29', 2009, 1],
    ['2010-01-03', 2009, 53],
    ['2024-12-30', 2025, 1],
  ])('%s lies in week %i-W%i', (text, year, week) => {
    expect(isoWeekOf(day(text))).toEqual({ year, week });
  });
  test('fiscal years begin in any month and are named after the year in which they end', () => {
    expect(fiscalOf(day('2026-04-01'), 4)).toEqual({ year: 2027, quarter: 1 });
    expect(fiscalOf(day('2026-03-31'), 4)).toEqual({ year: 2026, quarter: 4 });
    expect(fiscalOf(day('2026-03-31'), 1)).toEqual({ year: 2026, quarter: 1 });
    expect(fiscalOf(day('2026-10-05'), 10)).toEqual({ year: 2027, quarter: 1 });
  });
  test('yearly exceptions come back every year, the 29th of February only where there is one', () => {
    const spec = {
      ...FIVE_DAY,
      yearly: [
        { month: 5, day: 1, pattern: [], name: 'May Day' },
        { month: 2, day: 29, pattern: [], name: 'Leap day' },
      ],
    };
    const time = new WorkingTime(spec, 'day', day('2026-01-01'));
    // A Friday, a Thursday and a Tuesday
    expect(['2026-05-01', '2031-05-01', '2040-05-01'].map((d) => time.isWorkday(day(d)))).toEqual([
      false,
      false,
      false,
    ]);
    expect(time.isWorkday(day('2031-05-02'))).toBe(true);
    expect(time.isWorkday(day('2028-02-29'))).toBe(false);
    expect(time.isWorkday(day('2027-03-01'))).toBe(true);
  });
});
