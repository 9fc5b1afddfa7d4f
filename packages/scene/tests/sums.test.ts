import { describe, expect, test } from '@jest/globals';
import {
  endOfDay,
  FIVE_DAY,
  isoDate,
  firstDayOf,
  lastDayOf,
  makeActivity,
  makeField,
  makePlan,
  makeValue,
  parseIsoDate,
  type Plan,
  schedulePlan,
  startOfDay,
} from '@clembo/core';
import { leavesOf, readyTimelines, suggestTimelineBrief, textOf, type TimelineBrief } from '../src/index';
import { selectItems } from '../src/exhibits/timeline/select';
import { briefOf, compose } from './fixtures';

/** The work of a code value as one bar: what it spans, how much of it is done, and who is told of it. */
const FIELDS = [
  makeField({
    id: 'phase',
    name: 'Phase',
    values: [makeValue({ code: 'F', title: 'Fit-out' }), makeValue({ code: 'D', title: 'Dig' })],
  }),
  makeField({ id: 'zone', name: 'Zone', values: ['N', 'S'].map((code) => makeValue({ code, title: `Zone ${code}` })) }),
];
const work = (ref: string, start: string, finish: string, codes: Record<string, string>, percent = 0) =>
  makeActivity({
    ref,
    name: `Work ${ref}`,
    start: startOfDay(parseIsoDate(start)!),
    finish: endOfDay(parseIsoDate(finish)!),
    percent,
    codes,
  });
const plan = (part: Partial<Plan> = {}): Plan =>
  makePlan({
    name: 'Hall',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    codeFields: FIELDS,
    activities: [
      work('1', '2026-01-05', '2026-01-09', { phase: 'D', zone: 'N' }, 100),
      work('2', '2026-01-12', '2026-01-30', { phase: 'D', zone: 'S' }),
      work('3', '2026-02-02', '2026-02-06', { phase: 'F', zone: 'N' }),
      work('4', '2026-03-02', '2026-03-06', {}),
      makeActivity({ ref: 'M', name: 'Open', kind: 'finishMilestone', finish: endOfDay(parseIsoDate('2026-03-09')!) }),
    ],
    ...part,
  });
const items = (part: Partial<TimelineBrief>, of = plan()) => {
  const { items: all, counts, fates } = selectItems(of, schedulePlan(of), briefOf(part), null);
  return {
    counts,
    fates,
    list: all.map((i) => [i.name, i.form, isoDate(firstDayOf(i)), isoDate(lastDayOf(i)), i.members.length]),
    all,
  };
};

describe('one bar for each value', () => {
  test('spans all its work, in the order of the book; points stay points', () => {
    const { list, counts, fates } = items({ together: 'phase' });
    expect(list).toEqual([
      ['Fit-out', 'group', '2026-02-02', '2026-02-06', 1],
      ['Dig', 'group', '2026-01-05', '2026-01-30', 2],
      ['Without', 'group', '2026-03-02', '2026-03-06', 1],
      ['Open', 'milestone', '2026-03-09', '2026-03-09', 1],
    ]);
    expect(counts).toMatchObject({ of: 5, groups: 3, inGroups: 4, shown: 1, leftOut: 0 });
    expect(fates).toEqual(['grouped', 'grouped', 'grouped', 'grouped', 'shown']);
  });

  test('is done by the working days of its work: five of twenty', () => {
    const dig = items({ together: 'phase' }).all.find((i) => i.name === 'Dig')!;
    expect(dig.progress).toBeCloseTo(5 / 20, 9);
    expect([dig.complete, dig.ref]).toEqual([false, 'phase=D']);
  });

  test('is one bar in each lane where it has work, in the colour that all of it shares', () => {
    const { list, all } = items({ together: 'phase', lanes: ['zone'], include: 'activities', colour: 'zone' });
    expect(list.map(([name, , start, finish]) => [name, start, finish])).toEqual([
      ['Fit-out', '2026-02-02', '2026-02-06'],
      ['Dig', '2026-01-05', '2026-01-09'],
      ['Dig', '2026-01-12', '2026-01-30'],
      ['Without', '2026-03-02', '2026-03-06'],
    ]);
    expect(all.map((i) => i.category)).toEqual(['Zone N', 'Zone N', 'Zone S', 'Without']);
    // In one lane it holds both zones.
    const mixed = items({ together: 'phase', colour: 'zone' }).all.find((i) => i.name === 'Dig')!;
    expect(mixed.category).toBe('Several');
  });

  test('holds only what the page asks for', () => {
    const where = { match: 'all' as const, tests: [{ field: 'code.zone', is: 'is' as const, values: ['S'] }] };
    expect(items({ together: 'phase', where }).list).toEqual([['Dig', 'group', '2026-01-12', '2026-01-30', 1]]);
  });

  test('looks as a person has set it, by its value', () => {
    const looks = [{ ref: 'phase=F', colour: '#8A3B12' }] as never;
    expect(items({ together: 'phase', looks }).all[0]!.colour).toBe('#8A3B12');
  });
});

describe('a plan of thousands without an outline', () => {
  const large = plan({
    activities: Array.from({ length: 6000 }, (_, k) =>
      work(`W${k}`, isoDate(20_500 + (k % 400)), isoDate(20_510 + (k % 400)), {
        phase: ['F', 'D', 'P'][k % 3]!,
        zone: k % 2 ? 'N' : 'S',
      }),
    ),
    codeFields: [
      { ...FIELDS[0]!, values: [...FIELDS[0]!.values, makeValue({ code: 'P', title: 'Prove' })] },
      FIELDS[1]!,
    ],
  });

  test('begins with a page that can be read: its phases', () => {
    const brief = suggestTimelineBrief(large, schedulePlan(large));
    expect(brief).toMatchObject({ together: 'phase', rows: 'each', lanes: [] });
    const scene = compose(large, brief);
    expect([scene.fit.readable, scene.fit.rows]).toEqual([true, 3]);
    const words = leavesOf(scene.nodes).flatMap((n) => (n.type === 'text' ? [textOf(n)] : []));
    for (const name of ['Fit-out', 'Dig', 'Prove'])
      expect(words.some((w) => w.startsWith(`${name} (2000)`))).toBe(true);
  });

  test('its ready-made pages can be read too', () => {
    const ready = readyTimelines(large, schedulePlan(large), []);
    for (const name of ['Summary for executives', 'Lanes within lanes', 'For the public']) {
      const { brief } = ready.find((r) => r.name === name)!;
      expect([name, compose(large, brief as TimelineBrief).fit.readable]).toEqual([name, true]);
    }
  });

  test('a page that cannot be read is offered what makes it one, and nothing that does not', () => {
    const { fit } = compose(large, { rows: 'packed', lanes: ['zone'] });
    expect(fit.readable).toBe(false);
    expect(fit.advice.map((a) => a.words)).toEqual(['show one bar for each Phase (3 things)']);
    expect(compose(large, { ...fit.advice[0]!.change }).fit.readable).toBe(true);
  });
});
