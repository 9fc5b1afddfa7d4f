import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  codeFieldId,
  type CodeField,
  type Command,
  FIVE_DAY,
  isoDate,
  makeActivity,
  makeField,
  makeValue,
  makeLink,
  makePlan,
  parseIsoDate,
  type Plan,
  type Resource,
  schedulePlan,
  shownDays,
  startOfDay,
} from '@clembo/core';
import { booksOf, codeTexts, fillCommand, previewFill } from '@/workers/answers/books';
import { calendarUse, withoutCalendar } from '@/workers/answers/calendars';
import { consequencesOf } from '@/workers/answers/consequences';
import { dragged } from '@/workers/answers/dragging';
import { drawn, milestoneBehind } from '@/workers/answers/drawn';
import { factsOf } from '@/workers/answers/facts';
import { likeTest } from '@/workers/answers/finding';
import { neighboursOf } from '@/workers/answers/neighbours';
import { assigned, needsShown, withoutResource } from '@/workers/answers/resources';
import { roundShown, roundWould } from '@/workers/answers/round';
import { suggestionsFor } from '@/workers/answers/suggestions';

/**
 * What the room of a plan says of it, beside what a person works out with a calendar: Dig takes the week of 5 January
 * 2026, Lay the three days after it, Test one day that leaves a day's room, and Done is due on Friday the 16th.
 */
const day = (text: string): number => startOfDay(parseIsoDate(text)!);
const CREW: Resource = { id: 'crew', name: 'Crew' } as Resource;
const ZONE = makeField({
  id: 'zone',
  name: 'Zone',
  values: [makeValue({ code: 'N', title: 'North' }), makeValue({ code: 'S', title: 'South' })],
});
const planOf = (part: Partial<Plan> = {}): Plan =>
  makePlan({
    name: 'Quay',
    start: day('2026-01-05'),
    source: 'computed',
    calendars: [FIVE_DAY, { ...FIVE_DAY, id: 'site', name: 'Site week' }],
    calendar: FIVE_DAY.id,
    codeFields: [ZONE],
    resources: [CREW],
    activities: [
      makeActivity({ ref: 'G', name: 'Quay' }),
      makeActivity({
        ref: 'A',
        name: 'Dig',
        parent: 'G',
        duration: 5 * 480,
        responsible: ['Crew 1'],
        codes: { zone: 'N' },
        assignments: [{ resource: 'crew', effort: 40 * 60 }],
      }),
      makeActivity({ ref: 'B', name: 'Lay', parent: 'G', duration: 3 * 480, calendar: 'site', codes: { zone: 'W' } }),
      makeActivity({ ref: 'C', name: 'Test', parent: 'G', duration: 480, responsible: ['Crew 1', 'Crew 2'] }),
      makeActivity({ ref: 'M', name: 'Done', kind: 'finishMilestone', duration: 0, deadline: day('2026-01-17') }),
    ],
    links: [
      makeLink({ from: 'A', to: 'C', lag: 480 }),
      makeLink({ from: 'A', to: 'B' }),
      makeLink({ from: 'C', to: 'M' }),
      makeLink({ from: 'B', to: 'M' }),
    ],
    ...part,
  });
const hold = (plan: Plan) => ({ plan, schedule: schedulePlan(plan) });
const held = hold(planOf());
const change = (ref: string, part: object): Command => ({ do: 'changeActivity', ref, part }) as Command;
/** The plan once a command has been given. */
const then = (command: Command | null | undefined): Plan => applyCommand(held.plan, command!).plan;
const shown = (plan: Plan, ref: string): string[] => {
  const at = schedulePlan(plan);
  const days = shownDays(at, at.outline.indexOf.get(ref)!)!;
  return [isoDate(days.first), isoDate(days.last)];
};

