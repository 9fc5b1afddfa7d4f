import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  type Body,
  bodyOf,
  boxShape,
  dayFromCivil,
  endOfDay,
  FIVE_DAY,
  Look,
  makeActivity,
  makeElement,
  makeField,
  makePlan,
  makeValue,
  type Plan,
  schedulePlan,
  startOfDay,
  STAYS,
} from '@clembo/core';
import {
  type BuildBrief,
  composeExhibit,
  defaultBrief,
  type ImageNode,
  laidOver,
  leavesOf,
  portable,
  readBriefSentence,
  readyBuilds,
  type Scene,
  sentenceOf,
  textOf,
} from '../src/index';
import { cameraOf, projector } from '../src/exhibits/build/camera';
import { type ElementLook, elementLook } from '../src/exhibits/build/look';
import { packLooks } from '../src/exhibits/build/packed';
import { elementAt, elementsIn } from '../src/exhibits/build/picking';
import { boundsOf, drawModel, liftedBy } from '../src/exhibits/build/picture';
import { Raster } from '../src/exhibits/build/raster';
import { measure, plainAmounts, seeded } from './fixtures';

const day = (month: number, d: number) => dayFromCivil(2026, month, d);

/** Boxes at random, or in a row, with their elements. */
function boxesAt(places: number[][], sizes: number[][]): Body {
  return bodyOf([
    {
      count: places.length,
      geometry: {
        origin: [0, 0, 0],
        shapes: sizes.map((s) => boxShape([0, 0, 0], s)),
        parts: places.map(([x, y, z], element) => {
          const place = STAYS();
          place.set([x!, y!, z!], 9);
          return { element, shape: element, place };
        }),
      },
    },
  ]);
}
function randomBoxes(seed: number, count = 25) {
  const r = seeded(seed);
  const three = (by: number, least = 0) => [0, 1, 2].map(() => least + r() * by);
  return {
    body: boxesAt(
      Array.from({ length: count }, () => three(20)),
      Array.from({ length: count }, () => three(5, 0.5)),
    ),
    r,
  };
}
const face = (colour: string): ElementLook => ({
  face: colour,
  above: colour,
  fill: 1,
  hatched: false,
  edge: null,
  strong: false,
  dashed: false,
});
const all = (n: number) => new Uint8Array(n).fill(1);
const countOf = (r: Raster, holds: (red: number, green: number, blue: number) => boolean) =>
  r.colour.reduce((n, c) => n + (holds(c >> 16, (c >> 8) & 255, c & 255) ? 1 : 0), 0);

