import { describe, expect, test } from '@jest/globals';
import {
  FIVE_DAY,
  linearWorks,
  makeActivity,
  makePlan,
  parseIsoDate,
  type Plan,
  placeWords,
  readPlace,
  schedulePlan,
  SEVEN_DAY,
  startOfDay,
  startsWithBuffer,
  checkPlan,
  isComplete,
} from '@clembo/core';
import {
  composeExhibit,
  defaultBrief,
  leavesOf,
  type LinearBrief,
  type PlaneShape,
  type Scene,
  type SceneNode,
  textOf,
  type TextNode,
} from '../src/index';
import { dashes, hatch, simplified } from '../src/exhibits/linear/plane';
import { boxShape, meets, shapeOf, turnedBox } from '../src/exhibits/linear/obstacles';
import { measure, plainAmounts, seeded } from './fixtures';

const day0 = parseIsoDate('2026-03-02')!;
const compose = (plan: Plan, part: Partial<LinearBrief> = {}): Scene =>
  composeExhibit({
    plan,
    schedule: schedulePlan(plan),
    brief: { ...defaultBrief('linear'), page: 'A2 landscape', ...part },
    measure,
    amounts: plainAmounts,
    edition: '',
    promised: null,
    editions: [],
  });

const line = (part: object = {}) => ({
  id: 'L',
  name: 'Pipe',
  unit: 'm',
  from: 0,
  to: 2_600_000,
  stations: [],
  zones: [],
  windows: [],
  ...part,
});

/** Made-up work on a line: some of it holds its stretch, some is done, all of it has dates of its own. */
function randomLine(seed: number, count: number): Plan {
  const random = seeded(seed);
  const below = (n: number) => Math.floor(random() * n);
  return makePlan({
    name: 'Made up',
    start: startOfDay(day0),
    source: 'given',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    statusDate: startOfDay(day0 + 40),
    lines: [
      line({
        stations: Array.from({ length: 6 }, (_, k) => ({ name: `Station ${k}`, at: k * 520_000 })),
        zones: [
          { name: 'North', from: 0, to: 1_300_000 },
          { name: 'South', from: 1_300_000, to: 2_600_000 },
        ],
        windows: [
          {
            name: 'Closed for birds',
            from: 400_000,
            to: 1_700_000,
            start: startOfDay(day0 + 30),
            finish: startOfDay(day0 + 70),
          },
        ],
      }),
    ],
    activities: Array.from({ length: count }, (_, i) => {
      const start = day0 + below(200);
      const [from, to] = [below(26) * 100, below(26) * 100];
      return makeActivity({
        ref: `A${i}`,
        name: `Work on part ${i} of the line`.slice(0, 8 + below(20)),
        start: startOfDay(start),
        finish: startOfDay(start + 5 + below(60)),
        from: from * 1000,
        to: (to === from ? to + 100 : to) * 1000,
        occupies: random() < 0.15,
        rate: random() < 0.4 ? 5 + below(60) : null,
        percent: random() < 0.4 ? below(101) : null,
        crews: random() < 0.3 ? 1 + below(4) : null,
        quantity: below(3) * 1000,
      });
    }),
  });
}

/** Where a place and a day lie, worked out from the borders of the plot alone. */
const onPage = (p: PlaneShape, place: number, day: number): [number, number] => {
  const [a, b] = [(place - p.place0) / (p.place1 - p.place0), (day - p.day0) / (p.day1 - p.day0)];
  return p.across
    ? [p.left + a * (p.right - p.left), p.top + b * (p.bottom - p.top)]
    : [p.left + b * (p.right - p.left), p.bottom - a * (p.bottom - p.top)];
};

const items = (scene: Scene) =>
  new Map(
    scene.nodes.flatMap((n): [string, SceneNode[]][] =>
      n.type === 'group' && n.role === 'item' ? [[n.ref!, n.children]] : [],
    ),
  );
