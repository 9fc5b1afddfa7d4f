import { describe, expect, test } from '@jest/globals';
import { FIVE_DAY, makeActivity, makePlan, type Plan, schedulePlan, standingOf } from '@clembo/core';
import { day, seeded } from '../../core/tests/helpers';
import { demoPlans } from '../../../demo/index';
import {
  Brief,
  type BriefKind,
  composeExhibit,
  defaultBrief,
  EXHIBITS,
  leavesOf,
  readyMade,
  type Scene,
  sentenceOf,
  snapshotLines,
  SPOKEN,
  unsaid,
} from '../src/index';
import { measure, plainAmounts, texts } from './fixtures';

const [wall] = demoPlans() as [ReturnType<typeof demoPlans>[number]];
const keep = (plan: Plan, name: string) => ({ plan, schedule: schedulePlan(plan), name });
const page = (now: Plan, then: Plan | null, brief: Brief, between: Plan[] = []): Scene => {
  const promised = then && keep(then, 'The promise');
  return composeExhibit({
    plan: now,
    schedule: schedulePlan(now),
    brief,
    measure,
    amounts: plainAmounts,
    edition: 'Now',
    promised,
    editions: promised ? [promised, ...between.map((p, k) => keep(p, `Edition ${k}`))] : [],
  });
};
const brief = (kind: BriefKind, part: object = {}): Brief => Brief.parse({ kind, ...part });

/** Four weeks of a hundred each; at the end of the second a week and a half is done, for 180. By hand: PV 200, EV 150. */
const week = (ref: string, from: string, to: string, more = {}) =>
  makeActivity({ ref, name: ref, start: day(from), finish: day(to), duration: 2400, cost: 10_000, ...more });
const plan = (activities: Plan['activities'], more: Partial<Plan> = {}): Plan =>
  makePlan({ name: 'Four weeks', calendars: [FIVE_DAY], calendar: FIVE_DAY.id, activities, ...more });
const then = plan([
  week('A', '2026-01-05', '2026-01-10'),
  week('B', '2026-01-12', '2026-01-17'),
  week('C', '2026-01-19', '2026-01-24'),
  week('D', '2026-01-26', '2026-01-31'),
]);
const now = plan(
  [
    week('A', '2026-01-05', '2026-01-10', {
      percent: 100,
      actualStart: day('2026-01-05'),
      actualFinish: day('2026-01-10'),
      actualCost: 12_000,
    }),
    week('B', '2026-01-12', '2026-01-21', { percent: 50, actualStart: day('2026-01-12'), actualCost: 6_000 }),
    week('C', '2026-01-22', '2026-01-29'),
    week('D', '2026-01-22', '2026-01-24'),
  ],
  { statusDate: day('2026-01-17') },
);

describe('slips', () => {
  test('the latest first, the most ahead last, each with its working days', () => {
    const scene = page(now, then, brief('slips', { least: 0 }));
    expect(scene.content.rows.map((r) => [r.ref, r.cells[3]])).toEqual([
      ['C', '3 d late'],
      ['B', '2 d late'],
      ['D', '5 d ahead'],
    ]);
    expect(texts(scene, 'label')).toEqual(['3 d late', '2 d late', '5 d ahead']);
    expect(scene.title).toBe('Four weeks: 2 of 4 activities are behind the promise, C most: 3 working days');
  });
  test('late and ahead are told apart by direction: an arrow leads from the promised to the current place', () => {
    const scene = page(now, then, brief('slips', { least: 0 }));
    const arrows = leavesOf(scene.nodes).filter((n) => n.type === 'line' && n.role === 'mark');
    const ways = arrows.map((n) => (n.type === 'line' ? Math.sign(n.x2 - n.x1) : 0));
    expect(ways).toEqual([1, 1, -1]);
  });
  test('in grey no colour tells what direction and words do', () => {
    const scene = page(now, then, brief('slips', { print: 'grey' }));
    const fills = new Set(
      leavesOf(scene.nodes).flatMap((n) => (n.type === 'text' && n.role === 'label' ? n.runs.map((r) => r.fill) : [])),
    );
    expect(fills.size).toBe(1);
  });
  test('a threshold, a direction, a condition', () => {
    const refs = (part: object) => page(now, then, brief('slips', part)).content.rows.map((r) => r.ref);
    expect(refs({ least: 3 })).toEqual(['C', 'D']);
    expect(refs({ only: 'late' })).toEqual(['C', 'B']);
    expect(refs({ where: { match: 'all', tests: [{ field: 'percent', is: 'above', values: ['0'] }] } })).toEqual(['B']);
  });
});

