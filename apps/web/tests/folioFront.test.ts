import { describe, expect, test } from '@jest/globals';
import { createMeasure, type FontMetrics, type PlanFacts } from '@clembo/scene';
import { Folio, leadsOfFacts, pageRef } from '@clembo/scene/folio';
import metrics from '@clembo/scene/metrics.json';
import { hasThing, leadsOf, numbersOf, targetOf } from '@/features/share/useFront';
import type { ShownPage } from '@/features/share/useRooms';
import { type FrontAsked, frontPages } from '@/workers/answers/front';
import type { ComposedPage } from '@/workers/composing';

/** The first pages of a folio as screens show them: their numbers, where they lead, and how small pages lie in them. */

const measure = createMeasure(metrics as FontMetrics);
const exhibit = '6f1d3f6e-2f52-4c53-9d0e-0f8a3a5f2c11';
const folio = Folio.parse({ name: 'Board', overview: true, pages: ['a', 'b', 'c'].map((id) => ({ id, exhibit })) });
const sheet = (...refs: string[]) =>
  ({ svg: refs.map((r) => `<g data-ref="${r}"/>`).join(''), width: 842, height: 595 }) as ComposedPage;
const shown = (at: number, plan: string | null, composed: ComposedPage[] | null): ShownPage => ({
  page: folio.pages[at]!,
  name: `Page ${at}`,
  plan: plan === null ? null : { id: plan, name: plan },
  brief: null,
  composed,
  error: null,
});
const phaseOf = (id: string) => leadsOfFacts([facts(id)])[0]!.ref;
const facts = (id: string): PlanFacts => ({
  id,
  plan: id,
  facts: [],
  status: null,
  phases: [{ ref: 'G', name: 'Group', within: ['A1', 'A2'], first: 0, last: 9, done: 0, late: null }],
});

describe('pages of a folio', () => {
  test('are numbered by their sheets; one that is gone takes no number', () => {
    const pages = [shown(0, 'p', [sheet(), sheet()]), shown(1, null, null), shown(2, 'p', null)];
    expect(numbersOf(folio, pages)).toEqual([3, 5, 5]);
    expect(numbersOf({ cover: false, overview: false }, pages)).toEqual([1, 3, 3]);
  });

  test('hold a thing by its whole reference, as it was written', () => {
    const page = shown(0, 'p', [sheet('A1', 'B &amp; C &lt;1&gt;')]);
    expect(['A1', 'B & C <1>', 'A', 'B &amp; C'].map((r) => hasThing(page, r))).toEqual([true, true, false, false]);
  });

  test('are led to by themselves: a phase leads to the first page of its own plan that shows any of it', () => {
    const pages = [shown(0, 'q', [sheet('A2')]), shown(1, 'p', [sheet('Z')]), shown(2, 'p', [sheet('A2')])];
    const leads = leadsOf(folio, { pages, facts: [facts('p'), facts('r')] });
    expect(leads.get(phaseOf('p'))).toEqual({ page: 'c', things: ['G', 'A1', 'A2'], box: null });
    expect(leads.has(phaseOf('r'))).toBe(false);
    expect(leads.get(pageRef(4))).toEqual(targetOf({ page: 'b', ref: null, box: null }));
  });
});

describe('the first pages', () => {
  const asked = (part: Partial<FrontAsked> = {}): FrontAsked => ({
    folio,
    plans: [facts('p')],
    names: ['Harbour'],
    pages: folio.pages.map(({ id }, k) => ({ id, name: id, section: '', number: k + 3, width: 842, height: 595 })),
    size: { width: 1280, height: 800 },
    stacked: null,
    ...part,
  });
  const made = (part?: Partial<FrontAsked>) => frontPages(asked(part), measure, (scene) => scene.title);

  test('are there as far as the folio has them', () => {
    expect([made().cover?.svg, made().overview?.svg]).toEqual(['Board', 'Board']);
    const none = made({ folio: { ...folio, cover: false, overview: false } });
    expect([none.cover, none.overview]).toEqual([null, null]);
  });

  test('have a frame in the proportions of each page, within the paper that the blocks share', () => {
    const { frames, field, width } = made().overview!;
    expect([frames.map((f) => f.page), width]).toEqual([['a', 'b', 'c'], 1280]);
    for (const { box } of frames) {
      expect(box.width / box.height).toBeCloseTo(842 / 595, 1);
      expect(box.x >= field.x - 1 && box.x + box.width <= field.x + field.width + 1).toBe(true);
      expect(box.y + box.height <= field.y + field.height + 1).toBe(true);
    }
  });

  test('are as wide as a phone and as high as they need on one', () => {
    const { frames, width, height } = made({ size: { width: 390, height: 844 }, stacked: 13 }).overview!;
    expect(width).toBe(390);
    expect(height).toBeGreaterThan(844);
    frames.forEach(
      (f, k) => k > 0 && expect(f.box.y).toBeGreaterThan(frames[k - 1]!.box.y + frames[k - 1]!.box.height),
    );
  });
});
