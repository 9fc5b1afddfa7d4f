import { describe, expect, test } from '@jest/globals';
import { isoDate, makeField, makeValue, parseIsoDate } from '@clembo/core';
import {
  briefSentence,
  CATEGORIES,
  chooseTiers,
  nameForm,
  formatDay,
  INK,
  leavesOf,
  niceRange,
  Occupancy,
  PAPER,
  packRows,
  SOFT_INK,
  ticks,
} from '../src/index';
import { demoPlans } from '../../../demo/index';
import { briefOf, compose, measure, randomPlan, seeded } from './fixtures';

describe('packing into rows', () => {
  test.each([1, 2, 3, 4, 5, 6])('uses as many rows as intervals overlap at most, and none overlap, seed %i', (seed) => {
    const random = seeded(seed);
    const left = Float64Array.from({ length: 400 }, () => Math.floor(random() * 1000));
    const right = left.map((l) => l + 1 + Math.floor(random() * 80));
    const { row, rows } = packRows(left, right);
    // The least number possible: the greatest number of intervals over one point, by counting.
    let most = 0;
    for (let x = 0; x < 1100; x++) {
      let over = 0;
      for (let i = 0; i < 400; i++) if (left[i]! <= x && right[i]! > x) over++;
      most = Math.max(most, over);
    }
    expect(rows).toBe(most);
    for (let i = 0; i < 400; i++) {
      for (let j = i + 1; j < 400; j++)
        if (row[i] === row[j]) expect(right[i]! <= left[j]! || right[j]! <= left[i]!).toBe(true);
    }
  });
});

test('occupancy agrees with comparing every pair', () => {
  const random = seeded(9);
  const taken = new Occupancy(500, 300);
  const boxes: number[][] = [];
  for (let k = 0; k < 600; k++) {
    const [x, y] = [random() * 480, random() * 290];
    const box = [x, y, Math.min(500, x + 2 + random() * 60), Math.min(300, y + 2 + random() * 12)];
    const free = boxes.every(([l, t, r, b]) => box[0]! >= r! || box[2]! <= l! || box[1]! >= b! || box[3]! <= t!);
    expect(taken.isFree(box[0]!, box[1]!, box[2]!, box[3]!)).toBe(free);
    if (free) {
      boxes.push(box);
      taken.add(box[0]!, box[1]!, box[2]!, box[3]!);
    }
  }
  expect(taken.isFree(-1, 0, 5, 5)).toBe(false);
});