const labelShape = (t: TextNode) =>
  turnedBox(
    [t.x, t.y],
    t.runs.reduce((sum, r) => sum + measure.width(r.face, t.size, r.text), 0),
    t.size * 0.7,
    t.size * 0.1,
    ((t.turn ?? 0) * Math.PI) / 180,
  );

describe('pages of random work on a line', () => {
  const forms: Partial<LinearBrief>[] = [
    {},
    { axes: 'up', quantities: true },
    { backwards: true, gaps: true, crews: true, quantities: true, workedDays: true },
    { axes: 'up', fromPlace: 500_000, toPlace: 1_500_000, page: 'A3 landscape' },
    { from: startOfDay(day0 + 20), to: startOfDay(day0 + 120), wide: true },
  ];
  test.each([5, 25, 60])(
    '%i works: no label over a label, nothing outside the plot, ends where dates and places say',
    (count) => {
      let checked = 0;
      for (let seed = 1; seed <= (count > 30 ? 7 : 15); seed++) {
        const plan = randomLine(seed * 17 + count, count);
        const scene = compose(plan, forms[seed % forms.length]!);
        const about = `seed ${seed}`;
        const plane = scene.plane!;
        const labels = leavesOf(scene.nodes).filter((n): n is TextNode => n.type === 'text' && n.role === 'label');
        const shapes = labels.map(labelShape);
        const over = shapes.flatMap((a, i) =>
          shapes.slice(i + 1).flatMap((b, j) => (meets(a, b) ? [[i, i + 1 + j]] : [])),
        );
        expect([about, over.map((p) => p.map((k) => textOf(labels[k]!)))]).toEqual([about, []]);
        const marks = leavesOf([...items(scene).values()].flat());
        const reach = marks.flatMap((m): [number, number][] =>
          m.type === 'path'
            ? m.steps.flatMap((s): [number, number][] => (s[0] === 'M' || s[0] === 'L' ? [[s[1], s[2]]] : []))
            : m.type === 'rect'
              ? [
                  [m.x, m.y],
                  [m.x + m.width, m.y + m.height],
                ]
              : [],
        );
        const outside = reach.filter(
          ([x, y]) => x < plane.left - 0.1 || x > plane.right + 0.1 || y < plane.top - 0.1 || y > plane.bottom + 0.1,
        );
        expect([about, outside]).toEqual([about, []]);
        for (const [ref, parts] of items(scene)) {
          const a = plan.activities.find((x) => x.ref === ref)!;
          // What begins on a day off, or while its place is closed, begins later: that is checked in core.
          const start = a.start! / 1440;
          const weekday = (start + 3) % 7 < 5;
          // What is complete has happened, and not after the status date, whatever its dates say.
          const early = a.percent === 100 && a.finish! > plan.statusDate!;
          if (a.occupies || !weekday || early) continue;
          const w = plan.lines[0]!.windows[0]!;
          const closed = a.from! >= w.from && a.from! <= w.to && a.start! >= w.start && a.start! < w.finish;
          if (closed) continue;
          const [x, y] = onPage(plane, a.from! / 1000, start);
          if (x < plane.left || x > plane.right || y < plane.top || y > plane.bottom) continue;
          const circles = leavesOf(parts).filter((n) => n.type === 'circle');
          const near = circles.some((c) => c.type === 'circle' && Math.hypot(c.x - x, c.y - y) < 0.1);
          expect([about, ref, near]).toEqual([about, ref, true]);
          checked++;
        }
      }
      expect(checked).toBeGreaterThan(count * 3);
    },
  );

  test('a flowline that runs through a closed window is hatched and told, and no other', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const plan = randomLine(seed, 30);
      const scene = compose(plan);
      const w = plan.lines[0]!.windows[0]!;
      const through = new Set<string>();
      const findings = new Set(
        checkPlan(plan, schedulePlan(plan)).flatMap((f) => (f.code === 'inClosedWindow' ? f.refs : [])),
      );
      const a = onPage(scene.plane!, w.from / 1000, w.start / 1440);
      const b = onPage(scene.plane!, w.to / 1000, w.finish / 1440);
      const closed = boxShape({
        left: Math.min(a[0], b[0]) + 0.3,
        right: Math.max(a[0], b[0]) - 0.3,
        top: Math.min(a[1], b[1]) + 0.3,
        bottom: Math.max(a[1], b[1]) - 0.3,
      });
      for (const [ref, parts] of items(scene)) {
        const bar = leavesOf(parts).find((n) => n.type === 'path' && n.role === 'bar');
        if (bar?.type !== 'path') continue;
        let at: [number, number] = [0, 0];
        for (const s of bar.steps) {
          if (s[0] !== 'M' && s[0] !== 'L') continue;
          const next: [number, number] = [s[1], s[2]];
          const still = Math.abs(next[0] - at[0]) < 0.02;
          // Waiting at a place while it is closed is no work.
          if (s[0] === 'L' && !still && meets(shapeOf([at, next]), closed)) through.add(ref);
          at = next;
        }
        const told = findings.has(ref);
        // What is done is past.
        if (through.has(ref) && !isComplete(plan.activities.find((a) => a.ref === ref)!)) {
          expect([seed, ref, told]).toEqual([seed, ref, true]);
          expect(leavesOf(parts).some((n) => n.type === 'path' && n.role === 'mark')).toBe(true);
        }
      }
    }
  });
});

