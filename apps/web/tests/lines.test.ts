import { describe, expect, test } from '@jest/globals';
import { applyCommand, type LineMove, makeLink, parseIsoDate, type Plan, schedulePlan } from '@clembo/core';
import { makeActivity, makePlan, SEVEN_DAY, startOfDay } from '@clembo/core';
import type { PlaneShape } from '@clembo/scene';
import { defaultBrief, type LinearBrief } from '@clembo/scene';
import { pointOnPlane, readPlane, spotAt } from '@/features/show/line/onPlane';
import { balancedLine, type Balancing } from '@/workers/answers/balance';
import { lineMoving, lineProposal, lineWorkOf } from '@/workers/answers/lineMoves';
import { repeated } from '@/workers/answers/repeated';

/** What the margin of a page of a line is told: of works that are dragged, divided, balanced, repeated. */

const day0 = parseIsoDate('2026-03-02')!;
const work = (ref: string, start: number, days: number, part: object = {}) =>
  makeActivity({
    ref,
    name: `Work ${ref}`,
    from: 0,
    to: 100_000,
    start: startOfDay(day0 + start),
    finish: startOfDay(day0 + start + days),
    ...part,
  });
const planOf = (part: Partial<Plan>): Plan =>
  makePlan({
    name: 'Made up',
    start: startOfDay(day0),
    source: 'given',
    calendars: [SEVEN_DAY],
    calendar: SEVEN_DAY.id,
    lines: [
      {
        id: 'L',
        name: 'Bank',
        unit: 'm',
        from: 0,
        to: 100_000,
        stations: [
          { name: 'Bridge', at: 40_000 },
          { name: 'End', at: 100_000 },
        ],
        zones: [],
        windows: [],
      },
    ],
    ...part,
  });
const held = (plan: Plan) => ({ plan, schedule: schedulePlan(plan) });

describe('a work that is taken hold of', () => {
  const plan = planOf({
    activities: [
      work('A', 0, 10),
      work('B', 12, 10),
      work('C', 40, 5, { percent: 100 }),
      work('H', 30, 4, { occupies: true }),
    ],
    links: [makeLink({ from: 'A', to: 'B' })],
  });

  test('says where it runs, and the stations between its ends', () => {
    const a = lineWorkOf(held(plan), 'A')!;
    expect([a.points.map((p) => [p.time - day0, p.place]), a.stations, a.holds, a.begun]).toEqual([
      [
        [0, 0],
        [10, 100],
      ],
      [{ name: 'Bridge', place: 40_000 }],
      false,
      false,
    ]);
    expect([lineWorkOf(held(plan), 'C')!.done, lineWorkOf(held(plan), 'H')!.holds]).toEqual([true, true]);
    expect(lineWorkOf(held(plan), 'none')).toBeNull();
  });

  test('while it is dragged: where it would run, and whom it would meet', () => {
    const at = (move: LineMove) => lineMoving(held(plan), 'A', move)!;
    expect([at({ do: 'start', day: day0 + 1 }).clashes, at({ do: 'start', day: day0 + 1 }).words]).toEqual([
      0,
      '3 Mar 26 to 12 Mar 26',
    ]);
    // B is at 50 m on day 17; a start on day 13 brings A there on day 18.
    expect(at({ do: 'start', day: day0 + 13 }).clashes).toBe(0);
    // Twenty days from day 5 on, half as fast: B overtakes it.
    expect(at({ do: 'finish', day: day0 + 29 }).clashes).toBe(1);
    expect(lineMoving(held(plan), 'C', { do: 'start', day: day0 })).toBeNull();
    // What holds the stretch from day 9 to 12 meets the end of the one and the beginning of the other.
    expect(lineMoving(held(plan), 'H', { do: 'start', day: day0 + 9 })!.clashes).toBe(2);
  });

  test('what comes of it: dates, clashes, the nearest work, the end of the line, what follows', () => {
    const found = lineProposal(held(plan), 'A', { do: 'start', day: day0 + 4 }, true)!;
    const fact = (label: string) => found.facts.find((f) => f.label === label)!;
    expect([fact('It ends').now, fact('It ends').then, fact('It ends').worse]).toEqual([
      '11 Mar 26',
      '15 Mar 26',
      true,
    ]);
    // By its link B goes two days later; both are done before C.
    expect(found.others).toEqual([{ ref: 'B', name: 'Work B', words: '2 d later, to 25 Mar 26' }]);
    // Each is ten days behind the one before at every place, less the ten that it takes: B starts when A ends.
    expect([fact('Nearest work').now, fact('Nearest work').then]).toEqual(['12 days', '10 days']);
    const alone = lineProposal(held(plan), 'A', { do: 'start', day: day0 + 4 }, false)!;
    expect(alone.others).toEqual([]);
    const then = applyCommand(plan, found.command).plan;
    expect(then.activities[0]!.start! / 1440 - day0).toBe(4);
  });

  test('divided at a station, the second is named after it', () => {
    const found = lineProposal(held(plan), 'A', { do: 'divide', place: 40_000 }, false)!;
    const then = applyCommand(plan, found.command).plan;
    expect(then.activities.slice(0, 2).map((a) => [a.name, a.from, a.to])).toEqual([
      ['Work A', 0, 40_000],
      ['Work A, from Bridge', 40_000, 100_000],
    ]);
    expect(lineProposal(held(plan), 'A', { do: 'divide', place: 100_000 }, false)).toBeNull();
  });
});

