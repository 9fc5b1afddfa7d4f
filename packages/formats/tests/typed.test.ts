import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  dayOf,
  endOfDay,
  finishDayOf,
  FIVE_DAY,
  isoDate,
  makeActivity,
  makeField,
  makeLink,
  makePlan,
  makeValue,
  parseIsoDate,
  type Plan,
  schedulePlan,
  SIX_DAY,
  startOfDay,
} from '@clembo/core';
import { cellText, editorOf, fieldAbout, lengthTyped, typedInto } from '../src/typed/typed';

const at = (iso: string) => startOfDay(parseIsoDate(iso)!);
const end = (iso: string) => endOfDay(parseIsoDate(iso)!);
const plan = makePlan({
  name: 'Quay',
  calendars: [FIVE_DAY, SIX_DAY],
  calendar: FIVE_DAY.id,
  codeFields: [makeField({ id: 'zone', name: 'Zone', values: [makeValue({ code: 'N', title: 'North' })] })],
  activities: [
    makeActivity({ ref: 'G', name: 'Group', kind: 'summary' }),
    // Monday 2 to Friday 6 March 2026
    makeActivity({
      ref: 'A',
      name: 'Dig',
      parent: 'G',
      start: at('2026-03-02'),
      finish: end('2026-03-06'),
      duration: 2400,
    }),
    makeActivity({ ref: 'B', name: 'Fill', parent: 'G' }),
    makeActivity({ ref: 'M', name: 'Ready', kind: 'finishMilestone', finish: end('2026-03-20') }),
  ],
  links: [makeLink({ from: 'A', to: 'B', type: 'SS', lag: 960 })],
});
const after = (ref: string, field: string, text: string, of: Plan = plan): Plan | string | null => {
  const done = typedInto(of, schedulePlan(of), ref, field, text);
  return 'error' in done ? done.error : done.command ? applyCommand(of, done.command).plan : null;
};
const dates = (ref: string, field: string, text: string, of: Plan = plan) => {
  const made = after(ref, field, text, of);
  if (made === null || typeof made === 'string') return made;
  const a = made.activities.find((x) => x.ref === ref)!;
  return [
    a.start === null ? '' : isoDate(dayOf(a.start)),
    a.finish === null ? '' : isoDate(finishDayOf(a.finish)),
    a.duration,
  ];
};

// Days counted on a calendar of 2026; 2 March is a Monday
describe('what is typed into dates', () => {
  test.each<[string, string, string, unknown]>([
    ['a start moves the whole length, over a weekend', 'start', '4.3.2026', ['2026-03-04', '2026-03-10', 2400]],
    ['day before month, and the year of its neighbours', 'start', '4/3', ['2026-03-04', '2026-03-10', 2400]],
    ['a start on a Saturday lands on the Monday', 'start', '7 March 2026', ['2026-03-09', '2026-03-13', 2400]],
    ['a finish changes the length', 'finish', '2026-03-10', ['2026-03-02', '2026-03-10', 3360]],
    ['a finish before the start', 'finish', '2026-02-27', 'That is before its start.'],
    ['a length moves the finish', 'days', '3', ['2026-03-02', '2026-03-04', 1440]],
    ['in weeks', 'days', '2 weeks', ['2026-03-02', '2026-03-13', 4800]],
    ['nothing takes the start away', 'start', '', ['', '2026-03-06', 2400]],
    ['what there is changes nothing', 'start', '2 Mar 26', null],
    ['no day', 'start', 'soon', '“soon” is no day. Type it as in 14 Sep 2026 or 2026-09-14.'],
    ['a quarter is no day', 'start', 'Q3 2026', '“Q3 2026” is no day. Type it as in 14 Sep 2026 or 2026-09-14.'],
    ['no length', 'days', 'three', '“three” is no length. Type working days, or a unit: 3, 2 weeks, 16 h.'],
  ])('%s', (_, field, text, expected) => expect(dates('A', field, text)).toEqual(expected));

  test('a milestone stands on one day, whichever date is typed', () => {
    expect(dates('M', 'start', '2026-03-25')).toEqual(['', '2026-03-25', 0]);
    expect(dates('M', 'finish', '2026-03-25')).toEqual(['', '2026-03-25', 0]);
  });
  test('where dates are computed, a start holds back, a finish is a length', () => {
    const computed: Plan = { ...plan, source: 'computed', start: at('2026-03-02') };
    const held = after('A', 'start', '2026-03-11', computed) as Plan;
    expect(held.activities[1]!.constraint).toEqual({ kind: 'startNotEarlier', moment: at('2026-03-11') });
    expect(isoDate(dayOf(schedulePlan(held).start[1]!))).toBe('2026-03-11');
    expect((after('A', 'finish', '2026-03-03', computed) as Plan).activities[1]!.duration).toBe(960);
  });
  test('a group has what it holds', () => {
    expect(after('G', 'start', '2026-03-11')).toBe('A group has what it holds; type it there.');
    expect((after('G', 'name', 'Ground') as Plan).activities[0]!.name).toBe('Ground');
  });
});

