import type { WorkingTime } from '../calendar/workingTime';
import { MINUTES_PER_DAY } from '../time/civil';

/**
 * Where and when no work may happen. In linear work places are numbers in the unit of the line (negative ones too),
 * times are days as fractions of a day number, so that 20.5 is noon of day 20.
 */
export interface ClosedWindow {
  name: string;
  from: number;
  to: number;
  /** When it closes, and when work may go on. */
  start: number;
  finish: number;
}

/** Distance per working day on a section of the line; the last of several that hold a place counts. */
export interface Rate {
  from: number;
  to: number;
  perDay: number;
}

/** Work that moves along a line, from one place to another in either direction. */
export interface LinearWork {
  ref: string;
  from: number;
  to: number;
  rates: Rate[];
  /** Crews that share the work; the rate is that of one. */
  crews: number;
}

/** A point of a flowline. */
export interface FlowPoint {
  time: number;
  place: number;
}

/** Sections of the way with one rate each, in the direction of the work. */
export function sectionsOf(work: LinearWork): { from: number; to: number; perDay: number }[] {
  if (!(work.crews > 0)) throw new RangeError(`${work.ref}: the number of crews has to be above 0, not ${work.crews}`);
  const forward = work.to >= work.from;
  const [low, high] = forward ? [work.from, work.to] : [work.to, work.from];
  const cuts = new Set([low, high]);
  for (const r of work.rates) for (const p of [r.from, r.to]) if (p > low && p < high) cuts.add(p);
  const places = [...cuts].sort((a, b) => (forward ? a - b : b - a));
  return places.slice(1).map((to, k) => {
    const from = places[k]!;
    const middle = (from + to) / 2;
    const rate = work.rates.filter((r) => Math.min(r.from, r.to) <= middle && middle <= Math.max(r.from, r.to)).at(-1);
    if (!rate || !(rate.perDay > 0))
      throw new RangeError(`${work.ref}: no rate above 0 for the section from ${from} to ${to}`);
    return { from, to, perDay: rate.perDay * work.crews };
  });
}

/** Working days that the work takes: length by rate, section by section; rounded up to whole days only when asked. */
export function linearDuration(work: LinearWork, wholeDays = false): number {
  const days = sectionsOf(work).reduce((sum, s) => sum + Math.abs(s.to - s.from) / s.perDay, 0);
  return wholeDays ? Math.ceil(days - 1e-9) : days;
}

/**
 * The flowline of work that starts at a time: it advances on working days only, changes its slope with the rate,
 * and waits where a closed window holds the place that it has come to. Without a calendar every day is worked.
 */
export function flowline(
  work: LinearWork,
  start: number,
  time: WorkingTime | null,
  windows: readonly ClosedWindow[] = [],
): FlowPoint[] {
  const points: FlowPoint[] = [];
  const put = (t: number, place: number) => {
    const last = points.at(-1);
    if (last && last.time === t && last.place === place) return;
    const before = points.at(-2);
    // A point in the middle of a straight piece says nothing.
    if (
      last &&
      before &&
      Math.abs((last.place - before.place) * (t - last.time) - (place - last.place) * (last.time - before.time)) < 1e-9
    )
      points.pop();
    points.push({ time: t, place });
  };
  let now = nextWorking(start, time);
  put(now, work.from);
  for (const s of sectionsOf(work)) {
    let place = s.from;
    const way = Math.sign(s.to - s.from);
    while (Math.abs(s.to - place) > 1e-9) {
      const free = nextWorking(afterWindows(now, place, way, windows), time);
      if (free > now) {
        put(now, place);
        put(free, place);
        now = free;
        continue;
      }
      const shift = shiftAt(now, time);
      const goal = stopBefore(place, s.to, way, now, windows);
      const needed = Math.abs(goal - place) / (s.perDay * shift.daysPerDay);
      const spent = Math.min(needed, shift.end - now);
      now = needed <= shift.end - now ? now + spent : shift.end;
      const reached = place + way * s.perDay * shift.daysPerDay * spent;
      place = needed <= spent + 1e-12 || Math.abs(goal - reached) <= 1e-9 ? goal : reached;
      put(now, place);
    }
  }
  return points;
}

/** When work may go on: now, or at the beginning of the next working time. */
function nextWorking(at: number, time: WorkingTime | null): number {
  if (!time) return at;
  const day = Math.floor(at + 1e-9);
  if (time.slotsPerDay === 1) return time.isWorkday(day) ? at : time.firstStart(day);
  const minute = Math.round(at * MINUTES_PER_DAY);
  const next = time.firstStart(minute);
  return next === minute ? at : next / MINUTES_PER_DAY;
}

/**
 * The working time that a moment lies in: when it ends, and how many working days pass in a day of the clock. In
 * plans of whole days a working day lasts from midnight to midnight; in hours it has its shifts, and a working day
 * is done in the hours that the calendar calls one.
 */
function shiftAt(now: number, time: WorkingTime | null): { end: number; daysPerDay: number } {
  const day = Math.floor(now + 1e-9);
  if (!time || time.slotsPerDay === 1) return { end: day + 1, daysPerDay: 1 };
  const minute = (now - day) * MINUTES_PER_DAY;
  const interval = time.patternAt(day).find(([from, to]) => minute >= from - 1e-4 && minute < to - 1e-4);
  return {
    end: day + (interval?.[1] ?? MINUTES_PER_DAY) / MINUTES_PER_DAY,
    daysPerDay: MINUTES_PER_DAY / time.spec.minutesPerDay,
  };
}

/** The time at which work may go on at a place, in a direction. */
function afterWindows(now: number, place: number, way: number, windows: readonly ClosedWindow[]): number {
  for (const w of windows) {
    const inside = way > 0 ? place >= w.from && place < w.to : place > w.from && place <= w.to;
    if (inside && now >= w.start - 1e-9 && now < w.finish) return afterWindows(w.finish, place, way, windows);
  }
  return now;
}

/** The next place on the way at which a window that is closed now begins. */
function stopBefore(place: number, to: number, way: number, now: number, windows: readonly ClosedWindow[]): number {
  let goal = to;
  for (const w of windows) {
    if (now < w.start - 1e-9 || now >= w.finish) continue;
    const edge = way > 0 ? w.from : w.to;
    if ((edge - place) * way > 1e-9 && (goal - edge) * way > 0) goal = edge;
  }
  return goal;
}

/** When a flowline passes a place, first and last (it may stand there); null where it does not come. */
export function timesAt(points: readonly FlowPoint[], place: number): { first: number; last: number } | null {
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let k = 1; k < points.length; k++) {
    const [a, b] = [points[k - 1]!, points[k]!];
    if ((place - a.place) * (place - b.place) > 1e-9) continue;
    if (Math.abs(b.place - a.place) < 1e-12) {
      first = Math.min(first, a.time);
      last = Math.max(last, b.time);
    } else {
      const t = a.time + ((b.time - a.time) * (place - a.place)) / (b.place - a.place);
      first = Math.min(first, t);
      last = Math.max(last, t);
    }
  }
  return first === Number.POSITIVE_INFINITY ? null : { first, last };
}

/** Where a flowline is at a time; null before it starts and after it has left. */
export function placeAt(points: readonly FlowPoint[], time: number): number | null {
  if (points.length === 0 || time < points[0]!.time || time > points.at(-1)!.time) return null;
  for (let k = 1; k < points.length; k++) {
    const [a, b] = [points[k - 1]!, points[k]!];
    if (time > b.time) continue;
    return b.time === a.time ? b.place : a.place + ((b.place - a.place) * (time - a.time)) / (b.time - a.time);
  }
  return points[0]!.place;
}
