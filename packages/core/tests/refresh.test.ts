import { describe, expect, test } from '@jest/globals';
import {
  acceptSourceChanges,
  type Activity,
  alikePairs,
  compareEditions,
  endOfDay,
  FIVE_DAY,
  isSame,
  makeActivity,
  makeLink,
  makeField,
  makeValue,
  makePlan,
  type Plan,
  sourceChanges,
  startOfDay,
} from '../src/index';
import { seeded } from './helpers';

const day = (iso: string) => Date.parse(iso) / 86_400_000;
const plan = (activities: Activity[], more: Partial<Plan> = {}): Plan =>
  makePlan({ name: 'x', calendars: [FIVE_DAY], calendar: FIVE_DAY.id, activities, ...more });
const act = (ref: string, start: string, finish: string, more: Partial<Activity> = {}): Activity =>
  makeActivity({ ref, name: ref, start: startOfDay(day(start)), finish: endOfDay(day(finish)), ...more });
const kinds = (base: Plan, incoming: Plan, current = base) =>
  sourceChanges(base, incoming, current).map((c) => [c.kind, c.ref]);

const dig = act('dig', '2026-03-02', '2026-03-06');
const pour = act('pour', '2026-03-09', '2026-03-13');

describe('what has changed at the source', () => {
  test('nothing, when it says the same', () => {
    expect(sourceChanges(plan([dig, pour]), plan([dig, pour]), plan([dig, pour]))).toEqual([]);
  });

  test('moved by working days: from Friday to the next Tuesday are two', () => {
    const [change] = sourceChanges(plan([dig]), plan([{ ...dig, finish: endOfDay(day('2026-03-10')) }]), plan([dig]));
    expect(change).toMatchObject({ kind: 'moved', startDays: 0, finishDays: 2 });
    const [back] = sourceChanges(plan([dig]), plan([act('dig', '2026-02-27', '2026-03-05')]), plan([dig]));
    expect(back).toMatchObject({ startDays: -1, finishDays: -1 });
  });

  test('one activity may have changed in several ways, each to be decided by itself', () => {
    const next = { ...dig, name: 'Dig deeper', percent: 40, codes: { zone: 'N' }, finish: endOfDay(day('2026-03-09')) };
    expect(kinds(plan([dig]), plan([next]))).toEqual(
      expect.arrayContaining([
        ['renamed', 'dig'],
        ['moved', 'dig'],
        ['progressed', 'dig'],
        ['recoded', 'dig'],
      ]),
    );
  });

  test('what a person changed here stays unless the source changes it too; then it is said', () => {
    const here = { ...dig, name: 'Dig, our words', notes: 'ours' };
    expect(sourceChanges(plan([dig]), plan([dig]), plan([here]))).toEqual([]);
    const [change] = sourceChanges(plan([dig]), plan([{ ...dig, name: 'Dig, theirs' }]), plan([here]));
    expect(change).toMatchObject({
      kind: 'renamed',
      byHand: ['name'],
      fields: [{ from: 'Dig, our words', to: 'Dig, theirs' }],
    });
  });

  test('what is so here already is no change, and what was taken out here does not come back', () => {
    const next = { ...dig, name: 'New name' };
    expect(sourceChanges(plan([dig]), plan([next]), plan([next]))).toEqual([]);
    expect(sourceChanges(plan([dig, pour]), plan([dig, { ...pour, name: 'x' }]), plan([dig]))).toEqual([]);
  });

  test('what was refused is not asked again while the source says the same', () => {
    const second = plan([{ ...dig, name: 'Dig 2' }]);
    expect(kinds(plan([dig]), second)).toEqual([['renamed', 'dig']]);
    // Refused: the plan stays, and the source was read with the new name.
    expect(kinds(second, second, plan([dig]))).toEqual([]);
    expect(kinds(second, plan([{ ...dig, name: 'Dig 3' }]), plan([dig]))).toEqual([['renamed', 'dig']]);
  });

  test('code fields of the person’s own stay when the source recodes others', () => {
    const base = plan([{ ...dig, codes: { zone: 'N' } }]);
    const here = plan([{ ...dig, codes: { zone: 'N', mine: 'kept' } }]);
    const incoming = plan([{ ...dig, codes: { zone: 'S' } }]);
    const after = acceptSourceChanges(here, incoming, sourceChanges(base, incoming, here));
    expect(after.activities[0]!.codes).toEqual({ zone: 'S', mine: 'kept' });
  });

  test('links are told by the activity that they lead to', () => {
    const [before, after] = [
      plan([dig, pour], { links: [makeLink({ from: 'dig', to: 'pour' })] }),
      plan([dig, pour], { links: [makeLink({ from: 'dig', to: 'pour', type: 'SS', lag: 480 })] }),
    ];
    const [change] = sourceChanges(before, after, before);
    expect(change).toMatchObject({
      kind: 'relinked',
      ref: 'pour',
      linksAdded: [{ type: 'SS' }],
      linksRemoved: [{ type: 'FS' }],
    });
    expect(acceptSourceChanges(before, after, [change!]).links).toEqual(after.links);
  });
});

