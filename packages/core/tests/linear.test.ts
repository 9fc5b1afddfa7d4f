import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  balance,
  balanceCommands,
  blockClashes,
  clashesOf,
  inOrder,
  type ClosedWindow,
  endOfDay,
  findClashes,
  FIVE_DAY,
  flowline,
  hasBegun,
  leastDistance,
  leastGap,
  linearBlocks,
  type LinearWork,
  linearDuration,
  linearWorks,
  makeActivity,
  makePlan,
  meetsBlock,
  parseIsoDate,
  placeAt,
  schedulePlan,
  startOfDay,
  startsWithBuffer,
  sectionsOf,
  timesAt,
  unitStarts,
  WorkingTime,
} from '../src/index';
import { BRIDGE, day, seeded } from './helpers';

const work = (ref: string, from: number, to: number, perDay: number): LinearWork => ({
  ref,
  from,
  to,
  crews: 1,
  rates: [{ from: Math.min(from, to), to: Math.max(from, to), perDay }],
});

const trade = (w: LinearWork, time: WorkingTime | null = null, windows: ClosedWindow[] = []) => ({
  work: w,
  time,
  windows,
});

// Common practice: a line of 300 km, rates that give whole weeks, smallest buffer 4 weeks (a unit of time is a week here)
test('six trades with a buffer of four weeks', () => {
  const weeks = [9, 20, 15, 30, 43, 20];
  const placed = startsWithBuffer(
    weeks.map((w, i) => trade(work(`T${i}`, 0, 300, 300 / w))),
    0,
    { days: 4, distance: 0 },
  );
  expect(placed.map((p) => Math.round(p.start * 1e6) / 1e6)).toEqual([0, 4, 13, 17, 21, 48]);
  expect(placed.map((p) => Math.round(p.finish * 1e6) / 1e6)).toEqual([9, 24, 28, 47, 64, 68]);
  expect(findClashes(placed, { days: 4, distance: 0 })).toEqual([]);
  expect(findClashes(placed, { days: 5, distance: 0 }).map((c) => c.follower)).toEqual(['T1', 'T2', 'T3', 'T4', 'T5']);
});

// By hand and by linear programme: one crew each, 6 units, 3, 5 and 2 days a unit, without interruption
test('three trades through six units', () => {
  expect(unitStarts([3, 5, 2].map((d) => Array(6).fill(d)))).toEqual([
    { start: 0, finish: 18 },
    { start: 3, finish: 33 },
    { start: 23, finish: 35 },
  ]);
});

test('the bridge of four sections takes 117.80 days with continuous work', () => {
  const placed = unitStarts(BRIDGE.map(({ output, quantities }) => quantities.map((q) => q / output)));
  expect(placed.at(-1)!.finish.toFixed(2)).toBe('117.80');
});

describe('flowlines', () => {
  test('duration is length by rate, rates may differ by stretch and crews share', () => {
    const w: LinearWork = {
      ref: 'W',
      from: -100,
      to: 300,
      crews: 2,
      rates: [
        { from: -100, to: 100, perDay: 10 },
        { from: 100, to: 300, perDay: 5 },
      ],
    };
    expect(sectionsOf(w)).toEqual([
      { from: -100, to: 100, perDay: 20 },
      { from: 100, to: 300, perDay: 10 },
    ]);
    expect(linearDuration(w)).toBe(30);
    expect(linearDuration(work('X', 0, 25, 10))).toBe(2.5);
    expect(linearDuration(work('X', 0, 25, 10), true)).toBe(3);
    expect(() => linearDuration({ ...w, rates: [] })).toThrow('no rate above 0');
  });

  test('stands still on days off, and runs against the chainage as well', () => {
    const monday = parseIsoDate('2025-01-06')!;
    const time = new WorkingTime(FIVE_DAY, 'day', monday);
    const points = flowline(work('P', 700, 0, 100), monday, time);
    expect(points).toEqual([
      { time: monday, place: 700 },
      { time: monday + 5, place: 200 },
      { time: monday + 7, place: 200 },
      { time: monday + 9, place: 0 },
    ]);
    expect(timesAt(points, 200)).toEqual({ first: monday + 5, last: monday + 7 });
    expect(timesAt(points, 701)).toBeNull();
  });

  test('waits where a window is closed, and only there', () => {
    const windows = [{ name: 'Nesting', from: 50, to: 80, start: 3, finish: 10 }];
    const points = flowline(work('P', 0, 100, 10), 0, null, windows);
    expect(points).toEqual([
      { time: 0, place: 0 },
      { time: 5, place: 50 },
      { time: 10, place: 50 },
      { time: 15, place: 100 },
    ]);
    expect(flowline(work('Q', 0, 40, 10), 0, null, windows).at(-1)).toEqual({ time: 4, place: 40 });
    // Work that is inside already when the window closes stops where it is.
    expect(flowline(work('R', 40, 100, 10), 0, null, windows)).toContainEqual({ time: 3, place: 70 });
  });
});