describe('worked examples', () => {
  test('a line of 300 km with four weeks between six trades ends after 68 weeks (common practice)', () => {
    const weeks = [9, 20, 15, 30, 43, 20];
    const trade = (k: number, start: number) =>
      makeActivity({
        ref: `T${k}`,
        name: `Trade ${k}`,
        from: 0,
        to: 300_000,
        rate: 300 / (weeks[k]! * 7),
        start: startOfDay(start),
        finish: startOfDay(start + weeks[k]! * 7),
      });
    const plan = (starts: number[]) =>
      makePlan({
        name: 'Pipe',
        start: startOfDay(day0),
        source: 'given',
        calendars: [SEVEN_DAY],
        calendar: SEVEN_DAY.id,
        lines: [line({ unit: 'km', to: 300_000 })],
        activities: starts.map((s, k) => trade(k, day0 + s)),
      });
    const all = plan(weeks.map(() => 0));
    const { works } = linearWorks(all, schedulePlan(all));
    const placed = startsWithBuffer(
      works.map((w) => ({ work: w.work, time: null, windows: [] })),
      day0,
      { days: 28, distance: 0 },
    );
    expect(placed.map((p) => Math.round((p.start - day0) / 7))).toEqual([0, 4, 13, 17, 21, 48]);
    expect(placed.map((p) => Math.round((p.finish - day0) / 7))).toEqual([9, 24, 28, 47, 64, 68]);
    // Drawn, every line ends where that says, and no two come closer.
    const scene = compose(plan(placed.map((p) => Math.round(p.start - day0))), { keep: 28, gaps: true });
    expect(scene.title).not.toContain('clash');
    const gaps = leavesOf(scene.nodes).filter((n) => n.type === 'text' && n.role === 'mark');
    expect(gaps.map((n) => textOf(n as TextNode))).toContain('28 d');
    const plane = scene.plane!;
    [9, 24, 28, 47, 64, 68].forEach((week, k) => {
      const [x, y] = onPage(plane, 300, day0 + week * 7);
      const ends = leavesOf(items(scene).get(`T${k}`)!).filter((n) => n.type === 'circle');
      expect(Math.min(...ends.map((c) => (c.type === 'circle' ? Math.hypot(c.x - x, c.y - y) : 99)))).toBeLessThan(0.1);
    });
    // A day less than asked for is told, with the pair.
    const close = compose(plan(placed.map((p, k) => Math.round(p.start - day0) - (k === 1 ? 1 : 0))), { keep: 28 });
    expect(close.title).toContain('1 buffer too small');
    expect(JSON.stringify(close.nodes)).toContain('Trade 1 comes 27 calendar days behind Trade 0 at 0');
  });

  test('what is done is drawn up to its place', () => {
    const plan = makePlan({
      name: 'Pipe',
      start: startOfDay(day0),
      source: 'given',
      calendars: [SEVEN_DAY],
      calendar: SEVEN_DAY.id,
      lines: [line()],
      activities: [
        makeActivity({
          ref: 'A',
          name: 'Trench',
          from: 0,
          to: 2_000_000,
          start: startOfDay(day0),
          finish: startOfDay(day0 + 20),
          percent: 25,
        }),
      ],
    });
    const scene = compose(plan);
    const done = leavesOf(items(scene).get('A')!).find((n) => n.role === 'progress')!;
    const [x, y] = onPage(scene.plane!, 500, day0 + 5);
    expect(done.type === 'path' && done.steps.at(-1)!.slice(1)).toEqual([expect.closeTo(x, 1), expect.closeTo(y, 1)]);
  });
});

