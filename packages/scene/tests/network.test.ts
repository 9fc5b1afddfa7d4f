import { describe, expect, test } from '@jest/globals';
import {
  FIVE_DAY,
  makeActivity,
  makeField,
  makeLink,
  makePlan,
  makeValue,
  parseIsoDate,
  type Plan,
  schedulePlan,
  startOfDay,
} from '@clembo/core';
import { composeExhibit, leavesOf, NetworkBrief, type Scene, textOf } from '../src/index';
import { CARD_SIZE, layoutNetwork } from '../src/exhibits/network/layout';
import { monthOf } from '../src/exhibits/network/months';
import { selectNetwork } from '../src/exhibits/network/select';
import { crossings, orderColumns, withBends } from '../src/layered/order';
import { ranksOf } from '../src/layered/ranks';
import { inOrder } from '../src/layered/straighten';
import { type Trunk, tracksOf } from '../src/layered/tracks';
import { cardsOf, meet, piecesOf, textBoxes, through } from './cardPage';
import { measure, plainAmounts, seeded } from './fixtures';

const first = parseIsoDate('2026-01-05')!;

/** A made-up network: everything leads from somewhere before it, with some links that skip far, but for `far` at most. */
function randomNetwork(seed: number, count: number, far = count): Plan {
  const random = seeded(seed);
  const activities = Array.from({ length: count }, (_, i) =>
    makeActivity({
      ref: `A${i}`,
      name: `Work on part ${i} of the whole`.slice(0, 8 + Math.floor(random() * 20)),
      kind: random() < 0.15 ? 'finishMilestone' : 'activity',
      duration: random() < 0.15 ? 0 : 480 * (1 + Math.floor(random() * 20)),
      codes: { lane: `L${Math.floor(random() * 4)}`, trade: `T${Math.floor(random() * 3)}` },
      percent: random() < 0.3 ? Math.floor(random() * 100) : null,
    }),
  );
  const links = activities.flatMap((a, i) =>
    i === 0
      ? []
      : Array.from({ length: 1 + (random() < 0.4 ? 1 : 0) }, () => {
          const back = 1 + Math.floor(random() * Math.min(i, random() < 0.2 ? far : 6));
          return makeLink({
            from: `A${i - back}`,
            to: a.ref,
            type: random() < 0.8 ? 'FS' : random() < 0.5 ? 'SS' : 'FF',
            lag: random() < 0.2 ? 480 * Math.floor(random() * 9) : 0,
          });
        }),
  );
  const values = (letter: string, n: number) =>
    Array.from({ length: n }, (_, k) => makeValue({ code: `${letter}${k}`, title: `${letter} number ${k}` }));
  return makePlan({
    name: 'Made-up network',
    start: startOfDay(first),
    source: 'computed',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities,
    links: [...new Map(links.map((l) => [`${l.from} ${l.to}`, l])).values()],
    codeFields: [
      makeField({ id: 'lane', name: 'Lane', values: values('L', 4) }),
      makeField({ id: 'trade', name: 'Trade', values: values('T', 3) }),
    ],
  });
}

const briefOf = (part: Partial<NetworkBrief>): NetworkBrief => NetworkBrief.parse({ kind: 'network', ...part });
const compose = (plan: Plan, part: Partial<NetworkBrief> = {}): Scene =>
  composeExhibit({
    plan,
    schedule: schedulePlan(plan),
    brief: briefOf(part),
    measure,
    amounts: plainAmounts,
    edition: '',
    promised: null,
    editions: [],
  });