describe('buffers and clashes', () => {
  test('lines that cross and blocks that overlap are found with place and time', () => {
    const slow = { ref: 'slow', points: flowline(work('slow', 0, 100, 5), 0, null) };
    const fast = { ref: 'fast', points: flowline(work('fast', 0, 100, 20), 10, null) };
    const [clash] = findClashes([slow, fast], { days: 1, distance: 0 });
    expect(clash).toMatchObject({ leader: 'slow', follower: 'fast', place: 100, time: 15, gap: -5 });
    expect(
      blockClashes([
        { ref: 'a', from: 0, to: 50, start: 0, finish: 5 },
        { ref: 'b', from: 40, to: 60, start: 4, finish: 9 },
        { ref: 'c', from: 60, to: 90, start: 0, finish: 9 },
      ]),
    ).toEqual([{ refs: ['a', 'b'], from: 40, to: 50, start: 4, finish: 5 }]);
  });

  test('with a calendar and windows the buffer holds at every place', () => {
    const monday = parseIsoDate('2025-01-06')!;
    const time = new WorkingTime(FIVE_DAY, 'day', monday);
    const windows = [{ name: 'Tide', from: 100, to: 200, start: monday + 8, finish: monday + 15 }];
    const placed = startsWithBuffer(
      [work('A', 0, 400, 23), work('B', 0, 400, 60), work('C', 0, 400, 17), work('D', 0, 400, 90)].map((w) =>
        trade(w, time, windows),
      ),
      monday,
      { days: 3, distance: 0 },
    );
    placed.slice(1).forEach((p, k) => {
      const gap = leastGap(placed[k]!.points, p.points)!;
      expect(gap.gap).toBeGreaterThanOrEqual(3 - 1e-6);
    });
  });

  // By hand: a leader of 10 a day and a follower of 20 a day over 200, 60 apart. The leader leaves at day 20, when the
  // follower may be at 140 at most, seven days after its start.
  test('a buffer of distance holds a faster follower at its finish', () => {
    const [slow, fast] = startsWithBuffer([trade(work('S', 0, 200, 10)), trade(work('F', 0, 200, 20))], 0, {
      days: 0,
      distance: 60,
    });
    expect(fast!.start).toBeCloseTo(13, 6);
    expect(leastDistance(slow!.points, fast!.points)).toMatchObject({ time: 20, gap: expect.closeTo(60, 4) });
    expect(placeAt(fast!.points, 20)).toBeCloseTo(140, 6);
    // A slower one is held at its start: the leader has to be 60 ahead, after three days of 20.
    const [, behind] = startsWithBuffer([trade(work('F', 0, 200, 20)), trade(work('S', 0, 200, 10))], 0, {
      days: 0,
      distance: 60,
    });
    expect(behind!.start).toBeCloseTo(3, 6);
  });

  test('both buffers hold, and no start could be earlier; 300 random chains in either direction', () => {
    const monday = parseIsoDate('2025-01-06')!;
    const time = new WorkingTime(FIVE_DAY, 'day', monday);
    for (let seed = 0; seed < 300; seed++) {
      const r = seeded(seed);
      const [from, to] = r() < 0.5 ? [0, 400] : [400, 0];
      const calendar = r() < 0.5 ? time : null;
      const works = Array.from({ length: 4 }, (_, k) =>
        trade(work(`W${k}`, from, to, 8 + Math.floor(r() * 80)), calendar),
      );
      const buffer = { days: Math.floor(r() * 4), distance: Math.floor(r() * 3) * 40 };
      const placed = startsWithBuffer(works, monday, buffer);
      expect(findClashes(placed, { days: buffer.days - 1e-4, distance: buffer.distance - 1e-2 })).toEqual([]);
      placed.slice(1).forEach((p, k) => {
        const leader = placed[k]!;
        if (p.start <= leader.start + 0.02) return;
        const at = p.start - 0.01;
        if (calendar && !calendar.isWorkday(Math.floor(at))) return;
        const earlier = { ref: p.ref, points: flowline(works[k + 1]!.work, at, calendar) };
        const left = findClashes([leader, earlier], buffer);
        const none = buffer.days === 0 && buffer.distance === 0 && leastGap(leader.points, earlier.points)!.gap >= 0;
        expect([seed, k, left.length > 0 || none]).toEqual([seed, k, true]);
      });
    }
  });

  test('which of two leads is seen from the places that they share, and work end to end shares none', () => {
    const ahead = { ref: 'ahead', points: flowline(work('ahead', 60, 100, 10), 3, null) };
    const whole = { ref: 'whole', points: flowline(work('whole', 0, 100, 5), 0, null) };
    expect(inOrder(whole, ahead).map((x) => x.ref)).toEqual(['ahead', 'whole']);
    expect(clashesOf(...inOrder(whole, ahead), { days: 9, distance: 0 })).toEqual([]);
    expect(clashesOf(...inOrder(whole, ahead), { days: 10, distance: 0 })).toMatchObject([{ place: 60, gap: 9 }]);
    const next = { ref: 'next', points: flowline(work('next', 100, 200, 5), 0, null) };
    expect(leastGap(whole.points, next.points)).toBeNull();
  });

  test('a line runs into a block where and when it is there', () => {
    const block = { ref: 'K', from: 100, to: 150, start: 12, finish: 20 };
    const run = (start: number, perDay = 10) => meetsBlock(flowline(work('L', 0, 200, perDay), start, null), block);
    expect(run(0)).toEqual({ place: 120, time: 12 });
    expect(run(5)).toEqual({ place: 100, time: 15 });
    expect(run(-10)).toBeNull();
    expect(run(12)).toBeNull();
    expect(meetsBlock(flowline(work('L', 0, 100, 10), 5, null), block)).toBeNull();
  });
});