test('a page with a few rows uses its space: larger type, rows further apart', () => {
  for (const kind of ['slips', 'bars'] as const) {
    const scene = page(now, then, brief(kind, { least: 0 }));
    const rows = leavesOf(scene.nodes).flatMap((n) =>
      n.type === 'text' && ['A', 'B', 'C', 'D'].includes(n.runs.map((r) => r.text).join('')) ? [n] : [],
    );
    expect([kind, rows.length > 1]).toEqual([kind, true]);
    // Four rows on A4 or larger are set larger than the sixteen that would still fit at the usual type.
    const least = Math.min(...rows.map((r) => r.size));
    expect([kind, least >= 1.5 * scene.fit.leastType]).toEqual([kind, true]);
    const step = (Math.max(...rows.map((r) => r.y)) - Math.min(...rows.map((r) => r.y))) / (rows.length - 1);
    expect([kind, step > 3.5 * least]).toEqual([kind, true]);
  }
});

describe('amounts', () => {
  test('what they will come to against the promised budget', () => {
    const scene = page(now, then, brief('amounts', { amount: 'cost', only: 'all' }));
    expect(scene.content.rows.map((r) => [r.ref, r.cells[4], r.cells[5]])).toEqual([
      ['A', '120 %', 'to be watched'],
      ['B', '100 %', 'within what is normal'],
      ['C', '100 %', 'within what is normal'],
      ['D', '100 %', 'within what is normal'],
    ]);
    // 12,000 and three times 10,000, of four times 10,000.
    expect(scene.title).toBe('Cost of Four weeks will come to 420, 5 % more than promised; A: 120 % of its budget');
  });
  test('added up by anything, they are the sums of the standing, filtered or not', () => {
    const random = seeded(5);
    for (let turn = 0; turn < 20; turn++) {
      const codes = () => ({ crew: `C${Math.floor(random() * 3)}` });
      const made = Array.from({ length: 12 }, (_, k) => {
        const budget = Math.round(random() * 1e5);
        return {
          k,
          budget,
          codes: codes(),
          spent: random() < 0.5 ? Math.round(budget * random() * 2) : null,
          percent: Math.round(random() * 100),
        };
      });
      const of = (actual: boolean) =>
        plan(
          made.map((m) =>
            week(`W${m.k}`, '2026-01-05', '2026-01-10', {
              cost: m.budget,
              codes: m.codes,
              ...(actual && { actualCost: m.spent, percent: m.percent }),
            }),
          ),
          { statusDate: day('2026-01-08'), codeFields: [{ id: 'crew', name: 'Crew', values: [], fill: null }] },
        );
      const [n, t] = [of(true), of(false)];
      const least = String(Math.floor(random() * 60));
      const where = { match: 'all', tests: [{ field: 'percent', is: 'atLeast', values: [least] }] };
      const scene = page(n, t, brief('amounts', { amount: 'cost', only: 'all', of: 'crew', where }));
      const shown = scene.content.rows.reduce((sum, r) => sum + Number(r.cells[3]), 0);
      const st = standingOf(
        n,
        schedulePlan(n),
        t,
        schedulePlan(t),
        day('2026-01-08'),
        (i) => n.activities[i]!.percent! >= Number(least),
      );
      expect(shown).toBeCloseTo(st.sums.cost.now / 100, 6);
    }
  });
});

test('curves end in the totals of earned value (ANSI/EIA-748, worked out by hand: 150 of 400, 180 spent, 480 in the end)', () => {
  const scene = page(now, then, brief('curves', { of: 'cost' }));
  const last = (name: string) => {
    const k = scene.content.heads.indexOf(name);
    return scene.content.rows.map((r) => r.cells[k]!).findLast((c) => c !== '');
  };
  expect([last('promised'), last('earned'), last('spent')]).toEqual(['400', '150', '180']);
  expect(Number(last('to come'))).toBeCloseTo(480, 6);
  expect(scene.title).toContain('38 % of the cost is earned where 50 % was promised by 17 January 2026');
});

