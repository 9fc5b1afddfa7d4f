import { describe, expect, test } from '@jest/globals';
import {
  type Condition,
  endOfDay,
  makeField,
  operatorsFor,
  parseIsoDate,
  readCondition,
  type SelectField,
  selectFields,
  startOfDay,
} from '@clembo/core';
import { seeded } from '../../core/tests/helpers';
import { demoPlans } from '../../../demo/index';
import {
  Brief,
  type BriefKind,
  defaultBrief,
  type PlanWords,
  readBriefSentence,
  sentenceOf,
  SPOKEN,
  type TimelineBrief,
} from '../src/index';

const [{ current: wall }] = demoPlans() as [ReturnType<typeof demoPlans>[number]];
const words: PlanWords = {
  ...wall,
  editions: [
    { id: 'sep', name: 'Edition of 7 September 2026' },
    { id: 'jan', name: 'Contract baseline of 12 January 2026' },
  ],
  levels: 3,
  milestones: wall.activities.filter((a) => a.kind.endsWith('Milestone')).map((a) => ({ ref: a.ref, name: a.name })),
};
const say = (b: Brief) =>
  sentenceOf(b, words)
    .map((s) => s.text)
    .join('');
const SCALES = [
  '1 : 5,000',
  '1 : 250',
  '1 : 1,250,000',
  '12 mm a month',
  '5.5 mm a week',
  '3 mm a day',
  '40 mm a year',
];
const kinds = Object.keys(SPOKEN) as BriefKind[];
const read = (text: string, from: Brief = defaultBrief('timeline')) => readBriefSentence(text, from, words);

test('a picture that is there is spoken of, and taken away by words', () => {
  const logo = { data: 'data:image/png;base64,iVBORw0KGgo=', width: 40, height: 20 };
  const brief = { ...defaultBrief('timeline'), logo };
  expect(say(brief)).toContain('with a picture');
  expect(readBriefSentence(say(brief), brief, words)).toEqual({ brief, unknown: [] });
  const without = readBriefSentence('without a picture', brief, words);
  expect(without).toEqual({ brief: { ...brief, logo: null }, unknown: [] });
  // Words cannot bring one.
  expect(readBriefSentence('with a picture', defaultBrief('timeline'), words).unknown).toHaveLength(1);
});

describe('a field belongs to the part that the words before it ask for', () => {
  const changed = (text: string) => {
    const { brief, unknown } = read(text);
    const usual = defaultBrief('timeline') as unknown as Record<string, unknown>;
    const parts = Object.entries(brief).filter(([key, value]) => JSON.stringify(value) !== JSON.stringify(usual[key]));
    return [Object.fromEntries(parts), unknown.map((u) => u.text)];
  };

  test.each([
    ['only critical', { only: 'critical' }],
    ['critical only', { only: 'critical' }],
    ['only what is critical', { only: 'critical' }],
    ['only late', { only: 'late' }],
    ['only milestones', { include: 'milestones' }],
    ['milestones only', { include: 'milestones' }],
    ['in lanes by contractor', { lanes: ['contractor'] }],
    ['Lanes by Area, then Phase', { lanes: ['area', 'phase'] }],
    ['grouped by area', { lanes: ['area'] }],
    ['with columns start and float', { columns: ['start', 'float'] }],
    ['columns for responsible', { columns: ['responsible'] }],
    ['labels start and critical', { labels: ['start', 'critical'] }],
    ['labelled with nothing', { labels: [] }],
    ['only area is Wall', { where: { match: 'all', tests: [{ field: 'code.area', is: 'is', values: ['Wall'] }] } }],
  ])('“%s”', (text, change) => expect(changed(text)).toEqual([change, []]));

  test.each([
    ['in lanes by responsible', ['lanes', 'responsible']],
    ['sorted by start', ['sorted', 'start']],
    ['critical', ['critical']],
    ['name and finish', ['name', 'finish']],
    ['nothing', ['nothing']],
  ])('“%s” is not understood, which is said and changes nothing', (text, unknown) =>
    expect(changed(text)).toEqual([{}, unknown]),
  );
});

describe('a sentence is read back as the brief that it says', () => {
  test.each(kinds)('%s: random briefs', (kind) => {
    const random = seeded(kinds.indexOf(kind) + 41);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
    for (let turn = 0; turn < 300; turn++) {
      let brief = defaultBrief(kind) as Brief;
      for (const part of SPOKEN[kind].parts as unknown as (typeof SPOKEN)['timeline']['parts']) {
        if (random() < 0.4) continue;
        const now = brief as TimelineBrief;
        if (part.shown && !part.shown(now, words)) continue;
        const change =
          part.as === 'one'
            ? part.set(pick(part.options(words, now))[0])
            : part.as === 'many'
              ? part.set(
                  part
                    .options(words, now)
                    .map(([v]) => v)
                    .filter(() => random() < 0.4)
                    .slice(0, part.most ?? 99),
                )
              : part.as === 'day'
                ? part.set((part.isFinish ? endOfDay : startOfDay)(20_500 + Math.floor(random() * 600)))
                : part.as === 'dates'
                  ? part.set([
                      { name: 'Board, spring', start: startOfDay(20_600), finish: null },
                      ...(random() < 0.5
                        ? [{ name: 'Freeze', start: startOfDay(20_610), finish: endOfDay(20_615) }]
                        : []),
                    ])
                  : part.as === 'text'
                    ? part.set('Show it, on A4; “not” from 2026')
                    : part.as === 'size'
                      ? part.set({ width: 420, height: 297.5 })
                      : part.as === 'picture'
                        ? part.set(null)
                        : part.as === 'place'
                          ? part.set(
                              part.typed
                                ? pick(SCALES.flatMap((t) => part.read(t, words, now) ?? []))
                                : Math.floor(random() * 5000) * 1000,
                            )
                          : part.set(
                              someCondition(
                                random,
                                1,
                                part.fields ? selectFields({ ...wall, fields: part.fields(words) }) : undefined,
                              ),
                            );
        brief = { ...brief, ...change } as Brief;
      }
      const back = readBriefSentence(say(brief), defaultBrief(kind), words);
      expect([say(brief), back.unknown]).toEqual([say(brief), []]);
      expect([say(brief), back.brief]).toEqual([say(brief), brief]);
    }
  });
});

