import { describe, expect, test } from '@jest/globals';
import { FIVE_DAY, isoDate, SIX_DAY } from '@clembo/core';
import { orderEvidence, readDate, readDuration, readNumber, readPredecessors, toMinutes } from '../src/index';

describe('dates in common notations', () => {
  test.each([
    ['2026-09-14', '2026-09-14'],
    ['2026/9/4', '2026-09-04'],
    ['20260914', '2026-09-14'],
    ['14.09.2026', '2026-09-14'],
    ['4/9/26', '2026-09-04'],
    ['14-Sep-26', '2026-09-14'],
    ['14 September 2026', '2026-09-14'],
    ['Mon 14 Sep 2026', '2026-09-14'],
    ['September 14, 2026', '2026-09-14'],
    ['14th Sept 2026', '2026-09-14'],
    ['14. März 2026', '2026-03-14'],
    ['14 août 2026', '2026-08-14'],
    ['46279', '2026-09-14'], // day count of spreadsheets, from 1899-12-30: LibreOffice shows 46279 as 2026-09-14
    ['29/02/2028', '2028-02-29'],
  ])('%s is %s', (text, iso) => {
    expect(isoDate(readDate(text, 'dmy')!.day)).toBe(iso);
  });

  test('the order of day and month is as asked for', () => {
    expect(isoDate(readDate('4/9/2026', 'mdy')!.day)).toBe('2026-04-09');
    expect(isoDate(readDate('4/9/2026', 'dmy')!.day)).toBe('2026-09-04');
  });

  test('times are kept', () => {
    expect(readDate('2026-09-14T08:30', 'dmy')!.minute).toBe(510);
    expect(readDate('14/09/2026 5:00 PM', 'dmy')!.minute).toBe(1020);
    expect(readDate('14 Sep 2026', 'dmy')!.minute).toBeNull();
  });

  test.each([
    '29/02/2026',
    '31 Sep 2026',
    '2026-13-01',
    'Casting yard',
    '12',
    'Phase 2',
    '',
    '14/9',
    '1/2/3',
    'May',
    '99/99/2026',
  ])('“%s” is no date', (text) => {
    expect(readDate(text, 'dmy')).toBeNull();
  });

  test('a whole column settles day and month, or leaves it open', () => {
    expect(orderEvidence(['1/2/2026', '13/2/2026'])).toBe('dmy');
    expect(orderEvidence(['1/2/2026', '2/13/2026'])).toBe('mdy');
    expect(orderEvidence(['1/2/2026', '3/4/2026'])).toBe('open');
    expect(orderEvidence(['2026-02-01', '5/5/2026'])).toBe('irrelevant');
    expect(orderEvidence(['13/2/2026', '2/13/2026'])).toBe('mixed');
  });
});

describe('durations, numbers, predecessors', () => {
  test.each([
    ['10', 10, 'day'],
    ['10d', 10, 'day'],
    ['2,5 weeks', 2.5, 'week'],
    ['16 hrs', 16, 'hour'],
  ])('%s', (text, amount, unit) => {
    expect(readDuration(text, 'day')).toMatchObject({ amount, unit, elapsed: false });
  });

  test('elapsed days ignore calendars, weeks follow them', () => {
    expect(toMinutes(readDuration('3 elapsed days', 'day')!, FIVE_DAY)).toBe(3 * 1440);
    expect(toMinutes(readDuration('2w', 'day')!, SIX_DAY)).toBe(12 * 480);
    expect(toMinutes(readDuration('1 elapsed week', 'day')!, SIX_DAY)).toBe(7 * 1440);
    expect(toMinutes(readDuration('2 months', 'day')!, FIVE_DAY)).toBe(40 * 480);
    expect(readDuration('soon', 'day')).toBeNull();
  });

  test.each([
    ['1,234.50', 1234.5],
    ['1.234,50', 1234.5],
    ["1'234", 1234],
    ['€ 2 500', 2500],
    ['12,5', 12.5],
    ['(300)', -300],
  ])('%s is %d', (text, value) => {
    expect(readNumber(text)).toBe(value);
  });

  test('predecessors with types and lags; a known reference is taken as it stands', () => {
    const known = new Set(['A12', 'B-7', 'X SS', '12', 'A 3']);
    const read = (text: string) => readPredecessors(text, (r) => known.has(r));
    expect(read('A12').read).toEqual([{ ref: 'A12', type: 'FS', lag: null }]);
    expect(read('A12 SS; B-7').read.map((p) => [p.ref, p.type])).toEqual([
      ['A12', 'SS'],
      ['B-7', 'FS'],
    ]);
    expect(read('A12 FS+3d, A12 FF-2d').read.map((p) => [p.type, p.lag!.amount])).toEqual([
      ['FS', 3],
      ['FF', -2],
    ]);
    expect(read('12FS+2 days').read[0]).toMatchObject({ ref: '12', type: 'FS', lag: { amount: 2, unit: 'day' } });
    expect(read('A12+5').read[0]).toMatchObject({ ref: 'A12', type: 'FS', lag: { amount: 5 } });
    expect(read('X SS').read[0]).toMatchObject({ ref: 'X SS', type: 'FS' });
    expect(read('A 3 sf').read[0]).toMatchObject({ ref: 'A 3', type: 'SF' });
    expect(read('A13, A12 XX').wrong).toEqual(['A13', 'A12 XX']);
  });
});
