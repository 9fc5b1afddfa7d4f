import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  collide,
  Command,
  CommandRefused,
  isSame,
  compareEditions,
  makeActivity,
  makeLink,
  type Plan,
} from '../src/index';
import { planOf, randomLinks, seeded } from './helpers';

/** A random command that fits the plan. */
function randomCommand(plan: Plan, random: () => number, fresh: string): Command {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const ref = pick(plan.activities).ref;
  switch (Math.floor(random() * 7)) {
    case 0:
      return { do: 'setPlan', settings: { name: `Plan ${fresh}`, statusDate: random() < 0.5 ? null : 20_000 * 1440 } };
    case 1:
      return { do: 'changeActivity', ref, part: { name: fresh, duration: Math.floor(random() * 9) * 480 } };
    case 2:
      return { do: 'addActivity', activity: makeActivity({ ref: fresh }), before: random() < 0.3 ? null : ref };
    case 3:
      return plan.activities.length > 3 ? { do: 'removeActivity', ref } : { do: 'setPlan', settings: {} };
    case 4:
      return { do: 'moveActivity', ref, before: random() < 0.3 ? null : pick(plan.activities).ref };
    case 5:
      return { do: 'addLink', link: makeLink({ from: ref, to: pick(plan.activities).ref }) };
    default:
      return plan.links.length > 0 ? { do: 'removeLink', link: pick(plan.links) } : { do: 'setPlan', settings: {} };
  }
}

describe('commands', () => {
  test('the inverse leads back, for 2,000 random commands one after the other', () => {
    const random = seeded(11);
    let plan = planOf(
      Array.from({ length: 12 }, (_, i) => [`N${i}`, 3]),
      randomLinks(random, 12, ['FS', 'SS'], [0, 3]),
    );
    plan.activities.forEach((a, i) => {
      a.parent = i > 2 ? `N${i % 3}` : null;
    });
    for (let k = 0; k < 2000; k++) {
      const command = randomCommand(plan, random, `X${k}`);
      const before = structuredClone(plan);
      const { plan: after, inverse } = applyCommand(plan, command);
      expect(plan).toEqual(before);
      const back = applyCommand(after, inverse).plan;
      expect([k, command.do, isSame(compareEditions(before, back))]).toEqual([k, command.do, true]);
      expect(back.activities.map((a) => a.ref)).toEqual(before.activities.map((a) => a.ref));
      plan = after;
    }
  });

  test('many changes in one pass are as one after the other, the last of several to one activity holds', () => {
    const plan = planOf(
      Array.from({ length: 30 }, (_, i) => [`N${i}`, 3]),
      [],
    );
    const random = seeded(3);
    const changes = Array.from({ length: 200 }, (_, k): Command => {
      const ref = `N${Math.floor(random() * 30)}`;
      return { do: 'changeActivity', ref, part: random() < 0.5 ? { name: `n${k}` } : { duration: k * 60 } };
    });
    const at = applyCommand(plan, { do: 'all', commands: changes });
    const one = changes.reduce((now, c) => applyCommand(now, c).plan, plan);
    expect(at.plan).toEqual(one);
    expect(applyCommand(at.plan, at.inverse).plan).toEqual(plan);
    const missing: Command[] = [...changes, { do: 'changeActivity', ref: 'X', part: {} }];
    expect(() => applyCommand(plan, { do: 'all', commands: missing })).toThrow(CommandRefused);
  });

  test('several at once are taken back at once', () => {
    const plan = planOf(
      [
        ['A', 1],
        ['B', 2],
      ],
      [['A', 'B']],
    );
    const {
      plan: after,
      inverse,
      touched,
    } = applyCommand(plan, {
      do: 'all',
      commands: [
        { do: 'changeActivity', ref: 'A', part: { name: 'First' } },
        { do: 'removeActivity', ref: 'B' },
      ],
    });
    expect([after.activities.length, after.links.length, touched.sort()]).toEqual([1, 0, ['A', 'B']]);
    expect(applyCommand(after, inverse).plan).toEqual(plan);
  });

  test('what does not fit is refused in words', () => {
    const plan = planOf([['A', 1]], []);
    expect(() => applyCommand(plan, { do: 'removeActivity', ref: 'Z' })).toThrow(CommandRefused);
    expect(() => applyCommand(plan, { do: 'removeActivity', ref: 'Z' })).toThrow('no activity Z');
    expect(() => applyCommand(plan, { do: 'addActivity', activity: makeActivity({ ref: 'A' }), before: null })).toThrow(
      'never used twice',
    );
    expect(() => applyCommand(plan, { do: 'removeLink', link: makeLink({ from: 'A', to: 'B' }) })).toThrow(
      'no such link A → B',
    );
    expect(Command.safeParse({ do: 'changeActivity', ref: 'A', part: { duration: -1 } }).success).toBe(false);
    expect(Command.safeParse({ do: 'changeActivity', ref: 'A', part: { duration: 480 } }).data).toEqual({
      do: 'changeActivity',
      ref: 'A',
      part: { duration: 480 },
    });
  });
});

