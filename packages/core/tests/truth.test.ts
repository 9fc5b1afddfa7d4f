import { describe, expect, test } from '@jest/globals';
import {
  type Activity,
  applyChanges,
  assessSchedule,
  compareEditions,
  dayOf,
  finishDayOf,
  firstDayOf,
  flowline,
  FIVE_DAY,
  invertChanges,
  isoDate,
  isSame,
  lastDayOf,
  makeActivity,
  makeLink,
  makeField,
  NONE,
  type Plan,
  parseIsoDate,
  percentComplete,
  schedulePlan,
  stretchesAt,
  WorkingTime,
} from '../src/index';
import { day, planOf, end } from './helpers';

// The rules are those of the domain, the dates by hand on a calendar. 6 January 2025 is a Monday.
const monday = { start: day('2025-01-06'), calendar: 'five-day' };
const withActivity = (plan: Plan, ref: string, part: Partial<Activity>): Plan => ({
  ...plan,
  activities: plan.activities.map((a) => (a.ref === ref ? { ...a, ...part } : a)),
});
const shown = (plan: Plan, ref: string): [start: string, finish: string] | null => {
  const s = schedulePlan(plan);
  const i = plan.activities.findIndex((a) => a.ref === ref);
  if (s.start[i] === NONE) return null;
  const point = s.atFinish[i] === 0;
  return [isoDate(dayOf(s.start[i]!)), isoDate(point ? dayOf(s.finish[i]!) : finishDayOf(s.finish[i]!))];
};
const finishOf = (plan: Plan, ref: string) => shown(plan, ref)?.[1];
const codes = (plan: Plan) => schedulePlan(plan).findings.map((f) => f.code);

describe('what a lag leads a finish to is the end of the last working day before it', () => {
  const pair = (type: 'FF' | 'SF', lag: number, first: number) =>
    planOf(
      [
        ['A', first],
        ['B', 1],
      ],
      [['A', 'B', type, lag]],
      { ...monday, start: day('2025-01-06') },
    );
  test('a lead from Monday evening leads to Friday evening', () => {
    // A takes six days, to Monday 13 January; B ends a working day before, on Friday the 10th.
    expect(finishOf(pair('FF', -1, 6), 'B')).toBe('2025-01-10');
  });
  test('start-to-finish: what is relieved on a Monday morning ends on the Friday before', () => {
    const plan = planOf(
      [
        ['P', 5],
        ['A', 3],
        ['B', 2],
      ],
      [
        ['P', 'A'],
        ['A', 'B', 'SF'],
      ],
      monday,
    );
    expect(shown(plan, 'A')![0]).toBe('2025-01-13');
    expect(finishOf(plan, 'B')).toBe('2025-01-10');
  });
  test('backwards: late dates and float are those of the same day', () => {
    const plan = planOf(
      [
        ['A', 6],
        ['B', 1],
        ['E', 1],
      ],
      [
        ['A', 'B', 'FF', -1],
        ['A', 'E'],
        ['B', 'E'],
      ],
      monday,
    );
    const s = schedulePlan(plan);
    // B may end on Monday, when A ends: one working day of float.
    expect([s.totalFloat[1]! / 480, s.totalFloat[0]]).toEqual([1, 0]);
    expect(isoDate(finishDayOf(s.lateFinish[1]!))).toBe('2025-01-13');
  });
  test('a milestone a working day before a Monday evening stands on Friday', () => {
    const plan = planOf(
      [
        ['A', 6],
        ['M', 0],
      ],
      [['A', 'M', 'FS', -1]],
      monday,
    );
    expect(finishOf(withActivity(plan, 'M', { kind: 'finishMilestone' }), 'M')).toBe('2025-01-10');
  });
});