describe('time scale', () => {
  const at = (text: string) => parseIsoDate(text)! * 1440;

  test('the finest pair of units whose names fit', () => {
    expect(chooseTiers(12)).toEqual({ upper: 'month', lower: 'day' });
    expect(chooseTiers(3)).toEqual({ upper: 'month', lower: 'week' });
    expect(chooseTiers(3, 12)).toEqual({ upper: 'year', lower: 'month' });
    expect(chooseTiers(0.8)).toEqual({ upper: 'year', lower: 'month' });
    expect(chooseTiers(0.2)).toEqual({ upper: 'year', lower: 'quarter' });
    expect(chooseTiers(0.06)).toEqual({ upper: 'decade', lower: 'year' });
    expect(chooseTiers(0.03)).toEqual({ upper: 'decade', lower: 'years2' });
    expect(chooseTiers(0.012)).toEqual({ upper: 'decade', lower: 'years5' });
  });

  test('hours on a page of a few days, and on no other', () => {
    expect(chooseTiers(200, 7.5, 4)).toEqual({ upper: 'day', lower: 'hours3' });
    expect(chooseTiers(700, 7.5, 1)).toEqual({ upper: 'day', lower: 'hour' });
    expect(chooseTiers(200, 7.5, 8)).toEqual({ upper: 'month', lower: 'day' });
    expect(ticks(at('2026-03-02'), at('2026-03-03'), 'hours6').map((t) => t.names[0])).toEqual([
      '00:00',
      '06:00',
      '12:00',
      '18:00',
    ]);
  });

  test('weeks by ISO 8601, quarters and years cut at the ends', () => {
    expect(ticks(at('2024-12-23'), at('2025-01-13'), 'week').map((t) => t.names[0])).toEqual(['W52', 'W1', 'W2']);
    expect(ticks(at('2026-02-01'), at('2026-12-31'), 'quarter').map((t) => [t.names[0], t.from])).toEqual([
      ['Q1', at('2026-02-01')],
      ['Q2', at('2026-04-01')],
      ['Q3', at('2026-07-01')],
      ['Q4', at('2026-10-01')],
    ]);
    expect(ticks(at('2019-06-01'), at('2027-01-01'), 'years5').map((t) => t.names)).toEqual([
      ['2015–19', '2015'],
      ['2020–24', '2020'],
      ['2025–29', '2025'],
    ]);
  });

  test('names of a tier are written alike', () => {
    const months = ticks(at('2026-01-20'), at('2026-07-05'), 'month');
    const form = (room: number) => nameForm(months, (_, name) => name.length <= room);
    expect([form(20), form(9), form(3)]).toEqual([0, 1, 2]);
  });

  test('a long range gets whole units and a little room, a short one is left as it is', () => {
    const long = niceRange(at('2026-01-12'), at('2027-10-14'));
    expect([isoDate(long.from / 1440), isoDate(long.to / 1440)]).toEqual(['2026-01-01', '2027-11-01']);
    expect(niceRange(at('2026-03-02'), at('2026-03-04'))).toEqual({ from: at('2026-03-02'), to: at('2026-03-04') });
    expect(niceRange(at('2026-03-02'), at('2026-03-12'))).toEqual({ from: at('2026-03-02'), to: at('2026-03-12') });
  });
});

describe('text', () => {
  test('shortening keeps within the width and shows that it cut', () => {
    for (const width of [20, 40, 60]) {
      const cut = measure.shorten('label', 8, 'Promenade and drainage design', width);
      expect(cut.endsWith('…')).toBe(true);
      expect(measure.width('label', 8, cut)).toBeLessThanOrEqual(width);
    }
    expect(measure.shorten('label', 8, 'Wall', 60)).toBe('Wall');
    expect(measure.shorten('label', 8, 'Wall', 1)).toBe('');
  });

  test('the fonts have Latin, Greek and Cyrillic; what they lack is an empty box a character', () => {
    for (const text of ['Môle façade Łódź Ήλιος Щит їжак ґанок', 'Çà et là · Θάλασσα'])
      expect(measure.clean(text)).toBe(text);
    expect(measure.clean('Mole 防波堤 2')).toBe('Mole □□□ 2');
    expect(measure.clean('Site 🚧')).toBe('Site □');
    expect(measure.width('label', 10, '□')).toBeGreaterThan(3);
  });

  test('control characters and line breaks in names are spaces', () => {
    expect(measure.clean('North\r\nwall\u0007 base\ttop')).toBe('North wall base top');
  });

  test('Cyrillic letters have the forms that Russian and Ukrainian share, not the Bulgarian ones', () => {
    // In the Bulgarian form т is drawn as m, in the common one it is narrower than м: widths of the made fonts say which.
    expect(measure.width('label', 1000, 'т')).toBeLessThan(measure.width('label', 1000, 'м') * 0.9);
  });

  test('long words are broken where they have to be, and nothing is lost', () => {
    const word = 'Genehmigungsverfahren'.repeat(4);
    const lines = measure.wrap('label', 8, `Das ${word} beginnt`, 80, 20);
    expect(lines.every((l) => measure.width('label', 8, l) <= 80)).toBe(true);
    expect(lines.join('').replace(/ /g, '')).toBe(`Das${word}beginnt`);
  });

  test('dates in words', () => {
    const d = parseIsoDate('2026-09-14')!;
    expect([formatDay(d, 'short'), formatDay(d, 'medium'), formatDay(d, 'long'), formatDay(d, 'weekday')]).toEqual([
      '14 Sep',
      '14 Sep 26',
      '14 September 2026',
      'Mon 14 Sep 2026',
    ]);
  });
});