describe('balance by trades', () => {
  const floors = (trade: string, start: number, days: number) =>
    [0, 1, 2].map((k) =>
      work(`${trade}${k}`, start + k * days, days, {
        name: trade,
        from: k * 1000,
        to: (k + 1) * 1000,
        codes: { t: trade },
      }),
    );
  const plan = planOf({
    activities: [...floors('Walls', 0, 4), ...floors('Paint', 0, 2)],
    codeFields: [],
    lines: [
      {
        id: 'L',
        name: 'House',
        unit: 'floors',
        from: 0,
        to: 3000,
        stations: [],
        zones: [0, 1, 2].map((k) => ({ name: `Floor ${k}`, from: k * 1000, to: (k + 1) * 1000 })),
        windows: [],
      },
    ],
  });
  const asked: Balancing = { days: 0, distance: 0, by: 'name', order: [], own: {}, waits: false, whole: true };
  const brief = defaultBrief('linear') as LinearBrief;
  const starts = (a: Balancing) => {
    const { commands } = balancedLine({ ...held(plan), brief }, a);
    const then = applyCommand(plan, { do: 'all', commands }).plan;
    return Object.fromEntries(then.activities.map((x) => [x.ref, x.start! / 1440 - day0]));
  };

  // By hand: the walls leave the floors on days 4, 8 and 12; two days a floor without a rest end on 14, so from day 8.
  test('without a rest the first floor waits for the last; with one it does not', () => {
    expect(starts(asked)).toMatchObject({ Paint0: 8, Paint1: 10, Paint2: 12 });
    expect(starts({ ...asked, waits: true })).toMatchObject({ Paint0: 4, Paint1: 8, Paint2: 12 });
    expect(starts({ ...asked, own: { Paint: 3 } })).toMatchObject({ Paint0: 11, Paint2: 15 });
  });

  test('who follows whom is chosen; what moves is named with its floor', () => {
    const turned = balancedLine({ ...held(plan), brief }, { ...asked, order: ['Paint', 'Walls'] });
    expect(turned.trades.map((t) => [t.name, t.works])).toEqual([
      ['Paint', 3],
      ['Walls', 3],
    ]);
    const usual = balancedLine({ ...held(plan), brief }, asked);
    expect(usual.changes.map((c) => [c.name, c.words])).toEqual([
      ['Paint, Floor 0', '8 days later, from 10 Mar 26'],
      ['Paint, Floor 1', '8 days later, from 12 Mar 26'],
      ['Paint, Floor 2', '8 days later, from 14 Mar 26'],
    ]);
  });
});

describe('work repeated in units', () => {
  const group = makeActivity({ ref: 'G', name: 'One floor', kind: 'summary' });
  const inside = [work('A', 0, 4, { parent: 'G' }), work('B', 4, 2, { parent: 'G' })];
  const plan = planOf({ activities: [group, ...inside] });
  const asked = {
    refs: ['G'],
    line: null,
    units: ['One', ' ', 'Two'],
    name: 'House',
    group: 'unit',
    follow: true,
  } as const;

  test('a group stands for what it holds, and gives way to those of the units', () => {
    const found = repeated(held(plan), { ...asked, refs: ['G'], units: [...asked.units] })!;
    expect([found.works, found.activities]).toEqual([2, 4]);
    const then = applyCommand(plan, found.command).plan;
    expect(then.activities.map((a) => a.name)).toEqual(['One', 'Work A', 'Work B', 'Two', 'Work A', 'Work B']);
    expect(then.lines.at(-1)).toMatchObject({ name: 'House', unit: 'floors', to: 2000 });
    expect(then.lines.at(-1)!.zones.map((z) => z.name)).toEqual(['One', 'Two']);
  });

  test('of a line that is there only its zones count; nothing gives nothing', () => {
    expect(repeated(held(plan), { ...asked, refs: ['G'], units: ['One'], line: 'L' })).toBeNull();
    expect(repeated(held(plan), { ...asked, refs: ['none'], units: ['One'] })).toBeNull();
    expect(repeated(held(plan), { ...asked, refs: ['G'], units: [' '] })).toBeNull();
  });
});

test('a point of the page is read as place and day, and found again, both ways about', () => {
  const box = { left: 100, right: 500, top: 50, bottom: 350, place0: 0, place1: 2000, day0: 10, day1: 40, unit: 'm' };
  for (const across of [true, false]) {
    const plane: PlaneShape = { ...box, across };
    for (const [place, time] of [
      [0, 10],
      [500, 25],
      [2000, 40],
    ] as const) {
      const at = pointOnPlane(plane, { place, time });
      const read = readPlane(plane, at);
      expect([read.place, read.day].map((n) => Math.round(n * 1e6) / 1e6)).toEqual([place, time]);
      expect(spotAt(plane, at)).toEqual({ place: place * 1000, at: time * 1440, dx: 0, dy: 0 });
    }
    expect(spotAt(plane, { x: 99, y: 60 })).toBeNull();
  }
  // By hand: a quarter of the way across, half of the way down.
  expect(pointOnPlane({ ...box, across: true }, { place: 500, time: 25 })).toEqual({ x: 200, y: 200 });
});
