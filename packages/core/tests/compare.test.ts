import { describe, expect, test } from '@jest/globals';
import {
  applyChanges,
  bandOfDays,
  bandOfRatio,
  compareEditions,
  DEFAULT_TOLERANCE,
  earnedSchedule,
  earnedValue,
  earnedValueOf,
  endOfDay,
  invertChanges,
  isSame,
  makeActivity,
  makeLink,
  type Plan,
  plannedValue,
  percentComplete,
  rollUpByCodes,
  rollUpSums,
  schedulePlan,
  snapshotOf,
  spreadExactly,
  varianceAgainst,
} from '../src/index';
import { day, planOf, seeded } from './helpers';

describe('changes between editions', () => {
  const random = (seed: number): [Plan, Plan] => {
    const r = seeded(seed);
    const n = 3 + Math.floor(r() * 20);
    const one = (): Plan => {
      const list = Array.from({ length: n }, (_, i) => i)
        .filter(() => r() < 0.8)
        .sort(() => (r() < 0.15 ? 1 : 0) - 0.5 + (r() < 0.85 ? -0 : 0));
      const activities = list.map((i) =>
        makeActivity({
          ref: `N${i}`,
          name: `Name ${Math.floor(r() * 3)}`,
          duration: Math.floor(r() * 4) * 480,
          start: Math.floor(r() * 3) * 1440,
          codes: r() < 0.5 ? { a: String(Math.floor(r() * 2)) } : {},
          percent: r() < 0.3 ? 50 : null,
        }),
      );
      const links = Array.from({ length: Math.floor(r() * 12) }, () =>
        makeLink({ from: `N${Math.floor(r() * n)}`, to: `N${Math.floor(r() * n)}`, lag: Math.floor(r() * 2) * 480 }),
      );
      return { ...planOf([], []), activities, links };
    };
    return [one(), one()];
  };

  test('an edition against itself gives nothing; 1000 plans', () => {
    for (let seed = 0; seed < 1000; seed++)
      expect(isSame(compareEditions(random(seed)[0], structuredClone(random(seed)[0])))).toBe(true);
  });
  // The order of links says nothing; that of activities does.
  const sorted = (links: Plan['links']) => links.map((l) => JSON.stringify(l)).sort();

  test('applying the list gives the other edition, and its inverse leads back; 1200 pairs', () => {
    for (let seed = 0; seed < 1200; seed++) {
      const [a, b] = random(seed);
      const changes = compareEditions(a, b);
      const forth = applyChanges(a, changes);
      expect(forth.activities).toEqual(b.activities);
      expect(sorted(forth.links)).toEqual(sorted(b.links));
      const back = applyChanges(b, invertChanges(changes));
      expect(back.activities).toEqual(a.activities);
      expect(sorted(back.links)).toEqual(sorted(a.links));
    }
  });
  test('says what kind of change it is', () => {
    const a = planOf(
      [
        ['A', 5],
        ['B', 3],
      ],
      [['A', 'B']],
    );
    const b = {
      ...a,
      activities: [{ ...a.activities[0]!, name: 'Dig', duration: 3360 }, makeActivity({ ref: 'C' })],
      links: [],
    };
    const c = compareEditions(a, b);
    expect([
      c.added.map((x) => x.activity.ref),
      c.removed.map((x) => x.activity.ref),
      c.changed.map((x) => [x.ref, x.kinds]),
      c.linksRemoved.length,
    ]).toEqual([['C'], ['B'], [['A', ['renamed', 'resized']]], 1]);
  });
  test('a list for another edition is refused', () => {
    const changes = compareEditions(planOf([['A', 5]], []), planOf([['A', 6]], []));
    expect(() => applyChanges(planOf([['B', 5]], []), changes)).toThrow(RangeError);
  });
});

