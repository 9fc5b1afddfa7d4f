import { describe, expect, test } from '@jest/globals';
import { parseIsoDate } from '@clembo/core';
import { demoPlans } from '../../../demo/index';
import { en } from '../src/text/languages/en';
import { LANGUAGES } from '../src/text/languages/index';
import { dayWords, LANGUAGE_CODES, numberWords, type PageLanguage } from '../src/text/languages/language';
import { compose, measure, texts } from './fixtures';

const others = LANGUAGE_CODES.filter((c) => c !== 'en');
const day = (text: string) => parseIsoDate(text)!;
// Names of months and days, and dates in words, are those of the Unicode CLDR, as Node's Intl gives them.
const locale = (code: string) => (code === 'en' ? 'en-GB' : code);
const bare = (text: string) => text.replace(/[\u202f\u00a0]/g, ' ').replace(/\.$/, '');

describe.each(LANGUAGE_CODES)('%s', (code) => {
  const l = LANGUAGES[code];
  const at = (y: number, m: number, d: number) => new Date(Date.UTC(y, m, d));
  const intl = (options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat(locale(code), { timeZone: 'UTC', ...options });

  test('months are called as the CLDR says', () => {
    const long = intl({ month: 'long' });
    const short = intl({ month: 'short' });
    for (let m = 0; m < 12; m++) {
      expect(l.months[m]).toBe(long.format(at(2026, m, 15)));
      // English pages have three letters for every month.
      if (code !== 'en') expect(bare(l.shortMonths[m]!)).toBe(bare(short.format(at(2026, m, 15))));
    }
  });

  test('days of the week are called as the CLDR says', () => {
    const weekday = intl({ weekday: 'short' });
    for (let k = 0; k < 7; k++) expect(bare(l.weekdays[k]!)).toBe(bare(weekday.format(at(2026, 0, 5 + k))));
  });

  test('a date in full reads as the CLDR writes it', () => {
    const long = intl({ day: 'numeric', month: 'long', year: 'numeric' });
    for (const [y, m, d] of [
      [2026, 8, 14],
      [2027, 1, 28],
      [2026, 4, 30],
    ] as const)
      expect(dayWords(l, Math.floor(at(y, m, d).getTime() / 86_400_000), 'long')).toBe(long.format(at(y, m, d)));
  });

  test('numbers have its decimal mark', () => {
    expect(numberWords(l, 2.5)).toBe(new Intl.NumberFormat(locale(code)).format(2.5));
  });

  test('every word is there, and can be written in the fonts of pages', () => {
    const counts = {
      of: 9,
      shown: 3,
      inGroups: 2,
      groups: 1,
      milestonesInGroups: 1,
      undated: 1,
      outside: 1,
      leftOut: 1,
      noRoom: 1,
    };
    const said = wordsOf(l, { counts });
    expect(said.length).toBeGreaterThan(90);
    for (const words of said) {
      expect(words.trim()).not.toBe('');
      expect(measure.clean(words)).toBe(words);
    }
  });
});

/** All that a language says. */
function wordsOf(l: PageLanguage, { counts }: { counts: Parameters<PageLanguage['shown']>[0] }): string[] {
  return [
    ...l.months,
    ...l.shortMonths,
    ...l.weekdays,
    ...Object.values(l.legend),
    ...Object.values(l.states),
    ...Object.values(l.fit).flat(),
    ...l.content,
    l.runsTo('P', 'D'),
    l.completedOn('P', 'D'),
    l.asPromised,
    l.againstPromise(1, true),
    l.againstPromise(2, false),
    l.percentOfWork(3),
    l.milestoneLate('M', 2),
    l.span('A', 'B'),
    l.status('D'),
    l.promised('E'),
    l.given,
    l.computed,
    l.until('D'),
    l.since('D'),
    l.workingDays('2', false),
    l.daysDone('3', '1', '2'),
    l.allDone('3'),
    l.percentDone(3),
    l.late(2),
    l.ahead(2),
    l.several,
    l.without,
    l.other,
    l.wholePlan,
    l.shown(counts),
    l.shown({ ...counts, shown: 0 }),
    l.notSeen('x'),
    l.blind({ late: 1, critical: 2, milestones: 1, links: 3, criticalLinks: 1 }),
    l.page(1, 2),
    l.continued('T'),
    l.total,
  ];
}

test.each(others)('%s has words of its own for all that it counts and explains', (code) => {
  const l = LANGUAGES[code];
  const same = (Object.keys(en.legend) as (keyof typeof en.legend)[]).filter((k) => l.legend[k] === en.legend[k]);
  expect(same).toEqual([]);
  expect(l.blind({ late: 1, critical: 1, milestones: 0, links: 0, criticalLinks: 0 })).not.toMatch(/activit(y|ies)\b/);
});

describe('a page in a language', () => {
  const [{ current, baseline }] = demoPlans() as [ReturnType<typeof demoPlans>[number]];
  const english = new Set(
    ['scale', 'legend', 'source', 'title', 'subtitle'].flatMap((r) =>
      texts(compose(current, { page: 'A3 landscape', level: 2 }, baseline), r),
    ),
  );

  test.each([
    ['de', 'läuft bis 18. Oktober 2027', '14. Sep 26', 'Stichtag'],
    ['fr', 'fin le 18 octobre 2027', '14 sept. 26', 'Date d’état'],
    ['es', 'dura hasta el 18 de octubre de 2027', '14 sept 26', 'Fecha de estado'],
    ['it', 'termine il 18 ottobre 2027', '14 set 26', 'Data di stato'],
    ['nl', 'loopt tot 18 oktober 2027', '14 sep 26', 'Peildatum'],
  ] as const)('%s: title, flag of the status date, legend and foot', (language, title, flag, legend) => {
    const scene = compose(
      current,
      { language, page: 'A3 landscape', level: 2, labels: ['name', 'finish', 'duration', 'percent'] },
      baseline,
    );
    expect(scene.language).toBe(language);
    expect(texts(scene, 'title').join(' ')).toContain(title);
    expect(texts(scene, 'status')).toContain(flag);
    expect(texts(scene, 'legend')).toContain(legend);
    expect(texts(scene, 'source').join(' ')).not.toMatch(/shown|activities|dates as drawn/);
    expect(texts(scene, 'label').join(' ')).not.toMatch(/working d|% done|\bto \d/);
    for (const t of texts(scene, 'legend')) if (english.has(t)) expect(en.legend).not.toContain(t);
  });

  test('French says the first of a month as an ordinal', () => {
    expect(dayWords(LANGUAGES.fr, day('2026-03-01'), 'long')).toBe('1er mars 2026');
  });
});