describe('linear work of a plan', () => {
  const plan = makePlan({
    name: 'Line',
    calendars: [FIVE_DAY],
    calendar: 'five-day',
    lines: [
      {
        id: 'road',
        name: 'Road',
        unit: 'm',
        from: 0,
        to: 1_000_000,
        stations: [],
        zones: [],
        windows: [{ name: 'Ford', from: 300_000, to: 400_000, start: day('2025-01-08'), finish: day('2025-01-13') }],
      },
    ],
    activities: [
      makeActivity({
        ref: 'A',
        start: day('2025-01-06'),
        finish: endOfDay(parseIsoDate('2025-01-10')!),
        from: 0,
        to: 1_000_000,
        rate: 200,
        crews: 1,
        rates: [{ from: 600_000, to: 1_000_000, perDay: 100 }],
      }),
      makeActivity({
        ref: 'B',
        start: day('2025-01-06'),
        finish: endOfDay(parseIsoDate('2025-01-10')!),
        from: 1_000_000,
        to: 500_000,
      }),
      makeActivity({
        ref: 'C',
        start: day('2025-01-06'),
        finish: endOfDay(parseIsoDate('2025-01-10')!),
        from: 900_000,
        to: 700_000,
        occupies: true,
      }),
    ],
  });
  const s = schedulePlan(plan);
  const monday = parseIsoDate('2025-01-06')!;

  test('rates by stretch, windows of the line, the calendar, and a rate from the dates where none is stated', () => {
    const [a, b] = linearWorks(plan, s).works;
    // By hand: 300 m in a day and a half; 100 m of it in a ford that closes on Wednesday; in before, out by Tuesday.
    const own = flowline(a!.stated, monday, a!.time, a!.windows);
    expect(own[0]).toEqual({ time: monday, place: 0 });
    expect(placeAt(own, monday + 2)).toBeCloseTo(400, 9);
    expect(own.at(-1)).toEqual({ time: monday + 9, place: 1000 });
    expect(a!.rated).toBe(monday + 8);
    // The plan says Friday, and so does the page: from Monday to Friday, at a pace of its own.
    expect([a!.points[0], a!.points.at(-1)!.place]).toEqual([{ time: monday, place: 0 }, 1000]);
    expect(a!.points.at(-1)!.time).toBeCloseTo(monday + 5, 6);
    expect(b!.work.rates[0]).toEqual({ from: 500, to: 1000, perDay: 100 });
    expect(b!.points.at(-1)).toEqual({ time: monday + 5, place: 500 });
  });

  test('crews share a stated rate, and a rate from the dates is theirs together', () => {
    const two = { ...plan, activities: plan.activities.map((x) => ({ ...x, crews: 2, rates: [] })) };
    const [a, b] = linearWorks(two, schedulePlan(two)).works;
    expect([linearDuration(a!.stated), linearDuration(b!.stated)]).toEqual([2.5, 5]);
  });

  test('work without a rate is a finding, not left out in silence', () => {
    const none = { ...plan, activities: [{ ...plan.activities[0]!, rate: 0 }, plan.activities[1]!] };
    const { works, findings } = linearWorks(none, schedulePlan(none));
    expect([works.map((w) => w.work.ref), findings.map((f) => [f.code, f.refs])]).toEqual([
      ['B'],
      [['linearWithoutRate', ['A']]],
    ]);
  });

  test('what holds its stretch is a block', () => {
    expect(linearWorks(plan, s).works.map((w) => w.work.ref)).toEqual(['A', 'B']);
    expect(linearBlocks(plan, s)).toEqual([{ ref: 'C', from: 700, to: 900, start: monday, finish: monday + 5 }]);
  });
});

