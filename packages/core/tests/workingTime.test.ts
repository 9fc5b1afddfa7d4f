import { describe, expect, test } from '@jest/globals';
import {
  type CalendarSpec,
  type DayPattern,
  hasWorkingTime,
  LAST_DAY,
  parseIsoDate,
  weekCalendar,
  WorkingTime,
} from '../src/index';
import { seeded } from './helpers';

const origin = parseIsoDate('2026-03-02')!;

/** A calendar with odd hours, days off, days on and yearly days. */
function randomCalendar(r: () => number): CalendarSpec {
  const pattern = (): DayPattern => {
    if (r() < 0.3) return [];
    const first = Math.floor(r() * 600);
    const middle = first + 30 + Math.floor(r() * 300);
    return r() < 0.5
      ? [[first, middle]]
      : [
          [first, middle],
          [middle + 15, Math.min(1440, middle + 100)],
        ];
  };
  const spec = weekCalendar('random', 'Random', 5);
  spec.week = Array.from({ length: 7 }, pattern);
  spec.week[2] = [[540, 900]];
  spec.exceptions = Array.from({ length: 20 }, () => ({
    day: origin + Math.floor(r() * 200) - 60,
    pattern: pattern(),
    name: '',
  }));
  spec.yearly = [{ month: 4, day: 1 + Math.floor(r() * 30), pattern: pattern(), name: '' }];
  return spec;
}

/** Working slots of some days, counted one by one from the calendar's statement. */
function walk(spec: CalendarSpec, resolution: 'day' | 'minute', from: number, days: number): number[] {
  const slots: number[] = [];
  for (let day = from; day < from + days; day++) {
    const date = new Date(day * 86_400_000);
    const exception = spec.exceptions.filter((e) => e.day === day).at(-1);
    const yearly = spec.yearly.filter((y) => y.month === date.getUTCMonth() + 1 && y.day === date.getUTCDate()).at(-1);
    const pattern = (exception ?? yearly)?.pattern ?? spec.week[(date.getUTCDay() + 6) % 7]!;
    if (resolution === 'day') {
      if (pattern.length > 0) slots.push(day);
    } else for (const [a, b] of pattern) for (let m = a; m < b; m++) slots.push(day * 1440 + m);
  }
  return slots;
}

describe.each(['day', 'minute'] as const)('random calendars in slots of a %s against a walk', (resolution) => {
  test.each([1, 2, 3, 4, 5, 6, 7, 8])('seed %i', (seed) => {
    const r = seeded(seed);
    const spec = randomCalendar(r);
    const time = new WorkingTime(spec, resolution, origin);
    const slots = walk(spec, resolution, origin - 20, 60);
    const first = time.rank(slots[0]!);
    slots.forEach((slot, k) => {
      if (resolution === 'minute' && k % 7 > 0) return;
      expect([time.rank(slot), time.select(first + k)]).toEqual([first + k, slot]);
    });
    const size = resolution === 'day' ? 1 : 1440;
    for (let k = 0; k < 200; k++) {
      const x = (origin - 20) * size + Math.floor(r() * 60 * size);
      const next = slots.find((s) => s >= x);
      if (next !== undefined) expect(time.firstStart(x)).toBe(next);
      const before = slots.filter((s) => s < x);
      expect(time.rank(x)).toBe(first + before.length);
      if (before.length > 0) expect(time.lastFinish(x)).toBe(before.at(-1)! + 1);
      const lag = Math.floor(r() * 9) - 4;
      // The furthest that a lag may begin for a bound is where it still leads to the bound or before it.
      const furthest = time.shiftBack(x, lag);
      expect(time.shift(furthest, lag)).toBeLessThanOrEqual(x);
      expect(time.shift(furthest + 1, lag)).toBeGreaterThan(x);
    }
  });
});

describe('far from where it was compiled', () => {
  const spec = weekCalendar('five', 'Five', 5);
  test.each(['1900-01-01', '1969-12-31', '2150-06-15', '2299-12-30'])('ranks stay consistent around %s', (text) => {
    const [near, far] = [new WorkingTime(spec, 'day', origin), new WorkingTime(spec, 'day', parseIsoDate(text)!)];
    const day = parseIsoDate(text)!;
    expect(near.rank(day) - near.rank(origin)).toBe(far.rank(day) - far.rank(origin));
    expect(near.select(near.rank(day))).toBe(near.firstStart(day));
    // 5 of 7 days, to within a week
    expect(Math.abs(near.between(day, origin) - ((origin - day) * 5) / 7)).toBeLessThan(5);
  });
  test('past the last year the answers stop at the limit', () => {
    const time = new WorkingTime(spec, 'day', origin);
    expect(time.finishOf(origin, 200_000)).toBeLessThanOrEqual(LAST_DAY + 2);
  });
  test('a calendar without working time is known as one', () => {
    expect([hasWorkingTime(spec), hasWorkingTime({ ...spec, week: Array(7).fill([]) })]).toEqual([true, false]);
  });
});
