import { describe, expect, test } from '@jest/globals';
import { makeActivity } from '@clembo/core';
import { leavesOf, type Scene, textOf, type TimelineBrief } from '../src/index';
import { compose, measure, randomPlan, texts } from './fixtures';
import { day, end } from '../../core/tests/helpers';

const plan = {
  ...randomPlan(1, 1),
  statusDate: null,
  periods: [],
  links: [],
  currency: 'EUR',
  activities: (
    [
      ['Piling', '2026-03-02', '2026-03-13', 'N', 100_00, 40, 50],
      ['Capping', '2026-03-16', '2026-03-20', 'N', 250_50, 20, 0],
      ['Paving', '2026-04-06', '2026-04-10', 'S', null, null, 100],
    ] as const
  ).map(([name, start, finish, lane, cost, hours, percent], k) =>
    makeActivity({
      ref: `A${k}`,
      name,
      start: day(start),
      finish: end(finish),
      cost,
      percent,
      effort: hours === null ? null : hours * 60,
      duration: k === 0 ? 4800 : 2400,
      codes: { lane },
      responsible: k === 0 ? ['Harbour office', 'Diving crew'] : [],
    }),
  ),
};

/** Cells line by line, from the top. */
function cells(scene: Scene): string[][] {
  const lines = new Map<number, { x: number; text: string }[]>();
  for (const n of leavesOf(scene.nodes)) {
    if (n.type !== 'text' || n.role !== 'cell') continue;
    const key = [...lines.keys()].find((y) => Math.abs(y - n.y) < 0.5) ?? n.y;
    lines.set(key, [...(lines.get(key) ?? []), { x: n.x, text: textOf(n) }]);
  }
  return [...lines].sort((a, b) => a[0] - b[0]).map(([, list]) => list.sort((a, b) => a.x - b.x).map((c) => c.text));
}

describe('columns beside the rows', () => {
  const brief: Partial<TimelineBrief> = { rows: 'each', lanes: ['lane'], labels: ['name'], page: 'A3 landscape' };

  test('each value is written as its kind asks: days, working days, money, hours, percent', () => {
    const columns = ['start', 'finish', 'days', 'cost', 'effort', 'percent'];
    const scene = compose(plan, { ...brief, columns });
    expect(texts(scene, 'head').join(' ')).toBe('start finish working days cost effort percent done');
    expect(cells(scene)).toEqual([
      ['2 Mar', '13 Mar', '10 d', '100', '40 h', '50 %'],
      ['16 Mar', '20 Mar', '5 d', '250.5', '20 h', '0 %'],
      ['6 Apr', '10 Apr', '5 d', '100 %'],
    ]);
  });

  test('totals by lane: the first start, the last finish, sums; nothing for a lane of one thing', () => {
    const scene = compose(plan, { ...brief, columns: ['start', 'finish', 'cost', 'effort'], totals: true });
    expect(cells(scene)[2]).toEqual(['2 Mar', '20 Mar', '350.5', '60 h']);
    expect(cells(scene)).toHaveLength(4);
  });

  test('packed rows have one line for each lane', () => {
    const scene = compose(plan, { ...brief, rows: 'packed', columns: ['start', 'finish', 'cost'] });
    expect(cells(scene)).toEqual([
      ['2 Mar', '20 Mar', '350.5'],
      ['6 Apr', '10 Apr'],
    ]);
  });

  test('people are listed, and a long text takes two lines', () => {
    const scene = compose(plan, { ...brief, page: 'A4 portrait', columns: ['responsible'] });
    const said = leavesOf(scene.nodes).flatMap((n) => (n.type === 'text' && n.role === 'cell' ? [textOf(n)] : []));
    expect(said.join(' ')).toBe('Harbour office, Diving crew');
  });

  test('stand left or right of the plot, numbers under each other', () => {
    for (const columnsAt of ['left', 'right'] as const) {
      const scene = compose(plan, { ...brief, columns: ['cost'], columnsAt });
      const right = leavesOf(scene.nodes).flatMap((n) =>
        n.type === 'text' && n.role === 'cell' ? [n.x + measure.width('label', n.size, textOf(n))] : [],
      );
      expect(Math.abs(right[0]! - right[1]!)).toBeLessThan(0.05);
      const bars = leavesOf(scene.nodes).flatMap((n) => (n.type === 'rect' && n.role === 'bar' && n.ref ? [n.x] : []));
      expect(right[0]! < Math.min(...bars)).toBe(columnsAt === 'left');
    }
  });

  test('what has no room is counted at the foot', () => {
    const columns = [
      'name',
      'status',
      'kind',
      'start',
      'finish',
      'days',
      'cost',
      'effort',
      'percent',
      'responsible',
      'resources',
    ];
    const scene = compose(plan, { ...brief, page: 'A4 portrait', language: 'de', columns });
    expect(scene.fit.columnsCut).toBeGreaterThan(0);
    expect(texts(scene, 'source').join(' ')).toContain(`${scene.fit.columnsCut} Spalte`);
  });
});
