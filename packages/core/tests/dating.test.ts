import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  dayOf,
  datedOn,
  endOfDay,
  finishDayOf,
  isoDate,
  makeActivity,
  parseIsoDate,
  type Plan,
  schedulePlan,
  shiftedBy,
  startOfDay,
  workingDaysTo,
  workingSpan,
} from '../src/index';
import { planOf } from './helpers';

const d = (iso: string) => parseIsoDate(iso)!;
const base: Plan = { ...planOf([], []), source: 'given', calendar: 'five-day' };
const bar = (ref: string, start: string, finish: string, more: object = {}) =>
  makeActivity({ ref, start: startOfDay(d(start)), finish: endOfDay(d(finish)), ...more });
const days = (plan: Plan) =>
  plan.activities
    .filter((a) => a.start !== null || a.finish !== null)
    .map((a) =>
      [a.start === null ? '' : isoDate(dayOf(a.start)), a.finish === null ? '' : isoDate(finishDayOf(a.finish))].join(
        '..',
      ),
    );

// Days counted on a calendar of 2026: 2 March is a Monday
describe('drawing on days', () => {
  test('a stretch lands on working days', () => {
    expect(workingSpan(base, { calendar: null }, d('2026-02-28'), d('2026-03-08'))).toEqual({
      first: d('2026-03-02'),
      last: d('2026-03-06'),
      days: 5,
    });
    // A weekend alone becomes the next working day.
    expect(workingSpan(base, { calendar: null }, d('2026-03-07'), d('2026-03-08'))).toEqual({
      first: d('2026-03-09'),
      last: d('2026-03-09'),
      days: 1,
    });
    // On a calendar that works on Saturdays it is the Saturday.
    expect(workingSpan(base, { calendar: 'six-day' }, d('2026-03-07'), d('2026-03-08')).first).toBe(d('2026-03-07'));
  });
  test('an activity gets its length, a milestone one date on its side of the day', () => {
    const part = datedOn(base, { calendar: null, kind: 'activity' }, d('2026-03-02'), d('2026-03-13'));
    expect(part).toEqual({
      start: startOfDay(d('2026-03-02')),
      finish: endOfDay(d('2026-03-13')),
      duration: 4800,
      said: null,
    });
    const point = datedOn(base, { calendar: null, kind: 'finishMilestone' }, d('2026-03-07'), d('2026-03-07'));
    expect(point).toEqual({ start: null, finish: endOfDay(d('2026-03-07')), duration: 0, said: null });
  });
});

test('working days from one day to another: over a weekend, backwards, and at least one', () => {
  expect(workingDaysTo(base, d('2026-03-06'), d('2026-03-10'))).toBe(2);
  expect(workingDaysTo(base, d('2026-03-10'), d('2026-03-06'))).toBe(-2);
  expect(workingDaysTo(base, d('2026-03-07'), d('2026-03-08'))).toBe(1);
  expect(workingDaysTo(base, d('2026-03-07'), d('2026-03-07'))).toBe(0);
});

describe('moving by working days', () => {
  const plan: Plan = {
    ...base,
    activities: [
      makeActivity({ ref: 'G', kind: 'summary' }),
      bar('A', '2026-03-02', '2026-03-06', { parent: 'G' }),
      bar('B', '2026-03-05', '2026-03-10', { parent: 'G', calendar: 'six-day' }),
      makeActivity({ ref: 'M', parent: 'G', kind: 'finishMilestone', finish: endOfDay(d('2026-03-13')) }),
      bar('H', '2026-03-02', '2026-03-03', { parent: 'G', actualStart: startOfDay(d('2026-03-02')) }),
    ],
  };
  const moved = (ref: string, by: number) => {
    const command = shiftedBy(plan, schedulePlan(plan), ref, by);
    return command && days(applyCommand(plan, command).plan);
  };
  test('one activity keeps its length over a weekend', () => {
    expect(moved('A', 3)![0]).toBe('2026-03-05..2026-03-11');
    expect(moved('A', -1)![0]).toBe('2026-02-27..2026-03-05');
  });
  test('a group moves all that it holds, each by its own calendar; what has begun stays', () => {
    // B: Thu 5 to Tue 10 March on six days is 5 days; three of its days later it runs Mon 9 to Fri 13.
    expect(moved('G', 3)).toEqual([
      '2026-03-05..2026-03-11',
      '2026-03-09..2026-03-13',
      '..2026-03-18',
      '2026-03-02..2026-03-03',
    ]);
  });
  test('nothing moves by nothing, nor what has only happened', () => {
    expect([moved('A', 0), moved('H', 2), moved('none', 1)]).toEqual([null, null, null]);
  });
});
