import { describe, expect, test } from '@jest/globals';
import {
  type Activity,
  endOfDay,
  FIVE_DAY,
  makeActivity,
  makePlan,
  parseIsoDate,
  type Plan,
  schedulePlan,
  startOfDay,
} from '@clembo/core';

import {
  asShown,
  bindFolio,
  canGroup,
  composeExhibit,
  defaultBrief,
  fieldOf,
  Folio,
  leavesOf,
  overviewScene,
  phasesOf,
  placesOf,
  type PlanFacts,
  planFacts,
  type Scene,
  type SceneNode,
  type SmallPage,
  stackedBlocks,
  suggestedBlocks,
  textOf,
} from '../src/index';
import { doneWords } from '../src/folio/phases';
import { measure, plainAmounts, seeded } from './fixtures';

/** The overview of a folio: phases and facts of its plans, small pages and text, in blocks. */

const day = (iso: string) => parseIsoDate(iso)!;
const dated = (ref: string, parent: string | null, first: string, last: string, more: Partial<Activity> = {}) =>
  makeActivity({
    ref,
    parent,
    name: `Work ${ref}`,
    start: startOfDay(day(first)),
    finish: endOfDay(day(last)),
    ...more,
  });
const group = (ref: string, parent: string | null = null) =>
  makeActivity({ ref, parent, name: `Phase ${ref}`, kind: 'summary' });
const planOf = (activities: Activity[], part: Partial<Plan> = {}): Plan =>
  makePlan({ name: 'Harbour', calendars: [FIVE_DAY], calendar: FIVE_DAY.id, activities, ...part });
const phased = (shift = 0) =>
  planOf(
    [
      group('D'),
      dated('D1', 'D', '2026-03-02', '2026-03-06', {
        actualStart: startOfDay(day('2026-03-02')),
        actualFinish: endOfDay(day('2026-03-06')),
        percent: 100,
      }),
      dated('D2', 'D', '2026-03-09', '2026-03-13'),
      group('B'),
      dated('B1', 'B', '2026-03-16', shift === 0 ? '2026-03-27' : '2026-04-02'),
    ],
    { statusDate: startOfDay(day('2026-03-06')) },
  );
const standing = (plan: Plan) => ({ plan, schedule: schedulePlan(plan) });
const factsOf = (plan: Plan, id: string): PlanFacts => planFacts(plan, schedulePlan(plan), null, id);
const textBox = (n: SceneNode) => {
  if (n.type !== 'text') throw new Error('no text');
  const width = n.runs.reduce((sum, r) => sum + measure.width(r.face, n.size, r.text), 0);
  return { left: n.x, right: n.x + width, top: n.y - n.size, bottom: n.y + n.size * 0.3 };
};
const small = (id: string, number: number, width = 842, height = 595): SmallPage => ({
  id,
  name: `Page ${id}`,
  number,
  width,
  height,
  nodes: null,
});

describe('phases', () => {
  test('are the groups at the top of the outline, with their days, what is done, and how late they end', () => {
    const plan = phased(1);
    expect(phasesOf(plan, schedulePlan(plan), standing(phased()))).toEqual([
      // Half of ten working days is done.
      {
        ref: 'D',
        name: 'Phase D',
        within: ['D1', 'D2'],
        first: day('2026-03-02'),
        last: day('2026-03-13'),
        done: 0.5,
        late: 0,
      },
      // From Friday 27 March to Thursday 2 April: four working days.
      {
        ref: 'B',
        name: 'Phase B',
        within: ['B1'],
        first: day('2026-03-16'),
        last: day('2026-04-02'),
        done: 0,
        late: 4,
      },
    ]);
  });

  test('one group that holds everything is looked into; a plan that is not divided is one phase', () => {
    const inner = planOf([group('P'), ...phased().activities.map((a) => ({ ...a, parent: a.parent ?? 'P' }))]);
    expect(phasesOf(inner, schedulePlan(inner), null).map((p) => p.ref)).toEqual(['D', 'B']);
    const flat = planOf([dated('A', null, '2026-03-02', '2026-03-06'), dated('C', null, '2026-03-09', '2026-03-10')]);
    expect(phasesOf(flat, schedulePlan(flat), null)).toEqual([
      {
        ref: null,
        name: 'Harbour',
        within: [],
        first: day('2026-03-02'),
        last: day('2026-03-10'),
        done: 0,
        late: null,
      },
    ]);
    const undated = planOf([makeActivity({ ref: 'A', name: 'Some day' })]);
    const none = { ...schedulePlan(undated) };
    expect(phasesOf(undated, none, null).every((p) => Number.isFinite(p.first) && Number.isFinite(p.last))).toBe(true);
  });
});

