import { describe, expect, test } from '@jest/globals';
import {
  type Activity,
  applyCommand,
  balance,
  balanceCommands,
  checkPlan,
  type Command,
  daysByRate,
  FIVE_DAY,
  leastGap,
  type Line,
  linearBlocks,
  linearWorks,
  makeActivity,
  makeLink,
  makePlan,
  mendCommand,
  mendsFor,
  movedWork,
  parseIsoDate,
  type Plan,
  repeatedInUnits,
  schedulePlan,
  SEVEN_DAY,
  splitWork,
  startOfDay,
  unitStarts,
  WorkingTime,
} from '../src/index';
import { BRIDGE, seeded } from './helpers';

const day0 = parseIsoDate('2026-03-02')!;
const line = (part: Partial<Line> = {}): Line => ({
  id: 'L',
  name: 'Bank',
  unit: 'm',
  from: 0,
  to: 1_000_000,
  stations: [],
  zones: [],
  windows: [],
  ...part,
});

/** A work from a day on for so many days, with given dates. */
const work = (ref: string, start: number, days: number, part: Partial<Activity> = {}): Activity =>
  makeActivity({
    ref,
    name: ref,
    from: 0,
    to: 1_000_000,
    start: startOfDay(day0 + start),
    finish: startOfDay(day0 + start + days),
    ...part,
  });

const planOf = (activities: Activity[], part: Partial<Plan> = {}): Plan =>
  makePlan({
    name: '',
    start: startOfDay(day0),
    source: 'given',
    calendars: [SEVEN_DAY, FIVE_DAY],
    calendar: SEVEN_DAY.id,
    activities,
    lines: [line()],
    ...part,
  });

const worksOf = (plan: Plan) => linearWorks(plan, schedulePlan(plan)).works;
const findingsOf = (plan: Plan, code: string) => checkPlan(plan, schedulePlan(plan)).filter((f) => f.code === code);
const dated = (plan: Plan, ref: string): [number, number] => {
  const s = schedulePlan(plan);
  const i = s.outline.indexOf.get(ref)!;
  return [s.start[i]! / 1440 - day0, s.finish[i]! / 1440 - day0];
};

describe('lengths from rates', () => {
  const paced = (part: Partial<Activity>) => makeActivity({ ref: 'A', from: 0, to: 300_000, ...part });

  // By hand: 300 m at 40 m a day; two crews; a section of 100 m at half the rate; 12,000 m³ at 400 m³ a day.
  test('distance by rate, quantity by output, shared by the crews', () => {
    expect(daysByRate(paced({ rate: 40 }))).toBeCloseTo(7.5, 12);
    expect(daysByRate(paced({ rate: 40, crews: 2 }))).toBeCloseTo(3.75, 12);
    expect(daysByRate(paced({ rate: 40, rates: [{ from: 100_000, to: 200_000, perDay: 20 }] }))).toBeCloseTo(10, 12);
    expect(daysByRate(paced({ quantity: 12_000, output: 400 }))).toBeCloseTo(30, 12);
    expect(daysByRate(makeActivity({ ref: 'A', quantity: 12_000, output: 400, crews: 3 }))).toBeCloseTo(10, 12);
    expect(daysByRate(paced({}))).toBeNull();
    expect(daysByRate(paced({ rates: [{ from: 0, to: 100_000, perDay: 20 }] }))).toBeNull();
  });

  test('a rate gives a length to what has none, up to whole days, and never against one that is stated', () => {
    const plan = planOf(
      [
        makeActivity({ ref: 'A', from: 0, to: 300_000, rate: 40 }),
        makeActivity({ ref: 'B', from: 0, to: 300_000, rate: 40, duration: 3 * 480 }),
        makeActivity({ ref: 'C', quantity: 90, output: 20 }),
      ],
      { source: 'computed', links: [makeLink({ from: 'A', to: 'B' }), makeLink({ from: 'B', to: 'C' })] },
    );
    expect([dated(plan, 'A'), dated(plan, 'B'), dated(plan, 'C')]).toEqual([
      [0, 8],
      [8, 11],
      [11, 16],
    ]);
    const given = planOf([work('A', 3, 1, { to: 300_000, finish: null, rate: 40 })]);
    expect(dated(given, 'A')).toEqual([3, 11]);
  });

  test('an output draws the flowline that its length asks for', () => {
    const [w] = worksOf(planOf([work('A', 0, 5, { quantity: 900, output: 100, finish: null })]));
    expect(w!.points).toEqual([
      { time: day0, place: 0 },
      { time: day0 + 9, place: 1000 },
    ]);
  });
});