describe('the picture', () => {
  test('of random triangles is that of asking each point which of them is nearest', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const r = seeded(seed);
      const raster = new Raster(60, 40, 0);
      const triangles = Array.from({ length: 12 }, (_, k) => ({
        p: Array.from({ length: 3 }, () => [r() * 90 - 15, r() * 60 - 10, r() * 10] as const),
        colour: k + 1,
      }));
      for (const {
        p: [a, b, c],
        colour,
      } of triangles)
        raster.triangle(a![0], a![1], a![2], b![0], b![1], b![2], c![0], c![1], c![2], colour);
      let wrong = 0;
      for (let y = 0; y < 40; y++)
        for (let x = 0; x < 60; x++) {
          let [best, depth] = [0, Infinity];
          for (const {
            p: [a, b, c],
            colour,
          } of triangles) {
            const area = (b![0] - a![0]) * (c![1] - a![1]) - (c![0] - a![0]) * (b![1] - a![1]);
            const u = ((b![0] - x - 0.5) * (c![1] - y - 0.5) - (c![0] - x - 0.5) * (b![1] - y - 0.5)) / area;
            const v = ((c![0] - x - 0.5) * (a![1] - y - 0.5) - (a![0] - x - 0.5) * (c![1] - y - 0.5)) / area;
            if (u < 0 || v < 0 || u + v > 1) continue;
            const d = u * a![2] + v * b![2] + (1 - u - v) * c![2];
            if (d < depth) [best, depth] = [colour, d];
          }
          if (raster.colour[y * 60 + x] !== best) wrong++;
        }
      // Points that lie exactly on a side belong to either.
      expect(wrong).toBeLessThanOrEqual(2);
    }
  });

  test('holds all that is meant, whichever way it is looked at', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const { body, r } = randomBoxes(seed);
      const meant = all(25);
      const look = Look.parse({
        turn: Math.round(r() * 360 - 180),
        height: Math.round(r() * 178 - 88),
        perspective: r() < 0.5,
      });
      const bounds = boundsOf({ body, meant, lifted: null })!;
      const [w, h] = [100 + Math.round(r() * 400), 100 + Math.round(r() * 300)];
      const project = projector(cameraOf(look, bounds, w, h), w);
      const at = new Float64Array(3);
      let [left, right, high, low] = [Infinity, -Infinity, Infinity, -Infinity];
      for (let c = 0; c < body.corners.length; c += 3) {
        project(body.corners[c]!, body.corners[c + 1]!, body.corners[c + 2]!, at);
        expect(at[0]! > -w * 0.01 && at[0]! < w * 1.01 && at[1]! > -h * 0.01 && at[1]! < h * 1.01).toBe(true);
        left = Math.min(left, at[0]!);
        right = Math.max(right, at[0]!);
        high = Math.min(high, at[1]!);
        low = Math.max(low, at[1]!);
      }
      // And does not waste it: one of the two directions is filled.
      expect(right - left > w * 0.9 || low - high > h * 0.9).toBe(true);
    }
  });

  test('what is pointed at is what is drawn there, and what is framed has its middle there', () => {
    let hits = 0;
    for (let seed = 1; seed <= 6; seed++) {
      const { body, r } = randomBoxes(seed);
      const look = Look.parse({
        turn: Math.round(r() * 360 - 180),
        height: Math.round(r() * 120 - 60),
        perspective: seed % 2 === 0,
        cut: seed % 3 === 0 ? 12 : null,
      });
      const meant = all(25);
      const camera = cameraOf(look, boundsOf({ body, meant, lifted: null })!, 200, 150);
      const seen = { body, solid: meant, lifted: null, cut: look.cut };
      let hit = 0;
      for (let k = 0; k < 25; k++) {
        const looks = Array.from({ length: 25 }, (_, e) => face(e === k ? '#FF0000' : '#00FF00'));
        const picture = drawModel({ body, meant, lifted: null, cut: look.cut }, looks, camera, 200, 150);
        for (let n = 0; n < 12; n++) {
          const [x, y] = [Math.floor(r() * 200), Math.floor(r() * 150)];
          const c = picture.colour[y * 200 + x]!;
          const red = c >> 16 > ((c >> 8) & 255) && (c & 255) === 0;
          const found = elementAt(seen, camera, (x + 0.5) / 200, (y + 0.5) / 150);
          if (red !== (found === k)) throw new Error(`seed ${seed}, element ${k}, point ${x}, ${y}: found ${found}`);
          if (red) hit++;
        }
      }
      hits += hit;
      expect(elementsIn(seen, camera, { x0: 0, y0: 0, x1: 1, y1: 1 }).length).toBe(25);
      expect(elementsIn(seen, camera, { x0: 0, y0: 0, x1: 0, y1: 0 })).toEqual([]);
    }
    expect(hits).toBeGreaterThan(15);
  });

  test('what is under way is filled from below by its share; what is gone is not drawn', () => {
    const body = boxesAt([[0, 0, 0]], [[4, 1, 10]]);
    const meant = all(1);
    const look = Look.parse({ turn: 0, height: 0 });
    const camera = cameraOf(look, boundsOf({ body, meant, lifted: null })!, 200, 300);
    const shown = { toCome: true, loose: true };
    const filled = (look1: ElementLook) =>
      countOf(
        drawModel({ body, meant, lifted: null, cut: null }, [{ ...look1, edge: null }], camera, 200, 300),
        (r, g, b) => r !== 251 || g !== 250 || b !== 246,
      );
    const whole = filled(elementLook(4, 1, 0, '#79519E', shown));
    for (const share of [0.25, 0.5, 0.9])
      expect(filled(elementLook(3, share, 0, '#79519E', shown)) / whole).toBeCloseTo(share, 2);
    expect(filled(elementLook(6, 0, 0, '#79519E', shown))).toBe(0);
    expect(filled(elementLook(2, 0, 0, '#79519E', shown))).toBe(0);
    // Behind its promise it is stripes, which are seen without colours too.
    const striped = filled(elementLook(2, 0, -1, '#79519E', shown));
    expect(striped / whole).toBeGreaterThan(0.15);
    expect(striped / whole).toBeLessThan(0.4);
    // What is cut away at half its height is half as high.
    const cut = drawModel({ body, meant, lifted: null, cut: 5 }, [face('#FF0000')], camera, 200, 300);
    expect(countOf(cut, (r, _, b) => r > 100 && b === 0) / whole).toBeCloseTo(0.5, 2);
  });

  test('storeys are lifted in the order of their heights', () => {
    const body = boxesAt(
      [
        [0, 0, 0],
        [0, 0, 3],
        [0, 0, 6],
        [0, 0, 3.1],
      ],
      [
        [1, 1, 1],
        [1, 1, 1],
        [1, 1, 1],
        [1, 1, 1],
      ],
    );
    expect([...liftedBy(['Ground', 'First', '', 'First'], body, 4)!]).toEqual([0, 4, 0, 4]);
    expect(liftedBy(['a', 'b', 'c', 'd'], body, 0)).toBeNull();
  });

  test('looks are packed for the screen as they are on pages', () => {
    expect([
      ...packLooks([{ ...face('#0A0B0C'), above: null, fill: 0.5, hatched: true, edge: '#FFFEFD', strong: true }]),
    ]).toEqual([10, 11, 12, 255, 0, 0, 0, 0, 255, 254, 253, 255, 128, 255, 255, 0]);
  });
});