describe('pages of random networks', () => {
  const parts: Partial<NetworkBrief>[] = [
    {},
    { card: 'full', page: 'A1 landscape' },
    { card: 'dates', lanes: 'lane', page: 'A2 landscape' },
    { card: 'float', colour: 'trade', place: 'time', page: 'A1 landscape' },
    { card: 'dot', lanes: 'trade', page: 'A3 landscape' },
    { around: 'A9', way: 'both', steps: 2 },
    { only: 'critical', page: 'wide slide' },
  ];
  test.each([6, 20, 45, 120])(
    'of %i activities: no card over a card, no line through one, nothing off the page',
    (n) => {
      let readable = 0;
      for (let seed = 1; seed <= 6; seed++) {
        const plan = randomNetwork(seed * 31 + n, n);
        for (const part of parts) {
          const scene = compose(plan, part);
          if (!scene.fit.readable) continue;
          const cards = [...cardsOf(scene).values()];
          if (cards.length === 0) continue;
          readable++;
          for (const [i, a] of cards.entries()) {
            for (const b of cards.slice(i + 1)) expect(meet(a, b)).toBe(false);
            expect(a.left >= 0 && a.top >= 0 && a.right <= scene.width && a.bottom <= scene.height).toBe(true);
          }
          const pieces = piecesOf(scene);
          expect(pieces.filter((p) => cards.some((c) => through(p, c)))).toEqual([]);
          // Lines are level or upright; only corners are neither, and they are small.
          const slanted = pieces.filter((p) => p.right - p.left > 0.05 && p.bottom - p.top > 0.05);
          expect(slanted.filter((p) => p.right - p.left > 12 || p.bottom - p.top > 12)).toEqual([]);
          const texts = textBoxes(scene);
          for (const [i, a] of texts.entries()) {
            expect(
              texts
                .slice(i + 1)
                .filter((b) => meet(a, b))
                .map((b) => `${a.text} / ${b.text}`),
            ).toEqual([]);
            expect(pieces.filter((p) => through(p, a)).map(() => a.text)).toEqual([]);
          }
        }
      }
      expect(readable).toBeGreaterThan(n > 100 ? 4 : 20);
    },
  );

  test('every link is a line, or counted in a ring at both of its cards', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const plan = randomNetwork(seed, 40);
      for (const part of [{}, { place: 'time' as const }, { around: 'A20', way: 'both' as const, steps: 2 }]) {
        const scene = compose(plan, { ...part, card: 'dot', page: 'A1 landscape' });
        if (!scene.fit.readable) continue;
        const shown = new Set(cardsOf(scene).keys());
        const within = plan.links.filter((l) => shown.has(l.from) && shown.has(l.to)).length;
        const leaving = plan.links.filter((l) => shown.has(l.from) !== shown.has(l.to)).length;
        const lines = scene.nodes.filter((n) => n.type === 'path' && n.role === 'link' && !n.fill).length;
        const counted = leavesOf(scene.nodes).reduce(
          (sum, n) => sum + (n.type === 'text' && n.role === 'mark' ? Number(textOf(n)) : 0),
          0,
        );
        expect(lines + (counted - leaving) / 2).toBe(within);
      }
    }
  });

  test('by time, no card stands before one that starts in an earlier month', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const plan = randomNetwork(seed, 60);
      const schedule = schedulePlan(plan);
      const selection = selectNetwork(plan, schedule, briefOf({ place: 'time' }));
      const layout = layoutNetwork(selection, briefOf({ place: 'time' }), 'float', measure, ['']);
      const at = selection.cards.map((c, i) => ({ month: monthOf(c.start!), x: layout.x[i]! }));
      for (const a of at) for (const b of at) if (a.month < b.month) expect(a.x).toBeLessThan(b.x);
    }
  });

  test('the same network gives the same page; a renamed or progressed activity moves nothing', () => {
    const plan = randomNetwork(5, 40);
    const places = (p: Plan) => [...cardsOf(compose(p, { card: 'float', page: 'A1 landscape' }))];
    const before = places(plan);
    expect(places(plan)).toEqual(before);
    const changed = {
      ...plan,
      activities: plan.activities.map((a, i) => (i === 7 ? { ...a, name: 'Another', percent: 50 } : a)),
    };
    expect(places(changed)).toEqual(before);
  });

  test('what leads to an activity is what the links say, all the way', () => {
    const plan = randomNetwork(9, 60);
    const shown = new Set(cardsOf(compose(plan, { around: 'A40', card: 'dot', page: 'A1 landscape' })).keys());
    const wanted = new Set(['A40']);
    // Worked out plainly: again and again until nothing is added.
    for (let more = true; more; ) {
      more = false;
      for (const l of plan.links)
        if (wanted.has(l.to) && !wanted.has(l.from)) {
          wanted.add(l.from);
          more = true;
        }
    }
    expect([...shown].sort()).toEqual([...wanted].sort());
  });
});

