import { describe, expect, test } from '@jest/globals';
import type { Handles } from '@clembo/scene';
import { anchorAt, labelPlaceAt, laneAt, lanesWith, laneSlot } from '../src/features/show/hand/places';
import { pointOf } from '@clembo/scene/pointOf';
import { toggled } from '../src/features/show/hand/chosen';
import { newNote } from '../src/features/show/hand/useHand';

const DAY = 1440;
/** Two rows of a page: A from day 10 to 20, B from day 30 to 40; a day is 5 points wide, type is 10. */
const page: Handles = {
  size: 10,
  left: 100,
  right: 600,
  from: 0,
  to: 100 * DAY,
  items: [
    { ref: 'A', x0: 150, x1: 200, y: 50 },
    { ref: 'B', x0: 250, x1: 300, y: 90 },
  ],
  lanes: [
    { codes: ['n'], title: 'North', top: 30, bottom: 70, right: 60, folded: false },
    { codes: ['s'], title: 'South', top: 70, bottom: 110, right: 60, folded: false },
    { codes: ['s', 'x'], title: 'Within', top: 70, bottom: 110, right: 95, folded: false },
  ],
  unplaced: [],
};

describe('what holds a point of a page', () => {
  test('is the nearer end of the thing that was pointed at', () => {
    expect(anchorAt(page, { x: 160, y: 45 }, 'A')).toEqual({ ref: 'A', at: 'start', dx: 1, dy: -0.5 });
    expect(anchorAt(page, { x: 190, y: 50 }, 'A')).toEqual({ ref: 'A', at: 'finish', dx: -1, dy: 0 });
  });

  test('is elsewhere the day, in the row of the nearest thing', () => {
    // 352 points are day 50.4.
    expect(anchorAt(page, { x: 352, y: 80 }, null)).toEqual({ ref: 'B', at: 50 * DAY, dx: 0, dy: -1 });
    expect(anchorAt(page, { x: 20, y: 50 }, null)).toMatchObject({ ref: 'A', at: 0 });
    expect(anchorAt({ ...page, items: [] }, { x: 1, y: 1 }, null)).toBeNull();
  });

  test('a label is held by the nearer end, in sizes of its type', () => {
    expect(labelPlaceAt(page, 'A', { x: 205, y: 70 })).toEqual({ end: 'finish', x: 0.5, y: 2 });
    expect(labelPlaceAt(page, 'A', { x: 120, y: 50 })).toEqual({ end: 'start', x: -3, y: 0 });
    expect(labelPlaceAt(page, 'gone', { x: 0, y: 0 })).toBeNull();
  });
});

describe('lanes', () => {
  test('are found by their titles, the innermost in its own column', () => {
    expect(laneAt(page, { x: 40, y: 80 })?.title).toBe('South');
    expect(laneAt(page, { x: 80, y: 80 })?.title).toBe('Within');
    expect(laneAt(page, { x: 300, y: 80 })).toBeNull();
  });

  test('come to lie where they are let go; those that are not on the page keep their place behind', () => {
    expect([laneSlot(page, 20), laneSlot(page, 65), laneSlot(page, 200)]).toEqual([0, 1, 2]);
    expect(lanesWith(page, 's', 0, ['w'])).toEqual(['s', 'n', 'w']);
    expect(lanesWith(page, 'n', 2, [])).toEqual(['s', 'n']);
    expect(lanesWith(page, 'n', 1, [])).toEqual(['n', 's']);
  });
});

test('one more thing is chosen, or one less', () => {
  const one = toggled(null, 'A');
  expect(one).toEqual({ kind: 'things', refs: ['A'] });
  expect(toggled(toggled(one, 'B'), 'A')).toEqual({ kind: 'things', refs: ['B'] });
  expect(toggled(one, 'A')).toBeNull();
  expect(toggled({ kind: 'note', id: 'n1' }, 'A')).toEqual(one);
});

test('a new note has an id that the page does not have, and words stand above what they are about', () => {
  const at = { ref: 'A', at: 'start' as const, dx: 0, dy: 0 };
  const first = newNote('text', at, at, [], null)!;
  expect(first).toMatchObject({ id: 'n1', anchor: { dx: 1.5, dy: -3 } });
  const second = newNote('arrow', at, at, [{ ...first, id: 'n2' }], null)!;
  expect(second.id).toBe('n3');
  expect(newNote('picture', at, at, [], null)).toBeNull();
});

describe('a place that was pointed at', () => {
  test('is where it was pointed at, on random pages of rows', () => {
    let seed = 7;
    const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
    for (let k = 0; k < 400; k++) {
      const rows = Array.from({ length: 1 + Math.floor(random() * 12) }, (_, i) => {
        const x0 = 100 + random() * 500;
        return { ref: `R${i}`, x0, x1: x0 + random() * 200, y: 40 + i * 20 };
      });
      const handles = {
        ...page,
        size: 6 + random() * 8,
        left: 100,
        right: 800,
        from: 0,
        to: 365 * 1440,
        items: rows,
      };
      const point = { x: 100 + random() * 700, y: 30 + random() * 260 };
      const on = random() < 0.5 ? rows[Math.floor(random() * rows.length)]! : null;
      const back = pointOf({ handles, plane: null }, anchorAt(handles, point, on?.ref ?? null)!)!;
      // A distance is kept to a hundredth of the type, and a moment as its day.
      const near = on ? handles.size * 0.01 : (handles.right - handles.left) / 365 + 0.01;
      expect([k, Math.abs(back.x - point.x) <= near, Math.abs(back.y - point.y) <= handles.size * 0.01]).toEqual([
        k,
        true,
        true,
      ]);
    }
  });

  test('of a line is where its place and day are, either way about; elsewhere it is not on the page', () => {
    const plane = {
      left: 50,
      right: 450,
      top: 20,
      bottom: 220,
      place0: 0,
      place1: 1000,
      day0: 0,
      day1: 100,
      unit: 'm',
    };
    const spot = { place: 250_000, at: 50 * 1440, dx: 0, dy: 0 };
    expect(pointOf({ handles: null, plane: { ...plane, across: true } }, spot)).toEqual({ x: 150, y: 120 });
    expect(pointOf({ handles: null, plane: { ...plane, across: false } }, spot)).toEqual({ x: 250, y: 170 });
    expect(pointOf({ handles: null, plane: { ...plane, across: true } }, { ...spot, place: 1_100_000 })).toBeNull();
    expect(pointOf({ handles: page, plane: null }, { ref: 'gone', at: 'start', dx: 0, dy: 0 })).toBeNull();
  });
});
