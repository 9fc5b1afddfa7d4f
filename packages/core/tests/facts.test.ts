import { describe, expect, test } from '@jest/globals';
import {
  type Activity,
  allRows,
  applyCommand,
  type CalendarSpec,
  daysReader,
  doneReader,
  daysTogether,
  endOfDay,
  endsOf,
  extentOf,
  FIVE_DAY,
  floatOf,
  isLoose,
  isoDate,
  latenessOf,
  linkedToEnd,
  makeActivity,
  makeLink,
  makePlan,
  parseIsoDate,
  percentComplete,
  type Plan,
  planEnds,
  promiseOffer,
  schedulePlan,
  SEVEN_DAY,
  SIX_DAY,
  startOfDay,
  weekdayOf,
  wholePercent,
  workingDaysApart,
  WorkingTime,
} from '../src/index';
import { firstBoundary, firstDayOf, lastBoundary, lastDayOf } from '../src/time/days';
import { day, seeded, end } from './helpers';

// Facts are worked out by hand, or counted day by day; Monday 2 March 2026 is the first day of most plans here.
const number = (text: string) => parseIsoDate(text)!;
const work = (ref: string, start: string | null, finish: string | null, more: Partial<Activity> = {}) =>
  makeActivity({
    ref,
    name: ref,
    start: start === null ? null : day(start),
    finish: finish === null ? null : end(finish),
    ...more,
  });
const point = (ref: string, on: string, more: Partial<Activity> = {}) =>
  work(ref, on, on, { kind: 'finishMilestone', duration: 0, ...more });
const planOf = (activities: Activity[], more: Partial<Plan> = {}): Plan =>
  makePlan({
    name: 'Facts',
    source: 'given',
    calendars: [FIVE_DAY, SIX_DAY],
    calendar: FIVE_DAY.id,
    activities,
    ...more,
  });
const promisedBy = (activities: Activity[], more: Partial<Plan> = {}) => {
  const plan = planOf(activities, more);
  return { plan, schedule: schedulePlan(plan) };
};
const ends = (plan: Plan, promised: ReturnType<typeof promisedBy> | null = null) =>
  planEnds(plan, schedulePlan(plan), promised);

describe('days between days', () => {
  const closed = (spec: CalendarSpec, ...days: string[]): CalendarSpec => ({
    ...spec,
    exceptions: days.map((d) => ({ day: number(d), pattern: [], name: 'closed' })),
  });
  const apart = (spec: CalendarSpec, from: string, to: string) =>
    workingDaysApart(new WorkingTime(spec, 'day', number(from)), number(from), number(to));

  test.each([
    // Friday, the weekend, Monday.
    [FIVE_DAY, '2026-03-06', '2026-03-09', 1],
    [FIVE_DAY, '2026-03-06', '2026-03-08', 0],
    [FIVE_DAY, '2026-03-08', '2026-03-09', 1],
    [FIVE_DAY, '2026-03-09', '2026-03-06', -1],
    [FIVE_DAY, '2026-03-04', '2026-03-04', 0],
    [SIX_DAY, '2026-03-06', '2026-03-09', 2],
    [SEVEN_DAY, '2026-03-06', '2026-03-09', 3],
    // Good Friday and Easter Monday are off.
    [closed(FIVE_DAY, '2026-04-03', '2026-04-06'), '2026-04-02', '2026-04-07', 1],
    [closed(FIVE_DAY, '2026-04-03', '2026-04-06'), '2026-04-07', '2026-04-02', -1],
  ])('case %#', (spec, from, to, days) => expect(apart(spec, from, to)).toBe(days));

  test('counted day by day, forwards and backwards, on random calendars', () => {
    const random = seeded(29);
    const below = (n: number) => Math.floor(random() * n);
    for (let turn = 0; turn < 300; turn++) {
      const off = new Set(Array.from({ length: below(30) }, () => number('2026-03-02') + below(120)));
      const spec = {
        ...[FIVE_DAY, SIX_DAY, SEVEN_DAY][below(3)]!,
        exceptions: [...off].map((d) => ({ day: d, pattern: [], name: '' })),
      };
      const isWorked = (d: number) => spec.week[weekdayOf(d)]!.length > 0 && !off.has(d);
      const [from, to] = [number('2026-03-02') + below(120), number('2026-03-02') + below(120)];
      let count = 0;
      for (let d = Math.min(from, to) + 1; d <= Math.max(from, to); d++) if (isWorked(d)) count++;
      expect(workingDaysApart(new WorkingTime(spec, 'day', from), from, to) + 0).toBe(from <= to ? count : -count + 0);
    }
  });

  test('on which side of its day a point stands takes no part', () => {
    const on = number('2026-03-13');
    const morning = { start: startOfDay(on), finish: startOfDay(on), atFinish: false };
    const evening = { start: endOfDay(on), finish: endOfDay(on), atFinish: true };
    const whole = { start: startOfDay(on), finish: endOfDay(on), atFinish: true };
    for (const span of [morning, evening, whole]) {
      expect([firstDayOf(span), lastDayOf(span)]).toEqual([on, on]);
      expect([firstBoundary(span), lastBoundary(span)]).toEqual([startOfDay(on), endOfDay(on)]);
    }
    // Within a day, as plans by the hour have them, a point is where it is.
    const noon = { start: startOfDay(on) + 720, finish: startOfDay(on) + 720, atFinish: false };
    expect([firstDayOf(noon), lastDayOf(noon), firstBoundary(noon), lastBoundary(noon)]).toEqual([
      on,
      on,
      noon.start,
      noon.start,
    ]);
  });
});

