import { describe, expect, test } from '@jest/globals';
import {
  daySaid,
  FIVE_DAY,
  isoDate,
  parseIsoDate,
  patternWords,
  readPattern,
  usualMinutes,
  withDays,
  workingDaysFrom,
  workingTimeOf,
} from '../src/index';

const iso = (text: string) => parseIsoDate(text)!;

describe('working hours as typed', () => {
  test.each([
    ['8-12, 13-17', '08:00–12:00, 13:00–17:00'],
    ['08:00–16:30', '08:00–16:30'],
    ['13 to 17; 8 to 12', '08:00–12:00, 13:00–17:00'],
    ['22-24', '22:00–24:00'],
    ['off', ''],
    ['', ''],
  ])('%s', (typed, words) => expect(patternWords(readPattern(typed)!)).toBe(words));
  test.each(['8', '17-8', '8-12, 11-14', '8-25', '8:70-9', 'mornings'])('%s is none', (typed) =>
    expect(readPattern(typed)).toBeNull(),
  );
});

describe('days of a calendar', () => {
  const works = (spec: typeof FIVE_DAY, day: string) => workingTimeOf(spec, 'day', iso(day)).isWorkday(iso(day));
  test('are made off, given hours of their own, and made as their weekday again', () => {
    const off = withDays(FIVE_DAY, {
      first: iso('2026-12-24'),
      last: iso('2026-12-28'),
      pattern: [],
      name: 'Winter pause',
      yearly: false,
    });
    expect(['2026-12-23', '2026-12-24', '2026-12-28', '2026-12-29'].map((d) => works(off, d))).toEqual([
      true,
      false,
      false,
      true,
    ]);
    expect(daySaid(off, iso('2026-12-25'))).toEqual({ pattern: [], name: 'Winter pause', by: 'date' });
    const back = withDays(off, {
      first: iso('2026-12-28'),
      last: iso('2026-12-28'),
      pattern: null,
      name: '',
      yearly: false,
    });
    expect(works(back, '2026-12-28')).toBe(true);
    const saturday = withDays(off, {
      first: iso('2026-12-26'),
      last: iso('2026-12-26'),
      pattern: [[480, 720]],
      name: 'Extra shift',
      yearly: false,
    });
    expect([works(saturday, '2026-12-26'), works(saturday, '2026-12-25')]).toEqual([true, false]);
  });
  test('come back every year where that is said, and a date of its own goes before', () => {
    const yearly = withDays(FIVE_DAY, {
      first: iso('2026-05-01'),
      last: iso('2026-05-01'),
      pattern: [],
      name: 'First of May',
      yearly: true,
    });
    // 1 May is a Friday in 2026, a Saturday in 2027, a Monday in 2028.
    expect(['2026-05-01', '2028-05-01', '2028-05-02'].map((d) => works(yearly, d))).toEqual([false, false, true]);
    expect(daySaid(yearly, iso('2031-05-01')).by).toBe('yearly');
  });
  test('ten working days from Monday 5 January 2026 end on Friday 16, after twelve calendar days', () => {
    // The example is common practice: two five-day weeks with one weekend between.
    const span = workingDaysFrom(FIVE_DAY, iso('2026-01-05'), 10);
    expect([isoDate(span.last), span.calendarDays]).toEqual(['2026-01-16', 12]);
    expect(isoDate(workingDaysFrom(FIVE_DAY, iso('2026-01-03'), 1).first)).toBe('2026-01-05');
  });
  test('a day of length is what most working days have', () => {
    const short = [...FIVE_DAY.week.slice(0, 4), [[480, 720]] as [number, number][], [], []];
    expect(usualMinutes(short)).toBe(480);
  });
});
