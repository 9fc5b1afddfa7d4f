import { describe, expect, test } from '@jest/globals';
import {
  assessSchedule,
  baselineExecutionIndex,
  checkPlan,
  criticalPathLengthIndex,
  endOfDay,
  makeActivity,
  type Plan,
  parseIsoDate,
  schedulePlan,
  wordsFor,
  makeField,
} from '../src/index';
import { day, planOf } from './helpers';

const monday = { start: day('2025-01-06'), calendar: 'five-day' };
const change = (plan: Plan, ref: string, part: object): Plan => ({
  ...plan,
  activities: plan.activities.map((a) => (a.ref === ref ? { ...a, ...part } : a)),
});
const codes = (plan: Plan) => checkPlan(plan, schedulePlan(plan)).map((f) => `${f.code} ${f.refs.join(',')}`);
const chain = planOf(
  [
    ['A', 5],
    ['B', 5],
    ['C', 3],
  ],
  [
    ['A', 'B'],
    ['B', 'C'],
  ],
  monday,
);

describe('checks (rules of common practice)', () => {
  test('open ends: what nothing leads to, and what nothing depends on', () => {
    expect(codes(chain)).toEqual(['noPredecessor A', 'noSuccessor C']);
  });
  test.each<[string, Plan, string]>([
    ['the same name in one group', change(chain, 'B', { name: ' a ' }), 'sameNameAndParent A,B'],
    ['the same link twice', { ...chain, links: [...chain.links, { ...chain.links[0]!, lag: 480 }] }, 'linkTwice A,B'],
    ['leads', { ...chain, links: chain.links.map((l, i) => (i === 0 ? { ...l, lag: -480 } : l)) }, 'lead A,B'],
    [
      'long lags',
      { ...chain, links: chain.links.map((l, i) => (i === 0 ? { ...l, lag: 11 * 480 } : l)) },
      'longLag A,B',
    ],
    [
      'hard constraints',
      change(chain, 'B', { constraint: { kind: 'finishNotLater', moment: day('2025-03-01') } }),
      'hardConstraint B',
    ],
    ['long durations', change(chain, 'B', { duration: 45 * 480 }), 'longDuration B'],
    [
      'negative float',
      change(chain, 'C', { constraint: { kind: 'finishNotLater', moment: day('2025-01-10') } }),
      'negativeFloat A,B,C',
    ],
    ['deadlines', change(chain, 'C', { deadline: endOfDay(parseIsoDate('2025-01-20')!) }), 'deadlineMissed C'],
    [
      'planned in the past',
      { ...change(chain, 'A', { start: day('2025-01-06') }), statusDate: day('2025-01-13') },
      'plannedInThePast A',
    ],
    [
      'actual in the future',
      { ...change(chain, 'A', { actualStart: day('2025-01-20') }), statusDate: day('2025-01-13') },
      'actualInTheFuture A',
    ],
    [
      'missing codes',
      { ...change(chain, 'A', { codes: { f: 'x' } }), codeFields: [makeField({ id: 'f', name: 'Phase' })] },
      'missingCode B,C',
    ],
    ['missing resources', change(chain, 'A', { responsible: ['Crew'] }), 'missingResource B,C'],
    [
      'out of sequence',
      { ...change(chain, 'B', { actualStart: day('2025-01-08') }), statusDate: day('2025-01-09') },
      'outOfSequence B,A',
    ],
    [
      'given against computed',
      change(chain, 'B', { start: day('2025-01-15'), finish: endOfDay(parseIsoDate('2025-01-21')!) }),
      'givenAgainstComputed B',
    ],
    ['a milestone with a duration', change(chain, 'B', { kind: 'finishMilestone' }), 'milestoneWithDuration B'],
  ])('%s', (_, plan, expected) => {
    expect(codes(plan)).toContain(expected);
    for (const f of checkPlan(plan, schedulePlan(plan))) expect(wordsFor(f)).toMatch(/^[^{}]{20,}\.$/);
  });
  test('a high float', () => {
    const plan = planOf(
      [
        ['A', 100],
        ['B', 3],
        ['E', 1],
      ],
      [
        ['A', 'E'],
        ['B', 'E'],
      ],
      monday,
    );
    expect(codes(plan)).toContain('highFloat B');
  });
});

