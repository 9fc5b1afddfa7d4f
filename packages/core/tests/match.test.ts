import { expect, test } from '@jest/globals';
import {
  compareEditions,
  isSame,
  keyOfFields,
  makeActivity,
  makeLink,
  matchByKey,
  type Plan,
  withEarlierReferences,
} from '../src/index';
import { planOf, seeded } from './helpers';

const plan = (rows: [ref: string, name: string, trade?: string][], links: [string, string][] = []): Plan => ({
  ...planOf([], []),
  activities: rows.map(([ref, name, trade]) =>
    makeActivity({ ref, name, ...(trade !== undefined && { codes: { trade } }) }),
  ),
  links: links.map(([from, to]) => makeLink({ from, to })),
});

test('by name: the same work under new references is no change', () => {
  const before = plan(
    [
      ['1', 'Dig'],
      ['2', 'Pour'],
      ['3', 'Cure'],
    ],
    [
      ['1', '2'],
      ['2', '3'],
    ],
  );
  // A row was put in above the others, so that every number moved.
  const after = plan(
    [
      ['1', 'Survey'],
      ['2', 'dig '],
      ['3', 'Pour'],
      ['4', 'Cure'],
    ],
    [
      ['2', '3'],
      ['3', '4'],
    ],
  );
  const matching = matchByKey(before, after, keyOfFields(['name']));
  expect([...matching.earlier]).toEqual([
    ['2', '1'],
    ['3', '2'],
    ['4', '3'],
  ]);
  const changes = compareEditions(before, withEarlierReferences(before, after, matching));
  expect(changes.added.map((a) => a.activity.name)).toEqual(['Survey']);
  expect(changes.changed.map((c) => [c.ref, c.kinds])).toEqual([['1', ['renamed']]]);
  expect([changes.removed, changes.linksAdded, changes.linksRemoved]).toEqual([[], [], []]);
});

test('what stands several times is doubtful until a person settles it; a code tells it apart', () => {
  const before = plan([
    ['a', 'Paint', 'North'],
    ['b', 'Paint', 'South'],
    ['c', 'Hand over', 'South'],
  ]);
  const after = plan([
    ['x', 'Paint', 'South'],
    ['y', 'Paint', 'North'],
    ['z', 'Hand over', 'South'],
  ]);
  const byName = matchByKey(before, after, keyOfFields(['name']));
  expect(byName.doubtful).toEqual([{ key: 'Paint', before: ['a', 'b'], after: ['x', 'y'] }]);
  expect([...byName.earlier]).toEqual([['z', 'c']]);
  const settled = matchByKey(before, after, keyOfFields(['name']), new Map([['x', 'b']]));
  expect([settled.doubtful, settled.earlier.get('y')]).toEqual([[], 'a']);
  const byCode = matchByKey(before, after, keyOfFields(['name', 'trade']));
  expect([...byCode.earlier].sort()).toEqual([
    ['x', 'b'],
    ['y', 'a'],
    ['z', 'c'],
  ]);
});

test('rows that the key says nothing about match nothing', () => {
  const blank = plan([
    ['a', ''],
    ['b', 'Dig', 'North'],
  ]);
  expect([...matchByKey(blank, blank, keyOfFields(['name', 'trade'])).earlier]).toEqual([['b', 'b']]);
});

test('an edition whose references are shuffled gives nothing; 500 plans', () => {
  for (let seed = 0; seed < 500; seed++) {
    const r = seeded(seed);
    const n = 2 + Math.floor(r() * 30);
    const refs = Array.from({ length: n }, (_, i) => `N${i}`);
    const shuffled = refs
      .map((ref) => [r(), ref] as const)
      .sort((a, b) => a[0] - b[0])
      .map(([, ref]) => ref);
    const links = refs.slice(1).map((_, k): [number, number] => [Math.floor(r() * (k + 1)), k + 1]);
    const made = (names: string[]) =>
      plan(
        names.map((ref, i) => [ref, `Work ${i}`]),
        links.map(([a, b]) => [names[a]!, names[b]!]),
      );
    const [before, after] = [made(refs), made(shuffled)];
    const matching = matchByKey(before, after, keyOfFields(['name']));
    expect(isSame(compareEditions(before, withEarlierReferences(before, after, matching)))).toBe(true);
  }
});
