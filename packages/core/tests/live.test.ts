import { describe, expect, test } from '@jest/globals';
import { type Activity, LINK_TYPES, LiveSchedule, makeActivity, type Plan, schedulePlan } from '../src/index';
import { planOf, randomLinks, seeded } from './helpers';

const ARRAYS = [
  'start',
  'finish',
  'earlyStart',
  'earlyFinish',
  'lateStart',
  'lateFinish',
  'totalFloat',
  'freeFloat',
  'critical',
  'atFinish',
] as const;

/** A random plan with calendars, an outline, progress, constraints and supporting work. */
function randomPlan(seed: number, n: number): Plan {
  const random = seeded(seed);
  const calendars = ['every', 'five-day', 'six-day'];
  const start = 20_000 * 1440;
  const plan = planOf(
    Array.from({ length: n }, (_, i) => [`N${i}`, Math.floor(random() * 9), calendars[Math.floor(random() * 3)]!]),
    randomLinks(random, n, LINK_TYPES, [-3, 5]),
    { start, statusDate: random() < 0.5 ? start + 12 * 1440 : null },
  );
  const groups = Array.from({ length: 4 }, (_, g) =>
    makeActivity({ ref: `G${g}`, kind: 'summary', parent: g > 1 ? `G${g - 2}` : null }),
  );
  const activities = plan.activities.map((a, i): Activity => {
    const x = { ...a, parent: random() < 0.7 ? `G${Math.floor(random() * 4)}` : null };
    if (plan.statusDate !== null && i < n / 4 && random() < 0.5)
      x.actualStart = start + Math.floor(random() * 8) * 1440;
    if (x.actualStart !== null && random() < 0.4)
      x.actualFinish = x.actualStart + (1 + Math.floor(random() * 4)) * 1440;
    if (random() < 0.1)
      x.constraint = {
        kind: (['startNotEarlier', 'finishNotLater', 'fixedStart'] as const)[Math.floor(random() * 3)]!,
        moment: start + Math.floor(random() * 40) * 1440,
      };
    return x;
  });
  const support = makeActivity({ ref: 'L', kind: 'levelOfEffort', parent: 'G1' });
  const link = (from: string, to: string, type: 'SS' | 'FF') => ({
    from,
    to,
    type,
    lag: 0,
    lagCalendar: 'successor' as const,
  });
  return {
    ...plan,
    activities: [...groups, ...activities, support],
    links: [...plan.links, link('N1', 'L', 'SS'), link('L', `N${n - 1}`, 'FF')],
  };
}

function randomEdit(random: () => number): Partial<Activity> {
  const pick = random();
  if (pick < 0.6) return { duration: Math.floor(random() * 12) * 480 };
  if (pick < 0.75) return { percent: Math.floor(random() * 101) };
  if (pick < 0.85)
    return {
      constraint:
        random() < 0.4 ? null : { kind: 'startNotEarlier', moment: (20_000 + Math.floor(random() * 60)) * 1440 },
    };
  if (pick < 0.95)
    return {
      constraint: {
        kind: random() < 0.5 ? 'finishNotLater' : 'fixedFinish',
        moment: (20_010 + Math.floor(random() * 60)) * 1440,
      },
    };
  return { duration: 100 + Math.floor(random() * 480) }; // not whole days: computed in minutes from here on
}

describe('after an edit only what is affected is computed, with the result of a full run', () => {
  test('400 random plans, 12 edits each', () => {
    for (let seed = 0; seed < 400; seed++) {
      const random = seeded(7000 + seed);
      const plan = randomPlan(seed, 12 + (seed % 40));
      const live = new LiveSchedule(plan);
      for (let edit = 0; edit < 12; edit++) {
        const position = Math.floor(random() * plan.activities.length);
        const part = randomEdit(random);
        live.change(position, part);
        const full = schedulePlan(live.plan);
        for (const key of ARRAYS)
          expect([seed, edit, key, [...live.schedule[key]]]).toEqual([seed, edit, key, [...full[key]]]);
        expect([...live.schedule.floats.slack]).toEqual([...full.floats.slack]);
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
    expect(live.change(0, { name: 'Other' })).toBe(1);
  });

  test('leaves the plan that it was given alone', () => {
    const plan = planOf([['A', 5]], []);
    new LiveSchedule(plan).change(0, { duration: 480 });
    expect(plan.activities[0]!.duration).toBe(5 * 480);
  });
});
