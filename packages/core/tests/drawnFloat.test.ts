import { describe, expect, test } from '@jest/globals';
import { endOfDay, type Link, type Plan, schedulePlan, startOfDay, weekdayOf } from '../src/index';
import { planOf, randomLinks, seeded } from './helpers';

// Float as it is defined: how far may this slip before something that must not move has to? Tried day by day, with a
// walk over days that shares nothing with the passes.

const isWork = (calendar: string, day: number): boolean => calendar === 'every' || weekdayOf(day) < 5;
/** The boundary behind so many working days after a boundary. */
function after(calendar: string, boundary: number, days: number): number {
  let at = boundary;
  for (let left = days; left > 0; at++) if (isWork(calendar, at)) left--;
  return at;
}
const first = (calendar: string, day: number): number => (isWork(calendar, day) ? day : first(calendar, day + 1));

interface Bar {
  calendar: string;
  start: number;
  finish: number;
  days: number;
  fixed: boolean;
  latest: number;
}

const startingAt = (bar: Bar, day: number): Bar => {
  const start = first(bar.calendar, day);
  return { ...bar, start, finish: after(bar.calendar, start, bar.days) };
};

/** A bar so late that a link into it holds. */
function pushed(bar: Bar, from: Bar, { type, lag }: Pick<Link, 'type' | 'lag'>): Bar {
  let bound = after(bar.calendar, type === 'FS' || type === 'FF' ? from.finish : from.start, lag);
  // A bound for a finish that a lag, or a beginning, leads to is the end of the last working day before it (the rules of
  // the domain); work that ends on a day off is followed by an end on the next working day.
  if (type === 'SF' || (type === 'FF' && lag > 0)) while (!isWork(bar.calendar, bound - 1)) bound--;
  let next = startingAt(bar, bar.start);
  while (type === 'FS' || type === 'SS' ? next.start < first(bar.calendar, bound) : next.finish < bound)
    next = startingAt(next, next.start + 1);
  return next;
}

/** Whether an activity can slip by so many working days without anything having to move that must not. */
function maySlip(bars: Bar[], links: [number, number, Link['type'], number][], at: number, by: number): boolean {
  const moved = bars.map((b) => ({ ...b }));
  let slipped = moved[at]!;
  for (let k = 0; k < by; k++) slipped = startingAt(slipped, slipped.start + 1);
  if (slipped.start !== bars[at]!.start && slipped.fixed) return false;
  moved[at] = slipped;
  for (const [from, to, type, lag] of links) {
    const bar = moved[to]!;
    const next = pushed(bar, moved[from]!, { type, lag });
    if (next.start > bar.start && bar.fixed) return false;
    moved[to] = next;
  }
  return moved.every((b) => b.finish <= b.latest);
}

/** A plan as drawn in which all links hold, some with room, with a few fixed dates and deadlines. */
function drawnPlan(seed: number): { plan: Plan; bars: Bar[]; links: [number, number, Link['type'], number][] } {
  const random = seeded(seed);
  const n = 8 + Math.floor(random() * 12);
  const calendars = Array.from({ length: n }, () => (random() < 0.6 ? 'five-day' : 'every'));
  const named = randomLinks(random, n, ['FS', 'FS', 'SS', 'FF', 'SF'], [0, 3]);
  const base = planOf(
    calendars.map((c, i) => [`N${i}`, 1 + Math.floor(random() * 8), c]),
    random() < 0.15 ? [] : named,
    { start: startOfDay(20_454) },
  );
  const held = schedulePlan({
    ...base,
    activities: base.activities.map((a) =>
      random() < 0.3
        ? {
            ...a,
            constraint: { kind: 'startNotEarlier' as const, moment: startOfDay(20_454 + Math.floor(random() * 40)) },
          }
        : a,
    ),
  });
  const activities = base.activities.map((a, i) => ({
    ...a,
    start: held.earlyStart[i]!,
    finish: held.earlyFinish[i]!,
    constraint: random() < 0.08 ? { kind: 'fixedStart' as const, moment: held.earlyStart[i]! } : null,
    deadline: random() < 0.15 ? held.earlyFinish[i]! + Math.floor(random() * 9) * 1440 : null,
  }));
  const plan: Plan = { ...base, source: 'given', activities };
  const end = Math.max(...activities.map((a) => a.finish)) / 1440;
  const bars = activities.map((a, i) => ({
    calendar: calendars[i]!,
    start: a.start / 1440,
    finish: a.finish / 1440,
    days: a.duration! / 480,
    fixed: a.constraint !== null,
    latest: Math.min(end, a.deadline === null ? end : a.deadline / 1440),
  }));
  const at = (ref: string) => Number(ref.slice(1));
  return {
    plan,
    bars,
    links: plan.links
      .map((l): [number, number, Link['type'], number] => [at(l.from), at(l.to), l.type, l.lag / 480])
      .sort((x, y) => x[1] - y[1]),
  };
}

describe('float of dates as drawn', () => {
  test('against trying it day by day: 1,000 random plans', () => {
    let checked = 0;
    for (let seed = 1; seed <= 1000; seed++) {
      const { plan, bars, links } = drawnPlan(seed);
      const s = schedulePlan(plan);
      bars.forEach((_, i) => {
        let float = 0;
        while (float < 300 && maySlip(bars, links, i, float + 1)) float++;
        expect([seed, i, s.totalFloat[i]! / 480]).toEqual([seed, i, float]);
        checked++;
      });
    }
    expect(checked).toBeGreaterThan(10_000);
  }, 240_000);

  test('a link that the dates break gives its predecessor a negative float, and so on backwards', () => {
    const plan = planOf(
      [
        ['A', 5],
        ['B', 5],
        ['C', 5],
      ],
      [
        ['A', 'B'],
        ['B', 'C'],
      ],
      { start: 0 },
    );
    const dates = [0, 5, 7];
    const drawn: Plan = {
      ...plan,
      source: 'given',
      activities: plan.activities.map((a, i) => ({
        ...a,
        start: startOfDay(dates[i]!),
        finish: endOfDay(dates[i]! + 4),
      })),
    };
    const s = schedulePlan(drawn);
    // C begins on day 7, and B ends with day 9: three days too late, and A, which B follows at once, likewise.
    expect([...s.totalFloat].map((f) => f / 480)).toEqual([-3, -3, 0]);
  });
});
