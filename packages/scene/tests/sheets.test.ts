import { describe, expect, test } from '@jest/globals';
import { makeActivity, makeField, makeValue, parseIsoDate, startOfDay } from '@clembo/core';
import { leavesOf, type TimelineBrief } from '../src/index';
import { compose, composeAll, randomPlan, texts } from './fixtures';

const plan = {
  ...randomPlan(1, 1),
  statusDate: null,
  periods: [],
  links: [],
  codeFields: [
    makeField({
      id: 'lane',
      name: 'Lane',
      values: ['North', 'South', 'Yard'].map((t) => makeValue({ code: t, title: t })),
    }),
  ],
  activities: Array.from({ length: 150 }, (_, k) =>
    makeActivity({
      ref: `A${k}`,
      name: `Work ${k}`,
      start: startOfDay(parseIsoDate('2026-01-05')! + k),
      finish: startOfDay(parseIsoDate('2026-01-05')! + k + 20),
      codes: { lane: k < 100 ? 'North' : k < 140 ? 'South' : 'Yard' },
    }),
  ),
};
const brief: Partial<TimelineBrief> = { rows: 'each', lanes: ['lane'], pages: 'several', page: 'A4 landscape' };

describe('over several pages', () => {
  const pages = composeAll(plan, brief);

  test('every thing stands on one page, none on two, in the order of lanes and rows', () => {
    expect(pages.length).toBeGreaterThan(2);
    const refs = pages.flatMap((p) => p.content.rows.map((r) => r.ref));
    expect(refs).toEqual(plan.activities.map((a) => a.ref));
    for (const p of pages) expect(p.fit.readable).toBe(true);
  });

  test('each says its number, and what goes on from the page before', () => {
    pages.forEach((p, k) => {
      expect(p.sheet).toEqual({ number: k + 1, of: pages.length });
      expect(texts(p, 'source')).toContain(`Page ${k + 1} of ${pages.length}`);
    });
    expect(texts(pages[0]!, 'lane').join(' ')).toBe('North');
    expect(texts(pages[1]!, 'lane').join(' ')).toMatch(/^North \(continued\)/);
  });

  test('all have the title, the scale, and the same dates on it', () => {
    const scale = (k: number) => texts(pages[k]!, 'scale');
    for (let k = 1; k < pages.length; k++) {
      expect(texts(pages[k]!, 'title')).toEqual(texts(pages[0]!, 'title'));
      expect(scale(k)).toEqual(scale(0));
    }
  });

  test('labels are as large on every page, and all there', () => {
    const sizes = pages.map((p) =>
      Math.min(...leavesOf(p.nodes).flatMap((n) => (n.type === 'text' && n.role === 'label' ? [n.size] : []))),
    );
    expect(new Set(sizes).size).toBe(1);
    for (const p of pages) expect(p.fit.labelsShortened).toBe(0);
  });

  test('what fits on one page has no number of pages', () => {
    const few = { ...plan, activities: plan.activities.slice(0, 8) };
    expect(composeAll(few, brief)).toHaveLength(1);
    expect(compose(few, brief).sheet).toBeUndefined();
  });

  test('a page that there is not gives the last', () => {
    expect(compose(plan, brief, null, 99).sheet).toEqual({
      number: pages.length,
      of: pages.length,
    });
  });
});