describe('neighbours', () => {
  const said = (ref: string, of = held) => {
    const { before, after } = neighboursOf(of, ref, () => null);
    const words = (list: typeof before) => list.map((n) => [n.ref, n.type, n.lag, n.slack, n.driving]);
    return { before: words(before), after: words(after) };
  };

  test('the tightest stands first, with its room in working days', () => {
    expect(said('M')).toEqual({
      before: [
        ['B', 'FS', 0, 'no slack', true],
        ['C', 'FS', 0, '1 d slack', false],
      ],
      after: [],
    });
    expect(said('A').after).toEqual([
      ['C', 'FS', 1, 'no slack', true],
      ['B', 'FS', 0, 'no slack', true],
    ]);
  });

  test('what a link asks for and given dates do not keep is broken, by working days and before all others', () => {
    const given = planOf({
      source: 'given',
      activities: [
        makeActivity({ ref: 'X', name: 'Cast', start: day('2026-01-05'), finish: day('2026-01-08') }),
        makeActivity({ ref: 'W', name: 'Cure', start: day('2026-01-05'), finish: day('2026-01-07') }),
        makeActivity({ ref: 'Y', name: 'Strip', start: day('2026-01-07'), finish: day('2026-01-09') }),
        makeActivity({ ref: 'Z', name: 'Some day' }),
      ],
      links: [makeLink({ from: 'W', to: 'Y' }), makeLink({ from: 'Z', to: 'Y' }), makeLink({ from: 'X', to: 'Y' })],
    });
    // Cast ends on Wednesday, Strip begins on that Wednesday: a day too early. Of no dates nothing is said.
    expect(said('Y', hold(given)).before).toEqual([
      ['X', 'FS', 0, 'broken by 1 d', false],
      ['W', 'FS', 0, 'no slack', true],
      ['Z', 'FS', 0, '', false],
    ]);
  });
});

describe('what a change would bring', () => {
  test('what moves, the end, and what comes too late, in working days', () => {
    // Eight days of digging end on Wednesday 14; laying then on Monday 19, one working day behind Friday 16.
    const { words, bad, bars } = consequencesOf(held, change('A', { duration: 8 * 480 }), ['M', 'B', 'nothing']);
    expect(words).toBe(
      'Moves 4 activities; the end goes from 14 Jan 26 to 19 Jan 26; 1 activity becomes critical; Done would be 1 working day late.',
    );
    expect(bad).toBe(true);
    expect(Object.keys(bars)).toEqual(['M', 'B']);
    expect(bars.M).toMatchObject({ first: parseIsoDate('2026-01-19'), late: 1 });
    expect(bars.B).toMatchObject({ first: parseIsoDate('2026-01-15'), last: parseIsoDate('2026-01-19'), late: 0 });
  });

  test('within its room something moves alone, and becomes critical when the room is used up', () => {
    expect(consequencesOf(held, change('C', { duration: 2 * 480 }), [])).toMatchObject({
      words: 'Moves 1 activity; 1 activity becomes critical.',
      bad: false,
    });
    expect(consequencesOf(held, change('C', { name: 'Prove' }), []).words).toBe('Nothing moves.');
  });

  test('the plan itself is not touched', () => {
    const before = JSON.stringify(held.plan);
    consequencesOf(held, change('A', { duration: 480 }), ['A']);
    expect(JSON.stringify(held.plan)).toBe(before);
  });
});

describe('what is drawn and dragged', () => {
  test('a bar is moved by days, lands on working time, and keeps its length', () => {
    const after = then(dragged(held, { do: 'move', ref: 'B', by: 1 }, false));
    expect(shown(after, 'B')).toEqual(['2026-01-13', '2026-01-15']);
    // From Friday the 9th by a day and by two: Saturday and Sunday are no days to end on.
    expect(dragged(held, { do: 'finish', ref: 'A', by: 2 }, false)).toBeNull();
    expect(shown(then(dragged(held, { do: 'finish', ref: 'A', by: 3 }, false)), 'A')).toEqual([
      '2026-01-05',
      '2026-01-12',
    ]);
  });

  test('an end is not dragged before its beginning', () => {
    expect(shown(then(dragged(held, { do: 'finish', ref: 'A', by: -30 }, false)), 'A')).toEqual([
      '2026-01-05',
      '2026-01-05',
    ]);
  });

  test('a link is drawn once, and to nothing of its own', () => {
    const link = { do: 'link', from: 'B', to: 'C', type: 'SS' } as const;
    expect(then(dragged(held, link, false)).links).toHaveLength(5);
    expect(dragged(held, { ...link, to: 'B' }, false)).toBeNull();
    expect(dragged(held, { ...link, from: 'A', to: 'B', type: 'FS' }, false)).toBeNull();
  });

  test('a milestone behind an activity is on the day on which that ends, with its codes', () => {
    const made = milestoneBehind(held, 'B')!;
    const after = then(made.command);
    expect(shown(after, made.ref)[1]).toBe('2026-01-14');
    expect(after.activities.find((a) => a.ref === made.ref)).toMatchObject({
      kind: 'finishMilestone',
      codes: { zone: 'W' },
    });
    expect(after.links.filter((l) => l.to === made.ref)).toMatchObject([{ from: 'B', type: 'FS', lag: 0 }]);
    expect(milestoneBehind(held, 'nothing')).toBeNull();
  });

  test('what is drawn on the board stands behind the row that was meant', () => {
    const monday = parseIsoDate('2026-02-02')!;
    const made = drawn(held, { do: 'make', kind: 'activity', first: monday, last: monday + 4, behind: 'A' })!;
    const after = then(made.command);
    const refs = after.activities.map((a) => a.ref);
    expect(refs.indexOf(made.ref)).toBe(refs.indexOf('A') + 1);
    expect(drawn(held, { do: 'up', ref: 'nothing' })).toBeNull();
  });
});

