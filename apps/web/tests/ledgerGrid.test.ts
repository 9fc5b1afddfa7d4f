import { describe, expect, test } from '@jest/globals';
import { FIVE_DAY, parseIsoDate, workingTimeOf } from '@clembo/core';
import { columnWidth, inRange, rangeOf, tableText } from '@/features/structure/grid';
import { GRID_KEY_WORDS, GRID_KEYS, type GridState, type Pressed } from '@/features/structure/gridKeys';
import { groundOf, panned, tieredTicks, timesOff, zoomed } from '@/features/structure/stripView';

/** The ledger's keys, ranges and strips, without a browser. */

const REST: GridState = { drawnOut: false, opened: false, onRow: true, canClose: true, outlined: true };
const act = (text: string, state: Partial<GridState> = {}): string | null => {
  const parts = text.split(' ');
  const key = parts.at(-1)!;
  const pressed: Pressed = {
    key: key === 'Space' ? ' ' : key,
    ctrlKey: parts.includes('Ctrl'),
    metaKey: parts.includes('Meta'),
    shiftKey: parts.includes('Shift'),
    altKey: parts.includes('Alt'),
  };
  return GRID_KEYS.find((k) => k.when(pressed, { ...REST, ...state }))?.act ?? null;
};

describe('keys of the ledger', () => {
  test.each([
    ['ArrowDown', 'go'],
    ['Home', 'go'],
    ['Ctrl ArrowUp', 'ends'],
    ['Meta ArrowUp', 'ends'],
    ['Shift ArrowUp', 'extend'],
    ['Ctrl Shift ArrowRight', 'extend'],
    ['Shift ArrowRight', 'shift'],
    ['Alt ArrowUp', 'carry'],
    ['Alt ArrowLeft', 'pan'],
    ['Alt 0', 'zoom'],
    ['PageDown', 'page'],
    ['Ctrl D', 'fill'],
    ['Ctrl Shift D', 'duplicate'],
    ['Ctrl a', 'all'],
    ['Ctrl f', 'find'],
    ['Ctrl Backspace', 'remove'],
    ['Alt Enter', 'like'],
    ['Alt Backspace', 'everything'],
    ['Delete', 'clear'],
    ['Insert', 'insert'],
    ['Enter', 'open'],
    ['F2', 'edit'],
    ['Tab', 'next'],
    ['Shift Tab', 'next'],
    ['Alt Shift ArrowRight', 'indent'],
    ['Alt Shift ArrowLeft', 'indent'],
    ['Space', 'toggle'],
    ['x', 'over'],
    ['Shift X', 'over'],
  ])('%s: %s', (key, wanted) => expect(act(key)).toBe(wanted));

  test('what is not the ledger’s is left to the browser', () => {
    for (const key of ['Ctrl c', 'Ctrl v', 'Ctrl z', 'Ctrl p', 'F5', 'Escape', 'Shift', 'Ctrl Tab'])
      expect([key, act(key)]).toEqual([key, null]);
  });

  test('some depend on what stands there', () => {
    expect(act('Escape', { drawnOut: true })).toBe('leave');
    expect(act('>', { opened: true })).toBe('walk');
    expect(act('>')).toBe('over');
    // On the last line a new activity is begun; in a list that is no outline, nothing goes into another.
    expect(act('Enter', { onRow: false })).toBe('edit');
    expect(act('Tab', { outlined: false })).toBe('next');
    expect(act('Alt Shift ArrowRight', { outlined: false })).toBeNull();
    expect(act('Space', { canClose: false })).toBe('over');
  });

  test('every act is reached, and what is told of it is told once', () => {
    const keys = [
      'Escape',
      '<',
      'ArrowUp',
      'ArrowLeft',
      'Home',
      'PageUp',
      'd',
      'a',
      'f',
      'Delete',
      'Enter',
      'Insert',
      'F2',
      'Tab',
      'Space',
      'x',
      '+',
    ];
    const reached = new Set(
      keys.flatMap((key) =>
        ['', 'Ctrl ', 'Shift ', 'Alt ', 'Ctrl Shift ', 'Alt Shift '].flatMap((mods) => [
          act(mods + key),
          act(mods + key, { drawnOut: true, opened: true }),
        ]),
      ),
    );
    for (const { act: own } of GRID_KEYS) expect([...reached]).toContain(own);
    const told = GRID_KEY_WORDS.map(([k]) => k);
    expect(new Set(told).size).toBe(told.length);
  });
});

