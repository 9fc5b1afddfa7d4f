import { describe, expect, test } from '@jest/globals';
import { schedulePlan } from '../src/index';
import { planOf } from './helpers';

const DAY = 1440;

function run(durations: Record<string, number>, before: Record<string, string>) {
  const plan = planOf(
    Object.entries(durations),
    Object.entries(before).flatMap(([to, list]) => [...list].map((from): [string, string] => [from, to])),
  );
  const s = schedulePlan(plan);
  const by = (read: (i: number) => number) => Object.fromEntries(plan.activities.map((a, i) => [a.ref, read(i)]));
  return {
    finish: s.planFinish / DAY,
    total: by((i) => s.totalFloat[i]! / 480),
    free: by((i) => s.freeFloat[i]! / 480),
    critical: plan.activities
      .filter((_, i) => s.critical[i])
      .map((a) => a.ref)
      .join(''),
  };
}

describe('critical path of published networks', () => {
  // Hillier & Lieberman, Introduction to Operations Research, "Reliable Construction" (from memory)
  test('Reliable Construction takes 44 weeks', () => {
    const r = run(
      { A: 2, B: 4, C: 10, D: 6, E: 4, F: 5, G: 7, H: 9, I: 7, J: 8, K: 4, L: 5, M: 2, N: 6 },
      { B: 'A', C: 'B', D: 'C', E: 'C', I: 'C', F: 'E', G: 'D', H: 'EG', J: 'FI', K: 'J', L: 'J', M: 'H', N: 'KL' },
    );
    expect(r.finish).toBe(44);
    expect(r.critical).toBe('ABCEFJLN');
    expect(r.total).toMatchObject({ D: 4, G: 4, H: 4, M: 4, I: 2, K: 1 });
  });

  // Render & Heizer, Operations Management, "General Foundry" (from memory)
  test('General Foundry takes 15 weeks', () => {
    const r = run(
      { A: 2, B: 3, C: 2, D: 4, E: 4, F: 3, G: 5, H: 2 },
      { C: 'A', D: 'B', E: 'C', F: 'C', G: 'DE', H: 'FG' },
    );
    expect(r.finish).toBe(15);
    expect(r.total).toEqual({ A: 0, B: 1, C: 0, D: 1, E: 0, F: 6, G: 0, H: 0 });
  });

  // Taha, Operations Research, the arrow example with arrows as nodes (from memory)
  test("Taha's example takes 25 days, with these total and free floats", () => {
    const r = run(
      { A: 5, B: 6, C: 3, D: 8, E: 2, F: 11, G: 1, H: 12 },
      { C: 'A', D: 'A', E: 'BC', F: 'BC', G: 'D', H: 'DE' },
    );
    expect(r.finish).toBe(25);
    expect([r.total.B, r.free.B]).toEqual([5, 2]);
    expect([r.total.C, r.free.C]).toEqual([3, 0]);
    expect([r.total.E, r.free.E]).toEqual([3, 3]);
    expect([r.total.F, r.free.F]).toEqual([6, 6]);
    expect([r.total.G, r.free.G]).toEqual([11, 11]);
  });

  // Wiest 1981: lengthening a critical activity can shorten the project (property from memory, figures by hand)
  test.each([
    [4, 14],
    [6, 12],
    [10, 10],
  ])('B of %i days gives a project of %i days', (b, finish) => {
    const plan = planOf(
      [
        ['A', 10],
        ['B', b],
        ['C', 8],
      ],
      [
        ['A', 'B', 'FF'],
        ['B', 'C', 'SS'],
      ],
    );
    expect(schedulePlan(plan).planFinish / DAY).toBe(finish);
  });
});
