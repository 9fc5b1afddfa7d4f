import { describe, expect, test } from '@jest/globals';
import type { Handles } from '@clembo/scene';
import { anchorAt, labelPlaceAt, laneAt, lanesWith, laneSlot } from '../src/features/show/hand/places';
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
