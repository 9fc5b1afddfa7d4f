import { describe, expect, test } from '@jest/globals';
import {
  type Activity,
  applyCommand,
  type Command,
  FIVE_DAY,
  isoDate,
  makeActivity,
  makeLink,
  makePlan,
  parseIsoDate,
  type Plan,
  schedulePlan,
  shownDays,
  statusEnd,
} from '@clembo/core';
import { everything } from '@/features/measure/everything';
import { aboutOf } from '@/workers/answers/about';
import { checksOf } from '@/workers/answers/checks';
import { consequencesOf } from '@/workers/answers/consequences';
import { factsOf } from '@/workers/answers/facts';
import { addedRows, cellReader, dayMeant, lengthMeant, typedCells } from '@/workers/answers/ledger';
import { type Measuring, rowsBehind, standingShown } from '@/workers/answers/measure';
import { neighboursOf } from '@/workers/answers/neighbours';
import { day, end } from '../../../packages/core/tests/helpers';

// What the rooms of a plan say of a slipway, worked out by hand on a week of five days. The status date is Friday
// 13 Mar 2026. Digging is done; six of ten promised days of pouring are to go, from Monday the 16th to Monday the
// 23rd; curing is stated; the opening is fixed on Tuesday 31 March.
const promise = (start: string, finish: string) => ({ start: day(start), finish: end(finish) });
const rows: Activity[] = [
  makeActivity({
    ref: 'A',
    name: 'Dig',
    actualStart: day('2026-03-02'),
    actualFinish: end('2026-03-06'),
    percent: 100,
  }),
  makeActivity({
    ref: 'B',
    name: 'Pour',
    actualStart: day('2026-03-09'),
    percent: 40,
    promised: promise('2026-03-09', '2026-03-20'),
  }),
  makeActivity({ ref: 'C', name: 'Cure', start: day('2026-03-24'), finish: end('2026-03-30') }),
  makeActivity({
    ref: 'M',
    name: 'Open',
    kind: 'finishMilestone',
    duration: 0,
    finish: end('2026-03-31'),
    constraint: { kind: 'fixedFinish', moment: end('2026-03-31') },
  }),
];
const planOf = (activities: Activity[] = rows, more: Partial<Plan> = {}): Plan =>
  makePlan({
    name: 'Slipway',
    source: 'given',
    statusDate: day('2026-03-13'),
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities,
    links: ['AB', 'BC', 'CM'].map((p) => makeLink({ from: p[0]!, to: p[1]! })),
    ...more,
  });
const then = planOf(
  [
    makeActivity({ ref: 'A', name: 'Dig', ...promise('2026-03-02', '2026-03-06') }),
    makeActivity({ ref: 'B', name: 'Pour', ...promise('2026-03-09', '2026-03-20') }),
    makeActivity({ ref: 'C', name: 'Cure', ...promise('2026-03-23', '2026-03-27') }),
    makeActivity({ ref: 'M', name: 'Open', kind: 'finishMilestone', duration: 0, finish: end('2026-03-31') }),
  ],
  { statusDate: null, links: [] },
);
const promised = { id: 'then', name: 'Contract', plan: then, schedule: schedulePlan(then) };
const hold = (plan: Plan) => ({ plan, schedule: schedulePlan(plan), promised });
const held = hold(planOf());
const withRow = (ref: string, part: Partial<Activity>, more: Partial<Plan> = {}) =>
  hold(
    planOf(
      rows.map((a) => (a.ref === ref ? { ...a, ...part } : a)),
      more,
    ),
  );
const at = (of: typeof held, ref: string) => of.schedule.outline.indexOf.get(ref)!;
const cells = (of: typeof held, ref: string, ...fields: string[]) => fields.map((f) => cellReader(of, f)(at(of, ref)));
const shown = (plan: Plan, ref: string) => {
  const s = schedulePlan(plan);
  const days = shownDays(s, s.outline.indexOf.get(ref)!);
  return days && [isoDate(days.first), isoDate(days.last)];
};