describe('variance and tolerance', () => {
  const base = planOf(
    [
      ['A', 10],
      ['B', 5],
    ],
    [['A', 'B']],
    { start: day('2025-01-06'), calendar: 'five-day' },
  );
  const now = {
    ...base,
    activities: base.activities.map((a) =>
      a.ref === 'A' ? { ...a, duration: 14 * 480, effort: 90 * 60, cost: 110_00 } : a,
    ),
  };
  const promised = {
    ...base,
    activities: base.activities.map((a) => (a.ref === 'A' ? { ...a, effort: 60 * 60, cost: 100_00 } : a)),
  };

  test('dates in working days, amounts as ratios; effort 90 h against 60 h is 150 %', () => {
    const [a, b] = varianceAgainst(now, schedulePlan(now), promised, schedulePlan(promised));
    expect(a).toMatchObject({
      startDays: 0,
      finishDays: 4,
      durationDays: 4,
      durationRatio: 1.4,
      effortRatio: 1.5,
      costRatio: 1.1,
      band: 'breach',
    });
    expect(b).toMatchObject({ startDays: 4, finishDays: 4, band: 'inTolerance' });
  });
  // Common practice: five to ten percent is normal, fifty percent is a risk
  test('bands', () => {
    const t = DEFAULT_TOLERANCE;
    expect([0.9, 1, 1.1, 1.11, 1.49, 1.5, 2].map((r) => bandOfRatio(r, t.effort))).toEqual([
      'ahead',
      'inTolerance',
      'inTolerance',
      'watch',
      'watch',
      'breach',
      'breach',
    ]);
    expect([-3, 0, 5, 6, 25].map((d) => bandOfDays(d, t))).toEqual([
      'ahead',
      'inTolerance',
      'inTolerance',
      'watch',
      'breach',
    ]);
  });
  test('an edition against itself varies by nothing', () => {
    const s = schedulePlan(now);
    expect(
      varianceAgainst(now, s, now, s).every((v) => v.startDays === 0 && v.finishDays === 0 && v.durationDays === 0),
    ).toBe(true);
  });
  test('the snapshot: thirty percent of fourteen days are four done and ten to go', () => {
    const p = {
      ...now,
      activities: now.activities.map((a) => (a.ref === 'A' ? { ...a, percent: 30, actualEffort: 30 * 60 } : a)),
    };
    const snap = snapshotOf(p, schedulePlan(p), promised, schedulePlan(promised), 'A')!;
    expect(snap.duration).toEqual({ current: 14, baseline: 10, actual: 4, remaining: 10, variance: 4 });
    expect(snap.effort).toEqual({ current: 5400, baseline: 3600, actual: 1800, remaining: 3600, variance: 1800 });
    expect(snap.percent).toEqual({ stated: 30, time: 30, effort: expect.closeTo(33.33, 2) });
    // Nothing is budgeted for B.
    expect(snapshotOf(p, schedulePlan(p), promised, schedulePlan(promised), 'B')!.percent.effort).toBeNull();
  });
});

describe('earned value', () => {
  // Formulas of ANSI/EIA-748; values recomputed by hand
  test('the measures from PV 3000, EV 2500, AC 2800, BAC 4000', () => {
    const m = earnedValueOf(3000, 2500, 2800, 4000);
    expect([m.cv, m.sv, m.eac, m.vac, m.tcpi]).toEqual([-300, -500, 4480, -480, 1.25]);
    expect([m.cpi!.toFixed(4), m.spi!.toFixed(4)]).toEqual(['0.8929', '0.8333']);
  });

  // Render & Heizer, Operations Management, "General Foundry" (from memory): budgets in thousands, status at week 6
  describe('General Foundry', () => {
    const refs = 'ABCDEFGH';
    const weeks = [2, 3, 2, 4, 4, 3, 5, 2];
    const budgets = [22, 30, 26, 48, 56, 30, 80, 16];
    const percents = [100, 100, 100, 10, 20, 20, 0, 0];
    const actual = [20, 36, 26, 6, 20, 4, 0, 0];
    const before: [string, string][] = [
      ['A', 'C'],
      ['B', 'D'],
      ['C', 'E'],
      ['C', 'F'],
      ['D', 'G'],
      ['E', 'G'],
      ['F', 'H'],
      ['G', 'H'],
    ];
    // One day stands for a week, so that weeks have no weekends.
    const base = planOf(
      [...refs].map((r, i) => [r, weeks[i]!]),
      before,
    );
    const plan = {
      ...base,
      activities: base.activities.map((a, i) => ({
        ...a,
        cost: budgets[i]! * 100_000,
        percent: percents[i]!,
        actualCost: actual[i]! * 100_000,
      })),
    };
    const s = schedulePlan(plan);
    const thousands = (hundredths: number) => hundredths / 100_000;

    test('EV 100, AC 112, CV −12, PV 162 on early dates', () => {
      const m = earnedValue(plan, s, plan, s, 6 * 1440);
      expect([m.ev, m.ac, m.cv, m.pv].map(thousands)).toEqual([100, 112, -12, 162]);
    });
    test('PV 130 on late dates', () => {
      expect(thousands(plannedValue(plan, { ...s, start: s.lateStart, finish: s.lateFinish }, 6 * 1440))).toBe(130);
    });
    test('the weekly budget on early dates', () => {
      const weekly = Array.from({ length: 15 }, (_, w) =>
        thousands(plannedValue(plan, s, (w + 1) * 1440) - plannedValue(plan, s, w * 1440)),
      );
      expect(weekly.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
        21, 21, 23, 25, 36, 36, 36, 14, 16, 16, 16, 16, 16, 8, 8,
      ]);
    });
    test('earned schedule 4.2778 weeks (Lipke 2003)', () => {
      const planned = Array.from({ length: 15 }, (_, w) => plannedValue(plan, s, (w + 1) * 1440));
      expect(earnedSchedule(planned, 100 * 100_000)).toBeCloseTo(4.2778, 4);
    });
  });
});

