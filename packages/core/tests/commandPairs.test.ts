import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  type Activity,
  applyCommand,
  collide,
  Command,
  CommandRefused,
  EFFECTS,
  FIVE_DAY,
  makeActivity,
  makeField,
  makeLink,
  makePlan,
  type Plan,
  planFault,
  SIX_DAY,
} from '../src/index';

/** Random plans and commands of all kinds over few names, so that they meet often. */
const REFS = ['A', 'B', 'C', 'D', 'E', 'A.start', '1', '1.codes'];
const FIELDS = ['phase', 'trade', 'zone'];
const CALENDARS = [FIVE_DAY, SIX_DAY];
const ELEMENTS = ['m/1', 'm/2', 'm/3'];
const PICTURES = ['p1', 'p2', 'p3'];

const resource = (id: string) => ({ id, name: id, unit: 'hour', rate: null, limit: null, calendar: null });
const picture = (id: string, name: string) => ({ id, name, data: 'data:image/png;base64,AAAA', width: 1, height: 1 });

const aRef = fc.constantFrom(...REFS);
const aField = fc.constantFrom(...FIELDS);
const aCode = fc.constantFrom('x', 'y');
const someElements = fc.subarray(ELEMENTS, { minLength: 1 });
const aMatch = fc.record({ activity: aRef, effect: fc.constantFrom(...EFFECTS), elements: someElements });
const aLink = fc
  .record({ from: aRef, to: aRef, type: fc.constantFrom('FS' as const, 'SS' as const) })
  .map((l) => makeLink(l));
const named = {
  name: fc.constantFrom('one', 'two'),
  parent: fc.option(aRef),
  calendar: fc.option(fc.constantFrom(...CALENDARS.map((c) => c.id))),
  codes: fc.dictionary(aField, aCode, { maxKeys: 2 }),
  assignments: fc.subarray(['crew', 'rig']).map((ids) => ids.map((r) => ({ resource: r, effort: 60 }))),
  percent: fc.option(fc.constantFrom(0, 50)),
};
const aBook = fc.record({ id: aField, name: aCode }).map((f) => makeField(f));
const before = <T>(one: fc.Arbitrary<T>) => fc.option(one);
const placed = <T>(one: fc.Arbitrary<T>) => fc.oneof(before(one), fc.constant(undefined));

const single: fc.Arbitrary<Command> = fc.oneof(
  fc.record({
    do: fc.constant('setPlan' as const),
    settings: fc.oneof(
      fc.record({ name: fc.constantFrom('P', 'Q') }),
      fc.record({ statusDate: fc.constantFrom(null, 20_000 * 1440) }),
      fc.record({ calendars: fc.subarray(CALENDARS, { minLength: 1 }) }),
      fc.record({ calendar: fc.constantFrom(...CALENDARS.map((c) => c.id)) }),
      fc.record({ resources: fc.subarray(['crew', 'rig']).map((ids) => ids.map(resource)) }),
    ),
  }),
  {
    arbitrary: fc.record({
      do: fc.constant('changeActivity' as const),
      ref: aRef,
      part: fc.record(named, { requiredKeys: [] }),
    }),
    weight: 4,
  },
  fc.record({
    do: fc.constant('addActivity' as const),
    activity: fc.record({ ref: aRef, ...named }).map((a) => makeActivity(a as Partial<Activity> & { ref: string })),
    before: before(aRef),
  }),
  { arbitrary: fc.record({ do: fc.constant('removeActivity' as const), ref: aRef }), weight: 2 },
  fc.record({ do: fc.constant('moveActivity' as const), ref: aRef, before: before(aRef) }),
  fc.record(
    { do: fc.constantFrom('addLink' as const, 'removeLink' as const), link: aLink, at: fc.nat(3) },
    { requiredKeys: ['do', 'link'] },
  ),
  fc.record({ do: fc.constant('setCodeField' as const), field: aBook, before: placed(aField) }),
  fc.record({ do: fc.constant('removeCodeField' as const), id: aField }),
  fc.record({
    do: fc.constantFrom('setPicture' as const),
    picture: fc.record({ id: fc.constantFrom(...PICTURES), name: aCode }).map((p) => picture(p.id, p.name)),
    before: placed(fc.constantFrom(...PICTURES)),
  }),
  fc.record({ do: fc.constant('removePicture' as const), id: fc.constantFrom(...PICTURES) }),
  fc.record({ do: fc.constantFrom('matchElements' as const, 'unmatchElements' as const), match: aMatch }),
  fc.record({
    do: fc.constant('codeElements' as const),
    field: aField,
    codes: fc.array(fc.tuple(fc.constantFrom(...ELEMENTS), fc.constantFrom('x', 'y', '')), { maxLength: 3 }),
  }),
  fc.record({
    do: fc.constant('recode' as const),
    field: aField,
    codes: fc.array(fc.tuple(aRef, fc.constantFrom('x', 'y', '')), { maxLength: 3 }),
  }),
);
const command: fc.Arbitrary<Command> = fc.oneof(
  { arbitrary: single, weight: 5 },
  fc.record({ do: fc.constant('all' as const), commands: fc.array(single, { maxLength: 3 }) }),
);

