import { describe, expect, test } from '@jest/globals';
import {
  endOfDay,
  FIVE_DAY,
  makeActivity,
  makeLink,
  makePlan,
  type Plan,
  parseIsoDate,
  type SourceChange,
  sourceChanges,
  startOfDay,
} from '@clembo/core';
import { changeWords, movedWords } from '@/features/gather/changes/changesList';
import { KINDS } from '@/ui/changeKinds';

/** What a changes list says, read as the person reads it who decides by it. */

const day = (iso: string) => parseIsoDate(iso)!;
const from = (iso: string) => startOfDay(day(iso));
const to = (iso: string) => endOfDay(day(iso));
const base = () =>
  makePlan({
    name: 'Quay',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities: [
      makeActivity({ ref: 'A', name: 'Piles', start: from('2026-03-02'), finish: to('2026-03-06'), duration: 5 * 480 }),
      makeActivity({ ref: 'B', name: 'Slab', start: from('2026-03-09'), finish: to('2026-03-13'), duration: 5 * 480 }),
    ],
    links: [makeLink({ from: 'A', to: 'B' })],
  });
const changed = (part: object): Plan => {
  const plan = base();
  return { ...plan, activities: plan.activities.map((a) => (a.ref === 'B' ? { ...a, ...part } : a)) };
};
const changesTo = (plan: Plan): SourceChange[] => sourceChanges(base(), plan, base());
const words = (plan: Plan, kind: SourceChange['kind']): string => {
  const found = changesTo(plan).filter((c) => c.kind === kind);
  expect(found).toHaveLength(1);
  return changeWords(found[0]!, { ...plan, inHours: false });
};

describe('a changes list says', () => {
  test('what a date was and is, and by how many working days it moved', () => {
    const plan = changed({ start: from('2026-03-16'), finish: to('2026-03-20') });
    expect(words(plan, 'moved')).toBe('start 9 Mar 26 → 16 Mar 26 · finish 13 Mar 26 → 20 Mar 26');
    expect(changesTo(plan).map(movedWords)).toEqual(['5 working days later']);
    const sooner = changed({ start: from('2026-03-06'), finish: to('2026-03-12') });
    expect(changesTo(sooner).map(movedWords)).toEqual(['1 working day earlier']);
  });

  test('that only the start moved, where the finish stands', () => {
    const plan = changed({ start: from('2026-03-11') });
    expect(changesTo(plan).map(movedWords)).toContain('starts 2 working days later');
  });

  test('one working day as one, also where it is one only when rounded', () => {
    const [change] = changesTo(changed({ finish: to('2026-03-16') }));
    expect(movedWords({ ...change!, finishDays: 0.96 })).toBe('1 working day later');
    expect(movedWords({ ...change!, finishDays: -1.04 })).toBe('1 working day earlier');
    expect(movedWords({ ...change!, finishDays: 0.01, startDays: 0 })).toBe('');
  });

  test('how long a lag is, so that one that changed is seen to', () => {
    const plan = base();
    const lagged = { ...plan, links: [makeLink({ from: 'A', to: 'B', lag: 3 * 480 })] };
    expect(words(lagged, 'relinked')).toBe('now after A FS, lag 3 working days · no more after A FS');
    const lead = { ...plan, links: [makeLink({ from: 'A', to: 'B', lag: -1440, lagCalendar: 'elapsed' })] };
    expect(words(lead, 'relinked')).toBe('now after A FS, lead 1 elapsed day · no more after A FS');
  });

  test('a constraint with its date', () => {
    const plan = changed({ constraint: { kind: 'startNotEarlier', moment: from('2026-03-16') } });
    expect(words(plan, 'other')).toBe('constraint nothing → starts not before 16 Mar 26');
  });

  test('lengths, effort, money, shares, places and people in their units', () => {
    expect(words(changed({ duration: 8 * 480 }), 'resized')).toContain('length 5 working days → 8 working days');
    const said = words(
      changed({ effort: 1000, cost: 1_234_500, from: -1500, responsible: ['Marsh & Daughters'] }),
      'other',
    );
    expect(said).toContain('effort nothing → 16.7 h');
    expect(said).toContain('cost nothing → 12,345');
    expect(said).toContain('from place nothing → -1.5');
    expect(said).toContain('responsible nobody → Marsh & Daughters');
    expect(words(changed({ onHold: true }), 'progressed')).toBe('on hold no → yes');
    expect(words(changed({ percent: 33.333 }), 'progressed')).toMatch(/complete .* → 33.3 %/);
  });

  test('codes by the name of their field', () => {
    const plan = changed({ codes: { zone: 'N' } });
    const named = { ...plan, inHours: false, codeFields: [{ id: 'zone', name: 'Area' }] };
    const [change] = changesTo(plan).filter((c) => c.kind === 'recoded');
    expect(changeWords(change!, named)).toBe('Area nothing → N');
  });

  test('what came and went with its dates, or that it has none', () => {
    const plan = base();
    const more = {
      ...plan,
      activities: [
        ...plan.activities,
        makeActivity({ ref: 'C', name: 'Open', kind: 'finishMilestone', finish: to('2026-03-20') }),
      ],
    };
    expect(words(more, 'added')).toBe('milestone, 20 Mar 26');
    const less = { ...plan, activities: plan.activities.slice(0, 1), links: [] };
    expect(words(less, 'removed')).toBe('activity, 9 Mar 26 to 13 Mar 26');
    const bare = { ...plan, activities: [...plan.activities, makeActivity({ ref: 'D', name: 'Paint' })] };
    expect(words(bare, 'added')).toBe('activity, without dates');
  });

  test('no raw word of the program for any field, whatever changed', () => {
    const parts: object[] = [
      { name: 'Slab, south' },
      { kind: 'levelOfEffort' },
      { deadline: to('2026-04-01') },
      { notes: 'Mind the tide.' },
      { said: { start: 'Q2', finish: null } },
      { quantity: 12, output: 3, rate: 5, crews: 2 },
      { remaining: 960 },
      { actualEffort: 60, actualCost: 100 },
      { constraint: { kind: 'asLateAsPossible', moment: null } },
    ];
    for (const part of parts)
      for (const c of changesTo(changed(part)))
        expect(changeWords(c, { ...changed(part), inHours: false })).not.toMatch(
          /[a-z][A-Z]|undefined|null|NaN|object/,
        );
  });

  test('every kind of change has a heading', () => {
    expect(new Set(KINDS.map(([kind]) => kind)).size).toBe(KINDS.length);
    const kinds = new Set(
      [
        changed({
          start: from('2026-03-16'),
          finish: to('2026-03-20'),
          name: 'x',
          percent: 5,
          notes: 'y',
          codes: { a: '1' },
        }),
        { ...base(), activities: [], links: [] },
      ].flatMap((p) => changesTo(p).map((c) => c.kind)),
    );
    for (const kind of kinds) expect(KINDS.map(([k]) => k)).toContain(kind);
  });
});
