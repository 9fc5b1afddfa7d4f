import { describe, expect, test } from '@jest/globals';
import { crossingsOf, type FlowPoint, lineClashes } from '../src/index';
import { seeded } from './helpers';

/** Work with kinks and waits: time never goes back, places may. */
function randomFlow(random: () => number): FlowPoint[] {
  const points: FlowPoint[] = [{ time: random() * 10, place: random() * 100 }];
  for (let k = 0; k < 2 + random() * 6; k++) {
    const last = points.at(-1)!;
    points.push({ time: last.time + 0.5 + random() * 6, place: random() < 0.2 ? last.place : random() * 100 });
  }
  return points;
}

/** Every pair of pieces by itself: the method of two straight lines (any school book). */
function plainCrossings(a: FlowPoint[], b: FlowPoint[]): [time: number, place: number][] {
  const found: [number, number][] = [];
  for (let i = 1; i < a.length; i++)
    for (let j = 1; j < b.length; j++) {
      const [p, q, r, s] = [a[i - 1]!, a[i]!, b[j - 1]!, b[j]!];
      const [m, n] = [(q.place - p.place) / (q.time - p.time), (s.place - r.place) / (s.time - r.time)];
      if (m === n) continue;
      const t = (r.place - n * r.time - (p.place - m * p.time)) / (m - n);
      if (t < Math.max(p.time, r.time) || t > Math.min(q.time, s.time)) continue;
      if (!found.some(([x]) => Math.abs(x - t) < 1e-6)) found.push([t, p.place + m * (t - p.time)]);
    }
  return found.sort((x, y) => x[0] - y[0]);
}

describe('where works on a line meet', () => {
  test('all crossings and none else, against plain segments: 500 random pairs', () => {
    let checked = 0;
    for (let seed = 1; seed <= 500; seed++) {
      const random = seeded(seed);
      const [a, b] = [randomFlow(random), randomFlow(random)];
      const found = crossingsOf(a, b).map((c) => [Math.round(c.time * 1e6), Math.round(c.place * 1e4)]);
      const plain = plainCrossings(a, b).map(([t, p]) => [Math.round(t * 1e6), Math.round(p * 1e4)]);
      expect([seed, found]).toEqual([seed, plain]);
      checked += found.length;
    }
    expect(checked).toBeGreaterThan(500);
  });

  test('two lines that cross at 500 on the eleventh day have their ring there', () => {
    const flows = [
      {
        ref: 'Out',
        points: [
          { time: 0, place: 0 },
          { time: 20, place: 1000 },
        ],
      },
      {
        ref: 'Back',
        points: [
          { time: 0, place: 1000 },
          { time: 20, place: 0 },
        ],
      },
    ];
    expect(lineClashes(flows, [], { days: 0, distance: 0 })).toEqual([
      { kind: 'crossing', refs: ['Out', 'Back'], place: 500, time: 10, gap: null, measure: null },
    ]);
  });

  test('what begins where and when another ends does not meet it; what begins on its way does', () => {
    const leader = [
      { time: 0, place: 0 },
      { time: 10, place: 100 },
    ];
    expect(
      crossingsOf(leader, [
        { time: 10, place: 100 },
        { time: 20, place: 0 },
      ]),
    ).toEqual([]);
    expect(
      crossingsOf(leader, [
        { time: 10, place: 100 },
        { time: 20, place: 200 },
      ]),
    ).toEqual([]);
    expect(
      crossingsOf(leader, [
        { time: 5, place: 50 },
        { time: 9, place: 0 },
      ]),
    ).toEqual([{ time: 5, place: 50 }]);
  });

  test('works that go along together meet where they begin to', () => {
    const a = [
      { time: 0, place: 0 },
      { time: 10, place: 100 },
    ];
    const b = [
      { time: 0, place: 40 },
      { time: 4, place: 40 },
      { time: 8, place: 80 },
      { time: 9, place: 0 },
    ];
    expect(crossingsOf(a, b)).toEqual([{ time: 4, place: 40 }]);
  });
});
