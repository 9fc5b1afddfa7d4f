import { describe, expect, test } from '@jest/globals';
import { isoDate, parseIsoDate } from '@clembo/core';
import { boardRange, ticks, zoomFor } from '@/features/gather/sketch/sketchScale';
import type { SketchedRow } from '@/workers/answers/sketched';
import { steady } from '@/workers/steady';

const day = (text: string): number => parseIsoDate(text)!;
const row = (start: string | null, finish: string | null): SketchedRow => ({
  ref: 'A',
  name: 'A',
  level: 0,
  kind: 'activity',
  summary: false,
  start: start === null ? null : day(start),
  finish: finish === null ? null : day(finish),
});

describe('the scale of a sketch', () => {
  test('shows as much as fits, by the nearest stretch of time', () => {
    // Twenty pixels a day in weeks, six in months, 2.4 in quarters, 0.9 in years.
    const days = (n: number) => [row('2026-01-01', isoDate(day('2026-01-01') + n))];
    expect([50, 51, 166, 167, 416, 417, 5000].map((n) => zoomFor(days(n), 1000))).toEqual([
      'weeks',
      'months',
      'months',
      'quarters',
      'quarters',
      'years',
      'years',
    ]);
    expect(zoomFor([row(null, null)], 1000)).toBe('months');
  });

  test('the board begins with a month and leaves room behind all that there is', () => {
    const [from, to] = boardRange([row('2026-03-10', null), row(null, '2026-05-20')], 0, 'months');
    expect([from, to].map(isoDate)).toEqual(['2026-02-01', '2026-11-30']);
    const [empty] = boardRange([], day('2026-07-15'), 'weeks');
    expect(isoDate(empty)).toBe('2026-07-01');
  });

  test('lines of weeks are Mondays, the first of a month strong', () => {
    const list = ticks([day('2026-01-01'), day('2026-02-05')], 'weeks');
    expect(list.map((t) => t.label)).toEqual(['5 Jan', '12 Jan', '19 Jan', '26 Jan', '2 Feb']);
    expect(list.filter((t) => t.strong).map((t) => t.label)).toEqual(['5 Jan', '2 Feb']);
    expect(list.every((t) => new Date(t.day * 86_400_000).getUTCDay() === 1)).toBe(true);
  });

  test('months are named, quarters numbered, a year is said where it begins', () => {
    const range: [number, number] = [day('2025-11-01'), day('2026-08-31')];
    expect(ticks(range, 'months').map((t) => t.label)).toEqual([
      'Nov',
      'Dec',
      '2026',
      'Feb',
      'Mar',
      'Apr',
      'May',
      'Jun',
      'Jul',
      'Aug',
    ]);
    expect(ticks(range, 'years').map((t) => [t.label, t.strong])).toEqual([
      ['2026', true],
      ['Q2', false],
      ['Q3', false],
    ]);
  });
});

describe('what came anew', () => {
  test('has the parts that did not change as they were', () => {
    const before = { rows: [1, 2], view: { closed: ['A'] }, count: 2, none: null };
    const after = { rows: [1, 3], view: { closed: ['A'] }, count: 3, none: null };
    const made = steady(before, after);
    expect(made).toEqual(after);
    expect(made.view).toBe(before.view);
    expect(made.rows).toBe(after.rows);
    expect(steady(null, after)).toBe(after);
  });
});
