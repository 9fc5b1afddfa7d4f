import { describe, expect, test } from '@jest/globals';
import {
  amountsOff,
  comingUp,
  earnedAmounts,
  earnedCurves,
  earnedMoment,
  finishDayOf,
  FIVE_DAY,
  makeActivity,
  makePlan,
  paymentsByMonth,
  type Plan,
  plannedBy,
  schedulePlan,
  slipsOf,
  standingOf,
  STATUSES,
} from '../src/index';
import { day, seeded } from './helpers';

const plan = (activities: Plan['activities'], more: Partial<Plan> = {}): Plan =>
  makePlan({ name: 'M', calendars: [FIVE_DAY], calendar: FIVE_DAY.id, activities, ...more });
const week = (ref: string, monday: string, saturday: string, more = {}) =>
  makeActivity({ ref, name: ref, start: day(monday), finish: day(saturday), duration: 2400, ...more });

/** Four weeks of a hundred each; at the end of the second, a week and a half is done and 180 are spent. */
const promised = plan([
  week('A', '2026-01-05', '2026-01-10', { cost: 10_000 }),
  week('B', '2026-01-12', '2026-01-17', { cost: 10_000 }),
  week('C', '2026-01-19', '2026-01-24', { cost: 10_000 }),
  week('D', '2026-01-26', '2026-01-31', { cost: 10_000 }),
]);
const now = plan(
  [
    week('A', '2026-01-05', '2026-01-10', {
      cost: 10_000,
      actualCost: 12_000,
      percent: 100,
      actualStart: day('2026-01-05'),
      actualFinish: day('2026-01-10'),
    }),
    week('B', '2026-01-12', '2026-01-21', {
      cost: 10_000,
      actualCost: 6_000,
      percent: 50,
      actualStart: day('2026-01-12'),
    }),
    week('C', '2026-01-22', '2026-01-29', { cost: 10_000 }),
    week('D', '2026-01-29', '2026-02-05', { cost: 10_000 }),
  ],
  { statusDate: day('2026-01-17') },
);
const moment = day('2026-01-17');
const stand = (keep?: (i: number) => boolean) =>
  standingOf(now, schedulePlan(now), promised, schedulePlan(promised), moment, keep);

