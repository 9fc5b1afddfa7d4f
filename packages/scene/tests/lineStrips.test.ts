import { describe, expect, test } from '@jest/globals';
import {
  FIVE_DAY,
  type Line,
  makeActivity,
  makePlan,
  parseIsoDate,
  type Pin,
  placeInStrip,
  type Plan,
  Resource,
  schedulePlan,
  startOfDay,
} from '@clembo/core';
import {
  composeExhibit,
  defaultBrief,
  type ImageNode,
  laidOver,
  leavesOf,
  type LinearBrief,
  type PlaneShape,
  readBriefSentence,
  type Scene,
  sentenceOf,
  textOf,
} from '../src/index';
import { quantityByPlace, workedByPlace } from '../src/exhibits/linear/byPlace';
import { placeScaleWords, readPlaceScale, readTimeScale, timeScaleWords } from '../src/brief/axisScales';
import { measure, plainAmounts, seeded } from './fixtures';

const day0 = parseIsoDate('2026-03-02')!;
const picture = { id: 'p', name: 'Map', data: 'data:image/png;base64,iVBORw0KGgo=', width: 2000, height: 240 };

const planOf = (pins: Pin[], part: Partial<Line> = {}): Plan =>
  makePlan({
    name: 'Made up',
    start: startOfDay(day0),
    source: 'given',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    pictures: [picture],
    lines: [
      {
        id: 'L',
        name: 'Bank',
        unit: 'm',
        from: 0,
        to: 2_000_000,
        stations: [],
        zones: [],
        windows: [],
        strips: [{ id: 's', name: 'Map of the bank', picture: 'p', pins }],
        ...part,
      },
    ],
    activities: [0, 1, 2].map((k) =>
      makeActivity({
        ref: `A${k}`,
        name: `Work ${k}`,
        start: startOfDay(day0 + 14 * k),
        finish: startOfDay(day0 + 28 + 14 * k),
        from: 0,
        to: 2_000_000,
      }),
    ),
  });
const compose = (plan: Plan, part: Partial<LinearBrief> = {}): Scene =>
  composeExhibit({
    plan,
    schedule: schedulePlan(plan),
    brief: { ...defaultBrief('linear'), page: 'A3 landscape', ...part },
    measure,
    amounts: plainAmounts,
    edition: '',
    promised: null,
    editions: [],
  });
const imagesOf = (scene: Scene) => leavesOf(scene.nodes).filter((n): n is ImageNode => n.type === 'image');

/** Where a place stands on its axis, from the borders of the plot alone. */
const along = (p: PlaneShape, place: number): number => {
  const share = (place - p.place0) / (p.place1 - p.place0);
  return p.across ? p.left + share * (p.right - p.left) : p.bottom - share * (p.bottom - p.top);
};

/** Where on the page, along the axis, a point of the picture is painted: none where it is cut off. */
function paintedAt(images: ImageNode[], across: boolean, x: number): number[] {
  return images.flatMap((n) => {
    const { part = { x: 0, width: 1 }, turn = 0 } = n;
    const share = (x - part.x) / part.width;
    if (share < -1e-9 || share > 1 + 1e-9) return [];
    const [from, long] = across ? [n.x, n.width] : [n.y, n.height];
    // Turned by half a turn, or upright with its head to the right, it runs the other way.
    const back = across ? turn === 180 : turn === 270;
    return [from + (back ? 1 - share : share) * long];
  });
}