describe('an overview', () => {
  const pages = ['a', 'b'].map((id, k) => small(id, k + 2));

  test('draws phases to one scale: bands begin and end where their days lie on it', () => {
    const block = { id: 'x', what: 'phases', plan: null, place: { x: 0, y: 0, width: 1, height: 0.5 } } as const;
    const size = { width: 842, height: 595 };
    const { scene } = overviewScene('Board', [block], { plans: [factsOf(phased(), 'p')], pages }, size, measure);
    const field = fieldOf(size);
    const bars = leavesOf(scene.nodes).flatMap((n) => (n.type === 'rect' && n.role === 'bar' ? [n] : []));
    // 2 to 13 March and 16 to 27 March, in 26 days from left to right.
    const at = (days: number) => field.x + (days / 26) * field.width;
    expect(bars.map((b) => [b.x, b.x + b.width])).toEqual([
      [expect.closeTo(at(0), 1), expect.closeTo(at(12), 1)],
      [expect.closeTo(at(14), 1), expect.closeTo(at(26), 1)],
    ]);
    const done = leavesOf(scene.nodes).flatMap((n) => (n.type === 'rect' && n.role === 'progress' ? [n.width] : []));
    expect(done).toEqual([expect.closeTo(field.width * (12 / 26) * 0.5, 1)]);
    // Five of the 26 days are over.
    expect(leavesOf(scene.nodes).some((n) => n.type === 'text' && textOf(n).includes('19 % of the time'))).toBe(true);
  });

  test('phases and facts lead to where their plan shows what they are about, enlarged', () => {
    const plan = planOf(
      [
        ...phased().activities,
        makeActivity({ ref: 'M', name: 'Gate', kind: 'finishMilestone', finish: endOfDay(day('2026-03-27')) }),
      ],
      { statusDate: startOfDay(day('2026-03-06')) },
    );
    const scene = (): Scene =>
      composeExhibit({
        ...standing(plan),
        brief: { ...defaultBrief('timeline'), page: 'A4 landscape' },
        measure,
        amounts: plainAmounts,
        edition: '',
        promised: null,
        editions: [],
      });
    const folio = Folio.parse({
      name: 'Board',
      cover: false,
      overview: true,
      pages: ['other', 'own'].map((id) => ({ id, exhibit: '6f1d3f6e-2f52-4c53-9d0e-0f8a3a5f2c11' })),
    });
    const page = (id: string, planId: string) => ({
      id,
      name: id,
      plan: 'Harbour',
      planId,
      notes: '',
      scenes: [scene()],
    });
    const { scenes } = bindFolio(folio, [page('other', 'q'), page('own', 'p')], measure, [factsOf(plan, 'p')]);
    const own = scenes[0]!.links!.filter((l) => l.to !== null);
    // Two phases and the next milestone, all to the third page: the second is of another plan.
    expect(own.map((l) => l.page)).toEqual([2, 2, 2]);
    const there = placesOf(scene(), measure);
    for (const [k, refs] of [['D1', 'D2'], ['B1'], ['M']].entries())
      for (const ref of refs) {
        const [to, box] = [own[k]!.to!, there.get(ref)!];
        expect([ref, to.x <= box.x && to.x + to.width >= box.x + box.width && to.y <= box.y]).toEqual([ref, true]);
      }
  });

  test('says what is not there any more, and what has no room', () => {
    const place = { x: 0, y: 0, width: 0.3, height: 0.06 };
    const words = (block: object) => {
      const folio = Folio.parse({ name: 'B', blocks: [{ id: 'x', place, ...block }] });
      const { scene } = overviewScene(
        'B',
        folio.blocks,
        { plans: [factsOf(phased(), 'p')], pages },
        { width: 400, height: 300 },
        measure,
      );
      return {
        cut: scene.fit.labelsShortened,
        text: leavesOf(scene.nodes).flatMap((n) => (n.type === 'text' ? [textOf(n)] : [])),
      };
    };
    expect(words({ what: 'page', page: 'gone' }).text).toContain('This page is not in the folio any more.');
    expect(words({ what: 'phases' })).toMatchObject({
      cut: 2,
      text: expect.arrayContaining(['2 phases have no room here']),
    });
    const long = words({ what: 'text', text: 'Much to say about the harbour. '.repeat(20) });
    expect(long.cut).toBeGreaterThan(0);
    expect(long.text.at(-1)).toMatch(/…$/);
  });

  test('keeps what it writes within its blocks, whatever their size', () => {
    const next = seeded(17);
    const plans = [1, 2, 3].map((k) => {
      const many = Array.from({ length: k * 3 }, (_, g) => [
        group(`G${g}`),
        dated(`A${g}`, `G${g}`, '2026-03-02', g % 2 === 0 ? '2026-04-03' : '2026-05-01'),
        dated(`C${g}`, `G${g}`, '2026-05-04', '2026-06-05'),
      ]).flat();
      return factsOf(planOf(many, { name: `Plan number ${k} of the harbour` }), `p${k}`);
    });
    for (let k = 0; k < 150; k++) {
      const what = (['phases', 'facts', 'text', 'page'] as const)[k % 4]!;
      const [x, y] = [next() * 0.5, next() * 0.5];
      const place = { x, y, width: 0.12 + next() * (0.88 - x), height: 0.12 + next() * (0.88 - y) };
      const text = 'A few words, and some more of them. '.repeat(1 + Math.floor(next() * 12));
      const of = {
        plans: plans.slice(0, 1 + Math.floor(next() * 3)),
        pages: [small('a', 2, 300 + 900 * next(), 300 + 600 * next())],
      };
      const folio = Folio.parse({ name: 'B', blocks: [{ id: 'x', place, what, page: 'a', text }] });
      const size = { width: 500 + 900 * next(), height: 400 + 500 * next() };
      const { scene, blocks } = overviewScene('B', folio.blocks, of, size, measure);
      const { box } = blocks[0]!;
      for (const n of leavesOf(scene.nodes).slice(1)) {
        if (n.type !== 'text') continue;
        const t = textBox(n);
        expect([what, k, textOf(n), t.left >= box.x - 0.5, t.right <= box.x + box.width + 0.5]).toEqual([
          what,
          k,
          textOf(n),
          true,
          true,
        ]);
        expect([what, k, textOf(n), t.bottom <= box.y + box.height + 1.5]).toEqual([what, k, textOf(n), true]);
      }
    }
  });
});

