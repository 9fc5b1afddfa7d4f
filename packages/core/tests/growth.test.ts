import { describe, expect, test } from '@jest/globals';
import {
  type Activity,
  checkPlan,
  DEFAULT_LIMITS,
  type Link,
  linearWorks,
  makeActivity,
  makeLink,
  makePlan,
  type Plan,
  STANDARD_CALENDARS,
  schedulePlan,
  startOfDay,
} from '../src/index';

const MANY = 40_000;
/** What once took twenty seconds and more takes a fraction of one; the bound leaves room for a busy machine. */
const SECONDS = 5;

const activity = (i: number, more: Partial<Activity> = {}): Activity =>
  makeActivity({ ref: `A${i}`, name: `Activity ${i}`, duration: 480, ...more });
const planOf = (activities: Activity[], links: Link[] = []): Plan =>
  makePlan({
    name: 'Growth',
    source: 'computed',
    start: startOfDay(20_000),
    calendars: [...STANDARD_CALENDARS],
    calendar: STANDARD_CALENDARS[0]!.id,
    activities,
    links,
  });
const many = (more: (i: number) => Partial<Activity>, count = MANY): Activity[] =>
  Array.from({ length: count }, (_, i) => activity(i, more(i)));
const summary = (ref: string): Activity => makeActivity({ ref, name: ref, kind: 'summary' });

describe('a plan of 40,000 activities is computed and checked at once, whatever is wrong with it', () => {
  test.each<[string, () => Plan]>([
    ['all belong to a summary that is not there', () => planOf(many(() => ({ parent: 'gone' })))],
    ['each to another one that is not there', () => planOf(many((i) => ({ parent: `gone ${i}` })))],
    ['all have the same name', () => planOf(many(() => ({ name: 'Same' })))],
    ['each lies within the one before', () => planOf(many((i) => ({ parent: i > 0 ? `A${i - 1}` : null })))],
    [
      'all run in a circle',
      () =>
        planOf(
          many(() => ({})),
          many(() => ({})).map((a, i) => makeLink({ from: a.ref, to: `A${(i + 1) % MANY}` })),
        ),
    ],
    [
      'two summaries that hold all are linked',
      () =>
        planOf(
          [summary('S'), summary('T'), ...many((i) => ({ parent: i % 2 ? 'S' : 'T' }))],
          [makeLink({ from: 'S', to: 'T' })],
        ),
    ],
  ])('%s', (_, make) => {
    const plan = make();
    const began = Date.now();
    const schedule = schedulePlan(plan);
    checkPlan(plan, schedule, DEFAULT_LIMITS);
    expect((Date.now() - began) / 1000).toBeLessThan(SECONDS);
  });

  test('a link that would become more links than can be computed is left out, and said', () => {
    const plan = planOf(
      [summary('S'), summary('T'), ...many((i) => ({ parent: i % 2 ? 'S' : 'T' }), 4000)],
      [makeLink({ from: 'S', to: 'T' })],
    );
    expect(schedulePlan(plan).findings).toContainEqual(
      expect.objectContaining({ code: 'linkTooWide', refs: ['S', 'T'], facts: { links: 4_000_000 } }),
    );
  });
});

test('linear work at a rate that never ends is a finding, not an endless flowline', () => {
  const plan = planOf([
    activity(0, { from: 0, to: 1_000_000, rate: 0.001 }),
    activity(1, { from: 0, to: 1000, rate: 1 }),
  ]);
  const began = Date.now();
  const { works, findings } = linearWorks(plan, schedulePlan(plan));
  expect(works.map((w) => w.work.ref)).toEqual(['A1']);
  expect(findings).toEqual([{ code: 'linearTooSlow', severity: 'warning', refs: ['A0'], facts: { days: 20_000 } }]);
  expect((Date.now() - began) / 1000).toBeLessThan(SECONDS);
});