describe('a part of a line', () => {
  const work = (ref: string, from: number, to: number, start: number, days: number, part: object = {}) =>
    makeActivity({
      ref,
      name: ref,
      from: from * 1000,
      to: to * 1000,
      start: startOfDay(day0 + start),
      finish: startOfDay(day0 + start + days),
      ...part,
    });
  const plan = makePlan({
    name: 'Parts',
    start: startOfDay(day0),
    source: 'given',
    calendars: [SEVEN_DAY],
    calendar: SEVEN_DAY.id,
    lines: [line()],
    activities: [
      work('all', 0, 2000, 0, 40),
      work('first', 0, 500, 50, 10),
      work('second', 500, 1000, 100, 10),
      // Both are in the second part at the same time; they meet at 750 m.
      work('there', 1000, 500, 100, 10),
      work('held', 0, 400, 60, 5, { occupies: true }),
    ],
  });

  test('shows what is on it, in the days in which that is there; all else is outside', () => {
    const scene = compose(plan, { fromPlace: 0, toPlace: 500_000 });
    expect([...items(scene).keys()].sort()).toEqual(['all', 'first', 'held']);
    expect(scene.fit.counts).toMatchObject({ of: 5, shown: 3, outside: 2, leftOut: 0 });
    // By hand: all of it is past 500 m after 10 of 40 days, so the page ends with what holds its stretch, at day 65.
    const { day0: from, day1: to } = scene.plane!;
    expect([from <= day0, to >= day0 + 65, to < day0 + 75]).toEqual([true, true, true]);
    // What only touches its end is not on it, and no clash elsewhere is told.
    expect(scene.title).toBe('Work along Pipe, 0 to 500 m, runs to 5 May 2026');
  });

  test('by the names of its sections where it is cut at them', () => {
    const zones = [
      { name: 'West', from: 0, to: 500_000 },
      { name: 'Middle', from: 500_000, to: 1_000_000 },
    ];
    const named = { ...plan, lines: [{ ...plan.lines[0]!, zones }] };
    const title = (fromPlace: number, toPlace: number) => compose(named, { fromPlace, toPlace }).title;
    expect(title(0, 500_000)).toContain(', West, runs');
    expect(title(0, 1_000_000)).toContain(', West to Middle, runs');
    expect(title(0, 600_000)).toContain(', 0 to 600 m, runs');
  });

  test('the same in time', () => {
    const scene = compose(plan, { from: startOfDay(day0 + 90), to: startOfDay(day0 + 120) });
    expect([...items(scene).keys()].sort()).toEqual(['second', 'there']);
    expect(scene.fit.counts).toMatchObject({ shown: 2, outside: 3 });
    expect(scene.title).toContain('1 clash on the way');
    const none = compose(plan, { from: startOfDay(day0 + 200), to: startOfDay(day0 + 220) });
    expect(leavesOf(none.nodes).some((n) => n.type === 'text' && textOf(n).startsWith('Nothing goes on'))).toBe(true);
  });
});