describe('history', () => {
  const base = planOf(
    [
      ['A', 5],
      ['B', 5],
    ],
    [['A', 'B']],
    { ...monday, statusDate: day('2025-01-19') },
  );

  test.each([
    ['finishMilestone', { actualStart: day('2025-01-08') }],
    ['finishMilestone', { actualFinish: end('2025-01-08') }],
    ['startMilestone', { actualStart: day('2025-01-08') }],
    ['startMilestone', { actualFinish: end('2025-01-08') }],
  ] as const)('a %s with %o has happened on that day', (kind, actual) => {
    const plan = withActivity(base, 'A', { kind, duration: 0, finish: end('2025-01-15'), ...actual });
    for (const source of ['given', 'computed'] as const) expect(finishOf({ ...plan, source }, 'A')).toBe('2025-01-08');
    expect(schedulePlan(plan).totalFloat[0]).toBe(NONE);
    // What follows is not held by it: it begins on the working day after the status date.
    expect(shown(plan, 'B')![0]).toBe('2025-01-20');
  });

  test('complete without actual dates has happened as planned, and a finding says so', () => {
    const plan = withActivity(base, 'A', { percent: 100, start: day('2025-01-07'), finish: end('2025-01-14') });
    expect(shown(plan, 'A')).toEqual(['2025-01-07', '2025-01-14']);
    expect(shown(plan, 'B')![0]).toBe('2025-01-20');
    expect(codes(plan)).toContain('completeWithoutDates');
    expect(codes(withActivity(plan, 'A', { actualFinish: end('2025-01-14') }))).not.toContain('completeWithoutDates');
  });

  test('but not after the status date', () => {
    const plan = withActivity(base, 'A', { percent: 100, start: day('2025-01-15'), finish: end('2025-01-24') });
    for (const source of ['given', 'computed'] as const)
      expect(shown({ ...plan, source }, 'A')).toEqual(['2025-01-15', '2025-01-19']);
  });

  test('work in progress with a fixed finish keeps it, and the conflict has its size', () => {
    const plan = withActivity(base, 'A', {
      actualStart: day('2025-01-13'),
      remaining: 5 * 480,
      constraint: { kind: 'fixedFinish', moment: end('2025-01-22') },
    });
    const s = schedulePlan(plan);
    // Five days remain from Monday the 20th: Friday the 24th, two working days after the fixed date.
    expect(finishOf(plan, 'A')).toBe('2025-01-22');
    expect(s.totalFloat[0]! / 480).toBe(-2);
    expect(s.findings.find((f) => f.code === 'fixedDateConflict')?.facts).toMatchObject({ days: 2 });
  });

  test('free float asks only the links that the passes ask', () => {
    // B began before A was done; with progress override A no longer holds it, so nothing holds A but the end.
    const plan = withActivity(
      {
        ...planOf(
          [
            ['A', 3],
            ['B', 10],
          ],
          [['A', 'B']],
          { ...monday, statusDate: day('2025-01-13') },
        ),
        retainedLogic: false,
      },
      'B',
      { actualStart: day('2025-01-06'), remaining: 10 * 480 },
    );
    const s = schedulePlan(plan);
    expect(s.totalFloat[0]! / 480).toBe(7);
    expect(s.freeFloat[0]! / 480).toBe(7);
  });
});

describe('milestones and supporting work', () => {
  test('a finish milestone that nothing leads to stands at the end of the day that bounds it', () => {
    const plan = withActivity(planOf([['M', 0]], [], monday), 'M', {
      kind: 'finishMilestone',
      constraint: { kind: 'finishNotEarlier', moment: end('2025-01-15') },
    });
    expect(finishOf(plan, 'M')).toBe('2025-01-15');
  });

  test('supporting work on a summary spans what the summary holds', () => {
    const plan = planOf(
      [
        ['A', 3],
        ['B', 4],
        ['C', 5],
      ],
      [
        ['A', 'B'],
        ['B', 'C'],
      ],
      monday,
    );
    const full: Plan = {
      ...plan,
      activities: [
        makeActivity({ ref: 'G', kind: 'summary' }),
        ...plan.activities.map((a) => ({ ...a, parent: a.ref === 'C' ? null : 'G' })),
        makeActivity({ ref: 'L', kind: 'levelOfEffort' }),
        makeActivity({ ref: 'K', kind: 'levelOfEffort' }),
      ],
      links: [
        ...plan.links,
        makeLink({ from: 'G', to: 'L', type: 'SS' }),
        makeLink({ from: 'G', to: 'L', type: 'FF' }),
        makeLink({ from: 'G', to: 'K', type: 'FS' }),
        makeLink({ from: 'K', to: 'C', type: 'FF' }),
      ],
    };
    expect(shown(full, 'L')).toEqual(['2025-01-06', '2025-01-14']);
    expect(shown(full, 'K')![1]).toBe('2025-01-21');
    expect(codes(full)).not.toContain('levelOfEffortOpen');
  });
});

