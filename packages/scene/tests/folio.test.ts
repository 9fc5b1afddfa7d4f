import { describe, expect, test } from '@jest/globals';
import { FIVE_DAY, makeActivity, makePlan, parseIsoDate, schedulePlan, startOfDay } from '@clembo/core';
import {
  asShown,
  bindFolio,
  composeExhibit,
  defaultBrief,
  enlarged,
  Folio,
  leavesOf,
  placesOf,
  planFacts,
  readyFolios,
  type Scene,
  textOf,
} from '../src/index';
import { measure, plainAmounts } from './fixtures';

const day0 = parseIsoDate('2026-03-02')!;
const plan = makePlan({
  name: 'Made up',
  calendars: [FIVE_DAY],
  calendar: FIVE_DAY.id,
  activities: [0, 1, 2].map((k) =>
    makeActivity({
      ref: `A${k}`,
      name: `Work ${k}`,
      start: startOfDay(day0 + 14 * k),
      finish: startOfDay(day0 + 12 + 14 * k),
    }),
  ),
});
const scene = (of = plan): Scene =>
  composeExhibit({
    plan: of,
    schedule: schedulePlan(of),
    brief: { ...defaultBrief('timeline'), page: 'A4 landscape' },
    measure,
    amounts: plainAmounts,
    edition: '',
    promised: null,
    editions: [],
  });
const exhibit = '6f1d3f6e-2f52-4c53-9d0e-0f8a3a5f2c11';
const pageOf = (id: string, scenes = [scene()]) => ({
  id,
  name: `Page ${id}`,
  plan: 'Made up',
  notes: `Say ${id}`,
  scenes,
});
const folioOf = (part: object = {}) =>
  Folio.parse({ name: 'For the board', pages: ['a', 'b'].map((id) => ({ id, exhibit })), ...part });
const wordsOf = (s: Scene) => leavesOf(s.nodes).flatMap((n) => (n.type === 'text' ? [textOf(n)] : []));