const elements = Array.from({ length: 12 }, (_, k) =>
  makeElement({
    ref: `m/${k}`,
    name: `Block ${k}`,
    class: k < 6 ? 'Wall' : 'Slab',
    storey: k % 2 ? 'Upper' : 'Ground',
    volume: 2,
  }),
);
const body = boxesAt(
  elements.map((_, k) => [k * 3, 0, k % 2 ? 3 : 0]),
  elements.map(() => [2, 2, 2]),
);
const model = { elements, body };
const dated = (ref: string, first: number, last: number, code: string) =>
  makeActivity({ ref, name: `Work ${ref}`, start: startOfDay(first), finish: endOfDay(last), codes: { phase: code } });
function planOf(shift = 0, part: Partial<Plan> = {}): Plan {
  return makePlan({
    name: 'Blocks',
    statusDate: startOfDay(day(4, 15)),
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities: [
      dated('A', day(4, 1) + shift, day(4, 10) + shift, 'a'),
      dated('B', day(4, 13) + shift, day(4, 24) + shift, 'b'),
      dated('C', day(5, 4) + shift, day(5, 15) + shift, 'b'),
    ],
    codeFields: [
      makeField({
        id: 'phase',
        name: 'Phase',
        values: [makeValue({ code: 'a', title: 'First' }), makeValue({ code: 'b', title: 'Then' })],
      }),
    ],
    matches: [
      { activity: 'A', effect: 'builds', elements: ['m/0', 'm/1', 'm/2'] },
      { activity: 'B', effect: 'builds', elements: ['m/3', 'm/4', 'm/5', 'm/6'] },
      { activity: 'C', effect: 'builds', elements: ['m/7', 'm/8'] },
    ],
    ...part,
  });
}
const compose = (
  part: Partial<BuildBrief> = {},
  { plan = planOf(), against = true, of = model as typeof model | null } = {},
): Scene => {
  const promised = planOf(-21);
  return composeExhibit({
    plan,
    schedule: schedulePlan(plan),
    brief: { ...defaultBrief('build'), page: 'A3 landscape', colour: 'phase', ...part },
    measure,
    amounts: plainAmounts,
    edition: 'Now',
    promised: against ? { plan: promised, schedule: schedulePlan(promised), name: 'Promise' } : null,
    editions: [],
    model: of,
  });
};
const textsOf = (scene: Scene) => leavesOf(scene.nodes).filter((n) => n.type === 'text');
const wordsOf = (scene: Scene) => textsOf(scene).map((n) => textOf(n as never));
const imagesOf = (scene: Scene) => leavesOf(scene.nodes).filter((n): n is ImageNode => n.type === 'image');

