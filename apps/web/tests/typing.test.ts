import { FIVE_DAY, makeActivity, makePlan, makeLink, schedulePlan, MINUTES_PER_DAY } from '@clembo/core';
import { describe, expect, test } from '@jest/globals';
import { goAlong } from '@/features/structure/grid';
import { takenOf } from '@/features/structure/suggested';
import { screensMeant } from '@/ui/screens';
import { becomesGroup, drawn } from '@/workers/answers/drawn';
import { suggestionsFor } from '@/workers/answers/suggestions';

/** What typing and drawing in the ledger come to; expected values follow from the rules as they are told on screen. */

const held = (() => {
  const plan = makePlan({
    name: 'Typed',
    calendar: 'five',
    calendars: [{ ...FIVE_DAY, id: 'five' }],
    activities: [
      makeActivity({ ref: 'A1', name: 'Dig', duration: 2400, start: 29_000 * MINUTES_PER_DAY }),
      makeActivity({ ref: 'A2', name: 'Pour' }),
      makeActivity({ ref: 'A3', name: 'Pour' }),
      makeActivity({ ref: 'A10', name: 'Dig again', percent: 50 }),
      makeActivity({ ref: 'A11', name: 'Clear up' }),
    ],
    links: [makeLink({ from: 'A1', to: 'A2' })],
  });
  return { plan, schedule: schedulePlan(plan) };
})();
const taken = (field: string, text: string) => {
  const list = suggestionsFor(held, field, text);
  return list[takenOf(list, field, text)]?.text ?? null;
};

describe('what Enter takes of a list', () => {
  test.each([
    ['predecessors', 'A1', 'A1'],
    ['predecessors', 'a10', 'A10'],
    ['predecessors', 'dig', 'A1'],
    ['predecessors', 'A2, clear up', 'A2, A11'],
    ['predecessors', 'cl', 'A11'],
    ['kind', 'mil', 'milestone'],
    ['kind', 'activity', 'activity'],
  ])('%s “%s” is %s', (field, text, wanted) => expect(taken(field, text)).toBe(wanted));

  test('a name that two activities have is not decided', () => expect(taken('predecessors', 'pour')).toBeNull());
  test('nothing typed takes nothing', () => expect(taken('kind', '')).toBeNull());
  test('a field that takes other texts too is not changed to one that only holds what was typed', () => {
    const list = [{ text: 'North East', hint: '' }];
    expect(takenOf(list, 'code.zone', 'east')).toBe(-1);
    expect(takenOf(list, 'code.zone', 'nor')).toBe(0);
    expect(takenOf([{ text: 'Marine works', hint: 'MW' }], 'code.zone', 'mw')).toBe(0);
    // The hint of a line is its unit, which is no name of it.
    const lines = [
      { text: 'Main line', hint: 'm' },
      { text: 'Mole', hint: 'km' },
    ];
    expect(takenOf(lines, 'line', 'm')).toBe(0);
    expect(takenOf(lines, 'line', 'km')).toBe(0);
  });
});

describe('an activity that becomes a group', () => {
  const words = (ref: string) => drawn(held, { do: 'indent', ref })?.group;
  test('says what of its own gives way', () => {
    expect(words('A2')).toBe(
      '“Dig” is a group now. Its dates and length come from the rows in it. Its links count for the rows in it.',
    );
    expect(words('A11')).toBe('“Dig again” is a group now. Its progress comes from the rows in it.');
  });
  test('has nothing to say where it had nothing, or is a group already', () => {
    expect(words('A10')).toBeNull();
    expect(becomesGroup(held, { do: 'changeActivity', ref: 'A2', part: { name: 'x' } })).toBeNull();
  });
});

test('Tab goes through rows as through lines of text', () => {
  const went = (row: number, col: number, by: 1 | -1) => {
    let to: [number, number] = [-1, -1];
    goAlong({ row, col }, by, 3, (r, c) => {
      to = [r, c];
    });
    return to;
  };
  expect(went(4, 0, 1)).toEqual([4, 1]);
  expect(went(4, 2, 1)).toEqual([5, 0]);
  expect(went(4, 0, -1)).toEqual([3, 2]);
});

test.each([
  ['lines', 'Lines'],
  ['page', 'All pages'],
  ['status date', 'Standing'],
  ['date of status', 'Weekly round'],
  ['compute', 'Ledger'],
  ['holiday', 'Calendars'],
  ['baseline', 'Sources and editions'],
])('“%s” finds the screen %s', (text, title) => {
  const { titled, about } = screensMeant(text);
  expect([...titled, ...about].map((s) => s.title)).toContain(title);
});

test('nothing and nonsense find no screen', () => {
  for (const text of ['', '  ', 'winch fabrication']) expect(screensMeant(text)).toEqual({ titled: [], about: [] });
});