describe('a folio', () => {
  test('has a cover whose contents lead to their pages, and numbers on the others', () => {
    const { scenes, names, notes, lost } = bindFolio(
      folioOf({
        pages: [
          { id: 'a', exhibit, section: 'First' },
          { id: 'b', exhibit },
        ],
      }),
      [pageOf('a'), pageOf('b')],
      measure,
    );
    expect(names).toEqual(['For the board', 'Page a', 'Page b']);
    expect(notes).toEqual(['', 'Say a', 'Say b']);
    expect(wordsOf(scenes[0]!)).toEqual(expect.arrayContaining(['First', 'Page a', '2', 'Page b', '3']));
    expect(scenes[0]!.links!.map((l) => [l.page, l.to])).toEqual([
      [1, null],
      [2, null],
    ]);
    expect(scenes.slice(1).map((s) => wordsOf(s).at(-1))).toEqual(['2 / 3', '3 / 3']);
    expect(lost).toEqual([]);
    // The number stands on the paper and on nothing else.
    const number = leavesOf(scenes[1]!.nodes).at(-1) as unknown as { x: number; y: number; size: number };
    expect(number.x > 0 && number.y < scenes[1]!.height && number.y - number.size > scenes[1]!.height * 0.95).toBe(
      true,
    );
  });

  test('hops join places by what is there, and those that lost an end are told', () => {
    const hops = [
      { id: '1', from: { page: 'a', ref: 'A1' }, to: { page: 'b', ref: 'A2' } },
      { id: '2', from: { page: 'b', box: { x: 0.1, y: 0.2, width: 0.3, height: 0.1 } }, to: { page: 'a' } },
      { id: '3', from: { page: 'a', ref: 'gone' }, to: { page: 'b' } },
      { id: '4', from: { page: 'a', ref: 'A0' }, to: { page: 'no such page' } },
    ];
    const { scenes, lost } = bindFolio(folioOf({ hops, cover: false }), [pageOf('a'), pageOf('b')], measure);
    expect(lost.map((h) => h.id)).toEqual(['3', '4']);
    const [a, b] = scenes as [Scene, Scene];
    const [link] = a.links!;
    const place = placesOf(scene(), measure).get('A1')!;
    expect([link!.x, link!.y, link!.width, link!.height, link!.page]).toEqual([
      place.x,
      place.y,
      place.width,
      place.height,
      1,
    ]);
    // What is enlarged holds what it leads to, in the proportions of the page.
    const end = placesOf(scene(), measure).get('A2')!;
    const to = link!.to!;
    expect(
      to.x <= end.x && to.y <= end.y && to.x + to.width >= end.x + end.width && to.y + to.height >= end.y + end.height,
    ).toBe(true);
    expect(to.width / to.height).toBeCloseTo(b.width / b.height, 2);
    expect(b.links!.map((l) => [Math.round(l.x), Math.round(l.width), l.page, l.to])).toEqual([
      [Math.round(b.width * 0.1), Math.round(b.width * 0.3), 0, null],
    ]);
  });

  test('hops lead to where things are after a refresh, too', () => {
    const hops = [{ id: '1', from: { page: 'a', ref: 'A1' }, to: { page: 'b', ref: 'A2' } }];
    const later = {
      ...plan,
      activities: plan.activities.map((a) =>
        a.ref === 'A1' ? { ...a, start: a.start! + 30 * 1440, finish: a.finish! + 30 * 1440 } : a,
      ),
    };
    const bound = (of: typeof plan) =>
      bindFolio(folioOf({ hops, cover: false }), [pageOf('a', [scene(of)]), pageOf('b', [scene(of)])], measure);
    const [before, after] = [bound(plan), bound(later)];
    expect(after.lost).toEqual([]);
    const [was, is] = [before.scenes[0]!.links![0]!, after.scenes[0]!.links![0]!];
    expect(is.x).not.toBe(was.x);
    const there = placesOf(scene(later), measure);
    expect([is.x, is.y, is.width, is.height]).toEqual(Object.values(there.get('A1')!));
    const end = there.get('A2')!;
    expect(is.to!.x <= end.x && is.to!.x + is.to!.width >= end.x + end.width).toBe(true);
  });

  test('an overview has all pages small, each leading to itself, and how the plans stand', () => {
    const facts = planFacts({ ...plan, statusDate: startOfDay(day0 + 3) }, schedulePlan(plan), {
      plan,
      schedule: schedulePlan(plan),
    });
    expect(facts.facts).toEqual([
      { name: 'Ends', value: '10 April 2026', late: false, ref: null },
      { name: 'Against the promise', value: 'as promised', late: false, ref: null },
      { name: 'Complete', value: '0 of 3 activities', late: false, ref: null },
    ]);
    const sooner = { ...plan, activities: plan.activities.slice(0, 2) };
    const late = planFacts(plan, schedulePlan(plan), { plan: sooner, schedule: schedulePlan(sooner) });
    expect(late.facts[1]).toEqual({
      name: 'Against the promise',
      value: '10 working days later than promised',
      late: true,
      ref: null,
    });
    const { scenes, names } = bindFolio(folioOf({ overview: true }), [pageOf('a'), pageOf('b')], measure, [facts]);
    expect(names).toEqual(['For the board', 'Overview', 'Page a', 'Page b']);
    const overview = scenes[1]!;
    expect(wordsOf(overview)).toEqual(
      expect.arrayContaining(['Made up', '10 April 2026', 'as promised', '3  Page a', '4  Page b']),
    );
    expect(overview.links!.map((l) => [l.page, l.to])).toEqual([
      [2, null],
      [3, null],
    ]);
    // The small pages lie beside each other, on the paper; their own things cannot be taken for those of the overview.
    const [a, b] = overview.links!;
    expect(a!.x + a!.width <= b!.x || a!.y + a!.height <= b!.y).toBe(true);
    for (const l of overview.links!)
      expect(l.x >= 0 && l.y >= 0 && l.x + l.width <= overview.width + 1 && l.y + l.height <= overview.height + 1).toBe(
        true,
      );
    expect([...placesOf(overview, measure).keys()].filter((k) => k.startsWith('page'))).toEqual(['page 3', 'page 4']);
  });

  test('what is enlarged stays on its page', () => {
    for (const x of [0, 0.5, 0.98])
      for (const y of [0, 0.5, 0.98]) {
        const z = enlarged({ x: x * 800, y: y * 500, width: 10, height: 8 }, { width: 800, height: 500 });
        expect(z.x >= 0 && z.y >= 0 && z.x + z.width <= 800.01 && z.y + z.height <= 500.01).toBe(true);
        expect(z.width / z.height).toBeCloseTo(1.6, 2);
      }
  });

  test('a page may have a range of its own, where its brief has one', () => {
    const own = { from: startOfDay(day0), to: null, where: null, group: null };
    expect(asShown(defaultBrief('timeline'), own)).toMatchObject({ from: startOfDay(day0), to: null });
    expect(asShown(defaultBrief('network'), own)).toEqual(defaultBrief('network'));
  });

  test('ready-made folios are those for which there are pages', () => {
    const offered = (kinds: ('timeline' | 'slips' | 'build')[]) =>
      kinds.map((kind, k) => ({ id: exhibit.replace(/.$/, String(k)), name: kind, brief: defaultBrief(kind) }));
    expect(readyFolios(offered(['timeline']), 'P')).toEqual([]);
    const made = readyFolios(offered(['timeline', 'slips', 'build']), 'P');
    expect(made.map((r) => r.folio.name)).toEqual([
      'Weekly report: P',
      'Steering board: P',
      'Client pages: P',
      'Site noticeboard: P',
    ]);
    for (const { folio } of made) expect(Folio.parse(folio)).toEqual(folio);
  });
});
