import { describe, expect, test } from '@jest/globals';
import { allRows, FIVE_DAY, makeActivity, makeLink, makePlan, type Plan, schedulePlan } from '@clembo/core';
import { TELLS, type Tells } from '../src/brief/tells';
import { nextMilestone, statementOf, type Told } from '../src/exhibits/statement';
import { LANGUAGES } from '../src/text/languages/index';
import { LANGUAGE_CODES, type LanguageCode } from '../src/text/languages/language';
import { TITLE_WORDS } from '../src/text/languages/titles';
import { day, end } from '../../core/tests/helpers';

// Sentences of a hall by the harbour, worked out by hand on a calendar of Mondays to Fridays. The status date is
// Friday 1 May 2026. Everything but the paths leads to the opening on Friday 17 July.
type Row = [ref: string, name: string, start: string, finish: string, crew: string, more?: object];
const ROWS: Row[] = [
  ['A', 'Strip out', '2026-04-06', '2026-04-24', 'Crew 1', { percent: 100 }],
  ['B', 'Slab', '2026-04-27', '2026-05-15', 'Crew 1', { percent: 40 }],
  ['C', 'Frame', '2026-05-18', '2026-06-12', 'Crew 2'],
  ['D', 'Roof', '2026-06-15', '2026-07-10', 'Crew 2'],
  ['M', 'Roof tight', '2026-07-10', '2026-07-10', 'Crew 2', { kind: 'finishMilestone', duration: 0 }],
  ['E', 'Paths', '2026-05-11', '2026-05-22', 'Crew 3'],
  ['O', 'Opening', '2026-07-17', '2026-07-17', 'Crew 1', { kind: 'finishMilestone', duration: 0 }],
];
const PROMISED: Record<string, [string, string]> = {
  B: ['2026-04-27', '2026-05-08'],
  C: ['2026-05-11', '2026-06-05'],
  D: ['2026-06-08', '2026-07-03'],
  M: ['2026-07-03', '2026-07-03'],
  E: ['2026-05-18', '2026-05-29'],
};
const activityOf = ([ref, name, start, finish, crew, more = {}]: Row, actual = true) => {
  const { percent = null } = more as { percent?: number };
  return makeActivity({
    ref,
    name,
    responsible: crew === '' ? [] : [crew],
    start: day(start),
    finish: end(finish),
    ...(actual && percent !== null ? { actualStart: day(start) } : {}),
    ...(actual && percent === 100 ? { actualFinish: end(finish) } : {}),
    ...more,
  });
};
const planOf = (activities: Plan['activities'], more: Partial<Plan> = {}): Plan =>
  makePlan({
    name: 'Harbour hall',
    source: 'given',
    statusDate: day('2026-05-01'),
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities,
    ...more,
  });
const LINKS = ['AB', 'BC', 'CD', 'DM', 'MO'].map((p) => makeLink({ from: p[0]!, to: p[1]! }));
const hall = planOf(
  ROWS.map((r) => activityOf(r)),
  { links: LINKS },
);
const promise = planOf(
  ROWS.map(([ref, name, start, finish, crew, more]) =>
    activityOf(
      [ref, name, ...(PROMISED[ref] ?? [start, finish]), crew, { ...more, percent: null }] as unknown as Row,
      false,
    ),
  ),
  { statusDate: null },
);
const withRow = (ref: string, part: object): Plan => ({
  ...hall,
  activities: hall.activities.map((a) => (a.ref === ref ? { ...a, ...part } : a)),
});

function told(plan: Plan, part: Partial<Told> & { then?: Plan | null; only?: string } = {}): string {
  const { then = promise, only, ...more } = part;
  const schedule = schedulePlan(plan);
  return statementOf({
    plan,
    schedule,
    promised: then && { plan: then, schedule: schedulePlan(then), name: 'Contract' },
    rows: allRows(plan, schedule).filter((i) => only === undefined || only.includes(plan.activities[i]!.ref)),
    tells: 'end',
    ...more,
  });
}
const crewOf = (position: number) => hall.activities[position]!.responsible[0] ?? '';