describe('the end', () => {
  test('a group of a milestone and of work that ends on the same day ends on that day, and is on time', () => {
    const rows = [work('Paint', '2026-03-16', '2026-03-20'), point('Handed over', '2026-03-20')];
    const now = ends(planOf(rows), promisedBy(rows));
    expect([isoDate(now.first!), isoDate(now.last!), now.late, now.startLate]).toEqual([
      '2026-03-16',
      '2026-03-20',
      0,
      0,
    ]);
    // A milestone in the morning of the day after the promised one is one day late.
    const late = planOf([rows[0]!, { ...rows[1]!, kind: 'startMilestone', start: day('2026-03-23'), finish: null }]);
    expect(ends(late, promisedBy(rows)).late).toBe(1);
  });

  test('is told of only where every open row has one', () => {
    const rows = [work('A', '2026-03-02', '2026-03-06'), work('B', null, null)];
    expect(ends(planOf(rows), promisedBy([rows[0]!]))).toMatchObject({ of: 2, openWithout: 1, late: null });
    // What is complete needs none, and supporting work ends with what it supports.
    const done = planOf([rows[0]!, work('B', null, null, { percent: 100 })]);
    expect(ends(done, promisedBy([rows[0]!]))).toMatchObject({ of: 2, openWithout: 0, late: 0 });
    const support = planOf([rows[0]!, work('B', null, null, { kind: 'levelOfEffort' })]);
    expect(ends(support, promisedBy([rows[0]!]))).toMatchObject({ openWithout: 0, late: 0 });
  });

  test('is compared with the promise of the same rows', () => {
    const rows = [work('A', '2026-03-02', '2026-03-13'), work('New', '2026-03-16', '2026-03-27')];
    const then = promisedBy([work('A', '2026-03-02', '2026-03-11'), work('Gone', '2026-03-12', '2026-05-29')]);
    const plan = planOf(rows);
    const s = schedulePlan(plan);
    expect(endsOf(plan, s, then, [0]).late).toBe(2);
    // Together with what is new: Friday 27 March is twelve working days after Wednesday the 11th.
    expect(endsOf(plan, s, then, [0, 1])).toMatchObject({ promised: number('2026-03-11'), late: 12 });
    expect(endsOf(plan, s, then, [1])).toMatchObject({ promised: null, late: null });
  });

  test('is expected only where nothing that ends on its day is stated', () => {
    const under = work('A', null, null, {
      actualStart: day('2026-03-02'),
      promised: { start: day('2026-03-02'), finish: end('2026-03-13') },
    });
    expect(ends(planOf([under])).expected).toBe('expected');
    expect(ends(planOf([under, work('B', '2026-03-09', '2026-03-13')])).expected).toBeNull();
    expect(ends(planOf([under, work('B', '2026-03-09', '2026-03-12')])).expected).toBe('expected');
  });

  test('of nothing nothing is known', () =>
    expect(ends(planOf([]))).toMatchObject({ of: 0, complete: false, first: null, last: null, late: null }));

  test('by the hour in tenths of days', () => {
    const at = (minutes: number) => day('2026-03-02') + minutes;
    const shift = (from: number, to: number) =>
      makeActivity({ ref: 'A', name: 'A', start: at(from), finish: at(to), duration: to - from });
    const plan = planOf([shift(480, 720)], { inHours: true });
    const then = promisedBy([shift(480, 600)], { inHours: true });
    // Two hours of a day of eight.
    expect(ends(plan, then).late).toBe(0.3);
  });
});