describe('blocks that are suggested', () => {
  const apart = (list: { place: { x: number; y: number; width: number; height: number } }[]) => {
    for (const [k, { place: a }] of list.entries()) {
      expect(a.x >= 0 && a.y >= 0 && a.x + a.width <= 1 + 1e-9 && a.y + a.height <= 1 + 1e-9).toBe(true);
      for (const { place: b } of list.slice(k + 1))
        expect(
          a.x + a.width <= b.x + 1e-9 ||
            b.x + b.width <= a.x + 1e-9 ||
            a.y + a.height <= b.y + 1e-9 ||
            b.y + b.height <= a.y + 1e-9,
        ).toBe(true);
    }
  };
  const plans = [factsOf(phased(), 'p'), factsOf(phased(1), 'q'), factsOf(phased(), 'r')];

  test('hold every page once, apart from each other and on the paper, for any number of pages', () => {
    for (const count of [1, 2, 5, 12, 40, 100])
      for (const size of [
        { width: 842, height: 595 },
        { width: 595, height: 842 },
        { width: 960, height: 540 },
      ])
        for (const own of [plans.slice(0, 1), plans]) {
          const pages = Array.from({ length: count }, (_, k) => small(`p${k}`, k + 2, size.width, size.height));
          const blocks = suggestedBlocks({ plans: own, pages }, size);
          apart(blocks);
          expect(blocks.filter((b) => b.what === 'page').map((b) => b.id)).toEqual(pages.map((p) => p.id));
          expect(Folio.safeParse({ name: 'B', blocks }).success).toBe(true);
          const { frames } = overviewScene('B', blocks, { plans: own, pages }, size, measure);
          expect(frames.every((f) => Math.abs(f.box.width / f.box.height - size.width / size.height) < 0.05)).toBe(
            true,
          );
        }
  });

  test('stand below each other on a phone, in the order in which they are read', () => {
    const pages = [small('a', 2), small('b', 3)];
    const { blocks, size } = stackedBlocks(
      suggestedBlocks({ plans, pages }, { width: 842, height: 595 }),
      { plans, pages },
      390,
      13,
      measure,
    );
    expect(blocks.map((b) => b.what)).toEqual(['facts', 'phases', 'page', 'page']);
    apart(blocks);
    const { scene, frames } = overviewScene('A name', blocks, { plans, pages }, size, measure);
    expect(frames.map((f) => f.box.width)).toEqual([
      expect.closeTo(fieldOf(size).width, 0),
      expect.closeTo(fieldOf(size).width, 0),
    ]);
    expect(scene.fit.labelsShortened).toBe(0);
  });
});

test('a page of a folio may be grouped on its own, where its exhibit is grouped at all', () => {
  const own = { from: null, to: null, where: null, group: 'zone' };
  expect(asShown(defaultBrief('timeline'), own)).toMatchObject({ lanes: ['zone'] });
  expect(asShown(defaultBrief('handoffs'), own)).toMatchObject({ lanes: 'zone' });
  expect(asShown(defaultBrief('snapshot'), own)).toMatchObject({ by: 'zone' });
  expect(asShown(defaultBrief('build'), own)).toEqual(defaultBrief('build'));
  expect([canGroup(defaultBrief('network')), canGroup(defaultBrief('slips'))]).toEqual([true, false]);
});

test('a phase of which more is to come than is known says no share', () => {
  const plan = makePlan({
    name: 'Depot',
    source: 'given',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities: [
      makeActivity({ ref: 'G', name: 'Strip-out', kind: 'summary' }),
      dated('A', 'G', '2026-03-02', '2026-03-06', { percent: 100 }),
      makeActivity({ ref: 'B', name: 'Haul', parent: 'G' }),
      makeActivity({ ref: 'H', name: 'Track', kind: 'summary' }),
      dated('C', 'H', '2026-03-09', '2026-03-13', { percent: 40 }),
    ],
  });
  expect(phasesOf(plan, schedulePlan(plan), null).map(doneWords)).toEqual(['share done not known', '40 % done']);
});