describe('what a person does to a work on a line', () => {
  const after = (plan: Plan, command: Command) => applyCommand(plan, command).plan;

  test('another start takes its dates along; another end changes the rate, and the line ends there', () => {
    const plan = planOf([work('A', 0, 10, { rate: 100 })]);
    const [w] = worksOf(plan);
    const later = after(plan, movedWork(plan, w!, { do: 'start', day: day0 + 6 })!.command);
    expect(dated(later, 'A')).toEqual([6, 16]);
    const turned = after(plan, movedWork(plan, w!, { do: 'finish', day: day0 + 19 })!.command);
    expect([dated(turned, 'A'), turned.activities[0]!.rate]).toEqual([[0, 20], 50]);
    expect(worksOf(turned)[0]!.points.at(-1)).toEqual({ time: day0 + 20, place: 1000 });
  });

  test('an end behind closed windows and days off is met on the day', () => {
    const next = seeded(7);
    for (let k = 0; k < 60; k++) {
      const from = Math.floor(next() * 20);
      const windows = [
        { name: '', from: 200_000, to: 600_000, start: startOfDay(day0 + from), finish: startOfDay(day0 + from + 9) },
      ];
      const plan = planOf([work('A', 0, 10, { rate: 60 + next() * 90 })], {
        lines: [line({ windows })],
        calendar: FIVE_DAY.id,
      });
      const [w] = worksOf(plan);
      const wanted = day0 + from + 12 + Math.floor(next() * 30);
      const moved = movedWork(plan, w!, { do: 'finish', day: wanted });
      if (!moved) continue;
      const last = Math.ceil(moved.points.at(-1)!.time - 1e-9) - 1;
      // It may stand still on the day asked for: then it ends on the last one before it.
      expect([k, last <= wanted, wanted - last < 12]).toEqual([k, true, true]);
    }
  });

  test('a milestone is no work along a line, whatever is said of it', () => {
    const plan = planOf([
      work('A', 0, 20, { rate: 50 }),
      work('M', 0, 0, { kind: 'startMilestone', rate: 50 }),
      work('H', 0, 0, { kind: 'finishMilestone', occupies: true }),
    ]);
    expect(worksOf(plan).map((w) => w.work.ref)).toEqual(['A']);
    expect(linearBlocks(plan, schedulePlan(plan))).toEqual([]);
  });

  test('what has begun keeps its start, what is done is left alone', () => {
    const plan = planOf([work('A', 0, 10, { percent: 30 }), work('B', 0, 10, { percent: 100 })]);
    const [a, b] = worksOf(plan);
    expect(movedWork(plan, a!, { do: 'start', day: day0 + 3 })).toBeNull();
    expect(movedWork(plan, a!, { do: 'finish', day: day0 + 14 })).not.toBeNull();
    expect(movedWork(plan, b!, { do: 'finish', day: day0 + 14 })).toBeNull();
  });

  test('in a computed plan a start is held, an end changes the length', () => {
    const plan = planOf([makeActivity({ ref: 'A', from: 0, to: 1_000_000, duration: 10 * 480 })], {
      source: 'computed',
    });
    const [w] = worksOf(plan);
    expect(dated(after(plan, movedWork(plan, w!, { do: 'start', day: day0 + 4 })!.command), 'A')).toEqual([4, 14]);
    expect(dated(after(plan, movedWork(plan, w!, { do: 'finish', day: day0 + 4 })!.command), 'A')).toEqual([0, 5]);
  });

  test('divided at a place, both together are what the one was', () => {
    const plan = planOf([work('A', 0, 10, { quantity: 500, cost: 1001, effort: 600, percent: 20 }), work('B', 12, 4)], {
      links: [makeLink({ from: 'A', to: 'B' }), makeLink({ from: 'A', to: 'B', type: 'SS' })],
    });
    const [w] = worksOf(plan);
    expect(splitWork(plan, w!, 0, 'A2', 'rest')).toBeNull();
    const then = after(plan, splitWork(plan, w!, 400_000, 'A2', 'rest')!);
    expect(then.activities.map((a) => a.ref)).toEqual(['A', 'A2', 'B']);
    expect([dated(then, 'A'), dated(then, 'A2')]).toEqual([
      [0, 4],
      [4, 10],
    ]);
    const [a, a2] = then.activities;
    expect([a!.from, a!.to, a2!.from, a2!.to]).toEqual([0, 400_000, 400_000, 1_000_000]);
    for (const key of ['quantity', 'cost', 'effort'] as const)
      expect(a![key]! + a2![key]!).toBe(plan.activities[0]![key]);
    // A fifth of 1,000 m was done: half of the first 400 m.
    expect([a!.percent, a2!.percent]).toEqual([50, 0]);
    expect(then.links.map((l) => `${l.from} ${l.type} ${l.to}`).sort()).toEqual(['A FS A2', 'A SS B', 'A2 FS B']);
  });
});

