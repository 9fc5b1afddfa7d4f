import { type CalendarSpec, LAST_DAY, FIRST_DAY, workingTimeOf } from '@clembo/core';
import { chooseTiers, dayNames, type Tick, ticks } from '@clembo/scene/time';

/** The time that the strips show, in days and fractions of them. */
export interface View {
  from: number;
  to: number;
}

/** The least width of a strip in pixels. */
export const STRIP_LEAST = 320;

/** From two hours to a century. */
const LEAST = 1 / 12;
const MOST = 36_525;

const within = ({ from, to }: View): View => {
  const length = Math.min(MOST, Math.max(LEAST, to - from));
  const begin = Math.min(Math.max(from, FIRST_DAY), LAST_DAY - length);
  return { from: begin, to: begin + length };
};

/** Nearer or farther, with the day that is pointed at staying where it is. */
export const zoomed = ({ from, to }: View, factor: number, at: number): View => {
  const length = Math.min(MOST, Math.max(LEAST, (to - from) * factor));
  const share = (at - from) / (to - from);
  return within({ from: at - share * length, to: at + (1 - share) * length });
};

/** To the side by a share of what is shown. */
export const panned = ({ from, to }: View, share: number): View =>
  within({ from: from + share * (to - from), to: to + share * (to - from) });

/** Two rows of ticks over the strips, coarse above fine. */
export interface Tiered {
  upper: { tick: Tick; name: string }[];
  lower: { tick: Tick; name: string }[];
}

const CHARACTER = 6.4;

function named(list: Tick[], perMinute: number, names: (t: Tick) => string[]): { tick: Tick; name: string }[] {
  const named = list.map((tick) => {
    const room = (tick.to - tick.from) * perMinute - 6;
    return { tick, name: names(tick).find((n) => n.length * CHARACTER <= room) ?? '' };
  });
  const whole = list.find((t) => t.whole) ?? list[0];
  if (!whole || named.some((t) => t.name !== '')) return named;
  // Where none has room, every so many of them are named.
  const name = names(whole).at(-1)!;
  const each = Math.max(1, Math.ceil((name.length * CHARACTER + 8) / ((whole.to - whole.from) * perMinute)));
  return list.map((tick, k) => ({ tick, name: k % each === 0 ? names(tick).at(-1)! : '' }));
}

/** What stands over strips of a width in pixels. */
export function tieredTicks(view: View, width: number): Tiered {
  const days = view.to - view.from;
  const { upper, lower } = chooseTiers(width / days, 12, days);
  const [from, to] = [view.from * 1440, view.to * 1440];
  const perMinute = width / (to - from);
  const upperNames = (t: Tick) => (upper === 'day' ? dayNames(t) : t.names);
  return {
    upper: named(ticks(from, to, upper), perMinute, upperNames),
    lower: named(ticks(from, to, lower), perMinute, (t) => t.names),
  };
}

/** Pixels that a day must have for days off, and for hours off, to be seen. */
const DAYS_SEEN = 3;
const HOURS_SEEN = 60;

/** Times without work of a calendar within a view, as days and fractions; none where a day is too small to see. */
export function timesOff(spec: CalendarSpec, view: View, width: number): [from: number, to: number][] {
  const perDay = width / (view.to - view.from);
  if (perDay < DAYS_SEEN) return [];
  const time = workingTimeOf(spec, 'day', Math.floor(view.from));
  const off: [number, number][] = [];
  const put = (from: number, to: number) => {
    if (to <= from) return;
    const last = off.at(-1);
    if (last && last[1] >= from - 1e-9) last[1] = to;
    else off.push([from, to]);
  };
  for (let day = Math.floor(view.from); day < view.to; day++) {
    const pattern = time.patternAt(day);
    if (pattern.length === 0) put(day, day + 1);
    else if (perDay >= HOURS_SEEN) {
      let at = 0;
      for (const [from, to] of pattern) {
        put(day + at / 1440, day + from / 1440);
        at = to;
      }
      put(day + at / 1440, day + 1);
    }
  }
  return off;
}

const SHADE = 'rgb(30 42 50 / 0.055)';

/** The ground of strips: times off shaded. Empty where there is nothing to shade. */
export function groundOf(off: readonly [number, number][], view: View): string {
  if (off.length === 0) return '';
  const at = (day: number) => `${Math.round((10_000 * (day - view.from)) / (view.to - view.from)) / 100}%`;
  const stops = off.flatMap(([from, to]) => [
    `transparent ${at(from)}`,
    `${SHADE} ${at(from)}`,
    `${SHADE} ${at(to)}`,
    `transparent ${at(to)}`,
  ]);
  return `linear-gradient(to right, ${stops.join(', ')})`;
}
