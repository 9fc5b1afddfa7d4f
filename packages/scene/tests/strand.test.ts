import { describe, expect, test } from '@jest/globals';
import { parseIsoDate, startOfDay, makeActivity } from '@clembo/core';
import { leavesOf } from '../src/index';
import { placeOnStems } from '../src/rows/strand';
import { compose, contentOf, randomPlan, seeded, texts } from './fixtures';

describe('labels on stems', () => {
  test('none lies on another, and none on the stem of another, on random lines', () => {
    const random = seeded(5);
    let clear = 0;
    for (let turn = 0; turn < 400; turn++) {
      const n = 1 + Math.floor(random() * 40);
      let x = 10;
      const stems = Float64Array.from({ length: n }, () => (x += 3 + random() * 40));
      const right = Math.max(200, x + 60);
      const avoid = random() < 0.5 ? 10 + random() * right : Number.NaN;
      // Some only just fit on the longer side of their stem.
      const width = Float64Array.from(stems, (at) =>
        Math.min(Math.max(at, right - at), 8 + random() * (random() < 0.05 ? right : 90)),
      );
      const inTurn = random() < 0.5;
      const p = placeOnStems({ x: stems, width, left: 0, right, avoid, inTurn, room: 3 });
      if (!p.clear) continue;
      clear++;
      for (let i = 0; i < n; i++) {
        expect(p.level[i]).not.toBe(0);
        if (!inTurn) expect(p.level[i]).toBeGreaterThan(0);
        const [a, b] = [p.label[i]!, p.label[i]! + width[i]!];
        expect(a).toBeGreaterThanOrEqual(-0.01);
        expect(b).toBeLessThanOrEqual(right + 0.01);
        // The stem ends at its own label.
        expect(stems[i]).toBeGreaterThanOrEqual(a - 0.01);
        expect(stems[i]).toBeLessThanOrEqual(b + 0.01);
        for (let j = 0; j < n; j++) {
          if (i === j || Math.sign(p.level[i]!) !== Math.sign(p.level[j]!)) continue;
          if (p.level[i] === p.level[j]) expect(p.label[j]! >= b || p.label[j]! + width[j]! <= a).toBe(true);
          // A higher label has its stem beside this one.
          if (Math.abs(p.level[j]!) > Math.abs(p.level[i]!)) expect(stems[j]! <= a || stems[j]! >= b).toBe(true);
        }
      }
    }
    expect(clear).toBeGreaterThan(200);
  });

  test('labels with room stand on one level, over the middle of their stems', () => {
    const p = placeOnStems({
      x: Float64Array.of(50, 150, 250),
      width: Float64Array.of(40, 40, 40),
      left: 0,
      right: 300,
      avoid: Number.NaN,
      inTurn: false,
      room: 3,
    });
    expect([...p.level]).toEqual([1, 1, 1]);
    expect([...p.label]).toEqual([30, 130, 230]);
  });

  test('no label is written across the line that is to be kept clear, where both sides have room', () => {
    const p = placeOnStems({
      x: Float64Array.of(90, 110),
      width: Float64Array.of(60, 60),
      left: 0,
      right: 300,
      avoid: 100,
      inTurn: false,
      room: 3,
    });
    expect(p.label[0]! + 60).toBeLessThanOrEqual(98);
    expect(p.label[1]).toBeGreaterThanOrEqual(102);
  });
});

const day = (text: string) => startOfDay(parseIsoDate(text)!);

/** Milestones and one piece of work. */
function gates(dates: string[]) {
  return {
    ...randomPlan(1, 1),
    statusDate: null,
    periods: [],
    links: [],
    activities: [
      makeActivity({ ref: 'W', name: 'Work', start: day('2026-02-02'), finish: day('2026-05-02') }),
      ...dates.map((d, k) =>
        makeActivity({ ref: `M${k}`, name: `Gate ${k}`, kind: 'finishMilestone', finish: day(d), duration: 0 }),
      ),
    ],
  };
}

describe('rows', () => {
  const plan = gates(['2026-02-10', '2026-03-10', '2026-03-10', '2026-06-10']);

  test('strand: points of a lane stand on one line, those of one day on a further one, bars below', () => {
    const scene = compose(plan, { rows: 'strand', labels: ['name'] });
    const lines = leavesOf(scene.nodes).filter((n) => n.role === 'strand');
    expect(lines).toHaveLength(2);
    const bar = leavesOf(scene.nodes).find((n) => n.role === 'bar' && n.type === 'rect' && n.ref === 'W');
    for (const l of lines) if (l.type === 'line' && bar?.type === 'rect') expect(l.y1).toBeLessThan(bar.y);
    expect(texts(scene, 'label').sort()).toEqual(['Gate 0', 'Gate 1', 'Gate 2', 'Gate 3', 'Work']);
  });

  test('phases: a block from one milestone to the next bears the name of the one at its end', () => {
    const scene = compose(gates(['2026-02-10', '2026-03-10', '2026-06-10']), {
      include: 'milestones',
      points: 'phases',
    });
    const blocks = leavesOf(scene.nodes).filter((n) => n.role === 'bar' && n.type === 'rect' && n.ref !== undefined);
    expect(blocks.map((n) => n.ref)).toEqual(['M1', 'M2']);
    const [one, two] = blocks as { x: number; width: number }[];
    expect(one!.x + one!.width).toBeCloseTo(two!.x, 1);
    expect(contentOf(scene).map((r) => [r.name, r.start])).toEqual([
      ['Gate 0', '9 February 2026'],
      ['Gate 1', '10 February 2026'],
      ['Gate 2', '10 March 2026'],
    ]);
  });

  test('what is of one value of a field stands in one row of its own', () => {
    const shared = {
      ...plan,
      activities: Array.from({ length: 6 }, (_, k) =>
        makeActivity({
          ref: `A${k}`,
          name: `A${k}`,
          start: day(`2026-0${k + 1}-02`),
          finish: day(`2026-0${k + 1}-20`),
          codes: { lane: k % 2 === 0 ? 'X' : 'Y' },
        }),
      ),
    };
    const scene = compose(shared, { rows: 'packed', packBy: 'lane', lanes: [], labels: [] });
    const ys = new Map<string, Set<number>>();
    for (const n of leavesOf(scene.nodes))
      if (n.type === 'rect' && n.role === 'bar' && n.ref !== undefined) {
        const lane = Number(n.ref.slice(1)) % 2 === 0 ? 'X' : 'Y';
        ys.set(lane, (ys.get(lane) ?? new Set()).add(n.y));
      }
    expect([...ys.values()].map((s) => s.size)).toEqual([1, 1]);
    expect(ys.get('X')).not.toEqual(ys.get('Y'));
  });

  test('overlaps that are allowed need one row', () => {
    const over = {
      ...plan,
      activities: ['2026-02-02', '2026-02-20', '2026-03-20'].map((d, k) =>
        makeActivity({ ref: `A${k}`, name: `A${k}`, start: day(d), finish: day('2026-06-01') }),
      ),
    };
    expect(compose(over, { rows: 'packed', overlaps: 'allowed', lanes: [] }).fit.rows).toBe(1);
    expect(compose(over, { rows: 'packed', lanes: [] }).fit.rows).toBe(3);
  });
});