describe('what is typed into other cells', () => {
  const one = (field: string, text: string, read: (p: Plan) => unknown, ref = 'A') => {
    const made = after(ref, field, text);
    return made === null || typeof made === 'string' ? made : read(made);
  };
  const a = (p: Plan) => p.activities[1]!;
  test.each<[string, string, (p: Plan) => unknown, unknown]>([
    // Ten days of the calendar are ten of them, whatever the week of the row.
    ['days', '10 calendar days', (p) => [a(p).duration, a(p).calendar], [10 * 1440, 'round-the-clock']],
    ['days', '10 ed', (p) => isoDate(finishDayOf(a(p).finish!)), '2026-03-11'],
    ['days', '0', (p) => [a(p).kind, a(p).duration, a(p).finish], ['startMilestone', 0, null]],
    // A day without a year means the year in which it can only be; a weekday has to fit.
    ['deadline', '5 jul', (p) => isoDate(finishDayOf(a(p).deadline!)), '2026-07-05'],
    ['deadline', 'Mon 13.7.', (p) => isoDate(finishDayOf(a(p).deadline!)), '2026-07-13'],
    ['percent', '45 %', (p) => a(p).percent, 45],
    ['percent', '145', (p) => a(p).percent, '“145” is no percentage from 0 to 100.'],
    ['cost', '1,234.50', (p) => a(p).cost, 123_450],
    ['effort', '7.5 h', (p) => a(p).effort, 450],
    ['effort', '-3', (p) => a(p).effort, '“-3” is no effort. Type hours, or 3 person-days.'],
    ['responsible', 'Crew, Survey ; ', (p) => a(p).responsible, ['Crew', 'Survey']],
    ['calendar', 'six-day week', (p) => a(p).calendar, 'six-day'],
    [
      'calendar',
      'night',
      (p) => a(p).calendar,
      'There is no calendar “night”. There are: Five-day week, Six-day week.',
    ],
    ['code.zone', 'north', (p) => a(p).codes, { zone: 'N' }],
    ['code.zone', 'West', (p) => a(p).codes, { zone: 'West' }],
    [
      'kind',
      'milestone',
      (p) => [a(p).kind, a(p).duration, isoDate(finishDayOf(a(p).finish!))],
      // It keeps its length, and has it again as an activity.
      ['finishMilestone', 2400, '2026-03-06'],
    ],
    ['deadline', '31/3/2026', (p) => isoDate(finishDayOf(a(p).deadline!)), '2026-03-31'],
    ['float', '3', () => '', 'This is worked out, and cannot be typed.'],
  ])('%s: %s', (field, text, read, expected) => expect(one(field, text, read)).toEqual(expected));

  test('links are those that are typed: what is not there any more goes', () => {
    const links = (p: Plan) => p.links.map((l) => `${l.from} ${l.to} ${l.type} ${l.lag}`);
    expect(one('predecessors', 'A FF+1d; M', links, 'B')).toEqual(['A B FF 480', 'M B FS 0']);
    expect(one('predecessors', '', links, 'B')).toEqual([]);
    expect(one('predecessors', 'A SS+2d', links, 'B')).toBeNull();
    expect(one('successors', 'B SS+2d, M', links)).toEqual(['A B SS 960', 'A M FS 0']);
    expect(one('predecessors', 'A9', links, 'B')).toBe(
      'There is no activity “A9”. Type references, as in A12, A12 SS+2d.',
    );
    expect(one('predecessors', 'B', links, 'B')).toBe('An activity is not linked to itself.');
    expect(cellText(plan, schedulePlan(plan), 'B', 'predecessors', '')).toBe('A SS+2d');
  });

  test('a lag is counted in the calendar of the successor, from whichever end it is typed', () => {
    const ten = { ...SIX_DAY, id: 'ten', name: 'Ten hours', minutesPerDay: 600 };
    const mixed: Plan = {
      ...plan,
      calendars: [...plan.calendars, ten],
      activities: plan.activities.map((x) => (x.ref === 'B' ? { ...x, calendar: 'ten' } : x)),
      links: [],
    };
    const lag = (ref: string, field: string, text: string) => (after(ref, field, text, mixed) as Plan).links[0]!.lag;
    expect([lag('A', 'successors', 'B FS+2d'), lag('B', 'predecessors', 'A FS+2d')]).toEqual([1200, 1200]);
    const linked = after('A', 'successors', 'B FS+2d', mixed) as Plan;
    const s = schedulePlan(linked);
    expect([cellText(linked, s, 'A', 'successors', ''), cellText(linked, s, 'B', 'predecessors', '')]).toEqual([
      'B FS+2d',
      'A FS+2d',
    ]);
  });

  test('whatever an editor begins with, typed again, changes nothing', () => {
    const s = schedulePlan(plan);
    for (const ref of ['A', 'B', 'M'])
      for (const field of ['predecessors', 'successors'])
        expect(typedInto(plan, s, ref, field, cellText(plan, s, ref, field, ''))).toEqual({ command: null });
  });

  test('every field that can be typed says what it is', () => {
    for (const field of [
      'name',
      'start',
      'finish',
      'days',
      'percent',
      'predecessors',
      'kind',
      'calendar',
      'responsible',
      'cost',
      'float',
      'off',
      'ref',
    ])
      expect([field, fieldAbout(field).length > 10]).toEqual([field, true]);
    expect([editorOf('start'), editorOf('float'), editorOf('code.zone')]).toEqual(['day', null, 'code']);
  });
});