/** A condition whose words have one meaning: two tests or more where it is nested. */
function someCondition(
  random: () => number,
  depth: number,
  fields: readonly SelectField[] = selectFields(wall),
): Condition {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const test = () => {
    const field = pick(fields);
    const [is] = pick(operatorsFor(field.type));
    const book = wall.codeFields.find((f) => `code.${f.id}` === field.id)?.values.map((v) => v.code);
    const value = () =>
      field.type === 'day'
        ? `2026-0${1 + Math.floor(random() * 9)}-14`
        : field.type === 'number'
          ? String(Math.floor(random() * 500) / 10)
          : book
            ? pick(book)
            : pick(['pile', 'Wall, north', 'this and that', 'A.1', 'Nord (alt)', 'either or']);
    const values =
      is === 'empty' || is === 'filled' ? [] : [...new Set([value(), ...(random() < 0.3 ? [value()] : [])])];
    return { field: field.id, is, values };
  };
  const count = 1 + Math.floor(random() * 3);
  const inner = depth > 0 && random() < 0.3;
  const tests = Array.from({ length: count }, (_, k) => {
    if (!inner || k === 0 || count < 2) return test();
    return { match: random() < 0.5 ? ('all' as const) : ('any' as const), tests: [test(), test()] };
  });
  return { match: tests.length === 1 || random() < 0.5 ? 'all' : 'any', tests };
}

describe('fields with names that are hard to read', () => {
  const fields = ['İşletme', 'Zone', 'zone', 'Name'].map((name, k) => makeField({ id: `f${k}`, name }));
  const plan: PlanWords = { ...words, codeFields: fields };
  const brief: TimelineBrief = {
    ...(defaultBrief('timeline') as TimelineBrief),
    lanes: ['f0', 'f2', 'f1'],
    colour: 'f2',
    where: {
      match: 'all',
      tests: [
        { field: 'code.f0', is: 'is', values: ['İstanbul'] },
        { field: 'code.f2', is: 'is', values: ['N'] },
        { field: 'code.f3', is: 'is', values: ['x'] },
      ],
    },
  };
  const said = sentenceOf(brief, plan)
    .map((part) => part.text)
    .join('');

  test('letters that grow when they are small move nothing, and two fields of one name are two', () => {
    expect(said).toContain('in lanes by İşletme, then zone (2), then zone');
    expect(readBriefSentence(said, defaultBrief('timeline'), plan)).toEqual({ brief, unknown: [] });
  });
  test('what is not understood behind them stands where it is said to stand', () => {
    const text = 'in lanes by İŞLETME, sparkles, rows each';
    const { brief: read, unknown } = readBriefSentence(text, defaultBrief('timeline'), plan);
    expect(unknown.map((u) => text.slice(u.from, u.to))).toEqual(['sparkles']);
    expect(read).toMatchObject({ lanes: ['f0'], rows: 'each' });
  });
});

describe('what is typed', () => {
  test('is understood in any order; the rest stays as it was', () => {
    const { brief, unknown } = read('milestones only in lanes by contractor, only the next 6 weeks, on A4 landscape', {
      ...defaultBrief('timeline'),
      level: 2,
      page: 'A1 landscape',
    });
    expect(unknown).toEqual([]);
    expect(brief).toMatchObject({
      include: 'milestones',
      lanes: ['contractor'],
      only: 'next',
      weeks: 6,
      page: 'A4 landscape',
      level: 2,
    });
    const turned = read('A4 landscape, only the next 6 weeks, in lanes by contractor, milestones only').brief;
    expect(turned).toMatchObject({ include: 'milestones', lanes: ['contractor'], only: 'next', page: 'A4 landscape' });
  });
  test('what is not understood is said with its place', () => {
    const text = 'milestones only, with sparkles all over, on A4 landscape';
    const { unknown, brief } = read(text);
    expect(unknown.map((u) => text.slice(u.from, u.to))).toEqual(unknown.map((u) => u.text));
    expect(unknown.map((u) => u.text).join(' ')).toContain('sparkles');
    expect((brief as TimelineBrief).include).toBe('milestones');
  });
  test('dates as people type them', () => {
    const { brief } = read('from 2026-09-01 to 14 sep 2026');
    expect(brief).toMatchObject({
      from: startOfDay(parseIsoDate('2026-09-01')!),
      to: endOfDay(parseIsoDate('2026-09-14')!),
    });
  });
  test('a condition ends where the next part begins', () => {
    const { brief, unknown } = read('where Phase is Wall or Promenade and finish is before 2026-12-01, rows each');
    expect(unknown).toEqual([]);
    expect(brief).toMatchObject({
      rows: 'each',
      where: {
        match: 'all',
        tests: [
          { field: 'code.phase', is: 'is', values: ['Wall', 'Promenade'] },
          { field: 'finish', is: 'below', values: ['2026-12-01'] },
        ],
      },
    });
    expect(readCondition(wall, 'sparkles are many')).toBeNull();
  });
});