describe('ranges', () => {
  test('are the same from whichever corner they are drawn', () => {
    const range = { top: 2, bottom: 5, left: 1, right: 3 };
    for (const [a, b] of [
      [
        [2, 1],
        [5, 3],
      ],
      [
        [5, 3],
        [2, 1],
      ],
      [
        [2, 3],
        [5, 1],
      ],
      [
        [5, 1],
        [2, 3],
      ],
    ] as const)
      expect(rangeOf({ row: a[0], col: a[1] }, { row: b[0], col: b[1] })).toEqual(range);
    expect(rangeOf({ row: 4, col: 4 }, null)).toEqual({ top: 4, bottom: 4, left: 4, right: 4 });
    const cells = Array.from({ length: 8 * 8 }, (_, k) => inRange(range, Math.floor(k / 8), k % 8));
    expect(cells.filter(Boolean)).toHaveLength(4 * 3);
  });

  test('are copied so that a reader of tables gets the same cells', () => {
    const table = [
      ['Name', 'Start'],
      ['Pour, north', '2 Mar 2026'],
      ['Two\nlines and a\ttab', ''],
    ];
    const lines = tableText(table)
      .split('\n')
      .map((line) => line.split('\t'));
    expect(lines).toEqual([table[0], table[1], ['Two lines and a tab', '']]);
  });

  test('dates have room for a date, names for more', () => {
    expect(columnWidth('start')).toBeGreaterThanOrEqual('28 Sep 2026'.length * 7);
    expect(columnWidth('notes')).toBeGreaterThan(columnWidth('percent'));
  });
});

describe('strips', () => {
  const monday = parseIsoDate('2026-03-02')!;
  const view = { from: monday, to: monday + 28 };

  test('what is pointed at stays where it is, nearer and farther', () => {
    for (const factor of [0.2, 0.5, 0.9, 1.1, 3])
      for (const share of [0, 0.1, 0.5, 1]) {
        const at = view.from + share * 28;
        const next = zoomed(view, factor, at);
        expect(next.to - next.from).toBeCloseTo(28 * factor, 9);
        expect((at - next.from) / (next.to - next.from)).toBeCloseTo(share, 9);
      }
  });

  test('nearer and nearer ends at two hours, farther and farther at a century', () => {
    let [near, far] = [view, view];
    for (let k = 0; k < 100; k++) {
      near = zoomed(near, 0.5, near.from + 0.3 * (near.to - near.from));
      far = zoomed(far, 2, monday);
    }
    expect((near.to - near.from) * 24).toBeCloseTo(2, 6);
    expect((far.to - far.from) / 365.25).toBeCloseTo(100, 6);
    // There and back again.
    expect(panned(panned(view, 0.25), -0.25)).toEqual(view);
  });

  test('ticks are without gap or overlap, and every name has room', () => {
    for (const days of [1, 7, 28, 180, 900, 6000])
      for (const width of [320, 700, 1600]) {
        const { upper, lower } = tieredTicks({ from: monday, to: monday + days }, width);
        for (const list of [upper, lower]) {
          list.forEach(({ tick }, k) => k > 0 && expect(tick.from).toBe(list[k - 1]!.tick.to));
          expect(list.some((t) => t.name !== '')).toBe(true);
        }
        expect(lower.length).toBeGreaterThanOrEqual(upper.length);
      }
  });

  test('times off are the times without work', () => {
    const off = timesOff(FIVE_DAY, view, 28 * 10);
    expect(off).toEqual([0, 1, 2, 3].map((week) => [monday + 7 * week + 5, monday + 7 * week + 7]));
    // With hours to be seen, what is left over is what the calendar works.
    const near = { from: monday, to: monday + 7 };
    const rest = timesOff(FIVE_DAY, near, 7 * 100).reduce((sum, [a, b]) => sum + b - a, 0);
    const worked = workingTimeOf(FIVE_DAY, 'minute', monday).between(monday * 1440, (monday + 7) * 1440);
    expect((7 - rest) * 1440).toBeCloseTo(worked, 6);
    expect(timesOff(FIVE_DAY, view, 28 * 2)).toEqual([]);
  });

  test('the ground shades them in order, within the strip', () => {
    expect(groundOf([], view)).toBe('');
    const at = [...groundOf(timesOff(FIVE_DAY, view, 280), view).matchAll(/ (-?[\d.]+)%/g)].map((m) => Number(m[1]));
    expect(at).toEqual([...at].sort((a, b) => a - b));
    expect(at[1]).toBeCloseTo((100 * 5) / 28, 1);
  });
});