describe('what a card says', () => {
  /** A textbook network of two ways, worked out by hand: A 3, B 4 after A, C 2 after A, D 5 after B and C. */
  const plan = makePlan({
    name: 'Two ways',
    start: startOfDay(first),
    source: 'computed',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities: [
      ['A', 3],
      ['B', 4],
      ['C', 2],
      ['D', 5],
    ].map(([ref, days]) => makeActivity({ ref: ref as string, name: `Task ${ref}`, duration: (days as number) * 480 })),
    links: [
      makeLink({ from: 'A', to: 'B' }),
      makeLink({ from: 'A', to: 'C' }),
      makeLink({ from: 'B', to: 'D' }),
      makeLink({ from: 'C', to: 'D', type: 'SS', lag: 480 }),
    ],
  });
  const scene = compose(plan, { card: 'full' });
  const says = (ref: string) =>
    leavesOf(scene.nodes).flatMap((n) => (n.type === 'text' && n.ref === ref && n.role === 'label' ? [textOf(n)] : []));

  test('early dates, duration, late dates, float: C may begin four days later', () => {
    // C: early Thu 8 to Fri 9 January; it starts at least a day before D (Wed 14), so its latest start is Tue 13.
    expect(says('C')).toEqual(['8 Jan 26', '2 d', '9 Jan 26', 'Task C', '13 Jan 26', '3 d', '14 Jan 26']);
    expect(says('B')).toEqual(['8 Jan 26', '4 d', '13 Jan 26', 'Task B', '8 Jan 26', '0 d', '13 Jan 26']);
  });

  test('critical links lie on top; kinds of links are written beside them', () => {
    const lines = scene.nodes.flatMap((n) =>
      n.type === 'path' && n.role === 'link' && !n.fill ? [n.strokeWidth!] : [],
    );
    expect(lines.slice(-2).every((w) => w > lines[0]!)).toBe(true);
    expect(leavesOf(scene.nodes).flatMap((n) => (n.type === 'text' && n.role === 'cell' ? [textOf(n)] : []))).toEqual([
      'SS +1 d',
    ]);
  });

  test('an activity that is gone is said, and so is a page without anything', () => {
    const gone = compose(plan, { around: 'X9' });
    expect(leavesOf(gone.nodes).some((n) => n.type === 'text' && textOf(n).includes('X9'))).toBe(true);
    const none = compose(plan, { where: { match: 'all', tests: [{ field: 'name', is: 'is', values: ['nothing'] }] } });
    expect(none.content.rows).toEqual([]);
  });
});

