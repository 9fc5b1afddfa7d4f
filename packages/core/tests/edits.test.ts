import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  buildOutline,
  type Command,
  compareEditions,
  freeRef,
  indented,
  insertBehind,
  isSame,
  makeActivity,
  movedBy,
  outdented,
  type Plan,
} from '../src/index';
import { planOf, seeded } from './helpers';

/** `A B(C D) E` from references with their groups. */
const plan = (...rows: [ref: string, parent?: string][]): Plan => ({
  ...planOf([], []),
  activities: rows.map(([ref, parent]) => makeActivity({ ref, parent: parent ?? null })),
});
function tree(p: Plan): string {
  const outline = buildOutline(p);
  const say = (list: readonly number[]): string =>
    list
      .map((i) => p.activities[i]!.ref + (outline.children[i]!.length > 0 ? `(${say(outline.children[i]!)})` : ''))
      .join(' ');
  return say(outline.roots);
}
const after = (p: Plan, command: Command | null): string => (command ? tree(applyCommand(p, command).plan) : 'nothing');

/** The outline a second time, as nested lists that are moved about as lists are. */
type Listed = { ref: string; held: Listed }[];
const listed = (p: Plan, parent: string | null = null): Listed =>
  p.activities.filter((a) => a.parent === parent).map((a) => ({ ref: a.ref, held: listed(p, a.ref) }));
const written = (list: Listed): string =>
  list.map((n) => n.ref + (n.held.length > 0 ? `(${written(n.held)})` : '')).join(' ');
const among = (list: Listed, ref: string): Listed | null =>
  list.some((n) => n.ref === ref) ? list : (list.map((n) => among(n.held, ref)).find((x) => x !== null) ?? null);
const at = (list: Listed, ref: string): number => list.findIndex((n) => n.ref === ref);
function into(list: Listed, ref: string): Listed {
  const own = among(list, ref)!;
  const k = at(own, ref);
  const [it] = own.splice(k, 1);
  own[k - 1]!.held.push(it!);
  return list;
}
function out(list: Listed, ref: string): Listed {
  const own = among(list, ref)!;
  const holder = [...everyNode(list)].find((n) => n.held === own)!;
  const [it] = own.splice(at(own, ref), 1);
  const above = among(list, holder.ref)!;
  above.splice(at(above, holder.ref) + 1, 0, it!);
  return list;
}
function swap(list: Listed, ref: string, by: number): Listed {
  const own = among(list, ref)!;
  const k = at(own, ref);
  const [it] = own.splice(k, 1);
  own.splice(k + by, 0, it!);
  return list;
}
function* everyNode(list: Listed): Generator<Listed[number]> {
  for (const n of list) {
    yield n;
    yield* everyNode(n.held);
  }
}

const five = plan(['A'], ['B'], ['C', 'B'], ['D', 'B'], ['E']);

// Expectations by moving rows of a written outline by hand
describe('edits of the outline', () => {
  test.each<[string, string, string]>([
    ['into the one above', 'E', 'A B(C D E)'],
    ['a group with what it holds', 'B', 'A(B(C D)) E'],
    ['within a group', 'D', 'A B(C(D)) E'],
    ['the first of its group stays', 'C', 'nothing'],
    ['the first of all stays', 'A', 'nothing'],
  ])('in: %s', (_, ref, expected) => expect(after(five, indented(five, ref))).toBe(expected));

  test.each<[string, string, string]>([
    ['behind its group, not among what follows in it', 'C', 'A B(D) C E'],
    ['the last of a group', 'D', 'A B(C) D E'],
    ['at the top level', 'A', 'nothing'],
  ])('out: %s', (_, ref, expected) => expect(after(five, outdented(five, ref))).toBe(expected));

  test.each<[string, string, 1 | -1, string]>([
    ['up over a group', 'E', -1, 'A E B(C D)'],
    ['a group down', 'B', 1, 'A E B(C D)'],
    ['within its group', 'C', 1, 'A B(D C) E'],
    ['not out of it', 'D', 1, 'nothing'],
  ])('%s', (_, ref, by, expected) => expect(after(five, movedBy(five, ref, by))).toBe(expected));

  test('inserted behind a group and in a group', () => {
    const x = makeActivity({ ref: 'X' });
    expect(after(five, insertBehind(five, 'B', x))).toBe('A B(C D) X E');
    expect(after(five, insertBehind(five, 'C', x))).toBe('A B(C X D) E');
    expect(after(five, insertBehind(five, null, x))).toBe('A B(C D) E X');
  });

  test('also where rows stand in another order than the outline shows them, and all can be taken back', () => {
    const random = seeded(5);
    for (let k = 0; k < 400; k++) {
      const refs = Array.from({ length: 8 }, (_, i) => `N${i}`);
      const mixed = plan(
        ...refs.map((ref, i): [string, string?] =>
          i > 1 && random() < 0.6 ? [ref, refs[Math.floor(random() * i)]!] : [ref],
        ),
      );
      mixed.activities.sort(() => random() - 0.5);
      const ref = refs[Math.floor(random() * 8)]!;
      for (const [command, expected] of [
        [indented(mixed, ref), (list: Listed) => into(list, ref)],
        [outdented(mixed, ref), (list: Listed) => out(list, ref)],
        [movedBy(mixed, ref, 1), (list: Listed) => swap(list, ref, 1)],
        [movedBy(mixed, ref, -1), (list: Listed) => swap(list, ref, -1)],
      ] as const) {
        if (!command) continue;
        const { plan: made, inverse } = applyCommand(mixed, command);
        expect(tree(made)).toBe(written(expected(listed(mixed))));
        expect(isSame(compareEditions(mixed, applyCommand(made, inverse).plan))).toBe(true);
      }
    }
  });
});

test('a free reference', () => {
  expect([freeRef(five, 'S'), freeRef(plan(['S3'], ['S4']), 'S')]).toEqual(['S6', 'S5']);
});