describe('sums', () => {
  test('every spread adds up exactly; 3000 random ones', () => {
    const r = seeded(5);
    for (let k = 0; k < 3000; k++) {
      const amount = Math.floor((r() - 0.2) * 1_000_000);
      const weights = Array.from({ length: 1 + Math.floor(r() * 40) }, () => (r() < 0.2 ? 0 : r() * 480));
      const shape = (['uniform', 'front', 'back', 'bell'] as const)[k % 4]!;
      const parts = spreadExactly(amount, weights, shape);
      expect(parts.reduce((a, b) => a + b, 0)).toBe(amount);
      expect(parts.every(Number.isInteger)).toBe(true);
    }
  });
  test('a hundred cents over three equal days', () => {
    expect(spreadExactly(100, [1, 1, 1])).toEqual([34, 33, 33]);
    expect(() => spreadExactly(0.5, [1])).toThrow(RangeError);
  });
  test('roll up over the outline and over codes', () => {
    const plan: Plan = {
      ...planOf([], []),
      activities: [
        makeActivity({ ref: 'S', kind: 'summary' }),
        makeActivity({ ref: 'A', parent: 'S', cost: 5, effort: 60, codes: { x: 'p' } }),
        makeActivity({ ref: 'B', parent: 'S', cost: 7, codes: { x: 'q' } }),
        makeActivity({ ref: 'C', cost: 1, codes: { x: 'p' } }),
      ],
    };
    const s = schedulePlan(plan);
    expect(rollUpSums(plan, s)[0]).toMatchObject({ activities: 2, cost: 12, effort: 60 });
    expect(rollUpByCodes(plan, s, ['x']).map((g) => [g.codes, g.sums.cost])).toEqual([
      [['p'], 6],
      [['q'], 7],
    ]);
  });
  // By hand. A has run six of its ten days and has three to go by its own account; B is untouched.
  const progress = {
    ...planOf(
      [
        ['S', 0],
        ['A', 10],
        ['B', 5],
      ],
      [],
      { start: day('2025-01-06'), calendar: 'five-day', statusDate: day('2025-01-13') },
    ),
  };
  const [, a, b] = progress.activities;
  progress.activities = [
    makeActivity({ ref: 'S', kind: 'summary' }),
    {
      ...a!,
      parent: 'S',
      actualStart: day('2025-01-06'),
      percent: 50,
      effort: 100 * 60,
      actualEffort: 40 * 60,
      codes: { x: 'p' },
    },
    { ...b!, parent: 'S', effort: 300 * 60, codes: { x: 'p' } },
  ];

  test('three measures of percent complete, over the outline and over codes', () => {
    const s = schedulePlan(progress);
    const of = (measure: 'stated' | 'time' | 'effort', plan = progress) => {
      const { percent, whole } = percentComplete(plan, schedulePlan(plan), measure);
      return [...percent, whole].map((p) => Math.round(p * 10) / 10);
    };
    // A now takes eleven days: six gone and five to go. Sixteen days with B.
    expect(of('stated')).toEqual([34.4, 50, 0, 34.4]);
    expect(of('time')).toEqual([37.5, 54.5, 0, 37.5]);
    expect(of('effort')).toEqual([10, 40, 0, 10]);
    const left = {
      ...progress,
      activities: progress.activities.map((x) => (x.ref === 'A' ? { ...x, remaining: 3 * 480 } : x)),
    };
    expect(of('time', left)[1]).toBe(70);
    const [group] = rollUpByCodes(progress, s, ['x']);
    expect([group!.start, group!.positions, Math.round(group!.percent.time * 10) / 10, group!.percent.effort]).toEqual([
      day('2025-01-06'),
      [1, 2],
      37.5,
      10,
    ]);
  });
  test('what has nothing to measure has no percent', () => {
    const plan = planOf([['A', 5]], []);
    expect(percentComplete(plan, schedulePlan(plan), 'effort').whole).toBeNaN();
  });
  test('finish dates are ends of days', () => {
    expect(endOfDay(0)).toBe(1440);
  });
});