describe('pictures along the line', () => {
  test('every known place of a picture stands within half a point of its place, whatever the range (random pins)', () => {
    const random = seeded(17);
    let checked = 0;
    for (let k = 0; k < 80; k++) {
      const way = random() < 0.5 ? 1 : -1;
      const count = 2 + Math.floor(random() * 4);
      let x = random() * 0.3;
      let place = way > 0 ? Math.floor(random() * 600_000) - 200_000 : 2_000_000 - Math.floor(random() * 600_000);
      const pins = Array.from({ length: count }, () => {
        const own = { x, y: random(), place };
        x += 0.02 + (random() * 0.6) / count;
        place += way * (50_000 + Math.floor(random() * 700_000));
        return own;
      });
      const forms: Partial<LinearBrief>[] = [
        {},
        { axes: 'up' },
        { backwards: true },
        { fromPlace: Math.floor(random() * 900_000), toPlace: 1_000_000 + Math.floor(random() * 900_000) },
        { axes: 'up', backwards: true, placeScale: 0.1 },
      ];
      for (const form of forms) {
        const scene = compose(planOf(pins), form);
        const images = imagesOf(scene);
        const p = scene.plane!;
        const [low, high] = p.across ? [p.left, p.right] : [p.top, p.bottom];
        for (const n of images) {
          const [a, b] = p.across ? [n.x, n.x + n.width] : [n.y, n.y + n.height];
          expect([k, a >= low - 0.02, b <= high + 0.02]).toEqual([k, true, true]);
        }
        // A third place, that is no pin.
        for (const third of [random(), random(), ...pins.map((q) => q.x)]) {
          const wanted = along(p, placeInStrip(pins, third)! / 1000);
          if (wanted < low + 0.5 || wanted > high - 0.5) continue;
          const found = paintedAt(images, p.across, third);
          expect([k, form, found.length > 0]).toEqual([k, form, true]);
          for (const at of found) expect(Math.abs(at - wanted)).toBeLessThan(0.5);
          checked++;
        }
      }
    }
    expect(checked).toBeGreaterThan(500);
  });

  test('without enough pins, or left out by the brief, there is none', () => {
    const pins = [
      { x: 0, y: 0, place: 0 },
      { x: 1, y: 0, place: 2_000_000 },
    ];
    expect(imagesOf(compose(planOf(pins))).map((n) => n.alt)).toEqual(['Map of the bank']);
    expect(imagesOf(compose(planOf(pins), { strips: false }))).toEqual([]);
    expect(imagesOf(compose(planOf(pins.slice(1))))).toEqual([]);
  });
});

describe('scales of the axes', () => {
  // By hand: 1 : 10,000 puts 2,000 m on 200 mm; 15 mm a month of 30.4375 days put 56 days on 27.6 mm.
  test('a scale holds on the paper', () => {
    const mm = (points: number) => (points * 25.4) / 72;
    const place = compose(planOf([]), { placeScale: readPlaceScale('1 : 10,000', 'm')! }).plane!;
    expect(mm(place.right - place.left)).toBeCloseTo(200, 1);
    const time = compose(planOf([]), { timeScale: readTimeScale('30 mm a month')!, axes: 'up' }).plane!;
    expect(mm(time.right - time.left)).toBeCloseTo((30 * (time.day1 - time.day0)) / 30.4375, 1);
  });

  test('what has no room at the scale is cut, and the page says where', () => {
    const scene = compose(planOf([]), { placeScale: readPlaceScale('1 : 2,000', 'm')! });
    const p = scene.plane!;
    expect(((p.right - p.left) * 25.4) / 72 / (p.place1 - p.place0)).toBeCloseTo(0.5, 4);
    const foot = leavesOf(scene.nodes).flatMap((n) => (n.type === 'text' ? [textOf(n)] : []));
    expect(foot.join(' ')).toContain(`the page ends at place ${Math.round(p.place1)} at this scale`);
  });

  test.each([
    ['1 : 5,000', 'm', 0.2, '1 : 5,000'],
    ['1:250000', 'km', 4, '1 : 250,000'],
    ['20 mm a km', 'chainage', 0.02, '1 : 50,000'],
    ['12 mm a floor', 'floors', 12, '12 mm a floor'],
    ['1 : 50', 'floors', null, ''],
    ['12 mm a house', 'floors', null, ''],
    ['about 5', 'm', null, ''],
  ])('%s along %s', (text, unit, mm, words) => {
    expect(readPlaceScale(text, unit)).toBe(mm);
    if (mm !== null) expect(placeScaleWords(mm, unit)).toBe(words);
  });

  test('scales of time, and both in the sentence', () => {
    for (const words of ['12 mm a month', '5.5 mm a week', '3 mm a day', '100 mm a year'])
      expect(timeScaleWords(readTimeScale(words)!)).toBe(words);
    expect(readTimeScale('12 mm')).toBeNull();
    const plan = { ...planOf([]), editions: [], levels: 1, milestones: [] };
    const brief = defaultBrief('linear');
    const read = readBriefSentence('places at 1 : 5,000, time at 12 mm a month', brief, plan);
    expect(read.unknown).toEqual([]);
    const said = sentenceOf(read.brief, plan)
      .map((s) => s.text)
      .join('');
    expect(said).toContain('places at 1 : 5,000');
    expect(said).toContain('time at 12 mm a month');
  });
});