const EMPTY = makePlan({
  name: 'Pairs',
  calendars: CALENDARS,
  calendar: FIVE_DAY.id,
  codeFields: FIELDS.map((id) => makeField({ id, name: id })),
  resources: ['crew', 'rig'].map(resource),
  pictures: PICTURES.slice(0, 2).map((id) => picture(id, id)),
  activities: REFS.slice(0, 6).map((ref, i) => makeActivity({ ref, parent: i > 2 ? REFS[i - 3]! : null })),
  links: [makeLink({ from: 'A', to: 'B' }), makeLink({ from: 'B', to: 'C' }), makeLink({ from: 'A', to: 'B' })],
  matches: [{ activity: 'A', effect: 'builds', elements: ['m/1', 'm/2'] }],
});

/** `npm run fuzz` tries more. */
const PAIRS = process.env.CLEMBO_FUZZ ? 100_000 : 20_000;

const tried = (plan: Plan, one: Command): Plan | null => {
  try {
    return applyCommand(plan, one).plan;
  } catch (error) {
    if (error instanceof CommandRefused) return null;
    throw error;
  }
};

/** Plans that some commands made, each that fits. */
const plan = fc.constantFrom(
  ...fc
    .sample(fc.array(single, { maxLength: 8 }), { numRuns: 500, seed: 3 })
    .map((commands) => commands.reduce((now: Plan, one) => tried(now, one) ?? now, EMPTY)),
);

/** A plan as text, the names of objects in one order: JSON gives them none. */
const written = (value: unknown): string =>
  JSON.stringify(value, (_, x: unknown) =>
    x && typeof x === 'object' && !Array.isArray(x)
      ? Object.fromEntries(Object.entries(x).sort(([a], [b]) => (a < b ? -1 : 1)))
      : x,
  );
/** As {@link written}, without the places of what was put somewhere: two who put something in one place may be first. */
const withoutPlaces = (p: Plan): string =>
  written({
    ...p,
    activities: [...p.activities].sort((x, y) => (x.ref < y.ref ? -1 : 1)),
    links: p.links.map(written).sort(),
    codeFields: [...p.codeFields].sort((x, y) => (x.id < y.id ? -1 : 1)),
    pictures: [...p.pictures].sort((x, y) => (x.id < y.id ? -1 : 1)),
  });
const puts = (c: Command): boolean =>
  c.do === 'all' ? c.commands.some(puts) : /^(?:add|move|set|remove)/.test(c.do) && c.do !== 'setPlan';

describe('commands of all kinds, at random', () => {
  test('what they make is valid, the plan before is left alone, and the inverse gives it again to the byte', () => {
    let applied = 0;
    const kinds = new Set<string>();
    fc.assert(
      fc.property(plan, command, (before, one) => {
        const was = written(before);
        if (!tried(before, one)) return;
        const { plan: after, inverse } = applyCommand(before, one);
        applied++;
        for (const c of one.do === 'all' ? one.commands : [one]) kinds.add(c.do);
        expect(planFault(after)).toBeNull();
        expect(written(before)).toBe(was);
        expect(Command.safeParse(inverse).success).toBe(true);
        expect(written(applyCommand(after, inverse).plan)).toBe(was);
      }),
      { numRuns: 20_000, seed: 7 },
    );
    expect(applied).toBeGreaterThan(8000);
    expect(kinds.size).toBe(15);
  });

  test(`${PAIRS} pairs: both orders give the same valid plan, or the pair is refused`, () => {
    const counts = { collided: 0, refused: 0, same: 0 };
    fc.assert(
      fc.property(plan, command, command, (now, a, b) => {
        const [afterA, afterB] = [tried(now, a), tried(now, b)];
        if (!afterA || !afterB) return;
        expect(collide(a, b)).toBe(collide(b, a));
        if (collide(a, b)) {
          counts.collided++;
          return;
        }
        const [ab, ba] = [tried(afterA, b), tried(afterB, a)];
        if (!ab || !ba) {
          // Refused in one order is refused in the other: what they make together does not hold.
          expect([a, b, ab === null, ba === null]).toEqual([a, b, true, true]);
          counts.refused++;
          return;
        }
        counts.same++;
        expect(planFault(ab)).toBeNull();
        expect(withoutPlaces(ab)).toBe(withoutPlaces(ba));
        if (!puts(a) || !puts(b)) expect(written(ab)).toBe(written(ba));
      }),
      { numRuns: PAIRS, seed: 11 },
    );
    expect(counts.same).toBeGreaterThan(PAIRS / 5);
    expect(counts.collided).toBeGreaterThan(PAIRS / 50);
    expect(counts.refused).toBeGreaterThan(PAIRS / 2000);
  });
});
