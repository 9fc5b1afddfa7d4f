import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  type Command,
  datedOn,
  FIVE_DAY,
  followersOf,
  isoDate,
  makeActivity,
  makeLink,
  makePlan,
  NONE,
  parseIsoDate,
  type Plan,
  schedulePlan,
  shownDays,
} from '../src/index';
import { seeded } from './helpers';

const iso = (text: string) => parseIsoDate(text)!;
const dated = (ref: string, first: string, last: string, more = {}) => {
  const bare = makeActivity({ ref, name: ref, ...more });
  return {
    ...bare,
    ...datedOn({ calendars: [FIVE_DAY], calendar: FIVE_DAY.id }, bare, iso(first), iso(last)),
    ...more,
  };
};
const plan = (activities: Plan['activities'], links: [string, string][]): Plan =>
  makePlan({
    name: 'Given',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities,
    links: links.map(([from, to]) => makeLink({ from, to })),
  });
function moved(p: Plan, ref: string, first: string, last: string): Plan {
  const a = p.activities.find((x) => x.ref === ref)!;
  const command: Command = { do: 'changeActivity', ref, part: datedOn(p, a, iso(first), iso(last)) };
  const followers = followersOf(p, schedulePlan(p), command);
  return applyCommand(p, { do: 'all', commands: [command, ...followers] }).plan;
}
const say = (p: Plan) => {
  const s = schedulePlan(p);
  return p.activities.map((_, i) => {
    const d = shownDays(s, i)!;
    return `${isoDate(d.first).slice(5)}..${isoDate(d.last).slice(5)}`;
  });
};

describe('what follows in a plan with given dates', () => {
  // A Monday 5 to Friday 9 January, B the week after, C a week later still with a week's room, D on its own.
  const base = plan(
    [
      dated('A', '2026-01-05', '2026-01-09'),
      dated('B', '2026-01-12', '2026-01-16'),
      dated('C', '2026-01-26', '2026-01-30'),
      dated('D', '2026-01-12', '2026-01-13'),
    ],
    [
      ['A', 'B'],
      ['B', 'C'],
    ],
  );
  test('goes later as far as the links ask, over weekends, and no further', () => {
    expect(say(moved(base, 'A', '2026-01-07', '2026-01-13'))).toEqual([
      '01-07..01-13',
      '01-14..01-20',
      '01-26..01-30',
      '01-12..01-13',
    ]);
    expect(say(moved(base, 'A', '2026-01-19', '2026-01-23'))).toEqual([
      '01-19..01-23',
      '01-26..01-30',
      '02-02..02-06',
      '01-12..01-13',
    ]);
  });
  test('nothing goes earlier, and what has begun stays', () => {
    expect(say(moved(base, 'B', '2026-01-05', '2026-01-09'))[2]).toBe('01-26..01-30');
    const begun = { ...base, activities: [...base.activities] };
    begun.activities[1] = { ...begun.activities[1]!, actualStart: iso('2026-01-12') * 1440 };
    expect(say(moved(begun, 'A', '2026-01-19', '2026-01-23'))[1]).toBe('01-12..01-16');
  });
  test('a link that is drawn asks for its due, with its lag', () => {
    const link: Command = { do: 'addLink', link: makeLink({ from: 'A', to: 'D', lag: 2 * 480 }) };
    const followers = followersOf(base, schedulePlan(base), link);
    const after = applyCommand(base, { do: 'all', commands: [link, ...followers] }).plan;
    expect(say(after)[3]).toBe('01-14..01-15');
  });
  test('links that are broken before are left as they are', () => {
    const broken = plan(
      [
        dated('A', '2026-01-05', '2026-01-09'),
        dated('B', '2026-01-12', '2026-01-16'),
        dated('X', '2026-02-02', '2026-02-06'),
        dated('Y', '2026-01-26', '2026-01-30'),
      ],
      [
        ['A', 'B'],
        ['X', 'Y'],
      ],
    );
    expect(say(moved(broken, 'A', '2026-01-12', '2026-01-16'))).toEqual([
      '01-12..01-16',
      '01-19..01-23',
      '02-02..02-06',
      '01-26..01-30',
    ]);
  });

  test('300 random plans: what held holds, what moved had to, by a check of the links alone', () => {
    const random = seeded(12);
    for (let round = 0; round < 300; round++) {
      const n = 9;
      const links: [string, string][] = [];
      const first: number[] = [];
      const last: number[] = [];
      for (let k = 0; k < n; k++) {
        let begin = iso('2026-01-05') + Math.floor(random() * 10);
        for (let u = 0; u < k; u++)
          if (random() < 0.3) {
            links.push([`R${u}`, `R${k}`]);
            begin = Math.max(begin, last[u]! + 1);
          }
        first.push(begin);
        last.push(begin + Math.floor(random() * 6));
      }
      const p = plan(
        first.map((f, k) => dated(`R${k}`, isoDate(f), isoDate(last[k]!))),
        links,
      );
      const by = 1 + Math.floor(random() * 15);
      const after = moved(p, 'R0', isoDate(first[0]! + by), isoDate(last[0]! + by));
      const [s, t] = [schedulePlan(p), schedulePlan(after)];
      const holds = (x: typeof s, [from, to]: [string, string]) => {
        const [i, j] = [x.outline.indexOf.get(from)!, x.outline.indexOf.get(to)!];
        return x.start[j] === NONE || x.start[j]! >= x.finish[i]!;
      };
      for (const link of links) expect([round, link, !holds(s, link) || holds(t, link)]).toEqual([round, link, true]);
      // Whatever moved stands right behind something that it comes after.
      after.activities.forEach((a, j) => {
        if (a.ref === 'R0' || t.start[j] === s.start[j]) return;
        expect(t.start[j]!).toBeGreaterThan(s.start[j]!);
        const tight = links.some(([from, to]) => {
          if (to !== a.ref) return false;
          const end = shownDays(t, t.outline.indexOf.get(from)!)!.last;
          let next = end + 1;
          while ((next + 3) % 7 > 4) next++;
          return shownDays(t, j)!.first === next;
        });
        expect([round, a.ref, tight]).toEqual([round, a.ref, true]);
      });
    }
  });
});
