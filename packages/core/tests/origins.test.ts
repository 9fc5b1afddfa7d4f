import { describe, expect, test } from '@jest/globals';
import {
  ACTUAL,
  applyCommand,
  AS_PROMISED,
  assessSchedule,
  pointWords,
  COMPUTED,
  EXPECTED,
  extentOf,
  fixedConflicts,
  isoDate,
  linkedToEnd,
  makeActivity,
  type Plan,
  planEnds,
  promiseOffer,
  schedulePlan,
  STATED,
  UNKNOWN,
} from '../src/index';
import { day, planOf, end } from './helpers';

// Dates by hand on a calendar of a five-day week; 2 March 2026 is a Monday.
const drawn = (activities: Plan['activities'], more: Partial<Plan> = {}): Plan => ({
  ...planOf([], [], { calendar: 'five-day', source: 'given', start: null }),
  activities,
  ...more,
});
const days = (plan: Plan, ref: string) => {
  const s = schedulePlan(plan);
  const i = s.outline.indexOf.get(ref)!;
  const at = extentOf(s, [i]);
  return [at && isoDate(at.first), at && isoDate(at.last), s.startFrom[i], s.finishFrom[i]];
};

describe('where a date comes from', () => {
  const promised = (start: string, finish: string) => ({ start: day(start), finish: end(finish) });
  const dig = makeActivity({ ref: 'Dig', actualStart: day('2026-03-04'), actualFinish: end('2026-03-11') });
  const pour = makeActivity({
    ref: 'Pour',
    actualStart: day('2026-03-12'),
    percent: 30,
    promised: promised('2026-03-09', '2026-03-20'),
  });
  const over = makeActivity({ ref: 'Over', promised: promised('2026-03-23', '2026-03-27') });
  const plan = drawn([dig, pour, over]);

  test('what is under way is expected to end when its length is over: ten days from Thursday 12 March', () => {
    expect(days(plan, 'Dig')).toEqual(['2026-03-04', '2026-03-11', ACTUAL, ACTUAL]);
    expect(days(plan, 'Pour')).toEqual(['2026-03-12', '2026-03-25', ACTUAL, EXPECTED]);
    // Seven of ten days are to go, from Monday the 16th on.
    expect(days({ ...plan, statusDate: day('2026-03-15') }, 'Pour')).toEqual([
      '2026-03-12',
      '2026-03-24',
      ACTUAL,
      EXPECTED,
    ]);
  });

  test('what has only promised dates has none until somebody says so; nothing is said of the end before', () => {
    expect(days(plan, 'Over')).toEqual([null, null, UNKNOWN, UNKNOWN]);
    const s = schedulePlan(plan);
    expect(planEnds(plan, s, { plan, schedule: s })).toMatchObject({ openWithout: 1, of: 3, late: null });
    const offer = promiseOffer(plan, s, null)!;
    expect([offer.rows, offer.underWay]).toEqual([1, 0]);
    const taken = applyCommand(plan, offer.command);
    expect(days(taken.plan, 'Over')).toEqual(['2026-03-23', '2026-03-27', AS_PROMISED, AS_PROMISED]);
    expect(planEnds(taken.plan, schedulePlan(taken.plan), null)).toMatchObject({
      openWithout: 0,
      expected: 'asPromised',
    });
    expect(applyCommand(taken.plan, taken.inverse).plan).toEqual(plan);
  });

  test('what states no date and hangs on others by links is computed from theirs', () => {
    const linked = drawn(
      [
        makeActivity({ ref: 'A', start: day('2026-03-02'), finish: end('2026-03-06') }),
        makeActivity({ ref: 'B', duration: 3 * 480 }),
      ],
      { links: planOf([], [['A', 'B']]).links },
    );
    expect(days(linked, 'A')).toEqual(['2026-03-02', '2026-03-06', STATED, STATED]);
    expect(days(linked, 'B')).toEqual(['2026-03-09', '2026-03-11', COMPUTED, COMPUTED]);
  });
});

