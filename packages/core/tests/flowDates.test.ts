import { describe, expect, test } from '@jest/globals';
import {
  type ClosedWindow,
  FIVE_DAY,
  flowline,
  type FlowPoint,
  type LinearWork,
  placeAt,
  WorkingTime,
} from '../src/index';
import { closedPieces } from '../src/linear/closed';
import { plannedFlow } from '../src/linear/planned';
import { seeded } from './helpers';

// Where a flowline is drawn from the dates of a plan, and how much of it lies in closed windows. Times are days, places
// metres; 0 is a Monday for a five-day week (day number 4 was one: 5 January 1970).
const MONDAY = 4;
const week = (near: number) => new WorkingTime(FIVE_DAY, 'day', near);
const work = (from: number, to: number, perDay: number): LinearWork => ({
  ref: 'W',
  from,
  to,
  crews: 1,
  rates: [{ from: Math.min(from, to), to: Math.max(from, to), perDay }],
});
const shut = (part: Partial<ClosedWindow> = {}): ClosedWindow => ({
  name: 'Nesting',
  from: 400,
  to: 600,
  start: 10,
  finish: 20,
  ...part,
});

describe('what of a flowline lies in a closed window', () => {
  const straight: FlowPoint[] = [
    { time: 0, place: 0 },
    { time: 20, place: 1000 },
  ];

  test('the piece between where it comes in and where it goes out', () => {
    // 50 m a day: at 400 m on day 8, at 600 m on day 12; the window closes on day 10, at 500 m.
    expect(closedPieces(straight, shut())).toEqual([
      [
        { time: 10, place: 500 },
        { time: 12, place: 600 },
      ],
    ]);
    expect(closedPieces(straight, shut({ start: 0 }))).toEqual([
      [
        { time: 8, place: 400 },
        { time: 12, place: 600 },
      ],
    ]);
  });

  test('backwards along the line as forwards', () =>
    expect(
      closedPieces(
        straight.map((p) => ({ ...p, place: 1000 - p.place })),
        shut({ start: 0 }),
      ),
    ).toEqual([
      [
        { time: 8, place: 600 },
        { time: 12, place: 400 },
      ],
    ]));

  test('nothing where it is through before, comes after, or passes beside', () => {
    expect(closedPieces(straight, shut({ start: 12, finish: 30 }))).toEqual([]);
    expect(closedPieces(straight, shut({ start: 0, finish: 8 }))).toEqual([]);
    expect(closedPieces(straight, shut({ from: 1000, to: 1200, start: 0, finish: 40 }))).toEqual([]);
  });

  test('work that holds its place inside is in it for as long as that', () => {
    const waiting: FlowPoint[] = [
      { time: 0, place: 0 },
      { time: 10, place: 500 },
      { time: 15, place: 500 },
      { time: 25, place: 1000 },
    ];
    // From 500 m on day 10 until it leaves at 600 m on day 17: one piece in three parts.
    expect(closedPieces(waiting, shut({ start: 10, finish: 30 }))).toEqual([
      [
        { time: 10, place: 500 },
        { time: 15, place: 500 },
        { time: 17, place: 600 },
      ],
    ]);
    // Who waits at its border is not in it.
    expect(closedPieces(waiting.slice(1, 3), shut({ from: 500, start: 0, finish: 30 }))).toEqual([]);
  });

  test('against asking at every twentieth of a day, for random flowlines', () => {
    const random = seeded(10);
    const below = (n: number) => Math.floor(random() * n);
    for (let turn = 0; turn < 300; turn++) {
      const points: FlowPoint[] = [{ time: below(10), place: below(10) * 100 }];
      for (let k = 0; k < 1 + below(4); k++) {
        const last = points.at(-1)!;
        points.push({ time: last.time + 1 + below(12), place: below(11) * 100 });
      }
      const [from, start] = [below(9) * 100 + 50, below(30)];
      const w = shut({ from, to: from + 100 + below(4) * 100, start, finish: start + 1 + below(20) });
      const pieces = closedPieces(points, w);
      for (let t = points[0]!.time + 0.025; t < points.at(-1)!.time; t += 0.05) {
        const place = placeAt(points, t)!;
        const inside = t > w.start && t < w.finish && place > w.from && place < w.to;
        const told = pieces.some((p) => p[0]!.time <= t && t <= p.at(-1)!.time);
        if (told !== inside) throw new Error(`turn ${turn}, time ${t}: ${told ? 'told' : 'not told'}`);
      }
      for (const p of pieces.flat()) expect(Math.abs(p.place - placeAt(points, p.time)!)).toBeLessThan(1e-6);
    }
  });
});

