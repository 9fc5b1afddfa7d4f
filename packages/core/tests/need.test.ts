import { describe, expect, test } from '@jest/globals';
import {
  type Assignment,
  FIVE_DAY,
  makeActivity,
  makePlan,
  parseIsoDate,
  type Plan,
  resourceNeed,
  schedulePlan,
  weekdayOf,
} from '../src/index';
import { day, seeded } from './helpers';

const iso = (text: string) => parseIsoDate(text)!;
const plan = (assignments: Assignment[], more: Partial<Plan> = {}): Plan =>
  makePlan({
    name: 'Lift',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    resources: [
      { id: 'crane', name: 'Crane', unit: 'hour', rate: null, limit: 1, calendar: null },
      { id: 'crew', name: 'Crew', unit: 'hour', rate: null, limit: null, calendar: null },
    ],
    activities: [
      // Monday 5 to Friday 16 January 2026: ten working days
      makeActivity({ ref: 'A', start: day('2026-01-05'), finish: day('2026-01-17'), duration: 4800, assignments }),
    ],
    ...more,
  });
const weeks = [iso('2026-01-05'), iso('2026-01-12'), iso('2026-01-19'), iso('2026-01-26')];
const of = (p: Plan, bounds = weeks) => resourceNeed(p, schedulePlan(p), bounds);

describe('need of resources over time', () => {
  test('uniform: half in each of two weeks, against five days of eight hours', () => {
    const [crane] = of(plan([{ resource: 'crane', effort: 6000 }]));
    expect(crane).toMatchObject({ need: [3000, 3000, 0], most: [2400, 2400, 2400], total: 6000, undated: 0 });
  });

  test('front, back and bell: shares of a quadratic and of a cubic at half time', () => {
    const half = (shape: Assignment['shape']) => of(plan([{ resource: 'crew', effort: 1000, shape }]))[1]!.need;
    expect(half('front')).toEqual([750, 250, 0]);
    expect(half('back')).toEqual([250, 750, 0]);
    expect(half('bell')).toEqual([500, 500, 0]);
  });

  test('interrupted work needs nothing in its pause', () => {
    const p = plan([]);
    p.activities[0] = {
      ...p.activities[0]!,
      assignments: [{ resource: 'crew', effort: 900 }],
      stretches: [
        { start: day('2026-01-05'), finish: day('2026-01-08') },
        { start: day('2026-01-19'), finish: day('2026-01-22') },
      ],
      start: day('2026-01-05'),
      finish: day('2026-01-22'),
      duration: 6 * 480,
    };
    expect(of(p)[1]!.need).toEqual([450, 0, 450]);
  });

  test('what has no dates is counted, but lies in no step', () => {
    const p = plan([]);
    p.activities = [makeActivity({ ref: 'B', assignments: [{ resource: 'crew', effort: 90 }] })];
    expect(of(p)[1]).toMatchObject({ need: [0, 0, 0], total: 90, undated: 90 });
  });

  test('day by day the sums are exact, nothing lies on a weekend, for 200 random plans', () => {
    const random = seeded(5);
    const bounds = Array.from({ length: 121 }, (_, k) => iso('2026-01-01') + k);
    for (let round = 0; round < 200; round++) {
      const p = plan([]);
      let whole = 0;
      p.activities = Array.from({ length: 6 }, (_, k) => {
        const first = iso('2026-01-05') + Math.floor(random() * 60);
        const effort = Math.floor(random() * 20_000);
        const shape = (['uniform', 'front', 'back', 'bell'] as const)[Math.floor(random() * 4)]!;
        whole += effort;
        return makeActivity({
          ref: `X${k}`,
          start: first * 1440,
          finish: (first + 7 + Math.floor(random() * 20)) * 1440,
          assignments: [{ resource: 'crew', effort, shape }],
        });
      });
      const { need, total } = of(p, bounds)[1]!;
      expect([round, need.reduce((a, b) => a + b, 0), total]).toEqual([round, whole, whole]);
      const weekend = need.filter((_, k) => weekdayOf(bounds[k]!) > 4);
      expect(weekend.every((n) => n === 0)).toBe(true);
    }
  });
});