test('counts of what is done: two were promised, one is', () => {
  const scene = page(now, then, brief('curves', { of: 'activities' }));
  expect(scene.title).toBe('Four weeks: 1 of 4 activities done, 2 were promised by 17 January 2026');
});

test('the snapshot of a part adds up to that of the whole', () => {
  const lines = (p: Plan, keepOnly: (i: number) => boolean) =>
    snapshotLines(
      standingOf(p, schedulePlan(p), then, schedulePlan(then), day('2026-01-17'), keepOnly),
      p.tolerance,
      plainAmounts,
    );
  const cost = (l: ReturnType<typeof lines>) => Number(l.find((x) => x.name === 'Cost')!.now);
  expect(cost(lines(now, () => true))).toBe(cost(lines(now, (i) => i < 2)) + cost(lines(now, (i) => i >= 2)));
});

describe('month by month', () => {
  test('the hours that are needed add up to all that is assigned', () => {
    const scene = page(wall.current, wall.baseline, brief('months'));
    const shown = scene.content.rows.reduce(
      (sum, r) => sum + r.cells.slice(1).reduce((n, c) => n + Number(c.replace(' h', '')), 0),
      0,
    );
    const all = wall.current.activities.reduce((n, a) => n + a.assignments.reduce((m, x) => m + x.effort, 0), 0) / 60;
    expect(shown).toBeCloseTo(all, 3);
  });
  test('payments stand in the month in which they fall due, those that are earned apart', () => {
    const gate = (ref: string, on: string, cost: number, more = {}) =>
      makeActivity({ ref, name: ref, kind: 'finishMilestone', finish: day(on), duration: 0, cost, ...more });
    const was = plan([gate('P', '2026-01-15', 100), gate('Q', '2026-02-10', 300)]);
    const is = plan(
      [gate('P', '2026-01-15', 100, { percent: 100, actualFinish: day('2026-01-15') }), gate('Q', '2027-04-10', 300)],
      { statusDate: day('2026-01-31') },
    );
    const { heads, rows } = page(is, was, brief('months', { of: 'payments' })).content;
    expect(heads).toEqual(['From', 'promised', 'earned', 'due']);
    expect(rows.filter((r) => r.cells.slice(1).some((c) => c !== '0')).map((r) => r.cells)).toEqual([
      ['1 January 2026', '1', '1', '0'],
      ['1 February 2026', '3', '0', '0'],
      ['1 April 2027', '0', '0', '3'],
    ]);
  });
});

test('the trend of milestones: a line for each, edition by edition', () => {
  const between = wall.earlier.map((e) => e.plan);
  const scene = page(wall.current, wall.baseline, brief('trend'), between);
  expect(scene.content.heads.length).toBe(between.length + 4);
  const stations = scene.content.rows.find((r) => r.cells[0] === 'Station opens')!;
  expect(stations.cells.at(-1)).toBe('15 working days later');
  expect(scene.content.rows.some((r) => r.cells[0] === 'Finish')).toBe(true);
});