describe('facts of an activity', () => {
  test('are said in working days, with where it came from and what it waits for', () => {
    const rows = new Map([['B', [1, 41] as const]]);
    const came = { sources: [{ no: 1, name: 'quay.xlsx', sheet: 'Works' }], rows: () => rows };
    expect(factsOf(held, 'B', came)).toMatchObject({
      path: ['Quay'],
      place: { source: 1, name: 'quay.xlsx', sheet: 'Works', row: 41 },
      // The code stands in no book: it is shown as it is.
      codes: [['Zone', 'W']],
      driving: [{ ref: 'A', name: 'Dig' }],
      rows: [
        ['Start', 'Mon 12 Jan 2026'],
        ['Finish', 'Wed 14 Jan 2026'],
        ['Length', '3 working days, 3 cal d'],
        ['Float', '0 working days, critical'],
        ['Complete', '0 %'],
        ['Calendar', 'Site week'],
      ],
    });
    expect(factsOf(held, 'C', came)!.before).toEqual([{ ref: 'A', name: 'Dig', how: 'FS +1 working day' }]);
    expect(factsOf(held, 'A', came)).toMatchObject({ place: null, codes: [['Zone', 'North']] });
    expect(factsOf(held, 'nothing', came)).toBeNull();
  });

  test('of all work of a code value: how many, from when to when, how far', () => {
    const from = { sources: [], rows: () => new Map() };
    const two = hold(
      then({ do: 'all', commands: [change('C', { codes: { zone: 'N' } }), change('A', { percent: 100 })] } as Command),
    );
    // Dig is done, five days of six; Test follows on Tuesday 13.
    expect(factsOf(two, 'zone=N', from)).toMatchObject({
      name: 'North',
      kind: 'sum',
      path: ['Zone'],
      rows: [
        ['Activities', '2'],
        ['Start', 'Mon 5 Jan 2026'],
        ['Finish', 'Tue 13 Jan 2026'],
        ['Complete', '83 %'],
      ],
    });
    expect(factsOf(two, 'zone=nowhere', from)).toBeNull();
  });

  test('a milestone has one date and no length', () => {
    expect(factsOf(held, 'M', { sources: [], rows: () => new Map() })!.rows.map(([label]) => label)).toEqual([
      'Date',
      'Float',
    ]);
  });
});

describe('the round on a status date', () => {
  const moment = day('2026-01-13');
  const round = roundShown(held, null, moment, 7);

  test('asks of what should have happened, the longest waiting first, then of what is due', () => {
    expect(round.rows.map((r) => [r.ref, r.asks])).toEqual([
      ['A', 'should have finished 9 Jan'],
      ['B', 'should have started 12 Jan'],
      ['C', 'due 13 Jan'],
      ['M', 'due 14 Jan'],
    ]);
    expect(round.rows.at(-1)!.asksFor).toEqual(['actualFinish', 'actualCost', 'notes']);
  });

  test('says nothing of a promise where none was made, and whose work it is', () => {
    expect(round.rows[0]).toMatchObject({ group: 'Quay', responsible: 'Crew 1', last: null, changed: false });
    expect(round.rows[0]!.facts.map(([label]) => label)).not.toContain('Promised');
    const promised = roundShown(
      { ...held, promised: hold(planOf({ activities: [held.plan.activities[1]!] })) },
      null,
      moment,
      7,
    );
    expect(promised.rows.map((r) => r.facts.find(([label]) => label === 'Promised')?.[1])).toEqual([
      '5 Jan 26 to 9 Jan 26',
      'not in the promise',
      'not in the promise',
      'not in the promise',
    ]);
  });

  test('what was answered since the last edition stays, and is told from the rest', () => {
    const now = hold(
      then(change('A', { actualStart: day('2026-01-05'), actualFinish: day('2026-01-10'), percent: 100 })),
    );
    const { rows, changed } = roundShown(now, { ...held, name: 'Week 1' }, moment, 7);
    expect(rows.filter((r) => r.changed).map((r) => [r.ref, r.complete, r.last?.actualFinish])).toEqual([
      ['A', true, ''],
    ]);
    expect(changed).toBe(1);
  });

  test('what is typed is answered before it is given', () => {
    expect(roundWould(held, 'A', 'actualFinish', '14 Jan 2026')).toMatchObject({ error: null, bad: true });
    expect(roundWould(held, 'A', 'actualFinish', '14 Jan 2026').words).toContain('Done would be 1 working day late');
    expect(roundWould(held, 'A', 'percent', '140').error).toMatch(/100/);
    expect(roundWould(held, 'A', 'percent', '')).toEqual({ error: null, words: '', bad: false });
  });
});

