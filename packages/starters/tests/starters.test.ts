import { describe, expect, test } from '@jest/globals';
import {
  activityTime,
  asStarter,
  beginFrom,
  checkPlan,
  dayOf,
  FIVE_DAY,
  firstDayOfPlan,
  finishDayOf,
  isoDate,
  makeActivity,
  makePlan,
  NONE,
  parseIsoDate,
  Plan,
  schedulePlan,
  SIX_DAY,
  startOfDay,
  endOfDay,
} from '@clembo/core';
import { STARTERS } from '../src/index';

const day = (iso: string) => parseIsoDate(iso)!;

describe('the starters that everybody has', () => {
  test.each(STARTERS.map((s) => [s.id, s] as const))(
    '%s is whole: valid, linked, dated, coded, with rates',
    (_, { plan }) => {
      expect(Plan.safeParse(plan).error).toBeUndefined();
      const s = schedulePlan(plan);
      // What a planner would have to mend is not handed out. A start and an end are open by their nature.
      const found = checkPlan(plan, s).filter(
        (f) => f.severity !== 'note' && f.code !== 'noPredecessor' && f.code !== 'noSuccessor',
      );
      expect(found).toEqual([]);
      expect(plan.activities.every((_, i) => s.start[i] !== NONE)).toBe(true);
      const work = plan.activities.filter((a) => a.kind !== 'summary');
      for (const f of plan.codeFields) {
        const codes = new Set(f.values.map((v) => v.code));
        expect(work.map((a) => a.codes[f.id] ?? '').filter((c) => c !== '' && !codes.has(c))).toEqual([]);
        expect(work.some((a) => a.codes[f.id])).toBe(true);
      }
      expect(plan.resources.length).toBeGreaterThan(2);
      for (const a of work) {
        expect(a.effort ?? 0).toBe(a.assignments.reduce((sum, x) => sum + x.effort, 0));
        const rates = new Map(plan.resources.map((r) => [r.id, r.rate!]));
        expect(a.cost ?? 0).toBe(a.assignments.reduce((sum, x) => sum + (x.effort / 60) * rates.get(x.resource)!, 0));
      }
      // From four months to two years: a plan to change, not to scroll through.
      expect(plan.activities.length).toBeGreaterThan(25);
      const days = dayOf(s.planFinish) - firstDayOfPlan(plan)!;
      expect(days).toBeGreaterThan(120);
      expect(days).toBeLessThan(800);
    },
  );

  test('on whichever day one is begun, nothing lies before it, and the first thing is on the first working day', () => {
    for (const { plan } of STARTERS)
      for (const iso of ['2026-03-02', '2026-07-04', '2027-12-24']) {
        const begun = beginFrom(plan, 'Ours', day(iso));
        const s = schedulePlan(begun);
        const first = Math.min(...[...s.start].filter((m) => m !== NONE));
        expect([begun.name, dayOf(first) >= day(iso), dayOf(first) - day(iso) <= 4]).toEqual(['Ours', true, true]);
      }
  });

  test('their names and titles are told apart', () => {
    expect(new Set(STARTERS.flatMap((s) => [s.id, s.name])).size).toBe(STARTERS.length * 2);
  });
});

describe('any plan as a starter', () => {
  const given = makePlan({
    name: 'Last year',
    statusDate: startOfDay(day('2025-02-20')),
    calendars: [FIVE_DAY, SIX_DAY],
    calendar: FIVE_DAY.id,
    periods: [{ name: 'Closed', start: startOfDay(day('2025-02-03')), finish: endOfDay(day('2025-02-07')) }],
    aside: ['noSuccessor B'],
    activities: [
      // Monday 3 February to Friday 14 February 2025: ten working days.
      makeActivity({
        ref: 'A',
        name: 'Print',
        start: startOfDay(day('2025-02-03')),
        finish: endOfDay(day('2025-02-14')),
        actualStart: startOfDay(day('2025-02-03')),
        percent: 60,
        cost: 900,
        actualCost: 400,
      }),
      makeActivity({
        ref: 'B',
        name: 'Post',
        calendar: SIX_DAY.id,
        start: startOfDay(day('2025-02-15')),
        finish: endOfDay(day('2025-02-17')),
        deadline: endOfDay(day('2025-02-21')),
      }),
    ],
  });

  test('what happened only once goes, what is usual stays', () => {
    const { statusDate, aside, activities } = asStarter(given);
    expect([
      statusDate,
      aside,
      activities[0]!.actualStart,
      activities[0]!.percent,
      activities[0]!.actualCost,
      activities[0]!.cost,
    ]).toEqual([null, [], null, null, null, 900]);
  });

  test('begun on another day, dates keep their working days (counted by hand on a calendar)', () => {
    // Wednesday 6 May 2026: ten working days of a five-day week end on Tuesday 19 May. Eleven of a six-day week lay
    // before B (3 to 8 and 10 to 14 February), and eleven from 6 May on end on Monday 18 May.
    const { activities, periods, start } = beginFrom(asStarter(given), 'This year', day('2026-05-06'));
    const dates = (k: number) => [isoDate(dayOf(activities[k]!.start!)), isoDate(finishDayOf(activities[k]!.finish!))];
    expect(isoDate(dayOf(start!))).toBe('2026-05-06');
    expect(dates(0)).toEqual(['2026-05-06', '2026-05-19']);
    expect(dates(1)).toEqual(['2026-05-19', '2026-05-20']);
    // Periods and deadlines are dates of the year: they move by calendar days, 457 of them.
    expect(periods.map((p) => [isoDate(dayOf(p.start)), isoDate(finishDayOf(p.finish))])).toEqual([
      ['2026-05-06', '2026-05-10'],
    ]);
    expect(isoDate(finishDayOf(activities[1]!.deadline!))).toBe('2026-05-24');
  });

  test('begun on its own day it is what it was', () => {
    const kept = asStarter(given);
    expect(beginFrom(kept, kept.name, firstDayOfPlan(kept)!)).toEqual(kept);
  });

  test('lengths in working days are the same on every day of a year', () => {
    const kept = asStarter(given);
    for (let d = day('2026-01-01'); d < day('2027-01-01'); d++) {
      const plan = beginFrom(kept, 'x', d);
      const time = activityTime(plan, schedulePlan(plan));
      expect(plan.activities.map((a, i) => time.daysBetween(i, a.start!, a.finish!))).toEqual([10, 2]);
    }
  });

  test('a day that no plan may use is refused', () => {
    expect(() => beginFrom(asStarter(given), 'x', day('2299-12-30'))).toThrow('would leave the years 1900 to 2299');
  });
});