describe('the page of a model', () => {
  test('says what stands on the date, and what is behind', () => {
    const scene = compose();
    // Counted by hand: A's three stand, B's four are under way and were promised to be farther; C's two were promised to be
    // under way.
    expect(scene.title).toBe('15 April 2026: 3 of 12 elements stand, 4 are under way, 6 are behind the promise');
    const words = wordsOf(scene);
    expect(words).toEqual(
      expect.arrayContaining(['15 April 2026', 'stand', 'under way', 'behind the promise', 'Work B', 'Coming next']),
    );
    expect(words).toContain('4 elements · 30 % · behind · 15 d late');
    expect(words).toContain('4 of 9 built, 47 %');
    expect(imagesOf(scene)).toHaveLength(1);
    expect(imagesOf(scene)[0]!.alt).toContain('3 stand, 4 under way');
    expect(scene.content.rows.map((r) => r.cells)).toEqual([
      ['Work A', '3', '1 April 2026', '10 April 2026', '100 %'],
      ['Work B', '4', '13 April 2026', '24 April 2026', '30 %'],
      ['Work C', '2', '4 May 2026', '15 May 2026', '0 %'],
    ]);
    expect(scene.description).toContain('12 of 12 elements, 3 of 3 activities with elements');
  });

  test('a storyboard says what is new from date to date, and ends with all of it', () => {
    const scene = compose({ when: 'even4', measure: 'volume' });
    expect(imagesOf(scene)).toHaveLength(4);
    const words = wordsOf(scene);
    expect(words.some((w) => w.startsWith('New: Work B'))).toBe(true);
    expect(scene.content.rows.map((r) => r.cells.at(-1))).toEqual(['100 %', '100 %', '100 %']);
    expect(words).toContain('9 stand · 18 m³');
    const own = compose({
      when: 'own',
      dates: [
        { name: 'Second', start: startOfDay(day(5, 1)), finish: null },
        { name: 'First', start: startOfDay(day(4, 2)), finish: null },
      ],
    });
    const heads = wordsOf(own).filter((w) => /^[12] {2}/.test(w));
    expect(heads).toEqual(['1  2 April 2026', '2  1 May 2026']);
    expect(wordsOf(own)).toEqual(expect.arrayContaining(['First', 'Second']));
  });

  test('only what is asked for is counted and drawn', () => {
    const scene = compose({ where: { match: 'all', tests: [{ field: 'element.class', is: 'is', values: ['Slab'] }] } });
    expect(scene.title).toBe('15 April 2026: 0 of 6 elements stand, 1 is under way, 3 are behind the promise');
    expect(imagesOf(scene)[0]!.data).not.toBe(imagesOf(compose())[0]!.data);
  });

  test('every page is the same again, has its texts apart and on the paper', () => {
    for (const page of ['A3 landscape', 'A4 portrait', 'wide slide', 'A4 landscape'] as const)
      for (const when of ['status', 'even3', 'even8'] as const) {
        const scene = compose({ page, when });
        if (when === 'even3') expect(JSON.stringify(compose({ page, when }))).toBe(JSON.stringify(scene));
        expect(scene.fit.readable).toBe(true);
        const boxes = textsOf(scene).map((n) => {
          const t = n as never as { x: number; y: number; size: number; runs: { text: string; face: 'label' }[] };
          const width = t.runs.reduce((sum, r) => sum + measure.width(r.face, t.size, r.text), 0);
          return {
            text: t.runs.map((r) => r.text).join(''),
            left: t.x,
            right: t.x + width,
            top: t.y - t.size * 0.68,
            bottom: t.y,
          };
        });
        for (const b of boxes) {
          if (b.left < 0 || b.right > scene.width || b.top < 0 || b.bottom > scene.height)
            throw new Error(`${page}, ${when}: “${b.text}” leaves the paper`);
          for (const o of boxes)
            if (
              b !== o &&
              b.left < o.right - 0.2 &&
              o.left < b.right - 0.2 &&
              b.top < o.bottom - 0.2 &&
              o.top < b.bottom - 0.2
            )
              throw new Error(`${page}, ${when}: “${b.text}” lies on “${o.text}”`);
          for (const i of imagesOf(scene))
            if (b.left < i.x + i.width && b.right > i.x && b.top < i.y + i.height && b.bottom > i.y)
              throw new Error(`${page}, ${when}: “${b.text}” lies on a picture`);
        }
      }
  });

  test('what it cannot know it says', () => {
    const notice = (scene: Scene) => wordsOf(scene).join(' ');
    expect(notice(compose({}, { of: null }))).toContain('The plan has no model');
    expect(notice(compose({}, { plan: planOf(0, { matches: [] }) }))).toContain('No element is matched');
    expect(notice(compose({}, { plan: planOf(0, { statusDate: null }) }))).toContain('Nobody has said on which date');
    expect(
      notice(compose({ where: { match: 'all', tests: [{ field: 'element.class', is: 'is', values: ['Roof'] }] } })),
    ).toContain('No element of the model is what this brief asks for');
    expect(
      notice(
        compose({
          where: {
            match: 'all',
            tests: [
              { field: 'property.Gone', is: 'filled', values: [] },
              { field: 'no such', is: 'filled', values: [] },
            ],
          },
        }),
      ),
    ).toContain('has no field “no such”');
  });

  test('pictures that play are made where they are asked for, from nothing to all', () => {
    const plan = planOf();
    const made = composeExhibit({
      plan,
      schedule: schedulePlan(plan),
      brief: { ...defaultBrief('build'), page: 'A4 landscape' },
      measure,
      amounts: plainAmounts,
      edition: '',
      promised: null,
      editions: [],
      model,
      play: true,
    });
    expect(made.play!.length).toBeGreaterThan(20);
    expect(made.play![0]!.words).toContain('0 stand');
    expect(made.play!.at(-1)!.words).toContain('9 stand');
    expect(compose().play).toBeUndefined();
  });

  test('a brief of a model reads back from its sentence', () => {
    const plan = planOf();
    const words = { ...plan, editions: [{ id: 'x', name: 'Promise' }], elementFields: undefined as never };
    const briefs: Partial<BuildBrief>[] = [
      {},
      { when: 'even6', colour: 'phase', measure: 'volume', toCome: false },
      { turn: -90, height: 90, perspective: true, cut: 4.5, lift: 3 },
      { compare: 'promised', loose: false, page: 'wide slide', print: 'grey' },
      { when: 'own', dates: [{ name: 'Roof on', start: startOfDay(day(5, 4)), finish: null }] },
      {
        where: {
          match: 'all',
          tests: [
            { field: 'element.storey', is: 'is', values: ['Upper'] },
            { field: 'number.volume', is: 'above', values: ['1'] },
          ],
        },
      },
    ];
    for (const part of briefs) {
      const brief = { ...defaultBrief('build'), ...part };
      const { elementFields: _, ...plain } = words;
      const said = sentenceOf(brief, plain)
        .map((s) => s.text)
        .join('');
      const read = readBriefSentence(said, defaultBrief('build'), plain);
      expect([said, read.unknown, read.brief]).toEqual([said, [], brief]);
    }
  });

  test('a kept brief leaves the dates and the spot of its own model behind', () => {
    const own: BuildBrief = {
      ...defaultBrief('build'),
      colour: 'phase',
      when: 'own',
      dates: [{ name: 'Roof', start: startOfDay(day(5, 1)), finish: null }],
      middle: [1, 2, 3],
      span: 9,
      lift: 4,
    };
    const { brief, lost } = laidOver(portable(own), { codeFields: [], periods: [] });
    expect(brief).toEqual({ ...defaultBrief('build'), lift: 4 });
    expect(lost).toEqual(['phase']);
  });

  test('ready-made pages are there once something is matched', () => {
    expect(readyBuilds(planOf(0, { matches: [] }), 1)).toEqual([]);
    expect(readyBuilds(planOf(), 1).map((r) => r.name)).toEqual([
      'The model today',
      'The model from start to finish',
      'The model storey by storey',
    ]);
    for (const { brief } of readyBuilds(planOf(), 1))
      expect(imagesOf(compose(brief as BuildBrief)).length).toBeGreaterThan(0);
    const { plan } = applyCommand(planOf(), {
      do: 'setPlan',
      settings: {
        buildViews: [{ id: 'v', name: 'Corner', look: Look.parse({}), where: { match: 'all', tests: [] }, day: null }],
      },
    });
    expect(plan.buildViews[0]!.look.turn).toBe(35);
  });
});