describe('books of codes', () => {
  test('count what is used, what stands in no book, and what has none', () => {
    const [book] = booksOf(held);
    expect(book).toMatchObject({ used: [1, 0], outside: [{ code: 'W', count: 1 }], without: 3 });
  });

  test('filling by first characters counts what comes, and takes new values into the book', () => {
    const field: CodeField = { ...ZONE, fill: { by: 'characters', of: 'name', count: 1 } };
    // Quay, Dig, Lay, Test and Done.
    expect(previewFill(held, field)).toMatchObject({
      none: 0,
      changes: 5,
      codes: [
        { code: 'Q', count: 1 },
        { code: 'D', count: 2 },
        { code: 'L', count: 1 },
        { code: 'T', count: 1 },
      ],
      error: null,
    });
    const after = then(fillCommand(held, field));
    expect(after.activities.map((a) => a.codes.zone)).toEqual(['Q', 'D', 'L', 'T', 'D']);
    expect(after.codeFields[0]!.values.map((v) => v.code)).toEqual(['N', 'S', 'Q', 'D', 'L', 'T']);
  });

  test('a filling that reads a field which is not there says so and changes nothing', () => {
    const field: CodeField = { ...ZONE, fill: { by: 'characters', of: codeFieldId('team'), count: 2 } };
    expect(previewFill(held, field)).toMatchObject({ changes: 0, codes: [] });
    expect(previewFill(held, field).error).toContain('team');
  });

  test('texts of a field come by how often they are there', () => {
    expect(codeTexts(held, 'responsible')).toEqual(['Crew 1', 'Crew 2']);
    expect(codeTexts(held, 'start')).toEqual([]);
  });
});

describe('what may be meant while a cell is typed into', () => {
  const texts = (field: string, text: string) => suggestionsFor(held, field, text).map((s) => s.text);

  test.each<[string, string, string[]]>([
    [codeFieldId('zone'), 'ou', ['South']],
    [codeFieldId('zone'), '', ['North', 'South']],
    ['kind', 'mile', ['milestone']],
    ['calendar', 'site', ['Site week']],
    ['responsible', 'crew 1, 2', ['crew 1, Crew 2']],
    ['responsible', '', []],
    ['predecessors', 'di', ['A']],
    ['predecessors', 'A, te', ['A, C']],
    // Behind a reference stand type and lag.
    ['predecessors', 'a ss', []],
    ['name', 'di', []],
  ])('%s “%s”', (field, text, wanted) => expect(texts(field, text)).toEqual(wanted));
});

describe('all like this one', () => {
  test.each<[string, string, object | null]>([
    ['A', codeFieldId('zone'), { is: 'is', values: ['N'] }],
    ['C', 'responsible', { is: 'is', values: ['Crew 1', 'Crew 2'] }],
    ['C', codeFieldId('zone'), { is: 'empty', values: [] }],
    ['nothing', 'name', null],
    ['A', 'no such field', null],
  ])('%s by %s', (ref, field, wanted) => expect(likeTest(held, ref, field)).toEqual(wanted && { field, ...wanted }));
});

describe('calendars and resources', () => {
  test('a calendar that goes leaves its work to the plan’s own', () => {
    expect(calendarUse(held)).toEqual({ 'five-day': 3, site: 1 });
    const after = then(withoutCalendar(held, 'site'));
    expect(after.calendars.map((c) => c.id)).toEqual(['five-day']);
    expect(calendarUse(hold(after))).toEqual({ 'five-day': 4 });
  });

  test('the need of a week sums to what was assigned, and a resource leaves everything with it', () => {
    const { steps, needs } = needsShown(held, 'week');
    expect(steps).toEqual(['5 Jan 26', '12 Jan 26']);
    expect(needs).toMatchObject([
      { id: 'crew', need: [40, 0], total: 40, undated: 0, activities: [{ ref: 'A', hours: 40 }] },
    ]);
    const more = then(assigned(held, 'B', 'crew', 24));
    expect(needsShown(hold(more), 'month').needs[0]).toMatchObject({ need: [64], total: 64 });
    expect(then(assigned(held, 'A', 'crew', 0)).activities[1]!.assignments).toEqual([]);
    const without = then(withoutResource(held, 'crew'));
    expect([without.resources, without.activities.flatMap((a) => a.assignments)]).toEqual([[], []]);
  });
});