describe('days that places are worked on', () => {
  // By hand: 100 m in 10 days, 10 m a day; the second half is held by a block on days 2 to 5 too.
  test('each day counts once, standing still does not', () => {
    const flow = (points: [number, number][]) =>
      ({ points: points.map(([time, place]) => ({ time, place })) }) as never;
    const flows = [
      flow([
        [0, 0],
        [5, 50],
        [7, 50],
        [12, 100],
      ]),
    ];
    const block = { ref: 'B', from: 50, to: 100, start: 2, finish: 6 };
    expect(workedByPlace({ flows, blocks: [] }, 0, 100, 2).map((w) => w.value)).toEqual([5, 5]);
    expect(workedByPlace({ flows, blocks: [{ block } as never] }, 0, 100, 2).map((w) => w.value)).toEqual([5, 9]);
    expect(workedByPlace({ flows, blocks: [{ block } as never] }, 0, 100, 10).map((w) => w.value)).toEqual([
      1, 1, 1, 1, 1, 5, 5, 5, 5, 5,
    ]);
  });

  test('the page draws a bar for every stretch that is worked on, within its band', () => {
    for (const axes of ['across', 'up'] as const) {
      const scene = compose(planOf([]), { axes, workedDays: true });
      const bars = leavesOf(scene.nodes).filter((n) => n.type === 'rect' && n.role === 'strip');
      expect(bars.length).toBeGreaterThan(5);
      expect(leavesOf(scene.nodes).some((n) => n.type === 'text' && /up to \d+ days at a place/.test(textOf(n)))).toBe(
        true,
      );
    }
  });
});

describe('what is told beside both axes', () => {
  // By hand: 200 over 100 m is 2 a m; 30 over the second 50 m is 0.6 more of them.
  test('quantities lie evenly over the way of each work', () => {
    const flow = {
      quantity: 200,
      points: [
        { time: 0, place: 100 },
        { time: 9, place: 0 },
      ],
    } as never;
    const block = { quantity: 30, block: { ref: 'B', from: 50, to: 100, start: 2, finish: 6 } } as never;
    const none = {
      quantity: null,
      points: [
        { time: 0, place: 0 },
        { time: 9, place: 100 },
      ],
    } as never;
    const found = quantityByPlace({ flows: [flow, none], blocks: [block] }, 0, 100, 4);
    expect(found.map((q) => q.value)).toEqual([2, 2, 2.6, 2.6]);
    const total = found.reduce((sum, q) => sum + q.value * (q.to - q.from), 0);
    expect(total).toBeCloseTo(230, 9);
  });

  const base = planOf([]);
  const plan: Plan = {
    ...base,
    resources: [Resource.parse({ id: 'R', name: 'Crane', limit: 1 })],
    activities: base.activities.map((a) => ({
      ...a,
      quantity: 4000,
      crews: 2,
      assignments: [{ resource: 'R', effort: 20 * 480 }],
    })),
  };
  const all = { crews: true, need: 'R', workedDays: true, quantities: true } as const;

  test.each(['across', 'up'] as const)(
    'places %s: every strip has its own band, and its words lie in the page',
    (axes) => {
      const scene = compose(plan, { axes, ...all });
      const texts = leavesOf(scene.nodes).filter((n) => n.type === 'text');
      // Three works of four weeks one after the other, half over each other: 80 h in weeks of two of them, and 40 h of one crane.
      const wanted = [
        'Crews, 4 at most',
        'Crane, 80 h a week at most, more than there is in 4 weeks',
        'quantity, up to 6 a m',
      ];
      const said = texts.map((t) => textOf(t));
      expect(said).toEqual(expect.arrayContaining(wanted));
      expect(said.some((t) => /^up to \d+ days at a place$/.test(t))).toBe(true);
      for (const t of texts) {
        const wide = t.runs.reduce((sum, r) => sum + measure.width(r.face, t.size, r.text), 0);
        const turn = ((t.turn ?? 0) * Math.PI) / 180;
        const [x, y] = [t.x + wide * Math.cos(turn), t.y + wide * Math.sin(turn)];
        expect([
          textOf(t),
          Math.min(t.x, x) >= 0,
          Math.max(t.x, x) <= scene.width,
          Math.min(t.y, y) >= 0,
          Math.max(t.y, y) <= scene.height,
        ]).toEqual([textOf(t), true, true, true, true]);
      }
      const bands = new Map<string, number[]>();
      for (const n of leavesOf(scene.nodes)) {
        if (n.type !== 'rect' || (n.role !== 'strip' && n.role !== 'curve')) continue;
        const key = `${n.role} ${n.fill}`;
        const ends = n.role === 'strip' ? (axes === 'across' ? [n.y, n.y + n.height] : [n.x, n.x + n.width]) : [];
        bands.set(key, [...(bands.get(key) ?? []), ...ends]);
      }
      const strips = [...bands]
        .filter(([key]) => key.startsWith('strip'))
        .map(([, ends]) => [Math.min(...ends), Math.max(...ends)]);
      expect(strips).toHaveLength(2);
      strips.sort((a, b) => a[0]! - b[0]!);
      expect(strips[0]![1]).toBeLessThan(strips[1]![0]!);
    },
  );

  test('both are said in the sentence, and read again; what another plan lacks is left out', () => {
    const brief: LinearBrief = { ...defaultBrief('linear'), ...all };
    const words = sentenceOf(brief, plan)
      .map((s) => s.text)
      .join('');
    expect(words).toContain('with the need of “Crane”');
    expect(words).toContain('with the quantity at each place');
    const read = readBriefSentence(words, { ...defaultBrief('linear') }, plan);
    expect(read.brief).toEqual(brief);
    expect((laidOver(brief, base).brief as LinearBrief).need).toBeNull();
  });
});