// The public body's 14 points with its thresholds (from memory); counts of the small plan by hand
describe('the 14-point assessment', () => {
  test('indices: a path of 100 days that is 10 late, 19 of 20 done', () => {
    expect(criticalPathLengthIndex(100, -10)).toBe(0.9);
    expect(baselineExecutionIndex(19, 20)).toBe(0.95);
    expect([criticalPathLengthIndex(0, 0), baselineExecutionIndex(0, 0)]).toEqual([null, null]);
  });

  test('twenty activities in a chain: counts, bases and what passes', () => {
    const n = 20;
    const base = planOf(
      Array.from({ length: n }, (_, i) => [`N${i}`, 5]),
      Array.from({ length: n - 1 }, (_, i) => [
        `N${i}`,
        `N${i + 1}`,
        i < 3 ? 'SS' : 'FS',
        i === 5 ? 2 : i === 6 ? -1 : 0,
      ]),
      monday,
    );
    const plan = change(change(base, 'N10', { duration: 50 * 480, responsible: ['Crew'] }), 'N19', {
      constraint: { kind: 'finishNotLater', moment: day('2025-02-03') },
    });
    const points = Object.fromEntries(assessSchedule(plan, schedulePlan(plan), null).map((p) => [p.name, p]));
    expect(Object.keys(points).length).toBe(14);
    expect(points['missing logic']).toMatchObject({
      count: 2,
      base: 20,
      value: 0.1,
      passes: false,
      refs: ['N0', 'N19'],
    });
    expect(points.leads).toMatchObject({ count: 1, base: 19, passes: false });
    expect(points.lags).toMatchObject({ count: 1, base: 19, passes: false });
    expect(points['finish-to-start links']).toMatchObject({ count: 16, base: 19, passes: false });
    expect(points['hard constraints']).toMatchObject({ count: 1, value: 0.05, passes: true });
    expect(points['negative float']).toMatchObject({ passes: false });
    expect(points['long durations']).toMatchObject({ count: 1, base: 20, value: 0.05, passes: true });
    expect(points['missing resources']).toMatchObject({ count: 19, passes: false });
    expect(points['critical path test']).toMatchObject({ value: 1, passes: true });
    expect(points['critical path length index']!.passes).toBe(false);
  });

  test('missed activities and execution against a baseline', () => {
    const finish = (text: string) => endOfDay(parseIsoDate(text)!);
    const promised: Plan = {
      ...planOf([], [], monday),
      activities: ['A', 'B', 'C', 'D'].map((ref, i) =>
        makeActivity({ ref, duration: 480, start: day(`2025-01-0${6 + i}`), finish: finish(`2025-01-0${6 + i}`) }),
      ),
    };
    const now: Plan = {
      ...promised,
      statusDate: day('2025-01-08'),
      activities: promised.activities.map((a, i) =>
        i === 0
          ? { ...a, actualStart: a.start, actualFinish: a.finish }
          : i === 1
            ? { ...a, actualStart: a.start, actualFinish: finish('2025-01-08') }
            : a,
      ),
    };
    const points = Object.fromEntries(assessSchedule(now, schedulePlan(now), promised).map((p) => [p.name, p]));
    // Due by the evening of 8 January: A, B, C. A is done in time, B late, C not at all.
    expect(points['missed activities']).toMatchObject({ count: 2, base: 3, refs: ['B', 'C'], passes: false });
    expect(points['baseline execution index']!.value).toBeCloseTo(2 / 3);
  });
});