describe('the end', () => {
  test('of all, as promised, with the milestone that is not', () =>
    // The roof is tight on Friday 10 July, a week after the 3rd.
    expect(told(hall)).toBe('Harbour hall runs to 17 July 2026, as promised; Roof tight: 5 working days late'));

  test('of what the page shows, of how many, against the promise of the same', () => {
    expect(told(hall, { only: 'BC' })).toBe(
      'Harbour hall (2 of 7 activities) runs to 12 June 2026, 5 working days later than promised',
    );
    expect(told(hall, { only: 'E' })).toBe(
      'Harbour hall (1 of 7 activities) runs to 22 May 2026, 5 working days earlier than promised',
    );
    expect(told(hall, { only: 'E', name: 'Outside' })).toBe(
      'Outside (1 of 7 activities) runs to 22 May 2026, 5 working days earlier than promised',
    );
  });

  test('of what is complete', () =>
    expect(told(hall, { only: 'A' })).toBe(
      'Harbour hall (1 of 7 activities) was completed on 24 April 2026, as promised',
    ));

  test('is known only as far as it is, where something open has no dates', () => {
    const plan = withRow('D', { start: null, finish: null });
    const loose = { ...plan, links: [] };
    expect(told(loose)).toBe('Harbour hall is known to 17 July 2026; 1 of 7 has no dates');
    // Nothing is said against the promise there, however late the rest is.
    expect(told(loose)).not.toMatch(/promised|late/);
  });

  test('is expected where nobody stated it', () => {
    // Three weeks from Monday 27 April, as they were promised, and nothing else.
    const plan = withRow('B', { finish: null, promised: { start: day('2026-04-27'), finish: end('2026-05-15') } });
    expect(told({ ...plan, links: [], statusDate: null }, { only: 'B', then: null })).toBe(
      'Harbour hall (1 of 7 activities) is expected to run to 15 May 2026',
    );
  });

  test('says how much is done where nothing was promised', () =>
    // 15 days done, 6 of 15, and 20, 20, 10 days to come: 21 of 80 days.
    expect(told(hall, { then: null })).toBe('Harbour hall runs to 17 July 2026; 26 % of its work is done'));

  test('of a page that shows nothing is nothing but a name', () => {
    expect(told(hall, { only: '' })).toBe('Harbour hall');
    for (const tells of TELLS) expect(told(hall, { only: '', tells })).toBe('Harbour hall');
  });
});

describe('what decides the end', () => {
  test('as far as it is linked', () =>
    // Of the six that are open all but the paths lead to the opening; nothing is critical but what the gap of a week
    // between roof and opening leaves so.
    expect(told(hall, { tells: 'chain' })).toBe(
      'Harbour hall: 1 activity decides the end on 17 July 2026, as far as it is linked: 5 of 6 lead to the end; the others can slip by 5 working days or more',
    ));

  test('a chain without gaps', () => {
    const tight = withRow('O', { start: day('2026-07-10'), finish: end('2026-07-10') });
    expect(told(tight, { tells: 'chain' })).toBe(
      // The paths, which nothing waits for, have the 35 working days from Saturday 23 May to Friday 10 July.
      'Harbour hall: 5 activities decide the end on 10 July 2026, as far as it is linked: 5 of 6 lead to the end; the others can slip by 35 working days or more',
    );
    expect(told(tight, { tells: 'chain', only: 'BC' })).toContain(
      'Harbour hall (2 of 5 activities): 5 activities decide',
    );
  });

  test('without links nothing is known to', () =>
    expect(told({ ...hall, links: [] }, { tells: 'chain' })).toBe(
      'Harbour hall ends on 17 July 2026; no links lead there, so nothing is known to decide it',
    ));
});

describe('what comes next', () => {
  test('in six weeks: what starts, what ends, the next milestone', () =>
    // To Friday 12 June: paths and frame start; slab, paths and frame end.
    expect(told(hall, { tells: 'next', weeks: 6 })).toBe(
      'Harbour hall: 2 start and 3 end in the next 6 weeks; next milestone: Roof tight, 10 July 2026',
    ));

  test('in one week nothing does', () =>
    expect(told(hall, { tells: 'next', weeks: 1 })).toBe(
      'Harbour hall: 0 start and 0 end in the next week; next milestone: Roof tight, 10 July 2026',
    ));

  test('a milestone that should have been reached is not next', () => {
    const late = withRow('M', { start: day('2026-04-30'), finish: end('2026-04-30') });
    const s = schedulePlan({ ...late, links: [] });
    const next = nextMilestone({ ...late, links: [] }, s, allRows(late, s))!;
    expect(late.activities[next.position]!.ref).toBe('O');
  });

  test('without a status date the end is told', () =>
    expect(told({ ...hall, statusDate: null }, { tells: 'next', then: null })).toContain('runs to 17 July 2026'));
});

