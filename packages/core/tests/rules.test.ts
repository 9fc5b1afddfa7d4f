import { describe, expect, test } from '@jest/globals';
import {
  dayOf,
  drivingLinks,
  drivingPath,
  endOfDay,
  finishDayOf,
  isoDate,
  LINK_TYPES,
  longestPath,
  makeActivity,
  neededBy,
  NONE,
  type Plan,
  parseIsoDate,
  schedulePlan,
  stretchesAt,
  wordsFor,
  lastDayOf,
} from '../src/index';
import { day, planOf, randomLinks, seeded } from './helpers';

const at = (plan: Plan, ref: string) => {
  const s = schedulePlan(plan);
  const i = plan.activities.findIndex((a) => a.ref === ref);
  return {
    start: isoDate(dayOf(s.earlyStart[i]!)),
    finish: isoDate(finishDayOf(s.earlyFinish[i]!)),
    lateStart: isoDate(dayOf(s.lateStart[i]!)),
    float: s.totalFloat[i] === NONE ? null : s.totalFloat[i]! / 480,
    free: s.freeFloat[i] === NONE ? null : s.freeFloat[i]! / 480,
    findings: s.findings,
  };
};
const change = (plan: Plan, ref: string, part: object): Plan => ({
  ...plan,
  activities: plan.activities.map((a) => (a.ref === ref ? { ...a, ...part } : a)),
});
const monday = { start: day('2025-01-06'), calendar: 'five-day' };

describe('constraints (the rules of domain practice, dates by hand)', () => {
  const plan = planOf(
    [
      ['A', 5],
      ['B', 5],
      ['C', 3],
    ],
    [
      ['A', 'B'],
      ['A', 'C'],
    ],
    monday,
  );

  test('not earlier than moves the start, and float with it', () => {
    const p = change(plan, 'C', { constraint: { kind: 'startNotEarlier', moment: day('2025-01-15') } });
    expect(at(p, 'C')).toMatchObject({ start: '2025-01-15', finish: '2025-01-17', float: 0 });
  });
  test('finish not earlier than', () => {
    const p = change(plan, 'C', {
      constraint: { kind: 'finishNotEarlier', moment: endOfDay(parseIsoDate('2025-01-16')!) },
    });
    expect(at(p, 'C')).toMatchObject({ start: '2025-01-14', finish: '2025-01-16' });
  });
  test('not later than gives negative float of the size of the conflict', () => {
    const p = change(plan, 'B', {
      constraint: { kind: 'finishNotLater', moment: endOfDay(parseIsoDate('2025-01-15')!) },
    });
    expect(at(p, 'B')).toMatchObject({ start: '2025-01-13', finish: '2025-01-17', float: -2 });
    expect(at(p, 'A').float).toBe(-2);
  });
  test('a fixed date stays; the conflict is a finding and negative float', () => {
    const p = change(plan, 'B', { constraint: { kind: 'fixedStart', moment: day('2025-01-08') } });
    expect(at(p, 'B')).toMatchObject({ start: '2025-01-08', finish: '2025-01-14', float: -3 });
    expect(at(p, 'A').float).toBe(-3);
    const finding = at(p, 'B').findings.find((f) => f.code === 'fixedDateConflict')!;
    expect(finding.facts).toEqual({ fixed: '2025-01-14', logic: '2025-01-17', days: 3 });
    expect(wordsFor(finding)).toContain('3 working days too late');
  });
  // Common practice: if opening day is a Monday, what comes before is needed by the Friday before
  test('needed by: the last working day before a fixed Monday', () => {
    const p = change(plan, 'B', { constraint: { kind: 'fixedStart', moment: day('2025-01-20') } });
    const s = schedulePlan(p);
    const [need] = neededBy(p, s, 1);
    expect([p.activities[need!.position]!.ref, isoDate(finishDayOf(need!.moment)), need!.ofStart]).toEqual([
      'A',
      '2025-01-17',
      false,
    ]);
    expect(neededBy(p, s, 0)).toEqual([]);
  });
  test('as late as possible takes the free float and moves nothing else', () => {
    const chain = planOf(
      [
        ['A', 5],
        ['B', 10],
        ['X', 2],
        ['Y', 3],
        ['E', 1],
      ],
      [
        ['A', 'B'],
        ['A', 'X'],
        ['X', 'Y'],
        ['B', 'E'],
        ['Y', 'E'],
      ],
      monday,
    );
    const late = change(change(chain, 'X', { constraint: { kind: 'asLateAsPossible', moment: null } }), 'Y', {
      constraint: { kind: 'asLateAsPossible', moment: null },
    });
    expect(at(late, 'Y')).toMatchObject({ start: '2025-01-22', finish: '2025-01-24' });
    expect(at(late, 'X')).toMatchObject({ start: '2025-01-20', finish: '2025-01-21' });
    expect(at(late, 'E')).toMatchObject({ start: at(chain, 'E').start });
  });
});