describe('interrupted work', () => {
  const interrupted = withActivity(planOf([['A', 10]], [], monday), 'A', {
    stretches: [
      { start: day('2025-01-06'), finish: end('2025-01-10') },
      { start: day('2025-01-20'), finish: end('2025-01-22') },
    ],
  });
  test('the duration says how much work there is; the last stretch takes the difference, and a finding says so', () => {
    // Five days, a week of pause, and five more: to Friday the 24th, not to the 22nd.
    expect(shown(interrupted, 'A')).toEqual(['2025-01-06', '2025-01-24']);
    const pieces = stretchesAt(interrupted, schedulePlan(interrupted), 0);
    expect(pieces.map((p) => [isoDate(dayOf(p.start)), isoDate(finishDayOf(p.finish))])).toEqual([
      ['2025-01-06', '2025-01-10'],
      ['2025-01-20', '2025-01-24'],
    ]);
    expect(codes(interrupted)).toContain('stretchesAgainstDuration');
    expect(codes(withActivity(interrupted, 'A', { duration: 8 * 480 }))).not.toContain('stretchesAgainstDuration');
  });
  test('what remains of it has only the pauses that are still to come', () => {
    const plan = withActivity({ ...interrupted, statusDate: day('2025-01-19') }, 'A', {
      duration: 8 * 480,
      actualStart: day('2025-01-06'),
      remaining: 3 * 480,
    });
    expect(finishOf(plan, 'A')).toBe('2025-01-22');
  });
  test('its dates are those of its stretches when it states no others', () => {
    const plan = withActivity({ ...interrupted, source: 'given', start: null }, 'A', { duration: null });
    expect(shown(plan, 'A')).toEqual(['2025-01-06', '2025-01-22']);
  });
});

describe('dates that nobody stated', () => {
  test('in a plan as drawn, an activity without dates and links has none', () => {
    const plan: Plan = {
      ...planOf(
        [
          ['A', 5],
          ['B', 5],
        ],
        [['A', 'B']],
        monday,
      ),
      source: 'given',
    };
    const given = withActivity(plan, 'A', { start: day('2025-01-06'), finish: end('2025-01-10') });
    const apart = { ...given, links: [] };
    expect(shown(apart, 'B')).toBe(null);
    expect(schedulePlan(apart).findings.find((f) => f.code === 'noDates')?.refs).toEqual(['B']);
    // What hangs on others by links is put where they lead it.
    expect(shown(given, 'B')).toEqual(['2025-01-13', '2025-01-17']);
    expect(shown({ ...given, source: 'computed' }, 'B')).toEqual(['2025-01-13', '2025-01-17']);
  });
  test('a plan that says nowhere when it begins has floats, but no dates', () => {
    const plan = planOf(
      [
        ['A', 5],
        ['B', 5],
        ['C', 2],
      ],
      [
        ['A', 'B'],
        ['A', 'C'],
      ],
      { ...monday, start: null },
    );
    const s = schedulePlan(plan);
    for (const list of [s.start, s.earlyStart, s.lateFinish]) expect([...list]).toEqual([NONE, NONE, NONE]);
    expect(s.totalFloat[2]! / 480).toBe(3);
    expect(codes(plan)).toEqual(['noStart']);
    // Lengths are known, and nothing of them is done.
    expect(percentComplete(plan, s).whole).toBe(0);
  });
});