describe('against the promise', () => {
  test('how many are behind, which most, and what the end does', () =>
    // Slab, frame, roof and roof tight are a week behind; the paths are ahead.
    expect(told(hall, { tells: 'behind' })).toBe(
      'Harbour hall: 4 of 7 activities are behind the promise, Slab most: 5 working days; the end holds',
    ));

  test('one day is behind, and the end is a day later', () => {
    const plan = { ...hall, links: [], activities: promise.activities.map((a) => ({ ...a })) };
    plan.activities[6] = { ...plan.activities[6]!, start: day('2026-07-20'), finish: end('2026-07-20') };
    expect(told(plan, { tells: 'behind' })).toBe(
      'Harbour hall: 1 of 7 activities is behind the promise, Opening most: 1 working day; the end is 1 working day later',
    );
  });

  test('nothing behind is said too', () =>
    expect(told({ ...promise, name: 'Harbour hall' }, { tells: 'behind' })).toBe(
      'Harbour hall: none of 7 activities is behind the promise',
    ));

  test('what moved since an edition, and what is new', () => {
    const plan = {
      ...hall,
      activities: [...hall.activities, activityOf(['N', 'Fence', '2026-06-01', '2026-06-05', ''])],
    };
    // Slab, frame, roof, roof tight and paths moved.
    expect(told(plan, { tells: 'changed' })).toBe('Harbour hall: 5 moved and 1 new since then');
  });

  test.each(['behind', 'changed'] as const)('%s without a promise tells the end', (tells) =>
    expect(told(hall, { tells, then: null })).toBe(told(hall, { then: null })),
  );
});

describe('parts, hands, progress, milestones', () => {
  test('who has most', () =>
    expect(told(hall, { tells: 'who', partOf: crewOf })).toBe(
      'Harbour hall: 3 share 7 activities; Crew 1 has most, 3',
    ));

  test('which part is furthest behind', () =>
    // Crew 1 ends with the opening, as promised; crew 2 with the roof, a week late; crew 3 a week early.
    expect(told(hall, { tells: 'parts', partOf: crewOf })).toBe(
      'Harbour hall: Crew 2 is furthest behind its promise, 5 working days',
    ));

  test('which part runs longest where nothing was promised', () =>
    expect(told(hall, { tells: 'parts', partOf: crewOf, then: null })).toBe(
      'Harbour hall: Crew 1 runs longest, to 17 July 2026',
    ));

  test.each(['who', 'parts'] as const)('%s of one part alone tells the end', (tells) =>
    expect(told(hall, { tells, partOf: () => 'All of it' })).toBe(told(hall)),
  );

  test('how many are done, begun and to come', () => {
    expect(told(hall, { tells: 'progress' })).toBe(
      'Harbour hall: 1 of 7 activities complete, 1 in progress, 5 to come',
    );
    expect(told(hall, { tells: 'progress', only: 'BCE' })).toBe(
      'Harbour hall (3 of 7 activities): 0 of 3 activities complete, 1 in progress, 2 to come',
    );
  });

  test('milestones to come, and all reached', () => {
    expect(told(hall, { tells: 'milestones' })).toBe(
      'Harbour hall: 2 of 2 milestones to come; next milestone: Roof tight, 10 July 2026',
    );
    const reached = withRow('M', { percent: 100, actualFinish: end('2026-04-30') });
    expect(told(reached, { tells: 'milestones' })).toBe(
      'Harbour hall: 1 of 2 milestones to come; next milestone: Opening, 17 July 2026',
    );
    expect(told(reached, { tells: 'milestones', only: 'M' })).toBe('Harbour hall: its milestone is reached');
  });
});

describe('in every language', () => {
  const others = LANGUAGE_CODES.filter((c) => c !== 'en');
  const all: [Tells, Partial<Told> & { only?: string; then?: Plan | null }][] = [
    ['end', {}],
    ['end', { only: 'BC' }],
    ['end', { then: null }],
    ['chain', {}],
    ['next', { weeks: 6 }],
    ['behind', {}],
    ['changed', {}],
    ['who', { partOf: crewOf }],
    ['parts', { partOf: crewOf }],
    ['parts', { partOf: crewOf, then: null }],
    ['progress', {}],
    ['milestones', {}],
  ];
  const facts = (text: string) => (text.match(/\d+/g) ?? []).map(Number).sort((a, b) => a - b);
  const said = (code: LanguageCode) =>
    all.map(([tells, part]) => told(hall, { tells, ...part, language: LANGUAGES[code] }));

  test.each(others)('%s: the same facts, in its own words', (code) => {
    const [own, english] = [said(code), said('en')];
    own.forEach((text, k) => {
      expect([english[k], facts(text)]).toEqual([english[k], facts(english[k]!)]);
      expect(text).not.toMatch(/ (?:runs|promised|working days?|activit(?:y|ies)|late|most) /);
      expect(text).not.toBe(english[k]);
    });
  });

  test.each(others)('%s: one is not said as many', (code) => {
    const w = TITLE_WORDS[code];
    const many = (one: string, several: string) =>
      expect(one.replace(/\d+/, '#')).not.toBe(several.replace(/\d+/, '#'));
    many(w.workedOut(1), w.workedOut(2));
    many(w.takenAsPromised(1), w.takenAsPromised(2));
    many(w.allReached('X', 1), w.allReached('X', 2));
    many(w.endLater(1), w.endLater(2));
    many(w.decide('X', 1, 'D'), w.decide('X', 2, 'D'));
  });
});
