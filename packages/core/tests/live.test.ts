import { describe, expect, test } from '@jest/globals';
import {
  type Activity,
  CONSTRAINT_KINDS,
  LAG_CALENDARS,
  LINK_TYPES,
  LiveSchedule,
  makeActivity,
  makeLink,
  type Plan,
  schedulePlan,
} from '../src/index';
import { ARRAYS, planOf, randomLinks, seeded } from './helpers';

const CONSTRAINTS = CONSTRAINT_KINDS.filter((kind) => kind !== 'asLateAsPossible');

/**
 * A random plan with everything that a plan can hold: calendars with holidays, an outline, milestones with and
 * without duration, interrupted work, constraints, progress with and without dates, links to summaries, lags in any
 * calendar, supporting work on activities and on summaries, dates that are given, with and without a start.
 */
function randomPlan(seed: number, n: number): Plan {
  const random = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const start = 20_000 * 1440;
  const someDay = (days: number) => start + Math.floor(random() * days) * 1440;
  const inHours = random() < 0.2;
  const plan = planOf(
    Array.from({ length: n }, (_, i) => [`N${i}`, Math.floor(random() * 9), pick(['every', 'five-day', 'six-day'])]),
    randomLinks(random, n, LINK_TYPES, [-3, 5]),
    {
      start: random() < 0.8 ? start : null,
      statusDate: random() < 0.5 ? start + 12 * 1440 : null,
      source: random() < 0.3 ? 'given' : 'computed',
      retainedLogic: random() < 0.7,
      inHours,
    },
  );
  const groups = Array.from({ length: 4 }, (_, g) =>
    makeActivity({ ref: `G${g}`, kind: 'summary', parent: g > 1 ? `G${g - 2}` : null }),
  );
  const activities = plan.activities.map((a, i): Activity => {
    const x = { ...a, parent: random() < 0.7 ? `G${Math.floor(random() * 4)}` : null };
    if (random() < 0.2) x.kind = pick(['startMilestone', 'finishMilestone'] as const);
    if (random() < 0.6 && x.kind !== 'activity') x.duration = 0;
    if (inHours && x.duration && random() < 0.3) x.duration += 90;
    if (random() < 0.2) x.start = someDay(40);
    if (random() < 0.2) x.finish = (x.start ?? start) + (1 + Math.floor(random() * 20)) * 1440;
    if (x.duration && random() < 0.15) {
      const from = someDay(30);
      x.stretches = [
        { start: from, finish: from + 3 * 1440 },
        { start: from + 8 * 1440, finish: from + 11 * 1440 },
      ];
    }
    if (plan.statusDate !== null && i < n / 3 && random() < 0.5) {
      x.actualStart = someDay(8);
      if (random() < 0.4) x.actualFinish = x.actualStart + (1 + Math.floor(random() * 4)) * 1440;
      else if (random() < 0.5) x.remaining = Math.floor(random() * 5) * 480;
    }
    if (random() < 0.15) x.percent = pick([30, 60, 100]);
    if (random() < 0.12) x.constraint = { kind: pick(CONSTRAINTS), moment: someDay(40) };
    return x;
  });
  const link = (from: string, to: string, type: 'FS' | 'SS' | 'FF') => makeLink({ from, to, type });
  const support = ['L', 'K'].map((ref) => makeActivity({ ref, kind: 'levelOfEffort', parent: pick(['G1', 'G3']) }));
  return {
    ...plan,
    calendars: plan.calendars.map((c) => ({ ...c, exceptions: [{ day: 20_014, pattern: [], name: 'Closed' }] })),
    activities: [...groups, ...activities, ...support],
    links: [
      ...plan.links.map((l) => ({ ...l, lagCalendar: random() < 0.2 ? pick(LAG_CALENDARS) : l.lagCalendar })),
      ...(random() < 0.3 ? [link('G2', `N${n - 1}`, 'FS'), link('N0', 'G3', 'SS')] : []),
      link('N1', 'L', 'SS'),
      link('L', `N${n - 1}`, 'FF'),
      link('G0', 'K', pick(['SS', 'FS'] as const)),
      link('G1', 'K', 'FF'),
    ],
  };
}

function randomEdit(random: () => number): Partial<Activity> {
  const moment = (20_000 + Math.floor(random() * 60)) * 1440;
  switch (Math.floor(random() * 12)) {
    case 0:
      return { percent: Math.floor(random() * 101) };
    case 1:
      return { percent: random() < 0.5 ? 100 : null };
    case 2:
      return { constraint: random() < 0.5 ? null : { kind: 'startNotEarlier', moment } };
    case 3:
      return { constraint: { kind: CONSTRAINTS[Math.floor(random() * CONSTRAINTS.length)]!, moment } };
    case 4:
      return { remaining: random() < 0.5 ? null : Math.floor(random() * 6) * 480 };
    case 5:
      return { duration: 100 + Math.floor(random() * 480) }; // not whole days: computed in minutes from here on
    case 6:
      return { duration: random() < 0.5 ? 0 : 480 };
    case 7:
      return random() < 0.3 ? { kind: 'finishMilestone' } : { name: `Edited ${moment}` };
    default:
      return { duration: Math.floor(random() * 12) * 480 };
  }
}

const sameNumbers = (a: ArrayLike<number>, b: ArrayLike<number>): boolean =>
  a.length === b.length && Array.from(a).every((x, i) => x === b[i]);

describe('after an edit only what is affected is computed, with the result of a full run', () => {
  test('250 random plans, 12 edits each', () => {
    for (let seed = 0; seed < 250; seed++) {
      const random = seeded(7000 + seed);
      const plan = randomPlan(seed, 12 + (seed % 40));
      const live = new LiveSchedule(plan);
      for (let edit = 0; edit < 12; edit++) {
        const position = Math.floor(random() * plan.activities.length);
        const part = randomEdit(random);
        live.change(position, part);
        const full = schedulePlan(live.plan);
        const unequal = ARRAYS.filter((key) => !sameNumbers(live.schedule[key], full[key]));
        expect([seed, edit, unequal]).toEqual([seed, edit, []]);
        expect(sameNumbers(live.schedule.floats.slack, full.floats.slack)).toBe(true);
        expect(live.schedule.planFinish).toBe(full.planFinish);
        expect(live.findings).toEqual(full.findings);
      }
    }
  });

  test('touches only what hangs on the edit', () => {
    const chain = Array.from({ length: 200 }, (_, i): [string, number] => [`N${i}`, 5]);
    const links = Array.from({ length: 199 }, (_, i): [string, string] => [`N${i}`, `N${i + 1}`]);
    const live = new LiveSchedule(planOf([...chain, ['X', 3], ['Y', 2]], [...links, ['X', 'Y']]));
    expect(live.change(200, { duration: 4 * 480 })).toBeLessThanOrEqual(3);
    expect(live.change(0, { name: 'Other' })).toBe(0);
  });

  test('leaves the plan that it was given alone', () => {
    const plan = planOf([['A', 5]], []);
    new LiveSchedule(plan).change(0, { duration: 480 });
    expect(plan.activities[0]!.duration).toBe(5 * 480);
  });
});