describe('comparison and assessment', () => {
  test('a promised finish may follow from start and duration', () => {
    const promised: Plan = {
      ...planOf([], [], monday),
      source: 'given',
      activities: [makeActivity({ ref: 'A', duration: 3 * 480, start: day('2025-01-06') })],
    };
    const now = withActivity({ ...promised, statusDate: day('2025-01-13') }, 'A', {
      actualStart: day('2025-01-06'),
      actualFinish: end('2025-01-08'),
    });
    const point = assessSchedule(now, schedulePlan(now), promised).find((p) => p.name === 'missed activities')!;
    expect([point.base, point.count]).toEqual([1, 0]);
    const late = withActivity(now, 'A', { actualFinish: end('2025-01-09') });
    expect(
      assessSchedule(late, schedulePlan(late), promised).find((p) => p.name === 'missed activities'),
    ).toMatchObject({
      base: 1,
      count: 1,
    });
  });

  test('editions differ by calendar, status date and all else that the plan itself says', () => {
    const before = planOf([['A', 5]], [], monday);
    const after: Plan = {
      ...before,
      statusDate: day('2025-01-13'),
      calendars: before.calendars.map((c) => ({ ...c, exceptions: [{ day: 20_100, pattern: [], name: 'Closed' }] })),
      codeFields: [makeField({ id: 'area', name: 'Area' })],
    };
    const changes = compareEditions(before, after);
    expect(isSame(changes)).toBe(false);
    expect(changes.plan.map((c) => c.field).sort()).toEqual(['calendars', 'codeFields', 'statusDate']);
    expect(applyChanges(before, changes)).toEqual(after);
    expect(applyChanges(after, invertChanges(changes))).toEqual(before);
    expect(isSame(compareEditions(after, { ...after }))).toBe(true);
  });
});

describe('flowlines in hours', () => {
  // Eight working hours a day, 8 to 12 and 13 to 17; 80 m a working day are 10 m an hour.
  const time = new WorkingTime(FIVE_DAY, 'minute', 20_000);
  const work = { ref: 'P', from: 0, to: 120, rates: [{ from: 0, to: 120, perDay: 80 }], crews: 1 };
  test('work that begins at eight ends its day at five, and the rest is done the next morning', () => {
    const start = parseIsoDate('2025-01-06')! + 8 / 24;
    const points = flowline(work, start, time);
    expect(points.at(-1)!.place).toBeCloseTo(120);
    expect(points.at(-1)!.time).toBeCloseTo(parseIsoDate('2025-01-07')! + 12 / 24, 6);
    const evening = points.find((p) => Math.abs(p.time - (parseIsoDate('2025-01-06')! + 17 / 24)) < 1e-6);
    expect(evening?.place).toBeCloseTo(80);
  });
  test('and rests over the weekend', () => {
    const points = flowline(work, parseIsoDate('2025-01-10')! + 13 / 24, time);
    expect(points.at(-1)!.time).toBeCloseTo(parseIsoDate('2025-01-13')! + 17 / 24, 6);
  });
});

describe('one date of an activity without a length names the day that it says', () => {
  const one = (part: Partial<Activity>): Plan => ({
    ...planOf([['A', 1]], [], { ...monday, source: 'given' }),
    activities: [makeActivity({ ref: 'A', ...part })],
  });
  test('a start', () => {
    const plan = one({ start: day('2025-01-13') });
    const s = schedulePlan(plan);
    const [span] = [{ start: s.start[0]!, finish: s.finish[0]!, atFinish: s.atFinish[0] === 1 }];
    expect([isoDate(firstDayOf(span)), isoDate(lastDayOf(span))]).toEqual(['2025-01-13', '2025-01-13']);
  });
  test('a finish', () => {
    const plan = one({ finish: end('2025-01-13') });
    const s = schedulePlan(plan);
    const [span] = [{ start: s.start[0]!, finish: s.finish[0]!, atFinish: s.atFinish[0] === 1 }];
    expect([isoDate(firstDayOf(span)), isoDate(lastDayOf(span))]).toEqual(['2025-01-13', '2025-01-13']);
  });
});
