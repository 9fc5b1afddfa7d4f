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

/** Where something stands: its first day, and the morning after its last; a point has both the same. */
interface Place {
  start: number;
  finish: number;
  /** A point at the beginning of its day. */
  begins: boolean;
}

/**
 * Early and late places by walking day by day, with nothing but a list of which days are worked. Slow, and written
 * only from the rules: work starts on a worked day and finishes on the evening of one; a lag counts worked days of
 * the successor; what a lag leads a finish to, and what must be finished when something else starts, is the evening
 * of the last worked day before it. A milestone stands on the evening of what it ends, else on a morning.
 */
function byWalking(plan: Plan): { early: Place[]; late: Place[] } {
  const n = plan.activities.length;
  const index = new Map(plan.activities.map((a, i) => [a.ref, i]));
  const specs = plan.activities.map((a) => plan.calendars.find((c) => c.id === (a.calendar ?? plan.calendar))!);
  const works = (i: number, d: number) => specs[i]!.week[(((d + 3) % 7) + 7) % 7]!.length > 0;
  const length = plan.activities.map((a) => a.duration! / 480);
  const into = plan.activities.map((a) => plan.links.filter((l) => l.to === a.ref));
  const out = plan.activities.map((a) => plan.links.filter((l) => l.from === a.ref));
  const isPoint = (i: number) => length[i] === 0;
  const canEnd = plan.activities.map(
    (a, i) => isPoint(i) && a.kind === 'finishMilestone' && into[i]!.some((l) => l.type === 'FS' || l.type === 'FF'),
  );
  const eveningBefore = (j: number, day: number) => {
    let d = day;
    while (!works(j, d - 1)) d--;
    return d;
  };
  const morningAfter = (j: number, day: number) => {
    let d = day;
    while (!works(j, d)) d++;
    return d;
  };
  const walk = (j: number, from: number, lag: number) => {
    let d = from;
    for (let left = lag; left > 0; d++) if (works(j, d)) left--;
    for (let left = -lag; left > 0; ) if (works(j, --d)) left--;
    return d;
  };
  const holds = (link: Link, places: Place[], late = false) => {
    const [i, j] = [index.get(link.from)!, index.get(link.to)!];
    const [from, to] = [places[i]!, places[j]!];
    const leavesStart = link.type === 'SS' || link.type === 'SF' || (isPoint(i) && from.begins);
    const reachesFinish = isPoint(j) ? canEnd[j]! && !leavesStart : link.type === 'FF' || link.type === 'SF';
    let bound = walk(j, link.type === 'FS' || link.type === 'FF' ? from.finish : from.start, link.lag / 480);
    if (reachesFinish && (link.lag !== 0 || leavesStart)) bound = eveningBefore(j, bound);
    if (!isPoint(j)) return bound <= (reachesFinish ? to.finish : to.start);
    if (to.begins || reachesFinish) return bound <= to.start;
    // For something that begins, an evening is as late as the next morning; but at the earliest it begins then.
    return late ? bound <= morningAfter(j, to.finish) : bound < to.finish;
  };
  const workFrom = (i: number, start: number): Place => {
    let d = start;
    for (let left = length[i]!; left > 0; d++) if (works(i, d)) left--;
    return { start, finish: d, begins: false };
  };
  /** The places of a day at which something can stand, in their order. */
  const placesOn = (i: number, d: number): Place[] => {
    if (!works(i, d)) return [];
    if (!isPoint(i)) return [workFrom(i, d)];
    const morning = { start: d, finish: d, begins: true };
    return canEnd[i] ? [morning, { start: d + 1, finish: d + 1, begins: false }] : [morning];
  };
  const first = plan.start! / 1440;
  const early: Place[] = [];
  for (let j = 0; j < n; j++) {
    // The evening before the first day is as early as its morning.
    for (let d = canEnd[j] ? eveningBefore(j, first) - 1 : first; !early[j]; d++) {
      for (const place of placesOn(j, d)) {
        if (place.begins && place.start < first) continue;
        const places = [...early];
        places[j] = place;
        const ends = !isPoint(j) || place.begins || into[j]!.some((l) => bindsEvening(l, places));
        if (ends && into[j]!.every((l) => holds(l, places))) {
          early[j] = place;
          break;
        }
      }
    }
  }
  /** A milestone stands on an evening only when something ends on it. */
  function bindsEvening(link: Link, places: Place[]): boolean {
    const j = index.get(link.to)!;
    const from = places[index.get(link.from)!]!;
    const leavesStart = link.type === 'SS' || link.type === 'SF' || (isPoint(index.get(link.from)!) && from.begins);
    const dayBefore = [...places];
    dayBefore[j] = { ...places[j]!, start: places[j]!.start - 1, finish: places[j]!.finish - 1 };
    return !leavesStart && holds(link, places) && !holds(link, dayBefore);
  }
  // A point in a morning ends the plan in the evening of its day.
  const evening = (p: Place) => (p.begins && p.start === p.finish ? p.finish + 1 : p.finish);
  const end = Math.max(...early.map(evening));
  const late: Place[] = [];
  for (let i = n - 1; i >= 0; i--) {
    for (let d = end; !late[i]; d--) {
      const place = placesOn(i, d).find((p) => p.begins === early[i]!.begins);
      if (!place || evening(place) > end) continue;
      const places = [...late];
      places[i] = place;
      if (out[i]!.every((l) => holds(l, places, true))) late[i] = place;
    }
  }
  return { early, late };
}

describe('random networks with calendars against a walk day by day', () => {
  test.each(Array.from({ length: 60 }, (_, k) => k + 1))(
    '60 activities and points on three calendars, seed %i',
    (seed) => {
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
      // Half of the networks have points in time among their work.
      if (seed % 2 === 0)
        for (const a of plan.activities) {
          if (random() > 0.2) continue;
          a.duration = 0;
          a.kind = random() < 0.5 ? 'startMilestone' : 'finishMilestone';
        }
      const s = schedulePlan(plan);
      const walked = byWalking(plan);
      const days = (list: Int32Array) => Array.from(list, (m) => m / 1440);
      expect(days(s.earlyStart)).toEqual(walked.early.map((p) => p.start));
      expect(days(s.earlyFinish)).toEqual(walked.early.map((p) => p.finish));
      expect(days(s.lateStart)).toEqual(walked.late.map((p) => p.start));
      expect(days(s.lateFinish)).toEqual(walked.late.map((p) => p.finish));
    },
  );
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