describe('behind, late, ahead', () => {
  const rows = ['2026-03-12', '2026-03-13', '2026-03-16', '2026-03-20', '2026-03-23', '2026-04-30'];
  const plan = planOf([...rows.map((d, k) => work(`W${k}`, '2026-03-02', d)), work('New', '2026-03-02', '2026-03-03')]);
  const then = promisedBy(rows.map((_, k) => work(`W${k}`, '2026-03-02', '2026-03-13')));
  const s = schedulePlan(plan);
  const found = latenessOf(plan, s, then, allRows(plan, s));

  test('any working day after the promise is behind; late is beyond the tolerance of five', () => {
    expect(found.ahead).toEqual([0]);
    expect(found.onTime).toEqual([1]);
    // 1, 5, 6 and 34 working days.
    expect(found.behind).toEqual([2, 3, 4, 5]);
    expect(found.late).toEqual([4, 5]);
    expect(found.without).toEqual([6]);
    expect(found.worst).toEqual({ position: 5, days: 34 });
  });

  test('every row is in one of the lists, for random choices of rows', () => {
    const random = seeded(4);
    for (let turn = 0; turn < 50; turn++) {
      const chosen = allRows(plan, s).filter(() => random() < 0.5);
      const part = latenessOf(plan, s, then, chosen);
      const lists = [...part.ahead, ...part.onTime, ...part.behind, ...part.without];
      expect(lists.sort((a, b) => a - b)).toEqual(chosen);
      expect(part.late.every((i) => part.behind.includes(i))).toBe(true);
    }
  });

  test('a part of the plan has a tolerance of its own', () => {
    const strict = { ...plan.tolerance, days: { watch: 0, breach: 2 } };
    const own: Plan = {
      ...plan,
      activities: plan.activities.map((a) => (a.ref === 'W2' ? { ...a, codes: { gate: 'Licence' } } : a)),
      tolerances: [{ field: 'gate', code: 'Licence', tolerance: strict }],
    };
    expect(latenessOf(own, schedulePlan(own), then, allRows(own, s)).late).toEqual([2, 4, 5]);
  });
});

