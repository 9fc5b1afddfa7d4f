import { describe, expect, test } from '@jest/globals';
import type { PageBox } from '@clembo/scene/folio';
import { carried, freePlace, resized, STEPS } from '@/features/share/blockPlaces';

/** Blocks of an overview that are carried and drawn by hand. */

const place: PageBox = { x: 0.25, y: 0.25, width: 0.25, height: 0.25 };
const onPaper = (p: PageBox) => p.x >= 0 && p.y >= 0 && p.x + p.width <= 1 + 1e-9 && p.y + p.height <= 1 + 1e-9;

describe('a block', () => {
  test('that is carried keeps its size, stays on the paper and lies on the grid', () => {
    for (const dx of [-2, -0.13, 0, 0.07, 0.4, 3])
      for (const dy of [-2, 0.21, 5]) {
        const p = carried(place, dx, dy, []);
        expect(onPaper(p)).toBe(true);
        expect([p.width, p.height]).toEqual([0.25, 0.25]);
        expect(Math.abs(p.x * STEPS.x - Math.round(p.x * STEPS.x))).toBeLessThan(1e-6);
      }
  });

  test('takes hold of the edge of another that is near, and of none that is not', () => {
    const other = { x: 0.531, y: 0.1, width: 0.2, height: 0.07 };
    expect(carried(place, 0.531 - 0.25 + 0.005, 0, [other]).x).toBe(0.531);
    expect(carried(place, 0.531 - 0.25 + 0.02, 0, [other]).x).not.toBe(0.531);
    // The right edge ends where the other begins.
    const wide = resized(place, 0.03, 0, [other]);
    expect(wide.x + wide.width).toBeCloseTo(0.531, 9);
  });

  test('that is drawn smaller does not vanish, and larger does not leave the paper', () => {
    const least = resized(place, -5, -5, []);
    expect(least.width > 0.03 && least.height > 0.03).toBe(true);
    expect(resized(place, 9, 9, [])).toEqual({ x: 0.25, y: 0.25, width: 0.75, height: 0.75 });
  });
});

test('a new block lies beside the others, smaller where there is less room', () => {
  const top = { x: 0, y: 0, width: 1, height: 0.5 };
  expect(freePlace([top], { width: 0.5, height: 0.25 })).toEqual({ x: 0, y: 0.5, width: 0.5, height: 0.25 });
  const left = { x: 0, y: 0.5, width: 0.75, height: 0.5 };
  const small = freePlace([top, left], { width: 0.4, height: 0.4 });
  expect(small).toEqual({ x: 0.75, y: 0.5, width: 0.2, height: 0.2 });
  const full = freePlace([{ x: 0, y: 0, width: 1, height: 1 }], { width: 0.5, height: 0.5 });
  expect(onPaper(full)).toBe(true);
});