describe('the layout', () => {
  const random = seeded(77);
  const edgesOf = (n: number, m: number) => {
    const list = Array.from({ length: m }, () => {
      const a = Math.floor(random() * (n - 1));
      return [a, a + 1 + Math.floor(random() * (n - a - 1))] as const;
    });
    return { from: Int32Array.from(list, (e) => e[0]), to: Int32Array.from(list, (e) => e[1]) };
  };

  test('crossings are those of counting each pair; ordering takes some away and keeps lanes together', () => {
    for (let k = 0; k < 20; k++) {
      const n = 12 + k;
      const edges = edgesOf(n, 2 * n);
      const { rank, forward } = ranksOf(n, edges);
      const c = withBends(rank, edges, forward);
      const lane = Int32Array.from({ length: c.count }, (_, i) => (i < n ? i % 2 : 0));
      const place = new Float64Array(c.count);
      const count = (columns: number[][]) => {
        for (const list of columns) list.forEach((i, p) => (place[i] = p));
        return crossings(c, columns, place);
      };
      const plainly = (columns: number[][]) => {
        count(columns);
        let sum = 0;
        for (let a = 0; a < c.edges.from.length; a++)
          for (let b = a + 1; b < c.edges.from.length; b++) {
            const [p, q] = [c.edges.from[a]!, c.edges.from[b]!];
            const column = (i: number) => columns.findIndex((list) => list.includes(i));
            if (column(p) !== column(q)) continue;
            const d = (place[p]! - place[q]!) * (place[c.edges.to[a]!]! - place[c.edges.to[b]!]!);
            if (d < 0) sum++;
          }
        return sum;
      };
      const ordered = orderColumns(c, lane);
      expect(count(ordered)).toBe(plainly(ordered));
      const unordered = c.columns.map((list) => [...list].sort((i, j) => lane[i]! - lane[j]! || i - j));
      expect(count(ordered)).toBeLessThanOrEqual(count(unordered));
      for (const list of ordered) expect(list.map((i) => lane[i]!)).toEqual(list.map((i) => lane[i]!).sort());
    }
  });

  test('nothing stands before what leads to it, also where links go in circles', () => {
    const edges = { from: Int32Array.of(0, 1, 2, 3), to: Int32Array.of(1, 2, 0, 2) };
    const { rank, forward } = ranksOf(4, edges);
    expect(forward.filter((f) => f === 1).length).toBe(3);
    edges.from.forEach((a, e) => forward[e] && expect(rank[a]!).toBeLessThan(rank[edges.to[e]!]!));
  });

  test('places in an order are the nearest ones: no small move comes nearer', () => {
    for (let k = 0; k < 200; k++) {
      const n = 2 + Math.floor(random() * 8);
      const wanted = Array.from({ length: n }, () => random() * 30);
      const half = Array.from({ length: n }, () => 0.5 + random());
      const placed = inOrder(wanted, half, -1e6, 1e6);
      const cost = (p: readonly number[]) => p.reduce((sum, v, i) => sum + (v - wanted[i]!) ** 2, 0);
      const apart = (p: readonly number[]) =>
        p.every((v, i) => i === 0 || v - p[i - 1]! >= half[i]! + half[i - 1]! - 1e-9);
      expect(apart(placed)).toBe(true);
      for (let t = 0; t < 20; t++) {
        const other = placed.map((v) => v + (random() - 0.5) * 0.5);
        if (apart(other)) expect(cost(other)).toBeGreaterThan(cost(placed) - 1e-9);
      }
    }
  });

  test('lines on one track do not touch', () => {
    for (let k = 0; k < 100; k++) {
      const trunks = Array.from({ length: 1 + Math.floor(random() * 12) }, (): Trunk => {
        const [enters, leaves] = [random() * 40, [random() * 40, random() * 40]];
        return { enters, leaves, top: Math.min(enters, ...leaves), bottom: Math.max(enters, ...leaves) };
      });
      const { track, count } = tracksOf(trunks, 0.3);
      expect(Math.max(...track)).toBeLessThan(count);
      trunks.forEach((a, i) =>
        trunks.slice(i + 1).forEach((b, j) => {
          if (track[i] === track[i + 1 + j]) expect(a.top < b.bottom && b.top < a.bottom).toBe(false);
        }),
      );
    }
  });
});

test('a new activity at the end of a network leaves the order of the others as it was, all but a few', () => {
  let [kept, all] = [0, 0];
  for (let seed = 1; seed <= 30; seed++) {
    const plan = randomNetwork(seed, 45);
    const more = makePlan({
      ...plan,
      activities: [...plan.activities, makeActivity({ ref: 'NEW', name: 'New', duration: 480 })],
      links: [...plan.links, makeLink({ from: `A${20 + (seed % 20)}`, to: 'NEW' })],
    });
    const page = { page: 'A1 landscape' } as const;
    const [a, b] = [compose(plan, page).cards!.cards, compose(more, page).cards!.cards];
    const after = new Map(b.map((c) => [c.ref, c]));
    for (const [k, x] of a.entries())
      for (const y of a.slice(k + 1)) {
        if (x.column !== y.column) continue;
        all++;
        const same = Math.sign(x.top - y.top) === Math.sign(after.get(x.ref)!.top - after.get(y.ref)!.top);
        if (same && after.get(x.ref)!.column === x.column) kept++;
      }
  }
  expect(all).toBeGreaterThan(500);
  expect(kept / all).toBeGreaterThan(0.9);
});