describe('progress', () => {
  const base = planOf(
    [
      ['A', 10],
      ['B', 10],
    ],
    [['A', 'B']],
    { ...monday, statusDate: day('2025-01-19') },
  );

  test('actual dates are history and are never moved', () => {
    const p = change(base, 'A', {
      actualStart: day('2025-01-08'),
      actualFinish: endOfDay(parseIsoDate('2025-01-23')!),
    });
    expect(at(p, 'A')).toMatchObject({ start: '2025-01-08', finish: '2025-01-23', float: null });
    expect(at(p, 'B').start).toBe('2025-01-24');
  });
  test('what is in progress resumes behind the status date with what remains', () => {
    const p = change(base, 'A', { actualStart: day('2025-01-06'), percent: 50 });
    expect(at(p, 'A')).toMatchObject({ start: '2025-01-06', finish: '2025-01-24' });
    expect(at(p, 'B').start).toBe('2025-01-27');
  });
  test('what has not begun does not begin before the status date', () => {
    expect(at(base, 'A').start).toBe('2025-01-20');
  });
  test('out of sequence: retained logic waits for the predecessor, override does not', () => {
    const p = change(base, 'B', { actualStart: day('2025-01-13'), remaining: 5 * 480 });
    expect(at(p, 'A')).toMatchObject({ start: '2025-01-20', finish: '2025-01-31' });
    expect(at(p, 'B')).toMatchObject({ start: '2025-01-13', finish: '2025-02-07' });
    expect(at({ ...p, retainedLogic: false }, 'B')).toMatchObject({ finish: '2025-01-24' });
  });
  // Common practice: thirty percent of fourteen days are four whole days done and ten to go
  test('percent leaves whole days to go', () => {
    const p = change(planOf([['A', 14]], [], { ...monday, statusDate: day('2025-01-12') }), 'A', {
      actualStart: day('2025-01-06'),
      percent: 30,
    });
    expect(at(p, 'A').finish).toBe('2025-01-24');
  });
});

