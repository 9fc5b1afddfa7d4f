import { describe, expect, test } from '@jest/globals';
import { type Brief, type BriefKind, EXHIBITS, House, inHouse } from '../src/index';

const logo = { data: 'data:image/png;base64,iVBORw0KGgo=', width: 10, height: 5 };
const house = House.parse({ page: 'A3 landscape', language: 'de', fiscal: 4, logo });

describe('a new page', () => {
  test.each(Object.keys(EXHIBITS) as BriefKind[])(
    'of the kind %s is as the house would have it, in the parts it has',
    (kind) => {
      const brief = EXHIBITS[kind].defaults() as Brief;
      const own = inHouse(brief, house) as Brief & Record<string, unknown>;
      const wanted: Record<string, unknown> = { page: 'A3 landscape', language: 'de', fiscal: 4, logo };
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
      { logo: { ...logo, data: 'javascript:1' } },
    ])
      expect(House.safeParse(wrong).success).toBe(false);
  });
});