describe('how far the links reach', () => {
  /** A chain of so many, and so many that nothing follows. */
  const chain = (linked: number, loose: number): Plan =>
    planOf(
      [
        ...Array.from({ length: linked }, (_, k) => {
          const on = isoDate(number('2026-03-02') + 7 * k);
          return work(`L${k}`, on, isoDate(number(on) + 4));
        }),
        ...Array.from({ length: loose }, (_, k) => work(`X${k}`, '2026-03-02', '2026-03-04')),
      ],
      { links: Array.from({ length: linked - 1 }, (_, k) => makeLink({ from: `L${k}`, to: `L${k + 1}` })) },
    );
  const reach = (plan: Plan) => linkedToEnd(plan, schedulePlan(plan));

  test.each([
    [9, 1, true],
    [8, 1, false],
    [18, 2, true],
    [10, 0, true],
  ])('%i lead to the end, %i do not: a critical path without a word is %s', (lead, loose, isWhole) =>
    expect(reach(chain(lead, loose))).toMatchObject({ lead, of: lead + loose, isWhole }),
  );

  test('what is complete takes no part', () => {
    const plan = chain(9, 2);
    plan.activities[10] = { ...plan.activities[10]!, percent: 100, actualFinish: end('2026-03-04') };
    expect(reach(plan)).toMatchObject({ lead: 9, of: 10, isWhole: true });
  });

  test('a plan of nothing but rows has its last one, which is not critical', () => {
    const plan = planOf([work('A', '2026-03-02', '2026-03-06'), work('B', '2026-03-02', '2026-03-20')]);
    const s = schedulePlan(plan);
    expect(reach(plan)).toMatchObject({ lead: 0, of: 2, isWhole: false, loose: [0, 1] });
    // Ten working days from Friday 6 March to Friday 20 March.
    expect(floatOf(s, 0)).toMatchObject({ total: 10 * 480, to: 'end', critical: false, last: false });
    expect(floatOf(s, 1)).toMatchObject({ total: 0, to: 'end', critical: false, last: true });
  });

  test('a float is counted to what follows, where something does', () => {
    const plan = chain(2, 1);
    const s = schedulePlan(plan);
    expect(floatOf(s, 0)).toMatchObject({ total: 0, to: 'next', critical: true, last: false });
    expect(floatOf(s, 1)).toMatchObject({ total: 0, to: 'end', critical: true, last: false });
    expect(floatOf(s, 2)).toMatchObject({ to: 'end', critical: false });
    expect([0, 1, 2].map((i) => isLoose(s, i))).toEqual([false, false, true]);
  });

  test('what is done has none', () => {
    const plan = planOf([work('A', '2026-03-02', '2026-03-06', { percent: 100, actualFinish: end('2026-03-06') })]);
    expect(floatOf(schedulePlan(plan), 0)).toBeNull();
  });
});

describe('how long things take', () => {
  const days = (plan: Plan, k = 0) => daysReader(plan, schedulePlan(plan))(k);

  test.each<[string, Activity, number | null]>([
    ['its length', work('A', '2026-03-02', null, { duration: 3 * 480 }), 3],
    ['working days between its dates', work('A', '2026-03-02', '2026-03-13'), 10],
    ['a weekend and the days before and after', work('A', '2026-03-06', '2026-03-09'), 2],
    ['of its own calendar', work('A', '2026-03-02', '2026-03-14', { calendar: SIX_DAY.id }), 12],
    ['a milestone takes none', point('A', '2026-03-13'), 0],
    [
      'supporting work what it spans',
      work('A', '2026-03-02', '2026-03-13', { kind: 'levelOfEffort', duration: 480 }),
      10,
    ],
    ['by its rate', work('A', null, null, { quantity: 95, output: 10 }), 10],
    ['unknown where nothing says it', work('A', null, null), null],
  ])('%s', (_, activity, expected) => expect(days(planOf([activity]))).toBe(expected));

  test('a group has the days from its first to its last, in the calendar of the plan', () => {
    const plan = planOf([
      makeActivity({ ref: 'G', name: 'Group', kind: 'summary' }),
      work('A', '2026-03-02', '2026-03-06', { parent: 'G' }),
      work('B', '2026-03-09', '2026-03-14', { parent: 'G', calendar: SIX_DAY.id }),
    ]);
    // Saturday 14 March is worked by B, and is no day of the plan's own week.
    expect([days(plan, 0), days(plan, 2)]).toEqual([10, 6]);
    const s = schedulePlan(plan);
    expect(daysTogether(plan, s, extentOf(s, [1, 2])!)).toBe(10);
  });
});

