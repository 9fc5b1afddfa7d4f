import { describe, expect, test } from '@jest/globals';
import { makeField, makeValue } from '@clembo/core';
import {
  type Brief,
  type BriefKind,
  CATEGORIES,
  EXHIBITS,
  House,
  inCurrency,
  inHouse,
  leavesOf,
  paletteFaults,
  readBriefSentence,
  sentenceOf,
  type TimelineBrief,
} from '../src/index';
import { compose, randomPlan } from './fixtures';

const logo = { data: 'data:image/png;base64,iVBORw0KGgo=', width: 10, height: 5 };
const colours = ['#123456', '#A04000'];
const house = House.parse({ page: 'A3 landscape', language: 'de', fiscal: 4, logo, colours });

describe('a new page', () => {
  test.each(Object.keys(EXHIBITS) as BriefKind[])(
    'of the kind %s is as the house would have it, in the parts it has',
    (kind) => {
      const brief = EXHIBITS[kind].defaults() as Brief;
      const own = inHouse(brief, house) as Brief & Record<string, unknown>;
      const wanted: Record<string, unknown> = {
        page: 'A3 landscape',
        language: 'de',
        fiscal: 4,
        logo,
        palette: colours,
      };
      for (const [part, value] of Object.entries(own))
        expect([part, value]).toEqual([part, wanted[part] ?? (brief as Record<string, unknown>)[part]]);
      expect(Object.keys(own)).toEqual(Object.keys(brief));
    },
  );

  test('that asks for a page of its own keeps it; a house that says nothing changes nothing', () => {
    const slide = { ...EXHIBITS.timeline.defaults(), page: 'wide slide' as const };
    expect(inHouse(slide, house).page).toBe('wide slide');
    expect(inHouse(slide, House.parse({}))).toEqual(slide);
  });

  test('is not begun by what is no page, language or month', () => {
    for (const wrong of [
      { page: 'A9' },
      { language: 'xx' },
      { fiscal: 13 },
      { colours: ['red'] },
      { colours: Array.from({ length: 9 }, () => '#123456') },
      { currency: 'pounds' },
      { logo: { ...logo, data: 'javascript:1' } },
    ])
      expect(House.safeParse(wrong).success).toBe(false);
  });
});

describe('the colours of a house', () => {
  // WCAG 2.2: yellow on white has a contrast of 1.07, and black 21; on our paper a little less.
  test('are seen on paper, or it is said which is not', () => {
    const [pale, ...more] = paletteFaults(['#FFFF00', '#000000']);
    expect(more).toEqual([]);
    expect([pale!.kind, pale!.at]).toEqual(['pale', 0]);
    expect((pale as { contrast: number }).contrast).toBeLessThan(1.1);
  });

  test('are told apart by everyone, or it is said by whom they are not', () => {
    // The very same two colours look alike to everyone.
    expect(paletteFaults(['#264A61', '#264A61'])).toEqual([
      { kind: 'alike', at: [0, 1], to: 'everyone', difference: 0 },
    ]);
    // Red and green of one lightness: the usual example (common practice).
    const [fault] = paletteFaults(['#B3402E', '#6B6A1F']);
    expect(fault).toMatchObject({ kind: 'alike', at: [0, 1] });
    expect((fault as { to: string }).to).toMatch(/red|green/);
  });

  // The same measure, worked out without that library, is in parts.test.ts: 12 is the least of ours.
  test('those of Clembo have no faults', () => {
    expect(paletteFaults(CATEGORIES)).toEqual([]);
  });

  test('are drawn, in the order of the code book; values with a colour of their own keep it', () => {
    const plan = randomPlan(3, 12);
    plan.codeFields = [
      makeField({
        id: 'trade',
        name: 'Trade',
        values: [makeValue({ code: 'a' }), makeValue({ code: 'b', colour: '#427859' }), makeValue({ code: 'c' })],
      }),
    ];
    plan.activities.forEach((a, k) => {
      a.codes = { trade: 'abc'[k % 3]! };
    });
    const inks = (part: object) =>
      new Set(
        leavesOf(compose(plan, { colour: 'trade', page: 'A3 landscape', ...part }).nodes).flatMap((n) =>
          n.type === 'rect' && n.role === 'bar' && n.stroke ? [n.stroke] : [],
        ),
      );
    const palette = ['#7A1F5C', '#123456', '#8A5A00'];
    expect(inks({ palette })).toEqual(new Set(['#7A1F5C', '#427859', '#8A5A00']));
    expect(inks({ palette, colour: null })).toEqual(new Set(['#7A1F5C']));
    expect(inks({})).toEqual(new Set([CATEGORIES[0], '#427859', CATEGORIES[2]]));
  });

  test('are said in the sentence where a page has them, and can be left', () => {
    const brief = { ...EXHIBITS.timeline.defaults(), palette: colours } as TimelineBrief;
    const words = (b: TimelineBrief) =>
      sentenceOf(b, randomPlan(1, 3))
        .map((s) => s.text)
        .join('');
    expect(words(brief)).toContain('in the colours of the house');
    const read = readBriefSentence('in the usual colours', brief, randomPlan(1, 3));
    expect([read.unknown, (read.brief as TimelineBrief).palette]).toEqual([[], []]);
    expect(words({ ...brief, palette: [] })).not.toContain('colours of');
  });
});

test('a new plan is in the currency of the house, unless it says one', () => {
  const euros = House.parse({ currency: 'EUR' });
  expect(inCurrency({ currency: null }, euros)).toEqual({ currency: 'EUR' });
  expect(inCurrency({ currency: 'GBP' }, euros)).toEqual({ currency: 'GBP' });
  expect(inCurrency({ currency: null }, House.parse({}))).toEqual({ currency: null });
});