describe('milestones, supporting work, summaries', () => {
  test('a milestone stands at the end of what it follows; a start milestone at the next beginning', () => {
    const plan = planOf(
      [
        ['A', 5],
        ['M', 0],
        ['S', 0],
        ['B', 1],
      ],
      [
        ['A', 'M'],
        ['A', 'S'],
        ['M', 'B'],
      ],
      monday,
    );
    const p = change(plan, 'S', { kind: 'startMilestone' });
    const s = schedulePlan(p);
    expect([s.atFinish[1], isoDate(finishDayOf(s.earlyFinish[1]!))]).toEqual([1, '2025-01-10']);
    expect([s.atFinish[2], isoDate(dayOf(s.earlyStart[2]!))]).toEqual([0, '2025-01-13']);
    expect(at(p, 'B').start).toBe('2025-01-13');
  });
  test('a milestone with a duration is worked', () => {
    const p = change(
      planOf(
        [
          ['A', 5],
          ['M', 2],
          ['B', 1],
        ],
        [
          ['A', 'M'],
          ['M', 'B'],
        ],
        monday,
      ),
      'M',
      { kind: 'finishMilestone' },
    );
    expect(at(p, 'B').start).toBe('2025-01-15');
  });
  test('supporting work spans from a start to a finish and has no float', () => {
    const p = change(
      planOf(
        [
          ['A', 5],
          ['B', 5],
          ['L', 0],
        ],
        [
          ['A', 'B'],
          ['A', 'L', 'SS'],
          ['L', 'B', 'FF'],
        ],
        monday,
      ),
      'L',
      { kind: 'levelOfEffort', duration: null },
    );
    expect(at(p, 'L')).toMatchObject({ start: '2025-01-06', finish: '2025-01-17', float: null });
    expect(schedulePlan(p).critical[2]).toBe(0);
  });
  test('a link to a summary is read as links to its first, from it as links from its last', () => {
    const plan = planOf(
      [
        ['A', 5],
        ['S', 0],
        ['X', 3],
        ['Y', 4],
        ['Z', 2],
      ],
      [
        ['A', 'S'],
        ['X', 'Y'],
        ['S', 'Z'],
      ],
      monday,
    );
    const p = {
      ...plan,
      activities: plan.activities.map((a) =>
        a.ref === 'S' ? { ...a, kind: 'summary' as const } : ['X', 'Y'].includes(a.ref) ? { ...a, parent: 'S' } : a,
      ),
    };
    expect([at(p, 'X').start, at(p, 'Y').start, at(p, 'Z').start]).toEqual(['2025-01-13', '2025-01-16', '2025-01-22']);
    expect(at(p, 'S')).toMatchObject({ start: '2025-01-13', finish: '2025-01-21' });
    expect(at(p, 'S').findings.map((f) => f.code)).toEqual(['linkToSummary', 'linkToSummary']);
  });
});

test('interrupted work spans its pauses, and moves as a whole', () => {
  const finish = (text: string) => endOfDay(parseIsoDate(text)!);
  const stretches = [
    { start: day('2025-01-06'), finish: finish('2025-01-08') },
    { start: day('2025-01-13'), finish: finish('2025-01-14') },
  ];
  const plan = change(
    planOf(
      [
        ['S', 2],
        ['A', 5],
        ['B', 1],
      ],
      [
        ['S', 'A'],
        ['A', 'B'],
      ],
      monday,
    ),
    'A',
    { stretches },
  );
  // Three days of work, a pause of Thursday and Friday, two days of work; begun two days later by the link.
  expect(at(plan, 'A')).toMatchObject({ start: '2025-01-08', finish: '2025-01-16' });
  expect(at(plan, 'B').start).toBe('2025-01-17');
  const parts = stretchesAt(plan, schedulePlan(plan), 1).map((p) => [
    isoDate(dayOf(p.start)),
    isoDate(finishDayOf(p.finish)),
  ]);
  expect(parts).toEqual([
    ['2025-01-08', '2025-01-10'],
    ['2025-01-15', '2025-01-16'],
  ]);
});

test('lags: in whose working time they are counted', () => {
  const plan = planOf(
    [
      ['A', 5],
      ['B', 1],
    ],
    [],
    monday,
  );
  const link = (lag: number, lagCalendar: Plan['links'][number]['lagCalendar']) =>
    at({ ...plan, links: [{ from: 'A', to: 'B', type: 'FS', lag, lagCalendar }] }, 'B').start;
  expect(link(2 * 480, 'successor')).toBe('2025-01-15');
  expect(link(2 * 1440, 'elapsed')).toBe('2025-01-13');
  expect(link(4 * 1440, 'elapsed')).toBe('2025-01-15');
  const seven = { ...plan, activities: plan.activities.map((a) => (a.ref === 'A' ? { ...a, calendar: 'every' } : a)) };
  expect(
    at({ ...seven, links: [{ from: 'A', to: 'B', type: 'FS', lag: 480, lagCalendar: 'predecessor' }] }, 'B').start,
  ).toBe('2025-01-13');
});