describe('places in words', () => {
  test.each([
    ['chainage', 12_350_000, '12+350'],
    ['chainage', -100_000, '0−100'],
    ['chainage', 2_350_500, '2+350.5'],
    ['m', 1_200_000, '1200'],
    ['m', 12_600_000, '12,600'],
    ['floors', 7_000, '7'],
  ])('%s %i is %s, and is read back', (unit, place, text) => {
    expect(placeWords(place, unit)).toBe(text);
    expect(readPlace(text, unit)).toBe(place);
  });
  test('what is no place is none', () => {
    for (const text of ['', 'here', '12+', '1.2.3', 'km']) expect(readPlace(text, 'chainage')).toBeNull();
    expect(readPlace('km 12+350', 'chainage')).toBe(12_350_000);
    for (const text of ['-0+250', '−0+250', '0-250']) expect(readPlace(text, 'chainage')).toBe(-250_000);
    expect(readPlace('-0-250', 'chainage')).toBeNull();
    expect(readPlace('350 m', 'm')).toBe(350_000);
    expect(readPlace('1,5', 'km')).toBe(1500);
  });
});

describe('geometry', () => {
  test('dashes and gaps add up; hatching stays in its box; a simpler line stays near', () => {
    const list = dashes(
      [
        [0, 0],
        [100, 0],
      ],
      6,
      4,
    );
    expect(list).toHaveLength(10);
    expect(list.reduce((sum, [a, b]) => sum + b[0] - a[0], 0)).toBeCloseTo(60);
    for (const [a, b] of hatch({ left: 10, right: 50, top: 20, bottom: 35 }, 4))
      for (const [x, y] of [a, b]) {
        expect(x).toBeGreaterThanOrEqual(10 - 1e-9);
        expect(x).toBeLessThanOrEqual(50 + 1e-9);
        expect(y).toBeGreaterThanOrEqual(20 - 1e-9);
        expect(y).toBeLessThanOrEqual(35 + 1e-9);
      }
    expect(
      simplified(
        [
          [0, 0],
          [5, 0.1],
          [10, 0],
        ],
        0.2,
      ),
    ).toEqual([
      [0, 0],
      [10, 0],
    ]);
    expect(
      simplified(
        [
          [0, 0],
          [5, 1],
          [10, 0],
        ],
        0.2,
      ),
    ).toHaveLength(3);
  });

  test('turned boxes meet as their areas do (counted point by point)', () => {
    const random = seeded(5);
    let met = 0;
    for (let k = 0; k < 300; k++) {
      const a = turnedBox([random() * 40, random() * 40], 5 + random() * 20, 3, 1, random() * 6);
      const b = turnedBox([random() * 40, random() * 40], 5 + random() * 20, 3, 1, random() * 6);
      const inside = (s: typeof a, x: number, y: number) => {
        let sign = 0;
        for (let i = 0; i < 4; i++) {
          const [p, q] = [s.corners[i]!, s.corners[(i + 1) % 4]!];
          const t = Math.sign((q[0] - p[0]) * (y - p[1]) - (q[1] - p[1]) * (x - p[0]));
          if (t !== 0 && sign !== 0 && t !== sign) return false;
          sign = t || sign;
        }
        return true;
      };
      let shared = false;
      for (let x = a.left; x <= a.right; x += 0.4)
        for (let y = a.top; y <= a.bottom; y += 0.4) shared ||= inside(a, x, y) && inside(b, x, y);
      if (shared) expect(meets(a, b)).toBe(true);
      if (shared) met++;
    }
    expect(met).toBeGreaterThan(20);
  });
});