describe('stations and zones as they are to look', () => {
  const pathsOf = (scene: Scene, role: string) =>
    leavesOf(scene.nodes).flatMap((n) => (n.type === 'path' && n.role === role ? [n] : []));
  test('in their colours; solid, dashed, or only at the scale', () => {
    const stations = [
      { name: 'Gate', at: 500_000, colour: '#B3402E', style: 'solid' as const },
      { name: 'Road', at: 900_000 },
      { name: 'Sign', at: 1_200_000, style: 'scale' as const },
    ];
    const zones = [
      { name: 'North', from: 0, to: 1_000_000, colour: '#3F6FB5' },
      { name: 'South', from: 1_000_000, to: 2_000_000, style: 'dashed' as const },
    ];
    const scene = compose(planOf([], { stations, zones }));
    const lines = pathsOf(scene, 'grid');
    // The sign has no line; that of the gate is one piece, that of the road many.
    expect(lines.map((l) => [l.stroke, l.steps.length > 2])).toEqual([
      ['#B3402E', false],
      [expect.any(String), true],
    ]);
    const bands = leavesOf(scene.nodes).filter((n) => n.type === 'rect' && n.role === 'period');
    expect(bands).toHaveLength(1);
    expect(pathsOf(scene, 'period')).toHaveLength(1);
    const texts = leavesOf(scene.nodes).flatMap((n) => (n.type === 'text' ? [textOf(n)] : []));
    for (const name of ['Gate', 'Road', 'Sign', 'North', 'South']) expect(texts).toContain(name);
  });
});

describe('notes held by a place and a day', () => {
  const note = {
    kind: 'box' as const,
    id: 'n1',
    anchor: { place: 500_000, at: startOfDay(day0 + 10), dx: 0, dy: 0 },
    to: { place: 1_000_000, at: startOfDay(day0 + 20), dx: 0, dy: 0 },
  };
  const boxOf = (scene: Scene) => {
    const box = leavesOf(scene.nodes).find((n) => n.type === 'rect' && n.role === 'note');
    return box?.type === 'rect' ? box : null;
  };
  test('stay there whatever the page shows, both ways about', () => {
    for (const form of [
      {},
      { fromPlace: 300_000, toPlace: 1_400_000 },
      { axes: 'up' as const },
      { from: startOfDay(day0 + 5) },
    ]) {
      const scene = compose(planOf([]), { ...form, marks: [note] });
      const [box, p] = [boxOf(scene)!, scene.plane!];
      const time = (day: number) => (day0 + day - p.day0) / (p.day1 - p.day0);
      const [a, b] = [along(p, 500), along(p, 1000)];
      const [from, to] = p.across
        ? [p.top + time(10) * (p.bottom - p.top), p.top + time(20) * (p.bottom - p.top)]
        : [p.left + time(10) * (p.right - p.left), p.left + time(20) * (p.right - p.left)];
      const [x, y, width, height] = p.across ? [a, from, b - a, to - from] : [from, b, to - from, a - b];
      for (const [is, wanted] of [
        [box.x, x],
        [box.y, y],
        [box.width, width],
        [box.height, height],
      ])
        expect(Math.abs(is! - wanted!)).toBeLessThan(0.1);
    }
  });
  test('that the page does not show are listed, and not gone', () => {
    const scene = compose(planOf([]), { fromPlace: 1_200_000, toPlace: 1_900_000, marks: [note] });
    expect(boxOf(scene)).toBeNull();
    expect(scene.handles!.unplaced).toEqual([{ ref: '', note: 'n1', words: '', gone: false }]);
  });
});
