import { dayOf, type Day, finishDayOf, type Moment } from './civil';

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