describe('what a network shows, and what is set by hand', () => {
  const plan = makePlan({
    name: 'Small',
    start: startOfDay(first),
    source: 'computed',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities: [
      makeActivity({ ref: 'A', name: 'Draw', duration: 480 * 5, responsible: ['Office'] }),
      makeActivity({ ref: 'B', name: 'Order', duration: 480 * 2, responsible: ['Office', 'Yard'] }),
      makeActivity({ ref: 'C', name: 'Build', duration: 480 * 10, responsible: ['Site'] }),
      makeActivity({ ref: 'D', name: 'Print', duration: 480, responsible: ['Office', 'Site'] }),
      makeActivity({ ref: 'E', name: 'Open', kind: 'finishMilestone', duration: 0, responsible: ['Site'] }),
    ],
    links: [
      makeLink({ from: 'A', to: 'B' }),
      makeLink({ from: 'B', to: 'C' }),
      makeLink({ from: 'A', to: 'D' }),
      makeLink({ from: 'C', to: 'E' }),
      makeLink({ from: 'D', to: 'E' }),
    ],
  });
  const refs = (scene: Scene) => scene.cards!.cards.map((c) => c.ref).sort();

  test('the longest path alone, of the plan and to an activity; links that leave it are counted', () => {
    const scene = compose(plan, { only: 'longest' });
    expect(refs(scene)).toEqual(['A', 'B', 'C', 'E']);
    expect(refs(compose(plan, { only: 'longest', around: 'D' }))).toEqual(['A', 'D']);
    expect(scene.blind!.links).toBe(2);
    expect(scene.blind!.mends.map((m) => m.words)).toContain('leave nothing out');
  });

  test('a card of two neighbouring lanes spans them; lanes are put so that they are neighbours', () => {
    const scene = compose(plan, { lanes: 'responsible', page: 'A2 landscape' });
    const { lanes, cards } = scene.cards!;
    const titles = lanes.map((l) => l.title);
    expect([...titles].sort()).toEqual(['Office', 'Site', 'Yard']);
    // Office shares work with both others, so it stands between them.
    expect(titles[1]).toBe('Office');
    const heights = new Map(cards.map((c) => [c.ref, c.height]));
    const one = heights.get('A')!;
    for (const ref of ['B', 'D']) expect(heights.get(ref)!).toBeGreaterThan(one * 1.5);
    const boxes = [...cardsOf(scene).values()];
    expect(boxes.flatMap((a, i) => boxes.slice(i + 1).filter((b) => meet(a, b)))).toEqual([]);
  });

  test('a card that is put later moves what follows it, never before what leads to it, and says where it is gone', () => {
    const column = (placed: NetworkBrief['placed'], ref: string) =>
      compose(plan, { placed }).cards!.cards.find((c) => c.ref === ref)!.column;
    expect(column([], 'D')).toBe(1);
    expect(column([{ ref: 'D', later: 1, y: null }], 'D')).toBe(2);
    expect([column([{ ref: 'D', later: 4, y: null }], 'D'), column([{ ref: 'D', later: 4, y: null }], 'E')]).toEqual([
      5, 6,
    ]);
    const scene = compose(plan, { placed: [{ ref: 'gone', later: 2, y: 3 }] });
    expect(scene.cards!.unplaced).toEqual(['gone']);
  });

  test('a height by hand is kept, and the others make room', () => {
    const middle = (scene: Scene, ref: string) => {
      const { cards, lanes, unit } = scene.cards!;
      const c = cards.find((x) => x.ref === ref)!;
      return (c.top + c.height / 2 - lanes[0]!.top) / unit;
    };
    const page = { card: 'dates', page: 'A3 landscape' } as const;
    const before = middle(compose(plan, page), 'B');
    const wanted = before + 6;
    const scene = compose(plan, { ...page, placed: [{ ref: 'B', later: 0, y: wanted }] });
    // The top of a lane is that of its highest card, which may have moved too.
    expect(Math.abs(middle(scene, 'B') - wanted)).toBeLessThan(1);
    const boxes = [...cardsOf(scene).values()];
    expect(boxes.flatMap((a, i) => boxes.slice(i + 1).filter((b) => meet(a, b)))).toEqual([]);
  });

  test('a note on a card stands beside it; one whose card is not there is listed', () => {
    const note = (id: string, ref: string) => ({
      kind: 'text' as const,
      id,
      anchor: { ref, at: 'finish' as const, dx: 1, dy: 1 },
      text: 'By sea',
      width: 16,
      line: true,
    });
    const scene = compose(plan, { marks: [note('n1', 'C'), note('n2', 'gone')] });
    const drawn = scene.nodes.filter((n) => n.type === 'group' && n.note !== undefined);
    expect(drawn).toHaveLength(1);
    expect(scene.handles!.unplaced.map((u) => [u.note, u.gone])).toEqual([['n2', true]]);
  });
});