describe('the standing', () => {
  test('earned value by the definitions of ANSI/EIA-748: four budgets of 100, PV 200, EV 150, AC 180', () => {
    const { cost } = stand().earned;
    expect(cost).toMatchObject({ pv: 20_000, ev: 15_000, ac: 18_000, bac: 40_000, sv: -5_000, cv: -3_000 });
    expect([cost!.spi, cost!.cpi]).toEqual([0.75, 15 / 18]);
    // W. Lipke: 150 were planned by the third of the five days of the second week, Wednesday the 14th.
    expect(finishDayOf(earnedMoment(promised, schedulePlan(promised), 'cost', 15_000)!)).toBe(day('2026-01-14') / 1440);
    expect(earnedMoment(promised, schedulePlan(promised), 'cost', 40_001)).toBeNull();
    expect(cost!.eac).toBeCloseTo(48_000, 6);
    expect(stand().earned.effort).toBeNull();
  });

  test('the finish: three working days late; statuses; what is promised by then', () => {
    const s = stand();
    expect([s.ends.late, now.activities[s.ends.lastOf!]!.ref]).toEqual([3, 'D']);
    expect(s.counts).toEqual({ complete: 1, inProgress: 1, onHold: 0, lateToStart: 0, notStarted: 2 });
    expect(s.percent.planned).toBe(50);
    expect(slipsOf(s.rows).map((r) => [r.ref, r.late])).toEqual(
      [
        ['D', 3],
        ['C', 3],
        ['B', 2],
      ].sort((x, y) => Number(y[1]) - Number(x[1]) || String(x[0]).localeCompare(String(y[0]))),
    );
  });

  test('a part of it is measured by itself', () => {
    const s = stand((i) => now.activities[i]!.ref === 'B');
    expect(s.earned.cost).toMatchObject({ pv: 10_000, ev: 5_000, ac: 6_000, bac: 10_000 });
    expect([s.rows.length, s.ends.late, s.sums.cost]).toEqual([1, 2, { now: 10_000, promised: 10_000, actual: 6_000 }]);
  });

  test('what comes up, payments by month, amounts that are off', () => {
    const paid = plan([
      ...now.activities,
      makeActivity({ ref: 'P', name: 'Payment', kind: 'finishMilestone', finish: day('2026-02-05'), cost: 900 }),
    ]);
    const then = plan([
      ...promised.activities,
      makeActivity({ ref: 'P', name: 'Payment', kind: 'finishMilestone', finish: day('2026-01-31'), cost: 900 }),
    ]);
    const [s, b] = [schedulePlan(paid), schedulePlan(then)];
    const { rows } = standingOf(paid, s, then, b, moment);
    expect(comingUp(rows, moment, 14).map((r) => r.ref)).toEqual(['B', 'C']);
    expect(paymentsByMonth(paid, then, b, rows)).toMatchObject([
      { promised: 900, due: 0, earned: 0 },
      { promised: 0, due: 900, earned: 0, refs: ['P'] },
    ]);
    expect(amountsOff(then, b, rows, 'cost')[0]).toMatchObject({ ref: 'A', ratio: 1.2, band: 'watch' });
  });

  test('curves end at what is planned, earned and spent at the status date', () => {
    const [s, b] = [schedulePlan(now), schedulePlan(promised)];
    const moments = ['2026-01-10', '2026-01-17', '2026-01-24', '2026-01-31'].map(day);
    const curves = earnedCurves(now, s, promised, b, 'cost', moments, moment);
    expect(curves.planned).toEqual([10_000, 20_000, 30_000, 40_000]);
    expect(curves.earned).toEqual([10_000, 15_000, null, null]);
    expect(curves.spent).toEqual([12_000, 18_000, null, null]);
  });

  test('every total is the sum over its rows, filtered or not, for 60 random plans', () => {
    const random = seeded(31);
    for (let round = 0; round < 60; round++) {
      const make = (moved: boolean) =>
        plan(
          Array.from({ length: 20 }, (_, k) => {
            const r = seeded(round * 100 + k);
            const first =
              day('2026-01-05') + Math.floor(r() * 40) * 1440 + (moved ? Math.floor(random() * 5) * 1440 : 0);
            const spent = moved && r() < 0.6;
            return makeActivity({
              ref: `R${k}`,
              start: first,
              finish: first + (1 + Math.floor(r() * 9)) * 1440,
              cost: r() < 0.8 ? Math.floor(r() * 1e6) : null,
              effort: r() < 0.8 ? Math.floor(r() * 1e5) : null,
              actualCost: spent ? Math.floor(random() * 1e6) : null,
              percent: spent ? Math.floor(random() * 101) : null,
            });
          }),
        );
      const [then, current] = [make(false), make(true)];
      const [b, s] = [schedulePlan(then), schedulePlan(current)];
      const at = day('2026-02-01');
      const half = random() < 0.5;
      const all = standingOf(current, s, then, b, at, (i) => !half || i % 2 === 0);
      const single = all.rows.map((r) => standingOf(current, s, then, b, at, (i) => i === r.position));
      for (const amount of ['cost', 'effort'] as const) {
        const sum = (of: (x: (typeof single)[number]) => number) => single.reduce((n, x) => n + of(x), 0);
        for (const key of ['pv', 'ev', 'bac'] as const)
          expect(sum((x) => x.earned[amount]?.[key] ?? 0)).toBeCloseTo(all.earned[amount]?.[key] ?? 0, 4);
        for (const key of ['now', 'promised', 'actual'] as const)
          expect(sum((x) => x.sums[amount][key])).toBe(all.sums[amount][key]);
      }
      for (const status of STATUSES)
        expect(all.rows.filter((r) => r.status === status)).toHaveLength(all.counts[status]);
      const refs = new Set(all.rows.map((r) => r.ref));
      expect(plannedBy(then, b, at, 'cost', refs)).toBeCloseTo(
        [...refs].reduce((n, ref) => n + plannedBy(then, b, at, 'cost', new Set([ref])), 0),
        4,
      );
      expect(earnedAmounts(current, s, then, b, 'cost', refs).ac).toBe(all.sums.cost.actual);
    }
  });
});