test('the sentence says the brief', () => {
  const plan = demoPlans()[0]!.current;
  const say = (part: object) =>
    briefSentence(briefOf(part), plan)
      .map((s) => s.text)
      .join('');
  expect(say({})).toBe(
    'Show activities and milestones, without lanes, rows packed, labelled with name and finish, on A4 landscape.',
  );
  expect(
    say({
      level: 2,
      lanes: ['phase', 'contractor'],
      colour: 'discipline',
      where: [{ field: 'area', keep: 'without', values: ['Harbour', 'Station'] }] as never,
      labels: [],
      page: 'wide slide',
    }),
  ).toContain(
    'down to level 2 where Area is not Harbour or Station, in lanes by phase, then contractor, rows packed, coloured by discipline, labelled with nothing, on a wide slide.',
  );
});

// Colour: WCAG 2 contrast, and the simulation of Machado, Oliveira & Fernandes 2009 on linear RGB with CIEDE2000
const linear = (c: number) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4);
const rgb = (hex: string) => [1, 3, 5].map((i) => linear(Number.parseInt(hex.slice(i, i + 2), 16) / 255));
const luminance = (hex: string) => rgb(hex).reduce((sum, c, i) => sum + c * [0.2126, 0.7152, 0.0722][i]!, 0);
const contrast = (a: string, b: string) => {
  const [x, y] = [luminance(a), luminance(b)];
  return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
};
const DEFICIENCIES = [
  [1, 0, 0, 0, 1, 0, 0, 0, 1],
  [0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998],
  [0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881],
  [1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.3039],
];

function lab(l: number[]): [number, number, number] {
  const f = (t: number) => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116);
  const x = f((0.4124564 * l[0]! + 0.3575761 * l[1]! + 0.1804375 * l[2]!) / 0.95047);
  const y = f(0.2126729 * l[0]! + 0.7151522 * l[1]! + 0.072175 * l[2]!);
  const z = f((0.0193339 * l[0]! + 0.119192 * l[1]! + 0.9503041 * l[2]!) / 1.08883);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/** CIEDE2000 after G. Sharma, W. Wu & E. N. Dalal, 2005. */
function difference([l1, a1, b1]: number[], [l2, a2, b2]: number[]): number {
  const rad = Math.PI / 180;
  const mean = (Math.hypot(a1!, b1!) + Math.hypot(a2!, b2!)) / 2;
  const g = 0.5 * (1 - Math.sqrt(mean ** 7 / (mean ** 7 + 25 ** 7)));
  const [p1, p2] = [(1 + g) * a1!, (1 + g) * a2!];
  const [c1, c2] = [Math.hypot(p1, b1!), Math.hypot(p2, b2!)];
  const hue = (b: number, p: number) => (b === 0 && p === 0 ? 0 : (Math.atan2(b, p) / rad + 360) % 360);
  const [h1, h2] = [hue(b1!, p1), hue(b2!, p2)];
  const step = c1 * c2 === 0 ? 0 : Math.abs(h2 - h1) <= 180 ? h2 - h1 : h2 - h1 > 180 ? h2 - h1 - 360 : h2 - h1 + 360;
  const dH = 2 * Math.sqrt(c1 * c2) * Math.sin((step / 2) * rad);
  const L = (l1! + l2!) / 2;
  const C = (c1 + c2) / 2;
  const H =
    c1 * c2 === 0
      ? h1 + h2
      : Math.abs(h1 - h2) <= 180
        ? (h1 + h2) / 2
        : h1 + h2 < 360
          ? (h1 + h2 + 360) / 2
          : (h1 + h2 - 360) / 2;
  const T =
    1 -
    0.17 * Math.cos((H - 30) * rad) +
    0.24 * Math.cos(2 * H * rad) +
    0.32 * Math.cos((3 * H + 6) * rad) -
    0.2 * Math.cos((4 * H - 63) * rad);
  const sL = 1 + (0.015 * (L - 50) ** 2) / Math.sqrt(20 + (L - 50) ** 2);
  const sC = 1 + 0.045 * C;
  const sH = 1 + 0.015 * C * T;
  const rT = -Math.sin(60 * Math.exp(-(((H - 275) / 25) ** 2)) * rad) * 2 * Math.sqrt(C ** 7 / (C ** 7 + 25 ** 7));
  const [x, y, z] = [(l2! - l1!) / sL, (c2 - c1) / sC, dH / sH];
  return Math.sqrt(x * x + y * y + z * z + rT * y * z);
}

