import type { WorkingTime } from '../calendar/workingTime';
import { dayOf, type Day, endOfDay, finishDayOf, MINUTES_PER_DAY, type Moment, startOfDay } from './civil';

/** When something is, in moments; a point in time has both the same. */
export interface Span {
  start: Moment;
  finish: Moment;
  /** False for a point that stands at the beginning of its day. */
  atFinish: boolean;
}

/**
 * The day on which something is shown to begin: the one that its start begins; a point at the end of a day lies on
 * that day. Together with {@link lastDayOf} the one place that decides this.
 */
export function firstDayOf({ start, finish, atFinish }: Span): Day {
  return start === finish && atFinish ? finishDayOf(start) : dayOf(start);
}

/** The day on which something is shown to end: the one that its finish ends; a point at a beginning lies on that day. */
export function lastDayOf({ start, finish, atFinish }: Span): Day {
  return start === finish && !atFinish
    ? dayOf(finish)
    : Math.max(finishDayOf(finish), start < finish ? dayOf(start) : Number.NEGATIVE_INFINITY);
}

/**
 * The moment from which a span takes part in sums of time: a point that stands at the end of its day takes the whole
 * day, so that what holds it begins on that day too.
 */
export const firstBoundary = (span: Span): Moment =>
  span.start === span.finish && span.atFinish && span.start % MINUTES_PER_DAY === 0
    ? startOfDay(firstDayOf(span))
    : span.start;

/** The moment up to which a span takes part in sums of time: a point at the beginning of a day takes the whole day. */
export const lastBoundary = (span: Span): Moment =>
  span.start === span.finish && !span.atFinish && span.finish % MINUTES_PER_DAY === 0
    ? endOfDay(lastDayOf(span))
    : span.finish;

/**
 * By how many working days one day lies behind another: the working days after the one, up to the other; negative when
 * it lies before it. The one place that compares days: on which side of its day something stands takes no part.
 * From Friday to Monday 1, from Friday to Sunday 0, from Monday to Friday before −1 (in a week of five days).
 *
 * @param time working time in days
 */
export const workingDaysApart = (time: WorkingTime, from: Day, to: Day): number => time.between(from + 1, to + 1);