describe('dates and where they come from', () => {
  const facts = (of: typeof held, ref: string) =>
    Object.fromEntries(factsOf(of, ref, { sources: [], rows: () => new Map() })!.rows);

  test('an end that was worked out says so, in the facts', () =>
    expect(facts(held, 'B')).toMatchObject({
      Start: 'Mon 9 Mar 2026',
      Finish: 'Mon 23 Mar 2026, expected',
      Length: '11 working days, 15 cal d',
    }));

  test('what happened and what is stated goes without saying', () => {
    expect(facts(held, 'A').Finish).toBe('Fri 6 Mar 2026');
    expect(facts(held, 'C')).toMatchObject({ Start: 'Tue 24 Mar 2026', Finish: 'Mon 30 Mar 2026' });
  });

  test('computed dates say so only where the others are drawn', () => {
    const mixed = withRow('C', { start: null, finish: null, duration: 5 * 480 });
    expect(facts(mixed, 'C')).toMatchObject({ Start: 'Tue 24 Mar 2026, computed' });
    const computed = withRow('C', { duration: 5 * 480 }, { source: 'computed', start: day('2026-03-02') });
    expect(facts(computed, 'C').Start).not.toContain('computed');
  });

  test('what is taken as promised says so', () => {
    const taken = withRow(
      'C',
      { start: null, finish: null, promised: promise('2026-03-23', '2026-03-27') },
      { asPromised: true, links: [] },
    );
    expect(facts(taken, 'C')).toMatchObject({ Finish: 'Fri 27 Mar 2026, as promised' });
  });

  test('an unknown end is told as that, and takes no length', () => {
    const open = withRow('B', { promised: null }, { links: [] });
    expect(facts(open, 'B')).toMatchObject({ Finish: 'not known' });
    expect(facts(open, 'B').Length).toBeUndefined();
    expect(cells(open, 'B', 'start', 'finish')).toEqual(['9 Mar 26', '']);
  });

  test('a float is said to what it is counted', () => {
    expect(facts(held, 'C').Float).toBe('1 working day');
    const loose = withRow('C', {}, { links: [] });
    // From Monday 30 March to Tuesday the 31st, where the plan ends.
    expect(facts(loose, 'C').Float).toBe('1 working day, to the end of the plan: nothing follows');
    expect(facts(loose, 'M').Float).toBe('0 working days, the last thing of the plan');
  });
});