/** The least CIEDE2000 between any two colours, in normal sight and in the three dichromacies. */
function leastDifference(drawn: readonly string[]): number {
  const seen = drawn.map((hex) => {
    const l = rgb(hex);
    return DEFICIENCIES.map((m) =>
      lab(
        [0, 1, 2].map((r) =>
          Math.min(1, Math.max(0, m[3 * r]! * l[0]! + m[3 * r + 1]! * l[1]! + m[3 * r + 2]! * l[2]!)),
        ),
      ),
    );
  });
  let least = 100;
  for (let i = 0; i < seen.length; i++)
    for (let j = 0; j < i; j++)
      for (let v = 0; v < 4; v++) least = Math.min(least, difference(seen[i]![v]!, seen[j]![v]!));
  return least;
}

describe('colour', () => {
  test('the measures themselves: published contrasts and Sharma’s pairs', () => {
    expect(contrast('#777777', '#FFFFFF')).toBeCloseTo(4.4781, 3);
    expect(contrast('#595959', '#FFFFFF')).toBeCloseTo(7.0047, 3);
    expect(difference([50, 2.6772, -79.7751], [50, 0, -82.7485])).toBeCloseTo(2.0425, 4);
    expect(difference([50, 2.5, 0], [73, 25, -18])).toBeCloseTo(27.1492, 4);
  });

  test('ink and soft ink are readable on paper (AA), categories stand out from it', () => {
    expect(contrast(INK, PAPER)).toBeGreaterThan(7);
    expect(contrast(SOFT_INK, PAPER)).toBeGreaterThan(4.5);
    for (const c of CATEGORIES) expect(contrast(c, PAPER)).toBeGreaterThan(3);
  });

  test.each(['=status', '=critical', '=band'])('the colours of %s are told apart as they are drawn', (colour) => {
    const [{ current, baseline }] = demoPlans() as [ReturnType<typeof demoPlans>[number]];
    const scene = compose(current, { colour, compare: 'promised', page: 'A1 landscape', lanes: ['phase'] }, baseline);
    const drawn = new Set(
      leavesOf(scene.nodes).flatMap((n) => (n.type === 'rect' && n.role === 'bar' && n.stroke ? [n.stroke] : [])),
    );
    expect(drawn.size).toBeGreaterThan(1);
    expect(leastDifference([...drawn])).toBeGreaterThan(12);
  });

  test('any two categories differ by 12 CIEDE2000 as they are drawn, in normal sight and in each dichromacy', () => {
    // Measured on the edges of the bars of a page, not on the palette.
    const plan = randomPlan(3, 60);
    plan.codeFields = [
      makeField({ id: 'trade', name: 'Trade', values: CATEGORIES.map((_, k) => makeValue({ code: `T${k}` })) }),
    ];
    plan.activities.forEach((a, i) => {
      a.codes = { trade: `T${i % CATEGORIES.length}` };
    });
    const bars = leavesOf(compose(plan, { colour: 'trade', page: 'A3 landscape' }).nodes).filter(
      (n) => n.type === 'rect' && n.role === 'bar' && n.stroke !== undefined,
    ) as { stroke: string; fill: string }[];
    const drawn = [...new Set(bars.map((b) => b.stroke))];
    expect(drawn.length).toBe(CATEGORIES.length);
    for (const b of bars) expect(contrast(b.stroke, PAPER)).toBeGreaterThan(3);
    expect(leastDifference(drawn)).toBeGreaterThan(12);
  });
});
