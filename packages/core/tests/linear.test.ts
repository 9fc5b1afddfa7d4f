import { describe, expect, test } from '@jest/globals';
import {
  blockClashes,
  findClashes,
  FIVE_DAY,
  flowline,
  leastGap,
  type LinearWork,
  linearDuration,
  parseIsoDate,
  startsWithBuffer,
  stretchesOf,
  timesAt,
  unitStarts,
  WorkingTime,
} from '../src/index';

const work = (ref: string, from: number, to: number, perDay: number): LinearWork => ({
  ref,
  from,
  to,
  crews: 1,
  rates: [{ from: Math.min(from, to), to: Math.max(from, to), perDay }],
});

// Common practice: a line of 300 km, rates that give whole weeks, smallest buffer 4 weeks (a unit of time is a week here)
test('six trades with a buffer of four weeks', () => {
  const weeks = [9, 20, 15, 30, 43, 20];
  const placed = startsWithBuffer(
    weeks.map((w, i) => work(`T${i}`, 0, 300, 300 / w)),
    0,
    4,
  );
  expect(placed.map((p) => Math.round(p.start * 1e6) / 1e6)).toEqual([0, 4, 13, 17, 21, 48]);
  expect(placed.map((p) => Math.round(p.finish * 1e6) / 1e6)).toEqual([9, 24, 28, 47, 64, 68]);
  expect(findClashes(placed, 4)).toEqual([]);
  expect(findClashes(placed, 5).map((c) => c.follower)).toEqual(['T1', 'T2', 'T3', 'T4', 'T5']);
});

// By hand and by linear programme: one crew each, 6 units, 3, 5 and 2 days a unit, without interruption
test('three trades through six units', () => {
  expect(unitStarts([3, 5, 2].map((d) => Array(6).fill(d)))).toEqual([
    { start: 0, finish: 18 },
    { start: 3, finish: 33 },
    { start: 23, finish: 35 },
  ]);
});

// Selinger 1980; Russell & Caselton 1988; El-Rayes & Moselhi 2001 (quantities and outputs from memory)
test('the bridge of four sections takes 117.80 days with continuous work', () => {
  const quantities = [
    [1147, 1434, 994, 1529],
    [1032, 1077, 943, 898],
    [104, 86, 129, 100],
    [85, 92, 101, 80],
    [0, 138, 114, 145],
  ];
  const outputs = [91.75, 71.81, 8.03, 7.07, 8.73];
  const placed = unitStarts(quantities.map((row, j) => row.map((q) => q / outputs[j]!)));
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
    expect(stretchesOf(w)).toEqual([
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
    const [clash] = findClashes([slow, fast], 1);
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
      [work('A', 0, 400, 23), work('B', 0, 400, 60), work('C', 0, 400, 17), work('D', 0, 400, 90)],
      monday,
      3,
      time,
      windows,
    );
    placed.slice(1).forEach((p, k) => {
      const gap = leastGap(placed[k]!.points, p.points)!;
      expect(gap.gap).toBeGreaterThanOrEqual(3 - 1e-6);
    });
  });
});