describe('balance of a plan', () => {
  const day0 = parseIsoDate('2026-03-02')!;
  const work = (ref: string, start: number, days: number, part: object = {}) =>
    makeActivity({
      ref,
      from: 0,
      to: 2_400_000,
      start: startOfDay(day0 + start),
      finish: startOfDay(day0 + start + days),
      ...part,
    });
  const plan = (...activities: ReturnType<typeof makeActivity>[]) =>
    makePlan({
      name: '',
      start: startOfDay(day0),
      source: 'given',
      calendars: [FIVE_DAY],
      calendar: FIVE_DAY.id,
      activities,
    });

  test('nothing moves to an earlier day, what has begun stays, and all others keep the buffer on whole days', () => {
    for (let seed = 1; seed <= 40; seed++) {
      let state = seed * 7919;
      const below = (n: number) => {
        state = (state * 1103515245 + 12345) % 2147483648;
        return state % n;
      };
      const p = plan(
        ...Array.from({ length: 6 }, (_, k) =>
          work(`W${k}`, below(60), 5 + below(40), below(4) === 0 ? { percent: 20 } : {}),
        ),
      );
      const works = linearWorks(p, schedulePlan(p)).works.sort((a, b) => a.points[0]!.time - b.points[0]!.time);
      const isHeld = (w: (typeof works)[number]) => hasBegun(p.activities[w.position]!);
      const list = balance(
        works.map((w) => [w]),
        { buffer: { days: 4, distance: 0 }, waits: true, held: isHeld },
      );
      list.forEach((b) => {
        expect(b.newStart).toBeGreaterThanOrEqual(b.start - 1e-9);
        if ((p.activities[b.position]!.percent ?? 0) > 0) expect(b.newStart).toBe(b.start);
        else if (b.newStart > b.start) expect(b.newStart % 1).toBe(0);
      });
      // Taken, the plan keeps the buffer between all that are not held.
      const then = balanceCommands(p, list).reduce((now, c) => applyCommand(now, c).plan, p);
      const after = new Map(linearWorks(then, schedulePlan(then)).works.map((w) => [w.work.ref, w.points]));
      list.forEach((b, k) => {
        if (b.newStart === b.start) return;
        for (const a of list.slice(0, k)) {
          const gap = leastGap(after.get(a.ref)!, after.get(b.ref)!)!.gap;
          expect([seed, a.ref, b.ref, gap >= 4 - 1e-6]).toEqual([seed, a.ref, b.ref, true]);
        }
      });
    }
  });
});