describe('how much is done', () => {
  const percents = (plan: Plan) => percentComplete(plan, schedulePlan(plan), 'time');
  const done = work('A', '2026-03-02', '2026-03-06', { percent: 100, actualFinish: end('2026-03-06') });
  const group = (activities: Activity[]) =>
    planOf([
      makeActivity({ ref: 'G', name: 'Group', kind: 'summary' }),
      ...activities.map((a) => ({ ...a, parent: 'G' })),
    ]);

  test('what has no dates weighs what was promised of it, what it says itself, or its rate', () => {
    const promised = { start: day('2026-03-09'), finish: end('2026-03-13') };
    // Five of ten, of twenty and of fifteen days.
    expect(percents(group([done, work('B', null, null, { promised })])).percent[0]).toBe(50);
    expect(percents(group([done, work('B', null, null, { duration: 15 * 480 })])).percent[0]).toBe(25);
    const byRate = { quantity: 100, output: 10 };
    expect(percents(group([done, work('B', null, null, byRate)])).whole).toBeCloseTo(100 / 3, 9);
    // As where dates are worked out, a rate goes before the promise.
    expect(percents(group([done, work('B', null, null, { ...byRate, promised })])).whole).toBeCloseTo(100 / 3, 9);
  });

  test('nothing is all done while something is to come of which nothing is known', () => {
    const plan = group([done, work('B', null, null)]);
    expect(percents(plan).percent[0]).toBeNaN();
    const half = group([work('C', '2026-03-02', '2026-03-13', { percent: 50 }), work('B', null, null)]);
    expect(percents(half).percent[0]).toBe(50);
    const read = doneReader(plan, schedulePlan(plan), 'time');
    expect([0, 1, 2].map((i) => read(i).unknown).slice(1)).toEqual([0, 1]);
    // What is complete is, whatever its length was, and a milestone has none.
    expect(percents(group([done, work('B', null, null, { percent: 100 })])).percent[0]).toBe(100);
    expect(percents(group([done, makeActivity({ ref: 'M', kind: 'finishMilestone', duration: 0 })])).percent[0]).toBe(
      100,
    );
  });
});

describe('the promise, offered to what has no dates', () => {
  const then = promisedBy([
    work('A', '2026-03-02', '2026-03-06'),
    work('B', '2026-03-09', '2026-03-13'),
    point('M', '2026-03-16'),
  ]);
  const open = planOf([
    work('A', null, null, { actualStart: day('2026-03-04') }),
    work('B', null, null),
    makeActivity({ ref: 'M', name: 'M', kind: 'finishMilestone', duration: 0 }),
    work('New', null, null),
  ]);
  const offer = promiseOffer(open, schedulePlan(open), then)!;

  test('says of how many, and takes them as they stand', () => {
    expect([offer.rows, offer.underWay]).toEqual([2, 1]);
    const { plan, inverse } = applyCommand(open, offer.command);
    const s = schedulePlan(plan);
    const shown = (k: number) => {
      const at = extentOf(s, [k]);
      return at && [isoDate(at.first), isoDate(at.last)];
    };
    // A began two days late and takes its five days; the others stand as promised; what is new stays unknown.
    expect([0, 1, 2, 3].map(shown)).toEqual([
      ['2026-03-04', '2026-03-10'],
      ['2026-03-09', '2026-03-13'],
      ['2026-03-16', '2026-03-16'],
      null,
    ]);
    expect(applyCommand(plan, inverse).plan).toEqual(open);
    expect(promiseOffer(plan, s, then)).toBeNull();
  });

  test('nothing is offered where dates are computed, where all have some, or where nothing was promised', () => {
    const computed = { ...open, source: 'computed' as const, start: day('2026-03-02') };
    expect(promiseOffer(computed, schedulePlan(computed), then)).toBeNull();
    expect(promiseOffer(then.plan, then.schedule, then)).toBeNull();
    expect(promiseOffer(open, schedulePlan(open), null)).toBeNull();
  });
});

test.each([
  [0, 0],
  [0.2, 1],
  [0.5, 1],
  [1.4, 1],
  [87.4, 87],
  [87.5, 88],
  [99.4, 99],
  [99.99, 99],
  [100, 100],
])('%f percent is told as %i', (percent, told) => expect(wholePercent(percent)).toBe(told));