describe('a flowline starts and ends where and when the plan says', () => {
  const flow = (w: LinearWork, start: number, finish: number, windows: ClosedWindow[] = [], ofDates = false) =>
    plannedFlow(w, { start, finish }, week(start), windows, false, ofDates);

  test('at its own rate where that leads to the same day', () => {
    // 500 m at 50 m a day are ten working days, from Monday to Friday of the week after.
    const { points, rated } = flow(work(0, 500, 50), MONDAY, MONDAY + 12);
    expect(rated).toBe(MONDAY + 11);
    expect(points).toEqual(flowline(work(0, 500, 50), MONDAY, week(MONDAY), []));
  });

  test('faster or slower where the dates ask for it; the end that its rate led to is kept', () => {
    // In one week, at twice the rate.
    const fast = flow(work(0, 500, 50), MONDAY, MONDAY + 5);
    expect(fast.rated).toBe(MONDAY + 11);
    expect(fast.work.rates[0]!.perDay).toBeCloseTo(100, 6);
    expect(fast.points[0]).toEqual({ time: MONDAY, place: 0 });
    expect(fast.points.at(-1)!.time).toBeCloseTo(MONDAY + 5, 6);
    expect(fast.points.at(-1)!.place).toBeCloseTo(500, 6);
    // In four, at half of it.
    const slow = flow(work(0, 500, 50), MONDAY, MONDAY + 26);
    expect(slow.work.rates[0]!.perDay).toBeCloseTo(25, 6);
    expect(slow.points.at(-1)).toEqual({ time: MONDAY + 26, place: 500 });
  });

  test('work on a weekend goes straight from its start to its finish', () =>
    expect(flow(work(0, 100, 50), MONDAY + 5, MONDAY + 7).points).toEqual([
      { time: MONDAY + 5, place: 0 },
      { time: MONDAY + 7, place: 100 },
    ]));

  test('it is not moved behind a closed window where its dates say that it goes through', () => {
    const window = shut({ from: 200, to: 300, start: MONDAY, finish: MONDAY + 60 });
    const { points } = flow(work(0, 500, 50), MONDAY, MONDAY + 12, [window]);
    expect(points.at(-1)).toEqual({ time: MONDAY + 12, place: 500 });
    expect(closedPieces(points, window)).toHaveLength(1);
  });

  test('it waits where its own rate and its dates agree that it does', () => {
    const window = shut({ from: 200, to: 300, start: MONDAY, finish: MONDAY + 14 });
    const waiting = flowline(work(0, 500, 50), MONDAY, week(MONDAY), [window]);
    const finish = waiting.at(-1)!.time;
    const { points } = flow(work(0, 500, 50), MONDAY, finish, [window]);
    expect(points).toEqual(waiting);
    expect(closedPieces(points, window)).toEqual([]);
    // Work without a rate of its own is not thought to wait.
    expect(flow(work(0, 500, 50), MONDAY, MONDAY + 12, [window], true).rated).toBeNull();
  });

  test('random works with windows and rates, on days of work and days off', () => {
    const random = seeded(100);
    const below = (n: number) => Math.floor(random() * n);
    for (let turn = 0; turn < 500; turn++) {
      const from = below(10) * 100;
      const to = (from + 100 + below(9) * 100) % 1000;
      const start = MONDAY + below(60);
      const finish = start + 1 + below(40);
      const windows = Array.from({ length: below(3) }, () => {
        const [place, day] = [below(8) * 100, MONDAY + below(80)];
        return shut({ from: place, to: place + 200, start: day, finish: day + 5 + below(30) });
      });
      if (from === to) continue;
      const { points } = flow(work(from, to, 10 + below(90)), start, finish, windows, random() < 0.3);
      expect(points[0]).toEqual({ time: start, place: from });
      expect(points.at(-1)!.place).toBeCloseTo(to, 6);
      // The day of its finish, whatever hour of it the last metre is done in.
      expect(Math.ceil(points.at(-1)!.time - 1e-9)).toBe(finish);
      for (let k = 1; k < points.length; k++) expect(points[k]!.time).toBeGreaterThanOrEqual(points[k - 1]!.time);
    }
  });
});
