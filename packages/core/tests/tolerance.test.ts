import { describe, expect, test } from '@jest/globals';
import {
  askedAt,
  Bounds,
  bandOfDays,
  conditionHolds,
  daysDoneReader,
  DEFAULT_TOLERANCE,
  fieldReader,
  FIVE_DAY,
  makeActivity,
  makeField,
  makePlan,
  makeValue,
  movesBetween,
  type Plan,
  schedulePlan,
  toleranceOf,
  trendsOf,
  varianceAgainst,
} from '../src/index';
import { day } from './helpers';

const plan = (activities: Plan['activities'], more: Partial<Plan> = {}): Plan =>
  makePlan({ name: 'T', calendars: [FIVE_DAY], calendar: FIVE_DAY.id, activities, ...more });
const work = (ref: string, from: string, to: string, more = {}) =>
  makeActivity({ ref, name: ref, start: day(from), finish: day(to), ...more });
const keep = (p: Plan) => ({ plan: p, schedule: schedulePlan(p) });

describe('tolerance', () => {
  const strict = { days: { watch: 0, breach: 2 }, effort: { watch: 0, breach: 0.1 }, cost: { watch: 0, breach: 0.1 } };
  const parts = {
    tolerance: DEFAULT_TOLERANCE,
    tolerances: [
      { field: 'phase', code: 'Licence', tolerance: strict },
      { field: 'crew', code: 'Divers', tolerance: DEFAULT_TOLERANCE },
    ],
  };
  test('what belongs to a part takes its bounds, the first of several, else those of the plan', () => {
    expect(toleranceOf(parts, { codes: {} })).toBe(DEFAULT_TOLERANCE);
    expect(toleranceOf(parts, { codes: { phase: 'Licence', crew: 'Divers' } })).toBe(strict);
    expect(toleranceOf(parts, { codes: { crew: 'Divers' } })).toBe(DEFAULT_TOLERANCE);
    expect([bandOfDays(1, strict), bandOfDays(1, DEFAULT_TOLERANCE)]).toEqual(['watch', 'inTolerance']);
  });
  test('what is normal cannot reach beyond what is far off', () => {
    expect(Bounds.safeParse({ watch: 6, breach: 5 }).success).toBe(false);
    expect(Bounds.safeParse({ watch: 5, breach: 5 }).success).toBe(true);
  });
  test('variances are judged by them, and so are fields and conditions', () => {
    const then = plan([work('A', '2026-01-05', '2026-01-10'), work('B', '2026-01-05', '2026-01-10')]);
    const now = plan(
      [
        work('A', '2026-01-05', '2026-01-13', { codes: { phase: 'Licence' } }),
        work('B', '2026-01-05', '2026-01-13', { codes: { phase: 'Build' } }),
      ],
      {
        codeFields: [
          makeField({ id: 'phase', name: 'Phase', values: ['Licence', 'Build'].map((code) => makeValue({ code })) }),
        ],
        tolerances: [{ field: 'phase', code: 'Licence', tolerance: strict }],
      },
    );
    const [s, b] = [schedulePlan(now), schedulePlan(then)];
    // Monday the 12th is one working day behind Friday the 9th.
    expect(varianceAgainst(now, s, then, b).map((v) => [v.finishDays, v.band])).toEqual([
      [1, 'watch'],
      [1, 'inTolerance'],
    ]);
    const promised = { plan: then, schedule: b };
    const read = (field: string) => now.activities.map((_, i) => fieldReader(now, s, field, promised)!(i));
    expect(read('late')).toEqual([1, 1]);
    expect(read('band')).toEqual(['to be watched', 'within what is normal']);
    expect(fieldReader(now, s, 'late')!(0)).toBeNull();
    const holds = conditionHolds(
      now,
      s,
      { match: 'all', tests: [{ field: 'band', is: 'is', values: ['to be watched', 'far off'] }] },
      promised,
    );
    expect([holds(0), holds(1)]).toEqual([true, false]);
  });
});