describe('what is accepted', () => {
  test('a new activity stands where it stands at the source; of what goes, what it held goes up', () => {
    const group = makeActivity({ ref: 'group', name: 'Group', kind: 'summary' });
    const base = plan([group, { ...dig, parent: 'group' }, pour]);
    const incoming = plan([{ ...dig, parent: null }, act('shore', '2026-03-04', '2026-03-05'), pour]);
    const after = acceptSourceChanges(base, incoming, sourceChanges(base, incoming, base));
    expect(after.activities.map((a) => [a.ref, a.parent])).toEqual([
      ['dig', null],
      ['shore', null],
      ['pour', null],
    ]);
  });

  test('books get the values that are new, and keep titles and colours', () => {
    const value = makeValue({ code: 'N', title: 'North', colour: '#123456' });
    const base = plan([{ ...dig, codes: { zone: 'N' } }], {
      codeFields: [makeField({ id: 'zone', name: 'Zone', values: [value] })],
    });
    const incoming = plan([{ ...dig, codes: { zone: 'West' } }], {
      codeFields: [makeField({ id: 'zone', name: 'Zone', values: [makeValue({ code: 'West' })] })],
    });
    const after = acceptSourceChanges(base, incoming, sourceChanges(base, incoming, base));
    expect(after.codeFields[0]!.values.map((v) => [v.code, v.title, v.colour])).toEqual([
      ['N', 'North', '#123456'],
      ['West', 'West', null],
    ]);
  });

  // Comparing A with B and then applying the result to A gives B.
  test.each([1, 2, 3, 4, 5, 6, 7, 8])('all of it, applied to what was, is what is (seed %i)', (seed) => {
    const random = seeded(seed);
    const whole = (n: number) => Math.floor(random() * n);
    const any = (): Activity[] =>
      Array.from({ length: 40 }, (_, k) => k)
        .filter(() => random() < 0.8)
        .map((k) => {
          const from = day('2026-03-02') + whole(200);
          return makeActivity({
            ref: `A${k}`,
            name: `Work ${whole(3)}`,
            start: startOfDay(from),
            finish: endOfDay(from + whole(20)),
            percent: random() < 0.3 ? whole(100) : null,
            codes: random() < 0.5 ? { zone: 'NSEW'[whole(4)]! } : {},
          });
        });
    const linked = (activities: Activity[]): Plan => {
      const refs = activities.map((a) => a.ref);
      const pairs = new Set(Array.from({ length: 30 }, () => `${whole(refs.length)} ${whole(refs.length)}`));
      const links = [...pairs].map((p) => p.split(' ').map(Number)).filter(([a, b]) => a! < b!);
      return plan(activities, { links: links.map(([a, b]) => makeLink({ from: refs[a!]!, to: refs[b!]! })) });
    };
    const [base, incoming] = [linked(any()), linked(any())];
    const after = acceptSourceChanges(base, incoming, sourceChanges(base, incoming, base));
    const order = (p: Plan): Plan => ({
      ...p,
      codeFields: [],
      activities: [...p.activities].sort((a, b) => a.ref.localeCompare(b.ref)),
      links: [...p.links].sort((a, b) => `${a.from} ${a.to}`.localeCompare(`${b.from} ${b.to}`)),
    });
    expect(isSame(compareEditions(order(after), order(incoming)))).toBe(true);
    // Refusing everything leaves the plan as it is.
    expect(isSame(compareEditions(acceptSourceChanges(base, incoming, []), base))).toBe(true);
  });
});

describe('rows that have another reference and look the same', () => {
  test('by name under the same summary, else by name, else by dates and codes', () => {
    const base = plan([dig, { ...pour, name: 'Pour slab' }]);
    const incoming = plan([dig, { ...act('B7', '2026-04-01', '2026-04-03'), name: 'pour  slab' }]);
    expect(alikePairs(base, incoming)).toEqual([{ was: 'pour', is: 'B7', wasName: 'Pour slab', name: 'pour  slab' }]);
    const renamed = plan([dig, { ...pour, ref: 'B7', name: 'Concrete' }]);
    expect(alikePairs(base, renamed)).toEqual([{ was: 'pour', is: 'B7', wasName: 'Pour slab', name: 'Concrete' }]);
  });

  test('nothing is guessed where two could be meant', () => {
    const base = plan([
      act('a', '2026-03-02', '2026-03-03', { name: 'Test' }),
      act('b', '2026-03-04', '2026-03-05', { name: 'Test' }),
    ]);
    const incoming = plan([act('c', '2026-04-02', '2026-04-03', { name: 'Test' })]);
    expect(alikePairs(base, incoming)).toEqual([]);
  });
});