describe('what two people do at once', () => {
  const part = (ref: string, field: object): Command => ({ do: 'changeActivity', ref, part: field });
  test.each<[string, Command, Command, boolean]>([
    ['two fields of one activity', part('A', { name: 'x' }), part('A', { duration: 480 }), false],
    ['one field', part('A', { name: 'x' }), part('A', { name: 'y' }), true],
    ['a field of what is removed', part('A', { name: 'x' }), { do: 'removeActivity', ref: 'A' }, true],
    [
      'a link of what is removed',
      { do: 'addLink', link: makeLink({ from: 'A', to: 'B' }) },
      { do: 'removeActivity', ref: 'B' },
      true,
    ],
    [
      'one link',
      { do: 'addLink', link: makeLink({ from: 'A', to: 'B' }) },
      { do: 'removeLink', link: makeLink({ from: 'A', to: 'B', type: 'SS' }) },
      true,
    ],
    [
      'codes of two activities',
      { do: 'recode', field: 'z', codes: [['A', 'x']] },
      { do: 'recode', field: 'z', codes: [['B', 'x']] },
      false,
    ],
    ['codes of one', { do: 'recode', field: 'z', codes: [['A', 'x']] }, part('A', { codes: {} }), true],
    [
      'two settings',
      { do: 'setPlan', settings: { name: 'x' } },
      { do: 'setPlan', settings: { statusDate: null } },
      false,
    ],
    [
      'several at once',
      { do: 'all', commands: [part('A', { name: 'x' }), part('B', { name: 'x' })] },
      part('B', { name: 'y' }),
      true,
    ],
    [
      'the place of one, and what another says',
      { do: 'moveActivity', ref: 'A', before: null },
      part('A', { name: 'x' }),
      false,
    ],
    ['references that begin alike', part('A', { name: 'x' }), { do: 'removeActivity', ref: 'A.1' }, false],
  ])('%s', (_, a, b, expected) => {
    expect([collide(a, b), collide(b, a)]).toEqual([expected, expected]);
  });

  test('what does not collide gives the same plan in either order, for 600 random pairs', () => {
    const random = seeded(23);
    let apart = 0;
    for (let k = 0; k < 600; k++) {
      const plan = planOf(
        Array.from({ length: 8 }, (_, i) => [`N${i}`, 3]),
        randomLinks(random, 8, ['FS'], [0, 2]),
      );
      const [a, b] = [randomCommand(plan, random, `X${k}`), randomCommand(plan, random, `Y${k}`)];
      // Where rows stand may depend on who was first; what they are may not.
      const places = (c: Command) => c.do === 'moveActivity' || c.do === 'addActivity';
      if (collide(a, b) || (places(a) && places(b))) continue;
      const both = (first: Command, second: Command): Plan | null => {
        try {
          return applyCommand(applyCommand(plan, first).plan, second).plan;
        } catch (error) {
          if (error instanceof CommandRefused) return null;
          throw error;
        }
      };
      const [ab, ba] = [both(a, b), both(b, a)];
      if (!ab || !ba) continue;
      apart++;
      const sorted = (p: Plan): Plan => ({
        ...p,
        activities: [...p.activities].sort((x, y) => (x.ref < y.ref ? -1 : 1)),
        links: [...p.links].sort((x, y) => (JSON.stringify(x) < JSON.stringify(y) ? -1 : 1)),
      });
      expect([k, a.do, b.do, isSame(compareEditions(sorted(ab), sorted(ba)))]).toEqual([k, a.do, b.do, true]);
    }
    expect(apart).toBeGreaterThan(300);
  });
});