test('hours: a plan that works in hours ends within the day', () => {
  const plan = {
    ...planOf(
      [
        ['A', 1],
        ['B', 1],
      ],
      [['A', 'B']],
      monday,
    ),
    inHours: true,
  };
  const p = change(plan, 'A', { duration: 6 * 60 });
  const s = schedulePlan(p);
  const clock = (m: number) => [isoDate(dayOf(m)), (m - dayOf(m) * 1440) / 60];
  expect(clock(s.earlyFinish[0]!)).toEqual(['2025-01-06', 15]);
  expect(clock(s.earlyStart[1]!)).toEqual(['2025-01-06', 15]);
  expect(clock(s.earlyFinish[1]!)).toEqual(['2025-01-07', 15]);
});

describe('broken data gives findings, and the rest is computed', () => {
  test('loops are named in order; what is behind them has no computed dates', () => {
    const plan = planOf(
      [
        ['A', 1],
        ['B', 1],
        ['C', 1],
        ['D', 1],
        ['E', 4],
      ],
      [
        ['A', 'B'],
        ['B', 'C'],
        ['C', 'A'],
        ['C', 'D'],
      ],
      monday,
    );
    const s = schedulePlan(plan);
    const loop = s.findings.find((f) => f.code === 'loop')!.refs;
    expect(loop.length).toBe(3);
    for (let k = 0; k < 3; k++)
      expect(plan.links.some((l) => l.from === loop[k] && l.to === loop[(k + 1) % 3])).toBe(true);
    expect([s.earlyStart[0], s.earlyStart[3]]).toEqual([NONE, NONE]);
    expect(at(plan, 'E').finish).toBe('2025-01-09');
  });
  test.each([
    [
      'a link to nothing',
      { links: [{ from: 'A', to: 'Q', type: 'FS', lag: 0, lagCalendar: 'successor' }] },
      'linkToNothing',
    ],
    [
      'a link to itself',
      { links: [{ from: 'A', to: 'A', type: 'FS', lag: 0, lagCalendar: 'successor' }] },
      'linkToItself',
    ],
    [
      'a calendar that is not there',
      { activities: [makeActivity({ ref: 'A', duration: 480, calendar: 'moon' })] },
      'calendarMissing',
    ],
    [
      'a reference twice',
      { activities: [makeActivity({ ref: 'A', duration: 480 }), makeActivity({ ref: 'A', duration: 960 })] },
      'duplicateReference',
    ],
    [
      'an outline in a circle',
      { activities: [makeActivity({ ref: 'A', parent: 'B' }), makeActivity({ ref: 'B', parent: 'A' })] },
      'parentLoop',
    ],
    ['no dates at all', { activities: [makeActivity({ ref: 'A', kind: 'levelOfEffort' })] }, 'noDates'],
  ])('%s', (_, part, code) => {
    const s = schedulePlan({ ...planOf([['A', 2]], [], monday), ...(part as Partial<Plan>) });
    const finding = s.findings.find((f) => f.code === code)!;
    expect(finding).toBeDefined();
    expect(wordsFor(finding)).toMatch(/\w{3,}.*\./);
  });
  test('a calendar without working time is computed on every day', () => {
    const plan = planOf([['A', 5]], [], monday);
    const idle = {
      ...plan,
      calendars: plan.calendars.map((c) => (c.id === 'five-day' ? { ...c, week: c.week.map(() => []) } : c)),
    };
    expect(schedulePlan(idle).findings.map((f) => f.code)).toContain('calendarWithoutWork');
    expect(at(idle, 'A').finish).toBe('2025-01-10');
  });
  test('durations past the year 2299 stop there', () => {
    expect(
      schedulePlan(
        planOf(
          [
            ['A', 100_000],
            ['B', 100_000],
          ],
          [['A', 'B']],
          monday,
        ),
      ).findings.map((f) => f.code),
    ).toContain('beyondCalendar');
  });
});