describe('every kind', () => {
  const kinds = Object.keys(SPOKEN) as BriefKind[];
  test.each(kinds)('%s: its default is a brief, its sentence says all its parts', (kind) => {
    const b = defaultBrief(kind);
    expect(Brief.parse(b)).toEqual(b);
    const said = sentenceOf(b, { ...wall.current, editions: [{ id: 'x', name: 'The promise' }] });
    const words = { ...wall.current, editions: [{ id: 'x', name: 'The promise' }] };
    const silent = unsaid(SPOKEN[kind].parts as never, b as never, words).map((p: { name: string }) => p.name);
    const shown = SPOKEN[kind].parts.filter(
      (p) => (p.shown as ((b: unknown, w: unknown) => boolean) | undefined)?.(b, words) ?? true,
    );
    // What is not said can be added; nothing is neither.
    expect(new Set([...said.flatMap((s) => s.part ?? []), ...silent])).toEqual(new Set(shown.map((p) => p.name)));
    expect(said.map((s) => s.text).join('')).not.toMatch(/undefined|null|NaN/);
  });
  test.each(kinds.filter((k) => EXHIBITS[k].needsPromise))('%s: without an edition it says what to do', (kind) => {
    const [notice] = texts(page(now, null, brief(kind)), 'notice');
    expect(notice).toContain('There is no edition to measure against');
  });
  test.each(kinds.filter((k) => EXHIBITS[k].needsPromise))('%s: a condition that cannot be asked is said', (kind) => {
    if (kind === 'trend') return;
    const scene = page(
      now,
      then,
      brief(kind, { where: { match: 'all', tests: [{ field: 'gone', is: 'is', values: ['x'] }] } }),
    );
    expect(texts(scene, 'notice').join(' ')).toContain('no field “gone”');
  });
  test('the ready-made ones are pages of the demo plan', () => {
    for (const { name, brief: ready } of readyMade(wall.current)) {
      expect(Brief.parse(ready)).toEqual(ready);
      const scene = page(
        wall.current,
        wall.baseline,
        ready,
        wall.earlier.map((e) => e.plan),
      );
      expect([name, texts(scene, 'notice')]).toEqual([name, []]);
    }
  });
  test('of what a plan does not have no page is offered, and each says something by itself', () => {
    for (const { current, baseline } of demoPlans()) {
      const said = readyMade(current).map(({ name, brief: ready }) => [name, page(current, baseline, ready).title]);
      for (const [name, title] of said) expect([name, title]).not.toEqual([name, current.name]);
    }
    const bare = makePlan({ ...wall.current, activities: [makeActivity({ ref: 'A' })], links: [] });
    expect(readyMade(bare).some(({ name }) => /effort|cost|payment|milestone|people/i.test(name))).toBe(false);
  });
  test('a choice of every control gives a brief that is one', () => {
    const words = {
      ...wall.current,
      editions: [{ id: 'x', name: 'The promise' }],
      levels: 3,
      milestones: [{ ref: 'G10', name: 'Gate' }],
    };
    for (const kind of kinds)
      for (const part of SPOKEN[kind].parts as (typeof SPOKEN)['slips']['parts']) {
        const start = defaultBrief(kind) as never;
        const options = part.as === 'one' || part.as === 'many' ? part.options(words, start) : [];
        for (const [value] of options) {
          const set = part.as === 'one' ? part.set(value) : part.as === 'many' ? part.set([value]) : {};
          expect([kind, part.name, value, Brief.safeParse({ ...(start as object), ...set }).success]).toEqual([
            kind,
            part.name,
            value,
            true,
          ]);
        }
      }
  });
});

describe('a page on which nothing is drawn', () => {
  const plan = makePlan({
    name: 'Works',
    source: 'given',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities: [
      makeActivity({ ref: 'A', name: 'Dig', start: day('2026-03-02'), finish: day('2026-03-07') }),
      makeActivity({ ref: 'B', name: 'Fill', start: day('2026-03-09'), finish: day('2026-03-14') }),
    ],
  });

  test.each(['slips', 'amounts', 'curves', 'months'] as const)('%s: says so, and that nothing is shown', (kind) => {
    const scene = page(plan, plan, { ...defaultBrief(kind), compare: 'promised' } as Brief);
    expect(texts(scene, 'notice').join(' ').length).toBeGreaterThan(20);
    expect(texts(scene, 'source').join(' ')).toContain('0 of 2 activities shown');
    expect(scene.title).toMatch(/^Works/);
    expect(scene.fit.readable).toBe(true);
  });
});

describe('every sentence begins as a sentence', () => {
  test.each(Object.keys(SPOKEN) as BriefKind[])('%s, also where nothing is left out', (kind) => {
    const said = sentenceOf(defaultBrief(kind), { ...wall.current, levels: 3, editions: [], milestones: [] })
      .map((s) => s.text)
      .join('');
    expect(said).toMatch(/^Show [a-z“]/);
    expect(said).not.toMatch(/^Show the snapshot of,|, ,|  /);
  });
});
