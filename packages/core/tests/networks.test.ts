import { describe, expect, test } from '@jest/globals';
import { createRequire } from 'node:module';
import { LINK_TYPES, type Link, type Plan, schedulePlan, WorkingTime } from '../src/index';
import { planOf, randomLinks, seeded } from './helpers';

const require = createRequire(import.meta.url);
const highs = await require('highs')();

/** Earliest and latest starts by linear programme: the sum of starts at its least and at its greatest. */
function byLinearProgramme(
  durations: number[],
  links: [string, string, Link['type'], number][],
  finish: number | null,
) {
  const rows = links.map(([from, to, type, lag], k) => {
    const [i, j] = [Number(from.slice(1)), Number(to.slice(1))];
    // start(j) - start(i) >= weight
    const weight = {
      FS: durations[i]! + lag,
      SS: lag,
      FF: durations[i]! - durations[j]! + lag,
      SF: lag - durations[j]!,
    }[type];
    return ` c${k}: x${j} - x${i} >= ${weight}`;
  });
  const bounds = durations.map((d, i) => ` 0 <= x${i}${finish === null ? '' : ` <= ${finish - d}`}`);
  const sum = durations.map((_, i) => `x${i}`).join(' + ');
  const text = `${finish === null ? 'Minimize' : 'Maximize'}\n obj: ${sum}\nSubject To\n${rows.join('\n')}\nBounds\n${bounds.join('\n')}\nEnd`;
  const solution = highs.solve(text);
  return durations.map((_, i) => Math.round(solution.Columns[`x${i}`].Primal) + 0);
}

describe('random networks against a linear programme (npm highs)', () => {
  test.each([1, 2, 3, 4, 5])('200 activities with every link type and lags from -3 to 7, seed %i', (seed) => {
    const random = seeded(seed);
    const durations = Array.from({ length: 200 }, () => 1 + Math.floor(random() * 12));
    const links = randomLinks(random, 200, LINK_TYPES, [-3, 7]);
    const plan = planOf(
      durations.map((d, i) => [`N${i}`, d]),
      links,
    );
    const s = schedulePlan(plan);
    const early = Array.from(s.earlyStart, (m) => m / 1440);
    const late = Array.from(s.lateStart, (m) => m / 1440);
    expect(early).toEqual(byLinearProgramme(durations, links, null));
    expect(late).toEqual(byLinearProgramme(durations, links, s.planFinish / 1440));
  });
});

/**
 * Early and late starts by walking day by day, with nothing but a list of which days are worked. Slow, and
 * written only from the rules: a start is a worked day, a finish the evening of one; a lag counts worked days
 * of the successor.
 */
function byWalking(plan: Plan): { early: number[]; late: number[] } {
  const n = plan.activities.length;
  const index = new Map(plan.activities.map((a, i) => [a.ref, i]));
  const specs = plan.activities.map((a) => plan.calendars.find((c) => c.id === (a.calendar ?? plan.calendar))!);
  const works = (i: number, d: number) => specs[i]!.week[(((d + 3) % 7) + 7) % 7]!.length > 0;
  const length = plan.activities.map((a) => a.duration! / 480);
  const finishOf = (i: number, start: number) => {
    let d = start;
    for (let left = length[i]!; left > 0; d++) if (works(i, d)) left--;
    return d; // the morning after the last worked day
  };
  const lagged = (j: number, from: number, lag: number) => {
    let d = from;
    for (let left = lag; left > 0; d++) if (works(j, d)) left--;
    if (lag < 0) {
      let left = -lag;
      while (left > 0) if (works(j, --d)) left--;
    }
    return d;
  };
  const holds = (link: Link, start: number[]) => {
    const [i, j] = [index.get(link.from)!, index.get(link.to)!];
    const from = link.type === 'FS' || link.type === 'FF' ? finishOf(i, start[i]!) : start[i]!;
    const to = link.type === 'FS' || link.type === 'SS' ? start[j]! : finishOf(j, start[j]!);
    return lagged(j, from, link.lag / 480) <= to;
  };
  const into = plan.activities.map((a) => plan.links.filter((l) => l.to === a.ref));
  const out = plan.activities.map((a) => plan.links.filter((l) => l.from === a.ref));
  const early: number[] = [];
  for (let j = 0; j < n; j++) {
    early[j] = plan.start! / 1440;
    while (!works(j, early[j]!) || !into[j]!.every((l) => holds(l, early))) early[j]!++;
  }
  const end = Math.max(...early.map((s, i) => finishOf(i, s)));
  const late = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    late[i] = end;
    while (!works(i, late[i]!) || finishOf(i, late[i]!) > end || !out[i]!.every((l) => holds(l, late))) late[i]!--;
  }
  return { early, late };
}

describe('random networks with calendars against a walk day by day', () => {
  test.each(Array.from({ length: 30 }, (_, k) => k + 1))('60 activities on three calendars, seed %i', (seed) => {
    const random = seeded(1000 + seed);
    const calendars = ['every', 'five-day', 'six-day'];
    const plan = planOf(
      Array.from({ length: 60 }, (_, i) => [
        `N${i}`,
        1 + Math.floor(random() * 9),
        calendars[Math.floor(random() * 3)]!,
      ]),
      randomLinks(random, 60, LINK_TYPES, [-3, 5]),
      { start: (20_000 + Math.floor(random() * 7)) * 1440 },
    );
    const s = schedulePlan(plan);
    const walked = byWalking(plan);
    expect(Array.from(s.earlyStart, (m) => m / 1440)).toEqual(walked.early);
    expect(Array.from(s.lateStart, (m) => m / 1440)).toEqual(walked.late);
  });
});

describe('rank and select', () => {
  test('agree with counting, also far outside the first table', () => {
    const spec = planOf([], []).calendars[1]!;
    for (const resolution of ['day', 'minute'] as const) {
      const time = new WorkingTime(spec, resolution, 20_000);
      const unit = time.slotsPerDay;
      for (const from of [-20_000, 0, 19_990, 40_000]) {
        const a = from * unit + 3 * (unit > 1 ? 200 : 0);
        for (let k = 0; k < 40; k++) {
          const slot = time.select(time.rank(a) + k);
          expect(time.rank(slot)).toBe(time.rank(a) + k);
          expect(time.rank(slot + 1)).toBe(time.rank(a) + k + 1);
        }
        expect(time.between(a, a + 7 * 100 * unit)).toBe(500 * (unit > 1 ? 480 : 1));
      }
    }
  });
});
