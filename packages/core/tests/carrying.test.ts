import { describe, expect, test } from '@jest/globals';
import { applyCommand, buildOutline, carried, duplicated, makeActivity, makeLink, type Plan } from '../src/index';
import { planOf, seeded } from './helpers';

const plan = (rows: [ref: string, parent?: string][], links: [string, string][] = []): Plan => ({
  ...planOf([], []),
  activities: rows.map(([ref, parent]) => makeActivity({ ref, name: ref, parent: parent ?? null, percent: 50 })),
  links: links.map(([from, to]) => makeLink({ from, to })),
});

/** The tree as text, by names. */
function tree(p: Plan): string {
  const outline = buildOutline(p);
  const say = (list: readonly number[]): string =>
    list
      .map((i) => p.activities[i]!.name + (outline.children[i]!.length > 0 ? `(${say(outline.children[i]!)})` : ''))
      .join(' ');
  return say(outline.roots);
}

const yard = plan(
  [['A'], ['B'], ['C', 'B'], ['D', 'B'], ['E']],
  [
    ['A', 'C'],
    ['C', 'D'],
    ['D', 'E'],
  ],
);

describe('copies of activities', () => {
  test('a group is copied with what it holds and its inner links, without what happened', () => {
    const made = duplicated(yard, ['B', 'C'])!;
    const { plan: after, inverse } = applyCommand(yard, made.command);
    expect(tree(after)).toBe('A B(C D) B (2)(C D) E');
    expect(made.refs).toHaveLength(1);
    expect(after.links).toHaveLength(4);
    const copies = after.activities.filter((a) => !yard.activities.some((x) => x.ref === a.ref));
    expect(copies.map((a) => a.percent)).toEqual([null, null, null]);
    const [, c, d] = copies.map((a) => a.ref);
    expect(after.links[3]).toMatchObject({ from: c, to: d });
    expect(applyCommand(after, inverse).plan).toEqual(yard);
  });

  test('several are copied each behind its own', () => {
    const made = duplicated(yard, ['A', 'E'])!;
    expect(tree(applyCommand(yard, made.command).plan)).toBe('A A (2) B(C D) E E (2)');
  });

  test('a copy of a copy takes the next number', () => {
    const once = applyCommand(yard, duplicated(yard, ['A'])!.command).plan;
    expect(tree(applyCommand(once, duplicated(once, ['A'])!.command).plan)).toBe('A A (3) A (2) B(C D) E');
  });
});

describe('rows that are carried', () => {
  const after = (refs: string[], place: 'before' | 'behind' | 'into', target: string) => {
    const command = carried(yard, refs, place, target);
    return command ? tree(applyCommand(yard, command).plan) : 'nothing';
  };
  test('before, behind, into', () => {
    expect(after(['E'], 'before', 'A')).toBe('E A B(C D)');
    expect(after(['A'], 'behind', 'B')).toBe('B(C D) A E');
    expect(after(['A', 'E'], 'into', 'B')).toBe('B(C D A E)');
    expect(after(['B'], 'behind', 'E')).toBe('A E B(C D)');
    expect(after(['D'], 'before', 'C')).toBe('A B(D C) E');
    expect(after(['A', 'B'], 'behind', 'E')).toBe('E A B(C D)');
    expect(after(['C'], 'into', 'E')).toBe('A B(D) E(C)');
  });
  test('nothing is put into itself', () => {
    expect(after(['B'], 'into', 'C')).toBe('nothing');
    expect(after(['B'], 'behind', 'B')).toBe('nothing');
  });

  test('as nested lists are rearranged, on 400 random outlines, and back again', () => {
    const random = seeded(77);
    type Node = { name: string; held: Node[] };
    for (let round = 0; round < 400; round++) {
      const count = 3 + Math.floor(random() * 8);
      const rows = Array.from({ length: count }, (_, k): [string, string?] => {
        const up = Math.floor(random() * (k + 1));
        return up === k ? [`R${k}`] : [`R${k}`, `R${up}`];
      });
      const p = plan(rows);
      const pick = () => `R${Math.floor(random() * count)}`;
      const refs = [...new Set([pick(), pick()])];
      const target = pick();
      const place = (['before', 'behind', 'into'] as const)[Math.floor(random() * 3)]!;
      const command = carried(p, refs, place, target);
      // The same with lists: taken out in the order in which they stand, put in side by side.
      const build = (up: string | null): Node[] =>
        p.activities.filter((a) => a.parent === up).map((a) => ({ name: a.ref, held: build(a.ref) }));
      const roots = build(null);
      const taken: Node[] = [];
      const take = (list: Node[]): Node[] =>
        list.flatMap((n) => {
          if (refs.includes(n.name)) {
            taken.push(n);
            return [];
          }
          n.held = take(n.held);
          return [n];
        });
      const rest = take(roots);
      let placed = false;
      const put = (list: Node[]): Node[] =>
        list.flatMap((n) => {
          if (n.name !== target) {
            n.held = put(n.held);
            return [n];
          }
          placed = true;
          if (place === 'into') n.held = [...n.held, ...taken];
          return place === 'before' ? [...taken, n] : place === 'behind' ? [n, ...taken] : [n];
        });
      const wanted = put(rest);
      const say = (list: Node[]): string =>
        list.map((n) => n.name + (n.held.length > 0 ? `(${say(n.held)})` : '')).join(' ');
      expect([round, command !== null]).toEqual([round, placed]);
      if (!command) continue;
      const applied = applyCommand(p, command);
      expect([round, tree(applied.plan)]).toEqual([round, say(wanted)]);
      expect(applyCommand(applied.plan, applied.inverse).plan).toEqual(p);
    }
  });
});