describe('large networks', () => {
  /** Of a layout: cards that lie over each other, and pieces of lines that run through cards, found column by column. */
  function faults(plan: Plan, part: Partial<NetworkBrief>, kind: 'full' | 'dot') {
    const brief = briefOf(part);
    const selection = selectNetwork(plan, schedulePlan(plan), brief);
    const layout = layoutNetwork(selection, brief, kind, measure, [
      ...new Set(selection.cards.flatMap((c) => c.lanes)),
    ]);
    const half = CARD_SIZE[kind].height / 2;
    const byColumn = new Map<number, number[]>();
    layout.rank.forEach((k, i) => byColumn.set(k, [...(byColumn.get(k) ?? []), layout.y[i]!]));
    for (const ys of byColumn.values()) ys.sort((a, b) => a - b);
    let over = 0;
    for (const ys of byColumn.values()) ys.forEach((y, n) => n > 0 && y - ys[n - 1]! < 2 * half - 1e-6 && over++);
    const isThrough = (k: number, y: number): boolean => {
      const ys = byColumn.get(k) ?? [];
      let [low, high] = [0, ys.length];
      while (low < high) {
        const middle = (low + high) >> 1;
        if (ys[middle]! < y) low = middle + 1;
        else high = middle;
      }
      return [ys[low - 1], ys[low]].some((c) => c !== undefined && Math.abs(c - y) < half - 1e-6);
    };
    let hit = 0;
    let drawn = 0;
    selection.lines.forEach((l, e) => {
      const route = layout.routes[e];
      if (!route) return;
      drawn++;
      for (let p = 0; p + 1 < route.length; p++) {
        const [[x1, y1], [x2, y2]] = [route[p]!, route[p + 1]!];
        for (let k = layout.rank[l.from]! + 1; k < layout.rank[l.to]!; k++) {
          const { x, width } = layout.columns[k]!;
          // A level piece passes a column; an upright one stands between columns.
          if (y1 === y2 && x1 < x + width - 1e-6 && x2 > x + 1e-6 && isThrough(k, y1)) hit++;
          if (x1 === x2 && x1 > x && x1 < x + width) hit++;
        }
      }
    });
    const ringed = selection.lines.filter((_, e) => layout.routes[e] === null).length;
    return { over, hit, all: drawn + ringed === selection.lines.length, cards: selection.cards.length };
  }

  test.each([
    [500, {}],
    [500, { place: 'time' }],
    [2000, { lanes: 'lane' }],
    [2000, { place: 'time', lanes: 'trade' }],
    [5000, {}],
    [5000, { place: 'time' }],
  ] as [number, Partial<NetworkBrief>][])(
    'of %i activities, %j: no card over a card, no line through one',
    (n, part) => {
      const plan = randomNetwork(n, n, 60);
      for (const kind of ['full', 'dot'] as const) {
        const { cards, ...found } = faults(plan, part, kind);
        expect(cards).toBe(n);
        expect(found).toEqual({ over: 0, hit: 0, all: true });
      }
    },
  );
});
