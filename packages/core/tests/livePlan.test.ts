import { describe, expect, test } from '@jest/globals';
import {
  compareEditions,
  type Command,
  isSame,
  LivePlan,
  makeActivity,
  makeField,
  makeLink,
  type Plan,
  schedulePlan,
} from '../src/index';
import { ARRAYS, planOf, randomLinks, seeded } from './helpers';

function randomCommand(plan: Plan, random: () => number, k: number): Command {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const ref = pick(plan.activities).ref;
  switch (Math.floor(random() * 10)) {
    case 0:
      return { do: 'changeActivity', ref, part: { name: `n${k}` } };
    case 1:
    case 2:
      return { do: 'changeActivity', ref, part: { duration: Math.floor(random() * 9) * 480 } };
    case 3:
      return { do: 'changeActivity', ref, part: { percent: pick([null, 20, 100]) } };
    case 4:
      return { do: 'recode', field: 'zone', codes: [[ref, `Z${k % 3}`]] };
    case 5:
      return {
        do: 'setPlan',
        settings: pick([{ name: `p${k}` }, { statusDate: 20_010 * 1440 }, { required: ['name'] }]),
      };
    case 6:
      return { do: 'addActivity', activity: makeActivity({ ref: `X${k}`, duration: 480 }), before: ref };
    case 7:
      return plan.activities.length > 10 ? { do: 'removeActivity', ref } : { do: 'setPlan', settings: {} };
    case 8: {
      const [a, b] = [Math.floor(random() * plan.activities.length), Math.floor(random() * plan.activities.length)];
      if (a === b) return { do: 'setPlan', settings: {} };
      const [from, to] = [Math.min(a, b), Math.max(a, b)].map((i) => plan.activities[i]!.ref) as [string, string];
      return { do: 'addLink', link: makeLink({ from, to }) };
    }
    default: {
      const changes = Array.from({ length: 3 }, (): Command => {
        const other = pick(plan.activities).ref;
        return { do: 'changeActivity', ref: other, part: { duration: Math.floor(random() * 5) * 480 } };
      });
      return { do: 'all', commands: [...changes, { do: 'recode', field: 'zone', codes: [[ref, 'N']] }] };
    }
  }
}

describe('a plan that follows commands', () => {
  test('has the schedule of a full run and the findings too, for 20 plans and 60 random commands on each, and back', () => {
    for (let round = 0; round < 20; round++) {
      const random = seeded(900 + round);
      const begun = planOf(
        Array.from({ length: 25 }, (_, i) => [`N${i}`, 1 + Math.floor(random() * 5)]),
        randomLinks(random, 25, ['FS', 'SS', 'FF'], [0, 3]),
        { start: 20_000 * 1440, codeFields: [makeField({ id: 'zone', name: 'Zone' })] },
      );
      const live = new LivePlan(begun);
      const inverses: Command[] = [];
      const compare = (what: unknown) => {
        const full = schedulePlan(live.plan);
        for (const name of ARRAYS)
          expect([round, what, name, [...live.schedule[name]]]).toEqual([round, what, name, [...full[name]]]);
        live.refreshFindings();
        expect([round, what, live.schedule.findings]).toEqual([round, what, full.findings]);
      };
      for (let k = 0; k < 60; k++) {
        const command = randomCommand(live.plan, random, k);
        inverses.unshift(live.apply(command));
        compare([k, command.do]);
      }
      for (const command of inverses) live.apply(command);
      expect(live.plan.activities).toEqual(begun.activities);
      expect(isSame(compareEditions(live.plan, begun))).toBe(true);
      compare('back');
    }
  });
});
