import { civilFromDay, dayFromCivil, FIRST_DAY, isCivil, LAST_DAY, MINUTES_PER_DAY, weekdayOf } from '../time/civil';
import { type CalendarSpec, type DayPattern, minutesIn } from './spec';

/**
 * How finely a plan is computed. In days, every day with any working time is one slot; in minutes, every
 * working minute is one. A plan whose durations are all whole days is computed in days, so that nothing
 * ever starts in the last minute of a Friday.
 */
export type Resolution = 'day' | 'minute';

/** Slots of a day at a resolution. A slot number is `moment * slotsPerDay / 1440`. */
export const slotsPerDay = (resolution: Resolution): number => (resolution === 'day' ? 1 : MINUTES_PER_DAY);

/**
 * Working time as a set of whole-numbered slots, with the two questions that all calendar arithmetic
 * comes down to, both answered in constant time from prefix sums:
 *
 * - `rank(x)`: how many working slots lie before slot x (negative before the table's origin),
 * - `select(k)`: which slot is the working slot number k; `rank(select(k)) === k`.
 *
 * The table grows by itself when it is asked beyond its range, up to the years 1900 to 2299; past them
 * the answers stop at the limit.
 */
export class WorkingTime {
  readonly slotsPerDay: number;
  private readonly patterns: DayPattern[] = [];
  private readonly sizes: number[] = [];
  private firstDay: number;
  private dayCount = 0;
  /** Rank of the table's first day; ranks are counted from the day the calendar was compiled at. */
  private base = 0;
  private before: Int32Array = new Int32Array(1);
  private patternOf: Uint16Array = new Uint16Array(0);
  private workDays: Int32Array = new Int32Array(0);
  private bucketSize = 1;
  private buckets: Int32Array = new Int32Array(1);
  private total = 0;

  /**
   * @param spec a calendar with working time in its week (see {@link hasWorkingTime})
   * @param originDay a day near those that will be asked about
   */
  constructor(
    readonly spec: CalendarSpec,
    readonly resolution: Resolution,
    originDay: number,
  ) {
    this.slotsPerDay = slotsPerDay(resolution);
    const origin = Math.min(Math.max(originDay, FIRST_DAY), LAST_DAY);
    this.firstDay = origin;
    this.build(Math.max(FIRST_DAY, origin - 400), Math.min(LAST_DAY + 1, origin + 2200));
  }

  /** How many working slots lie before slot x. */
  rank(x: number): number {
    if (this.slotsPerDay === 1) {
      let d = x - this.firstDay;
      if (d < 0 || d >= this.dayCount) d = this.inTable(x); // which may move the table's base
      return this.base + this.before[d]!;
    }
    const day = Math.floor(x / MINUTES_PER_DAY);
    const d = this.inTable(day);
    let rank = this.base + this.before[d]!;
    if (d >= this.dayCount || day < this.firstDay) return rank;
    const minute = x - day * MINUTES_PER_DAY;
    for (const [from, to] of this.patterns[this.patternOf[d]!]!) {
      if (minute <= from) break;
      rank += (minute < to ? minute : to) - from;
    }
    return rank;
  }

  /** The slot that is the working slot number k. */
  select(k: number): number {
    let r = k - this.base;
    while (r < 0 || r >= this.total) {
      if (!this.grow(r < 0)) return r < 0 ? FIRST_DAY * this.slotsPerDay : (LAST_DAY + 1) * this.slotsPerDay;
      r = k - this.base;
    }
    if (this.slotsPerDay === 1) return this.workDays[r]!;
    let i = this.buckets[Math.floor(r / this.bucketSize)]!;
    while (this.before[this.workDays[i]! - this.firstDay + 1]! <= r) i++;
    const day = this.workDays[i]!;
    let left = r - this.before[day - this.firstDay]!;
    for (const [from, to] of this.patterns[this.patternOf[day - this.firstDay]!]!) {
      if (left < to - from) return day * MINUTES_PER_DAY + from + left;
      left -= to - from;
    }
    throw new Error('a day holds fewer working minutes than its pattern');
  }

  /** The first working slot at or after x: where work that may begin at x does begin. */
  firstStart(x: number): number {
    return this.select(this.rank(x));
  }

  /** The last working slot at or before x. */
  lastStart(x: number): number {
    return this.select(this.rank(x + 1) - 1);
  }

  /** The first boundary at or after x that work can end at: the slot before it is a working one. */
  firstFinish(x: number): number {
    return this.select(this.rank(x - 1)) + 1;
  }

  /** The last boundary at or before x that work can end at. */
  lastFinish(x: number): number {
    return this.select(this.rank(x) - 1) + 1;
  }

  /** The boundary at which `duration` working slots end that begin at working slot `start`. Duration at least 1. */
  finishOf(start: number, duration: number): number {
    return this.select(this.rank(start) + duration - 1) + 1;
  }

  /** The working slot at which `duration` working slots begin that end at `finish`. Duration at least 1. */
  startOf(finish: number, duration: number): number {
    return this.select(this.rank(finish) - duration);
  }

  /** The moment for a start that lies a lag after x: a boundary, or for a lead the working slot that begins there. */
  shift(x: number, lag: number): number {
    if (lag === 0) return x;
    const k = this.rank(x) + lag;
    return lag > 0 ? this.select(k - 1) + 1 : this.select(k);
  }

  /**
   * The boundary for a finish that lies a lag after x: the end of the last working slot before it. A working day
   * before Monday's end is Friday's end, not Monday's beginning.
   */
  shiftFinish(x: number, lag: number): number {
    return lag === 0 ? x : this.select(this.rank(x) + lag - 1) + 1;
  }