describe('days done and to go', () => {
  // Fourteen working days from Monday 5 January 2026 end on Thursday the 22nd.
  const of = (percent: number | null, more = {}) => {
    const p = plan([work('A', '2026-01-05', '2026-01-23', { percent, ...more })]);
    return daysDoneReader(p, schedulePlan(p))(0);
  };
  test('thirty percent of fourteen days are four done and ten to go; nothing is rounded up to done', () => {
    expect(of(30)).toEqual({ whole: 14, done: 4, toGo: 10 });
    expect(of(99)).toEqual({ whole: 14, done: 13, toGo: 1 });
    expect(of(100)).toEqual({ whole: 14, done: 14, toGo: 0 });
    expect(of(null)).toEqual({ whole: 14, done: 0, toGo: 14 });
  });
  test('milestones have none', () => {
    expect(of(null, { kind: 'finishMilestone', duration: 0, start: null })).toBeNull();
  });
});

describe('what a status date asks', () => {
  const then = plan([
    work('Over', '2026-01-05', '2026-01-10'),
    work('Begun', '2026-01-05', '2026-01-24', { percent: 10, actualStart: day('2026-01-05') }),
    work('Waiting', '2026-01-12', '2026-01-24'),
    work('Soon', '2026-01-21', '2026-01-24'),
    work('Later', '2026-03-02', '2026-03-07'),
    work('Done', '2026-01-05', '2026-01-07', { percent: 100 }),
    makeActivity({ ref: 'Gate', kind: 'finishMilestone', finish: day('2026-01-14'), duration: 0 }),
  ]);
  const status = day('2026-01-19');
  const asked = (p: Plan, last: Plan | null, days = 7) =>
    askedAt(p, schedulePlan(p), status, days, last && keep(last)).map((r) => [p.activities[r.position]!.ref, r.why]);
  test('what is overdue comes first, then what should have begun, what goes on, what is due', () => {
    expect(asked(then, null)).toEqual([
      ['Over', 'shouldHaveFinished'],
      ['Gate', 'shouldHaveFinished'],
      ['Waiting', 'shouldHaveStarted'],
      ['Begun', 'inProgress'],
      ['Soon', 'due'],
    ]);
    expect(asked(then, null, 60)).toContainEqual(['Later', 'due']);
  });
  test('what the plan has pushed behind the status date is asked by what was planned last', () => {
    const pushed = plan(
      then.activities.map((a) =>
        a.ref === 'Over' ? { ...a, start: day('2026-01-19'), finish: day('2026-01-24') } : a,
      ),
    );
    expect(asked(pushed, null)[0]).toEqual(['Gate', 'shouldHaveFinished']);
    expect(asked(pushed, then)[0]).toEqual(['Over', 'shouldHaveFinished']);
  });
});

describe('over the editions', () => {
  const edition = (finish: string, gate: string) =>
    plan([
      work('A', '2026-01-05', finish, { responsible: ['Yard'] }),
      makeActivity({ ref: 'G', name: 'Gate', kind: 'finishMilestone', finish: day(gate), duration: 0 }),
    ]);
  const editions = [
    edition('2026-01-24', '2026-01-14'),
    edition('2026-01-31', '2026-01-14'),
    edition('2026-01-28', '2026-01-16'),
  ].map(keep);
  test('finish and milestones, with the working days that they moved', () => {
    const [whole, gate] = trendsOf(editions, ['G']);
    // The last days are Friday 23, Friday 30 and Tuesday 27 January; the gate goes from the 13th to the 15th.
    expect(whole!.days.map((d) => d! - whole!.days[0]!)).toEqual([0, 7, 4]);
    expect([whole!.moved, gate!.moved, gate!.name]).toEqual([2, 2, 'Gate']);
  });
  test('what an edition did not have is a gap', () => {
    const bare = keep(plan([work('A', '2026-01-05', '2026-01-24')]));
    const [, gate] = trendsOf([bare, ...editions], ['G']);
    expect([gate!.days[0], gate!.moved]).toEqual([null, 2]);
  });
  test('who moved what, the largest move first', () => {
    expect(movesBetween(editions[0]!, editions[1]!)).toEqual([
      { ref: 'A', name: 'A', responsible: ['Yard'], startDays: 0, finishDays: 5 },
    ]);
    expect(movesBetween(editions[1]!, editions[1]!)).toEqual([]);
  });
});
