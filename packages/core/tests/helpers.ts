import {
  endOfDay,
  FIVE_DAY,
  makeActivity,
  makeLink,
  makePlan,
  type Link,
  type Plan,
  parseIsoDate,
  SEVEN_DAY,
  SIX_DAY,
  startOfDay,
} from '../src/index';

/** A seeded source of numbers from 0 up to 1 (mulberry32), so that a failing case can be run again. */
export function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A calendar on which every day counts, so that dates are plain day numbers. */
export const EVERY_DAY = { ...SEVEN_DAY, id: 'every', name: 'Every day' };

export const day = (text: string): number => startOfDay(parseIsoDate(text)!);
/** The end of a day. */
export const end = (text: string): number => endOfDay(parseIsoDate(text)!);

/** A plan from short notation: `['A', 5]`, and links `['A', 'B']` or `['A', 'B', 'SS', 2]` with lags in days. */
export function planOf(
  activities: [ref: string, days: number, calendar?: string][],
  links: [from: string, to: string, type?: Link['type'], lagDays?: number][],
  more: Partial<Plan> = {},
): Plan {
  return makePlan({
    name: 'Test',
    start: 0,
    source: 'computed',
    calendars: [EVERY_DAY, FIVE_DAY, SIX_DAY],
    calendar: 'every',
    activities: activities.map(([ref, days, calendar]) =>
      makeActivity({ ref, name: ref, duration: days * 480, calendar: calendar ?? null }),
    ),
    links: links.map(([from, to, type = 'FS', lag = 0]) => makeLink({ from, to, type, lag: lag * 480 })),
    ...more,
  });
}

/** A random network without loops: each activity has links to a few later ones. */
export function randomLinks(
  random: () => number,
  count: number,
  types: readonly Link['type'][],
  lags: [number, number],
): [string, string, Link['type'], number][] {
  const links: [string, string, Link['type'], number][] = [];
  for (let to = 1; to < count; to++) {
    const wanted = Math.floor(random() * 3) + (random() < 0.9 ? 1 : 0);
    const seen = new Set<number>();
    for (let k = 0; k < wanted; k++) {
      const from = Math.floor(random() * to);
      if (seen.has(from)) continue;
      seen.add(from);
      const lag = lags[0] + Math.floor(random() * (lags[1] - lags[0] + 1));
      links.push([`N${from}`, `N${to}`, types[Math.floor(random() * types.length)]!, lag]);
    }
  }
  return links;
}

/** The arrays of a schedule that two ways to compute it have to agree in. */
export const ARRAYS = [
  'start',
  'finish',
  'earlyStart',
  'earlyFinish',
  'lateStart',
  'lateFinish',
  'totalFloat',
  'freeFloat',
  'critical',
  'atFinish',
] as const;

/**
 * A bridge of four sections, trade by trade: quantities and what a crew does in a day. With continuous work it takes
 * 117.80 days (Selinger 1980; Russell & Caselton 1988; El-Rayes & Moselhi 2001; numbers from memory).
 */
export const BRIDGE = [
  { name: 'Excavation', output: 91.75, quantities: [1147, 1434, 994, 1529] },
  { name: 'Foundations', output: 71.81, quantities: [1032, 1077, 943, 898] },
  { name: 'Columns', output: 8.03, quantities: [104, 86, 129, 100] },
  { name: 'Beams', output: 7.07, quantities: [85, 92, 101, 80] },
  { name: 'Slabs', output: 8.73, quantities: [0, 138, 114, 145] },
];