describe('the same work in several units', () => {
  const units = ['Ground', 'First', 'Second'].map((name, k) => ({ name, from: k * 1000, to: (k + 1) * 1000 }));
  const asked = { line: 'L', group: 'unit', follow: true } as const;
  const plan = planOf(
    [
      makeActivity({ ref: 'W', name: 'Walls', duration: 4 * 480 }),
      makeActivity({ ref: 'P', name: 'Plaster', duration: 2 * 480 }),
      makeActivity({ ref: 'Z', name: 'Handover', duration: 480 }),
    ],
    { source: 'computed', links: [makeLink({ from: 'W', to: 'P' }), makeLink({ from: 'P', to: 'Z' })] },
  );

  test('one set becomes as many as there are units, linked within each and from each to the next', () => {
    const then = applyCommand(plan, repeatedInUnits(plan, ['W', 'P'], units, asked)).plan;
    const s = schedulePlan(then);
    expect(then.activities.filter((_, i) => s.outline.isSummary[i]).map((a) => a.name)).toEqual([
      'Ground',
      'First',
      'Second',
    ]);
    expect(then.activities.filter((a) => a.name === 'Plaster').map((a) => [a.from, a.to, a.line])).toEqual([
      [0, 1000, 'L'],
      [1000, 2000, 'L'],
      [2000, 3000, 'L'],
    ]);
    // By hand: walls 0–4, 4–8, 8–12; plaster two days behind each; the handover behind the last.
    expect(dated(then, 'W-3')).toEqual([8, 12]);
    expect([dated(then, 'P'), dated(then, 'P-2'), dated(then, 'P-3')]).toEqual([
      [4, 6],
      [8, 10],
      [12, 14],
    ]);
    expect(dated(then, 'Z')).toEqual([14, 15]);
  });

  test('grouped by the work, each is named with its unit; taken back, the plan is as it was', () => {
    const { plan: then, inverse } = applyCommand(
      plan,
      repeatedInUnits(plan, ['W', 'P'], units, { ...asked, group: 'work' }),
    );
    expect(then.activities.filter((a) => a.parent === 'W-all').map((a) => a.name)).toEqual([
      'Walls, Ground',
      'Walls, First',
      'Walls, Second',
    ]);
    expect(applyCommand(then, inverse).plan).toEqual(plan);
  });

  test('given dates go on in the next unit when the one before is done', () => {
    const given = planOf([work('W', 0, 4)]);
    const then = applyCommand(given, repeatedInUnits(given, ['W'], units, asked)).plan;
    expect([dated(then, 'W'), dated(then, 'W-2'), dated(then, 'W-3')]).toEqual([
      [0, 4],
      [4, 8],
      [8, 12],
    ]);
  });

  test('nothing to repeat is said', () => {
    expect(() => repeatedInUnits(plan, [], units, asked)).toThrow(RangeError);
    expect(() => repeatedInUnits(plan, ['none'], units, asked)).toThrow('none');
  });
});