describe('cells of the ledger', () => {
  test('tell the same days, lengths and lateness as the facts', () => {
    expect(cells(held, 'B', 'start', 'finish', 'days', 'late', 'promisedFinish')).toEqual([
      '9 Mar 26',
      '23 Mar 26',
      '11',
      '+1',
      '20 Mar 26',
    ]);
    expect(cells(held, 'C', 'days', 'calendarDays', 'late')).toEqual(['5', '7', '+1']);
    expect(cells(held, 'M', 'finish', 'late')).toEqual(['31 Mar 26', '0']);
  });

  const typed = (ref: string, field: string, text: string, of = held) => typedCells(of, [{ ref, field, text }]);
  const after = (ref: string, field: string, text: string, of = held): Plan => {
    const { command, wrong } = typed(ref, field, text, of);
    expect(wrong).toEqual([]);
    return applyCommand(of.plan, command!).plan;
  };

  test.each([
    // From Tuesday 24 March: seven calendar days end on Monday the 30th, seven working days on Wednesday 1 April.
    ['7 calendar days', '2026-03-30'],
    ['7 cal d', '2026-03-30'],
    ['7 ed', '2026-03-30'],
    ['7 elapsed days', '2026-03-30'],
    ['1 week', '2026-03-30'],
    ['7', '2026-04-01'],
    ['7 d', '2026-04-01'],
    ['7 working days', '2026-04-01'],
    ['2w', '2026-04-06'],
  ])('“%s” typed as the length of what starts on 24 March ends on %s', (text, finish) => {
    expect(shown(after('C', 'days', text, withRow('C', {}, { links: [] })), 'C')).toEqual(['2026-03-24', finish]);
  });

  test('what is typed is said beside the cell before it is kept', () => {
    expect(lengthMeant(held, 'C', '7 calendar days')).toBe('7 calendar days from Tue 24 Mar 2026: Mon 30 Mar 2026');
    expect(lengthMeant(held, 'C', '7')).toBe('7 working days from Tue 24 Mar 2026: Wed 1 Apr 2026, 9 calendar days');
    expect(lengthMeant(held, 'C', 'long')).toBe('');
    expect(dayMeant(held, 'C', '26 mar')).toMatchObject({ words: 'Thu 26 Mar 2026', day: parseIsoDate('2026-03-26') });
    expect(dayMeant(held, 'C', 'Thu 26.3.')).toMatchObject({ day: parseIsoDate('2026-03-26') });
    // A Friday it is only in the year after.
    expect(dayMeant(held, 'C', 'Fri 26.3.')).toMatchObject({ day: parseIsoDate('2027-03-26') });
  });

  test('a length of nothing makes a milestone, and making it an activity again gives its length back', () => {
    const point = after('C', 'days', '0');
    const kind = (p: Plan) => p.activities.find((a) => a.ref === 'C')!.kind;
    expect(kind(point)).toMatch(/Milestone$/);
    expect(new Set(shown(point, 'C'))).toHaveProperty('size', 1);
    const timed = withRow('C', { duration: 5 * 480, finish: null });
    const made = hold(after('C', 'kind', 'milestone', timed));
    expect(kind(made.plan)).toMatch(/Milestone$/);
    const back = after('C', 'kind', 'activity', made);
    expect(back.activities.find((a) => a.ref === 'C')!.duration).toBe(5 * 480);
  });

  test('what cannot be read is left as it is, and said with its reason', () => {
    const { command, wrong } = typed('C', 'finish', 'soon');
    expect(command).toBeNull();
    expect(wrong).toEqual([{ ref: 'C', field: 'finish', text: 'soon', why: expect.stringContaining('soon') }]);
  });

  test('rows that are pasted are added behind, with what can be read of them', () => {
    const { command, refs, wrong } = addedRows(
      held,
      'C',
      ['name', 'start', 'finish'],
      [
        ['Rails', '2 Apr 2026', '8 Apr 2026'],
        ['Winch', 'after Easter', ''],
      ],
    );
    const { plan } = applyCommand(held.plan, command!);
    expect(plan.activities.map((a) => a.name)).toEqual(['Dig', 'Pour', 'Cure', 'Rails', 'Winch', 'Open']);
    expect(shown(plan, refs[0]!)).toEqual(['2026-04-02', '2026-04-08']);
    expect(wrong.map((w) => [w.ref, w.text])).toEqual([[refs[1], 'after Easter']]);
  });
});

describe('a fixed date', () => {
  const late = withRow('C', { start: day('2026-03-26'), finish: end('2026-04-02') });

  test('says by how much what leads to it is too late, and the ways out', () => {
    const about = aboutOf(late, ['M'])!;
    expect(about.conflict!.words).toBe('What leads to it arrives 2 working days too late for its date.');
    expect(about.conflict!.ways.map((w) => w.words)).toEqual(['Let the date go', 'Hold it from this date on only']);
    // Curing ends on Thursday 2 April and would have to on Tuesday 31 March.
    expect(about.needed).toEqual([
      { ref: 'C', name: 'Cure', words: 'needed by Tue 31 Mar 2026, 2 working days too late', late: true },
    ]);
    expect(shown(late.plan, 'M')).toEqual(['2026-03-31', '2026-03-31']);
  });

  test('each way out resolves it', () => {
    for (const { words, command } of aboutOf(late, ['M'])!.conflict!.ways) {
      const plan = applyCommand(late.plan, command).plan;
      expect([words, aboutOf(hold(plan), ['M'])!.conflict]).toEqual([words, null]);
    }
  });

  test('where nothing is too late the last day is still told', () =>
    expect(aboutOf(held, ['M'])).toMatchObject({
      conflict: null,
      needed: [{ ref: 'C', words: 'needed by Tue 31 Mar 2026', late: false }],
    }));

  test('pushing says before it is done what it would do to it', () => {
    const push: Command = {
      do: 'changeActivity',
      ref: 'C',
      part: { start: day('2026-03-26'), finish: end('2026-04-02') },
    };
    const told = consequencesOf(held, push, ['C', 'M']);
    expect(told.words).toContain('Open has a fixed date: what leads to it is 2 working days too late');
    expect(told.bad).toBe(true);
    expect(told.bars.M).toMatchObject({ first: parseIsoDate('2026-03-31'), last: parseIsoDate('2026-03-31') });
    expect(told.bars.C!.needed).toBe(parseIsoDate('2026-03-31'));
  });

  test('and the checks find it', () => {
    const found = checksOf(late, null).findings.find((f) => f.code === 'fixedDateConflict')!;
    expect(found.words.join('')).toMatch(/2 working days/);
    expect(checksOf(held, null).findings.map((f) => f.code)).not.toContain('fixedDateConflict');
  });

  test('among the neighbours the link is broken by as much', () => {
    const [before] = neighboursOf(late, 'M', () => null).before;
    expect(before!.slack).toMatch(/2 d/);
  });
});