describe('paths', () => {
  test('driving links and the longest path', () => {
    const plan = planOf(
      [
        ['A', 5],
        ['B', 3],
        ['C', 10],
        ['D', 2],
      ],
      [
        ['A', 'B'],
        ['A', 'C'],
        ['B', 'D'],
        ['C', 'D'],
      ],
      monday,
    );
    const s = schedulePlan(plan);
    expect(drivingLinks(s).map((l) => `${plan.links[l]!.from}${plan.links[l]!.to}`)).toEqual(['AB', 'AC', 'CD']);
    expect(longestPath(s).map((i) => plan.activities[i]!.ref)).toEqual(['A', 'C', 'D']);
    expect(drivingPath(s, 1).map((i) => plan.activities[i]!.ref)).toEqual(['A', 'B']);
  });
});

describe('properties of random plans', () => {
  const calendars = ['every', 'five-day', 'six-day'];
  const randomPlan = (seed: number): Plan => {
    const random = seeded(seed);
    const n = 15 + Math.floor(random() * 25);
    return planOf(
      Array.from({ length: n }, (_, i) => [`N${i}`, Math.floor(random() * 9), calendars[Math.floor(random() * 3)]!]),
      randomLinks(random, n, LINK_TYPES, [-3, 5]),
      { start: (20_000 + Math.floor(random() * 700)) * 1440 },
    );
  };
  const dates = (p: Plan) => {
    const s = schedulePlan(p);
    return [...s.earlyStart, ...s.earlyFinish, ...s.lateStart, ...s.lateFinish];
  };

  test('shifting the start by a week shifts everything by a week; 1000 plans', () => {
    for (let seed = 0; seed < 1000; seed++) {
      const plan = randomPlan(seed);
      expect(dates({ ...plan, start: plan.start! + 7 * 1440 })).toEqual(dates(plan).map((d) => d + 7 * 1440));
    }
  });
  test('a link that says what others say already changes nothing; 1000 plans', () => {
    for (let seed = 0; seed < 1000; seed++) {
      const plan = randomPlan(seed);
      expect(dates({ ...plan, links: [...plan.links, ...plan.links.slice(0, 5)] })).toEqual(dates(plan));
    }
  });
  test('supporting work never changes the finish; 1000 plans', () => {
    for (let seed = 0; seed < 1000; seed++) {
      const plan = randomPlan(seed);
      const n = plan.activities.length;
      const support = makeActivity({ ref: 'LOE', kind: 'levelOfEffort' });
      const link = (from: string, to: string, type: 'SS' | 'FF') => ({
        from,
        to,
        type,
        lag: 0,
        lagCalendar: 'successor' as const,
      });
      const more = {
        ...plan,
        activities: [...plan.activities, support],
        links: [...plan.links, link(`N${seed % n}`, 'LOE', 'SS'), link('LOE', `N${(seed * 7) % n}`, 'FF')],
      };
      expect(schedulePlan(more).planFinish).toBe(schedulePlan(plan).planFinish);
    }
  });
  test('total float is at least free float, and every critical chain ends at the finish', () => {
    for (let seed = 0; seed < 300; seed++) {
      const plan = randomPlan(seed);
      const s = schedulePlan(plan);
      plan.activities.forEach((_, i) => expect(s.totalFloat[i]!).toBeGreaterThanOrEqual(s.freeFloat[i]!));
      const path = longestPath(s);
      // A point at the beginning of a day ends the plan on that day, which its end closes.
      expect(finishDayOf(s.planFinish)).toBe(
        lastDayOf({
          start: s.start[path.at(-1)!]!,
          finish: s.finish[path.at(-1)!]!,
          atFinish: s.atFinish[path.at(-1)!] === 1,
        }),
      );
    }
  });
});