describe('balance of trades', () => {
  // D. G. Carr & W. L. Meyer, "Planning construction of repetitive building units", ASCE 1974: see unitStarts, which
  // works it out by unit and not along a line.
  test('trades that do not wait start as the rule of the line of balance says', () => {
    const next = seeded(11);
    for (let k = 0; k < 60; k++) {
      const count = 2 + Math.floor(next() * 5);
      const durations = Array.from({ length: 4 }, () =>
        Array.from({ length: count }, () => 1 + Math.floor(next() * 6)),
      );
      const activities = durations.flatMap((days, t) =>
        days.map((d, u) =>
          work(
            `${t}.${u}`,
            days.slice(0, u).reduce((a, b) => a + b, 0),
            d,
            { from: u * 1000, to: (u + 1) * 1000 },
          ),
        ),
      );
      const plan = planOf(activities);
      const works = worksOf(plan);
      const trades = durations.map((_, t) => works.filter((w) => w.work.ref.startsWith(`${t}.`)));
      const list = balance(trades, { buffer: { days: 0, distance: 0 }, waits: false, whole: true });
      const starts = durations.map((_, t) => list.find((b) => b.ref === `${t}.0`)!.newStart - day0);
      expect(starts).toEqual(unitStarts(durations).map((p) => p.start));
    }
  });

  test('in a plan of hours, a bridge of four sections is balanced to the minute: 117.80 working days', () => {
    const begins = startOfDay(day0) + 8 * 60;
    const plan = planOf(
      BRIDGE.flatMap(({ output, quantities }, t) =>
        quantities.flatMap((quantity, u) =>
          quantity === 0
            ? []
            : makeActivity({
                ref: `${t}.${u}`,
                from: u * 1000,
                to: (u + 1) * 1000,
                quantity,
                output,
                start: begins,
              }),
        ),
      ),
      { inHours: true, calendars: [FIVE_DAY], calendar: FIVE_DAY.id },
    );
    const tradesOf = (p: Plan) => BRIDGE.map((_, t) => worksOf(p).filter((w) => w.work.ref.startsWith(`${t}.`)));
    const asked = { buffer: { days: 0, distance: 0 }, waits: false, whole: true, inHours: true };
    const list = balance(tradesOf(plan), asked);
    const then = balanceCommands(plan, list).reduce((now, c) => applyCommand(now, c).plan, plan);
    const last = Math.max(...then.activities.map((a) => a.finish ?? 0));
    const time = new WorkingTime(FIVE_DAY, 'minute', day0);
    // Each start goes up to a whole minute, which adds up to some minutes of 480.
    const days = time.between(begins, last) / FIVE_DAY.minutesPerDay;
    expect(days).toBeGreaterThanOrEqual(117.8);
    expect(days).toBeLessThan(117.8008 + 5 / FIVE_DAY.minutesPerDay);
    // Nobody comes into a section before the trade before has left it.
    for (const a of then.activities) {
      const [trade, unit] = a.ref.split('.').map(Number);
      const before = then.activities.find((b) => b.ref === `${trade! - 1}.${unit}`);
      if (before) expect(a.start!).toBeGreaterThanOrEqual(before.finish! - 1);
    }
    expect(balanceCommands(then, balance(tradesOf(then), asked))).toEqual([]);
  });

  test('trades that may wait never end later, and both keep the buffer once it is taken', () => {
    const next = seeded(23);
    for (let k = 0; k < 40; k++) {
      const activities = Array.from({ length: 3 }, (_, t) =>
        Array.from({ length: 4 }, (_, u) =>
          work(`${t}.${u}`, u * 3, 1 + Math.floor(next() * 5), { from: u * 1000, to: (u + 1) * 1000 }),
        ),
      ).flat();
      const plan = planOf(activities);
      const trades = [0, 1, 2].map((t) => worksOf(plan).filter((w) => w.work.ref.startsWith(`${t}.`)));
      const ends = [true, false].map((waits) => {
        const list = balance(trades, {
          buffer: { days: 2, distance: 0 },
          own: new Map([[2, { days: 5, distance: 0 }]]),
          waits,
        });
        const then = balanceCommands(plan, list).reduce((now, c) => applyCommand(now, c).plan, plan);
        const lines = new Map(worksOf(then).map((w) => [w.work.ref, w.points]));
        for (const [a, b, least] of [
          [0, 1, 2],
          [1, 2, 5],
          [0, 2, 2],
        ])
          for (let u = 0; u < 4; u++) {
            const gap = leastGap(lines.get(`${a}.${u}`)!, lines.get(`${b}.${u}`)!)!.gap;
            expect([k, waits, a, b, u, gap >= least! - 1e-9]).toEqual([k, waits, a, b, u, true]);
          }
        return Math.max(...list.map((b) => b.newFinish));
      });
      expect(ends[0]!).toBeLessThanOrEqual(ends[1]! + 1e-9);
    }
  });
});