describe('the standing', () => {
  const all = everything(null);
  const standing = (of: typeof held, part: Partial<Measuring> = {}) =>
    standingShown(of, promised, { ...all, ...part }, statusEnd(of.plan)!, 'en-GB');

  test('says how the end stands', () =>
    expect(standing(held).finish).toMatchObject({ words: 'On time', about: 'finish 31 Mar 26, promised 31 Mar 26' }));

  test('of what is chosen, against the promise of the same', () => {
    const { finish, whole, listed } = standing(held, { refs: ['B'] });
    expect(finish).toMatchObject({ words: '1 day late', about: 'expected finish 23 Mar 26, promised 20 Mar 26' });
    expect([listed, whole!.finish!.words]).toEqual([1, 'On time']);
  });

  test('says nothing of an end that is not known', () => {
    const open = withRow('C', { start: null, finish: null }, { links: [] });
    expect(standing(open).finish).toEqual({
      words: 'Known to 31 Mar 26',
      about: '1 of 4 have no dates; promised 31 Mar 26',
      band: null,
    });
    // What is known of two works is half done; the third is told beside it, not in it.
    const nothing = withRow('C', { start: null, finish: null }, { links: [] });
    expect(standing(nothing).percent.unknown).toBe(1);
    // Nor of how long it takes.
    const lines = Object.fromEntries(standing(open).snapshot.map((l) => [l.name, [l.toGo, l.off]]));
    expect([lines['Finish'], lines['Working days']]).toEqual([
      ['–', '–'],
      ['–', '–'],
    ]);
  });

  test('what is done by time is what the ledger says; done is one of four rows, in progress one', () => {
    const { percent, counts } = standing(held);
    // Five days of Dig and five of Pour are done, of five, eleven and five.
    expect(Math.round(percent.time!)).toBe(Math.round((100 * (5 + 5)) / 21));
    expect(counts).toMatchObject({ complete: 1, inProgress: 1, notStarted: 2 });
  });

  test('the rows behind a figure are those it counts', () => {
    const behind = (what: 'slipped' | 'all') =>
      rowsBehind(held, promised, all, statusEnd(held.plan)!, { what }).rows.map((r) => [r.ref, r.late]);
    expect(behind('slipped')).toEqual([
      ['B', 1],
      ['C', 1],
    ]);
    expect(behind('all').map(([ref]) => ref)).toEqual(['A', 'B', 'C', 'M']);
    expect(standing(held).slipped).toBe(2);
  });

  test('the status date is the end of its day: what was due on it was due', () => {
    const due = withRow('C', { start: day('2026-03-13'), finish: end('2026-03-13') }, { links: [] });
    expect(standing(due).counts.lateToStart).toBe(1);
    expect(standing(withRow('C', { start: day('2026-03-16'), finish: end('2026-03-16') })).counts.lateToStart).toBe(0);
  });
});
