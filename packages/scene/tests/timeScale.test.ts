import { describe, expect, test } from '@jest/globals';
import { civilFromDay, isoWeekOf, type Plan, parseIsoDate, startOfDay } from '@clembo/core';
import { leavesOf, PAGES, type PageName, type Scene } from '../src/index';
import { compose, overlaps, randomPlan, textBoxes } from './fixtures';

/** A plan with bars that run from a day for so many days; enough of them that type is not grown. */
function bar(from: string, days: number): Plan {
  const plan = randomPlan(1, 1);
  const start = startOfDay(parseIsoDate(from)!);
  const one = { ...plan.activities[0]!, kind: 'activity' as const, name: 'Bar', start, finish: start + days * 1440 };
  plan.activities = Array.from({ length: 15 }, (_, i) => ({ ...one, ref: `A${i}` }));
  return { ...plan, statusDate: null, periods: [] };
}
const boxes = (scene: Scene) => textBoxes(scene, 'scale');
const lines = (scene: Scene, role: string) =>
  leavesOf(scene.nodes).flatMap((n) =>
    n.type === 'line' && n.role === role && n.x1 === n.x2
      ? [{ left: n.x1, right: n.x2, top: n.y1, bottom: n.y2, what: role }]
      : [],
  );

const LENGTHS = [1, 9, 20, 45, 80, 150, 260, 400, 600, 900, 1500, 2500, 4000, 9000, 20_000];

describe.each(Object.keys(PAGES) as PageName[])('on %s', (page) => {
  test.each(LENGTHS)('%i days: labels stand clear of each other, of lines and of the edges', (days) => {
    for (const from of ['2026-01-01', '2026-02-11', '2027-12-30']) {
      const scene = compose(bar(from, days), { page });
      const labels = boxes(scene);
      expect(labels.length).toBeGreaterThan(1);
      expect(overlaps(labels, labels)).toEqual([]);
      expect(overlaps(labels, lines(scene, 'scale'), 0)).toEqual([]);
      expect(labels.filter((b) => b.left < 0 || b.right > scene.width).map((b) => b.what)).toEqual([]);
      const grid = [...new Set(lines(scene, 'grid').map((l) => l.left))].sort((a, b) => a - b);
      const steps = grid.slice(1).map((x, k) => x - grid[k]!);
      // A first or last unit may be cut; between whole ones there is room.
      expect(steps.slice(1, -1).every((s) => s >= 19)).toBe(true);
    }
  });
});

describe('what a time scale says', () => {
  const said = (from: string, days: number) =>
    boxes(compose(bar(from, days), { page: 'A4 landscape' })).map((b) => b.what);
  // ISO 8601 by way of core, whose weeks are checked against published dates
  test('weeks by their number, months above them with their year', () => {
    const words = said('2026-11-02', 120);
    const week = isoWeekOf(parseIsoDate('2026-12-28')!).week;
    expect(words).toEqual(expect.arrayContaining([`W${week}`, 'W1', 'December 2026', 'January 2027']));
  });
  test('months of one tier are written alike', () => {
    const months = said('2026-08-10', 170).filter((w) => / \d{4}$/.test(w));
    expect(months.slice(0, 5)).toEqual([
      'August 2026',
      'September 2026',
      'October 2026',
      'November 2026',
      'December 2026',
    ]);
  });
  test('days by their number', () => {
    const { day } = civilFromDay(parseIsoDate('2026-03-17')!);
    expect(said('2026-03-10', 20)).toContain(String(day));
  });
  test('years, and decades above them', () => {
    const words = said('1998-01-01', 9000);
    expect(words).toEqual(expect.arrayContaining(['1990s', '2000s', '2010s', '2005']));
  });
});
