import { describe, expect, test } from '@jest/globals';
import { endOfDay, FIVE_DAY, makeActivity, makePlan, type Plan, schedulePlan, startOfDay } from '@clembo/core';
import { isHopeless } from '../src/exhibits/timeline/hopeless';
import { selectItems } from '../src/exhibits/timeline/select';
import { briefOf, compose } from './fixtures';

/** So many activities of so many days, each beginning so many days behind the one before. */
const plan = (count: number, days: number, step: number): Plan =>
  makePlan({
    name: 'Many',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities: Array.from({ length: count }, (_, k) =>
      makeActivity({
        ref: `A${k}`,
        name: `Step ${k}`,
        start: startOfDay(20_000 + k * step),
        finish: endOfDay(20_000 + k * step + days - 1),
      }),
    ),
  });
const hopeless = (p: Plan, part: object = {}) => {
  const brief = briefOf(part);
  return isHopeless(selectItems(p, schedulePlan(p), brief, null), brief);
};

describe('pages that nothing can save', () => {
  test('more at once than rows of the lowest bars: known before anything is measured', () => {
    // 2,500 at once; an A1 page of 1,684 points holds 418 rows of 6.5 points times 0.62.
    expect(hopeless(plan(2500, 30, 0), { page: 'A1 landscape' })).toBe(true);
    const scene = compose(plan(2500, 30, 0));
    expect([scene.fit.readable, scene.fit.advice.length > 0, scene.content.rows.length]).toEqual([false, true, 2500]);
  });
  test('one a row: as many rows as activities', () => {
    expect(hopeless(plan(2500, 1, 1), { rows: 'each' })).toBe(true);
  });
  test('many, but few at once, are tried', () => {
    expect(hopeless(plan(2500, 5, 1))).toBe(false);
    expect(hopeless(plan(1999, 30, 0))).toBe(false);
  });
  test('what ends where the next begins is not at once', () => {
    expect(hopeless(plan(2500, 1, 1))).toBe(false);
  });
});