  /** The last x whose {@link shiftFinish} by `lag` is not after `bound`. */
  shiftFinishBack(bound: number, lag: number): number {
    return lag === 0 ? bound : this.select(this.rank(bound) - lag);
  }

  /** The last x whose {@link shift} by `lag` is not after `bound`. */
  shiftBack(bound: number, lag: number): number {
    if (lag === 0) return bound;
    return this.select(lag > 0 ? this.rank(bound) - lag : this.rank(bound + 1) - 1 - lag);
  }

  /** Working slots from a to b; negative when b lies before a. */
  between(a: number, b: number): number {
    return this.rank(b) - this.rank(a);
  }

  /** The working intervals of a day. */
  patternAt(day: number): DayPattern {
    const d = this.inTable(day);
    return d < this.dayCount && day >= this.firstDay ? this.patterns[this.patternOf[d]!]! : [];
  }

  /** True when any work is done on that day. */
  isWorkday(day: number): boolean {
    return this.patternAt(day).length > 0;
  }

  /** The index of a day in the table, which grows for it; clamped where it cannot grow any more. */
  private inTable(day: number): number {
    while (day < this.firstDay) if (!this.grow(true)) return 0;
    while (day - this.firstDay >= this.dayCount) if (!this.grow(false)) return this.dayCount;
    return day - this.firstDay;
  }

  private grow(backwards: boolean): boolean {
    const first = backwards ? Math.max(FIRST_DAY, this.firstDay - this.dayCount) : this.firstDay;
    const end = backwards ? this.firstDay + this.dayCount : Math.min(LAST_DAY + 1, this.firstDay + 2 * this.dayCount);
    if (first === this.firstDay && end === this.firstDay + this.dayCount) return false;
    this.build(first, end);
    return true;
  }

  private build(first: number, end: number): void {
    const origin = this.firstDay;
    const hadTable = this.dayCount > 0;
    const days = end - first;
    const patternOf = this.assignPatterns(first, days);
    const before = new Int32Array(days + 1);
    const workDays = new Int32Array(days);
    let count = 0;
    let smallest = MINUTES_PER_DAY;
    for (let d = 0; d < days; d++) {
      const minutes = this.sizes[patternOf[d]!]!;
      const size = this.slotsPerDay === 1 ? (minutes > 0 ? 1 : 0) : minutes;
      before[d + 1] = before[d]! + size;
      if (size === 0) continue;
      workDays[count++] = first + d;
      if (size < smallest) smallest = size;
    }
    const total = before[days]!;
    // Ranks stay what they were when the table grows to the left.
    this.base = hadTable ? this.base - before[origin - first]! : -before[origin - first]!;
    this.firstDay = first;
    this.dayCount = days;
    this.before = before;
    this.patternOf = patternOf;
    this.workDays = workDays.subarray(0, count);
    this.total = total;
    if (this.slotsPerDay > 1) this.buildBuckets(smallest);
  }

  /** For every so many working minutes, the working day that they fall in. */
  private buildBuckets(smallestDay: number): void {
    const days = this.workDays.length;
    this.bucketSize = Math.max(1, smallestDay, Math.ceil(this.total / (4 * days + 1)));
    const buckets = new Int32Array(Math.floor(this.total / this.bucketSize) + 1);
    let i = 0;
    for (let b = 0; b < buckets.length; b++) {
      while (i < days - 1 && this.before[this.workDays[i]! - this.firstDay + 1]! <= b * this.bucketSize) i++;
      buckets[b] = i;
    }
    this.buckets = buckets;
  }

  private patternIndex(pattern: DayPattern): number {
    const key = JSON.stringify(pattern);
    const known = this.patterns.findIndex((p) => JSON.stringify(p) === key);
    if (known >= 0) return known;
    this.patterns.push(pattern);
    this.sizes.push(minutesIn(pattern));
    return this.patterns.length - 1;
  }

  private assignPatterns(first: number, days: number): Uint16Array {
    const week = this.spec.week.map((p) => this.patternIndex(p));
    const patternOf = new Uint16Array(days);
    for (let d = 0, weekday = weekdayOf(first); d < days; d++, weekday = weekday === 6 ? 0 : weekday + 1) {
      patternOf[d] = week[weekday]!;
    }
    const put = (day: number, pattern: DayPattern) => {
      if (day >= first && day < first + days) patternOf[day - first] = this.patternIndex(pattern);
    };
    if (this.spec.yearly.length > 0) {
      const lastYear = civilFromDay(first + days).year;
      for (let year = civilFromDay(first).year; year <= lastYear; year++) {
        for (const y of this.spec.yearly) {
          if (isCivil(year, y.month, y.day)) put(dayFromCivil(year, y.month, y.day), y.pattern);
        }
      }
    }
    for (const e of this.spec.exceptions) put(e.day, e.pattern);
    return patternOf;
  }
}

const compiled: Record<Resolution, WeakMap<CalendarSpec, WorkingTime>> = { day: new WeakMap(), minute: new WeakMap() };

/** The working time of a calendar, compiled once. Calendars are never changed in place: a change makes a new one. */
export function workingTimeOf(spec: CalendarSpec, resolution: Resolution, originDay: number): WorkingTime {
  let time = compiled[resolution].get(spec);
  if (!time) compiled[resolution].set(spec, (time = new WorkingTime(spec, resolution, originDay)));
  return time;
}

/** True when there is any working time in the calendar's week; without it nothing could ever be done. */
export const hasWorkingTime = (spec: CalendarSpec): boolean => spec.week.some((pattern) => minutesIn(pattern) > 0);