describe('constraints, interrupted work and resources as typed', () => {
  const constraint = (ref: string, text: string) => {
    const made = after(ref, 'constraint', text);
    return made === null || typeof made === 'string' ? made : made.activities.find((a) => a.ref === ref)!.constraint;
  };
  test('constraints in words', () => {
    expect(constraint('A', 'starts not before 9 Mar 2026')).toEqual({
      kind: 'startNotEarlier',
      moment: at('2026-03-09'),
    });
    expect(constraint('A', 'not before 9 Mar')).toEqual({ kind: 'startNotEarlier', moment: at('2026-03-09') });
    expect(constraint('A', 'by 9 March 2026')).toEqual({ kind: 'finishNotLater', moment: end('2026-03-09') });
    expect(constraint('A', 'finishes on 9.3.2026')).toEqual({ kind: 'fixedFinish', moment: end('2026-03-09') });
    expect(constraint('A', '9 Mar 2026')).toEqual({ kind: 'fixedStart', moment: at('2026-03-09') });
    expect(constraint('M', 'on 9 Mar 2026')).toEqual({ kind: 'fixedFinish', moment: end('2026-03-09') });
    expect(constraint('A', 'As late as possible')).toEqual({ kind: 'asLateAsPossible', moment: null });
    expect(constraint('A', 'whenever')).toMatch(/no constraint/);
    expect(constraint('A', '')).toBeNull();
  });

  test('stretches are typed, or a pause in what there is', () => {
    const typed = after('A', 'stretches', '2 Mar to 3 Mar; 9 Mar to 11 Mar') as Plan;
    expect(typed.activities[1]).toMatchObject({
      stretches: [
        { start: at('2026-03-02'), finish: end('2026-03-03') },
        { start: at('2026-03-09'), finish: end('2026-03-11') },
      ],
      finish: end('2026-03-11'),
      duration: 5 * 480,
    });
    const halted = after('A', 'stretches', 'pause 4 Mar to 5 Mar') as Plan;
    expect(halted.activities[1]).toMatchObject({ duration: 2400, finish: end('2026-03-10') });
    expect(after('A', 'stretches', '2 Mar to 5 Mar; 4 Mar to 9 Mar')).toMatch(/over each other/);
    expect(after('A', 'stretches', 'now and then')).toMatch(/no stretch of days/);
  });

  test('who works on it: hours, days, the whole length', () => {
    const staffed: Plan = {
      ...plan,
      resources: ['Crane', 'Crane crew'].map((name) => ({
        id: name,
        name,
        unit: 'hour',
        rate: null,
        limit: null,
        calendar: null,
      })),
    };
    const made = after('A', 'resources', 'Crane crew 40 h, crane', staffed) as Plan;
    expect(made.activities[1]!.assignments).toEqual([
      { resource: 'Crane crew', effort: 2400 },
      { resource: 'Crane', effort: 2400 },
    ]);
    expect(cellText(made, schedulePlan(made), 'A', 'resources', '')).toBe('Crane crew 40 h, Crane 40 h');
    expect((after('A', 'resources', 'Crane 2 days', staffed) as Plan).activities[1]!.assignments).toEqual([
      { resource: 'Crane', effort: 960 },
    ]);
    expect(after('A', 'resources', 'Barge 3 h', staffed)).toMatch(/no resource “Barge 3 h”/);
    expect(after('A', 'resources', 'Crane lots', staffed)).toMatch(/no effort/);
  });
});

test('a length is said back in working minutes of its calendar while it is typed', () => {
  const s = schedulePlan(plan);
  expect(lengthTyped(plan, s, 'A', '2 weeks')).toBe(4800);
  expect(lengthTyped(plan, s, 'A', '16 h')).toBe(960);
  expect(lengthTyped(plan, s, 'A', 'soon')).toBeNull();
});