describe('findings along a line, and their mends', () => {
  const open = (plan: Plan, id: string) => {
    const [finding] = findingsOf(plan, 'lineClash');
    const s = schedulePlan(plan);
    return { finding: finding!, then: applyCommand(plan, mendCommand(plan, s, [finding!], id)).plan };
  };
  // By hand: 1,000 m in 20 days; in 10 days from day 5 on. They meet where 50 t = 100 (t − 5): day 10, 500 m.
  const crossing = planOf([work('A', 0, 20, { rate: 50 }), work('B', 5, 10, { rate: 100 })]);

  test('works that run into each other are found with place and day', () => {
    const [finding, ...more] = findingsOf(crossing, 'lineClash');
    expect(more).toEqual([]);
    expect([finding!.refs, finding!.facts]).toEqual([
      ['A', 'B'],
      // Where and when both are, and not where one is furthest behind the other.
      { kind: 'crossing', line: '“Bank”', place: '500 m', date: '2026-03-12' },
    ]);
  });

  test('every mend that is offered clears the clash', () => {
    const s = schedulePlan(crossing);
    const mends = mendsFor(crossing, s, findingsOf(crossing, 'lineClash')[0]!);
    expect(mends.map((m) => m.words)).toEqual([
      // Ten days from day 10 on end with the other on day 20.
      'B 5 days later, from 2026-03-12 to 2026-03-21: no clash is left',
      // From day 5 at 1,000 m in 15 days: two thirds.
      'B at 66 % of its rate, to 2026-03-22: no clash is left',
      'A with 2 crews, to 2026-03-11: no clash is left',
    ]);
    for (const { id } of mends) expect([id, findingsOf(open(crossing, id).then, 'lineClash')]).toEqual([id, []]);
  });

  test('random works: what a mend says is what it gives', () => {
    const next = seeded(5);
    let tried = 0;
    for (let k = 0; k < 60; k++) {
      const plan = planOf(
        Array.from({ length: 4 }, (_, i) =>
          work(`W${i}`, Math.floor(next() * 20), 3 + Math.floor(next() * 15), {
            from: Math.floor(next() * 5) * 100_000,
            to: 500_000 + Math.floor(next() * 5) * 100_000,
            occupies: next() < 0.25,
          }),
        ),
      );
      const s = schedulePlan(plan);
      for (const finding of findingsOf(plan, 'lineClash'))
        for (const m of mendsFor(plan, s, finding)) {
          tried++;
          const then = applyCommand(plan, mendCommand(plan, s, [finding], m.id)).plan;
          const left = findingsOf(then, 'lineClash');
          expect(left.some((f) => finding.refs.every((r) => f.refs.includes(r)))).toBe(false);
          const said = /(\d+|no) clash(?:es)? (?:is|are) left/.exec(m.words)?.[1];
          if (said) expect([m.words, left.length]).toEqual([m.words, said === 'no' ? 0 : Number(said)]);
        }
    }
    expect(tried).toBeGreaterThan(100);
  });

  test('what holds a stretch in a closed window is found, and goes behind it', () => {
    const windows = [
      { name: 'Nesting', from: 0, to: 300_000, start: startOfDay(day0 + 4), finish: startOfDay(day0 + 9) },
      { name: 'Tide', from: 0, to: 300_000, start: startOfDay(day0 + 12), finish: startOfDay(day0 + 14) },
    ];
    const plan = planOf([work('A', 2, 4, { occupies: true })], { lines: [line({ windows })] });
    const [finding] = findingsOf(plan, 'inClosedWindow');
    expect(finding!.facts).toMatchObject({ window: 'Nesting', date: '2026-03-06', until: '2026-03-10' });
    const s = schedulePlan(plan);
    const then = applyCommand(plan, mendCommand(plan, s, [finding!], 'later A')).plan;
    // Three days between the windows are too few for four.
    expect([dated(then, 'A'), findingsOf(then, 'inClosedWindow')]).toEqual([[14, 18], []]);
  });

  test('a rate against the dates: either of them is taken', () => {
    const plan = planOf([work('A', 0, 10, { rate: 50 })]);
    const [finding] = findingsOf(plan, 'rateAgainstDates');
    expect([finding!.refs, finding!.facts]).toEqual([['A'], { days: 10 }]);
    const s = schedulePlan(plan);
    const ends = applyCommand(plan, mendCommand(plan, s, [finding!], 'asPaced')).plan;
    expect([dated(ends, 'A'), findingsOf(ends, 'rateAgainstDates')]).toEqual([[0, 20], []]);
    const weeks = applyCommand(plan, mendCommand(plan, s, [finding!], 'asWeeks')).plan;
    // Twenty days of seven-day weeks are three weeks.
    expect(dated(weeks, 'A')).toEqual([0, 21]);
    const paced = applyCommand(plan, mendCommand(plan, s, [finding!], 'asDated')).plan;
    expect([paced.activities[0]!.rate, findingsOf(paced, 'rateAgainstDates')]).toEqual([100, []]);
  });
});