describe('what decides the end', () => {
  const rows = [
    makeActivity({ ref: 'Long', start: day('2027-02-01'), finish: end('2027-02-26') }),
    makeActivity({ ref: 'Opening', start: day('2027-03-15'), finish: end('2027-03-15') }),
  ];
  test('without links nothing is critical, the path test is not possible, and all logic is missing', () => {
    const plan = drawn(rows);
    const s = schedulePlan(plan);
    expect([...s.critical]).toEqual([0, 0]);
    // From Friday 26 February to Monday 15 March: eleven working days to the end.
    expect([...s.totalFloat].map((f) => f / 480)).toEqual([11, 0]);
    expect(linkedToEnd(plan, s)).toMatchObject({ lead: 0, of: 2, isWhole: false });
    const points = assessSchedule(plan, s, null);
    expect(points.find((p) => p.name === 'missing logic')).toMatchObject({ count: 2, base: 2 });
    for (const name of ['critical path test', 'critical path length index', 'high float'])
      expect(pointWords(points.find((p) => p.name === name)!)).toBe('nothing to measure');
  });
});

describe('a fixed date is fixed', () => {
  const plan = drawn(
    [
      makeActivity({ ref: 'Work', start: day('2026-03-09'), finish: end('2026-03-12'), duration: 4 * 480 }),
      makeActivity({
        ref: 'Open',
        kind: 'finishMilestone',
        duration: 0,
        finish: end('2026-03-17'),
        constraint: { kind: 'fixedFinish', moment: end('2026-03-13') },
      }),
    ],
    { links: planOf([], [['Work', 'Open']]).links },
  );
  test('it is shown where it is fixed, and moves with its constraint', () => {
    expect(days(plan, 'Open').slice(0, 2)).toEqual(['2026-03-13', '2026-03-13']);
    const later = applyCommand(plan, {
      do: 'changeActivity',
      ref: 'Open',
      part: { constraint: { kind: 'fixedFinish', moment: end('2026-03-20') } },
    }).plan;
    expect(days(later, 'Open').slice(0, 2)).toEqual(['2026-03-20', '2026-03-20']);
  });
  test('pushing stops at it, and the conflict has its size', () => {
    const slipped = applyCommand(plan, {
      do: 'changeActivity',
      ref: 'Work',
      part: { start: day('2026-03-12'), finish: end('2026-03-17') },
    }).plan;
    expect(days(slipped, 'Open').slice(0, 2)).toEqual(['2026-03-13', '2026-03-13']);
    const s = schedulePlan(slipped);
    // From Friday the 13th to Tuesday the 17th: two working days.
    expect([...fixedConflicts(slipped, s)]).toEqual([['Open', 2]]);
    expect(s.totalFloat[0]! / 480).toBe(-2);
  });
});

describe('days are days', () => {
  test('a milestone in its morning and a finish in its evening are on the same day, and so is their group', () => {
    const plan = drawn([
      makeActivity({ ref: 'G', kind: 'summary' }),
      makeActivity({ ref: 'A', parent: 'G', start: day('2027-06-01'), finish: end('2027-06-18') }),
      makeActivity({ ref: 'B', parent: 'G', kind: 'startMilestone', duration: 0, start: day('2027-06-21') }),
    ]);
    const evening = drawn(
      plan.activities.map((a) =>
        a.ref === 'B' ? { ...a, kind: 'finishMilestone', start: null, finish: end('2027-06-21') } : a,
      ),
    );
    expect(days(plan, 'G').slice(0, 2)).toEqual(['2027-06-01', '2027-06-21']);
    const [s, b] = [schedulePlan(plan), schedulePlan(evening)];
    expect(planEnds(plan, s, { plan: evening, schedule: b }).late).toBe(0);
    expect(planEnds(evening, b, { plan, schedule: s }).late).toBe(0);
  });
});
